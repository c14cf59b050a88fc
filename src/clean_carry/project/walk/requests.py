"""How an import is written so that it means another file: in the form its author chose."""

from __future__ import annotations

import posixpath
import re

from clean_carry.source.index.facts import Import
from clean_carry.source.index.parsed import SCRIPTS

_ENDING = re.compile(r"\.\w+$")


def rewritten(one: Import, old: str, new: str) -> str:
    """The text between the quotes of an import of `old` that means `new`, as its author would write it."""
    written = pointed_at(one.request, old, new)
    # The place of a script element needs no dot before a name; the index always notes one.
    bare = one.how == "script" and one.end - one.start == len(one.request.encode()) - len("./")
    return written.removeprefix("./") if bare else written


def pointed_at(request: str, old: str, new: str) -> str:
    """The request for `new` where `request` means `old`; both are absolute paths.

    A relative path, an alias and the name of a package stay what they are; an ending is written where one
    was, and where the new file needs one.
    """
    folder, _, name = old.rpartition("/")
    target = posixpath.relpath(new, folder)
    stem = _ENDING.sub("", name)
    for tail in (name, stem):
        if request == tail or request.endswith("/" + tail):
            base = request[: len(request) - len(tail)]
            return base + (_short(target) if tail == stem != name else target)
    # The folder alone was named, and its index file meant.
    return request.rstrip("/") + "/" + _short(target)


def _short(target: str) -> str:
    """A path without the ending that imports may leave out."""
    ending = target[target.rfind(".") :]
    return target[: -len(ending)] if ending in SCRIPTS else target
