"""Every use of a directive's scope and of its controller's instance, wherever code holds them.

A scope is what a link function or a controller is given; a name that is set to it once stands for it. Its
members are the component's; what begins with `$` belongs to the runtime. A scope that goes somewhere
else, to a function or into a field, is an *escape*: who takes it may ask it for anything.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from clean_carry.source.javascript.scope import Binding, Names, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.expression import ExpressionError, NameUse, names_in
from clean_carry.syntaxes.scoped_template.registrations import (
    parameters_of,
    plain,
    text_of,
    unescaped,
)

# Methods of a scope that take an expression: the positions of such arguments (or of lists of them).
EVALUATES: dict[str, tuple[int, ...]] = {
    "$watch": (0,),
    "$watchCollection": (0,),
    "$watchGroup": (0,),
    "$eval": (0,),
    "$evalAsync": (0,),
    "$apply": (0,),
    "$applyAsync": (0,),
}
# Members of the runtime that know nothing of a scope's names.
_PLAIN = frozenset(
    "$on $emit $broadcast $destroy $digest $id $root $parent $$phase $$postDigest $suspend $resume "
    "$isSuspended".split()
)
# Members that the runtime offers on a scope (its public API, `$rootScope.Scope`).
OF_RUNTIME = frozenset({*EVALUATES, *_PLAIN, "$new"})
# Functions that copy what they are given onto their first argument.
_FILLS = frozenset({"extend", "merge", "assign"})

_BEGINNING = re.compile(r"([A-Za-z_]\w*)\.", re.ASCII)

# Functions that go through all members of what they are given.
_LISTS = frozenset({"keys", "values", "entries", "copy", "forEach"})

UseKind = Literal["member", "computed", "own", "alias", "fill", "compared", "escape", "parent"]


@dataclass(frozen=True)
class ScopeUse:
    """One use of the scope. `ref` is the name of the scope itself; `name` the member, "" for none.

    Kinds: `member` is one of the component's; `computed` one under a name that is made; `own` is the
    runtime's; `parent` the scope around it; `alias` a name declared for the scope, `fill` a call that
    copies onto it, `compared` asks whether something is it; `escape` all else.
    """

    kind: UseKind
    ref: Node
    name: str
    written: bool = False
    where: Node | None = None


@dataclass
class ScopeUses:
    """All uses of one scope, the expressions that are asked of it by text, and its names; `alias` is the
    name by which texts call the controller."""

    uses: list[ScopeUse] = field(default_factory=list)
    expressions: list[tuple[Node, list[NameUse]]] = field(default_factory=list)
    unread: list[tuple[Node, str]] = field(default_factory=list)
    bindings: list[Binding] = field(default_factory=list)
    alias: str = ""

    def members(self) -> dict[str, bool]:
        """Return the names of members that code reads, and whether it writes them."""
        found: dict[str, bool] = {}
        for use in self.uses:
            if use.kind == "member" or (use.kind == "computed" and use.name):
                found[use.name] = found.get(use.name, False) or use.written
        for _, names in self.expressions:
            for name in names:
                if not name.name.startswith("$") and name.name != self.alias:
                    found[name.name] = found.get(name.name, False) or (
                        name.written and not name.path
                    )
        return found


class _Reader:
    def __init__(self, names: Names) -> None:
        self.names = names
        self.found = ScopeUses()
        self.queue: list[Binding] = []

    def add(self, binding: Binding | None) -> None:
        if binding is not None and binding not in self.found.bindings:
            self.found.bindings.append(binding)
            self.queue.append(binding)

    def read(self) -> ScopeUses:
        while self.queue:
            for ref in self.queue.pop(0).references:
                self.one(ref)
        self.found.uses.sort(key=lambda use: use.ref.start)
        return self.found

    def note(
        self,
        kind: UseKind,
        ref: Node,
        name: str = "",
        written: bool = False,
        where: Node | None = None,
    ) -> None:
        self.found.uses.append(ScopeUse(kind, ref, name, written, where))

    def one(self, ref: Node) -> None:
        parent = ref.parent
        if parent is None or is_write(ref):
            # A parameter that is set anew holds no scope any more: nothing more is known.
            self.note("escape", ref, where=parent)
            return
        if parent.type == "member_expression" and ref.field == "object":
            asked = parent.child("property")
            self.member(ref, parent, asked.text if asked is not None else "")
        elif parent.type == "subscript_expression" and ref.field == "object":
            index = parent.child("index")
            text = text_of(index)
            if text is not None and text.startswith("$"):
                self.note("escape", ref, text, where=parent)
            else:
                self.note("computed", ref, text or "", is_write(parent), parent)
        elif parent.type == "variable_declarator" and _taken_apart(parent.child("name")):
            self.note("computed", ref, "", where=parent)
        elif parent.type == "variable_declarator" and ref.field == "value":
            name = parent.child("name")
            binding = self.names.scope_at(parent).find(name.text) if name is not None else None
            if (
                name is not None
                and name.type == "identifier"
                and binding is not None
                and not binding.written
            ):
                self.note("alias", ref, name.text, where=parent)
                self.add(binding)
            else:
                self.note("escape", ref, where=parent)
        elif parent.type == "binary_expression" and any(
            parent.has(s) for s in ("===", "!==", "==", "!=")
        ):
            self.note("compared", ref, where=parent)
        elif parent.type == "arguments" and self.fills(ref, parent):
            self.note("fill", ref, where=parent)
        else:
            self.note("escape", ref, where=parent)

    def fills(self, ref: Node, given: Node) -> bool:
        call = given.parent
        function = call.child("function") if call is not None else None
        asked = function.child("property") if function is not None else None
        return (
            given.named_children[0] is ref
            and asked is not None
            and asked.text in _FILLS
            and call is not None
            and call.parent is not None
            and call.parent.type == "expression_statement"
        )

    def member(self, ref: Node, member: Node, name: str) -> None:
        if name not in OF_RUNTIME and not name.startswith("$$"):
            self.note("member", ref, name, is_write(member), member)
            return
        call = member.parent
        called = call is not None and call.type == "call_expression" and member.field == "function"
        if name == "$parent":
            self.note("parent", ref, name, where=member)
        elif name in _PLAIN:
            self.note("own", ref, name, where=member)
        elif name in EVALUATES and called and call is not None:
            self.note("own", ref, name, where=member)
            given = call.child("arguments")
            listed = given.named_children if given is not None else []
            for at in EVALUATES[name]:
                if at < len(listed):
                    self.expression(listed[at], name)
            for function in listed:
                self.listener(plain(function), name)
        else:
            self.note("escape", ref, name, where=member)

    def listener(self, function: Node | None, name: str) -> None:
        """Return the scope that a watcher passes to its listener as the last parameter."""
        if function is None or not function.is_function:
            return
        at = 2 if name.startswith("$watch") else 0
        taken = parameters_of(function)
        if len(taken) > at and taken[at].type == "identifier":
            self.add(self.names.scope_at(taken[at]).find(taken[at].text))
        first = taken[0] if taken else None
        if (
            name.startswith("$watch")
            and len(taken) == 1
            and first is not None
            and first.type == "identifier"
        ):
            # The function that is watched itself is given the scope.
            call = function.parent
            if call is not None and call.named_children and call.named_children[0] is function:
                self.add(self.names.scope_at(first).find(first.text))

    def _holds_function(self, member: Node) -> bool:
        """Whether a member, `scope.close`, is given functions written in place, and nothing else."""
        values = [
            node.child("right")
            for node in self.names.tree.of("assignment_expression")
            if (left := node.child("left")) is not None and left.text == member.text
        ]
        return bool(values) and all(value is not None and value.is_function for value in values)

    def expression(self, node: Node, asked: str) -> None:
        """Return the expression that a scope evaluates: a text's names, or nothing for a function."""
        inner = plain(node)
        assert inner is not None
        if inner.is_function or inner.type in ("undefined", "null"):
            return
        if inner.type == "array":
            for part in inner.named_children:
                self.expression(part, asked)
            return
        if inner.type == "ternary_expression":
            for arm in ("consequence", "alternative"):
                chosen = inner.child(arm)
                if chosen is not None:
                    self.expression(chosen, asked)
            return
        if inner.type == "call_expression" and asked in ("$apply", "$evalAsync", "$applyAsync"):
            return
        text = text_of(inner)
        if text is None:
            if inner.type == "member_expression" and self._holds_function(inner):
                return
            if inner.type == "identifier" and self.is_function(inner):
                return
            if not self.begun(inner):
                self.found.unread.append((inner, "an expression made by code"))
            return
        try:
            self.found.expressions.append((inner, names_in(text)))
        except ExpressionError as error:
            self.found.unread.append((inner, str(error)))

    def begun(self, node: Node) -> bool:
        """A text that begins with a name and a dot: what follows is asked of that name."""
        first: Node | None = node
        while first is not None and first.type == "binary_expression" and first.has("+"):
            first = plain(first.child("left"))
        text = text_of(first)
        found = _BEGINNING.match(text) if text is not None else None
        if found is None or first is None:
            return False
        self.found.expressions.append(
            (first, [NameUse(found.group(1), *found.span(1), path=[("", 0, 0)])])
        )
        return True

    def is_function(self, name: Node) -> bool:
        binding = self.names.meaning(name)
        node = binding.node.parent if binding is not None else None
        if node is None:
            return False
        value = node.child("value") if node.type == "variable_declarator" else node
        return value is not None and value.is_function


