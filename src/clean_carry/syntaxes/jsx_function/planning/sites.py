"""Where each member will be written in the one scope."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import (
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    PatternRead,
    Read,
    RootElement,
    StateWrite,
    WholeRead,
)
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.plan import PROPS, STATE, WHOLES

# A member that is written, and the whole it may be part of.
_Use = tuple[Member, Member | None]


def sites_of(
    component: Component, later: frozenset[int], latest: set[Member]
) -> tuple[dict[Member, list[int]], dict[Member, list[int]]]:
    """Where each name, and each reference to a latest value, will be written."""
    plain: dict[Member, list[int]] = {}
    through: dict[Member, list[int]] = {}
    uses = [(use, moment.entry) for moment in component.moments("updated") for use in _kept(moment)]
    uses += [(use, one.entry) for _, one in component.operations() for use in _named(one)]
    for use, entry in uses:
        for each in use:
            if each is not None:
                target = through if entry in later and each in latest else plain
                target.setdefault(each, []).append(entry)
    for _, operation in component.operations():
        for name in written_by(operation):
            plain.setdefault(Member("state", f"{name}="), []).append(operation.entry)
    return plain, through


def _kept(moment: Moment) -> Iterator[_Use]:
    """Return the values kept of a render for the next one, beside the names that the hook declares."""
    kept = [(PROPS, "prop", moment.previous_props), (STATE, "state", moment.previous_state)]
    for all_of_it, kind, before in kept:
        for name in (before.names or ()) if before is not None else ():
            yield Member("prop" if kind == "prop" else "state", name), all_of_it
        if before is not None and before.names is None:
            yield all_of_it, None
    for source in moment.guard.sources if moment.guard is not None else ():
        yield source, {"prop": PROPS, "state": STATE}.get(source.kind)


def _named(operation: Operation) -> Iterator[_Use]:
    """The members an operation is written with."""
    match operation:
        case Read() | FieldUse() | MethodCall() | MethodValue():
            yield operation.member, {"prop": PROPS, "state": STATE}.get(operation.member.kind)
        case RootElement():
            yield Member("element", operation.name), None
        case WholeRead():
            yield WHOLES[operation.source], None
        case PatternRead():
            yield (PROPS if operation.source == "props" else STATE), None
            # Of one that vanishes too: what is around it may have a local of the name it made.
            for binding in operation.bindings or ():
                kind = "prop" if operation.source == "props" else "state"
                yield Member("prop" if kind == "prop" else "state", binding.key), None
        case StateWrite():
            yield STATE, None


def written_by(operation: Operation) -> Iterator[str]:
    """The fields of state an operation changes."""
    if isinstance(operation, StateWrite):
        result = operation.updater.result if operation.updater is not None else None
        yield from (patch.name for patch in operation.fields or result or ())
