"""The source of a watcher, if an option of the object form can express it."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Member
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, property_name
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file_flat.statements.calls import RuntimeCall, bare
from clean_carry.syntaxes.single_file_flat.statements.name_meanings import (
    Declared,
    Statement,
    boxed,
)

_SETTINGS = frozenset("deep immediate flush once".split())
# The older runtime runs a watcher of the object form before it renders, whatever its timing option says.
_SETTINGS_2 = frozenset("deep immediate".split())


@dataclass(frozen=True)
class Watched:
    """A watcher of one member, or of a `path` below it: its handler is a function in place, or the name of
    a method. `settings` are the parts of its options."""

    source: Member
    path: tuple[str, ...]
    function: Node | None
    method: str
    settings: tuple[Node, ...]
    deep: bool
    immediate: bool


def watcher_of(declared: Declared, one: Statement, runtime: int) -> Watched | None:
    """The watcher of one member that a statement makes; None where only a call can say it."""
    call = one.call
    handler = bare(call.argument(1)) if call is not None else None
    source = _source(declared, bare(call.argument()) if call is not None else None)
    if call is None or handler is None or source is None:
        return None
    settings = _settings(call, runtime)
    if settings is None:
        return None
    method = ""
    if handler.type == "identifier":
        held = declared.held.get(handler.text)
        if held is None or held.kind != "method":
            return None
        method = handler.text
    elif not handler.is_function or (runtime < 3 and _takes(handler) > 2):
        return None
    member, path, deep = source
    if deep and any(name == "deep" for name, _ in settings):
        return None
    told = {name: value.text for name, value in settings}
    function = handler if handler.is_function else None
    parts = tuple(value.parent or value for _, value in settings)
    return Watched(
        member, path, function, method, parts, deep or told.get("deep") == "true",
        told.get("immediate") == "true",
    )  # fmt: skip


def _takes(function: Node) -> int:
    parameters = function.child("parameters")
    return len(parameters.named_children) if parameters is not None else 1


def _settings(call: RuntimeCall, runtime: int) -> list[tuple[str, Node]] | None:
    given = call.argument(2)
    if given is None:
        return []
    if given.type != "object":
        return None
    found = [(name or "", value) for name, _, value in parts_of(given)]
    known = _SETTINGS if runtime >= 3 else _SETTINGS_2
    return found if all(name in known and is_constant(value) for name, value in found) else None


def _source(declared: Declared, node: Node | None) -> tuple[Member, tuple[str, ...], bool] | None:
    """The member, the path below it, and whether all below it is looked at."""
    if node is None:
        return None
    if node.type == "identifier":
        held = declared.held.get(node.text)
        if held is None or held.kind not in ("state", "derived", "prop", "shared"):
            return None
        if held.boxed:
            return _member(held.kind, held.member), (), False
        return (_member(held.kind, held.member), (), True) if held.kind == "state" else None
    body = node.child("body") if node.type == "arrow_function" else None
    parameters = node.child("parameters")
    if body is None or parameters is None or parameters.named_children or node.has("async"):
        return None
    return _looked_at(declared, body)


def _looked_at(declared: Declared, body: Node) -> tuple[Member, tuple[str, ...], bool] | None:
    """`props.readings.length`, `tide.value`, `form.stay.nights`: plain names all the way."""
    path: list[str] = []
    here = body
    while here.type == "member_expression" and not here.has("?."):
        part = here.child("property")
        name = property_name(part) if part is not None else None
        below = here.child("object")
        if name is None or below is None:
            return None
        path.insert(0, name)
        here = below
    held = declared.held.get(here.text) if here.type == "identifier" else None
    if held is None:
        return None
    if held.kind == "props" and path:
        return Member("prop", path[0]), tuple(path[1:]), False
    if held.kind not in ("state", "derived", "prop", "shared"):
        return None
    if held.boxed:
        if boxed(here) is None:
            return None
        path = path[1:]
    elif not path and held.kind != "prop":
        return None
    return _member(held.kind, held.member), tuple(path), False


def _member(kind: str, name: str) -> Member:
    return Member("derived" if kind == "shared" else kind, name)  # type: ignore[arg-type]
