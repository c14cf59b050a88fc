"""The base classes of a project: where one stands, and what members it has."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from clean_carry.source.exports import declared
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.needed_names import NotReadIn
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames, runtime_names
from clean_carry.syntaxes.jsx_class.bases.heritage import CLASSES, draws

# A base of more lines than this is a design of its own, not something to write into each class.
MOST_LINES = 150
_SIGNATURES = frozenset({"abstract_method_signature", "comment", ";", "{", "}"})
_FIELD, _METHOD = "public_field_definition", "method_definition"


@dataclass(frozen=True)
class Part:
    """A member of a class that is there at run time, or declares what may be."""

    name: str
    static: bool
    node: Node

    @property
    def body(self) -> Node | None:
        """The statements of a method, or of an arrow function a field holds."""
        value = self.node.child("value")
        holder = value if value is not None and value.is_function else self.node
        body = holder.child("body")
        return body if body is not None and body.type == "statement_block" else None

    @property
    def parameters(self) -> Node | None:
        """The parameters of a method."""
        return self.node.child("parameters")


@dataclass(frozen=True)
class Base:
    """A class of the project that others extend, in the file it stands in."""

    node: Node
    tree: Tree
    file: Path
    name: str

    @cached_property
    def names(self) -> Names:
        """The names of its file."""
        return Names(self.tree)

    @cached_property
    def runtime(self) -> RuntimeNames:
        """Return the names that its file imports from the runtime."""
        return runtime_names(self.tree)

    @cached_property
    def parts(self) -> list[Part]:
        """Its members. Raises `NotReadIn`."""
        found = parts_of(self.node)
        if len({(part.name, part.static) for part in found}) < len(found):
            raise NotReadIn("which has a member twice")
        return found

    @cached_property
    def type_parameters(self) -> list[tuple[str, str]]:
        """The names of its type parameters, each with its default ("" where it has none)."""
        found: list[tuple[str, str]] = []
        clause = self.node.child("type_parameters")
        for parameter in clause.named_children if clause is not None else ():
            name, value = parameter.child("name"), parameter.child("value")
            if name is not None:
                found.append((name.text, value.named_children[0].text if value else ""))
        return found


def base_of(heritage: Node, tree: Tree, file: Path, workspace: Workspace) -> Base:
    """The class an expression behind `extends` means. Raises `NotReadIn`."""
    if heritage.type != "identifier":
        raise NotReadIn("which is made by an expression")
    found = declared(heritage.text, tree, file, workspace)
    if found is None:
        raise NotReadIn("which is not found in the project")
    node = found.node
    if node.type not in CLASSES:
        raise NotReadIn("which is no class of the project as it stands there")
    if found.file == file:
        raise NotReadIn("which stands in this file")
    if found.file.suffix in (".ts", ".tsx") and file.suffix not in (".ts", ".tsx"):
        raise NotReadIn("which is written with types")
    if draws(node):
        raise NotReadIn("which draws itself")
    if any(part.type == "decorator" for part in node.children):
        raise NotReadIn("which has a decorator")
    lines = _lines(node, found.tree)
    if lines > MOST_LINES:
        raise NotReadIn(f"which is {lines} lines long")
    name = node.child("name")
    return Base(node, found.tree, found.file, name.text if name is not None else heritage.text)


def _lines(node: Node, tree: Tree) -> int:
    """The lines of a class that hold more than a comment."""
    text = bytearray(tree.source.data)
    for comment in tree.comments:
        text[comment.start : comment.end] = b" " * (comment.end - comment.start)
    return sum(bool(line.strip()) for line in bytes(text[node.start : node.end]).split(b"\n"))


def parts_of(node: Node) -> list[Part]:
    """The members of a class; those that only say what others must have are left out.

    Raises `NotReadIn` for one that cannot stand in another class as it is.
    """
    found: list[Part] = []
    body = node.child("body")
    for member in body.children if body is not None else ():
        may_have = member.type == "method_signature" and member.has("?")
        if member.type in _SIGNATURES or member.has("abstract") or may_have:
            continue
        key = member.child("name")
        name = property_name(key) if key is not None else None
        if member.type not in (_FIELD, _METHOD) or name is None:
            word = member.text.split("\n")[0][:40]
            raise NotReadIn(f"which has a member that is not read: {word}")
        if any(part.type == "decorator" for part in member.children):
            raise NotReadIn(f"whose {name} has a decorator")
        found.append(Part(name, member.has("static"), member))
    return found


@dataclass
class Mentions:
    """The members that code reads from its instance: the names, those read from the base, and
    whether it may be any."""

    names: set[str]
    base: set[str]
    anything: bool = False

    def add(self, node: Node) -> None:
        """Add the members that a `this` or `super` reads."""
        parent = node.parent
        if node.type not in ("this", "super") or parent is None:
            return
        if parent.type == "call_expression" and node.type == "super":
            self.base.add("constructor")
            return
        name = _asked(node, parent)
        if name is not None:
            (self.base if node.type == "super" else self.names).update(name)
        elif not _only_bound(node, parent):
            self.anything = True


def mentions(node: Node) -> Mentions:
    """Return the members that all code below a node reads."""
    found = Mentions(set(), set())
    for below in node.walk():
        found.add(below)
    return found


def _asked(node: Node, parent: Node) -> set[str] | None:
    """Yield the names read from a `this` or `super`; None if unknown."""
    if parent.type == "member_expression":
        part = parent.child("property")
        return {part.text} if part is not None else None
    if parent.type == "subscript_expression" and node.field == "object":
        index = parent.child("index")
        name = property_name(index) if index is not None and index.type == "string" else None
        return {name} if name is not None else None
    pattern = parent.child("name") if parent.type == "variable_declarator" else None
    if pattern is not None and pattern.type == "object_pattern":
        names: set[str] = set()
        for item in pattern.named_children:
            key = item.child("key") or item.child("left") or item
            name = property_name(key)
            if name is None or item.type == "rest_pattern":
                return None
            names.add(name)
        return names
    return None


def _only_bound(node: Node, parent: Node) -> bool:
    """Whether a `this` is only what a function is bound to or called on, or what an element is found by."""
    call = parent.parent if parent.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    part = (callee.child("property") or callee) if callee is not None else None
    return part is not None and part.text in ("bind", "call", "apply", "findDOMNode")


def until(node: Node, top: Node) -> Iterator[Node]:
    """The nodes above one, nearest first, below `top`."""
    for up in node.up():
        if up is top:
            return
        yield up


def outermost(nodes: list[Node]) -> list[Node]:
    """Of nodes in source order those that stand in none before them."""
    found: list[Node] = []
    for node in nodes:
        if not found or node.start >= found[-1].end:
            found.append(node)
    return found


def own_code(node: Node) -> Iterator[Node]:
    """Yield the nodes below a node, without other functions."""
    yield node
    for below in node.children:
        if not below.is_function:
            yield from own_code(below)


def only_value(body: Node) -> Node | None:
    """Return the result of a method that does nothing but return it."""
    statements = body.named_children
    if len(statements) != 1 or statements[0].type != "return_statement":
        return None
    values = statements[0].named_children
    return values[0] if len(values) == 1 else None
