"""Blocks of markup as labelled trees: what lifting compares, whatever syntax the markup stands in."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

# Class names that say where or how a block stands, and not what it is: columns, spaces, states.
_PLACED = re.compile(
    r"(?:[a-z]+-)?(?:col|row|grid|cell|column|width|container|offset|order|flex|float|align|justify|margin|"
    r"padding|child|position|display|border|rounded|shadow|text|font|clearfix|no-gutters|"
    r"elevation|visible|hidden|inline|transition|inverse|light|dark)(?:-.*|@.*|\d*)$"
    r"|(?:d|m[btlrxy]?|p[btlrxy]?|w|h|mw|mh|my|mx|py|px|g|bg)-.*$"
    r"|(?:[a-z]+-)?(?:active|disabled|show|collapse|collapsed|open|first|last|selected|current|fade|left|right|small|large)$"
)
# The end of a name that says which variant of a thing it is.
_VARIANT = re.compile(
    r"-(?:primary|secondary|success|danger|warning|info|default|muted|light|dark|link|outline|white|black|"
    r"gray|red|green|blue|yellow|xx?s|sm|md|lg|xx?l|xsmall|small|medium|large|xlarge|\d+)$"
)
# Attributes of the standards; others with a dash in them belong to scripts that look for them.
_OF_STANDARDS = re.compile(r"(?:data|aria|accept|http|stroke|fill|stop|clip|font|text|v)-")
# Elements in a column of text, of which runs are no lists of data.
_NO_LIST = frozenset("td th br hr p h1 h2 h3 h4 h5 h6 col dt dd i b strong em script style".split())


@dataclass(eq=False)
class Block:
    """An element, or a text where `tag` is "". `source` and `node` say where it stands."""

    tag: str
    text: str = ""
    attributes: dict[str, str | None] = field(default_factory=dict)
    children: list[Block] = field(default_factory=list)
    parent: Block | None = None
    source: Any = None
    node: Any = None
    # Why a component of its own cannot hold it, as the end of "it holds …"; "" where one can.
    stays: str = ""
    # Whether it stands under a condition or in a loop of its template, or is code around markup.
    conditional: bool = False

    def walk(self) -> Iterator[Block]:
        """This block and all below it, in tree order."""
        stack = [self]
        while stack:
            here = stack.pop()
            yield here
            stack.extend(reversed(here.children))

    def above(self) -> Iterator[Block]:
        """The blocks around this one, inside out."""
        here = self.parent
        while here is not None:
            yield here
            here = here.parent

    # Whether white space stands before it, and behind it as the last child: only where a page shows that.
    space_before: bool = False
    space_behind: bool = False

    @cached_property
    def classes(self) -> tuple[str, ...]:
        """The names of the `class` attribute, in their order."""
        return tuple((self.attributes.get("class") or "").split())

    @cached_property
    def names(self) -> frozenset[str]:
        """The class names, and attributes of no standard, that say what the block is; variants as one."""
        own = (
            one
            for one, value in self.attributes.items()
            if not value and "-" in one and not _OF_STANDARDS.match(one)
        )
        return frozenset(
            _VARIANT.sub("", one) for one in (*self.classes, *own) if not _PLACED.match(one)
        )

    @cached_property
    def elements(self) -> list[Block]:
        """The children that are elements."""
        return [one for one in self.children if one.tag]

    @cached_property
    def size(self) -> int:
        """The number of elements in it, itself included."""
        return 1 + sum(one.size for one in self.elements) if self.tag else 0

    @cached_property
    def key(self) -> int:
        """A number that blocks share which have the same tags and class names throughout."""
        return _interned((self.tag, self.classes, tuple(one.key for one in self.children)))

    @cached_property
    def runs(self) -> list[list[Block]]:
        """The children, those that follow each other and are alike together."""
        found: list[list[Block]] = []
        for one in self.children:
            if found and one.tag not in _NO_LIST and one.tag and _follows(found[-1][0], one):
                found[-1].append(one)
            else:
                found.append([one])
        return found

    @cached_property
    def kinds(self) -> int:
        """The number of elements in it, of each run only those of one child."""
        return 1 + sum(max(one.kinds for one in run) for run in self.runs) if self.tag else 0

    @cached_property
    def weight(self) -> int:
        """The number of elements and texts in it, of each run only one child, the heaviest."""
        return 1 + sum(max(one.weight for one in run) for run in self.runs)


_numbers: dict[Any, int] = {}


def _interned(value: Any) -> int:
    return _numbers.setdefault(value, len(_numbers))


def _follows(first: Block, other: Block) -> bool:
    """Whether a child may stand in a list with one before it: the same tag, and like content."""
    if first.tag != other.tag or not compatible(first, other):
        return False
    return first.key == other.key or likeness(first, other) >= _IN_A_LIST


def compatible(a: Block, b: Block) -> bool:
    """Whether the class names of two elements speak of one thing."""
    return a.names == b.names or bool(a.names & b.names)


def alike_placed(a: Block, b: Block) -> bool:
    """Whether two elements without names of their own share a third of their class names."""
    if a.names or not (a.classes or b.classes):
        return True
    first, second = set(a.classes), set(b.classes)
    return 3 * len(first & second) >= len(first | second)


# Children of one parent are one list from this likeness on.
_IN_A_LIST = 0.6
# The score of two elements with one tag and no class name in common; with one in common it is 1.
_OTHER_NAMES = 0.4
# Two lists of children are aligned in order up to this product of their lengths, and else counted.
_MOST_CELLS = 4000

_matched: dict[tuple[int, int], float] = {}


def likeness(a: Block, b: Block) -> float:
    """How alike two blocks are, from 0 to 1: twice the nodes that align, of all nodes of both.

    The measure is Dice's over a top-down alignment of ordered trees (Selkow 1977), in which a run of alike
    children counts as one and a part that one side lacks counts as not aligned.
    """
    return 2 * matched(a, b) / (a.weight + b.weight)


def matched(a: Block, b: Block) -> float:
    """The weight of the nodes that align."""
    if a.tag != b.tag or (a.tag == "tr" and len(a.elements) != len(b.elements)):
        return 0.0
    if a.key == b.key:
        return float(a.weight)
    if a.elements and b.elements and not compatible(a, b):
        # Elements with content and other names are different things.
        return 0.0
    pair = (a.key, b.key) if a.key < b.key else (b.key, a.key)
    known = _matched.get(pair)
    if known is None:
        known = 1.0 if compatible(a, b) else _OTHER_NAMES
        known += _aligned([run[0] for run in a.runs], [run[0] for run in b.runs])
        _matched[pair] = known
    return known


def _aligned(first: list[Block], second: list[Block]) -> float:
    if not first or not second:
        return 0.0
    if len(first) * len(second) > _MOST_CELLS:
        keys = {one.key for one in second}
        return float(sum(one.weight for one in first if one.key in keys))
    before = [0.0] * (len(second) + 1)
    for one in first:
        here = [0.0]
        for at, other in enumerate(second):
            here.append(max(before[at] + matched(one, other), before[at + 1], here[at]))
        before = here
    return before[-1]


def forget() -> None:
    """Drop what is remembered of earlier trees."""
    _numbers.clear()
    _matched.clear()
