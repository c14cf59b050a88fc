"""State, references and latest values: the lines a function component opens with."""

from __future__ import annotations

from typing import TYPE_CHECKING

from clean_carry.component.code import (
    Code,
    DraftState,
    Left,
    Member,
    PatternRead,
    Read,
    StateWrite,
)
from clean_carry.component.fragment import Fragment, breaks, copy, length, new, settled
from clean_carry.component.members import InstanceField, LeftMember, State, StateField
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.operations import Speller, releveled
from clean_carry.syntaxes.jsx_function.planning.plan import PROPS, STATE, Plan, WholeReason

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_function.write import Style


def _inner(speller: Speller, style: Style) -> str:
    return speller.source.indent_at(speller.plan.component.span.start) + style.unit


def noted(notes: tuple[Span, ...], at: int, line: Fragment, inner: str) -> Fragment:
    """A line with its comments: those before `at` above it, the others behind it."""
    above = Fragment()
    after = Fragment()
    for note in notes:
        if note.start > at:
            after += new(" ") + copy(note)
        else:
            above += copy(note) + new(f"\n{inner}")
    return above + line + after


def state_lines(plan: Plan, speller: Speller, style: Style) -> list[Fragment]:
    """The lines that make the state."""
    component = plan.component
    state = component.state
    if plan.layout == "none":
        return []
    if plan.layout == "whole":
        return [_whole_state(plan, speller, style)]
    lines: list[Fragment] = []
    inner = _inner(speller, style)
    declared = {f.name: f for f in (state.fields or ())} if state is not None else {}
    gone = Fragment()
    for name in plan.setters:
        field = declared.get(name)
        line = _state_line(plan, speller, style, name, field)
        if not any(piece.span is not None or piece.text for piece in line.pieces):
            gone += line
            continue
        if field is not None and field.comment is not None:
            line = copy(field.comment) + new(f"\n{inner}") + line
        lines.append(line)
    if state is not None and lines:
        first = settled(state.entry, "state-by-field") + gone + lines[0]
        lines[0] = noted(state.comments, _start(plan), first, inner)
    elif state is not None:
        lines.append(settled(state.entry, "state-by-field") + gone)
    return _without_empty(lines)


def redraw_line(plan: Plan, style: Style) -> list[Fragment]:
    """Return the counter that forces a re-render."""
    name = plan.previous.get("redraw")
    if name is None:
        return []
    count = "(count: number)" if plan.component.language.typed else style.one("count")
    hook = style.hook("useReducer")
    return [new(f"const [, {name}] = {hook}({count} => count + 1, 0){style.semicolon}")]


def _start(plan: Plan) -> int:
    state = plan.component.state
    return state.whole.span.start if state is not None and state.whole is not None else 0


def _state_line(
    plan: Plan, speller: Speller, style: Style, name: str, field: StateField | None
) -> Fragment:
    inner = _inner(speller, style)
    local = plan.names[Member("state", name)]
    used = any(
        getattr(patch, "name", "") == name
        for _, operation in plan.component.operations()
        for patch in _patches(operation)
    )
    read = _is_read(plan, name)
    if not read and not used and field is not None and _is_plain(field):
        return settled(field.entry, "state-never-used", "dropped")
    pair = f"[{local if read else ''}, {plan.setters[name]}]" if used else f"[{local}]"
    hook = style.hook("useState")
    state = plan.component.state
    kind = ""
    if plan.component.language.typed and state is not None and state.type_text:
        kind = f"<{_field_type(plan, state.type_text, name)}>"
    named = used or read
    value = (
        releveled(speller, field.code, inner) if field is not None and field.code else Fragment()
    )
    end = f"){style.semicolon}"
    head = new(f"const {pair} = {hook}{kind}(" if named else f"{hook}{kind}(")
    flat = style.fit.columns(inner) + length(head) + length(value) + len(end)
    if named and flat > style.fit.width and _is_short(value, speller, style):
        head = new(f"const {pair} =\n{inner}{style.unit}{hook}{kind}(")
    if field is None or field.code is None:
        return head + new(end)
    if field.lazy:
        text = speller.source.slice(field.code.span.start, field.code.span.end)
        value = new("() => ") + (new("(") + value + new(")") if text[:1] == "{" else value)
    return settled(field.entry, "state-field-to-hook") + head + value + new(f"){style.semicolon}")


def _is_short(value: Fragment, speller: Speller, style: Style) -> bool:
    """Whether an argument is so short that a call of it alone is not broken into lines."""
    return not breaks(value, speller.source.slice) and length(value) <= style.fit.width // 4


def _is_plain(field: StateField) -> bool:
    """Whether nothing is lost with a field nobody uses: its value is a literal, no comment tells of it."""
    literal = field.code is None or not field.code.operations
    return literal and not field.lazy and field.comment is None


