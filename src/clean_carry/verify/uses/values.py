"""Values of a use as text: constants as they are, and something of the likely kind for the rest."""

from __future__ import annotations

import re

from clean_carry.source.javascript.tree import Node

_CONSTANT = frozenset("string number true false null template_string".split())
# Attributes that take a function or an object with functions, by how they are called.
_CALLED_BACK = re.compile(
    r"^(on|handle|render|get|set|load|toggle)([A-Z]|$)|^(value|store|theme|container|target)$|Ref$"
)


# Expressions that only name, or put together, what stands elsewhere.
NAMED = frozenset("identifier member_expression template_string subscript_expression".split())


def is_called_back(name: str) -> bool:
    """Whether an attribute is likely to take a function."""
    return _CALLED_BACK.search(name) is not None


def is_constant(node: Node) -> bool:
    """Whether an expression is a constant."""
    return node.type in _CONSTANT and not any(
        n.type == "template_substitution" for n in node.walk()
    )


def value_text(node: Node) -> str:
    """A constant as it is written; what a value of its kind would be for everything else."""
    if is_constant(node):
        return node.text
    if node.type in ("binary_expression", "unary_expression"):
        return "true"
    if node.type == "object":
        fields = []
        for part in node.named_children:
            key, value = part.child("key"), part.child("value")
            if part.type == "pair" and key is not None and value is not None:
                fields.append(f"{key.text}: {value_text(value)}")
            elif part.type == "shorthand_property_identifier":
                fields.append(f"{part.text}: () => {{}}")
        return f"{{ {', '.join(fields)} }}"
    if node.type == "array":
        return f"[{', '.join(value_text(item) for item in node.named_children)}]"
    return "() => {}"
