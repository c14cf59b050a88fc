"""The result of a render method: whether it may be nothing at all.

The runtime refuses `undefined` from classes and plain functions before version 18, not from functions that
are memoised or take a reference (its reconciler asks only for the first two kinds).
"""

from __future__ import annotations

from clean_carry.source.javascript.timing import MAKE_ELEMENTS
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name

_MARKUP = frozenset({"jsx_element", "jsx_self_closing_element", "jsx_fragment"})
_SOMETHING = _MARKUP | {"null", "string", "number", "true", "false", "array", "template_string"}
_COMPARISONS = ("===", "!==", "==", "!=", "<", ">", "<=", ">=", "in", "instanceof")


def may_be_undefined(render: Node) -> Node | None:
    """The first value `render` returns of which it cannot be seen that it is something."""
    stack = [render.child("body")]
    while stack:
        here = stack.pop()
        if here is None or here.is_function:
            continue
        if here.type == "return_statement":
            value = here.named_children[0] if here.named_children else here
            if not _is_something(value):
                return value
            continue
        stack.extend(reversed(here.named_children))
    return None


def _is_something(node: Node) -> bool:
    """Whether a value is seen not to be `undefined`. A call, a name or a member may be."""
    match node.type:
        case "parenthesized_expression" | "as_expression":
            return _is_something(node.named_children[0])
        case "ternary_expression":
            arms = (node.child("consequence"), node.child("alternative"))
            return all(arm is not None and _is_something(arm) for arm in arms)
        case "unary_expression":
            return node.has("!")
        case "binary_expression":
            sides = (node.child("left"), node.child("right"))
            if any(node.has(sign) for sign in _COMPARISONS):
                return True
            if node.has("||") or node.has("??"):
                return sides[1] is not None and _is_something(sides[1])
            return all(side is not None and _is_something(side) for side in sides)
        case "call_expression":
            # The runtime's functions that make elements, by whatever name they were imported.
            return last_name(node.child("function")) in (*MAKE_ELEMENTS, "createPortal")
    return node.type in _SOMETHING
