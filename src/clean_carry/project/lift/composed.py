"""The markup of a component that was lifted: the bytes of one copy, with what differs put in its places."""

from __future__ import annotations

from abc import ABC, abstractmethod
from itertools import pairwise
from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.props import Plan
from clean_carry.source.html.display import BLOCKS
from clean_carry.source.html.page import PageNode
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText


class Composed(ABC):
    """Composes one template. The abstract methods say what differs between syntaxes.

    The object that `edits_of` gives has `edits`, `instead` and `attributes` as `MarkupEdits` has.
    """

    def __init__(self, plan: Plan) -> None:
        self.plan = plan

    @abstractmethod
    def edits_of(self, source: SourceText) -> Any:
        """An empty collection of edits of a source."""

    @abstractmethod
    def attribute(self, name: str, code: str) -> str:
        """An attribute that code gives."""

    @abstractmethod
    def optional(self, child: Part, place: Place, markup: Any, node: PageNode) -> str:
        """A part under its condition."""

    @abstractmethod
    def shown(self, child: Part, place: Place) -> str | None:
        """The text of a part, or None where it is the same in all copies."""

    @abstractmethod
    def repeated(self, child: Part, place: Place) -> str:
        """A list."""

    def text(self, part: Part, place: Place | None = None, extra: str = "") -> str:
        """The markup of a part; `extra` are attributes that its tag gets."""
        if place is None or place not in part.blocks:
            base = part.base
            place = next(at for at, block in part.blocks.items() if block is base)
        block = part.blocks[place]
        markup = self.edits_of(block.source)
        self._fill(markup, part, place)
        markup.element(block.node)
        edits = markup.edits
        if extra:
            at = block.node.start + 1 + len(block.node.tag.encode())
            edits.append(Edit(at, at, f" {extra}"))
        return applied(block, edits)

    def _fill(self, markup: Any, part: Part, place: Place) -> None:
        """Put what differs in the places of an element and of what is in it."""
        node = part.blocks[place].node
        for name, code in self.plan.attributes.get(id(part), ()):
            written = self.attribute(name, code)
            one = next((a for a in node.attributes if _is_named(a.name, name, node)), None)
            if one is not None:
                markup.attributes[id(one)] = written
            else:
                at = node.start + 1 + len(node.tag.encode())
                markup.edits.append(Edit(at, at, f" {written}"))
        last: PageNode | None = None
        for child in part.children:
            here = child.blocks.get(place)
            if child.item is not None and id(child) not in self.plan.lists:
                last = child.runs[place][-1].node
                continue
            if child.item is not None:
                text = self.repeated(child, place)
                run = child.runs.get(place, [])
                for one in run[1:]:
                    markup.instead[id(one.node)] = ""
                drop_between(markup, node, run)
            elif not child.tag:
                shown = self.shown(child, place)
                if shown is None and here is not None:
                    last = here.node
                    continue
                text = shown or ""
            elif child.optional:
                text = self.optional(child, place, markup, node)
            else:
                self._fill(markup, child, place)
                last = child.blocks[place].node
                continue
            if here is not None:
                markup.instead[id(here.node)] = text
                last = child.runs[place][-1].node if child.item is not None else here.node
            else:
                self._insert(markup, node, last, child, text)

    def _insert(
        self, markup: Any, node: PageNode, last: PageNode | None, child: Part, text: str
    ) -> None:
        """Add a part that the copied text lacks, behind the one before it, with the space before it."""
        at = last.end if last is not None else node.inner[0]
        block = child.base
        data = block.source.data
        start = block.node.start
        space = data[len(data[:start].rstrip(b" \t\n\r")) : start].decode()
        if "\n" in space:
            lines = markup.data[:at].rpartition(b"\n")[2]
            own = lines[: len(lines) - len(lines.lstrip())].decode()
            space = f"\n{own}" if last is not None else f"\n{own}  "
        markup.edits.append(Edit(at, at, space + text))


def applied(block: Block, edits: list[Edit]) -> str:
    """The text of a block after edits within it."""
    node = block.node
    parts, here = [], node.start
    for edit in sorted(edits, key=lambda one: (one.start, one.end)):
        parts += [block.source.slice(here, edit.start), edit.text]
        here = max(here, edit.end)
    return "".join([*parts, block.source.slice(here, node.end)])


def is_spaced(part: Part) -> bool:
    """Whether white space between the items of a list shows: they stand in a line."""
    assert part.item is not None
    if part.item.tag in BLOCKS:
        return False
    for run in part.runs.values():
        for one, other in pairwise(run):
            between: bytes = one.source.data[one.node.end : other.node.start]
            if not between.strip(b" \t\n\r"):
                return bool(between)
    return False


def drop_between(markup: Any, parent: PageNode, run: list[Block]) -> None:
    """White space and comments between the items of a list go."""
    if len(run) < 2:
        return
    start, end = run[0].node.end, run[-1].node.start
    for node in parent.children:
        if node.kind != "element" and start <= node.start and node.end <= end:
            markup.instead[id(node)] = ""


def drop_row(markup: Any, parent: PageNode, row: list[PageNode]) -> None:
    """All but the first of some siblings go, with the white space between them."""
    for node in row[1:]:
        markup.instead[id(node)] = ""
    for node in parent.children:
        if node.kind != "element" and row[0].end <= node.start and node.end <= row[-1].start:
            markup.instead[id(node)] = ""


def _is_named(written: str, name: str, node: PageNode) -> bool:
    """Whether an attribute has a name; in drawings the case counts."""
    return (written if node.foreign else written.lower()) == name
