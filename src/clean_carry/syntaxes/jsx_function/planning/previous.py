"""The names of what hooks need beside the members: values of the render before, and what tells of it."""

from __future__ import annotations

from clean_carry.component.code import Redraw
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.planning.render_phase import updating_parts
from clean_carry.syntaxes.jsx_function.planning.scope import Scope, capital, identifier


def previous_names(component: Component, scope: Scope) -> dict[str, str]:
    """Names by what they are for; one with a sign behind it is what changes it."""
    found: dict[str, str] = {}
    _of_state(component, scope, found)
    if component.outward.exposed:
        found["ref"] = scope.pick(["ref", "outerRef"], [])
    if component.moments("starting"):
        found["started"] = scope.pick(["started", "wasStarted"], [])
        found["started="] = scope.pick(["setStarted", "setWasStarted"], [])
    if component.moments("received"):
        sites = [o.entry for m in component.moments("received") for o in m.body.all()]
        found["received"] = scope.pick(["previousProps", "receivedInputs"], sites)
        found["received="] = scope.pick(["setPreviousProps", "setReceivedInputs"], [])
        found["before"] = scope.pick(["propsBefore", "inputsBefore"], sites)
    for moment in component.moments("updating"):
        sites = [o.entry for o in moment.body.all()]
        for part in updating_parts(component):
            drawn = f"drawn{capital(part)}"
            found[drawn] = scope.pick([drawn, f"{drawn}Ref"], sites)
            found[f"{part} then"] = scope.pick([f"{part}Then", f"{part}Until"], sites)
    for moment in component.moments("updated"):
        _of_update(moment, scope, found)
    for field in component.fields:
        if field.lazy and field.code is not None and not field.element:
            wish = f"initial{capital(identifier(field.name))}"
            found[f"initial {field.name}"] = scope.pick([wish, f"{wish}Value"], [])
    return found


def _of_state(component: Component, scope: Scope, found: dict[str, str]) -> None:
    if component.state is not None and component.state.body:
        sites = [o.entry for o in component.state.whole.all()] if component.state.whole else []
        found["draft"] = scope.pick(["initial", "initialState"], sites)
    followed = [write.entry for write in component.writes() if write.after is not None]
    if followed:
        found["after"] = scope.pick(["afterRender", "callAfterRender"], followed)
    redraws = [o.entry for _, o in component.operations() if isinstance(o, Redraw)]
    if redraws:
        found["redraw"] = scope.pick(["rerender", "renderAgain"], redraws)


def _of_update(moment: Moment, scope: Scope, found: dict[str, str]) -> None:
    sites = [o.entry for o in moment.body.all()]
    inside = moment.locals | _parameters(moment)
    if moment.guard is not None:
        wish = f"previous{capital(identifier(moment.guard.sources[0].name))}"
        found["guard"] = scope.pick([wish, f"{wish}Value"], sites, inside)
        return
    if moment.previous_props is not None:
        found["props"] = scope.pick(["previousProps", "propsBefore", "lastProps"], sites, inside)
    if moment.previous_state is not None:
        found["state"] = scope.pick(["previousState", "stateBefore", "lastState"], sites, inside)
    if moment.previous_props is None and moment.previous_state is None:
        found["drawn"] = scope.pick(["mounted", "wasMounted"], sites, inside)


def _parameters(moment: Moment) -> frozenset[str]:
    """The names of the parameters of a hook, and what is written for those it takes apart."""
    given = [("props", moment.previous_props), ("state", moment.previous_state)]
    return frozenset(
        before.parameter if is_identifier(before.parameter) else f"{key}Then"
        for key, before in given
        if before is not None
    )
