"""Which operations must see the latest value, and which methods must stay one function.

A closure of a function component sees the values of the render that made it. Code that runs later (in a
timer, after waiting, in the clean-up of an effect that was made once) must look through a reference.
That spreads through the methods that call each other.
"""

from __future__ import annotations

from clean_carry.component.code import (
    Code,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    PatternRead,
    Read,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment


def stable_methods(component: Component, merged: bool) -> frozenset[str]:
    """Methods whose identity somebody may compare."""
    kept: dict[str, list[object]] = {}
    found: set[str] = set()
    for owner, operation in component.operations():
        if not isinstance(operation, MethodValue) or operation.bound is not None:
            continue
        name = operation.member.name
        match operation.place:
            case "reference":
                found.add(name)
            case "component" if operation.receiver in component.facts.sensitive:
                found.add(name)
            case "component" if not operation.receiver:
                found.add(name)
            case "kept":
                kept.setdefault(name, []).append(owner)
    for name, owners in kept.items():
        once = [o for o in owners if isinstance(o, Moment) and o.when in ("displayed", "removed")]
        initial = [o for o in owners if not isinstance(o, Method | Moment | str)]
        if len(once) + len(initial) == len(owners) and (merged or len(owners) == 1):
            continue
        found.add(name)
    return frozenset(found)


def later_methods(
    component: Component, stable: frozenset[str], entered: tuple[str, ...] = ()
) -> frozenset[str]:
    """Return methods that a closure of an earlier render may call.

    `entered` are methods entered where writes are not batched: the component may be rendered meanwhile.
    """
    later = set(stable) | set(entered)
    uses: dict[str, set[str]] = {}
    for owner, operation in component.operations():
        if not isinstance(operation, MethodCall | MethodValue):
            continue
        name = operation.member.name
        if isinstance(owner, Method):
            uses.setdefault(owner.name, set()).add(name)
        if operation.deferred or (isinstance(owner, Moment) and owner.when == "removed"):
            later.add(name)
        if isinstance(operation, MethodValue) and operation.place in ("timer", "kept", "reference"):
            later.add(name)
    queue = list(later)
    while queue:
        for name in uses.get(queue.pop(), ()):
            if name not in later:
                later.add(name)
                queue.append(name)
    return frozenset(later)


def later_entries(component: Component, later: frozenset[str]) -> frozenset[int]:
    """Return the entries of operations that run after the render of their closure."""
    found: set[int] = set()
    for owner, operation in component.operations():
        if operation.deferred or _owner_later(owner, later):
            found.add(operation.entry)
    return frozenset(found)


def _owner_later(owner: object, later: frozenset[str]) -> bool:
    if isinstance(owner, Method):
        return owner.name in later
    return isinstance(owner, Moment) and owner.when == "removed"


def drawn_by(component: Component) -> set[str]:
    """Return methods that render code calls, directly or through others."""
    calls: dict[str, set[str]] = {}
    drawn: set[str] = set()
    for owner, operation in component.operations():
        if isinstance(operation, MethodCall) or (
            isinstance(operation, MethodValue) and operation.place == "called back"
        ):
            name = operation.member.name
            handled = isinstance(operation, MethodCall) and operation.handled
            if owner == "drawing" and not operation.deferred and not handled:
                drawn.add(name)
            elif isinstance(owner, Method):
                calls.setdefault(owner.name, set()).add(name)
    queue = list(drawn)
    while queue:
        for name in calls.get(queue.pop(), ()):
            if name not in drawn:
                drawn.add(name)
                queue.append(name)
    return drawn


def calls_inputs(component: Component, code: Code, seen: frozenset[str] = frozenset()) -> bool:
    """Whether code calls a function given as an input at once, itself or through own methods."""
    methods = {method.name: method for method in component.methods()}
    for operation in code.all():
        if operation.deferred:
            continue
        match operation:
            case Read(member=Member(kind="prop"), called=True, handled=False):
                return True
            case PatternRead(source="props", bindings=bindings):
                if bindings is None or any(binding.called for binding in bindings):
                    return True
            case MethodCall(member=member, handled=False) if member.name not in seen:
                method = methods.get(member.name)
                if method is None or method.asynchronous:
                    continue
                if calls_inputs(component, method.text, seen | {member.name}):
                    return True
    return False


def member_of(operation: Operation) -> Member | None:
    """The member an operation is about."""
    member = getattr(operation, "member", None)
    return member if isinstance(member, Member) else None