def _is_read(plan: Plan, name: str) -> bool:
    """Whether anything reads a field of the state."""
    left = any(isinstance(member, LeftMember) for member in plan.component.members)
    if left:
        return True
    for _, operation in plan.component.operations():
        match operation:
            case Left():
                return True
            case Read(member=Member(kind="state", name=read)) if read == name:
                return True
            case PatternRead(source="state", bindings=bindings):
                if bindings is None or any(b.key == name for b in bindings):
                    return True
    before = [m.previous_state for m in plan.component.moments("updated")]
    if any(p is not None and (p.names is None or name in p.names) for p in before):
        return True
    return any(m.kind == "state" and m.name == name for m in plan.latest)


def _patches(operation: object) -> tuple[object, ...]:
    fields = getattr(operation, "fields", None)
    if fields:
        return tuple(fields)
    updater = getattr(operation, "updater", None)
    return tuple(updater.result or ()) if updater is not None else ()


def _field_type(plan: Plan, type_text: str, name: str) -> str:
    """The type of a field of the state, in the words of the file's own type language."""
    if plan.component.language.annotated:
        return f"$PropertyType<{' '.join(type_text.split())}, '{name}'>"
    if type_text.lstrip().startswith("{"):
        written = _written_type(type_text, name)
        return written or f"({' '.join(type_text.split())})['{name}']"
    return f"{type_text}['{name}']"


def _written_type(type_text: str, name: str) -> str:
    """The type that a field has in an object type written in place; "" where it is not seen there."""
    tree = Tree(SourceText("type.ts", f"type Of = {type_text};".encode()))
    literal = next(iter(tree.of("object_type")), None)
    for field in literal.named_children if literal is not None else ():
        key, kind = field.child("name"), field.child("type")
        if field.type == "property_signature" and key is not None and kind is not None:
            if property_name(key) == name and "\n" not in kind.text:
                optional = " | undefined" if field.has("?") else ""
                return kind.text.removeprefix(":").strip() + optional
    return ""


# The comment above a reducer: why the state is not held field by field.
_WHY_WHOLE: dict[WholeReason, str] = {
    "updaters with props": "A reducer, since updaters read the props of the render they run in.",
    "callbacks": "A reducer renders after every write, also an equal one, so that callbacks are called.",
    "changed in place": "A reducer renders after every write: values are changed in place.",
    "made whole": "One object, as it is made and called as a whole.",
    "read whole": "One object, since code reads all of it.",
    "written together": "One object, since a write may be of several fields, or of none.",
    "written while rendering": "A reducer keeps what is written while rendering.",
    "every render counts": "A reducer renders after every write, also an equal one, as the class did.",
}


def _whole_state(plan: Plan, speller: Speller, style: Style) -> Fragment:
    component = plan.component
    state = component.state
    inner, semi = _inner(speller, style), style.semicolon
    used = any(_writes(operation) for _, operation in component.operations())
    if not used and state is not None and state.whole is not None and not state.body:
        return _fixed_state(plan, state, speller, style)
    pair = f"[{plan.names[STATE]}, {plan.setters['*']}]" if used else f"[{plan.names[STATE]}]"
    head = f"const {pair} = {style.hook('useReducer')}("
    reducer = _reducer(plan, style, inner)
    why = new(f"// {_WHY_WHOLE[plan.whole_reason]}\n{inner}")
    if state is None or state.whole is None:
        return why + new(f"{head}{reducer}, {{}}){semi}")
    fields = Fragment()
    for field in state.fields or ():
        fields += settled(field.entry, "state-whole", "kept")
    lazy = "undefined, " if state.lazy else ""
    text = speller.source.slice(state.whole.span.start, state.whole.span.end)
    arrow = (
        f"(){f': {state.type_text}' if component.language.typed and state.type_text else ''} => "
    )
    opens = f"{arrow}{{" if state.body else f"{arrow if state.lazy else ''}{text.split(chr(10))[0]}"
    broken = "\n" in reducer or style.fit.columns(
        f"{inner}{head}{reducer}, {lazy}{opens}{'' if state.body or chr(10) in text else f'){semi}'}"
    ) > style.fit.width  # fmt: skip
    level = inner + style.unit if broken else inner
    value = releveled(speller, state.whole, level)
    if state.body:
        value = new(arrow) + _made(plan, speller, style, state.whole, level)
    elif state.lazy:
        value = new(arrow) + (new("(") + value + new(")") if text[:1] == "{" else value)
    if broken:
        deep = f"\n{level}"
        parts = [_reducer(plan, style, level), *(["undefined"] if lazy else [])]
        first = new(head + "".join(f"{deep}{part}," for part in parts) + deep)
        line = first + value + new(f"{style.comma}\n{inner}){semi}")
    else:
        line = new(f"{head}{reducer}, {lazy}") + value + new(f"){semi}")
    line = settled(state.entry, "state-whole") + fields + why + line
    return noted(state.comments, _start(plan), line, inner)


