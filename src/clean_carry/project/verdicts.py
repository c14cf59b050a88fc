"""The last verdict on an old and a new file, remembered by the content of both."""

from __future__ import annotations

import hashlib
from pathlib import Path

from clean_carry.project.index.store import FactStore

_KIND = "verdict pairs"


def note_verdict(root: Path, old: Path, new: Path, verdict: str) -> None:
    """Remember a verdict in the user's cache; nothing is written to the project."""
    name = _name(old, new)
    store = FactStore.of(root, fresh=False)
    try:
        if name:
            store.keep_values(_KIND, {name: verdict}, only=False)
    finally:
        store.close()


def known_verdicts(root: Path, pairs: list[tuple[Path, Path]]) -> list[str]:
    """The verdict on each pair as it is now, "" where it was not verified since one of them changed."""
    store = FactStore.of(root, fresh=False)
    try:
        known = store.values(_KIND)
    finally:
        store.close()
    return [str(known.get(_name(old, new), "")) for old, new in pairs]


def _name(old: Path, new: Path) -> str:
    try:
        texts = [path.read_bytes() for path in (old, new)]
    except OSError:
        return ""
    total = hashlib.sha256()
    for path, text in zip((old, new), texts, strict=True):
        total.update(str(path.resolve()).encode() + b"\0" + hashlib.sha256(text).digest())
    return total.hexdigest()[:32]
