"""The members that descendants read from a value provided under a key, in all files of a project.

By text alone, like `importers.py`: a name it does not understand makes the answer unknown.
"""

from __future__ import annotations

import re
from functools import cache
from pathlib import Path

from clean_carry.source.importers import project_of, texts_of

_INJECT = re.compile(r"\binject\s*:\s*(\[[^\]]*\]|\{)")
# Tokens that may follow the name of an injected value without passing the value on.
_HARMLESS = re.compile(
    r"\s*(?:\)|&&|\|\||\?(?![.])|===?\s*(?:null|undefined)|!==?\s*(?:null|undefined))"
)


def asked_of_provided(file: Path, key: str) -> frozenset[str] | None:
    """The members that any file asks of what is injected under `key`; None where that is not known."""
    root = project_of(file)
    return _asked(root, key) if root is not None else None


def is_injected(file: Path, key: str) -> bool:
    """Whether any file of the project injects something under a name."""
    root = project_of(file)
    texts = texts_of(root) if root is not None else ()
    return any(key in text and "inject" in text for text in texts)


@cache
def _asked(root: Path, key: str) -> frozenset[str] | None:
    found: set[str] = set()
    for text in texts_of(root):
        if key not in text or "inject" not in text:
            continue
        if re.search(rf"inject(?<!\winject)(?:<[^()]*>)?\(\s*['\"]?{re.escape(key)}\b", text):
            # Code that injects by a call may do anything with it.
            return None
        for local in _locals(text, key):
            # The name comes first: a pattern that begins with characters is looked for quickly.
            name = re.escape(local)
            own = rf"(?:(?<![\w$'\".-]{name})|(?<=\bthis\.{name}))"
            for use in re.finditer(rf"{name}{own}\b", text):
                start = use.start() - len("this.") * text.endswith("this.", 0, use.start())
                names = _members(text, start, use.end())
                if names is None:
                    return None
                found |= names
    return frozenset(found)


def _locals(text: str, key: str) -> set[str]:
    """The names under which a file injects a key."""
    found: set[str] = set()
    quoted = rf"['\"]{re.escape(key)}['\"]"
    for match in _INJECT.finditer(text):
        if match[1].startswith("["):
            if re.search(quoted, match[1]):
                found.add(key)
            continue
        block = text[match.end() : match.end() + 600]
        found.update(re.findall(rf"(\w+)\s*:\s*(?:\{{[^{{}}]*\bfrom\s*:\s*)?{quoted}", block))
        own = re.search(rf"\b{re.escape(key)}\s*:\s*(\{{[^{{}}]*\}})", block)
        if own is not None and "from" not in own[1]:
            found.add(key)
    return found


def _members(text: str, start: int, end: int) -> frozenset[str] | None:
    """Return the member that one use reads: none if it is only tested; None if the value is passed
    on."""
    after = text[end : end + 60]
    member = re.match(r"\s*[?!]?\.(\w+|\$\w+)", after)
    if member is not None:
        return frozenset([member[1]])
    guarded = re.match(r"\s*\|\|\s*\{\s*\}\s*\)\s*\.(\w+)", after)
    if guarded is not None:
        return frozenset([guarded[1]])
    declared = re.match(r"\s*:\s*[{'\"]", after)
    if declared is not None or text[start - 1 : start] == "!" or _HARMLESS.match(after):
        return frozenset()
    return None
