"""Moments that run while the function draws: before the first draw, and when new inputs came."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from clean_carry.component.fragment import Fragment, copy, dropped, new, settled
from clean_carry.component.model import Moment
from clean_carry.component.plan import GIVEN, PROPS, Plan
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.operations import Speller

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style


def drawn_moment(
    plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str
) -> Fragment:
    """The block of a moment that runs while drawing."""
    span = moment.body.span
    if not speller.source.data[span.start : span.end].strip():
        return dropped(moment.entry, "empty-hook") + copy(span)
    if moment.when == "starting":
        return _starting(plan, speller, style, moment, inner)
    return _received(plan, speller, style, moment, inner)


def _starting(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    flag, semi, deep = plan.previous["started"], style.semicolon, inner + style.unit
    result = new(f"const {flag} = {style.hook('useRef')}(false){semi}\n{inner}")
    result += new(
        f"if (!{flag}.current) {{\n{deep}{flag}.current = true{semi}", moment.entry, "start-to-draw"
    )
    return result + _body(speller, style, moment, deep) + new("}")


def _received(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    # State, not a reference: a draw that fails is tried again, and then must see them come again.
    semi, deep = style.semicolon, inner + style.unit
    received, before, now = plan.previous["received"], plan.previous["before"], plan.names[PROPS]
    given = plan.names.get(GIVEN)
    kept = f"{{ {given}, {now} }}" if given else now
    seen, held = (f"{received}.{given}", f"{received}.{now}") if given else (received, received)
    setter = plan.previous["received="]
    result = new(f"const [{received}, {setter}] = {style.hook('useState')}({kept}){semi}\n{inner}")
    result += new(f"if ({seen} !== {given or now}) {{", moment.entry, "receipt-to-draw")
    if not given:
        before = received
    elif plan.reads_before:
        result += new(f"\n{deep}const {before} = {held}{semi}")
    result += new(f"\n{deep}{setter}({kept}){semi}")
    speller = replace(speller, inputs_from=before)
    next_props = moment.previous_props
    if next_props is not None:
        renamed = is_identifier(next_props.parameter)
        if renamed:
            speller = replace(speller, renames=tuple((span, now) for span, _ in next_props.uses))
        for _, entry in next_props.uses:
            result += settled(entry, *(("receipt-to-draw", "carried") if renamed else ("", "kept")))
        if not renamed:
            result += new(f"\n{deep}const {next_props.parameter} = {now}{semi}")
    return result + _body(speller, style, moment, deep) + new("}")


def _body(speller: Speller, style: Style, moment: Moment, deep: str) -> Fragment:
    """The body; one that may return is a function called at once."""
    body = speller.code(moment.body)
    if moment.reaches_end:
        return body
    return (
        new(f"\n{deep}(() => {{")
        + body.shifted(1)
        + new(f"}})(){style.semicolon}\n{deep[: -len(style.unit)]}")
    )
