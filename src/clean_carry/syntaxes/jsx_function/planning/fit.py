"""Fit a component to a target that has no instance: one scope, closures, hooks.

Decides state layout, the form of inputs, names, and what must see the latest value. Writers spell
what is decided here.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace

from clean_carry.component.code import (
    FieldUse,
    Left,
    Member,
    MethodCall,
    MethodValue,
    PatternRead,
    StateWrite,
)
from clean_carry.component.members import LeftMember, Method, State, StateField
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.inputs import inputs_of, is_blank
from clean_carry.syntaxes.jsx_function.planning.latest import latest_of
from clean_carry.syntaxes.jsx_function.planning.layout import layout_of, redraw_matters
from clean_carry.syntaxes.jsx_function.planning.naming import Named, Naming, name_members
from clean_carry.syntaxes.jsx_function.planning.plan import (
    InputsForm,
    Layout,
    Plan,
    Refused,
)
from clean_carry.syntaxes.jsx_function.planning.render_phase import (
    check_updating,
    hands_inputs_on,
    reads_before,
    reads_state,
    receiving,
)
from clean_carry.syntaxes.jsx_function.planning.stale_reads import (
    calls_inputs,
    later_entries,
    later_methods,
    stable_methods,
)
from clean_carry.syntaxes.jsx_function.planning.use_before_ready import early_methods

# The first major version of the runtime without the old context (its release notes for 19.0).
NO_OLD_CONTEXT = 19
# The first without defaults as a property of a function (the same notes).
NO_DEFAULTS = 19
# More references to single inputs than this read worse than one to all of them.
MANY_LATEST = 4


def fit(component: Component, runtime: int, hook_names: frozenset[str]) -> Plan:
    """Fit `component` for hooks of the runtime's major version `runtime`.

    Raises `Refused` for what a function component cannot say.
    """
    _check(component)
    if component.inputs.defaults_kept is not None and not keeps_defaults(component, runtime):
        raise Refused(*component.inputs.defaults_kept)
    component = _without_numeric_guards(component)
    merged = _merged(component)
    stable = stable_methods(component, merged)
    called_early = receiving(component)
    # Who holds a reference may have taken it at the first render: what it gives is entered at any time.
    entered = (*called_early, *component.outward.exposed)
    later_by_name = later_methods(component, stable, entered)
    later = later_entries(component, later_by_name)
    early, before_fields, inputs_first = early_methods(component, stable, later)
    layout, reason = layout_of(component, runtime)
    remembered = component.view.pure and _is_remembered(component, runtime)
    _check_context(component, runtime, remembered)
    inputs, lifted, latest = _inputs(component, later, layout)
    effect_locals = _effect_locals(component) if merged else {}
    removed = _removable(component, later, layout, inputs, lifted)
    apart = bool(called_early) or inputs_first
    wanted = Named(layout, inputs, lifted, latest, later, hook_names, apart)
    naming = name_members(component, wanted, removed, effect_locals)
    _check_hiding(component, naming, hook_names)
    writes = component.writes()
    updaters = [o.updater for o in writes if o.updater is not None]
    is_open = any(write.open for write in writes)
    followed = [write for write in writes if write.after is not None]
    always_draws = _always_draws(component, followed)
    return Plan(
        component, naming.names, naming.setters, naming.latest, naming.references, naming.previous,
        layout, inputs, lifted, later, stable, naming.removed,
        effect_locals=effect_locals,
        merged=merged,
        runtime=runtime,
        updaters=bool(updaters) or is_open,
        may_skip=any(u.may_skip for u in updaters) or is_open,
        early=early,
        before_fields=before_fields,
        inputs_first=inputs_first,
        remembered=remembered,
        receiving=bool(called_early),
        followed=bool(followed),
        always_draws=always_draws,
        reads_before=reads_before(component, later),
        whole_reason=reason,
        once=made_once(component, effect_locals),
        in_order=_made_in_order(component, before_fields),
    )  # fmt: skip


def _inputs(
    component: Component, later: frozenset[int], layout: Layout
) -> tuple[InputsForm, PatternRead | None, set[Member]]:
    """The form of the inputs, the pattern that is lifted, and the members whose latest value is read."""
    inputs, lifted = inputs_of(component, later)
    latest = latest_of(component, later, layout, inputs)
    many = sum(member.kind == "prop" for member in latest) > MANY_LATEST
    if inputs == "listed" and not component.view.markup and many:
        return "whole", lifted, latest_of(component, later, layout, "whole")
    return inputs, lifted, latest


def made_once(component: Component, effect_locals: Collection[str]) -> frozenset[str]:
    """Fields whose value is made by code, once, and that nothing writes afterwards."""
    written = {
        operation.member.name
        for _, operation in component.operations()
        if isinstance(operation, FieldUse) and operation.write
    } | component.outward.written_outside
    return frozenset(
        field.name
        for field in component.fields
        if field.lazy and field.code is not None and not field.element
        if field.name not in written and field.name not in effect_locals
    )


def _made_in_order(component: Component, before_fields: frozenset[str]) -> bool:
    """Whether the order in which the class makes its state and its fields matters.

    Raises `Refused` where the state needs a field that itself needs a method declared behind the state.
    """
    state = component.state
    if state is None:
        return False
    reading = [
        operation.span.start
        for owner, operation in component.operations()
        if isinstance(owner, State | StateField) and isinstance(operation, FieldUse)
    ]
    if reading and before_fields:
        raise Refused("initial-needs-method", min(before_fields), reading[0])
    running = state.lazy or any(field.lazy for field in state.fields or ())
    lazy = any(field.lazy and field.code is not None for field in component.fields)
    return bool(reading) or (running and lazy)


def _check(component: Component) -> None:
    left = {m.detail: m for m in component.members if isinstance(m, LeftMember)}
    for owner, operation in component.operations():
        if isinstance(operation, MethodCall | MethodValue) and operation.member.name in left:
            member = left[operation.member.name]
            raise Refused(member.rule, member.detail, member.span.start)
        if isinstance(owner, Moment) and owner.when == "made":
            if isinstance(operation, StateWrite) and not operation.deferred:
                raise Refused("initial-writes-state", "", operation.span.start)
        if isinstance(owner, Method | Moment | str):
            continue
        if isinstance(operation, StateWrite | Left) and not operation.deferred:
            raise Refused("initial-writes-state", "", operation.span.start)
    _check_state(component)
    _check_made(component)
    check_updating(component)
    if any(
        len(component.moments(when)) > 1
        for when in ("displayed", "removed", "received", "starting", "updating")
    ):
        raise Refused("member-twice", "", component.span.start)


def _check_made(component: Component) -> None:
    """Check that setup code calls no method that writes state: a class lost such a write."""
    writing = {
        owner.name
        for owner, operation in component.operations()
        if isinstance(owner, Method) and isinstance(operation, StateWrite)
    }
    for moment in component.moments("made"):
        for operation in moment.body.all():
            called = isinstance(operation, MethodCall) and not operation.deferred
            if called and _reaches(component, operation.member.name, writing):  # type: ignore[attr-defined]
                raise Refused("initial-writes-state", "", operation.span.start)


def _reaches(component: Component, name: str, wanted: set[str]) -> bool:
    """Whether a method is, or calls, one of those wanted."""
    methods = {method.name: method for method in component.methods()}
    queue, seen = [name], set[str]()
    while queue:
        here = queue.pop()
        if here in wanted:
            return True
        if here in methods and here not in seen:
            seen.add(here)
            queue += [o.member.name for o in methods[here].text.all() if isinstance(o, MethodCall)]
    return False


def _check_state(component: Component) -> None:
    """State that is read but never given fails in a class."""
    if component.view.markup or component.state is not None:
        return
    read_at: list[int] = []
    for _, operation in component.operations():
        if isinstance(operation, StateWrite):
            return
        if reads_state(operation):
            read_at.append(operation.span.start)
    if read_at:
        raise Refused("state-never-given", "", min(read_at))


def _check_hiding(component: Component, naming: Naming, hook_names: frozenset[str]) -> None:
    """Check that locals of the render code do not shadow names that methods take from the file or
    the globals, nor a hook. Raises `Refused` if one does."""
    gone = {
        (binding.local, binding.at)
        for _, operation in component.operations()
        if isinstance(operation, PatternRead) and operation.entry in naming.removed
        for binding in operation.bindings or ()
    }
    for name, at in sorted(component.view.locals - gone, key=lambda local: local[1]):
        if name in component.facts.taken_elsewhere or name in hook_names:
            raise Refused("local-hides", name, at)


def _always_draws(component: Component, writes: list[StateWrite]) -> bool:
    """Whether a write must re-render where the class skips it: it is pure, or nothing is written.

    A class calls the callback of a write even if nothing changes; a function calls it only after a render.
    Raises `Refused` where that render is observable.
    """
    told = component.facts.reacting or redraw_matters(component) or draws_by_inputs(component)
    for write in writes:
        skips = write.open or (write.updater is not None and write.updater.may_skip)
        if component.view.pure or skips:
            if told:
                raise Refused("write-callback", "", write.span.start)
            return True
    return False


def _check_context(component: Component, runtime: int, remembered: bool) -> None:
    """The old context is read by functions as well, until the runtime gave it up.

    Not by a memoised one: its types stand on what wraps it, where the runtime does not look for them,
    and a class that compares its inputs did not see the context change.
    """
    if component.context is None or component.context.kind != "old":
        return
    if runtime >= NO_OLD_CONTEXT:
        raise Refused("legacy-context", "the runtime has it no longer", component.span.start)
    if remembered:
        raise Refused(
            "legacy-context", "a memoised function would not read it", component.span.start
        )


def keeps_defaults(component: Component, runtime: int) -> bool:
    """Whether a function may have its defaults as a property: not from version 19 on; and the declared
    types of a memoised one know of none."""
    typed = component.language.typed and not component.language.annotated
    return runtime < NO_DEFAULTS and not (typed and component.view.pure)


def _is_remembered(component: Component, runtime: int) -> bool:
    """Whether a pure component becomes a function that is not called where its inputs did not change.

    Not where what it does on new inputs must be done all the same. Its base compares inputs with
    their defaults filled in. Raises `Refused` where either is observable in the output; where only
    inputs that rendering calls tell, as long as the defaults can stay a property.
    """
    told = redraw_matters(component)
    for moment in component.moments("received"):
        if not moment.compares_only and not is_blank(moment):
            if told:
                raise Refused("pure-receives", "", moment.body.span.start)
            return False
    if told or (keeps_defaults(component, runtime) and draws_by_inputs(component)):
        for prop in component.inputs.props:
            if prop.default is not None:
                raise Refused("pure-default-redraw", prop.name, component.span.start)
    return True


def draws_by_inputs(component: Component) -> bool:
    """Whether render code calls props, which can count the renders."""
    return component.view.drawing is not None and calls_inputs(component, component.view.drawing)


def _without_numeric_guards(component: Component) -> Component:
    """Update hooks that compare a number keep their own comparison.

    A value that is not equal to itself (ECMA-262 §7.2.14: NaN) would pass for a change at once.
    """
    numeric = {
        p.name for p in component.inputs.props if p.default is not None and p.default.numeric
    }
    fields = component.state.fields or () if component.state is not None else ()
    numeric |= {field.name for field in fields if field.numeric}
    unknown = component.state is not None and component.state.fields is None
    members = tuple(
        replace(member, guard=None, kept_guard=member.guard.entry)
        if isinstance(member, Moment)
        and member.guard is not None
        and any(
            source.name in numeric or (unknown and source.kind == "state")
            for source in member.guard.sources
        )
        else member
        for member in component.members
    )
    changed = any(a is not b for a, b in zip(members, component.members, strict=True))
    return replace(component, members=members) if changed else component


def _merged(component: Component) -> bool:
    """Whether the removal hook can become the clean-up of the display hook's effect.

    Not where the display hook may stop before its end: by returning, because a function given as an
    input or imported throws, or because what a method does with inputs to an element or another field
    does. A class that was displayed is cleaned up all the same.
    """
    displayed, removed = component.moments("displayed"), component.moments("removed")
    if not displayed or not removed or displayed[0].asynchronous or removed[0].asynchronous:
        return False
    if not displayed[0].reaches_end or displayed[0].calls_imports or is_blank(removed[0]):
        return False
    if calls_inputs(component, displayed[0].body) or hands_inputs_on(component, displayed[0]):
        return False
    used = set(removed[0].references)
    for operation in removed[0].body.all():
        used.add(getattr(operation, "member", Member("prop", "")).name)
    return not displayed[0].locals & used


def _effect_locals(component: Component) -> dict[str, tuple[str, int]]:
    """Fields whose every use lies in the one effect that display and removal become."""
    displayed = component.moments("displayed")[0]
    uses: dict[str, list[tuple[object, FieldUse]]] = {}
    for owner, operation in component.operations():
        if isinstance(operation, FieldUse) and operation.member.kind == "field":
            uses.setdefault(operation.member.name, []).append((owner, operation))
    found: dict[str, tuple[str, int]] = {}
    for field in component.fields:
        own = uses.get(field.name, [])
        if field.name in component.outward.exposed:
            continue
        if field.code is not None or field.element or not own or field.name in displayed.locals:
            continue
        if not all(isinstance(o, Moment) and o.when in ("displayed", "removed") for o, _ in own):
            continue
        first = min(own, key=lambda pair: (pair[0] is not displayed, pair[1].span.start))
        if first[0] is not displayed or not first[1].declares:
            continue
        writes = [use for _, use in own if use.write]
        found[field.name] = ("const" if len(writes) == 1 else "let", first[1].entry)
    return found


def _removable(
    component: Component,
    later: frozenset[int],
    layout: Layout,
    inputs: InputsForm,
    lifted: PatternRead | None,
) -> frozenset[int]:
    """Patterns that may vanish because what they name is in scope already."""
    found: set[int] = set()
    aliases = {b.key: b.local for b in lifted.bindings or ()} if lifted is not None else {}
    for _, operation in component.operations():
        if not isinstance(operation, PatternRead) or operation.entry in later:
            continue
        if operation.bindings is None or operation.rest or not operation.only:
            continue
        if operation.source == "props" and inputs not in ("listed", "lifted"):
            continue
        if operation.source == "state" and layout != "split":
            continue
        if all(b.constant and b.local == aliases.get(b.key, b.key) for b in operation.bindings):
            found.add(operation.entry)
    return frozenset(found)
