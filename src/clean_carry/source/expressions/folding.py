"""Expressions whose value is known from their parts: texts, numbers, flags and empty lists."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.source.expressions.model import Apply, Choice, Constant, Expr, Listing
from clean_carry.source.expressions.types import FLAG, WHOLE

# Operations that give an empty list of an empty one.
_EMPTY = frozenset(
    {"list.filter", "list.map", "list.slice", "list.sort", "list.reverse", "list.sorted"}
)


def folded(expr: Expr) -> Expr:
    """The same value, with what its parts decide worked out."""
    if isinstance(expr, Choice):
        test = truth_of(expr.test)
        return expr if test is None else folded(expr.then if test else expr.other)
    if not isinstance(expr, Apply):
        return expr
    made = replace(expr, parts=tuple(map(folded, expr.parts)))
    first = made.parts[0] if made.parts else made
    empty = isinstance(first, Listing) and not first.items
    if made.operation in _EMPTY and empty:
        return Listing(made.type, ())
    if made.operation == "list.length" and empty:
        return Constant(WHOLE, 0)
    if made.operation == "list.reduce" and empty and len(made.parts) == 3:
        return made.parts[2]
    if made.operation in ("not", "truth", "&&", "||"):
        known = _logical(made)
        return made if known is None else Constant(FLAG, known)
    known = _compared(made)
    return made if known is None else Constant(FLAG, known)


def truth_of(expr: Expr) -> bool | None:
    """Whether a value is true, where its parts tell."""
    made = folded(expr)
    if isinstance(made, Constant):
        return bool(made.value)
    return True if isinstance(made, Listing) else None


def _logical(expr: Apply) -> bool | None:
    parts = [truth_of(one) for one in expr.parts]
    match expr.operation:
        case "not":
            return None if parts[0] is None else not parts[0]
        case "truth":
            return parts[0]
    decides = expr.operation == "||"
    return decides if decides in parts else None if None in parts else not decides


def _compared(expr: Apply) -> bool | None:
    """The outcome of a comparison of two numbers, or of two texts."""
    values = [one.value for one in expr.parts if isinstance(one, Constant)]
    if len(values) != 2 or len(expr.parts) != 2:
        return None
    one, other = values
    if expr.operation == "equal":
        return one == other
    if not isinstance(one, int | float) or not isinstance(other, int | float):
        return None
    match expr.operation.removeprefix("number "):
        case ">":
            return one > other
        case "<":
            return one < other
        case ">=":
            return one >= other
        case "<=":
            return one <= other
    return None
