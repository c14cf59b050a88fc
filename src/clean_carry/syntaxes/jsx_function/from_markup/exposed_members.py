"""Members that a parent can read from a function through a ref, where an instance offered
everything."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Filtered, MethodCall, MethodValue
from clean_carry.component.model import Component


def with_reached(component: Component) -> Component:
    """A component that gives out the methods nothing inside uses: they are there for who holds it."""
    if component.outward.exposed:
        return component
    used = {
        operation.member.name
        for _, operation in component.operations()
        if isinstance(operation, MethodCall | MethodValue)
    }
    used |= {one.name for _, one in component.operations() if isinstance(one, Filtered)}
    names = (one.name for one in component.methods() if not one.getter)
    reached = tuple(name for name in names if name not in used and not name.startswith(("_", "$")))
    return replace(component, outward=replace(component.outward, exposed=reached))
