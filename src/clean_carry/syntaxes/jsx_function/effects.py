"""Lifecycle hooks as effects. Code that a class runs before paint runs in a layout effect."""

from __future__ import annotations

from typing import TYPE_CHECKING

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, copy, dropped, new, settled
from clean_carry.component.moments import Moment
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.operations import Speller, trimmed
from clean_carry.syntaxes.jsx_function.planning.plan import PROPS, STATE, Plan

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style

EFFECT = "useLayoutEffect"


def effect(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """The effect of a display or update hook."""
    if not has_code(speller, moment.body) and not (plan.merged and moment.when == "displayed"):
        return dropped(moment.entry, "empty-hook") + copy(moment.body.span)
    if moment.when == "displayed":
        return _displayed(plan, speller, style, moment, inner)
    if moment.guard is not None:
        return _guarded(plan, speller, style, moment, inner)
    return _updated(plan, speller, style, moment, inner)


def removal_effect(
    plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str
) -> Fragment:
    """An effect that only cleans up, for a removal hook that stands alone."""
    if not has_code(speller, moment.body):
        return dropped(moment.entry, "empty-hook") + copy(moment.body.span)
    semi, deep = style.semicolon, inner + style.unit
    one_line = "\n" not in speller.source.slice(moment.body.span.start, moment.body.span.end)
    if one_line and not moment.expression:
        head = new(f"{style.hook(EFFECT)}(() => () => {{", moment.entry, "removal-to-clean-up")
        return head + _body(speller, style, moment, inner) + new(f"}}, []){semi}")
    head = new(f"{style.hook(EFFECT)}(() => {{\n{deep}return () => {{")
    body = settled(moment.entry, "removal-to-clean-up") + _body(speller, style, moment, inner)
    return head + body.shifted(1) + new(f"}}{semi}\n{inner}}}, []){semi}")


def _body(speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    """The body up to its closing brace; one that waits is a function called at once.

    An effect may give nothing but its clean-up.
    """
    body = speller.code(moment.body)
    if moment.expression:
        body = new(f"\n{inner}{style.unit}") + body + new(f"{style.semicolon}\n{inner}")
    if not moment.asynchronous:
        return body
    deep = inner + style.unit
    body = without_end(speller, moment.body, body).shifted(1)
    return new(f"\n{deep}(async () => {{") + body + new(f"\n{deep}}})(){style.semicolon}\n{inner}")


def has_code(speller: Speller, code: Code) -> bool:
    """Whether there is anything but white space."""
    return bool(speller.source.data[code.span.start : code.span.end].strip())


def _displayed(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    semi = style.semicolon
    head = new(f"{style.hook(EFFECT)}(() => {{", moment.entry, "display-to-effect")
    if not plan.merged:
        return head + _body(speller, style, moment, inner) + new(f"}}, []){semi}")
    body = _body(speller, style, moment, inner)
    removed = plan.component.moments("removed")[0]
    if not moment.expression:
        body = without_end(speller, moment.body, body)
    else:
        body = new(f"\n{inner}{style.unit}") + speller.code(moment.body) + new(semi)
    return head + body + _clean_up(speller, style, removed, inner) + new(f"\n{inner}}}, []){semi}")


def _clean_up(speller: Speller, style: Style, removed: Moment, inner: str) -> Fragment:
    semi = style.semicolon
    deep = inner + style.unit
    result = new("\n")
    for note in removed.comments:
        result += new(deep) + copy(note) + new("\n")
    result += settled(removed.entry, "removal-to-clean-up")
    body = speller.code(removed.body)
    text = speller.source.slice(removed.body.span.start, removed.body.span.end).strip()
    if removed.one_call and "\n" not in text and "//" not in text:
        short = trimmed(speller, body)
        end = new("" if text.endswith(";") else semi)
        return result + new(f"{deep}return () => ") + short + end
    if removed.expression:
        body = new(f"\n{deep}") + body + new(f"{semi}\n{inner}")
    return result + new(f"{deep}return () => {{") + body.shifted(1) + new(f"}}{semi}")


def without_end(speller: Speller, code: Code, body: Fragment) -> Fragment:
    """The body without the white space before its closing brace."""
    data = speller.source.data[code.span.start : code.span.end]
    lost = len(data) - len(data.rstrip())
    pieces = list(body.pieces)
    if lost and pieces and pieces[-1].span is not None:
        last = pieces[-1]
        assert last.span is not None
        end = max(last.span.start, last.span.end - lost)
        pieces[-1] = type(last)(span=last.span._replace(end=end), shift=last.shift)
    return Fragment(pieces)


def _guarded(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    guard = moment.guard
    assert guard is not None
    member = guard.sources[0]
    now = speller.value_text(member, False)
    previous = plan.previous["guard"]
    deep, semi = inner + style.unit, style.semicolon
    result = new(f"const {previous} = {style.hook('useRef')}({now}){semi}\n{inner}")
    result += new(f"{style.hook(EFFECT)}(() => {{", moment.entry, "guarded-update-to-effect")
    result += new(f"\n{deep}if ({previous}.current === {now}) return{semi}")
    result += new(f"\n{deep}{previous}.current = {now}{semi}")
    result += settled(guard.entry, "guard-to-dependency")
    for operation in moment.body.operations:
        if operation not in guard.body.operations:
            result += settled(operation.entry, "guard-to-dependency")
    for note in guard.comments:
        result += new(f"\n{deep}") + copy(note)
    body = without_end(speller, guard.body, speller.code(guard.body)).shifted(-1)
    return result + body + new(f"\n{inner}}}){semi}")


def _updated(plan: Plan, speller: Speller, style: Style, moment: Moment, inner: str) -> Fragment:
    deep, semi = inner + style.unit, style.semicolon
    declared: list[str] = []
    opening: list[str] = []
    unpacked: list[str] = []
    held: list[str] = []
    for key, before, kind in (
        ("props", moment.previous_props, "prop"),
        ("state", moment.previous_state, "state"),
    ):
        if before is None:
            continue
        reference = plan.previous[key]
        local = before.parameter
        if not is_identifier(local):
            local = f"{key}Then"
            unpacked.append(f"const {before.parameter} = {local}{semi}")
        held.append(local)
        typed = _snapshot_type(plan, kind, before.names)
        declared.append(f"const {reference} = {style.hook('useRef')}{typed}(null){semi}")
        now = _snapshot(plan, speller, kind, before.names)
        opening.append(f"const {local} = {reference}.current{semi}")
        opening.append(f"{reference}.current = {now}{semi}")
    if held:
        asked = held if plan.component.language.typed else held[:1]
        missing = " || ".join(f"{name} === null" for name in asked)
        opening.append(f"if ({missing}) return{semi}")
        opening.extend(unpacked)
    else:
        flag = plan.previous["drawn"]
        declared.append(f"const {flag} = {style.hook('useRef')}(false){semi}")
        opening.append(f"if (!{flag}.current) {{")
        opening.append(f"{style.unit}{flag}.current = true{semi}")
        opening.append(f"{style.unit}return{semi}")
        opening.append("}")
    head = f"\n{inner}".join(declared)
    result = new(f"{head}\n{inner}{style.hook(EFFECT)}(() => {{", moment.entry, "update-to-effect")
    for line in opening:
        result += new(f"\n{deep}{line}")
    if moment.kept_guard >= 0:
        result += settled(moment.kept_guard, "", "kept")
    body = _body(speller, style, moment, inner)
    if "\n" not in speller.source.slice(moment.body.span.start, moment.body.span.end):
        body = new(f"\n{deep}") + trimmed(speller, body) + new(f"\n{inner}")
    again = _mounted_again(plan, style, moment, bool(held), inner)
    return result + body + new(f"}}){semi}{again}")


# From this major version on StrictMode runs effects twice at mount (its release notes for 18.0).
EFFECTS_TWICE = 18


def _mounted_again(plan: Plan, style: Style, moment: Moment, held: bool, inner: str) -> str:
    """The effect that forgets the first run, so that no second run at mount counts as an update."""
    if plan.runtime < EFFECTS_TWICE or moment.compares_only:
        return ""
    keys = [key for key in ("props", "state") if held and key in plan.previous]
    name = plan.previous[keys[0]] if keys else plan.previous["drawn"]
    forgotten = f"{name}.current = {'null' if keys else 'false'}{style.semicolon}"
    call = f"{style.hook(EFFECT)}(() => () => {{ {forgotten} }}, []){style.semicolon}"
    note = "// StrictMode runs effects twice at mount: the second run is no update."
    return f"\n{inner}{note}\n{inner}{call}"


def _snapshot_type(plan: Plan, kind: str, names: tuple[str, ...] | None) -> str:
    """The type argument of the reference to inputs or state of before, in a typed file."""
    if not plan.component.language.typed:
        return ""
    if plan.component.language.annotated:
        return "<any>"
    whole = PROPS if kind == "prop" else STATE
    if whole in plan.names:
        return f"<typeof {plan.names[whole]} | null>"
    parts = []
    for name in names or ():
        local = plan.names[Member("prop" if kind == "prop" else "state", name)]
        parts.append(f"{name if is_identifier(name) else repr(name)}: typeof {local}")
    return f"<{{ {'; '.join(parts)} }} | null>"


def _snapshot(plan: Plan, speller: Speller, kind: str, names: tuple[str, ...] | None) -> str:
    whole = PROPS if kind == "prop" else STATE
    if whole in plan.names:
        return plan.names[whole]
    parts = []
    for name in names or ():
        local = speller.value_text(Member("prop" if kind == "prop" else "state", name), False)
        key = name if is_identifier(name) else f"'{name}'"
        parts.append(name if local == name else f"{key}: {local}")
    return f"{{ {', '.join(parts)} }}"
