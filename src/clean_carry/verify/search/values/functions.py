"""The functions of a file by name, and the names their parameters bind."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name


def functions_of(trees: list[Tree]) -> dict[str, Node]:
    """The functions of the files by name: declared, methods, and those held by a constant, a
    field or a member."""
    found: dict[str, Node] = {}
    for tree in trees:
        for node in tree.of("function_declaration", "method_definition"):
            name = node.child("name")
            if name is not None:
                found.setdefault(name.text, node)
        for node in tree.of("variable_declarator", "public_field_definition"):
            name, value = node.child("name"), node.child("value")
            if name is not None and value is not None and value.is_function:
                found.setdefault(name.text, value)
        for node in tree.of("assignment_expression"):
            left, value = node.child("left"), node.child("right")
            name = left.child("property") if left is not None else None
            if name is not None and value is not None and value.is_function:
                found.setdefault(name.text, value)
        for node in tree.of("pair"):
            key, value = node.child("key"), node.child("value")
            if key is not None and value is not None and value.is_function:
                found.setdefault(property_name(key) or "", value)
    return found


def parameters_of(function: Node) -> Iterator[Node]:
    """The patterns of a function's parameters, with their defaults where they have one."""
    single = function.child("parameter")
    if single is not None:
        yield single
        return
    parameters = function.child("parameters")
    for part in parameters.named_children if parameters is not None else []:
        pattern = part.child("pattern")
        yield pattern if pattern is not None else part


def pattern_names(pattern: Node) -> Iterator[tuple[str, str]]:
    """(key, local name) of the plain parts of an object pattern."""
    for part in pattern.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            yield part.text, part.text
        elif part.type == "object_assignment_pattern":
            left = part.child("left")
            if left is not None:
                yield left.text, left.text
        elif part.type == "pair_pattern":
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if name is not None and value is not None:
                inner = value.child("left") if value.type == "assignment_pattern" else value
                local = inner.text if inner is not None and inner.type == "identifier" else name
                yield name, local
