"""The props, events and models that a script of top-level statements declares by types."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.inputs.inputs import Inputs, merged, note_default
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.types import declared_type


def note_declared(tree: Tree, shapes: Shapes, found: Inputs) -> None:
    """Add to `found` the inputs and events of `defineProps<T>()`, `defineEmits<T>()` and
    `defineModel()`."""
    for call in tree.of("call_expression"):
        callee = call.child("function")
        match callee.text if callee is not None else "":
            case "defineProps":
                _inputs(tree, call, shapes, found)
            case "defineEmits":
                _events(call, found)
            case "defineModel":
                _model(tree, call, shapes, found)


def _type_of(call: Node) -> Node | None:
    types = call.child("type_arguments")
    return types.named_children[0] if types is not None and types.named_children else None


def _given(call: Node) -> list[Node]:
    arguments = call.child("arguments")
    return arguments.named_children if arguments is not None else []


def _inputs(tree: Tree, call: Node, shapes: Shapes, found: Inputs) -> None:
    given = _type_of(call)
    if given is None:
        return
    defaults = dict(_defaults(call))
    for name, shape in declared_type(given, tree).fields.items():
        if name in defaults:
            note_default(shape, defaults[name])
        found.shapes[name] = merged(shape, shapes.of(name) if name in shapes else Shape())


def _defaults(call: Node) -> Iterator[tuple[str, Node]]:
    """Yield the defaults of `withDefaults`, or of the pattern that destructures the props."""
    above = call.parent
    around = above.parent if above is not None and above.type == "arguments" else None
    if around is not None and around.type == "call_expression":
        for item in (n for node in _given(around)[1:] for n in node.named_children):
            key, value = item.child("key"), item.child("value")
            if key is not None and value is not None:
                yield property_name(key) or "", _returned(value)
    pattern = above.child("name") if above is not None else None
    for part in pattern.named_children if pattern is not None else ():
        value = part.child("right")
        name = part.child("left") if part.type == "object_assignment_pattern" else part.child("key")
        if value is not None and name is not None:
            yield name.text, value


def _returned(value: Node) -> Node:
    """Return the result of a default's factory, if it is one expression."""
    body = value.child("body") if value.type == "arrow_function" else None
    if body is None or body.type == "statement_block":
        return value
    return body.named_children[0] if body.type == "parenthesized_expression" else body


def _events(call: Node, found: Inputs) -> None:
    given = _type_of(call)
    for member in given.named_children if given is not None else ():
        key = member.child("name")
        words = [property_name(key)] if key is not None else _words(member)
        found.events += [name for name in words if name and name not in found.events]


def _words(signature: Node) -> list[str | None]:
    """The events of a signature like `(event: 'open' | 'close'): void`."""
    parameters = signature.child("parameters")
    first = parameters.named_children[:1] if parameters is not None else []
    kind = first[0].child("type") if first else None
    return [property_name(n) for n in kind.walk() if n.type == "string"] if kind is not None else []


def _model(tree: Tree, call: Node, shapes: Shapes, found: Inputs) -> None:
    """A value that a parent binds both ways: an input, and the event that gives it back."""
    given = _given(call)
    name = "modelValue"
    if given and given[0].type == "string":
        name = property_name(given.pop(0)) or name
    kind = _type_of(call)
    shape = declared_type(kind, tree) if kind is not None else Shape()
    for part in (n for one in given[:1] if one.type == "object" for n in one.named_children):
        key, value = part.child("key"), part.child("value")
        if key is None or value is None:
            continue
        if key.text == "type" and not shape.declared:
            names = [n.text.lower() for n in value.walk() if n.type == "identifier"]
            shape.kinds.update(names)
            shape.declared = bool(names)
        elif key.text == "default":
            note_default(shape, _returned(value))
        elif key.text == "required":
            shape.required = value.text == "true"
    local = call.parent.child("name") if call.parent is not None else None
    used = shapes.of(local.text) if local is not None and local.text in shapes else Shape()
    found.shapes[name] = merged(shape, used)
    event = f"update:{name}"
    found.events += [event] if event not in found.events else []
