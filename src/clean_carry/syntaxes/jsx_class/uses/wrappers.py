"""Wrappers that a class is passed to in its file, if they inspect or extend it.

A function that reads a prototype, extends what it is given or makes an instance of it takes another way
with a function component. It may be what another gives (`sized({ large: true })(Berth)`), or one of several
that are put together (`compose(sized(3), lit)(Berth)`).
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Literal, NamedTuple

from clean_carry.component.spans import Span
from clean_carry.source.exports import Declared, declared, imported, package_export
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.recognise import Candidate

Way = Literal["", "chooses", "looks", "extends", "unknown"]
_MEMBERS = frozenset({"prototype", "isReactComponent"})
# Through so many functions it is followed.
_MOST_STEPS = 3
# The trade's names for what puts functions together.
_COMPOSERS = frozenset({"compose", "composeWithDisplayName", "flow", "flowRight", "pipe"})
_WORST: tuple[Way, ...] = ("extends", "unknown", "looks", "chooses")


class Look(NamedTuple):
    """A wrapper that inspects or extends a class, and the place of the call."""

    name: str
    at: int
    way: Way
    span: Span


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
            span = tree.source.span(reference.start, reference.end)
            return Look(callee.text.split("(")[0], reference.start, way, span)
    for decorator in candidate.decorators:
        called = decorator.named_children[0]
        way = _by(called, 0, tree, workspace.file, workspace, 0)
        if way:
            span = tree.source.span(called.start, called.end)
            return Look(called.text.split("(")[0], decorator.start, way, span)
    return None


def _by(callee: Node, at: int, tree: Tree, file: Path, workspace: Workspace, steps: int) -> Way:
    """Return the use of argument number `at` by a called function."""
    if callee.type == "identifier":
        return _named(callee.text, at, tree, file, workspace, steps)
    if callee.type == "member_expression" and callee.children[0].type == "identifier":
        whole, part = imported(tree, callee.children[0].text), callee.child("property")
        if whole is None or part is None or _is_runtime(whole.request):
            return ""
        return _of_package(whole.request, part.text, at, file, workspace, steps)
    maker, given = callee.child("function"), callee.child("arguments")
    if callee.type != "call_expression" or maker is None or given is None or steps > _MOST_STEPS:
        return ""
    found = declared(maker.text, tree, file, workspace) if maker.type == "identifier" else None
    unread: Way = ""
    known = imported(tree, maker.text) if maker.type == "identifier" and found is None else None
    if known is not None and not _is_runtime(known.request) and maker.text not in _COMPOSERS:
        found = package_export(known.request, known.name, file, workspace)
        if found is None and workspace.resolve(known.request, file) is None:
            unread = "unknown"
    if found is not None and found.node.is_function:
        ways = {_inside(f, at, found, workspace, steps) for f in _given_back(found.node)}
    else:
        # A function that composes others passes its argument on to each.
        ways = {_by(part, 0, tree, file, workspace, steps + 1) for part in given.named_children}
    return _worst({*ways, unread})


def _worst(ways: set[Way]) -> Way:
    """Of several ways the one that a function takes worst."""
    return next((way for way in _WORST if way in ways), "")


def _named(name: str, at: int, tree: Tree, file: Path, workspace: Workspace, steps: int) -> Way:
    """Return the use that a function of the project makes of its argument number `at`."""
    found = declared(name, tree, file, workspace)
    known = imported(tree, name) if found is None else None
    if known is not None and workspace.resolve(known.request, file) is None:
        if _is_runtime(known.request):
            return ""
        return _of_package(known.request, known.name, at, file, workspace, steps)
    if found is None or steps > _MOST_STEPS:
        return ""
    if found.node.type == "call_expression":
        # A name for what a call gives: `const enhance = compose(…)`.
        return _by(found.node, at, found.tree, found.file, workspace, steps + 1)
    return _inside(found.node, at, found, workspace, steps) if found.node.is_function else ""


# Packages of the runtime: what they take as a component may be a function.
_RUNTIME = ("react", "react-dom", "prop-types", "react-test-renderer")


def _is_runtime(request: str) -> bool:
    return request in _RUNTIME or request.startswith(tuple(f"{name}/" for name in _RUNTIME))


def _of_package(
    request: str, name: str, at: int, file: Path, workspace: Workspace, steps: int
) -> Way:
    """Return the use that a package's function makes of its argument number `at`; unknown if it
    cannot be read."""
    if request.startswith(".") or steps > _MOST_STEPS:
        return ""
    found = package_export(request, name, file, workspace)
    if found is None:
        return "unknown"
    if found.node.is_function:
        return _inside(found.node, at, found, workspace, steps)
    return "unknown"


def _inside(function: Node, at: int, here: Declared, workspace: Workspace, steps: int) -> Way:
    parameter, body = _parameter(function, at), function.child("body")
    if not parameter or body is None:
        return ""
    for_classes = list(_for_classes(body, parameter))
    ways: set[Way] = {"chooses"} if for_classes else set()
    for node in body.walk():
        if not any(start <= node.start < end for start, end in for_classes):
            ways.add(_asks(node, parameter, here, workspace, steps))
    if for_classes:
        # The class branch was left out: what remains is meant for function components.
        ways.discard("looks")
    return _worst(ways)


def _for_classes(body: Node, name: str) -> Iterator[tuple[int, int]]:
    """The conditions that ask whether a value is a class, each up to the end of what is done with one."""
    for node in body.walk():
        if node.type not in ("ternary_expression", "if_statement"):
            continue
        test, then = node.child("condition"), node.child("consequence")
        # Functions have a prototype too; only classes of the runtime have its mark there.
        asked = test is not None and any(
            part.type == "member_expression" and part.text == f"{name}.prototype.isReactComponent"
            for part in test.walk()
        )
        if (
            asked
            and test is not None
            and then is not None
            and not test.text.strip("( ").startswith("!")
        ):
            yield test.start, then.end


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
        return "extends"
    if parent.type == "call_expression" and node.field == "function":
        # A function with hooks may be called by a function component, not by a class.
        in_class = any(up.type in ("class", "class_declaration") for up in node.up())
        return "extends" if in_class else "looks"
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
