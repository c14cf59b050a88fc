"""Methods that initial values name, and what must be declared before those."""

from __future__ import annotations

from clean_carry.component.code import (
    FieldUse,
    MethodCall,
    MethodValue,
    Operation,
    WholeRead,
)
from clean_carry.component.members import Method, State, StateField
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.plan import Refused
from clean_carry.syntaxes.jsx_function.planning.render_phase import reads_inputs, reads_state


def early_methods(
    component: Component, stable: frozenset[str], later: frozenset[int]
) -> tuple[frozenset[str], frozenset[str], bool]:
    """Methods that initial values name and that are constants: they must stand before them. Those the
    state names, those only fields do, and whether what holds the latest inputs must stand first as well.

    A called function may use nothing that is declared behind it. Raises `Refused` where it does.
    """
    methods = {method.name: method for method in component.methods()}
    found: dict[bool, set[str]] = {True: set(), False: set()}
    inputs_first = False
    made = component.state is not None and component.state.body
    queue: list[tuple[str, bool, bool, int]] = [
        (
            operation.member.name,
            isinstance(owner, State | StateField),
            _is_called(operation),
            operation.span.start,
        )
        for owner, operation in component.operations()
        if not isinstance(owner, Method | Moment | str)
        and isinstance(operation, MethodCall | MethodValue)
        and not operation.deferred
    ]
    seen: set[tuple[str, bool, bool]] = set()
    while queue:
        name, for_state, called, at = queue.pop()
        method = methods.get(name)
        if (name, for_state, called) in seen or method is None:
            continue
        seen.add((name, for_state, called))
        if method.form == "assigned" or name in stable:
            # Where statements make the state they may fill fields, which stand before it then.
            found[for_state or made].add(name)
        if not called:
            continue
        for operation in method.text.all():
            if _not_there_yet(operation, for_state=for_state, made=made):
                raise Refused("initial-needs-method", name, at)
            if operation.entry in later and reads_inputs(operation):
                inputs_first = True
            elif operation.entry in later and isinstance(operation, WholeRead):
                raise Refused("initial-needs-method", name, at)
            if isinstance(operation, MethodCall | MethodValue):
                runs = not operation.deferred and _is_called(operation)
                queue.append((operation.member.name, for_state, runs, at))
    return frozenset(found[True]), frozenset(found[False] - found[True]), inputs_first


def _is_called(operation: MethodCall | MethodValue) -> bool:
    """Whether a method is called where it is named, or may be."""
    if isinstance(operation, MethodCall):
        return True
    return operation.handed or operation.place == "called back"


def _not_there_yet(operation: Operation, *, for_state: bool, made: bool) -> bool:
    """Whether a method called for an initial value uses what is declared only after it.

    State stands before fields, but behind them where statements make it.
    """
    if operation.deferred:
        return False
    if reads_state(operation):
        return for_state or made
    return isinstance(operation, FieldUse) and not (for_state and made)
