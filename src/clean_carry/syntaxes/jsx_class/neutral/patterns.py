"""Names that methods take from inputs and state by a pattern.

A name that is read at once is read as the member it stands for. A name that is read later, after an `await`
or in a callback, keeps the value the member had: it stays a name.
"""

from __future__ import annotations

from clean_carry.component.code import Member, Operation, PatternRead, Read, Respelled, Snapshot
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.neutral.drawing import scopes_of
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts, add
from clean_carry.syntaxes.uses import Raw


def resolve(facts: ClassFacts, skipped: list[Node]) -> set[int]:
    """Resolve the names of every pattern outside of the `skipped` render functions; return the
    removed patterns' places."""
    resolved: set[int] = set()
    kept: list[Raw] = []
    for raw in facts.raws:
        inside = any(node.start <= raw.span.start < node.end for node in skipped)
        if raw.notion != "pattern-read" or inside:
            kept.append(raw)
    patterns = [raw for raw in facts.raws if raw not in kept]
    facts.raws = kept
    for raw in patterns:
        operation = raw.build(-1)
        assert isinstance(operation, PatternRead)
        if not operation.only or operation.rest or operation.bindings is None:
            facts.refuse("pattern-not-plain", "", raw.span.start)
            continue
        _resolve(facts, operation, resolved)
    return resolved


def _resolve(facts: ClassFacts, pattern: PatternRead, resolved: set[int]) -> None:
    names = {
        (name, binding.node.start): binding
        for scope in scopes_of(facts)
        for name, binding in scope.names.items()
    }
    kind = "prop" if pattern.source == "props" else "state"
    taken: list[tuple[Member, str]] = []
    for one in pattern.bindings or ():
        binding = names.get((one.local, one.at))
        member = Member("prop" if kind == "prop" else "state", one.key)
        if binding is None or binding.written:
            facts.refuse("local-reassigned", one.local, one.at)
            continue
        if any(facts.deferred(ref) for ref in binding.references):
            taken.append((member, one.local))
            continue
        resolved.add(one.at)
        for ref in binding.references:
            _read(facts, ref, member)
    line = facts.tree.source.statement_line(pattern.span.start, pattern.span.end)
    node = next(n for n in facts.tree.of("lexical_declaration", "variable_declaration")
                if n.start == pattern.span.start)  # fmt: skip
    if taken:
        span, keyword, deferred = pattern.span, pattern.keyword, pattern.deferred
        add(facts, node, "pattern-read",
            lambda entry: Snapshot(span, entry, deferred, tuple(taken), keyword))  # fmt: skip
        return

    def gone(entry: int) -> Operation:
        return Respelled(line, entry, False, "", "pattern-resolved")

    add(facts, node, "pattern-read", gone)
    facts.raws[-1].span = line


def _read(facts: ClassFacts, ref: Node, member: Member) -> None:
    span = facts.span(ref)
    head = f"{ref.text}: " if ref.type == "shorthand_property_identifier" else ""
    called, deferred = ref.field == "function", facts.deferred(ref)
    add(
        facts, ref, f"{member.kind}-read",
        lambda entry: Read(span, entry, deferred, member, head, called=called),
    )  # fmt: skip
