"""The facts collected about one component that returns markup, while it is read."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Operation
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.uses import Build, Raw, Uses


@dataclass
class JsxFacts(Uses):
    """The uses in one component: `node` is the class or the function."""

    node: Node

    def root_of(self, node: Node) -> Node:
        """The function, or the value, whose run a node belongs to."""
        raise NotImplementedError

    def deferred(self, node: Node, *, is_function: bool = False) -> bool:
        """Whether a node runs later than its root is entered, or is a function that does."""
        raise NotImplementedError

    def own_function(self, name: str) -> Node | None:
        """Return the declaration of one of the component's own functions."""
        raise NotImplementedError

    def own_functions(self) -> list[tuple[str, Node]]:
        """All of them, by name."""
        raise NotImplementedError

    def depends(self, name: str, written: frozenset[str]) -> bool:
        """Whether a value that is worked out may be another once these fields of state are written."""
        return True

    def locals_of(self, node: Node) -> frozenset[tuple[str, int]]:
        """Local names in force at a node, each with the place of its declaration."""
        raise NotImplementedError

    def add(self, node: Node, notion: str, build: Build, end: int = -1) -> None:
        """Note an operation at a node; `end` is where it ends where that is not where the node does."""

        def built(entry: int) -> Operation:
            self.locals_at[entry] = self.locals_of(node)
            return build(entry)

        span = self.span(node) if end < 0 else self.tree.source.span(node.start, end)
        self.raws.append(Raw(span, notion, built))