def _fixed_state(plan: Plan, state: State, speller: Speller, style: Style) -> Fragment:
    """A state that code reads as one object and never writes."""
    assert state.whole is not None
    inner, semi = _inner(speller, style), style.semicolon
    fields = Fragment()
    for field in state.fields or ():
        fields += settled(field.entry, "state-whole", "kept")
    value = releveled(speller, state.whole, inner)
    text = speller.source.slice(state.whole.span.start, state.whole.span.end)
    kind = f"<{_kind(plan)}>" if plan.component.language.typed else ""
    if state.lazy:
        value = new("() => ") + (new("(") + value + new(")") if text[:1] == "{" else value)
    head = new(f"const [{plan.names[STATE]}] = {style.hook('useState')}{kind}(")
    line = settled(state.entry, "state-whole") + fields + head + value + new(f"){semi}")
    return noted(state.comments, _start(plan), line, inner)


def _reducer(plan: Plan, style: Style, inner: str) -> str:
    """The function that puts a change into the state; `inner` is the indentation it stands at."""
    component, local, semi = plan.component, plan.names[STATE], style.semicolon
    if component.language.typed:
        kind = _kind(plan)
        patch = f"$Shape<{kind}>" if component.language.annotated else f"Partial<{kind}>"
        arguments = f"({local}: {kind}, change: {patch}"
        if plan.updaters:
            skipped = " | null" if plan.may_skip else ""
            taken = f"before: {kind}{_inputs_taken(plan)}"
            arguments += f" | (({taken}) => {patch}{skipped})"
    else:
        arguments = f"({local}, change"
    given = local
    if plan.whole_reason == "updaters with props":
        given = f"{local}, {plan.names[PROPS]}"
    change = f"typeof change === {style.quote}function{style.quote} ? change({given}) : change"
    deep = inner + style.unit
    if component.view.pure and not plan.always_draws:
        return _pure_reducer(plan, arguments, local, change if plan.updaters else "", inner, style)
    if plan.may_skip and not plan.always_draws:
        made = f"return patch == null ? {local} : {{ ...{local}, ...patch }}{semi}"
        return f"{arguments}) => {{\n{deep}const patch = {change}{semi}\n{deep}{made}\n{inner}}}"
    parts = [f"...{local}", f"...({change})" if plan.updaters else "...change"]
    flat = f"{arguments}) => ({{ {', '.join(parts)} }})"
    if style.fit.columns(f"{inner}{flat},") <= style.fit.width:
        return flat
    lines = f",\n{deep}".join(parts)
    return f"{arguments}) => ({{\n{deep}{lines},\n{inner}}})"


def _inputs_taken(plan: Plan) -> str:
    """The second parameter of updaters, in a typed file, where some take the inputs."""
    if plan.whole_reason != "updaters with props":
        return ""
    name = plan.names[PROPS]
    return f", {name}: any" if plan.component.language.annotated else f", {name}: typeof {name}"


def _kind(plan: Plan) -> str:
    """The type of the state, as far as one is given."""
    state = plan.component.state
    return (state.type_text if state is not None else "") or "any"


def _pure_reducer(
    plan: Plan, arguments: str, local: str, change: str, inner: str, style: Style
) -> str:
    """A reducer that gives the state itself back where no field of it changes."""
    deep, semi = inner + style.unit, style.semicolon
    patch, lines = ("patch", [f"const patch = {change}{semi}"]) if change else ("change", [])
    empty = f"{patch} == null || " if plan.may_skip else ""
    keys = f"Object.keys({patch})"
    if plan.component.language.typed and not plan.component.language.annotated:
        keys = f"({keys} as (keyof {_kind(plan)})[])"
    same = f"{keys}.every({style.one('key')} => Object.is({patch}[key], {local}[key]))"
    line = f"const same = {empty}{same}{semi}"
    if style.fit.columns(f"{deep}{line}") > style.fit.width:
        broken = f"\n{deep}{style.unit}"
        line = f"const same ={broken}{f'{empty.strip()}{broken}' if empty else ''}{same}{semi}"
    lines.append(line)
    lines.append(f"return same ? {local} : {{ ...{local}, ...{patch} }}{semi}")
    return f"{arguments}) => {{\n" + "".join(f"{deep}{line}\n" for line in lines) + f"{inner}}}"


