"""Values that are changed in place: member chains that end in a write or in a mutating call."""

from __future__ import annotations

from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node

# ECMA-262 §23.1, §24: methods that change what they are called on.
MUTATING = frozenset(
    "push pop shift unshift splice sort reverse fill copyWithin set add delete clear".split()
)


_FILLING = frozenset(
    "Object.assign Object.defineProperty Object.defineProperties Reflect.set Reflect.deleteProperty".split()
)


def changes_insides(node: Node) -> bool:
    """Return whether the value of a node is mutated here, at any depth."""
    changed, outermost = asked_of(node)
    return changed or _is_filled(outermost)


def _is_filled(node: Node) -> bool:
    """Whether a call of the language writes into a value: `Object.assign(form, …)` (ECMA-262 §20.1.2)."""
    arguments = node.parent
    call = arguments.parent if arguments is not None and arguments.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    if arguments is None or callee is None or not arguments.named_children:
        return False
    return callee.text in _FILLING and arguments.named_children[0] is node


def asked_of(node: Node) -> tuple[bool, Node]:
    """Follow the member chain that starts at a node (`lines` in `this.lines[0].tags.push(t)`).

    Returns whether the chain ends in a write or a mutating call, and the outermost expression followed.
    """
    here = node
    while here.parent is not None and here.field == "object":
        above = here.parent
        if above.type not in ("member_expression", "subscript_expression"):
            return False, here
        if is_write(above):
            return True, above
        call, part = above.parent, above.child("property")
        if call is not None and call.type == "call_expression" and above.field == "function":
            return part is not None and part.text in MUTATING, above
        here = above
    return False, here
