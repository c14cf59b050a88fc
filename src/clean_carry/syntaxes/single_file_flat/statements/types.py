"""Types of TypeScript as the constructors a declared input names (the rules of the runtime's compiler)."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node

_PLAIN = {
    "string": "String",
    "number": "Number",
    "boolean": "Boolean",
    "object": "Object",
    "symbol": "Symbol",
}
_BUILT_IN = frozenset(
    "Array Function Date Map Set WeakMap WeakSet Promise Error RegExp Object".split()
)
_AS_OBJECT = frozenset("Record Partial Required Readonly Pick Omit".split())
_ANY = frozenset("any unknown never".split())


def members_of(node: Node, names: Names, depth: int = 0) -> list[Node] | None:
    """The members of a type that says what there is: written out, or declared in this file."""
    if node.type in ("object_type", "interface_body"):
        return node.named_children
    if node.type == "type_identifier" and depth < 9:
        declared = _declaration(node, names)
        if declared is None:
            return None
        body = declared.child("body") or declared.child("value")
        if any(part.type == "extends_type_clause" for part in declared.children) or body is None:
            return None
        return members_of(body, names, depth + 1)
    if node.type == "intersection_type":
        parts = [members_of(part, names, depth + 1) for part in node.named_children]
        return None if None in parts else [one for part in parts for one in part or ()]
    return None


def _declaration(node: Node, names: Names) -> Node | None:
    binding = names.module.names.get(node.text)
    return binding.node.parent if binding is not None and binding.kind != "import" else None


def constructors(node: Node, names: Names, depth: int = 0) -> list[str] | None:
    """The constructors a type stands for, each once; empty for anything, None where it is not known."""
    found = list(_constructors(node, names, depth))
    if None in found:
        return None
    if "" in found:
        return []
    return list(dict.fromkeys(one for one in found if one is not None))


def _constructors(node: Node, names: Names, depth: int) -> Iterator[str | None]:
    match node.type:
        case "predefined_type":
            yield "" if node.text in _ANY else _PLAIN.get(node.text)
        case "literal_type":
            yield _literal(node)
        case "template_literal_type":
            yield "String"
        case "array_type" | "tuple_type" | "readonly_type":
            yield "Array"
        case "function_type":
            yield "Function"
        case "object_type":
            yield "Object"
        case "parenthesized_type":
            yield from _constructors(node.named_children[0], names, depth)
        case "union_type":
            for part in node.named_children:
                yield from _constructors(part, names, depth)
        case "generic_type":
            name = (node.child("name") or node.named_children[0]).text
            yield name if name in _BUILT_IN else "Object" if name in _AS_OBJECT else None
        case "type_identifier":
            yield from _named(node, names, depth)
        case _:
            yield None


def _literal(node: Node) -> str | None:
    text = node.text
    if text in ("null", "undefined"):
        return "null"
    if text in ("true", "false"):
        return "Boolean"
    return "String" if text[:1] in "'\"`" else "Number"


def _named(node: Node, names: Names, depth: int) -> Iterator[str | None]:
    declared = _declaration(node, names)
    if declared is None:
        # A class of the page, or of the language: HTMLElement, Date.
        yield (
            node.text
            if names.module.names.get(node.text) is None and _is_class(node.text)
            else None
        )
    elif declared.type == "interface_declaration":
        yield "Object"
    elif declared.type == "enum_declaration" or depth > 9:
        yield None
    else:
        value = declared.child("value")
        if value is None:
            yield None
        else:
            yield from _constructors(value, names, depth + 1)


def _is_class(name: str) -> bool:
    return (
        name in _BUILT_IN or name.startswith(("HTML", "SVG")) or name in ("File", "Blob", "Event")
    )


def declared_type(node: Node, names: Names) -> str | None:
    """What an input is declared as for a type: `String`, `Array as PropType<Row[]>`; None where it is not
    known, "null" for anything."""
    found = constructors(node, names)
    if found is None:
        return None
    if not found:
        return "null"
    made = found[0] if len(found) == 1 else f"[{', '.join(found)}]"
    exact = {"String": "string", "Number": "number", "Boolean": "boolean"}.get(made) == node.text
    return made if exact else f"{made} as PropType<{node.text}>"
