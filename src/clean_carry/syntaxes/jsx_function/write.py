"""Write a fitted component as a function returning JSX, its state and effects through hooks."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.code import Member, MethodCall, MethodValue
from clean_carry.component.fragment import Fragment, copy, joined, length, new, settled
from clean_carry.component.members import LeftMember, Method, Part, Static
from clean_carry.component.moments import Moment
from clean_carry.component.spans import Span
from clean_carry.source.javascript.joining import Fit
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.drawing import drawn_lines, drawn_moment
from clean_carry.syntaxes.jsx_function.effects import effect, removal_effect
from clean_carry.syntaxes.jsx_function.operations import Speller, left_marker, releveled, trimmed
from clean_carry.syntaxes.jsx_function.planning.plan import CONTEXT, PROPS, Plan, Refused
from clean_carry.syntaxes.jsx_function.signature import (
    constants_after,
    default_constant,
    default_constants,
    merged_inputs,
    signature,
)
from clean_carry.syntaxes.jsx_function.state import (
    field_lines,
    latest_lines,
    received_line,
    redraw_line,
    state_lines,
)

# Hooks that may end the render they run in.
ENDING = ("starting", "received", "derived")


@dataclass
class Style:
    """How the file is written, and how hooks are named in it.

    `comma` ends a list of arguments that is broken into lines; arrow functions of one plain parameter are
    `bare` of parentheses around it. `after_hook` is what the file's own hook for callbacks of writes is
    called, `follows` says that it is needed.
    """

    unit: str
    semicolon: str
    quote: str
    hook_prefix: str
    fit: Fit
    comma: str
    bare: bool = False
    hooks: set[str] = field(default_factory=set)
    after_hook: str = "useAfterRender"
    follows: bool = False

    def one(self, name: str) -> str:
        """The one plain parameter of an arrow function."""
        return name if self.bare else f"({name})"

    def hook(self, name: str) -> str:
        """The name by which a hook is called here; notes that it is needed."""
        self.hooks.add(name)
        return f"{self.hook_prefix}{name}"


def write(plan: Plan, source: SourceText, style: Style) -> Fragment:
    """The function that takes the place of the component, with its statics after it. Raises `Refused`."""
    component = plan.component
    speller = Speller(plan, source, style.semicolon, style.unit, bare=style.bare)
    base = source.indent_at(component.span.start)
    inner = base + style.unit
    held = _holds_statics(plan, speller)
    opened = _opening(plan, style)
    # A function that gets statics by a call stands a level deeper, among the arguments of that call.
    result = Fragment(opened.pieces[-1:]) if held else opened
    if component.inputs.type_parameters is not None:
        result += copy(component.inputs.type_parameters)
    exported = {"": "", "named": "export ", "default": "export default "}[component.place.exported]
    ahead = length(result) + style.fit.columns(inner if held else base + exported)
    result += new("(") + signature(plan, speller, style, ahead) + _second(plan) + new(") {\n")
    silent, blocks = _blocks(plan, speller, style, inner)
    result += silent
    blocks.append(_drawing(plan, speller, style, inner))
    for line in received_line(plan, style):
        blocks.insert(-1, line)
    decorators = 0 if plan.decorated_after else len(component.place.decorators)
    end = ")" * (plan.remembered + bool(component.outward.exposed) + decorators)
    result += new(inner) + joined(blocks, f"\n\n{inner}") + new(f"\n{base}}}{end}")
    if held:
        before = Fragment(opened.pieces[:-1]) + new(f"Object.assign(\n{inner}")
        result = before + result.shifted(1) + new(f",\n{inner}{{")
        deep = inner + style.unit
        for static in component.statics:
            result += new(f"\n{deep}") + _held_static(speller, static, deep) + new(",")
        result += new(f"\n{inner}}}{style.comma}\n{base})")
    if component.place.form != "expression" and (end or held):
        result += new(style.semicolon)
    return result + _after(plan, speller, style, base, held=held)


def _blocks(
    plan: Plan, speller: Speller, style: Style, inner: str
) -> tuple[Fragment, list[Fragment]]:
    """Return the statements of the function before its markup, in blocks; first those that only
    resolve an entry."""
    component = plan.component
    silent, blocks = Fragment(), list[Fragment]()
    opening = _shared_context(plan, style)
    opening += merged_inputs(plan, speller, style)
    opening += latest_lines(plan, speller, style, first=True)
    early = [m for m in component.methods() if m.name in plan.early]
    blocks += [_member(plan, speller, style, method, inner) for method in early]
    late_fields = field_lines(plan, speller, style) if plan.before_fields else []
    opening += _made_lines(plan, speller, style, fields=not late_fields)
    opening += redraw_line(plan, style)
    opening += latest_lines(plan, speller, style, first=False)
    opening += drawn_lines(plan, speller, style)
    if opening:
        blocks.append(joined((line for line in opening), f"\n{inner}"))
    needed = [m for m in component.methods() if m.name in plan.before_fields]
    blocks += [_member(plan, speller, style, method, inner) for method in needed]
    if late_fields:
        blocks.append(joined(late_fields, f"\n{inner}"))
    followed, handle = plan.followed, bool(component.outward.exposed)
    for member in _in_order(plan):
        if isinstance(member, Moment) and member.when in ENDING:
            # Code that runs while rendering may return early; a hook may not stand behind that.
            blocks += _last_hooks(plan, style, followed, handle, inner)
            followed = handle = False
        block = _member(plan, speller, style, member, inner)
        if any(piece.span is not None or piece.text for piece in block.pieces):
            blocks.append(block)
        else:
            silent += block
    return silent, [*blocks, *_last_hooks(plan, style, followed, handle, inner)]


def _after(plan: Plan, speller: Speller, style: Style, base: str, *, held: bool) -> Fragment:
    """Return the code after the function: statics, constants for defaults, its export, a return of
    it."""
    component, semi = plan.component, style.semicolon
    after: list[tuple[int, Fragment]] = [
        (static.code.span.start, _static(plan, speller, static, base, semi))
        for static in (component.statics if not held else ())
    ]
    for name, at in constants_after(plan, speller).items():
        after.append((at, default_constant(plan, speller, style, name)))
    result = Fragment()
    for _, statement in sorted(after, key=lambda part: part[0]):
        result += new(f"\n\n{base}") + statement
    if plan.exports_after:
        result += _export_after(plan, base, semi)
    elif component.place.export_span is not None:
        result += settled(component.entries["export"], "", "kept")
    if component.place.form == "returned":
        result += new(f"\n\n{base}return {component.name}{semi}")
    return result


def _made_lines(plan: Plan, speller: Speller, style: Style, *, fields: bool) -> list[Fragment]:
    """State and, if wanted, fields: in the order of the class where it matters, else the state first."""
    state = state_lines(plan, speller, style)
    if not fields:
        return state
    held = plan.component.state
    if held is not None and held.body:
        # Statements that make the state may fill fields.
        return field_lines(plan, speller, style) + state
    before = frozenset(held.after) if held is not None and plan.in_order else frozenset()
    first = field_lines(plan, speller, style, only=before)
    rest = {field.name for field in plan.component.fields} - before
    return first + state + field_lines(plan, speller, style, only=frozenset(rest))


def _export_after(plan: Plan, base: str, semi: str) -> Fragment:
    """The statement that exports it, called with by its decorators where its statics come first."""
    component = plan.component
    result = new(f"\n\n{base}export default ", component.entries["export"], "export-after")
    calls = component.place.decorators if plan.decorated_after else ()
    for _, called, entry in calls:
        result += settled(entry, "decorator-to-call") + copy(called) + new("(")
    return result + new(f"{component.name}{')' * len(calls)}{semi}")


def _second(plan: Plan) -> Fragment:
    """The second parameter: the reference it is reached by, or the old context."""
    context = plan.component.context
    if plan.component.outward.exposed:
        name = plan.previous["ref"]
    elif context is not None and context.kind == "old":
        name = plan.names[CONTEXT] + (": any" if plan.component.language.typed else "")
    else:
        return Fragment()
    first = plan.names[PROPS] if plan.inputs == "none" else ""
    return new(f"{first}, {name}")


def _last_hooks(
    plan: Plan, style: Style, followed: bool, handle: bool, inner: str
) -> list[Fragment]:
    """Hooks that stand behind all others: what is called after writes, what a reference gives."""
    found: list[Fragment] = []
    if followed:
        style.follows = True
        found.append(new(f"const {plan.previous['after']} = {style.after_hook}(){style.semicolon}"))
    if handle:
        found.append(_handle(plan, style, inner))
    return found


def _handle(plan: Plan, style: Style, inner: str) -> Fragment:
    """Return the handle of a ref to the component: the methods for parents."""
    parts = []
    component, semi = plan.component, style.semicolon
    getters = {method.name for method in component.methods() if method.getter}
    fields = {field.name: field for field in component.fields}
    for name in component.outward.exposed:
        if name in fields:
            member = Member("element" if fields[name].element else "field", name)
            held = plan.names[member] + ("" if name in plan.once else ".current")
            parts.append(f"get {name}() {{ return {held}{semi} }}")
            if name in component.outward.written_outside:
                parts.append(f"set {name}(value) {{ {held} = value{semi} }}")
            continue
        local = plan.names[Member("method", name)]
        if name in getters:
            parts.append(f"get {name}() {{ return {local}(){semi} }}")
        else:
            parts.append(name if name == local else f"{name}: {local}")
    hook, held = style.hook("useImperativeHandle"), plan.previous["ref"]
    # One object for as long as it is mounted, as the instance was: what it gives sees latest values.
    flat = f"{hook}({held}, () => ({{ {', '.join(parts)} }}), []){semi}"
    if style.fit.columns(inner + flat) > style.fit.width:
        deep = f"\n{inner}{style.unit}"
        flat = f"{hook}({held}, () => ({{{deep}{f',{deep}'.join(parts)},\n{inner}}}), []){semi}"
    return new(flat)


def _shared_context(plan: Plan, style: Style) -> list[Fragment]:
    """The line that reads a shared context."""
    context = plan.component.context
    if context is None or context.kind != "shared":
        return []
    name, hook = plan.names[CONTEXT], style.hook("useContext")
    text = f"const {name} = {hook}({context.text}){style.semicolon}"
    return [new(text, context.entry, "context-to-hook")]


def _opening(plan: Plan, style: Style) -> Fragment:
    """The head of the function, up to its name, inside the calls that make the component of it."""
    component = plan.component
    entry = component.entries["component"]
    text, rule = f"function {component.name}", "component-to-function"
    if not plan.wrapped:
        return new(text, entry, rule)
    if component.inputs.type_parameters is not None:
        raise Refused("pure-with-type-parameters", component.name, component.span.start)
    # The function's own name would hide the component's where it names itself.
    text = "function " if component.place.names_itself else text
    if component.outward.exposed:
        text = f"{style.hook('forwardRef')}({text}"
    if plan.remembered:
        text = f"{style.hook('memo')}({text}"
    head = Fragment()
    # As the default export of a file that does not name it, it needs no name outside.
    named = component.place.exported != "default" or component.place.export_span is not None
    if named and component.place.form != "expression":
        head += new(f"const {component.name} = ")
    for _, called, decorator in () if plan.decorated_after else component.place.decorators:
        head += settled(decorator, "decorator-to-call") + copy(called) + new("(")
    return head + new(text, entry, "component-to-wrapped")


def write_before(plan: Plan, source: SourceText, style: Style) -> Fragment:
    """Return the code before the component's statement: constants for its defaults."""
    return default_constants(plan, Speller(plan, source, style.semicolon, style.unit), style)


