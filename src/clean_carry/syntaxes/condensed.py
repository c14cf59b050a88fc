"""White space of a template, as its compiler condenses it."""

from __future__ import annotations

from clean_carry.component.markup import Expression, Markup, MarkupComment, Text


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
