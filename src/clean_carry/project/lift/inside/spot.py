"""Where a block of a component file stands: what the composers of components copy and change."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.html.page import PageNode
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText


@dataclass
class Spot(PageNode):
    """A node; `around` are the stretches of its tag that belong to what is around the element."""

    around: list[tuple[int, int]] = field(default_factory=list)


class SpotEdits:
    """The edits that put something else in the places of nodes and attributes.

    `instead` are texts for nodes, `attributes` those for attributes, by their numbers in Python.
    """

    def __init__(self, source: SourceText) -> None:
        self.source, self.data = source, source.data
        self.edits: list[Edit] = []
        self.instead: dict[int, str] = {}
        self.attributes: dict[int, str] = {}

    def element(self, node: PageNode) -> None:
        """Collect the edits of an element and of what is in it."""
        for one in node.attributes:
            instead = self.attributes.get(id(one))
            if instead is not None:
                self.edits.append(Edit(one.start, one.end, instead))
        for start, end in getattr(node, "around", ()):
            before = self.data[:start].rstrip()
            self.edits.append(Edit(len(before), end, ""))
        for child in node.children:
            instead = self.instead.get(id(child))
            if instead is not None:
                self.edits.append(Edit(child.start, child.end, instead))
            elif child.kind == "element":
                self.element(child)
