"""The collision pass: one scope for members, inputs and locals, for every target that has one.

A name stays as its author wrote it unless it would hide, or be hidden by, another.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import (
    Binding,
    Member,
    PatternRead,
    Read,
    StateWrite,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.syntaxes.jsx_function.planning.plan import (
    CONTEXT,
    GIVEN,
    OTHERS,
    PROPS,
    STATE,
    InputsForm,
    Layout,
)
from clean_carry.syntaxes.jsx_function.planning.previous import previous_names
from clean_carry.syntaxes.jsx_function.planning.scope import Scope, capital, identifier
from clean_carry.syntaxes.jsx_function.planning.sites import sites_of

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


@dataclass(frozen=True)
class Named:
    """The owners of chosen names: the state layout and the form of props, a pattern moved into the
    signature, members whose latest value is read, and hooks.

    References to latest values stay `apart` from each other on request.
    """

    layout: Layout
    inputs: InputsForm
    lifted: PatternRead | None
    latest: set[Member]
    later: frozenset[int]
    hook_names: frozenset[str]
    apart: bool = False


def name_members(
    component: Component,
    wanted: Named,
    removable: frozenset[int],
    effect_locals: dict[str, tuple[str, int]],
) -> Naming:
    """Choose the local names of everything the component brings into the one scope.

    A pattern of `removable` vanishes only under the names it makes; where one cannot, all is named anew
    with it kept. Of `effect_locals` those stay that can have their own names.
    """
    while True:
        given = dict(effect_locals)
        naming = _Names(component, wanted, removable, given).chosen()
        if naming.removed == removable:
            effect_locals.clear()
            effect_locals.update(given)
            return naming
        removable = naming.removed


class _Names:
    """The names of one component, in the order in which they are chosen."""

    def __init__(
        self,
        component: Component,
        wanted: Named,
        removable: frozenset[int],
        effect_locals: dict[str, tuple[str, int]],
    ) -> None:
        self.component, self.wanted, self.effect_locals = component, wanted, effect_locals
        self.scope = Scope(component, wanted.hook_names)
        self.sites, self.through = sites_of(component, wanted.later, wanted.latest)
        self.removed = set(removable)
        self.patterns = [o for _, o in component.operations() if isinstance(o, PatternRead)]
        for pattern in self.patterns:
            if pattern.entry in removable or pattern is wanted.lifted:
                self.scope.vanished.update((b.local, b.at) for b in pattern.bindings or ())
        self.names: dict[Member, str] = {}
        self.setters: dict[str, str] = {}

    def _pick(self, member: Member, wishes: list[str], sites: list[int] | None = None) -> None:
        given = self.sites.get(member, []) if sites is None else sites
        self.names[member] = self.scope.pick(wishes, given)

    def chosen(self) -> Naming:
        """All names."""
        component, wanted, scope = self.component, self.wanted, self.scope
        if wanted.lifted is not None:
            for binding in wanted.lifted.bindings or ():
                scope.taken.add(binding.local)
                self.names[Member("prop", binding.key)] = binding.local
            scope.taken.add(wanted.lifted.rest)
        for method in component.methods():
            self._pick(Member("method", method.name), _method_wishes(component, method))
        for derived in component.derived:
            self._pick(Member("derived", derived.name), [derived.name, f"{derived.name}Value"])
        self._state()
        self._inputs()
        if component.context is not None:
            self._pick(CONTEXT, ["context", "ownContext"])
        old = component.context is not None and component.context.kind == "old"
        if wanted.inputs == "none" and (component.outward.exposed or old):
            self._pick(PROPS, ["props", "inputs"], [])
        self._setters()
        self._fields()
        references = _references(wanted.latest, self.names, scope, self.through, apart=wanted.apart)
        read: dict[Member, str] = {}
        for name, members in references.items():
            for member in members:
                part = "" if len(members) == 1 else f".{self.names[member]}"
                read[member] = f"{name}.current{part}"
        removed = _still_removed(self.patterns, self.removed, self.names)
        previous = previous_names(component, scope)
        return Naming(self.names, self.setters, read, references, previous, frozenset(removed))

    def _state(self) -> None:
        if self.wanted.layout == "split":
            for name in state_names(self.component):
                self._pick(Member("state", name), [name, f"{name}State"])
        elif self.wanted.layout == "whole":
            wishes = [w for w in ("state", "ownState") if w not in _hidden(self.component)]
            self._pick(STATE, [*wishes, "heldState"])
            every = self.sites.get(STATE, []) + self.through.get(STATE, [])
            self.setters["*"] = self.scope.pick(["setState", "changeState"], every)

    def _inputs(self) -> None:
        component, props = self.component, self.component.inputs.props
        if self.wanted.inputs == "listed":
            for prop in sorted(props, key=lambda p: _prefers(p.name, self.patterns, self.removed)):
                plain = identifier(prop.name)
                self._pick(Member("prop", prop.name), [plain, f"{plain}Prop"])
            if component.view.markup:
                self._pick(OTHERS, ["rest", "others"], [])
        elif self.wanted.inputs == "whole":
            wishes = [w for w in ("props", "inputs") if w not in _hidden(component)]
            self._pick(PROPS, [*wishes, "ownInputs"])
            defaulted = [prop for prop in props if prop.default is not None]
            for prop in defaulted:
                plain = identifier(prop.name)
                self._pick(Member("prop", prop.name), [plain, f"{plain}Prop"], [])
            self._pick(OTHERS, ["others", "otherInputs"], [])
            if defaulted and component.moments("received"):
                self._pick(GIVEN, ["given", "givenInputs"], [])

    def _setters(self) -> None:
        for name in state_names(self.component) if self.wanted.layout == "split" else ():
            wish = f"set{capital(name)}"
            sites = self.sites.get(Member("state", f"{name}="), [])
            self.setters[name] = self.scope.pick([wish, f"{wish}State"], sites)

    def _fields(self) -> None:
        for field in self.component.fields:
            member = Member("element" if field.element else "field", field.name)
            own = self.sites.get(member, [])
            if field.name in self.effect_locals and self.scope.clear(field.name, own, strict=True):
                self.names[member] = field.name
                continue
            self.effect_locals.pop(field.name, None)
            self._pick(member, [field.name, f"{field.name}Ref"])


def _method_wishes(component: Component, method: Method) -> list[str]:
    """The names a method would like: its own, where no field that wraps it is called so."""
    if method.name.endswith("="):
        name = capital(method.name[:-1])
        return [f"change{name}", f"assign{name}"]
    verb = "get" if method.getter else "handle"
    wishes = [method.name, f"{verb}{capital(method.name)}", f"{method.name}Now"]
    wrapped = any(field.name == method.name for field in component.fields)
    return [wishes[2], wishes[1]] if wrapped else wishes


def _references(
    latest: set[Member],
    names: dict[Member, str],
    scope: Scope,
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
        wish = known or f"latest{capital(identifier(member.name))}"
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
