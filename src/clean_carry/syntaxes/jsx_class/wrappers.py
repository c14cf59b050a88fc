"""What a class is handed to in its file, where that looks into the class.

A function that asks for a prototype, extends what it is given or makes an instance of it takes another way
with a function component.
"""

from __future__ import annotations

from pathlib import Path

from clean_carry.source.exports import Declared, declared
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.recognise import Candidate

_MEMBERS = frozenset({"prototype", "isReactComponent"})
# Through so many functions it is followed.
_MOST_STEPS = 3


def looked_into(candidate: Candidate, tree: Tree, workspace: Workspace) -> tuple[str, int] | None:
    """(what looks into the class, the offset where the class is handed to it); None where nothing does."""
    binding = candidate.binding
    given = [
        (reference.parent.parent, reference)
        for reference in (binding.references if binding is not None else ())
        if reference.parent is not None and reference.parent.type == "arguments"
    ]
    for call, reference in given:
        callee = call.child("function") if call is not None else None
        if callee is None or callee.type != "identifier" or reference.parent is None:
            continue
        at = reference.parent.named_children.index(reference)
        if _looks(callee.text, at, tree, workspace.file, workspace, 0):
            return callee.text, reference.start
    for decorator in candidate.decorators:
        called = decorator.named_children[0]
        if called.type == "identifier":
            if _looks(called.text, 0, tree, workspace.file, workspace, 0):
                return called.text, decorator.start
    return None


def _looks(name: str, at: int, tree: Tree, file: Path, workspace: Workspace, steps: int) -> bool:
    """Whether a function looks into its argument number `at`."""
    found = declared(name, tree, file, workspace)
    if found is None or not found.node.is_function or steps > _MOST_STEPS:
        return False
    parameter = _parameter(found.node, at)
    body = found.node.child("body")
    if not parameter or body is None:
        return False
    return any(_asks(node, parameter, found, workspace, steps) for node in body.walk())


def _asks(node: Node, name: str, here: Declared, workspace: Workspace, steps: int) -> bool:
    if node.type != "identifier" or node.text != name or node.parent is None:
        return False
    parent = node.parent
    if parent.type == "member_expression" and node.field == "object":
        part = parent.child("property")
        return part is not None and part.text in _MEMBERS
    if parent.type in ("extends_clause", "new_expression"):
        return True
    callee = parent.parent.child("function") if parent.parent is not None else None
    if parent.type != "arguments" or callee is None or callee.type != "identifier":
        return False
    at = parent.named_children.index(node)
    return _looks(callee.text, at, here.tree, here.file, workspace, steps + 1)


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
