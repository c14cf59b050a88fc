"""The names that members have as options of an object, and how templates and code spell them."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.decorated_class.members import Input, Members
from clean_carry.syntaxes.decorated_class.recognise import Decorated

# Services of the runtime that have a meaning without it.
CHECKS, ELEMENT, DESTROYED = "ChangeDetectorRef", "ElementRef", "DestroyRef"
KNOWN_SERVICES = frozenset({CHECKS, ELEMENT, DESTROYED})


@dataclass
class Naming:
    """`members` are the new names of members that have another one, and `called` those that are called
    to be read. `outputs` are the public names of outputs, `queries` the references of queries. `copied`
    are inputs that the class writes, with the name of the copy."""

    members: dict[str, str] = field(default_factory=dict)
    called: set[str] = field(default_factory=set)
    outputs: dict[str, str] = field(default_factory=dict)
    queries: dict[str, str] = field(default_factory=dict)
    copied: dict[str, str] = field(default_factory=dict)
    two_way: dict[str, Input] = field(default_factory=dict)
    taken: set[str] = field(default_factory=set)

    def name(self, member: str) -> str:
        """The new name of a member."""
        return self.members.get(member, member)

    def free(self, *wishes: str) -> str:
        """The first of some names that no member has; it is taken from then on."""
        for name in (*wishes, *(f"{wishes[0]}{number}" for number in range(2, 99))):
            if name not in self.taken:
                self.taken.add(name)
                return name
        raise AssertionError(wishes)


def naming_of(decorated: Decorated, members: Members, tree: Tree, written: set[str]) -> Naming:
    """The names of a class. `written` are the members that its template writes."""
    made = Naming()
    groups = (members.inputs, members.fields, members.derived, members.outputs, members.queries)
    made.taken = {str(one.name) for group in groups for one in group}
    made.taken |= {node.child("name").text for node in (*members.methods, *members.functions)}  # type: ignore[union-attr]
    changed = written | assigned_in(decorated.node, tree)
    for member in members.inputs:
        if member.called:
            made.called.add(member.name)
        if member.two_way:
            made.two_way[member.name] = member
        if member.setter is None and (member.two_way or member.name in changed or member.transform):
            wish = f"{member.name}{'Value' if member.transform else 'Now'}"
            made.copied[member.name] = made.members[member.name] = made.free(wish)
        elif member.public != member.name and member.setter is None:
            made.members[member.name] = member.public
        made.taken.add(member.public)
    made.called |= {one.name for one in members.fields if one.called}
    made.called |= {one.name for one in members.derived if one.called}
    made.outputs = {member.name: member.public for member in members.outputs}
    made.queries = {member.name: member.reference for member in members.queries}
    return made


def assigned_in(body: Node, tree: Tree) -> set[str]:
    """The members that code of a class assigns to, or writes as signals."""
    found = set()
    for node in tree.of("member_expression"):
        if not body.start <= node.start < body.end:
            continue
        holder, part = node.children[0], node.child("property")
        if holder.type == "this" and part is not None:
            above = node.parent
            method = (
                above.child("property")
                if above is not None and above.type == "member_expression"
                else None
            )
            if is_write(node) or (method is not None and method.text in ("set", "update")):
                found.add(part.text)
    return found