def _taken_apart(pattern: Node | None) -> bool:
    """Whether a pattern takes members by name, none of which is the runtime's."""
    if pattern is None or pattern.type != "object_pattern":
        return False
    keys = [part.child("key") or part.child("left") or part for part in pattern.named_children]
    plain_keys = all(
        k.type in ("property_identifier", "shorthand_property_identifier_pattern") for k in keys
    )
    return plain_keys and not any(key.text.startswith("$") for key in keys)


def uses_of(names: Names, parameters: Iterable[Node]) -> ScopeUses:
    """The uses of the scopes that these parameters hold."""
    reader = _Reader(names)
    for parameter in parameters:
        reader.add(names.scope_at(parameter).find(parameter.text))
    return reader.read()


def escaped_offsets(literal: Node) -> list[int]:
    """The place of each character of a string literal's value, and of its end."""
    raw = literal.text[1:-1]
    out: list[int] = []
    here, at = 0, literal.start + 1
    while here < len(raw):
        size = {"x": 4, "u": 6}.get(raw[here + 1 : here + 2], 2) if raw[here] == "\\" else 1
        piece = raw[here : here + size]
        out += [at] * len(unescaped(piece))
        at += len(piece.encode())
        here += size
    return [*out, at]


@dataclass
class InstanceUses:
    """The uses of a controller's instance in its own code: `this`, and the names that stand for it.

    `listed` are places that go through all its members, those that were the scope's among them then.
    """

    aliases: list[Binding] = field(default_factory=list)
    members: dict[str, bool] = field(default_factory=dict)
    listed: list[Node] = field(default_factory=list)
    alias_nodes: list[Node] = field(default_factory=list)


