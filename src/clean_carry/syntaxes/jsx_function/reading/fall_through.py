"""A root that takes all that is no input, its classes joined with the component's own.

`<article {...others} className={['berth', className].filter(Boolean).join(' ')}>` says what the root of a
template does by itself.
"""

from __future__ import annotations

import re
from dataclasses import replace

from clean_carry.component.code import Operation, Respelled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Element,
    Group,
    Markup,
    Spread,
    StaticAttribute,
    inputs_handed_on,
)
from clean_carry.component.model import Component
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts

_RULE = "falls-through"
_JOINED = re.compile(r",\s*className,?\s*\]\.filter\(Boolean\)\.join\((?:' '|\" \")\)$")


def with_fall_through(component: Component, facts: FunctionFacts) -> Component:
    """The component whose root takes what falls through, where its markup says so and nothing else does."""
    root = _root(component.view.markup)
    if root is None or root.component:
        return component
    handed = [one for one in root.attributes if inputs_handed_on(one) is not None]
    classes = [one for one in root.attributes if getattr(one, "name", "") == "class"]
    if len(handed) != 1 or len(classes) != 1 or not isinstance(classes[0], BoundAttribute):
        return component
    rest, own = inputs_handed_on(handed[0]), _own_classes(classes[0], facts)
    elsewhere = [
        op
        for _, op in component.operations()
        if getattr(op, "member", None) is not None
        and getattr(op, "member", None) == ("prop", "className")
    ]
    if rest is None or own is None or "className" not in rest.named or len(elsewhere) != 1:
        return component
    if root.attributes.index(handed[0]) > root.attributes.index(classes[0]):
        return component
    spread = handed[0]
    assert isinstance(spread, Spread)
    for entry in (spread.entry, rest.entry):
        facts.ledger.settle(entry, "carried", _RULE)
    attributes: list[Attribute] = []
    for one in root.attributes:
        if one is classes[0]:
            attributes += own
        elif one is not spread:
            attributes.append(one)
    made = replace(root, attributes=tuple(attributes))
    markup = _replaced(component.view.markup, root, made)
    props = tuple(prop for prop in component.inputs.props if prop.name != "className")
    return replace(
        component,
        view=replace(component.view, markup=markup, falls_through=True),
        inputs=replace(component.inputs, props=props),
    )


def _root(markup: tuple[Markup, ...]) -> Element | None:
    while len(markup) == 1 and isinstance(markup[0], Group):
        markup = markup[0].children
    return markup[0] if len(markup) == 1 and isinstance(markup[0], Element) else None


def _replaced(markup: tuple[Markup, ...], old: Element, new: Element) -> tuple[Markup, ...]:
    return tuple(
        new
        if one is old
        else replace(one, children=_replaced(one.children, old, new))
        if isinstance(one, Group)
        else one
        for one in markup
    )


def _own_classes(attribute: BoundAttribute, facts: FunctionFacts) -> list[Attribute] | None:
    """The classes of the component's own; None where the attribute says something else."""
    code, source = attribute.code, facts.tree.source
    text = source.slice(*code.span[:2])
    last = code.operations[-1] if code.operations else None
    if last is None or getattr(last, "member", None) != ("prop", "className"):
        return None
    if text == "className":
        for entry in (attribute.entry, last.entry):
            facts.ledger.settle(entry, "carried", _RULE)
        _drop_code(facts, code.span.start, code.span.end)
        return []
    found = _JOINED.search(text)
    if found is None or not text.startswith("["):
        return None
    start = code.span.start + len(text[: found.start()].encode())
    plain = re.fullmatch(r"\[(['\"])([\w -]+)\1", text[: found.start()])
    if plain is not None:
        value = source.span(code.span.start + 2, start - 1)
        facts.ledger.settle(last.entry, "carried", _RULE)
        _drop_code(facts, code.span.start, code.span.end)
        facts.ledger.claim("text", value, "kept")
        return [StaticAttribute("class", value, attribute.entry)]
    span = source.span(start, code.span.end)
    facts.ledger.settle(last.entry, "carried", _RULE)
    entry = facts.ledger.claim("classes", span)
    ending: Operation = Respelled(span, entry, False, "]", _RULE)
    kept = tuple(one for one in code.operations if one.span.end <= start)
    return [replace(attribute, code=replace(code, operations=(*kept, ending)))]


def _drop_code(facts: FunctionFacts, start: int, end: int) -> None:
    """Code that is written as an attribute's text, or not at all."""
    for entry in facts.ledger.entries:
        if entry.notion == "code" and (entry.span.start, entry.span.end) == (start, end):
            entry.outcome, entry.rule = "carried", _RULE
