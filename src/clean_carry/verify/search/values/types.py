"""Declared types as shapes: the runtime's checks (`PropTypes.x`), TypeScript's and Flow's types."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.values.shape import Shape, kind_of, literal_of

_CHECKS = {
    "string": "string",
    "number": "number",
    "bool": "boolean",
    "func": "function",
    "array": "array",
    "object": "object",
    "node": "content",
    "element": "element content",
    "elementType": "tag",
    "symbol": "any",
    "any": "any",
}
_NAMED = {
    "ReactNode": "content",
    "ReactElement": "element content",
    "ReactChild": "content",
    "ElementType": "tag",
    "ComponentType": "tag",
    "CSSProperties": "style",
    "Date": "date",
    "RegExp": "expression",
    "Function": "function",
    "HTMLElement": "reference",
    "Ref": "reference",
    "RefObject": "reference",
}
# The same by Flow's names: those of its own utilities mean what they are made of.
_ANNOTATED = {"Node": "content", "Element": "element content", "Object": "object", "mixed": "any"}
_WRAPPERS = frozenset(
    "Partial Readonly Required Pick Omit PropsWithChildren $ReadOnly $Exact $Shape $Diff".split()
)
_LISTS = frozenset({"Array", "ReadonlyArray", "Set", "Iterable"})
MOST_DEPTH = 7


def runtime_type(node: Node, tree: Tree, depth: int = 0) -> Shape:
    """The shape of a check such as `PropTypes.arrayOf(PropTypes.string).isRequired`."""
    shape = Shape(declared=True)
    name, arguments, required = _check(node)
    shape.required = required
    # Such a check lets null pass wherever nothing is required.
    shape.nullable = not required
    if depth > MOST_DEPTH:
        return shape
    if name in _CHECKS:
        shape.kinds.add(_CHECKS[name])
    elif name in ("oneOf", "oneOfType") and arguments:
        for item in _items(arguments[0], tree):
            if name == "oneOfType":
                _widen(shape, runtime_type(item, tree, depth + 1))
                continue
            found, literal = literal_of(item)
            if found:
                shape.note(literal)
                shape.listed = True
                shape.kinds.add(kind_of(literal))
    elif name in ("arrayOf", "objectOf") and arguments:
        shape.kinds.add("array" if name == "arrayOf" else "object")
        inner = runtime_type(arguments[0], tree, depth + 1)
        if name == "arrayOf":
            shape.items = inner
        else:
            shape.fields["one"] = inner
    elif name in ("shape", "exact") and arguments:
        shape.kinds.add("object")
        for key, value in _pairs(arguments[0], tree):
            shape.fields[key] = runtime_type(value, tree, depth + 1)
    elif name == "instanceOf" and arguments:
        shape.kinds.add(_NAMED.get(arguments[0].text, "object"))
    else:
        resolved = _constant(node, tree)
        if resolved is not None and depth < MOST_DEPTH:
            return runtime_type(resolved, tree, depth + 1)
        shape.declared = False
    return shape


def _widen(shape: Shape, other: Shape) -> None:
    shape.kinds |= other.kinds
    shape.items = shape.items or other.items
    shape.fields = {**other.fields, **shape.fields}
    for literal in other.literals:
        shape.note(literal)


def _check(node: Node) -> tuple[str, list[Node], bool]:
    """(last name, arguments of its call, whether it is required)."""
    arguments: list[Node] = []
    required = False
    while True:
        if node.type == "call_expression":
            given = node.child("arguments")
            arguments = given.named_children if given is not None else []
            callee = node.child("function")
            if callee is None:
                return "", [], required
            node = callee
        elif node.type == "member_expression":
            part = node.child("property")
            if part is not None and part.text == "isRequired":
                required = True
                node = node.children[0]
                continue
            return (part.text if part is not None else ""), arguments, required
        else:
            return node.text if node.type == "identifier" else "", arguments, required


def _constant(node: Node, tree: Tree) -> Node | None:
    if node.type != "identifier":
        return None
    for declarator in tree.of("variable_declarator"):
        name, value = declarator.child("name"), declarator.child("value")
        if name is not None and name.text == node.text:
            return value
    return None


def _items(node: Node, tree: Tree) -> list[Node]:
    resolved = _constant(node, tree) or node
    return resolved.named_children if resolved.type == "array" else []


def _pairs(node: Node, tree: Tree) -> list[tuple[str, Node]]:
    resolved = _constant(node, tree) or node
    found: list[tuple[str, Node]] = []
    for part in resolved.named_children if resolved.type == "object" else ():
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if name is not None and value is not None:
            found.append((name, value))
    return found


def declared_type(node: Node, tree: Tree, depth: int = 0) -> Shape:
    """The shape of a type in TypeScript's or Flow's words."""
    if depth > MOST_DEPTH:
        return Shape()
    inner = node.named_children[0] if node.named_children else None
    match node.type:
        case "flow_maybe_type" if inner is not None:
            return replace(declared_type(inner, tree, depth), nullable=True)
        case "readonly_type" | "parenthesized_type" if inner is not None:
            return declared_type(inner, tree, depth)
        case "generic_type":
            return _generic(node, tree, depth)
        case "type_identifier" | "nested_type_identifier":
            return _named(node.text.split(".")[-1], tree, depth)
        case "union_type" | "intersection_type":
            return _several(node, tree, depth)
        case "literal_type":
            return _literal(inner or node)
    return _plain_type(node, inner, tree, depth)


def _several(node: Node, tree: Tree, depth: int) -> Shape:
    """One of several types, or all of them at once."""
    shape = Shape(declared=True)
    either = node.type == "union_type"
    for part in node.named_children:
        if not either or part.text not in ("undefined", "null"):
            _widen(shape, declared_type(part, tree, depth + 1))
        shape.nullable = shape.nullable or (either and part.text == "null")
    return shape


def _literal(node: Node) -> Shape:
    shape = Shape(declared=True)
    found, literal = literal_of(node)
    if found and literal is not None:
        shape.note(literal)
        shape.listed = True
        shape.kinds.add(kind_of(literal))
    return shape


def _plain_type(node: Node, inner: Node | None, tree: Tree, depth: int) -> Shape:
    shape = Shape(declared=True)
    match node.type:
        case "predefined_type":
            shape.kinds.add("any" if node.text in ("unknown", "never") else node.text)
        case "array_type" if inner is not None:
            shape.kinds.add("array")
            shape.items = declared_type(inner, tree, depth + 1)
        case "tuple_type":
            shape.kinds.add("array")
        case "function_type":
            shape.kinds.add("function")
            result = node.child("return_type")
            if result is not None:
                shape.result = declared_type(result, tree, depth + 1)
        case "object_type" | "interface_body":
            shape.kinds.add("object")
            _signatures(shape, node, tree, depth)
        case _:
            shape.declared = False
    return shape


def _signatures(shape: Shape, node: Node, tree: Tree, depth: int) -> None:
    for part in node.named_children:
        key = part.child("name")
        name = property_name(key) if key is not None else None
        if name is None:
            continue
        if part.type == "method_signature":
            shape.fields[name] = Shape({"function"}, declared=True)
        elif part.type == "property_signature":
            kind = part.child("type")
            inner = kind.named_children[0] if kind is not None and kind.named_children else None
            field = declared_type(inner, tree, depth + 1) if inner is not None else Shape()
            field.required = not part.has("?") and (
                inner is None or inner.type != "flow_maybe_type"
            )
            shape.fields[name] = field


def _generic(node: Node, tree: Tree, depth: int) -> Shape:
    name = node.named_children[0].text.split(".")[-1]
    arguments = node.child("type_arguments")
    given = arguments.named_children if arguments is not None else []
    if name in _LISTS and given:
        return Shape({"array"}, items=declared_type(given[0], tree, depth + 1), declared=True)
    if name in ("Record", "Map") and len(given) == 2:
        return Shape({"object"}, fields={"one": declared_type(given[1], tree, depth + 1)})
    if name in _WRAPPERS and given:
        return declared_type(given[0], tree, depth + 1)
    if name == "Promise":
        return Shape({"promise"}, declared=True)
    return _named(name, tree, depth)


def _named(name: str, tree: Tree, depth: int) -> Shape:
    if tree.annotated and name.removeprefix("React$") in _ANNOTATED:
        return Shape({_ANNOTATED[name.removeprefix("React$")]}, declared=True)
    if name in _NAMED:
        return Shape({_NAMED[name]}, declared=True)
    if name.endswith(("Handler", "Callback", "EventHandler")):
        return Shape({"function"}, declared=True)
    for node in tree.of("interface_declaration", "type_alias_declaration", "enum_declaration"):
        own = node.child("name")
        if own is None or own.text != name:
            continue
        body = node.child("body") or node.child("value")
        if body is None:
            break
        if node.type == "enum_declaration":
            shape = Shape({"string"}, declared=True)
            for part in body.named_children:
                value = part.child("value")
                found, literal = literal_of(value) if value is not None else (False, None)
                if found:
                    shape.note(literal)
                    shape.listed = True
            return shape
        shape = declared_type(body, tree, depth + 1)
        for clause in node.children:
            if clause.type == "extends_type_clause":
                for base in clause.named_children:
                    _widen(shape, declared_type(base, tree, depth + 1))
        return shape
    for node in tree.of("type_parameter"):
        own, bound = node.child("name"), node.child("constraint")
        if own is not None and own.text == name and bound is not None and bound.named_children:
            return declared_type(bound.named_children[0], tree, depth + 1)
    return Shape()
