"""Where a statement of a script begins, with the comments that belong to it."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node
from clean_carry.source.text import SourceText


def lead_of(source: SourceText, comments: list[Node], statement: Node, floor: int) -> int:
    """Where a statement begins with the comments on the lines right above it."""
    start = statement.start
    for comment in reversed(comments):
        if floor <= comment.start < start and not source.data[comment.end : start].strip():
            if source.data[comment.end : start].count(b"\n") <= 1:
                start = comment.start
    line = source.line_start(start)
    return max(line - 1, floor) if not source.data[line:start].strip() else start


def first_of(source: SourceText, lead: int, statement: Node) -> int:
    """The first byte that is no white space from a place on."""
    at = lead
    while at < statement.start and source.data[at : at + 1].isspace():
        at += 1
    return at