def _in_order(plan: Plan) -> list[Part]:
    """The members as they are written: a clean-up of its own stands before what it cleans up after.

    An effect that throws keeps those after it from being made, and so from being cleaned up.
    """
    members = [
        m
        for m in plan.component.members
        if not (isinstance(m, Method) and m.name in plan.early | plan.before_fields)
    ]
    # Code that runs while rendering may use all declarations, and stands before the returned markup.
    made = [m for m in members if isinstance(m, Moment) and m.when == "made"]
    first = [] if any(_uses_methods(m) for m in made) else made
    last = [m for m in made if m not in first]
    last += [m for m in members if isinstance(m, Moment) and m.when in ENDING]
    last += [m for m in members if isinstance(m, Moment) and m.when == "updating"]
    members = [*first, *(m for m in members if m not in made and m not in last), *last]
    displayed, removed = plan.component.moments("displayed"), plan.component.moments("removed")
    if displayed and removed and not plan.merged:
        members.remove(removed[0])
        members.insert(members.index(displayed[0]), removed[0])
    return members


def _uses_methods(moment: Moment) -> bool:
    return any(isinstance(o, MethodCall | MethodValue) for o in moment.body.all())


def _member(
    plan: Plan,
    speller: Speller,
    style: Style,
    member: Part,
    inner: str,
) -> Fragment:
    if isinstance(member, Method):
        return with_comments(
            speller,
            member.comments,
            member.entry,
            plan,
            _method(plan, speller, style, member, inner),
            inner,
        )
    if isinstance(member, LeftMember):
        text = speller.source.slice(member.span.start, member.span.end)
        return new(left_marker(member.rule, text), member.entry, member.rule)
    if isinstance(member, Moment):
        if member.when in ("made", "updating", *ENDING):
            body = drawn_moment(plan, speller, style, member, inner)
        elif member.when == "removed":
            if plan.merged:
                return Fragment()
            body = removal_effect(plan, speller, style, member, inner)
        else:
            body = effect(plan, speller, style, member, inner)
        return with_comments(speller, member.comments, member.entry, plan, body, inner)
    return Fragment()


