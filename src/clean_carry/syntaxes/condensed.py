"""White space of a template, as its compiler condenses it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from clean_carry.component.markup import (
    Condition,
    Element,
    Expression,
    Loop,
    Markup,
    MarkupComment,
    Text,
    children_of,
)
from clean_carry.source.html.display import BLOCKS
from clean_carry.source.text import SourceText


def condensed(raw: str, nodes: list[Markup], at: int) -> str:
    """Return text as the template's compiler renders it among its neighbours."""
    if raw.strip():
        lead = " " if raw[0].isspace() else ""
        tail = " " if raw[-1].isspace() else ""
        return lead + " ".join(raw.split()) + tail
    before = nodes[at - 1] if at else None
    after = nodes[at + 1] if at + 1 < len(nodes) else None
    if before is None or after is None:
        return ""
    if isinstance(before, MarkupComment) or isinstance(after, MarkupComment):
        # The compiler drops it between comments, and between a comment and an element.
        return " " if isinstance(before, Expression | Text) or isinstance(after, Expression) else ""
    elements = not isinstance(before, Expression) and not isinstance(after, Expression)
    return "" if elements and "\n" in raw else " "


def is_block(node: Markup) -> bool:
    """Whether white space beside a node is not seen."""
    if isinstance(node, Condition | Loop):
        real = [one for one in children_of(node) if isinstance(one, Element)]
        return bool(real) and all(map(is_block, real))
    return isinstance(node, Element) and not node.component and node.tag in BLOCKS


def as_rendered(
    nodes: list[Markup],
    source: SourceText,
    settle: Callable[[int], None],
    *,
    edge: bool,
    block: Callable[[Markup], bool] = is_block,
) -> list[Markup]:
    """Nodes as the old template's compiler renders them; `settle` takes the entry of each text.

    At an `edge` white space in front and behind is left out, and beside a `block` too.
    """
    found: list[Markup] = []
    for at, node in enumerate(nodes):
        if not isinstance(node, Text):
            found.append(node)
            continue
        raw = source.slice(*node.span[:2])
        drawn = node.drawn if node.drawn is not None else condensed(raw, nodes, at)
        if drawn == " " and any(map(block, (*nodes[at - 1 : at], *nodes[at + 1 : at + 2]))):
            drawn = ""
        if edge and at == 0:
            drawn = drawn.lstrip(" ")
        if edge and at == len(nodes) - 1:
            drawn = drawn.rstrip(" ")
        settle(node.entry)
        if drawn:
            found.append(replace(node, drawn=drawn, entry=-1))
    return found
