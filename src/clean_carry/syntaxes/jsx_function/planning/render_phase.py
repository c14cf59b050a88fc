"""Requirements of code that runs during a function's render.

In a class such code runs before a render: for new props, and before each update. There `this.props` and
`this.state` are still the previous ones.
"""

from __future__ import annotations

from clean_carry.component.code import (
    FieldUse,
    MethodCall,
    MethodValue,
    Operation,
    PatternRead,
    Read,
    StateWrite,
    WholeRead,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.syntaxes.jsx_function.planning.plan import Refused


def reads_inputs(operation: object) -> bool:
    """Whether an operation reads inputs."""
    if isinstance(operation, Read):
        return operation.member.kind == "prop"
    return isinstance(operation, WholeRead | PatternRead) and operation.source == "props"


def reads_state(operation: object) -> bool:
    """Whether an operation reads state."""
    if isinstance(operation, Read):
        return operation.member.kind == "state"
    return isinstance(operation, WholeRead | PatternRead) and operation.source == "state"


def reads_before(component: Component, later: frozenset[int]) -> bool:
    """Whether code that runs when new inputs came reads those before."""
    return any(
        operation.entry not in later and reads_inputs(operation)
        for moment in component.moments("received")
        for operation in moment.body.all()
    )


def receiving(component: Component) -> tuple[str, ...]:
    """Methods that what runs when new inputs came calls and that read inputs: they see those before.

    Raises `Refused` where that code reads the context, which is the new one in a function.
    """
    found: list[str] = []
    for moment in component.moments("received"):
        for name, operation in run(component, moment):
            if isinstance(operation, WholeRead) and operation.source == "context":
                raise Refused("legacy-hook", "it reads the context", operation.span.start)
            if name and reads_inputs(operation) and not operation.deferred and name not in found:
                found.append(name)
    return tuple(found)


def check_updating(component: Component) -> None:
    """Check that code before an update reads earlier props and state itself, and writes no state.

    Raises `Refused` where a method it calls does that, or it reads the context, which is the new one.
    """
    for moment in component.moments("updating"):
        for name, operation in run(component, moment):
            if operation.deferred:
                continue
            at = operation.span.start
            if isinstance(operation, WholeRead) and operation.source == "context":
                raise Refused("legacy-hook", "it reads the context", at)
            if isinstance(operation, StateWrite):
                raise Refused("legacy-hook", "it writes state", at)
            if name and (reads_inputs(operation) or reads_state(operation)):
                raise Refused("legacy-hook", f"it calls {name}, which reads what was before", at)


def updating_parts(component: Component) -> tuple[str, ...]:
    """Return the values that code before an update compares: `props`, `state` or both."""
    found: list[str] = []
    for moment in component.moments("updating"):
        operations = [o for o in moment.body.all() if not o.deferred]
        if moment.previous_props is not None or any(map(reads_inputs, operations)):
            found.append("props")
        if moment.previous_state is not None or any(map(reads_state, operations)):
            found.append("state")
    return tuple(found)


def hands_inputs_on(component: Component, moment: Moment) -> bool:
    """Whether a hook that reads props calls methods that use fields, which may reject their
    arguments.

    Not those the class itself gives a value as it is made: what others give them later is an element,
    or something foreign.
    """
    own = {field.name for field in component.fields if field.code is not None}
    found = [
        (name, operation) for name, operation in run(component, moment) if not operation.deferred
    ]
    reads = any(reads_inputs(operation) for _, operation in found)
    return reads and any(
        name and isinstance(operation, FieldUse) and operation.member.name not in own
        for name, operation in found
    )


def run(component: Component, moment: Moment) -> list[tuple[str, Operation]]:
    """Yield the operations of a hook and of the methods it calls at once, each with the method's
    name."""
    methods = {method.name: method for method in component.methods()}
    found: list[tuple[str, Operation]] = []
    queue: list[tuple[str, Moment | Method]] = [("", moment)]
    seen: set[str] = set()
    while queue:
        name, here = queue.pop()
        text = here.body if isinstance(here, Moment) else here.text
        for operation in text.all():
            found.append((name, operation))
            called = isinstance(operation, MethodCall) or (
                isinstance(operation, MethodValue) and operation.place == "called back"
            )
            if not called or operation.deferred:
                continue
            other = operation.member.name  # type: ignore[attr-defined]
            if other in methods and other not in seen:
                seen.add(other)
                queue.append((other, methods[other]))
    return found
