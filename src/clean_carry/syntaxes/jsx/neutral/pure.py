"""Components that re-render for new props alone."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Code, Read
from clean_carry.component.markup import codes_of
from clean_carry.component.members import Derived
from clean_carry.component.model import Component


def called_while_drawn(component: Component) -> Iterator[tuple[str, str, int]]:
    """Yield a note for each prop that render code calls: values it reads re-render the target."""
    codes: list[Code] = [code for node in component.view.markup for code in codes_of(node)]
    codes += [one.text for one in component.members if isinstance(one, Derived)]
    for code in codes:
        for operation in code.all():
            if isinstance(operation, Read) and operation.called and operation.member.kind == "prop":
                yield "pure-called", operation.member.name, operation.span.start
