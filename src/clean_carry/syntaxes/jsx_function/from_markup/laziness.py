"""Values that a template works out only where it draws them, and a function at every draw."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.component.code import Code, Read
from clean_carry.component.markup import (
    Condition,
    Content,
    Element,
    Group,
    Loop,
    Markup,
    SlotOutlet,
    attribute_codes,
    children_of,
    codes_of,
)
from clean_carry.component.model import Component
from clean_carry.source.text import SourceText

# A part of a member is asked for: that fails where the member is nothing.
_ASKS_PART = re.compile(r"this\.\w+\s*[.\[]")


def worked_out_always(component: Component, source: SourceText) -> Iterator[tuple[str, str, int]]:
    """A note for each derived value that may fail and that drawing does not always ask for."""
    always = {name for code in _always(component.view.markup) for name in _derived(code)}
    derived = {one.name: one for one in component.derived}
    queue = list(always)
    while queue:
        one = derived.get(queue.pop())
        more = set(_derived(one.text)) - always if one is not None else set()
        always |= more
        queue += more
    for name, one in derived.items():
        text = source.slice(one.text.span.start, one.text.span.end)
        if name not in always and _ASKS_PART.search(text):
            yield "worked-out-always", name, one.text.span.start


def _always(nodes: tuple[Markup, ...]) -> Iterator[Code]:
    """The code that every drawing runs."""
    for node in nodes:
        match node:
            case Condition(branches=branches):
                if branches[0].test is not None:
                    yield branches[0].test
            case Loop(items=items):
                yield items
            case SlotOutlet() | Content():
                continue
            case Element(attributes=attributes, chosen=chosen):
                for attribute in attributes:
                    yield from attribute_codes(attribute)
                if chosen is not None:
                    yield chosen
                if not node.component:
                    yield from _always(node.children)
            case Group():
                yield from _always(children_of(node))
            case _:
                yield from codes_of(node)


def _derived(code: Code) -> Iterator[str]:
    for operation in code.all():
        if isinstance(operation, Read) and operation.member.kind == "derived":
            yield operation.member.name
