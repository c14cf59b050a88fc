"""Reads that run later than the function they stand in: they see the values of its render.

Code of a render sees the values of that render for good (the runtime's reference, "State as a snapshot").
In a target that sees each write at once, the value is kept where the function begins; a function that is
called later itself cannot be handled so, and is refused.
"""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import MethodCall, MethodValue, Operation, Read
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.neutral.reads_after_writes import keep_at_start
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts
from clean_carry.syntaxes.uses import Build, Raw

_READS = frozenset({"state-read", "prop-read", "derived-read"})
_KINDS = ("identifier", "shorthand_property_identifier", "member_expression")


def keep_rendered(facts: FunctionFacts) -> None:
    """Keep the values that code reads later; refuse functions that run later and read any."""
    nodes = {(node.start, node.end): node for node in facts.tree.of(*_KINDS)}
    for raw in list(facts.raws):
        node = nodes.get((raw.span.start, raw.span.end))
        if node is None:
            continue
        if raw.notion in _READS and facts.deferred(node):
            _keep(facts, raw, node)
        elif raw.notion in ("method-call", "method-value"):
            _called_later(facts, raw, node)


def _keep(facts: FunctionFacts, raw: Raw, node: Node) -> None:
    found = raw.build(-1)
    root = facts.root_of(node)
    body = root.child("body")
    if not isinstance(found, Read) or found.called:
        return
    if root is facts.node or body is None or body.type != "statement_block":
        facts.refuse("old-value-read", found.member.name, node.start)
        return
    keep_at_start(facts, body, found.member)
    raw.build, raw.notion = _earlier(raw.build), "rendered-read"


def _earlier(build: Build) -> Build:
    def made(entry: int) -> Operation:
        found = build(entry)
        assert isinstance(found, Read)
        return replace(found, earlier=True, deferred=True)

    return made


def _called_later(facts: FunctionFacts, raw: Raw, node: Node) -> None:
    """A function of the component that code calls later, or hands to code that may."""
    found = raw.build(-1)
    if isinstance(found, MethodCall):
        later = facts.deferred(node)
    elif isinstance(found, MethodValue):
        later = not _is_attribute(node)
    else:
        return
    name = found.member.name
    if later and reads(facts, name, frozenset()):
        facts.refuse("old-value-read", f"{name}(), which runs later", node.start)


def _is_attribute(node: Node) -> bool:
    above = node.parent
    return above is not None and above.type == "jsx_expression"


def reads(facts: FunctionFacts, name: str, seen: frozenset[str]) -> bool:
    """Whether an own function reads inputs, state or what is worked out of them, itself or by others."""
    function = facts.own_function(name)
    if function is None or name in seen:
        return False
    for raw in facts.raws:
        if not function.start <= raw.span.start < function.end:
            continue
        if raw.notion in _READS:
            return True
        if raw.notion in ("method-call", "method-value"):
            inner = raw.build(-1)
            if isinstance(inner, MethodCall | MethodValue):
                if reads(facts, inner.member.name, seen | {name}):
                    return True
    return False
