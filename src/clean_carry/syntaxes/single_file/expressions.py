"""The code in a template: every expression parsed in its place, with the offsets of the file.

One parse serves a whole template. What is parsed is the file with everything blank but the
expressions; the quote or brace before and after each becomes a bracket, so that each is a statement.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.text import SourceText

HANDLER = ("@", "v-on:")
BOUND = (":", "v-bind:")
CONDITIONS = ("v-if", "v-else-if")


def is_handler(attribute: TemplateAttribute) -> bool:
    """Whether an attribute holds code for an event."""
    return attribute.name.startswith(HANDLER)


def is_expression(attribute: TemplateAttribute) -> bool:
    """Whether an attribute holds an expression."""
    return attribute.name.startswith(BOUND) or attribute.name in CONDITIONS


@dataclass(frozen=True)
class TemplateCode:
    """The parsed expressions of a template: a tree, its names, and each by where it starts."""

    tree: Tree
    names: Names
    values: dict[int, Node]
    handlers: dict[int, tuple[Node, ...]]


def read_code(source: SourceText, template: TemplateNode) -> TemplateCode:
    """Parse all code of a template. Raises `InputError` where it is no JavaScript."""
    view = source.blanked()
    values: list[tuple[int, int]] = []
    handlers: list[tuple[int, int]] = []
    for node in template.walk():
        if node.kind == "interpolation":
            values.append(node.inner)
        for attribute in node.attributes:
            if attribute.value is None or node is template:
                continue
            if is_handler(attribute):
                handlers.append(attribute.value)
            elif is_expression(attribute):
                values.append(attribute.value)
    for start, end in values:
        _lay(view, source.data, start, end, b"()")
    for start, end in handlers:
        function = source.data[start:end].lstrip().startswith((b"function", b"async function"))
        _lay(view, source.data, start, end, b"()" if function else b"{}")
    tree = Tree(source, bytes(view))
    by_start = {node.start: node for node in tree.root.named_children}
    found_values: dict[int, Node] = {}
    found_handlers: dict[int, tuple[Node, ...]] = {}
    for start, _ in values:
        statement = by_start.get(start - 1)
        inner = statement.named_children[0].named_children if statement is not None else []
        if len(inner) == 1:
            found_values[start] = inner[0]
    for start, _ in handlers:
        statement = by_start.get(start - 1)
        if statement is not None:
            found_handlers[start] = tuple(statement.named_children)
    return TemplateCode(tree, Names(tree), found_values, found_handlers)


def _lay(view: bytearray, data: bytes, start: int, end: int, brackets: bytes) -> None:
    view[start - 1] = brackets[0]
    view[start:end] = data[start:end]
    view[end : end + 1] = brackets[1:]
    if brackets == b"()" and view[end + 1 : end + 2] == b" ":
        view[end + 1] = ord(";")
