"""Texts of a template in pieces, each with where it comes from."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeVar

Origin = TypeVar("Origin")


def trimmed(pieces: Sequence[tuple[str, Origin]]) -> list[tuple[str, Origin]]:
    """A template without white space at either end."""
    kept = [one for one in pieces if one[0]]
    while kept and not kept[0][0].strip():
        kept.pop(0)
    while kept and not kept[-1][0].strip():
        kept.pop()
    if kept:
        kept[0] = (kept[0][0].lstrip(), kept[0][1])
        kept[-1] = (kept[-1][0].rstrip(), kept[-1][1])
    return kept
