"""Conditions that tell of values that they are there: `boat && boat.name`, `note != null ? note : ''`."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.expressions.model import Unsayable
from clean_carry.source.javascript.tree import Node

# Nodes around an expression that leave its value as it is.
AROUND = frozenset(
    {"parenthesized_expression", "as_expression", "satisfies_expression", "non_null_expression"}
)
CHAINED = frozenset({"member_expression", "subscript_expression", "call_expression"})


def found_there(node: Node, *, holds: bool) -> frozenset[str]:
    """Texts of expressions that have a value where a condition holds, or does not."""
    while node.type in AROUND:
        node = node.named_children[0]
    if node.type == "unary_expression" and node.children[0].text == "!":
        return found_there(_part(node, "argument"), holds=not holds)
    if node.type == "binary_expression":
        sign = _part(node, "operator").text
        left, right = _part(node, "left"), _part(node, "right")
        if sign in ("&&", "||"):
            if (sign == "&&") == holds:
                return found_there(left, holds=holds) | found_there(right, holds=holds)
            return frozenset()
        told = {one.text for one in (left, right)} & {"null", "undefined"}
        value = left if right.text in told else right
        both = sign in ("!=", "==") or not told
        if told and both and (sign == "!=") == holds:
            return frozenset({value.text})
        return frozenset()
    if holds and node.type in ("identifier", "member_expression", "subscript_expression"):
        return frozenset({node.text, *outer_of(node)})
    return frozenset()


def outer_of(node: Node) -> Iterator[str]:
    """The values that a member is read of through `?.`: where it has a value, they have one."""
    inner = node.child("object")
    if inner is not None and inner.type in CHAINED | {"identifier"}:
        yield inner.text
        yield from outer_of(inner)


def _part(node: Node, field: str) -> Node:
    found = node.child(field)
    if found is None:
        raise Unsayable(f"`{node.text[:40]}`", node.start)
    return found
