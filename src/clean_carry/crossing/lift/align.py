"""Several blocks as one: which of their parts are the same, which some lack, and which are lists."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from clean_carry.crossing.lift.block import Block, matched

# A copy, or an item of a list within one: the number of the copy, then of the items inside it.
Place = tuple[int, ...]
# Runs of so many children in each copy are a list; two in each are two parts.
_LIST = 3


@dataclass(eq=False)
class Part:
    """A part of a template: what stands there in each copy that has it.

    In a list `runs` are the items in each copy, and `item` is the part that all items are copies of; the
    places of its blocks are those of the copies with the number of the item behind.
    """

    blocks: dict[Place, Block]
    children: list[Part] = field(default_factory=list)
    optional: bool = False
    runs: dict[Place, list[Block]] = field(default_factory=dict)
    item: Part | None = None

    @property
    def base(self) -> Block:
        """The block with the most elements and texts; the component copies its bytes."""
        return max(self.blocks.values(), key=lambda one: one.weight)

    @property
    def tag(self) -> str:
        """The tag of the blocks; "" of texts."""
        return next(iter(self.blocks.values())).tag

    @property
    def weight(self) -> int:
        """The number of elements and texts of the template, an item of each list once."""
        if self.item is not None:
            return self.item.weight
        return 1 + sum(one.weight for one in self.children)

    def walk(self) -> Iterator[Part]:
        """This part and all below it; of lists the list, then its item."""
        yield self
        for one in (self.item,) if self.item is not None else self.children:
            if one is not None:
                yield from one.walk()


def aligned(blocks: Mapping[Place, Block]) -> Part:
    """The template of some blocks with one tag."""
    part = Part(dict(blocks))
    if part.tag:
        for column in _columns(blocks):
            part.children += _of_column(column, len(blocks))
    return part


def _of_column(column: dict[Place, list[Block]], count: int) -> list[Part]:
    optional = len(column) < count
    lengths = {len(run) for run in column.values()}
    if max(lengths) == 1 or (len(lengths) == 1 and max(lengths) < _LIST):
        found = []
        for at in range(max(lengths)):
            one = aligned({place: run[at] for place, run in column.items()})
            one.optional = optional
            found.append(one)
        return found
    items = {(*place, at): one for place, run in column.items() for at, one in enumerate(run)}
    return [
        Part({p: run[0] for p, run in column.items()}, [], optional, dict(column), aligned(items))
    ]


def _columns(blocks: Mapping[Place, Block]) -> list[dict[Place, list[Block]]]:
    """The children of all blocks in columns: those of one column are the same part.

    Each block in turn, the heaviest first, is aligned with the columns so far; what has no column gets one.
    """
    columns: list[dict[Place, list[Block]]] = []
    for place in sorted(blocks, key=lambda one: -blocks[one].weight):
        columns = _with(columns, blocks[place].runs, place)
    return columns


def _with(
    columns: list[dict[Place, list[Block]]], runs: list[list[Block]], place: Place
) -> list[dict[Place, list[Block]]]:
    leads = [next(iter(column.values()))[0] for column in columns]
    score = [[0.0] * (len(runs) + 1) for _ in range(len(leads) + 1)]
    for i, lead in enumerate(leads):
        for j, run in enumerate(runs):
            both = matched(lead, run[0])
            score[i + 1][j + 1] = max(
                score[i][j] + both if both else 0.0, score[i][j + 1], score[i + 1][j]
            )
    made: list[dict[Place, list[Block]]] = []
    i, j = len(leads), len(runs)
    while i or j:
        both = matched(leads[i - 1], runs[j - 1][0]) if i and j else 0.0
        if both and score[i][j] == score[i - 1][j - 1] + both:
            i, j = i - 1, j - 1
            made.append({**columns[i], place: runs[j]})
        elif j and (not i or score[i][j] == score[i][j - 1]):
            j -= 1
            made.append({place: runs[j]})
        else:
            i -= 1
            made.append(columns[i])
    return made[::-1]


def looseness(part: Part) -> float:
    """How much of a template is content that differs, from 0 to 1.

    Counted are parts of one parent of which no copy has two; small ones, as one field or another, are not.
    """
    loose = 0
    for one in part.walk():
        choices: dict[frozenset[Place], int] = {}
        for child in one.children:
            if child.optional:
                places = frozenset(child.blocks)
                choices[places] = choices.get(places, 0) + child.weight
        for places, weight in choices.items():
            if weight >= _LARGE and any(not places & other for other in choices):
                loose += weight
    return loose / part.weight


_LARGE = 3
