"""Literals of PHP, and how strongly its operators bind."""

from __future__ import annotations

import re

from clean_carry.source.expressions.model import Constant, Unsayable

# How strongly operators bind (the language's reference, "Operator Precedence").
ATOM, POWER, NOT, TIMES, PLUS, DOT, COMPARED, EQUAL, AND, OR, NULLISH, CHOICE = range(20, 8, -1)


def as_text(expr: Constant) -> str:
    value = expr.value
    if value is None:
        return expr.type.missing
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, float):
        raise Unsayable("a fraction as text")
    return str(value)


def constant(expr: Constant) -> tuple[str, int]:
    value = expr.value
    if value is None:
        return "null", ATOM
    if isinstance(value, bool):
        return ("true" if value else "false"), ATOM
    if isinstance(value, str):
        return quoted(value), ATOM
    return repr(value), ATOM if value >= 0 else NOT


def quoted(text: str) -> str:
    """A text in single quotes; in double quotes where it holds signs that are not seen."""
    if re.search(r"[\x00-\x1f\x7f]", text):
        shown = text.replace("\\", "\\\\").replace('"', '\\"').replace("$", "\\$")
        return (
            '"' + re.sub(r"[\x00-\x1f\x7f]", lambda found: f"\\u{{{ord(found[0]):x}}}", shown) + '"'
        )
    escaped = text.replace("\\", "\\\\").replace("'", "\\'")
    return f"'{escaped}'"
