"""The layout of state: field by field, or as one object; and signs of too few or too many renders."""

from __future__ import annotations

from clean_carry.component.code import (
    FieldUse,
    Operation,
    PatternRead,
    StateWrite,
    WholeRead,
    reads_inputs_in_updater,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.plan import Layout, WholeReason
from clean_carry.syntaxes.jsx_function.planning.render_phase import reads_state, updating_parts
from clean_carry.syntaxes.jsx_function.planning.stale_reads import drawn_by

# From this major version of the runtime on, all writes are batched (its release notes for 18.0).
BATCHES_ALL = 18
# Hooks whose code runs while a function renders again.
DRAWN = ("received", "derived")


def layout_of(component: Component, runtime: int) -> tuple[Layout, WholeReason]:
    """Return the layout of state and the reason for one object: field by field, unless code reads
    all of it or can notice the order of writes."""
    if component.view.markup:
        return ("split" if component.state is not None else "none"), ""
    if "state" in updating_parts(component):
        return "whole", "read whole"
    writes = component.writes()
    state = component.state
    if state is None and not writes:
        reads = any(reads_state(operation) for _, operation in component.operations())
        return ("whole", "read whole") if reads else ("none", "")
    reason = _whole_reason(component, runtime)
    return ("whole" if reason else "split"), reason


def _whole_reason(component: Component, runtime: int) -> WholeReason:
    """Why the state must stay one object; "" where it need not."""
    writes = component.writes()
    reason = _reason_in_writes(component, writes)
    if reason:
        return reason
    if component.facts.callable_state or _is_made_whole(component):
        return "made whole"
    if any(_reads_whole_state(operation) for _, operation in component.operations()):
        return "read whole"
    if not all(_splits(write, runtime) for write in writes):
        return "written together"
    if runtime >= BATCHES_ALL and _written_drawing_and_later(component):
        return "written while rendering"
    if writes and not component.view.pure and _counts_renders(component, writes):
        return "every render counts"
    before = [moment.previous_state for moment in component.moments("updated")]
    return "read whole" if any(b is not None and b.names is None for b in before) else ""


def _reason_in_writes(component: Component, writes: list[StateWrite]) -> WholeReason:
    """A write that needs the whole state: an updater with props, a callback, a change in place."""
    if any(map(reads_inputs_in_updater, writes)):
        return "updaters with props"
    if any(write.after is not None and not _always_new(write) for write in writes):
        return "callbacks"
    again = any(patch.again for write in writes for patch in write.fields or ())
    return "changed in place" if again and not component.view.pure else ""


def _is_made_whole(component: Component) -> bool:
    """Whether the initial state is no plain object literal."""
    return component.state is not None and component.state.fields is None


def _reads_whole_state(operation: Operation) -> bool:
    match operation:
        case WholeRead(source="state"):
            return True
        case PatternRead(source="state"):
            return operation.bindings is None or bool(operation.rest)
    return False


def _counts_renders(component: Component, writes: list[StateWrite]) -> bool:
    """Whether a render for an equal value can be observed."""
    if component.facts.reacting and component.writes_constants:
        return True
    return redraw_matters(component) and not all(map(_always_new, writes))


def _always_new(write: StateWrite) -> bool:
    """Whether a write always changes a field, so that both sides render for it."""
    patches = write.fields or (write.updater.result if write.updater is not None else None)
    return any(patch.fresh for patch in patches or ())


def _splits(write: StateWrite, runtime: int) -> bool:
    if write.fields is not None:
        if len(write.fields) > 1:
            if runtime < BATCHES_ALL or write.position in ("returned", "bare statement"):
                return False
        return len(write.fields) > 0
    updater = write.updater
    if updater is None or updater.result is None or updater.may_skip or len(updater.result) != 1:
        return False
    name = updater.result[0].name
    return all(own == name for _, own in updater.own)


def redraw_matters(component: Component) -> bool:
    """Whether a write of an equal value, which re-renders a class but not a function, can be
    noticed."""
    if any(m.guard is None and not m.compares_only for m in component.moments("updated")):
        return True
    if component.view.impure:
        return True
    if component.facts.sensitive and _writes_on_update(component):
        return True
    drawn = drawn_by(component)
    fixed = {field.name for field in component.fields if field.primitive} - {
        operation.member.name
        for _, operation in component.operations()
        if isinstance(operation, FieldUse) and operation.write
    }
    for owner, operation in component.operations():
        if isinstance(operation, FieldUse) and operation.member.kind == "field":
            if operation.handled or operation.member.name in fixed:
                continue
            if owner == "drawing" and not operation.deferred:
                return True
            if isinstance(owner, Method) and owner.name in drawn and not operation.deferred:
                return True
    return False


def _written_drawing_and_later(component: Component) -> bool:
    """Whether a field is written during a re-render, and at other times as well.

    From version 18 on a write of an equal value waits in the queue of its `useState` where it was spared,
    and takes back what was written while rendering; `useReducer` spares none.
    """
    drawing, later = set[str](), set[str]()
    for owner, operation in component.operations():
        if not isinstance(operation, StateWrite):
            continue
        fields = operation.fields or (operation.updater and operation.updater.result) or ()
        if isinstance(owner, Moment) and owner.when in DRAWN and not operation.deferred:
            drawing.update(patch.name for patch in fields)
        elif not (isinstance(owner, Moment) and owner.when == "starting"):
            later.update(patch.name for patch in fields if not patch.flips)
    return bool(drawing & later)


def _writes_on_update(component: Component) -> bool:
    """Whether an update hook writes state: children re-render before the page is painted."""
    return any(
        isinstance(operation, StateWrite)
        for moment in component.moments("updated")
        for operation in moment.body.all()
    )
