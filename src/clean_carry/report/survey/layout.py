"""The places of components in the picture of a survey: users above what they use, leaves at the bottom."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, sqrt

from clean_carry.project.index.model import Key
from clean_carry.project.survey import Row

# A box and the room around it, in units of the picture.
WIDTH, HEIGHT, GAP = 168, 30, 12
# The room between two levels; less where there are so many that nobody sees lines between them.
LEVEL_GAP, CLOSE_GAP, MANY = 44, 6, 600
# How much wider than high the picture is.
_SHAPE = 3.4


@dataclass(frozen=True)
class Layout:
    """`places` are (x, y) of each row's box, in the order of the rows; `edges` are pairs of row numbers
    (user, used); `width` and `height` are those of the picture."""

    places: tuple[tuple[int, int], ...]
    edges: tuple[tuple[int, int], ...]
    width: int
    height: int


def layout(rows: Sequence[Row]) -> Layout:
    """Give each component of a survey a place on the page.

    `rows` come in the survey's order: a component stands after those it uses.
    """
    number = {row.found.key: at for at, row in enumerate(rows)}
    edges = [
        (at, number[one.key])
        for at, row in enumerate(rows)
        for one in row.uses
        if one.key in number and one.key != row.found.key
    ]
    levels = _levels(rows, number)
    by_level: dict[int, list[int]] = defaultdict(list)
    for at, level in enumerate(levels):
        by_level[level].append(at)
    across = max(4, ceil(sqrt(len(rows) * (HEIGHT + GAP) * _SHAPE / (WIDTH + GAP))))
    places: list[tuple[int, int]] = [(0, 0)] * len(rows)
    used: dict[int, list[int]] = defaultdict(list)
    for user, to in edges:
        used[user].append(to)
    between = LEVEL_GAP if len(rows) <= MANY else CLOSE_GAP
    y = GAP
    order = sorted(by_level, reverse=True)
    # The lowest level is placed first, so that users come to stand above what they use.
    heights = {level: ceil(len(by_level[level]) / across) * (HEIGHT + GAP) for level in order}
    tops: dict[int, int] = {}
    for level in order:
        tops[level] = y
        y += heights[level] + between
    for level in reversed(order):
        here = by_level[level]
        if level:
            here = sorted(here, key=lambda at: _middle(places, used[at]))
        lines = [here[at : at + across] for at in range(0, len(here), across)]
        for line, members in enumerate(lines):
            start = (across - len(members)) * (WIDTH + GAP) // 2 + GAP
            for column, at in enumerate(members):
                places[at] = (start + column * (WIDTH + GAP), tops[level] + line * (HEIGHT + GAP))
    width = across * (WIDTH + GAP) + GAP
    return Layout(tuple(places), tuple(edges), width, y - between + GAP)


def _levels(rows: Sequence[Row], number: dict[Key, int]) -> list[int]:
    """How many components stand below each at most; uses inside of a cycle do not count."""
    below = [
        [
            number[one.key]
            for one in row.uses
            if one.key in number and one.seen.name not in row.cycle and number[one.key] != at
        ]
        for at, row in enumerate(rows)
    ]
    levels = [0] * len(rows)
    # Each round finishes one more level; a graph without cycles needs as many as it is deep.
    for _ in rows:
        changed = False
        for at, used in enumerate(below):
            level = max((levels[one] + 1 for one in used), default=0)
            if level > levels[at] and level < len(rows):
                levels[at], changed = level, True
        if not changed:
            break
    return levels


def _middle(places: list[tuple[int, int]], used: list[int]) -> float:
    return sum(places[at][0] for at in used) / len(used) if used else 0.0
