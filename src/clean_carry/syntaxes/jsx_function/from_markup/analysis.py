"""Facts about time: state that code reads before the next render, and functions that outlive their
render.

A function sees the inputs and the state of the rendering it was made in (the runtime's reference, "State
as a snapshot"). Where a write is to be seen at once, or a function outlives its rendering, the newest
value is kept beside what is rendered.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property

from clean_carry.component.code import (
    Assign,
    AssignEach,
    Changed,
    Code,
    Emit,
    FieldByName,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    Rebound,
    Taken,
)
from clean_carry.component.markup import Element as MarkupElement
from clean_carry.component.markup import (
    Handler,
    Markup,
    TwoWay,
    attribute_codes,
    children_of,
    codes_of,
)
from clean_carry.component.members import Derived, Followed, Method, Model, Reaction, Timed
from clean_carry.component.model import Component


@dataclass
class Unit:
    """One piece of code that runs by itself: a method, a watcher, a hook, a listener, a computed
    value."""

    name: str
    kind: str
    operations: tuple[Operation, ...]


@dataclass
class Analysis:
    """The times of one component. `live` is state that code reads before the next render, `late`
    are methods that outlive their render. `asked` are derived values computed anew by code, `lazy`
    those computed at their place in the markup."""

    component: Component
    live: set[str] = field(default_factory=set)
    late: set[str] = field(default_factory=set)
    asked: set[str] = field(default_factory=set)
    lazy: set[str] = field(default_factory=set)

    def __post_init__(self) -> None:
        self.units = list(_units(self.component))
        self.together = list(_together(self.component.view.markup))
        self.written = {name for unit in self.units for name in _written(unit.operations)}
        self.written |= {name for bound, _ in self.together for name in bound}
        models = {one.name for one in self.component.members if isinstance(one, Model)}
        self.written |= models
        self.live |= models
        self._find_late()
        self._find_live()
        self._find_asked()

    @cached_property
    def derived(self) -> dict[str, Derived]:
        """The derived values by name."""
        return {one.name: one for one in self.component.derived}

    def _methods(self) -> dict[str, Unit]:
        return {unit.name: unit for unit in self.units if unit.kind == "method"}

    def _find_late(self) -> None:
        """Methods that are called later, or passed to what calls them later, and all they call."""
        methods = self._methods()
        queue: list[str] = []
        for unit in self.units:
            ends = unit.kind in ("before removal", "removed")
            for operation in unit.operations:
                match operation:
                    case MethodCall(member=member) if operation.deferred or ends:
                        queue.append(member.name)
                    case MethodValue(member=member) | Rebound(member=member) if (
                        unit.kind != "handler"
                    ):
                        queue.append(member.name)
        while queue:
            name = queue.pop()
            if name in self.late or name not in methods:
                continue
            self.late.add(name)
            queue += [
                one.member.name for one in methods[name].operations if isinstance(one, MethodCall)
            ]

    def _find_live(self) -> None:
        called = {
            one.member.name
            for unit in self.units
            if unit.kind != "handler"
            for one in unit.operations
            if isinstance(one, MethodCall)
        }
        for unit in self.units:
            if unit.kind == "derived":
                continue
            plain = unit.kind in ("method", "handler") and unit.name not in called | self.late
            self._find_read_again(unit.operations, plain)
            for operation in unit.operations if not plain else ():
                if not isinstance(operation, Taken):
                    continue
                taken = [getattr(part, "member", None) for part, _, _ in operation.members]
                self.live |= {
                    m.name for m in taken if m is not None and m.kind == "state"
                } & self.written
        for bound, codes in self.together:
            # `v-model` writes the field before the other listeners of the event run.
            read = {name for code in codes for name in self._behind(code, frozenset())}
            self.live |= bound & read

    def _find_read_again(self, operations: tuple[Operation, ...], plain: bool) -> None:
        """Mark as live the state fields that code reads after writing them, directly or through methods."""
        seen: dict[str, int] = {}
        again = {one.member.name for one in operations if isinstance(one, Assign) and one.looped}
        for operation in operations:
            reads = self._state_of(operation)
            if isinstance(operation, MethodCall) and not operation.deferred and seen:
                reads = self._behind_call(operation.member.name)
            for name in reads:
                after = name in seen and operation.span.start >= seen[name]
                after = after or name in again
                if name in self.written and (not plain or operation.deferred or after):
                    self.live.add(name)
            for name in _written((operation,)):
                self._write(operation, name, name in seen or not plain)
                seen[name] = operation.span.end
            if not operation.deferred:
                seen |= dict.fromkeys(self._told(operation), operation.span.end)

    def told(self, operation: Operation) -> set[str]:
        """The state fields that an operation writes at once, itself or by what it calls."""
        own = set() if operation.deferred else set(_written((operation,)))
        return own | self._told(operation)

    def _told(self, operation: Operation) -> set[str]:
        """Return the state fields that a called method, or an assigned setter, writes synchronously."""
        match operation:
            case MethodCall(member=Member(name=name)):
                queue = [name]
            case Assign(member=Member(kind="derived", name=name)):
                queue = [f"{name}="]
            case _:
                return set()
        found: set[str] = set()
        methods, seen = self._methods(), set(queue)
        while queue:
            unit = methods.get(queue.pop())
            for one in unit.operations if unit is not None else ():
                if one.deferred:
                    continue
                found |= set(_written((one,)))
                if isinstance(one, MethodCall) and one.member.name not in seen:
                    seen.add(one.member.name)
                    queue.append(one.member.name)
        return found

    def _behind_call(self, name: str) -> set[str]:
        """Return the state fields that a method reads, directly or through the methods it calls."""
        method = next((one for one in self.component.methods() if one.name == name), None)
        return self._behind(method.text, frozenset({f"{name}()"})) if method is not None else set()

    def _write(self, operation: Operation, name: str, later: bool) -> None:
        """Mark a field as live if a write needs its value, or returns it."""
        if isinstance(operation, Changed | FieldByName | AssignEach):
            self.live.add(name)
        if isinstance(operation, Assign):
            again = _uses_own(operation) and (later or operation.deferred or operation.looped)
            if again or operation.used:
                self.live.add(name)

    def _state_of(self, operation: Operation) -> set[str]:
        """The fields of state an operation reads: itself, by a derived value, or by a method."""
        match operation:
            case Read(member=Member(kind="state", name=name)):
                return {name}
            case Read(member=Member(kind="derived", name=name)):
                return self.state_behind(name, frozenset())
        return set()

    def state_behind(self, name: str, seen: frozenset[str]) -> set[str]:
        """The fields of state a derived value is worked out from."""
        derived = self.derived.get(name)
        if derived is None or name in seen:
            return set()
        return self._behind(derived.text, seen | {name})

    def _behind(self, code: Code, seen: frozenset[str]) -> set[str]:
        found: set[str] = set()
        methods = {m.name: m for m in self.component.methods()}
        for one in code.all():
            if isinstance(one, Read) and one.member.kind == "state":
                found.add(one.member.name)
            elif isinstance(one, Read) and one.member.kind == "derived":
                found |= self.state_behind(one.member.name, seen)
            elif isinstance(one, MethodCall | MethodValue) and f"{one.member.name}()" not in seen:
                method = methods.get(one.member.name)
                if method is not None:
                    found |= self._behind(method.text, seen | {f"{one.member.name}()"})
        return found

    def dependencies(self, code: Code, deferred: bool = True) -> list[Member]:
        """The inputs, the state and the derived values a piece of code reads, methods it calls included;
        what runs later too, if `deferred`."""
        found: dict[Member, None] = {}
        methods = {m.name: m for m in self.component.methods()}
        seen: set[str] = set()
        queue = [code]
        while queue:
            for one in queue.pop().all():
                if one.deferred and not deferred:
                    continue
                if isinstance(one, Read):
                    found.setdefault(one.member)
                elif isinstance(one, MethodCall | MethodValue) and one.member.name not in seen:
                    seen.add(one.member.name)
                    if one.member.name in methods:
                        queue.append(methods[one.member.name].text)
        return list(found)

    def _find_asked(self) -> None:
        """Find derived values that code reads while the rendered ones may be stale."""
        for unit in self.units:
            for operation in unit.operations:
                if not isinstance(operation, Read) or operation.member.kind != "derived":
                    continue
                name = operation.member.name
                if unit.kind == "derived":
                    continue
                old = operation.deferred or unit.name in self.late or unit.kind == "displayed"
                behind = self.state_behind(name, frozenset())
                if old or behind & self.live:
                    self.asked.add(name)
                    self.live |= behind & self.written
        queue = list(self.asked)
        while queue:
            derived = self.derived.get(queue.pop())
            for one in derived.text.all() if derived is not None else ():
                if isinstance(one, Read) and one.member.kind == "derived":
                    if one.member.name not in self.asked:
                        self.asked.add(one.member.name)
                        queue.append(one.member.name)

    @cached_property
    def stable(self) -> set[str]:
        """Return methods that must keep their identity: one piece of code passes them on, and
        another one, of a later render perhaps, takes them back."""
        places: dict[str, set[str]] = {}
        for unit in self.units:
            for one in unit.operations if unit.kind != "handler" else ():
                if isinstance(one, MethodValue | Rebound):
                    once = unit.kind in ("displayed", "made", "before removal", "removed")
                    key = "once" if once else f"{unit.kind} {unit.name}"
                    places.setdefault(one.member.name, set()).add(key)
        return {name for name, where in places.items() if len(where) > 1}

    def methods_drawn(self) -> set[str]:
        """Return methods that render code calls, itself or through derived values and other methods."""
        found: set[str] = set()
        methods = {m.name: m.text for m in self.component.methods()}
        queue = list(_drawn_codes(self.component.view.markup))
        queue += [one.text for one in self.component.derived]
        while queue:
            for one in queue.pop().all():
                if isinstance(one, MethodCall | MethodValue) and one.member.name not in found:
                    found.add(one.member.name)
                    if one.member.name in methods:
                        queue.append(methods[one.member.name])
        return found


def _units(component: Component) -> Iterator[Unit]:
    for member in component.members:
        match member:
            case Method(name=name, text=text):
                yield Unit(name, "method", tuple(text.all()))
            case Reaction(handler=handler, source=source):
                code = handler.text if handler is not None and handler.text is not None else None
                operations = tuple(code.all()) if code is not None else ()
                if handler is not None and handler.method:
                    operations = (
                        MethodCall(member.body.span, -1, False, Member("method", handler.method)),
                    )
                yield Unit(source.name, "watcher", operations)
            case Timed(when=when, callback=callback) if callback.text is not None:
                yield Unit(member.hook, when, tuple(callback.text.all()))
            case Followed(text=text):
                yield Unit("", "effect", tuple(text.all()))
            case Derived(name=name, text=text, setter=setter):
                yield Unit(name, "derived", tuple(text.all()))
                if setter is not None and setter.text is not None:
                    yield Unit(f"{name}=", "method", tuple(setter.text.all()))
    yield from (Unit("", "handler", tuple(code.all())) for code in _handlers(component.view.markup))


def _handlers(nodes: tuple[Markup, ...]) -> Iterator[Code]:
    """The code of listeners and of what is bound both ways."""
    for node in nodes:
        if isinstance(node, MarkupElement):
            for attribute in node.attributes:
                whole = isinstance(attribute, TwoWay) and _is_whole(attribute.code)
                if isinstance(attribute, Handler | TwoWay) and not whole:
                    yield attribute.code
        yield from _handlers(children_of(node))


def _together(nodes: tuple[Markup, ...]) -> Iterator[tuple[set[str], list[Code]]]:
    """Yield per element: the fields its `v-model` or an earlier listener writes, its listeners' code."""
    for node in nodes:
        if isinstance(node, MarkupElement):
            bound = [one for one in node.attributes if isinstance(one, TwoWay)]
            heard = [one for one in node.attributes if isinstance(one, Handler)]
            events = [one.event for one in heard]
            first = [one.code for one in heard if events.count(one.event) > 1]
            written = {name for one in bound for name in _fields_of(one)}
            written |= {name for code in first for name in _written(tuple(code.all()))}
            if written:
                yield written, [one.code for one in heard]
        yield from _together(children_of(node))


