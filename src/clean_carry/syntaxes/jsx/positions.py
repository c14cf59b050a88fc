"""Where a call that writes state stands."""

from __future__ import annotations

from clean_carry.component.code import Position
from clean_carry.source.javascript.tree import Node


def position_of(node: Node) -> Position:
    """Where a call stands, which decides how several calls can stand in its place."""
    parent = node.parent
    if parent is None:
        return "expression"
    if parent.type == "expression_statement":
        around = parent.parent
        if around is not None and around.type in ("statement_block", "program", "switch_case"):
            return "statement"
        return "bare statement"
    if parent.type == "arrow_function" and node.field == "body":
        return "arrow body"
    if parent.type == "return_statement":
        around = parent.parent
        return (
            "returned" if around is not None and around.type == "statement_block" else "expression"
        )
    return "expression"
