"""Every use of the instance in the script: `this`, and constants that stand for it."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Gone
from clean_carry.component.ledger import Ledger
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.single_file.members import Members, add_use
from clean_carry.syntaxes.single_file_object.functions import FUNCTIONS, parts_of, returned
from clean_carry.syntaxes.uses import Raw, Uses

# Options whose own functions run on the instance.
_HOLDERS = ("computed", "watch", "methods")


@dataclass(frozen=True)
class _Access:
    """One member of the instance used by name, in the function that runs on it."""

    node: Node
    name: str
    owner: Node


def collect_names(literal: Node) -> Members:
    """First pass: the names of members by kind."""
    members = Members()
    for option, _, value in parts_of(literal):
        holder = returned(value) if option == "data" else value
        target = {
            "props": members.props,
            "data": members.state,
            "computed": members.derived,
            "methods": members.methods,
            "inject": members.injected,
        }.get(option or "")
        if target is None or holder is None:
            continue
        for item in holder.named_children:
            key = item if item.type == "string" else item.child("key") or item.child("name")
            name = property_name(key if key is not None else item)
            if name is None:
                continue
            target.add(name)
            given = item.child("value")
            if option == "computed" and given is not None and given.type == "object":
                if any(part == "set" for part, _, _ in parts_of(given)):
                    members.settable.add(name)
    return members


def collect_uses(uses: Uses, literal: Node, members: Members, hooks: frozenset[str]) -> None:
    """Second pass: an operation for every use of the instance in the script."""
    roots = {id(f): f for f in _instance_functions(literal, hooks)}
    found: list[_Access] = []
    for this in uses.tree.of("this"):
        if not literal.start <= this.start < literal.end:
            continue
        owner = next(
            (up for up in this.up() if up.is_function and up.type != "arrow_function"), None
        )
        if owner is None or id(owner) not in roots:
            if owner is None or not any(id(up) in roots for up in owner.up()):
                uses.refuse("instance-escapes", "", this.start)
            continue
        _instance(uses, this, owner, found)
    declared = members.declared()
    members.fields = {
        access.name
        for access in found
        if access.name not in declared
        and not access.name.startswith(("$", "_"))
        and access.node.type == "member_expression"
        and is_write(access.node)
    }
    members.fields |= {
        access.name
        for access in found
        if access.name.startswith("_") and access.name not in declared and is_write(access.node)
    }
    for access in found:
        if not add_use(uses, access.node, access.name, members, access.owner):
            uses.refuse("unknown-use", f"this.{access.name}", access.node.start)
    uses.sort()


def _instance(uses: Uses, node: Node, owner: Node, found: list[_Access]) -> None:
    """One place where the instance stands: a member of it, or a constant it is given to."""
    parent = node.parent
    if parent is not None and parent.type == "member_expression" and node.field == "object":
        part = parent.child("property")
        name = property_name(part) if part is not None else None
        if name is not None:
            found.append(_Access(parent, name, owner))
            return
    if parent is not None and parent.type == "variable_declarator" and node.field == "value":
        binding = _constant(uses, parent)
        statement = parent.parent
        if binding is not None and statement is not None and len(statement.named_children) == 1:
            span = uses.tree.source.statement_line(statement.start, statement.end)
            uses.raws.append(Raw(span, "receiver", _gone(span)))
            for ref in binding.references:
                _instance(uses, ref, owner, found)
            return
    uses.refuse("instance-escapes", "", node.start)


def _constant(uses: Uses, declarator: Node) -> Binding | None:
    name = declarator.child("name")
    if name is None or name.type != "identifier":
        return None
    binding = uses.names.scope_at(name).find(name.text)
    return None if binding is None or binding.written else binding


def _gone(span: Span):  # type: ignore[no-untyped-def]
    return lambda entry: Gone(span, entry, False, "receiver-alias")


def _instance_functions(literal: Node, hooks: frozenset[str]) -> list[Node]:
    """The functions of options whose `this` is the instance."""
    found: list[Node] = []
    for option, _, value in parts_of(literal):
        if option in ("data", "provide") or option in hooks:
            found.append(value)
        elif option in _HOLDERS:
            for _, _, item in parts_of(value):
                found.extend(_functions_in(item))
    return found


def _functions_in(value: Node) -> list[Node]:
    """The functions a part of an option is or holds: wrapped in a call, or in an object of settings."""
    if value.type in FUNCTIONS:
        return [value]
    if value.type == "call_expression":
        given = value.child("arguments")
        inner = given.named_children if given is not None else []
        return [f for argument in inner for f in _functions_in(argument)]
    if value.type == "object":
        return [f for _, _, part in parts_of(value) for f in _functions_in(part)]
    if value.type == "array":
        return [f for part in value.named_children for f in _functions_in(part)]
    return []


def reserved(uses: Uses, node: Node) -> frozenset[str]:
    """Names the component takes from the module or the world; no new name may hide them."""
    return frozenset(
        ref.text
        for ref, binding in uses.names.references_in(node)
        if binding is None or binding.scope is uses.names.module
    )


def keep_all(ledger: Ledger) -> None:
    """Nothing is written: everything stays."""
    for entry in ledger.entries:
        entry.outcome, entry.rule = "kept", ""
