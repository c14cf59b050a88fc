"""The fields that code reads from the reply to a request, and the names a pattern takes."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes


def reply_of(tree: Tree, shapes: Shapes) -> Shape | None:
    """Return the fields that code reads from the JSON of a reply."""
    for node in tree.of("call_expression"):
        callee = node.child("function")
        part = callee.child("property") if callee is not None else None
        if part is None or callee is None or part.text not in ("json", "parse"):
            continue
        if part.text == "parse" and callee.children[0].text != "JSON":
            continue
        shape = Shape({"object"}, declared=True)
        for name, local in _taken_from(node):
            if name == "":
                return shapes.of(local)
            shape.fields[name] = shapes.of(local)
        return shape
    return None


def _taken_from(call: Node) -> list[tuple[str, str]]:
    """(field, local name) of what becomes of a value; an empty field is the value itself."""
    for above in call.up():
        if above.type in ("await_expression", "parenthesized_expression", "arrow_function"):
            continue
        if above.type == "variable_declarator":
            target = above.child("name")
            if target is not None and target.type == "identifier":
                return [("", target.text)]
            return [] if target is None else [(n, n) for n in _flat_names(target)]
        if above.type == "arguments":
            chain = above.parent.parent if above.parent is not None else None
            then = chain.parent if chain is not None else None
            arguments = then.child("arguments") if then is not None else None
            if arguments is not None and arguments.named_children:
                return _parameter_names(arguments.named_children[0])
        if above.type == "pair":
            key = above.child("key")
            return [("", key.text)] if key is not None else []
        if above.type == "member_expression":
            part = above.child("property")
            then = above.parent
            arguments = then.child("arguments") if then is not None else None
            if part is not None and part.text == "then" and arguments is not None:
                return _parameter_names(arguments.named_children[0])
            return [(part.text, part.text)] if part is not None else []
        return []
    return []


def _parameter_names(function: Node) -> list[tuple[str, str]]:
    parameter = function.child("parameter")
    if parameter is None:
        parameters = function.child("parameters")
        given = parameters.named_children if parameters is not None else []
        parameter = (given[0].child("pattern") or given[0]) if given else None
    if parameter is None:
        return []
    if parameter.type == "identifier":
        return [("", parameter.text)]
    return [(name, name) for name in _flat_names(parameter)]


def _flat_names(pattern: Node) -> list[str]:
    found: dict[str, None] = {}
    names_of(pattern, found)
    return list(found)


def names_of(pattern: Node, found: dict[str, None]) -> None:
    for part in pattern.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            found.setdefault(part.text)
        elif part.type in ("object_assignment_pattern", "pair_pattern"):
            key = part.child("left") or part.child("key")
            name = property_name(key) if key is not None else None
            if name is not None:
                found.setdefault(name)
