"""The facts collected about one function that renders."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.drawing.locals import holds_markup
from clean_carry.syntaxes.jsx.facts import JsxFacts

_DEPENDED = frozenset({"state-read", "derived-read", "method-call", "method-value"})


@dataclass
class FunctionFacts(JsxFacts):
    """The uses in one function. `functions` are those of its own, by name, `values` where
    what is worked out is declared; `ignored` stretches that are no
    code of the component: lists of dependencies."""

    functions: dict[str, Node] = field(default_factory=dict)
    values: dict[str, tuple[int, int]] = field(default_factory=dict)
    ignored: list[tuple[int, int]] = field(default_factory=list)
    carried_names: set[int] = field(default_factory=set)

    def root_of(self, node: Node) -> Node:
        """The outermost function around a node that does not render, else the component's own."""
        found = self.node
        for above in node.up():
            if above is self.node:
                break
            if above.is_function and not holds_markup(above):
                found = above
        return found

    def deferred(self, node: Node, *, is_function: bool = False) -> bool:
        """Whether a node runs later than its root is entered."""
        return is_deferred(node, self.root_of(node), self.names)

    def own_function(self, name: str) -> Node | None:
        """The function of the component that a name stands for."""
        return self.functions.get(name)

    def own_functions(self) -> list[tuple[str, Node]]:
        """All of them, by name."""
        return list(self.functions.items())

    def depends(self, name: str, written: frozenset[str]) -> bool:
        """Whether a value that is worked out reads one of these fields, itself or by others."""
        return self._depends(name, written, frozenset())

    def _depends(self, name: str, written: frozenset[str], seen: frozenset[str]) -> bool:
        if name in seen or name not in self.values:
            return name not in self.values
        start, end = self.values[name]
        for raw in self.raws:
            if not start <= raw.span.start < end or raw.notion not in _DEPENDED:
                continue
            found = raw.build(-1)
            member = getattr(found, "member", None)
            if member is None or member.kind not in ("state", "derived", "method"):
                continue
            if member.kind == "state" and member.name in written:
                return True
            if member.kind == "derived" and self._depends(member.name, written, seen | {name}):
                return True
            if member.kind == "method":
                return True
        return False

    def locals_of(self, node: Node) -> frozenset[tuple[str, int]]:
        """Local names in force at a node, inside of the function."""
        found: set[tuple[str, int]] = set()
        for scope in self.names.scope_at(node).chain():
            if scope.node is self.node or scope.parent is None:
                break
            found.update((key, binding.node.start) for key, binding in scope.names.items())
        return frozenset(found)