def _fields_of(bound: TwoWay) -> set[str]:
    """Return the state fields that a two-way binding writes."""
    reads = [one for one in bound.code.operations if isinstance(one, Read)]
    return {one.member.name for one in reads if one.member.kind == "state"} | set(bound.changes)


def _is_whole(code: Code) -> bool:
    """Whether code is one member: what is bound to it is given to it, and not asked of it."""
    first = code.operations[0] if len(code.operations) == 1 else None
    return isinstance(first, Read) and first.span == code.span


def _drawn_codes(nodes: tuple[Markup, ...]) -> Iterator[Code]:
    """Yield the code that runs while markup renders."""
    for node in nodes:
        if isinstance(node, MarkupElement):
            for attribute in node.attributes:
                if not isinstance(attribute, Handler):
                    yield from attribute_codes(attribute)
            yield from _drawn_codes(node.children)
            continue
        inner = {id(code) for child in children_of(node) for code in codes_of(child)}
        yield from (code for code in codes_of(node) if id(code) not in inner)
        yield from _drawn_codes(children_of(node))


def _written(operations: tuple[Operation, ...]) -> Iterator[str]:
    """The fields of state that operations write."""
    for one in operations:
        match one:
            case Assign(member=member):
                yield member.name
            case AssignEach(fields=fields):
                yield from (member.name for member, _ in fields)
            case FieldByName(names=names):
                yield from names
            case Changed(name=name):
                yield name


def _uses_own(operation: Operation) -> bool:
    return isinstance(operation, Assign) and operation.operator != "="


def sends(component: Component) -> list[str]:
    """The events a component sends, declared or not, each once."""
    found = dict.fromkeys(component.outward.events)
    for _, one in component.operations():
        if isinstance(one, Emit):
            found.setdefault(one.event)
    return list(found)
