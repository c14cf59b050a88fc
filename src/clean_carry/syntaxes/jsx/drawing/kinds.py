"""The kinds of value of an expression, which decide how a page shows it.

JSX shows text and numbers, and nothing of `null`, `undefined`, `true` and `false` (the runtime's reference,
"Conditional rendering").
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name

Kind = Literal["text", "number", "boolean", "nothing", "object"]
Kinds = frozenset[Kind]
# None where it is not known.
Known = Callable[[Node], Kinds | None]

_LITERALS: dict[str, Kind] = {
    "string": "text",
    "template_string": "text",
    "number": "number",
    "true": "boolean",
    "false": "boolean",
    "null": "nothing",
    "undefined": "nothing",
    "object": "object",
    "array": "object",
    "arrow_function": "object",
    "function_expression": "object",
    "new_expression": "object",
    "update_expression": "number",
}
_COMPARING = ("===", "!==", "==", "!=", "<", ">", "<=", ">=", "in", "instanceof")
_COUNTING = ("-", "*", "/", "%", "**", "|", "&", "^", "<<", ">>", ">>>")
# Results of built-in functions and methods (ECMA-262 §20 to §23).
_GIVEN: tuple[tuple[Kind, str], ...] = (
    (
        "boolean",
        "Boolean includes startsWith endsWith some every has test isArray isNaN isFinite "
        "isInteger hasOwnProperty hasOwn",
    ),
    (
        "text",
        "String toFixed toUpperCase toLowerCase trim padStart padEnd join toString toISOString "
        "toLocaleString toLocaleDateString toLocaleTimeString repeat replace replaceAll charAt format",
    ),
    (
        "number",
        "Number parseInt parseFloat round floor ceil abs max min sqrt indexOf findIndex "
        "lastIndexOf getTime charCodeAt",
    ),
    (
        "object",
        "map filter concat split keys values entries flatMap flat slice",
    ),
)
_GIVES: dict[str, Kind] = {name: kind for kind, names in _GIVEN for name in names.split()}
_COUNTS = frozenset({"length", "size"})


def kinds_of(node: Node, known: Known) -> Kinds | None:
    """The kinds of value an expression may give; None where any may come."""
    kind = _LITERALS.get(node.type)
    if kind is not None:
        return frozenset({kind})
    match node.type:
        case "identifier" if node.text == "undefined":
            return frozenset({"nothing"})
        case "parenthesized_expression" | "as_expression" | "non_null_expression":
            return kinds_of(node.named_children[0], known)
        case "ternary_expression":
            return _either(*(kinds_of(part, known) for part in node.named_children[1:]))
        case "unary_expression":
            return frozenset(
                {"boolean" if node.has("!") else "text" if node.has("typeof") else "number"}
            )
        case "binary_expression":
            return _of_two(node, known)
        case "call_expression":
            given = _GIVES.get(last_name(node.child("function")))
            return frozenset({given}) if given is not None else known(node)
        case "member_expression" if last_name(node) in _COUNTS and not node.has("?."):
            return frozenset({"number"})
        case _ if node.type.startswith("jsx_"):
            return frozenset({"object"})
    return known(node)


def _either(*found: Kinds | None) -> Kinds | None:
    together: Kinds = frozenset()
    for kinds in found:
        if kinds is None:
            return None
        together |= kinds
    return together


def _of_two(node: Node, known: Known) -> Kinds | None:
    if any(node.has(sign) for sign in _COMPARING):
        return frozenset({"boolean"})
    if any(node.has(sign) for sign in _COUNTING):
        return frozenset({"number"})
    left, right = (kinds_of(part, known) for part in node.named_children)
    if node.has("&&"):
        # Only what counts as false comes through from the left: never an object.
        return _either(left - {"object"}, right) if left is not None else None
    if node.has("||"):
        return _either(left - {"nothing"}, right) if left is not None else None
    if node.has("??"):
        return _either(left - {"nothing"}, right) if left is not None else None
    if left is not None and "text" in left and len(left) == 1:
        return left
    if right is not None and "text" in right and len(right) == 1:
        return right
    return _either(left, right) if left == right == frozenset({"number"}) else None


def calls_only_known(node: Node) -> bool:
    """Whether a value calls nothing but built-in functions that change nothing."""
    for below in node.walk():
        if below.type in ("await_expression", "new_expression") or "assignment" in below.type:
            return False
        if below.type == "call_expression" and last_name(below.child("function")) not in _GIVES:
            return False
    return True