def with_comments(
    speller: Speller, notes: tuple[Span, ...], entry: int, plan: Plan, body: Fragment, inner: str
) -> Fragment:
    """A member's text with the comments above it and the ones after it on its last line."""
    if not body:
        return body
    above = Fragment()
    after = Fragment()
    first = _first_copied(body)
    for note in notes:
        if first is not None and note.start > first:
            after += new(" ") + copy(note)
        else:
            above += copy(note) + new(f"\n{inner}")
    return above + body + after


def _first_copied(body: Fragment) -> int | None:
    starts = [piece.span.start for piece in body.pieces if piece.span is not None]
    return min(starts) if starts else None


def _method(plan: Plan, speller: Speller, style: Style, method: Method, inner: str) -> Fragment:
    name = plan.names[Member("method", method.name)]
    text = releveled(speller, method.text, inner)
    stable = method.name in plan.stable
    if method.form == "declared":
        if not stable:
            rule = "method-to-function"
            return new(f"{method.prefix} {name}", method.entry, rule) + text
        hook = style.hook("useCallback")
        if not method.uses_arguments and "*" not in method.prefix:
            return _arrow_callback(speller, style, method, f"const {name} = {hook}(")
        head = new(f"const {name} = {hook}({method.prefix} ", method.entry, "method-to-callback")
        return head + text + new(f", []){style.semicolon}")
    joint = "" if method.prefix == "typed" else " = "
    head = new(f"const {name}{joint}", method.entry, "method-to-constant")
    if not stable or method.prefix == "typed":
        return head + text + new(style.semicolon)
    return head + new(f"{style.hook('useCallback')}(") + text + new(f", []){style.semicolon}")