def _made(plan: Plan, speller: Speller, style: Style, code: Code, inner: str) -> Fragment:
    """The body of a function of the statements that make the state."""
    forms = {o.form for o in code.all() if isinstance(o, DraftState)}
    name, semi, deep = plan.previous["draft"], style.semicolon, inner + style.unit
    head = "" if forms & {"made", "result"} else f"let {name}{semi}\n{deep}"
    end = "" if "result" in forms else f"\n{deep}return {name}{semi}"
    body = releveled(speller, code, deep)
    return new(f"{{\n{deep}{head}") + body + new(f"{end}\n{inner}}}")


def _writes(operation: object) -> bool:
    return isinstance(operation, StateWrite)


def field_lines(
    plan: Plan, speller: Speller, style: Style, only: frozenset[str] | None = None
) -> list[Fragment]:
    """The lines that make references for instance fields; for those named `only`, where given."""
    lines: list[Fragment] = []
    inner = _inner(speller, style)
    for field in plan.component.fields:
        if only is not None and field.name not in only:
            continue
        member = Member("element" if field.element else "field", field.name)
        settle = settled(field.entry, "field-to-reference") if field.entry >= 0 else Fragment()
        notes_at = field.code.span.start if field.code is not None else 0
        if field.name in plan.effect_locals and not field.element:
            line = settle
            if field.comments:
                above = Fragment()
                for number, note in enumerate(field.comments):
                    above += (new(f"\n{inner}") if number else Fragment()) + copy(note)
                lines.append(above + line)
            elif line:
                lines.append(line)
            continue
        line = settle + _reference(plan, speller, style, field, plan.names[member], inner)
        lines.append(noted(field.comments, notes_at or 1 << 60, line, inner))
    return _without_empty(lines)


def _without_empty(lines: list[Fragment]) -> list[Fragment]:
    """Join lines that only settle entries to the next one, so that no blank line is left."""
    result: list[Fragment] = []
    carry = Fragment()
    for line in lines:
        if any(piece.span is not None or piece.text for piece in line.pieces):
            result.append(carry + line)
            carry = Fragment()
        else:
            carry += line
    if carry:
        if result:
            result[-1] += carry
        else:
            result.append(carry)
    return result


def _reference(
    plan: Plan, speller: Speller, style: Style, field: InstanceField, name: str, inner: str
) -> Fragment:
    semi = style.semicolon
    hook = style.hook("useRef") if field.element or not field.lazy else ""
    kind = f"<{field.type_text}>" if field.type_text and plan.component.language.typed else ""
    if field.element:
        return new(f"const {name} = {hook}{kind}(null){semi}")
    if field.code is None:
        initial = "undefined" if plan.component.language.typed else ""
        return new(f"const {name} = {hook}{kind}({initial}){semi}")
    value = releveled(speller, field.code, inner)
    if not field.lazy:
        return new(f"const {name} = {hook}{kind}(") + value + new(f"){semi}")
    text = speller.source.slice(field.code.span.start, field.code.span.end)
    if text[:1] == "{":
        value = new("(") + value + new(")")
    once = field.name in plan.once
    local = name if once else plan.previous[f"initial {field.name}"]
    made = new(f"const [{local}] = {style.hook('useState')}{kind}(() => ") + value
    reference = (
        "" if once else f"\n{inner}const {name} = {style.hook('useRef')}{kind}({local}){semi}"
    )
    return made + new(f"){semi}{reference}")


def latest_lines(plan: Plan, speller: Speller, style: Style, *, first: bool) -> list[Fragment]:
    """References that hold the latest value, for code that runs later; `first` those that initial values
    need."""
    lines: list[Fragment] = []
    for name, members in plan.references.items():
        if first != (plan.inputs_first and members[0].kind == "prop"):
            continue
        held = plan.names[members[0]]
        if len(members) > 1:
            held = _together([plan.names[m] for m in members], name, style, _inner(speller, style))
        lines.append(new(f"const {name} = {style.hook('useRef')}({held}){style.semicolon}"))
        if members != (PROPS,) or not plan.receiving:
            lines.append(new(f"{name}.current = {held}{style.semicolon}"))
    return lines


def _together(names: list[str], reference: str, style: Style, inner: str) -> str:
    """An object of these names, one a line where it is too wide for one."""
    flat = f"{{ {', '.join(names)} }}"
    if style.fit.columns(f"{inner}const {reference} = useRef({flat});") <= style.fit.width:
        return flat
    return "{" + "".join(f"\n{inner}{style.unit}{name}," for name in names) + f"\n{inner}}}"


def received_line(plan: Plan, style: Style) -> list[Fragment]:
    """From here on methods see the inputs that came, where some had to see those before until now."""
    if not plan.receiving or PROPS not in plan.latest:
        return []
    return [new(f"{plan.latest[PROPS]} = {plan.names[PROPS]}{style.semicolon}")]
