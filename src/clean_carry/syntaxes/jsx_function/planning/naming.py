"""The collision pass: one scope for members, inputs and locals, for every target that has one.

A name stays as its author wrote it unless it would hide, or be hidden by, another.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import (
    Assign,
    Binding,
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    PatternRead,
    Read,
    Redraw,
    RootElement,
    StateWrite,
    WholeRead,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.source.javascript.script_style import RESERVED
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.planning.drawn import updating_parts
from clean_carry.syntaxes.jsx_function.planning.plan import (
    CONTEXT,
    GIVEN,
    OTHERS,
    PROPS,
    STATE,
    WHOLES,
    InputsForm,
    Layout,
)

# More references to latest values than this become one to all of them.
MOST_REFERENCES = 2


@dataclass(frozen=True)
class Naming:
    """The names chosen. `removed` are the patterns that may still vanish under them.

    `latest` is how the latest value of a member is read, `references` the names of what holds those
    values, each with the members it holds.
    """

    names: dict[Member, str]
    setters: dict[str, str]
    latest: dict[Member, str]
    references: dict[str, tuple[Member, ...]]
    previous: dict[str, str]
    removed: frozenset[int]


class _Scope:
    def __init__(self, component: Component, hook_names: frozenset[str]) -> None:
        self.taken = set(RESERVED) | set(component.facts.reserved) | set(hook_names)
        self.locals_at = component.facts.locals_at
        self.drawing_locals = component.view.locals
        self.vanished: set[tuple[str, int]] = set()

    def clear(self, name: str, sites: list[int], strict: bool = True) -> bool:
        if (strict and name in self.taken) or not is_identifier(name):
            return False
        if any(key == name and (key, at) not in self.vanished for key, at in self.drawing_locals):
            return False
        return not any(
            key == name and (key, at) not in self.vanished
            for site in sites
            for key, at in self.locals_at.get(site, ())
        )

    def pick(
        self, wishes: list[str], sites: list[int], beside: frozenset[str] = frozenset()
    ) -> str:
        """The first wish that is clear, else the last one with a number.

        `beside` are names declared in the scope it is used in, which none of its uses tells of.
        """
        number = 2
        if not is_identifier(wishes[-1]):
            raise ValueError(f"no name can be made of {wishes}")
        candidates = list(wishes)
        while True:
            for wish in candidates:
                if wish not in beside and self.clear(wish, sites):
                    self.taken.add(wish)
                    return wish
            candidates = [f"{wishes[-1]}{number}"]
            number += 1


def name_members(
    component: Component,
    layout: Layout,
    inputs: InputsForm,
    lifted: PatternRead | None,
    latest: set[Member],
    later: frozenset[int],
    removable: frozenset[int],
    effect_locals: dict[str, tuple[str, int]],
    hook_names: frozenset[str],
    *,
    apart: bool = False,
) -> Naming:
    """Choose the local names of everything the component brings into the one scope.

    References to latest values stay `apart` from each other where that is asked for. A pattern vanishes
    only under the names it makes; where one cannot, all is named anew with it kept.
    """
    while True:
        given = dict(effect_locals)
        naming = _name_all(
            component, layout, inputs, lifted, latest, later, removable, given, hook_names, apart
        )
        if naming.removed == removable:
            effect_locals.clear()
            effect_locals.update(given)
            return naming
        removable = naming.removed


def _name_all(
    component: Component,
    layout: Layout,
    inputs: InputsForm,
    lifted: PatternRead | None,
    latest: set[Member],
    later: frozenset[int],
    removable: frozenset[int],
    effect_locals: dict[str, tuple[str, int]],
    hook_names: frozenset[str],
    apart: bool,
) -> Naming:
    scope = _Scope(component, hook_names)
    sites, through = _sites(component, later, latest)
    removed = set(removable)
    patterns = [o for _, o in component.operations() if isinstance(o, PatternRead)]
    for pattern in patterns:
        if pattern.entry in removable or pattern is lifted:
            scope.vanished.update((b.local, b.at) for b in pattern.bindings or ())
    names: dict[Member, str] = {}
    setters: dict[str, str] = {}
    if lifted is not None:
        for binding in lifted.bindings or ():
            scope.taken.add(binding.local)
            names[Member("prop", binding.key)] = binding.local
        scope.taken.add(lifted.rest)
    for method in component.methods():
        member = Member("method", method.name)
        names[member] = scope.pick(_method_wishes(component, method), sites.get(member, []))
    for derived in component.derived:
        member = Member("derived", derived.name)
        names[member] = scope.pick([derived.name, f"{derived.name}Value"], sites.get(member, []))
    if layout == "split":
        for name in state_names(component):
            member = Member("state", name)
            names[member] = scope.pick([name, f"{name}State"], sites.get(member, []))
    elif layout == "whole":
        wishes = [w for w in ("state", "ownState") if w not in _hidden(component)]
        names[STATE] = scope.pick([*wishes, "heldState"], sites.get(STATE, []))
        every = sites.get(STATE, []) + through.get(STATE, [])
        setters["*"] = scope.pick(["setState", "changeState"], every)
    if inputs == "listed":
        for prop in sorted(
            component.inputs.props, key=lambda p: _prefers(p.name, patterns, removed)
        ):
            member = Member("prop", prop.name)
            plain = identifier(prop.name)
            names[member] = scope.pick([plain, f"{plain}Prop"], sites.get(member, []))
        if component.view.markup:
            names[OTHERS] = scope.pick(["rest", "others"], [])
    elif inputs == "whole":
        wishes = [w for w in ("props", "inputs") if w not in _hidden(component)]
        names[PROPS] = scope.pick([*wishes, "ownInputs"], sites.get(PROPS, []))
        for prop in component.inputs.props:
            if prop.default is not None:
                plain = identifier(prop.name)
                names[Member("prop", prop.name)] = scope.pick([plain, f"{plain}Prop"], [])
        names[OTHERS] = scope.pick(["others", "otherInputs"], [])
        defaults = any(prop.default is not None for prop in component.inputs.props)
        if defaults and component.moments("received"):
            names[GIVEN] = scope.pick(["given", "givenInputs"], [])
    if component.context is not None:
        names[CONTEXT] = scope.pick(["context", "ownContext"], sites.get(CONTEXT, []))
    second = component.outward.exposed or (
        component.context is not None and component.context.kind == "old"
    )
    if inputs == "none" and second:
        names[PROPS] = scope.pick(["props", "inputs"], [])
    if layout == "split":
        for name in state_names(component):
            wish = f"set{_capital(name)}"
            setters[name] = scope.pick(
                [wish, f"{wish}State"], sites.get(Member("state", f"{name}="), [])
            )
    for field in component.fields:
        member = Member("element" if field.element else "field", field.name)
        own = sites.get(member, [])
        if field.name in effect_locals and scope.clear(field.name, own, strict=True):
            names[member] = field.name
            continue
        effect_locals.pop(field.name, None)
        names[member] = scope.pick([field.name, f"{field.name}Ref"], own)
    references = _references(latest, names, scope, through, apart=apart)
    read: dict[Member, str] = {}
    for name, members in references.items():
        for member in members:
            read[member] = f"{name}.current" + ("" if len(members) == 1 else f".{names[member]}")
    removed = _still_removed(patterns, removed, names)
    previous = _previous(component, scope)
    return Naming(names, setters, read, references, previous, frozenset(removed))


def _method_wishes(component: Component, method: Method) -> list[str]:
    """The names a method would like: its own, where no field that wraps it is called so."""
    if method.name.endswith("="):
        name = _capital(method.name[:-1])
        return [f"change{name}", f"assign{name}"]
    verb = "get" if method.getter else "handle"
    wishes = [method.name, f"{verb}{_capital(method.name)}", f"{method.name}Now"]
    wrapped = any(field.name == method.name for field in component.fields)
    return [wishes[2], wishes[1]] if wrapped else wishes


def _references(
    latest: set[Member],
    names: dict[Member, str],
    scope: _Scope,
    through: dict[Member, list[int]],
    *,
    apart: bool,
) -> dict[str, tuple[Member, ...]]:
    """The references that hold latest values: one for each, or one for all where there are many.

    They stay `apart` where not all of them are brought up to date at the same place.
    """
    found: dict[str, tuple[Member, ...]] = {}
    groups = [sorted(latest)]
    if apart:
        groups = [
            sorted(m for m in latest if (m.kind == "prop") is first) for first in (True, False)
        ]
    for group in groups:
        if len(latest) > MOST_REFERENCES and len(group) > 1:
            sites = [site for member in group for site in through.get(member, [])]
            wish = "latestProps" if apart and group[0].kind == "prop" else "latest"
            found[scope.pick([wish, f"{wish}Values"], sites)] = tuple(group)
    for member in sorted(latest - {member for members in found.values() for member in members}):
        known = {PROPS: "latestProps", STATE: "latestState", CONTEXT: "latestContext"}.get(member)
        wish = known or f"latest{_capital(identifier(member.name))}"
        found[scope.pick([wish, f"{wish}Ref"], through.get(member, []))] = (member,)
    return found


def _hidden(component: Component) -> set[str]:
    """Names that code run when new inputs came, or before an update, declares itself; it reads what came
    as well."""
    found: set[str] = set()
    for moment in (*component.moments("received"), *component.moments("updating")):
        came = [p.parameter for p in (moment.previous_props, moment.previous_state) if p]
        found |= moment.locals - set(came)
    return found


def _previous(component: Component, scope: _Scope) -> dict[str, str]:
    found: dict[str, str] = {}
    for reaction in component.reactions:
        wish = f"previous{_capital(identifier(reaction.source.name))}"
        found[reaction.source.name] = scope.pick([wish, f"{wish}Value"], [])
        found[f"{reaction.source.name}="] = scope.pick([f"set{_capital(wish)}"], [])
    if component.state is not None and component.state.body:
        sites = [o.entry for o in component.state.whole.all()] if component.state.whole else []
        found["draft"] = scope.pick(["initial", "initialState"], sites)
    followed = [write.entry for write in component.writes() if write.after is not None]
    if followed:
        found["after"] = scope.pick(["afterRender", "callAfterRender"], followed)
    if any(isinstance(o, Redraw) for _, o in component.operations()):
        sites = [o.entry for _, o in component.operations() if isinstance(o, Redraw)]
        found["redraw"] = scope.pick(["redraw", "drawAgain"], sites)
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
            drawn = f"drawn{_capital(part)}"
            found[drawn] = scope.pick([drawn, f"{drawn}Ref"], sites)
            found[f"{part} then"] = scope.pick([f"{part}Then", f"{part}Until"], sites)
    for moment in component.moments("updated"):
        sites = [o.entry for o in moment.body.all()]
        inside = moment.locals | _parameters(moment)
        if moment.guard is not None:
            source = moment.guard.sources[0].name
            wish = f"previous{_capital(identifier(source))}"
            found["guard"] = scope.pick([wish, f"{wish}Value"], sites, inside)
            continue
        if moment.previous_props is not None:
            wishes = ["previousProps", "propsBefore", "lastProps"]
            found["props"] = scope.pick(wishes, sites, inside)
        if moment.previous_state is not None:
            wishes = ["previousState", "stateBefore", "lastState"]
            found["state"] = scope.pick(wishes, sites, inside)
        if moment.previous_props is None and moment.previous_state is None:
            found["drawn"] = scope.pick(["mounted", "wasMounted"], sites, inside)
    for field in component.fields:
        if field.lazy and field.code is not None and not field.element:
            wish = f"initial{_capital(identifier(field.name))}"
            found[f"initial {field.name}"] = scope.pick([wish, f"{wish}Value"], [])
    return found


def _parameters(moment: Moment) -> frozenset[str]:
    """The names of the parameters of a hook, and what is written for those it takes apart."""
    given = [("props", moment.previous_props), ("state", moment.previous_state)]
    return frozenset(
        before.parameter if is_identifier(before.parameter) else f"{key}Then"
        for key, before in given
        if before is not None
    )


def _still_removed(
    patterns: list[PatternRead], removed: set[int], names: dict[Member, str]
) -> set[int]:
    for pattern in patterns:
        if pattern.entry not in removed:
            continue
        kind = "prop" if pattern.source == "props" else "state"
        for binding in pattern.bindings or ():
            member = Member("prop" if kind == "prop" else "state", binding.key)
            if names.get(member) != binding.local:
                removed.discard(pattern.entry)
    return removed


def _prefers(name: str, patterns: list[PatternRead], removed: set[int]) -> tuple[bool, str]:
    """Inputs that vanishing patterns name come first, so that they keep their names."""
    named = any(
        _names(binding, name)
        for pattern in patterns
        if pattern.entry in removed
        for binding in pattern.bindings or ()
    )
    return (not named, "")


def _names(binding: Binding, name: str) -> bool:
    return binding.key == name


def state_names(component: Component) -> list[str]:
    """The fields of the state: declared, written or read, in the order they appear."""
    found: dict[str, None] = {}
    if component.state is not None and component.state.fields is not None:
        found.update(dict.fromkeys(field.name for field in component.state.fields))
    for _, operation in component.operations():
        if isinstance(operation, StateWrite):
            result = operation.updater.result if operation.updater is not None else None
            for patch in operation.fields or result or ():
                found.setdefault(patch.name)
        elif isinstance(operation, Read) and operation.member.kind == "state":
            found.setdefault(operation.member.name)
        elif isinstance(operation, PatternRead) and operation.source == "state":
            for binding in operation.bindings or ():
                found.setdefault(binding.key)
    for moment in component.moments("updated"):
        if moment.previous_state is not None:
            found.update(dict.fromkeys(moment.previous_state.names or ()))
    return list(found)


def _sites(
    component: Component, later: frozenset[int], latest: set[Member]
) -> tuple[dict[Member, list[int]], dict[Member, list[int]]]:
    """Where each name, and each reference to a latest value, will be written."""
    plain: dict[Member, list[int]] = {}
    through: dict[Member, list[int]] = {}

    def note(member: Member, whole: Member | None, entry: int) -> None:
        for each in (member, whole):
            if each is None:
                continue
            target = through if entry in later and each in latest else plain
            target.setdefault(each, []).append(entry)

    for moment in component.moments("updated"):
        # What is kept of this render is read beside the names that the hook declares.
        kept = [(PROPS, "prop", moment.previous_props), (STATE, "state", moment.previous_state)]
        for all_of_it, kind, before in kept:
            for name in (before.names or ()) if before is not None else ():
                note(Member("prop" if kind == "prop" else "state", name), all_of_it, moment.entry)
            if before is not None and before.names is None:
                note(all_of_it, None, moment.entry)
        for source in moment.guard.sources if moment.guard is not None else ():
            held = {"prop": PROPS, "state": STATE}.get(source.kind)
            note(source, held, moment.entry)
    for _, operation in component.operations():
        entry = operation.entry
        if isinstance(operation, Read | FieldUse | MethodCall | MethodValue):
            whole = {"prop": PROPS, "state": STATE}.get(operation.member.kind)
            note(operation.member, whole, entry)
        elif isinstance(operation, RootElement):
            note(Member("element", operation.name), None, entry)
        elif isinstance(operation, WholeRead):
            note(WHOLES[operation.source], None, entry)
        elif isinstance(operation, PatternRead):
            whole = PROPS if operation.source == "props" else STATE
            note(whole, None, entry)
            # Of one that vanishes too: what is around it may have a local of the name it made.
            for binding in operation.bindings or ():
                kind = "prop" if operation.source == "props" else "state"
                note(Member("prop" if kind == "prop" else "state", binding.key), None, entry)
        elif isinstance(operation, StateWrite):
            note(STATE, None, entry)
            result = operation.updater.result if operation.updater is not None else None
            for patch in operation.fields or result or ():
                plain.setdefault(Member("state", patch.name + "="), []).append(entry)
        elif isinstance(operation, Assign):
            note(operation.member, STATE, entry)
            plain.setdefault(Member("state", operation.member.name + "="), []).append(entry)
    return plain, through


def identifier(name: str) -> str:
    """A name as an identifier: `aria-label` becomes `ariaLabel`."""
    plain = "".join(sign if is_identifier(f"a{sign}") else "-" for sign in name)
    head, *rest = [part for part in plain.split("-") if part] or ["value"]
    head = head if is_identifier(head) else f"value{head}"
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def _capital(name: str) -> str:
    plain = name.lstrip("_$#") or name
    return plain[:1].upper() + plain[1:]
