"""Hooks that run while the function renders: before the first render, for new props, before an
update.

All but the last write state. Each of these asks a state of its own whether its time has come, and writes
it: so the function is called again at once, and what it would render with the state of before is never
rendered, nor even made. A state, not a reference: a render that fails is tried again, and then must see the
same.
"""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from clean_carry.component.code import Member, StateWrite
from clean_carry.component.fragment import Fragment, copy, dropped, joined, new, settled
from clean_carry.component.moments import Asked, Moment
from clean_carry.component.spans import Span
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.effects import has_code, without_end
from clean_carry.syntaxes.jsx_function.operations import Speller, releveled, set_calls
from clean_carry.syntaxes.jsx_function.planning.plan import GIVEN, PROPS, WHOLES, Plan

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style


def drawn_lines(plan: Plan, speller: Speller, style: Style) -> list[Fragment]:
    """Return the states that tell the first render, or the props of the last one."""
    lines: list[str] = []
    hook, names, semi = "useState", plan.previous, style.semicolon
    for moment in plan.component.moments("starting"):
        if has_code(speller, moment.body):
            pair = f"[{names['started']}, {names['started=']}]"
            lines.append(f"const {pair} = {style.hook(hook)}(false){semi}")
    for moment in plan.component.moments("received"):
        if has_code(speller, moment.body):
            pair = f"[{names['received']}, {names['received=']}]"
            lines.append(f"const {pair} = {style.hook(hook)}({_kept(plan)}){semi}")
    for moment in plan.component.moments("updating"):
        if has_code(speller, moment.body):
            for part, now in _compared(plan):
                lines.append(f"const {names[_drawn(part)]} = {style.hook('useRef')}({now}){semi}")
    return [new(line) for line in lines]


def _compared(plan: Plan) -> list[tuple[str, str]]:
    """Return the values that code before an update compares, under their names now."""
    return [
        (part, plan.names[WHOLES[part]])
        for part in ("props", "state")
        if _drawn(part) in plan.previous
    ]


def _drawn(part: str) -> str:
    """Return the key for the ref with the props or state of the last render."""
    return f"drawn{part.capitalize()}"


def _kept(plan: Plan) -> str:
    """Return the kept props: as they are, and with their defaults if they have any."""
    given, now = plan.names.get(GIVEN), plan.names[PROPS]
    return f"{{ {given}, {now} }}" if given else now


def drawn_moment(
    plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str
) -> Fragment:
    """Return the block of a hook that runs while rendering."""
    if not has_code(speller, moment.body):
        return dropped(moment.entry, "empty-hook") + copy(moment.body.span)
    if moment.when == "made":
        return _made(speller, style, moment, inner)
    if moment.when == "derived":
        return _derived(speller, style, moment, inner)
    if moment.when == "starting":
        return _starting(plan, speller, style, moment, inner)
    if moment.when == "updating":
        return _updating(plan, speller, style, moment, inner)
    return _received(plan, speller, style, moment, inner)


