"""The values of a directive's attributes, by code far from them: helpers that evaluate them, and
constants in their place."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.scoped_template.registrations import Registrations
from clean_carry.verify.search.values.shape import Shape, literal_of

_EVALUATES = frozenset({"$eval", "$parse", "$watch", "$watchCollection"})
_LITERALS = {
    "number": "number",
    "string": "string",
    "true": "boolean",
    "false": "boolean",
    "array": "array",
}


def is_evaluated(tree: Tree, code: Node, name: str) -> bool:
    """Whether code hands an attribute to something that evaluates it: the runtime, or a function of the
    file that hands it on to the runtime."""
    for node in code.walk():
        asked = node.child("property") if node.type == "member_expression" else None
        if asked is None or asked.text != name or "ttr" not in node.children[0].text:
            continue
        given = node.parent
        call = given.parent if given is not None and given.type == "arguments" else None
        callee = _called(call)
        if call is None or given is None or not callee:
            continue
        if callee in _EVALUATES:
            return True
        values = given.named_children
        at = next(i for i, value in enumerate(values) if value is node)
        if any(value.type == "true" for value in values):
            # A flag with another purpose, such as text with interpolations.
            continue
        if any(_hands_on(function, at) for function in _functions(tree, callee)):
            return True
    return False


def _called(call: Node | None) -> str:
    """The last name of what is called."""
    callee = call.child("function") if call is not None else None
    last = (callee.child("property") or callee) if callee is not None else None
    return last.text if last is not None else ""


def _functions(tree: Tree, name: str) -> Iterator[Node]:
    """The functions of a file that are kept under a name: of the file, of an object, of a controller."""
    for node in tree.of("function_declaration", "method_definition"):
        own = node.child("name")
        if own is not None and own.text == name:
            yield node
    for node in tree.of("assignment_expression", "variable_declarator", "pair"):
        target = node.child("left") or node.child("name") or node.child("key")
        value = node.child("right") or node.child("value")
        if target is None or value is None or not value.is_function:
            continue
        last = target.child("property") or target
        if last.text == name:
            yield value


def _hands_on(function: Node, at: int) -> bool:
    """Whether a function hands one of its parameters to what evaluates it."""
    listed = function.child("parameters")
    parameters = listed.named_children if listed is not None else []
    if at >= len(parameters):
        return False
    for node in function.walk():
        if node.type == "call_expression" and _called(node) in _EVALUATES:
            arguments = node.child("arguments")
            first = arguments.named_children[:1] if arguments is not None else []
            if first and first[0].text == parameters[at].text.split(":")[0].strip():
                return True
    return False


def note_constants(
    shapes: dict[str, Shape], registrations: Registrations, functions: list[Node]
) -> None:
    """Let inputs be of the kinds the constants have that stand in for them, where code is given these."""
    words = {n.text for function in functions for n in function.walk() if n.type == "identifier"}
    texts = {
        n.text[1:-1] for function in functions for n in _around(function) if n.type == "string"
    }
    for constant in registrations.of("constant"):
        if constant.name not in words | texts or constant.value.type != "object":
            continue
        for pair in constant.value.named_children:
            key, value = pair.child("key"), pair.child("value")
            name = property_name(key) if key is not None else None
            shape = shapes.get(name or "")
            kind = _LITERALS.get(value.type) if value is not None else None
            if shape is None or kind is None or value is None or shape.declared:
                continue
            if not shape.kinds or kind in shape.kinds or shape.kinds == {"sized"}:
                shape.kinds = {kind}
                if kind == "number":
                    shape.literals.insert(0, literal_of(value)[1])
                inner = {_LITERALS.get(v.type) for v in value.named_children}
                if kind == "array" and len(inner) == 1 and None not in inner:
                    shape.items = Shape({str(*inner)})


# The type of a value by its first use: a call of these, or an operator.
_MADE = {"Date": "date", "parseInt": "number", "parseFloat": "number", "isArray": "array"}


def note_watched(shapes: dict[str, Shape], functions: list[Node]) -> None:
    """Let inputs that are watched be of the kinds the listener takes them for: `min = new Date(value)`."""
    calls = (n for f in functions for n in f.walk() if n.type == "call_expression")
    for call in calls:
        given = call.child("arguments")
        values = given.named_children if given is not None else []
        if _called(call) not in _EVALUATES or len(values) < 2 or not values[1].is_function:
            continue
        last = next(
            (n for n in reversed(list(values[0].walk())) if n.type[-10:] == "identifier"), None
        )
        listed = values[1].child("parameters")
        names = (
            [p.text.split(":")[0] for p in listed.named_children[:1]] if listed is not None else []
        )
        shape = shapes.get(last.text) if last is not None else None
        if shape is None or shape.declared or not names:
            continue
        kinds = {
            kind for node in values[1].walk() if node.text == names[0] and (kind := _taken(node))
        }
        if kinds:
            shape.kinds = kinds


def _taken(node: Node) -> str:
    """Return the kind that a value is used as at a place; "" if unknown."""
    parent = node.parent
    if parent is None:
        return ""
    if parent.type == "unary_expression":
        return "number" if parent.has("+") else "boolean" if parent.has("!") else ""
    call = parent.parent if parent.type == "arguments" else None
    maker = call.child("function") or call.child("constructor") if call is not None else None
    last = (maker.child("property") or maker) if maker is not None else None
    return _MADE.get(last.text, "") if last is not None else ""


def _around(function: Node) -> Iterator[Node]:
    """A function and the list it stands in, which names what it is given."""
    parent = function.parent
    yield from (parent if parent is not None and parent.type == "array" else function).walk()
