"""The names of one component: what is a member, under which name, and what its controller is called.

A directive has two objects with members, its scope and its controller; a component has one. A name that
both have is one member where they always hold the same, and gets a name of its own else.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.scoped_template.model import Binding, Directive, NotRead
from clean_carry.syntaxes.scoped_template.registrations import plain

# Lifecycle methods of a controller: a member of that name would be called by the runtime.
LIFECYCLE = frozenset({"$onInit", "$postLink", "$onChanges", "$onDestroy", "$doCheck"})


@dataclass
class MemberNames:
    """How each name of the scope is called on the controller.

    `twice` are assignments to the scope that only repeat one to the controller.
    """

    renamed: dict[str, str] = field(default_factory=dict)
    twice: list[Node] = field(default_factory=list)

    def of(self, name: str) -> str:
        """The name of a member."""
        return self.renamed.get(name, name)


def name_members(directive: Directive) -> MemberNames:
    """Choose names for the members. Raises `NotRead` if two of one name cannot be kept apart."""
    found = MemberNames()
    code = directive.scope.members()
    own = dict.fromkeys((*code, *directive.bindings, *directive.template_names()))
    for name in own:
        if name in LIFECYCLE:
            raise NotRead("names-meet", name, directive.definition.registration.at)
    if directive.bound_to_controller:
        # A binding already has its name on the controller: a name of the scope must differ from it.
        asked = {*code, *directive.template_names()}
        meeting = [n for n in own if n in directive.bindings and n in asked]
    else:
        meeting = []
    meeting += [n for n in (*code, *directive.template_names()) if n in directive.instance.members]
    if not directive.bound_to_controller:
        meeting += [n for n in directive.bindings if n in directive.instance.members]
    keys = {key for _, key in directive.required}
    for name in dict.fromkeys(meeting):
        pairs = _twice(directive, name)
        if pairs is not None:
            found.twice += pairs
            continue
        taken = {*own, *directive.instance.members, *keys}
        bound = None if directive.bound_to_controller else directive.bindings.get(name)
        found.renamed[name] = _free(name, bound, taken)
    return found


def _free(name: str, binding: Binding | None, taken: set[str]) -> str:
    stem = ("bound" if binding is not None else "shown") + name[:1].upper() + name[1:]
    number = 1
    free = stem
    while free in taken:
        number += 1
        free = f"{stem}{number}"
    return free


def _twice(directive: Directive, name: str) -> list[Node] | None:
    """The assignments `scope.x = …` of which each is one of a chain with the controller's own `x`.

    None where one of the two is ever given a value without the other.
    """
    if name in directive.bindings:
        return None
    chained: list[Node] = []
    for use in directive.scope.uses:
        if use.kind != "member" or use.name != name or not use.written:
            continue
        assignment = use.where.parent if use.where is not None else None
        outer = assignment.parent if assignment is not None else None
        inner = plain(assignment.child("right")) if assignment is not None else None
        if assignment is None or assignment.type != "assignment_expression":
            return None
        if (
            outer is not None
            and outer.type == "assignment_expression"
            and _is_own(outer.child("left"), directive, name)
        ) or (
            inner is not None
            and inner.type == "assignment_expression"
            and _is_own(inner.child("left"), directive, name)
        ):
            chained.append(assignment)
        else:
            return None
    writes = sum(1 for node in _own_writes(directive, name))
    return chained if chained and writes == len(chained) else None


def _is_own(node: Node | None, directive: Directive, name: str) -> bool:
    if node is None or node.type != "member_expression":
        return False
    inner, asked = node.child("object"), node.child("property")
    if inner is None or asked is None or asked.text != name:
        return False
    return inner.type == "this" or inner.text in {b.name for b in directive.instance.aliases}


def _own_writes(directive: Directive, name: str) -> list[Node]:
    function = directive.controller.function
    if function is None:
        return []
    return [
        node
        for node in function.walk()
        if node.type == "assignment_expression" and _is_own(node.child("left"), directive, name)
    ]
