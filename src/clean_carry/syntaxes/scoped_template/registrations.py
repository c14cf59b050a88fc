"""The registrations of a file with the framework's modules: directives, controllers, components,
templates.

A registration is a call `….directive('name', factory)`, chained or not, or with an object of them. The
factory stands there, in an array that names what is injected, or under a name of the file.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree

KINDS = frozenset(
    "directive controller component service factory provider value constant filter decorator".split()
)


# Methods by which a script registers with the modules of an application.
_REGISTERED = re.compile(rb"\.(?:directive|component)\(\s*['\"{]")


def registers(data: bytes) -> bool:
    """Whether a script registers directives or components by name."""
    return _REGISTERED.search(data) is not None


@dataclass(frozen=True)
class Injection:
    """An injected service: its registered name, and the parameter that takes it (None: not taken)."""

    name: str
    parameter: Node | None


@dataclass(frozen=True)
class Registration:
    """One thing a file registers.

    `call` is the whole call up to its closing parenthesis, `at` where its own part begins (the dot),
    `value` what is registered as it is written; `function` the function it is made by, where that can
    be followed, and `injections` what that is given. `explicit` says that names are listed.
    """

    kind: str
    name: str
    call: Node
    at: int
    value: Node
    function: Node | None
    injections: tuple[Injection, ...]
    explicit: bool


def text_of(node: Node | None) -> str | None:
    """The value of a string literal without interpolations; None for everything else."""
    if node is None:
        return None
    if node.type == "string" or (
        node.type == "template_string" and not node.has("template_substitution")
    ):
        return unescaped(node.text[1:-1])
    return None


_ESCAPES = {"n": "\n", "t": "\t", "r": "\r", "b": "\b", "f": "\f", "v": "\v", "0": "\0", "\n": ""}


def unescaped(text: str) -> str:
    """The value a string literal's text stands for (ECMA-262 §12.9.4)."""
    if "\\" not in text:
        return text
    out: list[str] = []
    at = 0
    while at < len(text):
        char = text[at]
        at += 1
        if char != "\\" or at >= len(text):
            out.append(char)
            continue
        kind = text[at]
        at += 1
        size = {"x": 2, "u": 4}.get(kind, 0)
        if size and not text.startswith("{", at):
            out.append(chr(int(text[at : at + size], 16)))
            at += size
        else:
            out.append(_ESCAPES.get(kind, kind))
    return "".join(out)


def parameters_of(function: Node) -> list[Node]:
    """The parameters of a function, in order; patterns and defaults as they are."""
    single = function.child("parameter")
    if single is not None:
        return [single]
    listed = function.child("parameters")
    out = []
    for node in listed.named_children if listed is not None else []:
        pattern = node.child("pattern")
        out.append(pattern if pattern is not None else node)
    return out


def plain(node: Node | None) -> Node | None:
    """A node without the parentheses around it."""
    while node is not None and node.type == "parenthesized_expression":
        node = node.named_children[0] if node.named_children else None
    return node


def value_of(binding: Binding | None) -> Node | None:
    """Return the value of a name that is assigned once: a function, a class, its initial value."""
    if binding is None:
        return None
    node = binding.node.parent
    if node is None:
        return None
    if node.is_function or node.type in ("class_declaration", "class"):
        return node
    if node.type == "variable_declarator" and not binding.written:
        return plain(node.child("value"))
    return None


class Registrations:
    """All registrations of a file, in source order; `unnamed` are directives whose name is made by code."""

    def __init__(self, tree: Tree, names: Names) -> None:
        self.tree, self.names = tree, names
        self.unnamed: list[Node] = []
        self.found: list[Registration] = sorted(self._all(), key=lambda r: r.at)

    def of(self, kind: str, name: str | None = None) -> list[Registration]:
        """Those of one kind, and of one name where it is given."""
        return [r for r in self.found if r.kind == kind and name in (None, r.name)]

    def _all(self) -> Iterator[Registration]:
        for call in self.tree.of("call_expression"):
            function, given = call.child("function"), call.child("arguments")
            if function is None or given is None or function.type != "member_expression":
                continue
            kind = function.child("property")
            if kind is None or kind.text not in KINDS:
                continue
            before = function.child("object")
            at = next((c.start for c in function.children if c.type == "."), kind.start)
            parts = given.named_children
            if len(parts) == 2 and (name := text_of(parts[0])) is not None:
                yield self._one(kind.text, name, call, at, parts[1])
            elif len(parts) == 2 and kind.text == "directive":
                self.unnamed.append(parts[0])
            elif len(parts) == 1 and parts[0].type == "object" and before is not None:
                for pair in parts[0].named_children:
                    key, value = pair.child("key"), pair.child("value")
                    if key is not None and value is not None:
                        named = text_of(key) or key.text
                        yield self._one(kind.text, named, pair, pair.start, value)

    def _one(self, kind: str, name: str, call: Node, at: int, value: Node) -> Registration:
        function, listed = self.followed(value)
        injections: tuple[Injection, ...] = ()
        explicit = listed is not None
        if function is not None:
            taken = parameters_of(_maker(function) or function)
            if listed is not None:
                injections = tuple(
                    Injection(n, taken[i] if i < len(taken) else None) for i, n in enumerate(listed)
                )
            else:
                injections = tuple(Injection(p.text, p) for p in taken if p.type == "identifier")
        return Registration(kind, name, call, at, value, function, injections, explicit)

    def followed(self, value: Node | None) -> tuple[Node | None, list[str] | None]:
        """The function a value is or names, and the names of what it is given where they are listed."""
        node = plain(value)
        if node is not None and node.type == "array" and node.named_children:
            *texts, last = node.named_children
            listed = [text_of(text) for text in texts]
            function, _ = self.followed(last)
            if any(name is None for name in listed):
                return None, None
            return function, [name for name in listed if name is not None]
        if node is not None and node.type == "identifier":
            binding = self.names.meaning(node)
            found = value_of(binding)
            if found is not None and found.type in ("array",):
                return self.followed(found)
            if found is not None and (found.is_function or found.type.startswith("class")):
                return found, self._annotated(binding)
            return None, None
        if node is not None and (node.is_function or node.type == "class"):
            return node, None
        return None, None

    def _annotated(self, binding: Binding | None) -> list[str] | None:
        """The names in `X.$inject = [ … ]`."""
        array = annotation(binding)
        listed = [text_of(node) for node in array.named_children] if array is not None else [None]
        return None if None in listed else [name for name in listed if name is not None]


def annotation(binding: Binding | None) -> Node | None:
    """The array that names what a function is given: `X.$inject = [ … ]`."""
    for ref in binding.references if binding is not None else []:
        member = ref.parent
        if member is None or member.type != "member_expression" or ref.field != "object":
            continue
        asked, assigned = member.child("property"), member.parent
        if asked is None or asked.text != "$inject" or assigned is None:
            continue
        value = assigned.child("right")
        if assigned.type == "assignment_expression" and value is not None and value.type == "array":
            return value
    return None


def _maker(node: Node) -> Node | None:
    """The constructor of a class."""
    body = node.child("body")
    if body is None or not node.type.startswith("class"):
        return None
    for member in body.named_children:
        name = member.child("name")
        if member.type == "method_definition" and name is not None and name.text == "constructor":
            return member
    return None
