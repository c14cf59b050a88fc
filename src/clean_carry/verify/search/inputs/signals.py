"""Signals: what a component hears by an object of another module, which anybody may send by it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.search.values.constants import Constants, imports_of

# Methods by which objects of all kinds are listened to.
_LISTENS = frozenset("on $on addListener subscribe".split())
# Packages of the runtimes are no such objects, nor is what has no name of its own.
_NONE = frozenset("react react-dom vue".split())

Given = Callable[[Node | None], list[Any]]


def hubs_of(text: str, path: str) -> tuple[tuple[str, str], ...]:
    """(file, name there) of the objects a component listens to; no name for all a file exports."""
    source = SourceText(path, text.encode())
    view = None
    try:
        if path.endswith(".vue"):
            scripts = [node for node in read_blocks(source) if node.tag == "script"]
            view = bytes(source.blanked([script.inner for script in scripts]))
        found = [(file, name) for file, name, _, _ in _heard(Tree(source, view))]
    except InputError:
        return ()
    return tuple(dict.fromkeys(found))


def signals_of(
    tree: Tree, functions: dict[str, Node], given: Given
) -> Iterator[dict[str, dict[str, Any]]]:
    """A step for each signal that code listens to; `given` says what a function is called with."""
    for file, name, kind, heard in _heard(tree):
        function = heard
        if not heard.is_function:
            part = heard.child("property") if heard.type == "member_expression" else heard
            function = functions.get(part.text, heard) if part is not None else heard
        values = given(function if function.is_function else None)
        yield {"signal": {"from": hub_name(file, name), "type": kind, "given": values}}


def hub_name(file: str, name: str) -> str:
    """How a trial names an object of a module."""
    return f"{file} {name}".rstrip()


def _heard(tree: Tree) -> Iterator[tuple[str, str, str, Node]]:
    """(file, name there, signal, what hears it) for all that is listened to."""
    constants = Constants([tree])
    for call in tree.of("call_expression"):
        callee, arguments = call.child("function"), call.child("arguments")
        if callee is None or arguments is None or callee.type != "member_expression":
            continue
        hub, method = callee.child("object"), callee.child("property")
        given = arguments.named_children
        if hub is None or method is None or method.text not in _LISTENS or len(given) != 2:
            continue
        known, kind = constants.literal(given[0])
        if hub.type != "identifier" or not known or not isinstance(kind, str):
            continue
        for file, name in imports_of(tree, hub.text):
            if file not in _NONE:
                yield file, name, kind, given[1]
