"""Reads of a directive's scope by outside code, through the element: `isolateScope()`, `scope()`.

The members of a component are its controller's: code that asks the scope for them finds nothing there.
"""

from __future__ import annotations

import re
from pathlib import Path

from clean_carry.source.importers import files_of, is_aside, project_of
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.directives import dashed

_ASKS = re.compile(r"\.(?:isolateScope|scope)\(\s*\)")
# So far from each other the tag, the scope and its member are taken to belong together.
_NEAR = 2000
_TEST = re.compile(r"[._-](?:spec|tests?)\.\w+$")


def reached_scope(
    file: Path, source: SourceText, name: str, members: set[str]
) -> tuple[str, int] | None:
    """A member of its scope that other code asks an element of it for, and the offset where that is this
    file.

    -1 stands for another file; None where nobody asks. By text alone: code that names the element and
    asks a scope for a member of this name is taken to mean it.
    """
    own = source.slice(0, len(source.data))
    found = _asked(own, name, members)
    if found is not None:
        return found
    root = project_of(file)
    for path, text in files_of(root, ".js") if root is not None else ():
        assert root is not None
        if path == file or ".component." in path.name or _is_test(path, root):
            continue
        asked = _asked(text, name, members)
        if asked is not None:
            return f"{asked[0]}, in {path.name}", -1
    return None


def asked_in_tests(file: Path, name: str, members: set[str]) -> list[tuple[str, int]]:
    """(file, line) of the tests that ask an element's scope for a member: they are to be changed."""
    root = project_of(file)
    found = []
    for path, text in files_of(root, ".js") if root is not None else ():
        asked = _asked(text, name, members) if root is not None and _is_test(path, root) else None
        if asked is not None:
            line = text.encode()[: asked[1]].count(b"\n") + 1
            found.append((str(path), line))
    return found


def _is_test(path: Path, root: Path) -> bool:
    return _TEST.search(path.name) is not None or is_aside(path, root)


def _asked(text: str, name: str, members: set[str]) -> tuple[str, int] | None:
    tag = re.compile(
        rf"[\"'`][^\"'`\n]*(?<![\w-]){re.escape(dashed(name))}(?![\w-])[^\"'`\n]*[\"'`]"
    )
    for asks in _ASKS.finditer(text):
        # The element is found by its tag in the same stretch of code.
        before = text[max(asks.start() - _NEAR, 0) : asks.start()]
        if not tag.search(before):
            continue
        for member in re.finditer(r"\.(\w+)\b", text[asks.end() : asks.end() + _NEAR]):
            if member[1] in members:
                return member[1], len(text[: asks.start()].encode())
    return None
