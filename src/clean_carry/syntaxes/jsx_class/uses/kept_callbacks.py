"""Functions that outlive their render: passed to a child that keeps them, or kept in state with an
element."""

from __future__ import annotations

from clean_carry.source.javascript.scope import is_component_name
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name
from clean_carry.syntaxes.jsx.keepers import Keepers

# Calls that keep what they are given, for example an element whose handlers are called later.
_KEEPING = frozenset({"setState", "push", "unshift", "set", "add"})
_ELEMENTS = frozenset({"jsx_element", "jsx_self_closing_element"})


def kept_later(
    node: Node, root: Node, keepers: Keepers, unknown: dict[str, int], *, is_function: bool
) -> bool:
    """Whether what stands at `node` runs in a function, or is one, that somebody keeps beyond its render.

    A function is looked for in props only: where else a method goes its place tells. Notes in `unknown`
    the tags of components that cannot be followed, with the offset of the prop.
    """
    below, functions = node, int(is_function)
    for above in node.up():
        if above is root:
            return False
        if above.is_function:
            functions += 1
        elif above.type == "jsx_attribute" and functions:
            if _keeps(above.parent, above.children[0].text, above, keepers, unknown):
                return True
        elif above.type == "jsx_element" and functions and below.type not in _ELEMENTS:
            if _keeps(above.children[0], "children", below, keepers, unknown):
                return True
        elif above.type == "jsx_element" and functions:
            if _keeps(above.children[0], "children", below, keepers, {}):
                return True
        elif is_function:
            pass
        elif above.type == "arguments" and above.parent is not None:
            callee = above.parent.child("function")
            # A function that is the argument itself is called at once as far as this is concerned.
            inner = functions - int(below.is_function)
            if inner > 0 and last_name(callee) in _KEEPING:
                return True
        elif above.type == "assignment_expression" and functions and below.field == "right":
            left = above.child("left")
            if left is not None and left.type == "member_expression":
                return True
        below = above
    return False


def _keeps(
    element: Node | None, prop: str, at: Node, keepers: Keepers, unknown: dict[str, int]
) -> bool:
    tag = element.child("name") if element is not None else None
    if tag is None or not is_component_name(tag.text):
        return False
    known = keepers.of(tag)
    if known.loses(prop) and not known.keeps(prop):
        unknown.setdefault(tag.text, at.start)
    return known.keeps(prop)
