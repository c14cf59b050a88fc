"""The declared props of a component: types checked at run time, or types of the script."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import last_name, property_name
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds

_DECLARING = ("interface_declaration", "type_alias_declaration")
# Names of the checked types by their meaning here: a kind of value, or markup.
_CHECKED = {
    "string": "String",
    "number": "Number",
    "bool": "Boolean",
    "func": "Function",
    "array": "Array",
    "arrayOf": "Array",
    "object": "Object",
    "objectOf": "Object",
    "shape": "Object",
    "exact": "Object",
    "node": "markup",
    "element": "markup",
}
_MARKUP_TYPES = frozenset({"ReactNode", "ReactElement", "ReactChild", "Element", "ReactNodeArray"})
_KINDS: dict[str, Kinds] = {
    "String": frozenset({"text", "nothing"}),
    "Number": frozenset({"number", "nothing"}),
    "Boolean": frozenset({"boolean", "nothing"}),
    "Function": frozenset({"object", "nothing"}),
    "Array": frozenset({"object", "nothing"}),
    "Object": frozenset({"object", "nothing"}),
}


@dataclass(frozen=True)
class Declared:
    """The declaration of a prop: `kind` is String, Number, Boolean, Function, Array, Object,
    `markup`, or "" for anything; `kinds` are those of its values, None for any."""

    kind: str
    required: bool
    kinds: Kinds | None


def checked_inputs(literal: Node | None) -> dict[str, Declared]:
    """Return the declarations of an object of checked types, by the prop's name."""
    found: dict[str, Declared] = {}
    for part in literal.named_children if literal is not None and literal.type == "object" else ():
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if name is None or value is None:
            continue
        required = value.type == "member_expression" and last_name(value) == "isRequired"
        inner = value.children[0] if required else value
        called = inner.child("function") if inner.type == "call_expression" else inner
        kind = _CHECKED.get(last_name(called), "")
        kinds = _KINDS.get(kind)
        if inner.type == "call_expression" and last_name(called) == "oneOf":
            kinds = _one_of(inner)
        found[name] = Declared(kind, required, kinds)
    return found


def _one_of(call: Node) -> Kinds | None:
    arguments = call.child("arguments")
    given = arguments.named_children[0] if arguments is not None else None
    parts = given.named_children if given is not None and given.type == "array" else []
    if parts and all(part.type == "string" for part in parts):
        return frozenset({"text", "nothing"})
    if parts and all(part.type == "number" for part in parts):
        return frozenset({"number", "nothing"})
    return None


def typed_inputs(tree: Tree, given: Node | None) -> dict[str, Declared]:
    """Return the declarations of a type that is written in the file, by the prop's name."""
    body = _body(tree, given) if given is not None else None
    found: dict[str, Declared] = {}
    for part in body.named_children if body is not None else ():
        name_node, annotation = part.child("name"), part.child("type")
        name = property_name(name_node) if name_node is not None else None
        if name is None:
            continue
        optional = part.has("?")
        if part.type == "method_signature":
            found[name] = Declared("Function", not optional, _KINDS["Function"])
        elif annotation is not None and annotation.named_children:
            kind, kinds = _kind_of(tree, annotation.named_children[0])
            if optional and kinds is not None:
                kinds |= {"nothing"}
            found[name] = Declared(kind, not optional, kinds)
    return found


def _body(tree: Tree, given: Node) -> Node | None:
    """The members of a type: written in place, or declared in the file under its name."""
    if given.type == "object_type":
        return given
    named = given.children[0] if given.type == "generic_type" else given
    for node in tree.of(*_DECLARING):
        own = node.child("name")
        if own is not None and own.text == named.text:
            if node.has("extends_type_clause"):
                return None
            return next(
                (p for p in node.children if p.type in ("interface_body", "object_type")), None
            )
    return None


_WRITTEN = {"string": "String", "number": "Number", "boolean": "Boolean"}


def _kind_of(tree: Tree, node: Node, depth: int = 0) -> tuple[str, Kinds | None]:
    text = node.text
    if text in _WRITTEN:
        kind = _WRITTEN[text]
        return kind, _KINDS[kind] - {"nothing"}
    if text.rpartition(".")[2] in _MARKUP_TYPES:
        return "markup", None
    match node.type:
        case "function_type":
            return "Function", frozenset({"object"})
        case "array_type" | "tuple_type":
            return "Array", frozenset({"object"})
        case "object_type":
            return "Object", frozenset({"object"})
        case "literal_type":
            inner = node.named_children[0].type if node.named_children else ""
            kind = {
                "string": "String",
                "number": "Number",
                "true": "Boolean",
                "false": "Boolean",
            }.get(inner, "")
            kinds: Kinds | None = _KINDS[kind] - {"nothing"} if kind else None
            return kind, frozenset({"nothing"}) if inner in ("null", "undefined") else kinds
        case "union_type":
            parts = [_kind_of(tree, part, depth) for part in node.named_children]
            named = {kind for kind, kinds in parts if kinds != frozenset({"nothing"})}
            together: Kinds = frozenset()
            for _, kinds in parts:
                if kinds is None:
                    return named.pop() if len(named) == 1 else "", None
                together |= kinds
            return named.pop() if len(named) == 1 else "", together
        case "type_identifier" | "generic_type" if depth < 4:
            name = node.children[0].text if node.type == "generic_type" else text
            if name in ("Array", "ReadonlyArray"):
                return "Array", frozenset({"object"})
            for alias in tree.of("type_alias_declaration"):
                own, value = alias.child("name"), alias.child("value")
                if own is not None and own.text == name and value is not None:
                    return _kind_of(tree, value, depth + 1)
            if any(
                own.text == name
                for one in tree.of("interface_declaration")
                if (own := one.child("name")) is not None
            ):
                return "Object", frozenset({"object"})
    return "", None
