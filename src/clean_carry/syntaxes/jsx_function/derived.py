"""Derived values and reactions: what is computed, and adjusted, while drawing."""

from __future__ import annotations

from typing import TYPE_CHECKING

from clean_carry.component.code import Member
from clean_carry.component.fragment import Fragment, copy, new, settled
from clean_carry.component.members import Derived, Reaction
from clean_carry.syntaxes.jsx_function.operations import Speller, releveled, renamed
from clean_carry.syntaxes.jsx_function.planning.plan import Plan, Refused

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style


def derived_line(plan: Plan, speller: Speller, style: Style, part: Derived, inner: str) -> Fragment:
    """`const left = …;`: computed anew in every draw. Raises `Refused` for a body of statements."""
    if part.returned is None:
        raise Refused("derived-in-steps", part.name, part.text.span.start)
    above = Fragment()
    for note in part.comments:
        above += copy(note) + new(f"\n{inner}")
    rule = "derived-to-constant"
    head = new(f"const {plan.names[Member('derived', part.name)]} = ", part.entry, rule)
    settle = settled(part.text_entry, rule)
    value = releveled(speller, part.returned, inner)
    return above + settle + head + value + new(style.semicolon)


def reaction_block(
    plan: Plan, speller: Speller, style: Style, part: Reaction, inner: str
) -> Fragment:
    """State adjusted while drawing, which is before the page is painted, as the reaction was."""
    if part.runs_code:
        raise Refused("reaction-with-effects", part.source.name, part.text.span.start)
    now = (
        speller.value_text(part.source, False)
        if part.source.kind != "derived"
        else (plan.names[part.source])
    )
    previous, setter = plan.previous[part.source.name], plan.previous[f"{part.source.name}="]
    semi, unit = style.semicolon, style.unit
    known = {p.name: p.kind for p in plan.component.inputs.props}.get(part.source.name, "")
    changed = f"!Object.is({now}, {previous})"
    if part.source.kind == "prop" and known in ("String", "Boolean"):
        changed = f"{now} !== {previous}"
    above = Fragment()
    for note in part.comments:
        above += copy(note) + new(f"\n{inner}")
    head = f"const [{previous}, {setter}] = {style.hook('useState')}({now}){semi}\n{inner}"
    head += f"if ({changed}) {{\n{inner}{unit}{setter}({now}){semi}"
    rule = "reaction-to-adjusting"
    result = above + new(head, part.entry, rule) + settled(part.text_entry, rule)
    names = [(span, now) for span, _ in part.now] + [(span, previous) for span, _ in part.before]
    for _, entry in (*part.now, *part.before):
        result += settled(entry, rule)
    body = renamed(speller, part.body, names)
    here = speller.source.indent_at(part.text.span.start)
    levels = (len(inner) - len(here)) // max(1, len(unit))
    return result + body.shifted(levels) + new("}")
