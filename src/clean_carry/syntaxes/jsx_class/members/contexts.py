"""The context a class reads: a shared one by its static type, or the old one by its declared types."""

from __future__ import annotations

from collections.abc import Iterable

from clean_carry.component.members import Context
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx_class.members.members import MEMBERS, Gathered, full_span, reads
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts

KINDS = {"contextType": "shared", "contextTypes": "old"}


def kind_of_context(
    members: Iterable[tuple[Node, str, str]], statements: Iterable[Node], name: str
) -> str:
    """`shared`, `old`, or nothing: by a static member, else by `X.contextType = …` after the class."""
    for _, notion, member in members:
        if notion == "context-type":
            return KINDS[member]
    for statement in statements:
        for static, kind in KINDS.items():
            if assigned_static(statement, name, static) is not None:
                return kind
    return ""


def assigned_static(statement: Node, name: str, static: str) -> Node | None:
    """The value of `X.static = value;`."""
    if statement.type != "expression_statement":
        return None
    assignment = statement.named_children[0]
    left = assignment.child("left") if assignment.type == "assignment_expression" else None
    if left is None or left.text != f"{name}.{static}":
        return None
    return assignment.child("right")


@reads("context-type")
def _context_type(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    value = member.child("value")
    if value is None:
        facts.refuse("context-read", name, member.start)
        return
    if KINDS[name] == "shared":
        entry = facts.ledger.claim("context-type", full_span(facts, member))
        gathered.context = Context("shared", value.text, entry, None)
        return
    # The old one stays a static value of the component.
    MEMBERS["static-value"](gathered, member, name)
    gathered.context = Context("old", "", -1, None)


def outside(facts: ClassFacts, gathered: Gathered, statements: Iterable[Node], name: str) -> None:
    """The context named after the class: the statement of a shared one goes."""
    if gathered.context is not None:
        return
    for statement in statements:
        value = assigned_static(statement, name, "contextType")
        if value is not None:
            span = facts.tree.source.statement_line(statement.start, statement.end)
            entry = facts.ledger.claim("context-type", facts.span(statement))
            gathered.context = Context("shared", value.text, entry, span)
        elif assigned_static(statement, name, "contextTypes") is not None:
            gathered.context = Context("old", "", -1, None)
