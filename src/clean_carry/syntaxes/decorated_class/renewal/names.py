"""Which members of a class get the newer form, and how code spells them then."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.decorated_class.members import Input, Members, Output, Query
from clean_carry.syntaxes.decorated_class.naming import assigned_in
from clean_carry.syntaxes.decorated_class.recognise import Decorated, arguments_of

# Members of an emitter that an output has as well.
_OF_OUTPUTS = frozenset({"emit", "subscribe"})


@dataclass
class Renewed:
    """The members that change. `called` are the names that are called to be read from then on; `stays` are
    members that keep their form: rule, detail, offset."""

    inputs: list[Input] = field(default_factory=list)
    outputs: list[Output] = field(default_factory=list)
    queries: list[Query] = field(default_factory=list)
    services: list[tuple[str, Node]] = field(default_factory=list)
    constructor: Node | None = None
    stays: list[tuple[str, str, int]] = field(default_factory=list)

    @property
    def called(self) -> set[str]:
        """The names that are called to be read."""
        return {one.name for one in self.inputs} | {one.name for one in self.queries}


def renewed_in(one: Decorated, members: Members, tree: Tree, written: set[str]) -> Renewed:
    """The members that can have the newer form. `written` are those that the template writes."""
    made = Renewed()
    changed = written | assigned_in(one.node, tree)
    shared = _shared(one, tree)
    for member in members.inputs:
        if member.called:
            continue
        if shared:
            made.stays.append(("input-stays", f"{member.name}, which {shared}", member.node.start))
            continue
        if member.setter is not None:
            made.stays.append(
                ("input-stays", f"{member.name}, which a setter takes", member.node.start)
            )
        elif member.name in changed:
            made.stays.append(
                ("input-stays", f"{member.name}, which the class writes", member.node.start)
            )
        elif _is_bound(member.node):
            made.stays.append(
                ("input-stays", f"{member.name}, which is bound to the host", member.node.start)
            )
        else:
            made.inputs.append(member)
    for output in members.outputs:
        value = output.node.child("value")
        if value is None or not value.text.startswith("new EventEmitter"):
            continue
        asked = _asked_of(one.node, tree, output.name)
        if asked - _OF_OUTPUTS or (value.text.endswith(")") and arguments_of(value)):
            made.stays.append(("output-stays", output.name, output.node.start))
        else:
            made.outputs.append(output)
    for query in members.queries:
        if (
            not shared
            and not query.called
            and not query.node.has("set")
            and "static" not in query.node.text
        ):
            made.queries.append(query)
    _injected(one, made)
    return made


def _shared(one: Decorated, tree: Tree) -> str:
    """Why code that is not seen may read members as plain values, to end a sentence; "" where none may."""
    heritage = next((c for c in one.node.children if c.type == "class_heritage"), None)
    if heritage is not None and heritage.has("extends_clause"):
        return "a base class may read"
    for node in tree.of("this"):
        above = node.parent
        inside = one.node.start <= node.start < one.node.end
        if inside and (above is None or above.type != "member_expression"):
            return "is reached by the instance itself"
    return ""


def _is_bound(node: Node) -> bool:
    return any(c.type == "decorator" and "HostBinding" in c.text for c in node.children)


def _asked_of(body: Node, tree: Tree, name: str) -> set[str]:
    """The members that are asked of a member; "" where it is passed on."""
    found = set()
    for node in tree.of("member_expression"):
        part = node.child("property")
        if node.children[0].type != "this" or part is None or part.text != name:
            continue
        if not body.start <= node.start < body.end:
            continue
        above = node.parent
        asked = (
            above.child("property")
            if above is not None and above.type == "member_expression"
            else None
        )
        found.add(asked.text if asked is not None and above.children[0] is node else "")  # type: ignore[union-attr]
    return found


def _injected(one: Decorated, made: Renewed) -> None:
    """Parameters of the constructor that are members: all of them, or none."""
    body = one.node.child("body")
    for node in body.named_children if body is not None else ():
        name = node.child("name")
        if node.type != "method_definition" or name is None or name.text != "constructor":
            continue
        parameters, inner = node.child("parameters"), node.child("body")
        found = []
        for parameter in parameters.named_children if parameters is not None else ():
            pattern, type_ = parameter.child("pattern"), parameter.child("type")
            plain = any(
                c.type == "accessibility_modifier" or c.type == "readonly"
                for c in parameter.children
            )
            if pattern is None or type_ is None or not plain or parameter.has("decorator"):
                made.stays.append(("constructor-stays", parameter.text, parameter.start))
                return
            if "<" in type_.text or "|" in type_.text:
                made.stays.append(("constructor-stays", parameter.text, parameter.start))
                return
            found.append((pattern.text, parameter))
        text = inner.text if inner is not None else ""
        for word, parameter in found:
            if re.search(rf"(?<![\w$.]){re.escape(word)}(?![\w$])", text):
                made.stays.append(("constructor-stays", word, parameter.start))
                return
        made.services, made.constructor = found, node
