"""Two texts side by side: rows that line up what both have."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher

# So many lines ahead a line is looked for, and so much (of 1) it must have in common.
REACH, ALIKE = 30, 0.65
_WORD = re.compile(r"\w")


@dataclass(frozen=True)
class Row:
    """One row: a line of either text by its number from 0, None where there is none.

    `kind` is "same", "changed", "old" (only old has it) or "new".
    """

    kind: str
    old: int | None
    new: int | None


def aligned(old: Sequence[str], new: Sequence[str]) -> list[Row]:
    """The rows of two lists of lines. Lines that differ in white space at their ends alone are the same."""
    ours, theirs = [line.strip() for line in old], [line.strip() for line in new]
    rows: list[Row] = []
    matcher = SequenceMatcher(_says_nothing, ours, theirs, autojunk=False)
    for tag, i, i2, j, j2 in matcher.get_opcodes():
        if tag == "equal":
            rows += [Row("same", i + at, j + at) for at in range(i2 - i)]
        elif tag == "delete":
            rows += [Row("old", at, None) for at in range(i, i2)]
        elif tag == "insert":
            rows += [Row("new", None, at) for at in range(j, j2)]
        else:
            rows += _replaced(ours, theirs, (i, i2), (j, j2))
    return rows


def _says_nothing(line: str) -> bool:
    """Whether a line is an end of something, or empty: no text is lined up by such lines."""
    return _WORD.search(line) is None


def _replaced(
    ours: list[str], theirs: list[str], old: tuple[int, int], new: tuple[int, int]
) -> list[Row]:
    """Rows of a stretch that became another: lines alike, and what lies between them, side by side."""
    rows: list[Row] = []
    here, j = old[0], new[0]
    for i in range(*old):
        near = range(j, min(new[1], j + REACH))
        best = max(near, key=lambda at: _alike(ours[i], theirs[at]), default=-1)
        if best >= 0 and _alike(ours[i], theirs[best]) >= ALIKE:
            rows += _beside(range(here, i), range(j, best))
            rows.append(Row("changed", i, best))
            here, j = i + 1, best + 1
    return rows + _beside(range(here, old[1]), range(j, new[1]))


def _beside(old: range, new: range) -> list[Row]:
    both = [Row("changed", i, j) for i, j in zip(old, new, strict=False)]
    rest = len(both)
    return [
        *both,
        *(Row("old", i, None) for i in old[rest:]),
        *(Row("new", None, j) for j in new[rest:]),
    ]


def _alike(one: str, other: str) -> float:
    if _says_nothing(one) or _says_nothing(other):
        return 0.0
    matcher = SequenceMatcher(None, one, other, autojunk=False)
    return matcher.ratio() if matcher.quick_ratio() >= ALIKE else 0.0