def instance_uses(names: Names, function: Node) -> InstanceUses:
    """Read the uses of `this` in a function that makes an instance."""
    found = InstanceUses()
    for node in _instances(function):
        parent = node.parent
        if parent is None:
            continue
        if parent.type == "member_expression" and node.field == "object":
            _member(found, parent)
        elif _goes_through(node):
            found.listed.append(node)
        elif parent.type == "variable_declarator":
            name = parent.child("name")
            binding = names.scope_at(parent).find(name.text) if name is not None else None
            if binding is not None and not binding.written:
                found.aliases.append(binding)
                found.alias_nodes.append(parent)
        elif parent.type == "assignment_expression" and node.field == "right":
            left = parent.child("left")
            binding = (
                names.meaning(left) if left is not None and left.type == "identifier" else None
            )
            if binding is not None and sum(is_write(ref) for ref in binding.references) == 1:
                found.aliases.append(binding)
    for method in _prototype(names, function):
        _member(found, method)
    for binding in found.aliases:
        for ref in binding.references:
            if (
                ref.parent is not None
                and ref.parent.type == "member_expression"
                and ref.field == "object"
            ):
                _member(found, ref.parent)
            elif _goes_through(ref):
                found.listed.append(ref)
    return found


def _goes_through(node: Node) -> bool:
    """Whether code loops over all members of an object: it is copied from, or its keys are listed."""
    given = node.parent
    if given is None:
        return False
    if given.type in ("for_in_statement", "spread_element"):
        return node.field == "right" or given.type == "spread_element"
    callee = given.parent.child("function") if given.parent is not None else None
    asked = callee.child("property") if callee is not None else None
    if given.type != "arguments" or asked is None:
        return False
    later = given.named_children[0] is not node
    return asked.text in _LISTS or (asked.text in _FILLS and later)


def _prototype(names: Names, function: Node) -> Iterator[Node]:
    """The members a function's prototype is given, and those its methods ask the instance for."""
    name = function.child("name")
    binding = names.scope_at(function).find(name.text) if name is not None else None
    for ref in binding.references if binding is not None else []:
        whole = ref.parent
        asked = whole.child("property") if whole is not None else None
        if asked is None or asked.text != "prototype" or whole is None or whole.parent is None:
            continue
        member, assignment = whole.parent, whole.parent.parent
        if member.type != "member_expression":
            continue
        yield member
        value = assignment.child("right") if assignment is not None else None
        for this in own_this(value) if value is not None and value.is_function else ():
            if this.parent is not None and this.parent.type == "member_expression":
                yield this.parent


def _instances(function: Node) -> Iterator[Node]:
    """Every `this` of the function that makes the instance, and of the methods it gives it."""
    yield from own_this(function)
    for node in function.walk():
        left, right = node.child("left"), node.child("right")
        if node.type != "assignment_expression" or left is None or right is None:
            continue
        if (
            right.is_function
            and right.type != "arrow_function"
            and left.type == "member_expression"
        ):
            yield from own_this(right)


def _member(found: InstanceUses, member: Node) -> None:
    name = member.child("property")
    if name is not None:
        found.members[name.text] = found.members.get(name.text, False) or is_write(member)


def own_this(function: Node) -> Iterator[Node]:
    """Every `this` that means the instance: also in arrow functions, not in other functions."""
    stack = list(reversed(function.children))
    while stack:
        node = stack.pop()
        if node.type == "this":
            yield node
        if node.is_function and node.type != "arrow_function":
            continue
        if node.type in ("class_body",):
            continue
        stack.extend(reversed(node.children))
