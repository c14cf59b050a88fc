"""Inputs that a class fails without, and its new form does not: what is to be known of them."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Read
from clean_carry.component.markup import Condition, Loop, Markup, walk
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.source.text import SourceText


def lists_that_may_miss(
    markup: tuple[Markup, ...], given: set[str], source: SourceText
) -> Iterator[tuple[str, str, int]]:
    """Yield a note for each list over a prop that nothing checks first; those that are `given`
    exist."""
    nodes = list(walk(markup))
    tests = [
        branch.test
        for node in nodes
        if isinstance(node, Condition)
        for branch in node.branches
        if branch.test is not None
    ]
    asked = {o.member for code in tests for o in code.operations if isinstance(o, Read)}
    for loop in (node for node in nodes if isinstance(node, Loop)):
        span = loop.items.span
        for read in loop.items.operations:
            if not isinstance(read, Read) or read.span != span or read.member.kind != "prop":
                continue
            optional = source.data[span.end : span.end + 2] == b"?."
            if not optional and read.member.name not in given and read.member not in asked:
                yield "listed-if-given", read.member.name, span.start


def keys_of(literal: Node | None) -> set[str]:
    """The names an object has values for."""
    parts = literal.named_children if literal is not None and literal.type == "object" else []
    keys = [part.child("key") for part in parts]
    return {name for key in keys if key is not None and (name := property_name(key)) is not None}