def _made(speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """Return code that runs once before the first render: the initialiser of a state nobody reads."""
    hook, semi = style.hook("useState"), style.semicolon
    head = new(f"{hook}(() => ", moment.entry, "constructor-to-first-draw")
    if moment.single_expression:
        return head + releveled(speller, moment.body, inner) + new(f"){semi}")
    deep = inner + style.unit
    return (
        head
        + new(f"{{\n{deep}")
        + releveled(speller, moment.body, deep)
        + new(f"\n{inner}}}){semi}")
    )


def _derived(speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """Return state that follows props: written during render, and rendered again at once."""
    deep, semi = inner + style.unit, style.semicolon
    unlike = [_unlike(speller, field, value) for field, value in moment.unlike]
    parts = [_asked(speller, asked, inner) for asked in moment.asked]
    alone = len(parts) + bool(unlike) == 1
    if alone and parts and not moment.asked[0].negated:
        # Nothing beside it: it stands in the parentheses of the statement.
        parts = [releveled(speller, moment.asked[0].code, inner)]
    if unlike:
        changed = joined(unlike, " || ")
        parts.append(changed if alone or len(unlike) == 1 else new("(") + changed + new(")"))
    result = new("if (", moment.entry, "derived-to-draw") + joined(parts, " && ") + new(") {")
    for write in moment.body.operations:
        if isinstance(write, StateWrite):
            for call in set_calls(speller, write):
                result += new(f"\n{deep}") + call + new(semi)
    return result + new(f"\n{deep}return null{semi}\n{inner}}}")


def _asked(speller: Speller, asked: Asked, inner: str) -> Fragment:
    code = releveled(speller, asked.code, inner)
    if asked.grouped:
        code = new("(") + code + new(")")
    return new("!") + code if asked.negated else code


def _unlike(speller: Speller, field: Member, value: Member | str) -> Fragment:
    """The question whether a field has another value than the one it is to have."""
    held = speller.value_text(field, later=False)
    if isinstance(value, str):
        return new(f"{held} !== {value}")
    return new(f"!Object.is({held}, {speller.value_text(value, later=False)})")


def _starting(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    flag, setter, deep = plan.previous["started"], plan.previous["started="], inner + style.unit
    opening = f"if (!{flag}) {{\n{deep}{setter}(true){style.semicolon}"
    result = new(opening, moment.entry, "start-to-draw")
    return result + _body(speller, style, moment, inner)


def _received(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    semi, deep = style.semicolon, inner + style.unit
    received, before, now = plan.previous["received"], plan.previous["before"], plan.names[PROPS]
    given = plan.names.get(GIVEN)
    seen, held = (f"{received}.{given}", f"{received}.{now}") if given else (received, received)
    result = new(f"if ({seen} !== {given or now}) {{", moment.entry, "receipt-to-draw")
    if not given:
        before = received
    elif plan.reads_before:
        result += new(f"\n{deep}const {before} = {held}{semi}")
    result += new(f"\n{deep}{plan.previous['received=']}({_kept(plan)}){semi}")
    speller = replace(speller, inputs_from=before)
    came = moment.previous_props
    if came is not None:
        named = is_identifier(came.parameter)
        if named:
            speller = replace(speller, renames=tuple((span, now) for span, _ in came.uses))
        for _, entry in came.uses:
            result += settled(entry, *(("receipt-to-draw", "carried") if named else ("", "kept")))
        if not named:
            result += new(f"\n{deep}const {came.parameter} = {now}{semi}")
    return result + _body(speller, style, moment, inner)


def _updating(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """Return code before an update: it runs if props or state changed since the last render.

    It stands behind all else that may write state while rendering.
    """
    deep, semi = inner + style.unit, style.semicolon
    names, parts = plan.previous, _compared(plan)
    drawn = {part: f"{names[_drawn(part)]}.current" for part, _ in parts}
    changed = " || ".join(f"{drawn[part]} !== {now}" for part, now in parts)
    result = new(f"if ({changed}) {{", moment.entry, "update-to-draw")
    for part, _ in parts:
        result += new(f"\n{deep}const {names[f'{part} then']} = {drawn[part]}{semi}")
    for part, now in parts:
        result += new(f"\n{deep}{drawn[part]} = {now}{semi}")
    then = {part: names[f"{part} then"] for part, _ in parts}
    speller = replace(speller, inputs_from=then.get("props", ""), state_from=then.get("state", ""))
    renames: list[tuple[Span, str]] = []
    for came, part in ((moment.previous_props, "props"), (moment.previous_state, "state")):
        if came is None:
            continue
        now = plan.names[WHOLES[part]]
        if is_identifier(came.parameter):
            renames += [(span, now) for span, _ in came.uses]
        else:
            result += new(f"\n{deep}const {came.parameter} = {now}{semi}")
        for _, entry in came.uses:
            named = is_identifier(came.parameter)
            result += settled(entry, *(("update-to-draw", "carried") if named else ("", "kept")))
    speller = replace(speller, renames=tuple(sorted(renames)))
    return result + _run(speller, style, moment, inner) + new(f"\n{inner}}}")


def _body(speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """Return the body and the early return of a render that is repeated."""
    out = new(f"\n{inner}{style.unit}return null{style.semicolon}\n{inner}}}")
    return _run(speller, style, moment, inner) + out


def _run(speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """The body: where it may return, or declares names for all around it, a function called at once."""
    deep, semi = inner + style.unit, style.semicolon
    body = without_end(speller, moment.body, speller.code(moment.body))
    if moment.hoists or not moment.reaches_end:
        body = new(f"\n{deep}(() => {{") + body.shifted(1) + new(f"\n{deep}}})(){semi}")
    return body
