"""How inputs are written: one by one, all in one object, or as a pattern lifted into the signature."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import Member, PatternRead, Read, WholeRead, reads_inputs_in_updater
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.plan import InputsForm
from clean_carry.syntaxes.jsx_function.planning.render_phase import updating_parts


@dataclass
class _InputUses:
    """How the code reads inputs: by name, all at once, or taken apart; `rests` are patterns that take the
    others as well, with what owns them."""

    read: set[str] = field(default_factory=set)
    patterns: list[PatternRead] = field(default_factory=list)
    rests: list[tuple[object, PatternRead]] = field(default_factory=list)
    whole: bool = False

    @classmethod
    def of(cls, component: Component) -> _InputUses:
        """All uses of a component."""
        found = cls(whole=any(map(reads_inputs_in_updater, component.writes())))
        for owner, operation in component.operations():
            match operation:
                case WholeRead(source="props"):
                    found.whole = True
                case Read(member=Member(kind="prop", name=name)):
                    found.read.add(name)
                case PatternRead(source="props"):
                    found.patterns.append(operation)
                    if operation.rest:
                        found.rests.append((owner, operation))
        for moment in component.moments("updated"):
            before = moment.previous_props
            found.whole = found.whole or (before is not None and before.names is None)
            found.read.update((before.names or ()) if before is not None else ())
        return found


def inputs_of(component: Component, later: frozenset[int]) -> tuple[InputsForm, PatternRead | None]:
    """The form of the inputs, and the pattern that is lifted; `later` are operations that must see the
    latest ones."""
    if component.view.markup:
        return "listed", None
    if any(not is_blank(moment) for moment in component.moments("received")):
        return "whole", None
    if "props" in updating_parts(component):
        return "whole", None
    uses = _InputUses.of(component)
    if not uses.read and not uses.patterns and not uses.whole:
        return "none", None
    if len(uses.rests) == 1 and not uses.whole:
        owner, pattern = uses.rests[0]
        if owner == "drawing" and _liftable(component, pattern, uses.patterns, uses.read, later):
            return "lifted", pattern
    apart = any(p.bindings is None or not p.only for p in uses.patterns)
    return ("whole" if uses.whole or uses.rests or apart else "listed"), None


def _liftable(
    component: Component,
    pattern: PatternRead,
    patterns: list[PatternRead],
    read: set[str],
    later: frozenset[int],
) -> bool:
    if pattern.bindings is None or not pattern.only or not pattern.top or pattern.entry in later:
        return False
    if not all(b.constant for b in pattern.bindings):
        return False
    taken = {b.key for b in pattern.bindings}
    if len(taken) != len(pattern.bindings) or not read <= taken:
        return False
    for other in patterns:
        if other is pattern:
            continue
        if other.bindings is None or other.rest or not other.only:
            return False
        if not {b.key for b in other.bindings} <= taken:
            return False
    if _hides(component, pattern, later):
        return False
    return all(p.name in taken for p in component.inputs.props if p.default is not None)


def _hides(component: Component, lifted: PatternRead, later: frozenset[int]) -> bool:
    """Whether the name of a prop in the signature means something else where the prop is read, or hides
    a name of the file."""
    named = {*(binding.local for binding in lifted.bindings or ()), lifted.rest}
    if named & component.facts.reserved:
        return True
    local = {binding.key: binding.local for binding in lifted.bindings or ()}
    lifted_at = {binding.at for binding in lifted.bindings or ()}
    for _, operation in component.operations():
        if operation is lifted or operation.entry in later:
            continue
        keys: list[str] = []
        if isinstance(operation, Read) and operation.member.kind == "prop":
            keys = [operation.member.name]
        elif isinstance(operation, PatternRead) and operation.source == "props":
            # A type that would declare the same names is not written again.
            keys = [
                b.key
                for b in operation.bindings or ()
                if not (operation.only and b.constant and b.local == local.get(b.key))
            ]
        around = component.facts.locals_at.get(operation.entry, ())
        own = {name for name, at in around if at not in lifted_at}
        if any(local.get(key) in own for key in keys):
            return True
    return False


def is_blank(moment: Moment) -> bool:
    """Whether nothing stands in a hook."""
    return moment.body.span.end <= moment.body.span.start
