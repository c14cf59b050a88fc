"""The parameter of a function component: its inputs and their defaults."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from clean_carry.component.code import Member
from clean_carry.component.fragment import Fragment, breaks, copy, joined, length, new, settled
from clean_carry.component.model import Prop
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.jsx_function.operations import Speller, releveled
from clean_carry.syntaxes.jsx_function.planning.plan import GIVEN, OTHERS, PROPS, Plan

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style


def signature(plan: Plan, speller: Speller, style: Style, ahead: int) -> Fragment:
    """Return the text between the parentheses; `ahead` columns of its line come before."""
    component = plan.component
    result = Fragment()
    if "defaults" in component.entries:
        result += settled(component.entries["defaults"], "defaults-to-signature")
    typed = f": {_type(plan, speller, style)}" if component.inputs.type_text else ""
    if plan.inputs == "none":
        for prop in component.inputs.props:
            if prop.default is not None:
                result += _unused_default(prop)
        return result
    if GIVEN in plan.names:
        return result + new(f"{plan.names[GIVEN]}{typed}")
    items = _items(plan, speller)
    if plan.inputs == "whole" and not items:
        return result + new(f"{plan.names[PROPS]}{typed}")
    if plan.inputs == "whole" or (plan.inputs == "listed" and OTHERS in plan.names):
        items.append(new(f"...{plan.names[OTHERS]}"))
    elif plan.inputs == "lifted" and plan.lifted is not None:
        items.append(new(f"...{plan.lifted.rest}"))
    inner = joined(items, ", ")
    base = speller.source.indent_at(component.span.start)
    wide = ahead + length(inner) + len(f"({{  }}{typed}) {{") > style.fit.width
    if wide or breaks(inner, speller.source.slice):
        unit = "\n" + base + style.unit
        return (
            result
            + new("{" + unit)
            + joined(items, "," + unit)
            + new(
                f"{',' if plan.inputs == 'listed' and OTHERS not in plan.names else ''}\n{base}}}{typed}"
            )
        )
    return result + new("{ ") + inner + new(f" }}{typed}")


# From this major version on a class has no children either but those its inputs declare (the release
# notes for 18.0); before, every class had them.
DECLARED_CHILDREN = 18


def _type(plan: Plan, speller: Speller, style: Style) -> str:
    """The type of the inputs; with children where a class has them unasked."""
    own = plan.component.inputs.type_text
    names = plan.component.inputs.optional_names
    if names:
        keys = " | ".join(f"{style.quote}{name}{style.quote}" for name in names)
        own = f"Omit<{own}, {keys}> & Partial<Pick<{own}, {keys}>>"
    reads = any(prop.name == "children" for prop in plan.component.inputs.props)
    text = speller.source.slice(0, len(speller.source.data))
    if (
        plan.component.language.annotated
        or plan.runtime >= DECLARED_CHILDREN
        or not reads
        or re.search(r"\bchildren\??:", text)
    ):
        return own
    return f"{style.hook('PropsWithChildren')}<{own}>"


def _items(plan: Plan, speller: Speller, level: int = 1) -> list[Fragment]:
    """The inputs with their defaults, for standing so many levels in."""
    items: list[Fragment] = []
    lifted = {b.key: b.local for b in (plan.lifted.bindings or ())} if plan.lifted else {}
    order = (
        list(lifted) if plan.lifted is not None else [p.name for p in plan.component.inputs.props]
    )
    props = {p.name: p for p in plan.component.inputs.props}
    for name in order:
        prop = props.get(name) or Prop(name)
        if plan.inputs == "whole":
            if prop.default is not None:
                local = plan.names[Member("prop", name)]
                items.append(_item(name, local, prop, plan, speller, level))
            continue
        local = lifted.get(name) or plan.names[Member("prop", name)]
        items.append(_item(name, local, prop, plan, speller, level))
    return items


def _item(name: str, local: str, prop: Prop, plan: Plan, speller: Speller, level: int) -> Fragment:
    key = name if is_identifier(name) else f"'{name}'"
    head = new(name if name == local else f"{key}: {local}")
    if prop.entry >= 0:
        head += settled(prop.entry, "input-to-signature")
    if prop.default is None:
        return head + new(f" = {prop.implied}") if prop.implied else head
    rule = "default-to-signature"
    settle = settled(prop.default.entry, rule) if prop.default.entry >= 0 else Fragment()
    constant = hoisted_name(plan, prop)
    if constant:
        return settle + head + new(f" = {constant}")
    if prop.default.text:
        return head + new(f" = {prop.default.text}")
    if prop.default.entry < 0:
        span = prop.default.code.span
        return head + new(" = " + speller.source.slice(span.start, span.end))
    # An item of several lines starts on a line of its own, one level in.
    base = speller.source.indent_at(plan.component.span.start) + speller.unit * level
    method = f"{prop.default.method} " if prop.default.method else ""
    return settle + head + new(f" = {method}") + releveled(speller, prop.default.code, base)


def _unused_default(prop: Prop) -> Fragment:
    assert prop.default is not None
    if prop.default.entry < 0:
        return Fragment()
    return settled(prop.default.entry, "default-inputs-moved", "dropped")


def hoisted_name(plan: Plan, prop: Prop) -> str:
    """Return the module constant that keeps the identity of a default, if it can be noticed."""
    default = prop.default
    if default is None or default.kind in ("constant", "name"):
        return ""
    if default.kind == "function" and prop.name in plan.component.facts.called:
        return ""
    plain = "".join(part[:1].upper() + part[1:] for part in prop.name.split("-"))
    name = f"default{plain}"
    return name if name not in plan.component.facts.module_names else f"{name}Input"


def default_constants(plan: Plan, speller: Speller, style: Style) -> Fragment:
    """Return module constants before the function, for defaults whose identity can be noticed."""
    result = Fragment()
    if plan.inputs == "none":
        return result
    base = speller.source.indent_at(plan.component.span.start)
    after = constants_after(plan, speller)
    for prop in plan.component.inputs.props:
        name = hoisted_name(plan, prop)
        if name and prop.default is not None and prop.name not in after:
            result += default_constant(plan, speller, style, prop.name) + new(f"\n\n{base}")
    return result


def default_constant(plan: Plan, speller: Speller, style: Style, name: str) -> Fragment:
    """The declaration of the constant that holds the default of an input."""
    base = speller.source.indent_at(plan.component.span.start)
    prop = next(prop for prop in plan.component.inputs.props if prop.name == name)
    assert prop.default is not None
    result = Fragment()
    for note in prop.default.comments:
        result += copy(note) + new(f"\n{base}")
    kind = f"{prop.default.method} " if prop.default.method else ""
    span = prop.default.code.span
    nothing = _NOTHING.search(speller.source.slice(span.start, span.end)) is not None
    typed = _constant_type(plan, style, name, nothing=nothing)
    result += new(f"const {hoisted_name(plan, prop)}{typed} = {kind}")
    return result + releveled(speller, prop.default.code, base) + new(style.semicolon)


# A default that may be nothing is of the prop's whole type.
_NOTHING = re.compile(r"(?<![\w$.])(?:undefined|null|void 0)(?![\w$])")


def _constant_type(plan: Plan, style: Style, name: str, *, nothing: bool) -> str:
    """The type annotation of the constant that holds a default: that of the prop, in a typed file."""
    component = plan.component
    own = component.inputs.type_text
    if (
        not component.language.typed
        or component.language.annotated
        or not re.fullmatch(r"[\w$.]+", own)
    ):
        return ""
    if component.inputs.type_parameters is not None:
        return ""
    whole = f"{own}[{style.quote}{name}{style.quote}]"
    return f": {whole}" if nothing else f": NonNullable<{whole}>"


def constants_after(plan: Plan, speller: Speller) -> dict[str, int]:
    """The inputs whose default is made among the statics, behind the function, each with where it stood:
    its code names the component, or it runs code and the statics do."""
    component = plan.component
    if plan.inputs == "none":
        return {}
    named = re.compile(rf"(?<![\w$.]){re.escape(component.name)}(?![\w$])")
    running = any(static.runs_code for static in component.statics)
    found: dict[str, int] = {}
    for prop in component.inputs.props:
        default = prop.default
        if default is None or not hoisted_name(plan, prop):
            continue
        span = default.code.span
        text = speller.source.slice(span.start, span.end)
        if named.search(text) or (running and default.runs_code):
            found[prop.name] = span.start
    return found


def _object_line(plan: Plan, speller: Speller, style: Style, parts: list[str]) -> str:
    """The inputs as one object, one part a line where they do not fit on one."""
    inner = speller.source.indent_at(plan.component.span.start) + style.unit
    head, semi = f"const {plan.names[PROPS]} = {{", style.semicolon
    flat = f"{head} {', '.join(parts)} }}{semi}"
    if style.fit.columns(inner + flat) <= style.fit.width:
        return flat
    return head + "".join(f"\n{inner}{style.unit}{part}," for part in parts) + f"\n{inner}}}{semi}"


def _pattern_line(plan: Plan, speller: Speller, style: Style, items: list[Fragment]) -> Fragment:
    """The line that takes the inputs apart, one input a line where they do not fit on one."""
    inner = speller.source.indent_at(plan.component.span.start) + style.unit
    end = f"}} = {plan.names[GIVEN]}{style.semicolon}"
    flat = joined(items, ", ")
    wide = style.fit.columns(inner) + len(f"const {{  {end}") + length(flat) > style.fit.width
    if not wide and not breaks(flat, speller.source.slice):
        return new("const { ") + flat + new(f" {end}")
    deep = f"\n{inner}{style.unit}"
    return new(f"const {{{deep}") + joined(items, f",{deep}") + new(f"\n{inner}{end}")


def merged_inputs(plan: Plan, speller: Speller, style: Style) -> list[Fragment]:
    """The line that puts inputs and their defaults into one object again."""
    if plan.inputs != "whole":
        return []
    names = [p.name for p in plan.component.inputs.props if p.default is not None]
    if not names:
        return []
    own = []
    for name in names:
        local = plan.names[Member("prop", name)]
        key = name if is_identifier(name) else f"'{name}'"
        own.append(name if name == local else f"{key}: {local}")
    lines = [new(_object_line(plan, speller, style, [*own, f"...{plan.names[OTHERS]}"]))]
    if GIVEN in plan.names:
        items = [*_items(plan, speller, 2), new(f"...{plan.names[OTHERS]}")]
        lines.insert(0, _pattern_line(plan, speller, style, items))
    return lines
