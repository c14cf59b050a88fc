"""Types of inputs, as an object of options declares them."""

from __future__ import annotations

import re

from clean_carry.source.javascript.tree import Node, Tree

_PLAIN = {"string": "String", "number": "Number", "boolean": "Boolean"}
_LITERALS = {
    "string": "String", "template_string": "String", "number": "Number", "unary_expression": "Number",
    "true": "Boolean", "false": "Boolean",
}  # fmt: skip


def plain_type(node: Node | None) -> str:
    """The type behind a name, without the colon; "" where there is none."""
    return node.text.lstrip(":").strip() if node is not None else ""


def declared_type(type_: Node | None, default: Node | None, tree: Tree) -> str:
    """The class that stands for a type at run time; null where nothing is known."""
    text = plain_type(type_)
    if not text:
        if default is None:
            return "null"
        if default.type == "array":
            return "Array"
        return _LITERALS.get(default.type, "null")
    return _of_text(text, tree)


def _of_text(text: str, tree: Tree) -> str:
    parts = [one.strip() for one in text.split("|")]
    known = [one for one in parts if one not in ("null", "undefined", "")]
    if len(known) == 1 and known[0] in _PLAIN:
        return _PLAIN[known[0]]
    if known and all(re.fullmatch(r"'[^']*'|\"[^\"]*\"", one) for one in known):
        return f"String as PropType<{text}>"
    if re.search(
        r"\[\]$|^(?:readonly\s+|Readonly)?(?:Array|ReadonlyArray)?<?.*\[\]$", text
    ) or re.match(r"(?:Readonly)?Array<", text):
        return f"Array as PropType<{text}>"
    if "=>" in text:
        return f"Function as PropType<{text}>"
    if len(known) == 1 and re.fullmatch(r"\w+", known[0]):
        alias = _declared(known[0], tree)
        if alias is not None and alias.type == "interface_declaration":
            return f"Object as PropType<{text}>"
        value = alias.child("value") if alias is not None else None
        if value is not None and value.type == "object_type":
            return f"Object as PropType<{text}>"
        if value is not None:
            runtime = _of_text(value.text, tree).partition(" as ")[0]
            if runtime in ("String", "Number", "Boolean"):
                return f"{runtime} as PropType<{text}>"
    return "null"


def _declared(name: str, tree: Tree) -> Node | None:
    for node in tree.of("interface_declaration", "type_alias_declaration"):
        own = node.child("name")
        if own is not None and own.text == name:
            return node
    return None
