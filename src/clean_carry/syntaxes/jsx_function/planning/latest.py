"""Which members code must see the latest value of, though it was made in an earlier render."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Member, Operation, PatternRead, Read, WholeRead
from clean_carry.component.model import Component
from clean_carry.syntaxes.jsx_function.planning.plan import (
    PROPS,
    STATE,
    WHOLES,
    InputsForm,
    Layout,
)
from clean_carry.syntaxes.jsx_function.planning.sites import written_by


def latest_of(
    component: Component, later: frozenset[int], layout: Layout, inputs: InputsForm
) -> set[Member]:
    """The members some operation must see the latest value of."""
    written = {name for _, one in component.operations() for name in written_by(one)}
    found: set[Member] = set()
    for _, operation in component.operations():
        if operation.entry not in later:
            continue
        for member in _seen(operation):
            if member.name == "*":
                found.add(member)
            elif member.kind == "prop":
                found.add(PROPS if inputs == "whole" else member)
            elif layout == "whole":
                found.add(STATE)
            elif member.name in written:
                found.add(member)
    return found


def _seen(operation: Operation) -> Iterator[Member]:
    """The inputs and fields of state an operation reads, or all of them."""
    match operation:
        case Read(member=Member(kind="prop" | "state")):
            yield operation.member
        case WholeRead():
            yield WHOLES[operation.source]
        case PatternRead(bindings=bindings) if bindings is None or operation.rest:
            yield PROPS if operation.source == "props" else STATE
        case PatternRead():
            for binding in operation.bindings or ():
                props = operation.source == "props"
                yield Member("prop" if props else "state", binding.key)
