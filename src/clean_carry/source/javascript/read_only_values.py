"""Values that are only looked at: one of them may as well be several, or stand somewhere else."""

from __future__ import annotations

from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node

_LITERAL = frozenset(
    {
        "string", "string_fragment", "escape_sequence", "number", "true", "false", "null",
        "undefined", "template_string", "array", "object", "pair", "property_identifier",
        "as_expression", "predefined_type", "unary_expression",
    }
)  # fmt: skip
_HOLDERS = frozenset({"array", "object"})
# Methods that read a list and do not change it.
_LOOKS = frozenset(
    "concat every filter find findIndex flatMap forEach includes indexOf join keys lastIndexOf map reduce "
    "slice some values".split()
)


def holders(value: Node) -> list[Node] | None:
    """The lists and objects in a literal of plain values; None for any other expression."""
    if any(n.named and n.type not in _LITERAL for n in value.walk()):
        return None
    return [n for n in value.walk() if n.type in _HOLDERS]


def only_looked_at(binding: Binding, value: Node) -> bool:
    """Whether a name holds one list or object of plain values that nothing changes or passes on."""
    found = holders(value)
    return found is not None and len(found) <= 1 and all(map(looks, binding.references))


def looks(ref: Node) -> bool:
    """Whether a use neither changes something that is always true nor hands it on."""
    parent = ref.parent
    match parent.type if parent is not None else "":
        case "variable_declarator":
            return ref.field == "name"
        case "member_expression" | "subscript_expression" if ref.field == "object":
            assert parent is not None
            part = parent.child("property")
            changes = is_write(parent) or (
                parent.parent is not None and parent.parent.has("delete")
            )
            reads = parent.field != "function" or (part is not None and part.text in _LOOKS)
            return reads and not changes
        case "binary_expression":
            assert parent is not None
            return ref.field == "left" and parent.has("&&")
        case "spread_element" | "for_in_statement":
            return True
    return False
