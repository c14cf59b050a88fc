"""What a class is handed to in its file, where that looks into the class or extends it.

A function that asks for a prototype, extends what it is given or makes an instance of it takes another way
with a function component. It may be what another gives (`sized({ large: true })(Berth)`), or one of several
that are put together (`compose(sized(3), lit)(Berth)`).
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Literal, NamedTuple

from clean_carry.source.exports import Declared, declared
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.recognise import Candidate

Way = Literal["", "looks", "extends"]
_MEMBERS = frozenset({"prototype", "isReactComponent"})
# Through so many functions it is followed.
_MOST_STEPS = 3


class Look(NamedTuple):
    """What looks into a class or extends it, and the offset where the class is handed to it."""

    name: str
    at: int
    way: Way


def looked_into(candidate: Candidate, tree: Tree, workspace: Workspace) -> Look | None:
    """The first that looks into the class or extends it; None where nothing does."""
    binding = candidate.binding
    given = [
        (reference.parent.parent, reference)
        for reference in (binding.references if binding is not None else ())
        if reference.parent is not None and reference.parent.type == "arguments"
    ]
    for call, reference in given:
        callee = call.child("function") if call is not None else None
        if callee is None or reference.parent is None:
            continue
        at = reference.parent.named_children.index(reference)
        way = _by(callee, at, tree, workspace.file, workspace, 0)
        if way:
            return Look(callee.text.split("(")[0], reference.start, way)
    for decorator in candidate.decorators:
        called = decorator.named_children[0]
        way = _by(called, 0, tree, workspace.file, workspace, 0)
        if way:
            return Look(called.text.split("(")[0], decorator.start, way)
    return None


def _by(callee: Node, at: int, tree: Tree, file: Path, workspace: Workspace, steps: int) -> Way:
    """What is done with argument number `at` of a call by what is called."""
    if callee.type == "identifier":
        return _named(callee.text, at, tree, file, workspace, steps)
    maker, given = callee.child("function"), callee.child("arguments")
    if callee.type != "call_expression" or maker is None or given is None or steps > _MOST_STEPS:
        return ""
    found = declared(maker.text, tree, file, workspace) if maker.type == "identifier" else None
    if found is not None and found.node.is_function:
        ways = (_inside(f, at, found, workspace, steps) for f in _given_back(found.node))
    else:
        # What puts functions together hands on to each what it is given.
        ways = (_by(part, 0, tree, file, workspace, steps + 1) for part in given.named_children)
    return next((way for way in ways if way), "")


def _named(name: str, at: int, tree: Tree, file: Path, workspace: Workspace, steps: int) -> Way:
    """What a function of the project does with its argument number `at`."""
    found = declared(name, tree, file, workspace)
    if found is None or steps > _MOST_STEPS:
        return ""
    if found.node.type == "call_expression":
        # A name for what a call gives: `const enhance = compose(…)`.
        return _by(found.node, at, found.tree, found.file, workspace, steps + 1)
    return _inside(found.node, at, found, workspace, steps) if found.node.is_function else ""


def _inside(function: Node, at: int, here: Declared, workspace: Workspace, steps: int) -> Way:
    parameter, body = _parameter(function, at), function.child("body")
    if not parameter or body is None:
        return ""
    ways = (_asks(node, parameter, here, workspace, steps) for node in body.walk())
    return next((way for way in ways if way), "")


def _given_back(function: Node) -> Iterator[Node]:
    """The functions a function gives back."""
    body = function.child("body")
    if body is None:
        return
    if body.is_function:
        yield body
        return
    for statement in body.named_children:
        value = statement.named_children[0] if statement.type == "return_statement" else None
        if value is not None and value.is_function:
            yield value


def _asks(node: Node, name: str, here: Declared, workspace: Workspace, steps: int) -> Way:
    if node.type != "identifier" or node.text != name or node.parent is None:
        return ""
    parent = node.parent
    if parent.type == "member_expression" and node.field == "object":
        part = parent.child("property")
        return "looks" if part is not None and part.text in _MEMBERS else ""
    if parent.type == "extends_clause":
        return "extends"
    if parent.type == "new_expression":
        return "looks"
    callee = parent.parent.child("function") if parent.parent is not None else None
    if parent.type != "arguments" or callee is None:
        return ""
    at = parent.named_children.index(node)
    return _by(callee, at, here.tree, here.file, workspace, steps + 1)


def _parameter(function: Node, at: int) -> str:
    """The name of a parameter; "" where it has none."""
    single = function.child("parameter")
    if single is not None:
        return single.text if at == 0 else ""
    parameters = function.child("parameters")
    given = parameters.named_children if parameters is not None else []
    if at >= len(given):
        return ""
    pattern = given[at].child("pattern") or given[at].child("left") or given[at]
    return pattern.text if pattern.type == "identifier" else ""