def _arrow_callback(speller: Speller, style: Style, method: Method, head: str) -> Fragment:
    """A method of the class as an arrow function that stays one and the same."""
    text = method.text
    prefix = "async " if method.prefix.startswith("async") else ""
    before = tuple(o for o in text.operations if o.span.start < method.body_at)
    inside = tuple(o for o in text.operations if o.span.start >= method.body_at)
    result = new(f"{head}{prefix}", method.entry, "method-to-callback")
    result += speller.between(text.span.start, method.body_at, before) + new("=> ")
    result += speller.between(method.body_at, text.span.end, inside)
    return result + new(f", []){style.semicolon}")


def _drawing(plan: Plan, speller: Speller, style: Style, inner: str) -> Fragment:
    component = plan.component
    assert component.view.drawing is not None
    body = trimmed(speller, speller.code(component.view.drawing)).shifted(-1)
    body = settled(component.entries["render"], "render-to-body") + body
    above = Fragment()
    for note in component.comments:
        above += copy(note) + new(f"\n{inner}")
    return above + body


# The statics that types of wrapped components know (`NamedExoticComponent` and what it is made of).
_KNOWN_STATICS = frozenset({"displayName", "propTypes", "defaultProps", "contextTypes"})


def _holds_statics(plan: Plan, speller: Speller) -> bool:
    """Whether statics are given where it is made: what is wrapped has no others by its type."""
    component = plan.component
    if (
        not plan.wrapped
        or not component.language.typed
        or component.language.annotated
        or component.place.decorators
    ):
        return False
    if all(static.name in _KNOWN_STATICS for static in component.statics):
        return False
    named = re.compile(rf"(?<![.\w]){re.escape(component.name)}\b")
    texts = (speller.source.slice(s.code.span.start, s.code.span.end) for s in component.statics)
    return not any(named.search(text) for text in texts)


def _held_static(speller: Speller, static: Static, inner: str) -> Fragment:
    """A static as a part of an object."""
    above = Fragment()
    for note in static.comments:
        above += copy(note) + new(f"\n{inner}")
    name = static.name if is_identifier(static.name) else f"'{static.name}'"
    head = f"{name}: "
    if static.method:
        words = static.method.replace("function", "").split()
        head = " ".join([*words, name]).replace("* ", "*")
    return (
        above
        + new(head, static.entry, "static-to-property")
        + releveled(speller, static.code, inner)
    )


def _static(plan: Plan, speller: Speller, static: Static, base: str, semi: str) -> Fragment:
    above = Fragment()
    for note in static.comments:
        above += copy(note) + new(f"\n{base}")
    name = plan.component.name
    member = f".{static.name}" if is_identifier(static.name) else f"['{static.name}']"
    prefix = f"{static.method} {static.name}" if static.method else ""
    head = new(f"{name}{member} = {prefix}", static.entry, "static-to-property")
    value = releveled(speller, static.code, base)
    return above + head + value + new(semi)
