"""Operations found in code, and the code trees built from them. Shared by all readers."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.component.code import Code, Operation
from clean_carry.component.ledger import Ledger
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree

Build = Callable[[int], Operation]


@dataclass
class Raw:
    """An operation before it is built: its span, its notion, and how to build it for an entry."""

    span: Span
    notion: str
    build: Build
    member: str = ""
    built: Operation | None = None


@dataclass
class Uses:
    """The operations of one parsed stretch of code, and what was found while collecting them."""

    tree: Tree
    names: Names
    ledger: Ledger
    refusals: list[tuple[str, str, int]] = field(default_factory=list, kw_only=True)
    raws: list[Raw] = field(default_factory=list, kw_only=True)
    starts: list[int] = field(default_factory=list, kw_only=True)
    locals_at: dict[int, frozenset[tuple[str, int]]] = field(default_factory=dict, kw_only=True)

    def __post_init__(self) -> None:
        self.tree.at_end(self._release)

    def _release(self) -> None:
        self.raws.clear()

    def span(self, node: Node) -> Span:
        """The span of a node."""
        return self.tree.source.span(node.start, node.end)

    def refuse(self, rule: str, detail: str, at: int) -> None:
        """Note a reason for which the whole component is refused."""
        self.refusals.append((rule, detail, at))

    def sort(self) -> None:
        """Order the operations; of several with one span the first found stays."""
        self.raws.sort(key=lambda raw: (raw.span.start, -raw.span.end))
        unique: list[Raw] = []
        for raw in self.raws:
            if not unique or unique[-1].span != raw.span:
                unique.append(raw)
        self.raws = unique
        self.starts = [raw.span.start for raw in unique]

    def code(self, span: Span, *, kept: bool = True, closing: bool = False) -> Code:
        """Build the code of a span with its operations, and claim it as kept text. A `closing` one
        includes operations behind its last byte."""
        if kept:
            self.ledger.claim("code", span, "kept")
        operations: list[Operation] = []
        at = bisect_left(self.starts, span.start)
        end = span.start
        while at < len(self.raws) and self.raws[at].span.start < span.end + closing:
            raw = self.raws[at]
            at += 1
            if raw.span.start < end or raw.span.end > span.end:
                continue
            if raw.built is None:
                raw.built = raw.build(self.ledger.claim(raw.notion, raw.span))
            operations.append(raw.built)
            end = raw.span.end
        return Code(span, tuple(operations))
