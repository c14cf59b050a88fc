"""Classes with a component decorator in a script, and what the decorator says."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from clean_carry.source.javascript.tree import Node, Tree

_PACKAGE = "@angular/core"


@dataclass(frozen=True)
class Decorated:
    """A class with its decorator's options, the statement it stands in, and its name."""

    node: Node
    options: Node
    statement: Node
    name: str

    @cached_property
    def selector(self) -> str:
        """The selector, "" where there is none."""
        value = property_of(self.options, "selector")
        return (text_of(value) if value is not None else None) or ""


def decorated_in(tree: Tree) -> list[Decorated]:
    """The component classes of a script."""
    return classes_with(tree, "Component")


def classes_with(tree: Tree, decorator_name: str) -> list[Decorated]:
    """The classes of a script that a decorator of the runtime tells something about."""
    if not any(_PACKAGE in one.text for one in tree.of("import_statement")):
        return []
    found = []
    for node in tree.of("class_declaration", "abstract_class_declaration"):
        statement = (
            node.parent
            if node.parent is not None and node.parent.type == "export_statement"
            else node
        )
        holders = [*statement.children, *node.children]
        for decorator in holders:
            if decorator.type != "decorator":
                continue
            call = decorator.named_children[0]
            callee = call.child("function") if call.type == "call_expression" else None
            given = arguments_of(decorator)
            if (
                callee is not None
                and callee.text == decorator_name
                and given
                and given[0].type == "object"
            ):
                name = node.child("name")
                found.append(
                    Decorated(node, given[0], statement, name.text if name is not None else "")
                )
    return found


def arguments_of(node: Node | None) -> list[Node]:
    """The arguments of a call, or of the call in a decorator."""
    if node is not None and node.type == "decorator":
        node = node.named_children[0]
    given = node.child("arguments") if node is not None else None
    return given.named_children if given is not None else []


def property_of(literal: Node, name: str) -> Node | None:
    """The value of a property of an object."""
    for pair in literal.named_children:
        key = pair.child("key")
        if key is not None and key.text.strip("'\"") == name:
            return pair.child("value")
    return None


def text_of(node: Node) -> str | None:
    """The text that a literal gives; None for anything else."""
    if node.type == "string" or (
        node.type == "template_string"
        and not any(part.type == "template_substitution" for part in node.named_children)
    ):
        return node.text[1:-1]
    return None
