"""Values that a template computes only where it shows them, and a function on every render."""

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
    walk,
)
from clean_carry.component.members import Derived, Followed
from clean_carry.component.model import Component
from clean_carry.source.text import SourceText

# A read of a member's part fails where the member is null or undefined.
_ASKS_PART = re.compile(r"this\.\w+\s*[.\[]")


def worked_out_always(
    component: Component, source: SourceText, lazy: set[str]
) -> Iterator[tuple[str, str, int]]:
    """Yield a note for each derived value that may throw and is not always shown, but those that
    are `lazy`."""
    for one in _may_fail(component, source):
        if one.name not in lazy:
            yield "worked-out-always", one.name, one.text.span.start


def lazy_values(component: Component, source: SourceText, asked: set[str]) -> set[str]:
    """Return the derived values to compute at their place in the markup, because computing them at the
    top of the function may throw.

    A derived value keeps its constant if a loop in the markup reads it (it would be computed once a row),
    if code outside the markup reads it (`asked`), or if a watcher or an effect depends on it.
    """
    watched = {one.source.name for one in component.reactions if one.source.kind == "derived"}
    effects = [one.text for one in component.members if isinstance(one, Followed)]
    watched |= {name for code in effects for name in _derived(code)}
    derived = {one.name: one for one in component.derived}
    kept = asked | watched | set(component.outward.exposed)
    kept |= _needed(watched, derived)
    loops = (node for node in walk(component.view.markup) if isinstance(node, Loop))
    kept |= {name for loop in loops for code in codes_of(loop) for name in _derived(code)}
    return {
        one.name
        for one in _may_fail(component, source)
        if one.name not in kept and one.setter is None and one.getter is not None
    }


def _may_fail(component: Component, source: SourceText) -> Iterator[Derived]:
    """Yield derived values that read a part of a member and are not always shown."""
    derived = {one.name: one for one in component.derived}
    always = {name for code in _always(component.view.markup) for name in _derived(code)}
    always |= _needed(always, derived)
    for name, one in derived.items():
        text = source.slice(one.text.span.start, one.text.span.end)
        if name not in always and _ASKS_PART.search(text):
            yield one


def _needed(names: set[str], derived: dict[str, Derived]) -> set[str]:
    """The derived values that some are worked out from, however far back."""
    found: set[str] = set()
    queue = list(names)
    while queue:
        one = derived.get(queue.pop())
        more = set(_derived(one.text)) - found if one is not None else set()
        found |= more
        queue += more
    return found


def _always(nodes: tuple[Markup, ...]) -> Iterator[Code]:
    """Yield the code that every render runs."""
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
