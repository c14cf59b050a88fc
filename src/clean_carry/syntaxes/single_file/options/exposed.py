"""Members that outside code reads from a component's instance: exposed, since the flat form closes
all it declares.

A mixin reads it through `this`; a receiver of the instance reads it by any name.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.exposed import Opened
from clean_carry.source.instance_reads import (
    around,
    asked_in_texts,
    asked_of_handed,
    asked_under,
    written_in,
)
from clean_carry.source.javascript.tree import Node
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.hooks import HOOKS
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.single_file.options.assigned_state import given_at_once
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.options.instance_reads import data_names
from clean_carry.syntaxes.single_file.options.mixins import (
    Follower,
    Mixed,
    NotFollowed,
)
from clean_carry.syntaxes.uses import Uses

_HOOKS = frozenset(HOOKS)
# All data of an instance, not one of them by name, or the names of what is derived from it.
_LISTED = re.compile(r"[\w)\]]\.\$data\b(?!\??\.|\s*\[)|\.\$options\.(?:computed|data|methods)\b")


@dataclass
class MixedIn:
    """The mixins of a component, and the members they bring."""

    part: Node | None = None
    found: Mixed = field(default_factory=Mixed)


def mix_in(uses: Uses, members: Members, literal: Node, workspace: Workspace) -> MixedIn:
    """Follow what the component mixes in, and refuse what it cannot share with it."""
    follower = Follower(workspace, _HOOKS)
    mixed = MixedIn()
    found = mixed.found
    own = {name for name, _, _ in parts_of(literal)}
    for option, part, value in parts_of(literal):
        if option not in ("mixins", "extends"):
            continue
        mixed.part = part
        try:
            for item in value.named_children if value.type == "array" else [value]:
                found.add(follower.mixed(item, uses.tree, workspace.file))
        except NotFollowed as missing:
            uses.refuse("mixin-not-followed", str(missing), part.start)
            return MixedIn()
        for name, function in _idle_methods(literal):
            if name in found.members and function:
                members.kept_methods.add(name)
        members.methods -= members.kept_methods
        members.mixed |= members.kept_methods
    if mixed.part is not None:
        closed = _closed(members)
        # Of two members of a name the mixin's own would win, and of first looks ours would be there.
        for name in sorted(closed & (found.members | found.first)):
            uses.refuse("mixin-needs-member", name, mixed.part.start)
    if "beforeCreate" in found.hooks:
        found.hooks.add("created")
    members.mixed_hooks |= found.hooks & own
    members.mixed_calm |= found.derived if not found.written & found.members else set()
    members.shared |= found.asked
    members.props |= found.props
    members.mixed |= found.members - found.props
    return mixed


def _closed(members: Members) -> set[str]:
    state = {name for name in members.state if not name.startswith(("_", "$"))}
    return state | members.derived | members.methods | members.injected


def _idle_methods(literal: Node) -> Iterator[tuple[str, bool]]:
    """(name, whether it never asks the instance) of each method."""
    for option, _, value in parts_of(literal):
        for name, _, function in parts_of(value) if option == "methods" else ():
            if name is not None:
                yield name, not any(node.type == "this" for node in function.walk())


def opened(
    uses: Uses, members: Members, mixed: MixedIn, literal: Node, workspace: Workspace
) -> Opened:
    """The members others ask the instance for, once all uses of it are known."""
    found, file = mixed.found, workspace.file
    at_once = frozenset(once.call.start for once in given_at_once(literal))
    own = data_names(literal, at_once)
    data_as = found.data_as | own.keys()
    handed = found.hands_on or members.handed
    near: list[str] = []
    if handed or data_as:
        near = around(file, {**found.trees, file: uses.tree}, workspace)
    closed = _closed(members) | members.fields
    asked, written = closed & found.asked, closed & found.written
    if handed:
        asked |= closed & (asked_of_handed(file) | asked_in_texts(near))
        written |= closed & written_in(near)
    if found.lends or members.lent:
        asked, written = set(closed), set(closed)
    asked |= closed & members.provided
    at = mixed.part.start if mixed.part is not None else -1
    for name in sorted(data_as):
        # The state is no longer what the runtime calls the data of the instance.
        others = members.state if not name else members.state & asked_under(near, name)
        for field_name in sorted(others - members.internal):
            where = own.get(name, at)
            uses.refuse("mixin-needs-member", f"$data.{field_name}", where)
    settable = members.state | members.settable | members.fields
    listed = bool(members.state | members.derived) and any(_LISTED.search(text) for text in near)
    asked_at = members.handed_at if members.handed_at >= 0 else at
    return Opened(tuple(sorted(asked)), frozenset(written & settable), asked_at, listed)
