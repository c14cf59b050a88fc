"""The members that other files read from an instance that was passed to them.

By text alone, like `importers.py`: every name read from anything but the owner's own `this`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from functools import cache
from pathlib import Path

from clean_carry.source.importers import importers_of, project_of, texts_of
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.workspace import Workspace

# The owner itself, and what templates are compiled to ask.
_OWN = ("this", "this?", "$options", "_ctx", "$data", "$props", "$setup")
# The dot comes first: a pattern that begins with a character is looked for quickly.
_DOT = r"\.(?<!_this\d\.)(?<!_this\d\d\.)" + "".join(rf"(?<!{re.escape(n)}\.)" for n in _OWN)
_MEMBER = re.compile(_DOT + r"([A-Za-z_]\w*)")
_WRITTEN = re.compile(
    _DOT + r"([A-Za-z_]\w*)\s*(?:=(?![=>])|(?:[-+*/%|&^]|\*\*|\?\?|\|\||&&)=|\+\+|--)"
)
# Names taken out of an object by a pattern.
_TAKEN = re.compile(r"\{([\w\s,:$={}]{1,400})\}\s*(?:=(?![=>])(?!\s*this\b)|[,)])")
_QUOTED = re.compile(r"['\"]([A-Za-z_]\w*)['\"]")


def asked_of_handed(file: Path) -> frozenset[str]:
    """Return the members that any file of the project around `file` may read from an instance."""
    root = project_of(file)
    return _asked(root) if root is not None else frozenset()


@cache
def _asked(root: Path) -> frozenset[str]:
    return asked_in_texts(texts_of(root))


def asked_in_texts(texts: Iterable[str]) -> frozenset[str]:
    """The names texts ask of anything but their own instance."""
    return frozenset(name for text in texts for name in _asked_in(text))


@cache
def _asked_in(text: str) -> frozenset[str]:
    asked = set(_MEMBER.findall(text))
    for taken in _TAKEN.findall(text):
        asked.update(re.findall(r"\w+", taken))
    return frozenset(asked)


def written_in(texts: Iterable[str]) -> frozenset[str]:
    """The names texts write on anything but their own instance."""
    return frozenset(name for text in texts for name in _written_in(text))


@cache
def _written_in(text: str) -> frozenset[str]:
    return frozenset(_WRITTEN.findall(text))


def around(file: Path, trees: Mapping[Path, Tree], workspace: Workspace) -> list[str]:
    """The texts that may be passed what stands in some files: their own, those they import, and those
    that import `file`."""
    paths = dict.fromkeys(trees)
    for path, tree in trees.items():
        for statement in tree.of("import_statement"):
            source = statement.child("source")
            found = workspace.resolve(source.text[1:-1], path) if source is not None else None
            if found is not None:
                paths[found] = None
    return [workspace.text(p) for p in paths] + [i.text for i in importers_of(file)]


def called_with(file: Path, function: str) -> frozenset[str] | None:
    """The words the project calls a function with, as its first argument; None where one is no word."""
    root = project_of(file)
    return _words(root, function) if root is not None else None


@cache
def _words(root: Path, function: str) -> frozenset[str] | None:
    found: set[str] = set()
    for text in texts_of(root):
        if function not in text:
            continue
        for call in re.finditer(rf"\b{re.escape(function)}\(([^)]*)\)?(\s*\{{)?", text):
            if call[2]:
                # Where it is defined.
                continue
            word = _QUOTED.match(call[1].strip())
            if word is None:
                return None
            found.add(word[1])
    return frozenset(found)


def asked_under(texts: Iterable[str], key: str) -> frozenset[str]:
    """The names texts ask of what stands under a name: `key.x`, `a.key.x`, or by a pattern."""
    name = re.escape(key)
    member = re.compile(rf"{name}(?<![\w$]{name})\??\.(\w+)")
    taken = re.compile(
        rf"{name}(?<!\w{name})\s*:\s*\{{([\w\s,:$=]*)\}}"
        rf"|\{{([\w\s,:$=]*)\}}\s*=\s*[\w.]*\b{name}\b"
    )
    found: set[str] = set()
    for text in texts:
        if key not in text:
            continue
        found.update(member.findall(text))
        for one, other in taken.findall(text):
            found.update(re.findall(r"\w+", one or other))
    return frozenset(found)
