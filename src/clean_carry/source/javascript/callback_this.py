"""Functions that are called with the `this` of the code around them.

A `function` has a `this` of its own, but several ways hand the one around it on: `bind`, `call` and
`apply`, the last argument of array methods (ECMA-262 §23.1.3), and callbacks that a runtime calls with
the instance.
"""

from __future__ import annotations

from typing import NamedTuple

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name

_TAKE_THIS = frozenset(
    (
        "forEach map filter some every find findIndex findLast findLastIndex flatMap from "
        "each eachRight forIn forOwn"
    ).split()
)
_BINDING = frozenset({"bind", "call", "apply"})
FUNCTIONS = frozenset({"function_expression", "generator_function"})


class GivenThis(NamedTuple):
    """The source of a function's `this`: a node, and the stretch of text that only serves to bind
    it."""

    giver: Node
    start: int
    end: int


def given_this(function: Node) -> GivenThis | None:
    """Return the `this` of a function or another callback; None if it is not visible."""
    parent = function.parent
    if parent is None:
        return None
    if parent.type == "parenthesized_expression":
        return given_this(parent)
    if parent.type == "member_expression" and function.field == "object":
        part, call = parent.child("property"), parent.parent
        arguments = call.child("arguments") if call is not None else None
        given = arguments.named_children if arguments is not None else []
        if call is None or part is None or part.text not in _BINDING or not given:
            return None
        if call.child("function") is not parent:
            return None
        end = call.end if part.text == "bind" and len(given) == 1 else -1
        return GivenThis(given[0], function.end, end)
    if parent.type == "arguments" and parent.parent is not None:
        given = parent.named_children
        at = given.index(function)
        callee = parent.parent.child("function")
        if at + 2 == len(given) and last_name(callee) in _TAKE_THIS:
            return GivenThis(given[at + 1], function.end, given[at + 1].end)
    return None


def called_on(function: Node, names: frozenset[str]) -> Node | None:
    """The object a callback is passed to by a call of one of these methods: `this` of
    `this.setState(…)`."""
    arguments = function.parent
    call = arguments.parent if arguments is not None and arguments.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    if callee is None or callee.type != "member_expression" or last_name(callee) not in names:
        return None
    return callee.children[0]
