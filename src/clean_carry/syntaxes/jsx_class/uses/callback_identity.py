"""Where a method used as a value ends up, which decides whether its identity matters."""

from __future__ import annotations

from clean_carry.source.javascript.timing import MAKE_ELEMENTS, argument_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name

_THROUGH = frozenset(
    {
        "parenthesized_expression",
        "ternary_expression",
        "binary_expression",
        "jsx_expression",
        "as_expression",
        "non_null_expression",
    }
)
# Functions of HTML (§8.6 timers, §8.11 frames) and ECMA-262 promises that only keep a callback
# until they call it: nobody compares it.
_TIMERS = frozenset(
    (
        "setTimeout setInterval requestAnimationFrame requestIdleCallback setImmediate "
        "queueMicrotask then catch finally"
    ).split()
)


def place_of(node: Node) -> tuple[str, str]:
    """(place, receiver) of a method used as a value; the places are those of `MethodValue`."""
    use = node
    for above in node.up():
        if above.type in _THROUGH:
            use = above
            continue
        if above.type == "jsx_attribute":
            return _attribute_place(above)
        if above.type == "arguments":
            return _argument_place(above, use)
        break
    return "kept", ""


def _attribute_place(attribute: Node) -> tuple[str, str]:
    name = attribute.children[0].text
    tag = attribute.parent.child("name") if attribute.parent is not None else None
    tag_text = tag.text if tag is not None else ""
    if name == "ref":
        return "reference", tag_text
    if tag_text[:1].islower() and "." not in tag_text:
        return "element", tag_text
    return "component", tag_text


def _argument_place(arguments: Node, argument: Node) -> tuple[str, str]:
    call = arguments.parent
    callee = call.child("function") if call is not None else None
    if callee is None:
        return "kept", ""
    name = last_name(callee)
    if name in _TIMERS:
        return "timer", ""
    if not argument_deferred(arguments, argument) and name not in MAKE_ELEMENTS:
        return "called back", ""
    return "kept", ""
