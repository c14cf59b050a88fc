"""How a function component spells the operations of the neutral component."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from clean_carry.component.code import (
    Code,
    Differs,
    DraftState,
    FieldUse,
    Gone,
    Itself,
    Left,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    PatternRead,
    Picked,
    Read,
    Redraw,
    RootElement,
    SetterCall,
    StateWrite,
    WholeRead,
)
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, copy, dropped, joined, left, new, settled
from clean_carry.component.spans import Span
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.planning.plan import PROPS, STATE, WHOLES, Plan


@dataclass
class Speller:
    """Spells the code of one component by its plan."""

    plan: Plan
    source: SourceText
    semicolon: str
    unit: str
    renames: tuple[tuple[Span, str], ...] = ()
    inputs_from: str = ""
    state_from: str = ""
    bare: bool = False

    def before(self, source: str) -> str:
        """Return the place of earlier props or state, in code that runs during render; "" elsewhere."""
        return {"props": self.inputs_from, "state": self.state_from}.get(source, "")

    def code(self, code: Code) -> Fragment:
        """Verbatim text with every operation spelled."""
        return self.between(code.span.start, code.span.end, code.operations)

    def between(self, start: int, end: int, operations: tuple[Operation, ...]) -> Fragment:
        """Verbatim text from `start` to `end` with these operations spelled."""
        result = Fragment()
        here = start
        for operation in operations:
            result += self._verbatim(here, operation.span.start)
            result += self.operation(operation)
            here = self._end(operation)
        return result + self._verbatim(here, end)

    def _verbatim(self, start: int, end: int) -> Fragment:
        result = Fragment()
        for span, name in self.renames:
            if start <= span.start and span.end <= end:
                result += copy(self.source.span(start, span.start)) + new(name)
                start = span.end
        return result + copy(self.source.span(start, end))

    def _end(self, operation: Operation) -> int:
        """Where verbatim text goes on: a vanished declaration takes its line with it."""
        end = operation.span.end
        if not isinstance(operation, Gone) and not (
            isinstance(operation, PatternRead) and self.vanishes(operation)
        ):
            return end
        data = self.source.data
        look = end
        while look < len(data) and data[look : look + 1] in (b" ", b"\t"):
            look += 1
        if data[look : look + 1] != b"\n":
            return look
        before = data[self.source.line_start(operation.span.start) : operation.span.start]
        if before.strip():
            return end
        look += 1
        line = data[look : data.find(b"\n", look) if data.find(b"\n", look) >= 0 else len(data)]
        if not line.strip():
            look = data.find(b"\n", look) + 1 or look
        while look < len(data) and data[look : look + 1] in (b" ", b"\t"):
            look += 1
        return look

    def vanishes(self, pattern: PatternRead) -> bool:
        """Whether a pattern is not written because its names are in scope."""
        return pattern.entry in self.plan.removed_patterns or pattern is self.plan.lifted

    def operation(self, operation: Operation) -> Fragment:
        """Spell one operation."""
        return _SPELL[type(operation)](self, operation)

    def name(self, member: Member) -> str:
        """The local name of a member; raises `UnsettledEntry` for one that nothing declares."""
        if member not in self.plan.names:
            start = self.plan.component.span.start
            raise UnsettledEntry(f"{member.name} is used and was not read", start)
        return self.plan.names[member]

    def value_text(self, member: Member, later: bool) -> str:
        """The expression for an input or a state field."""
        plan = self.plan
        whole = PROPS if member.kind == "prop" else STATE
        before = self.before("props" if member.kind == "prop" else "state")
        if before and not later:
            return before + access(member.name)
        if whole in plan.names:
            holder = plan.names[whole]
            if later and whole in plan.latest:
                holder = plan.latest[whole]
            return holder + access(member.name)
        if later and member in plan.latest:
            return plan.latest[member]
        return plan.names[member]


def access(name: str) -> str:
    """`.name`, or `['na-me']` where it is no identifier."""
    return f".{name}" if is_identifier(name) else f"['{name}']"


def _read(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, Read)
    later = operation.entry in speller.plan.later
    text = speller.value_text(operation.member, later)
    head = "" if operation.shorthand == f"{text}: " else operation.shorthand
    return new(head + text, operation.entry, "read-by-name")


def _whole_read(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, WholeRead)
    whole = WHOLES[operation.source]
    text = speller.name(whole)
    if operation.entry in speller.plan.later and whole in speller.plan.latest:
        text = speller.plan.latest[whole]
    else:
        text = speller.before(operation.source) or text
    return new(text, operation.entry, "read-whole")


def _draft_state(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, DraftState)
    name = speller.plan.previous["draft"]
    text = {"made": f"const {name}", "result": "return ", "named": name}[operation.form]
    return new(text, operation.entry, "state-made-by-initialiser")


def _root_element(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, RootElement)
    name = speller.name(Member("element", operation.name))
    text = f"ref={{{name}}}" if operation.mark else f"{name}.current"
    if operation.mark and operation.span.start == operation.span.end:
        text = f" {text}"
    if operation.bare:
        text = name
    if operation.local:
        text = f"{operation.local} = {text}"
    if operation.next:
        indent = speller.source.indent_at(operation.span.start)
        text += f"{speller.semicolon}\n{indent}{operation.next} "
    return new(text, operation.entry, "root-element-reference")


def _field_use(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, FieldUse)
    plan = speller.plan
    name = speller.name(operation.member)
    if operation.member.kind == "element":
        return new(name, operation.entry, "element-reference")
    if operation.member.name in plan.effect_locals:
        keyword, entry = plan.effect_locals[operation.member.name]
        text = f"{keyword} {name}" if entry == operation.entry else name
        return new(text, operation.entry, "field-to-effect-local")
    if operation.member.name in plan.once:
        return new(name, operation.entry, "field-made-once")
    return new(f"{name}.current", operation.entry, "field-to-reference")


def _method_call(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, MethodCall)
    call = "()" if operation.getter else operation.opens
    return new(f"{speller.name(operation.member)}{call}", operation.entry, "method-by-name")


def _differs(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, Differs)
    asked = "Object.is(" if operation.same else "!Object.is("
    head = new(asked, operation.entry, "difference-by-identity")
    return (
        head + speller.code(operation.left) + new(", ") + speller.code(operation.right) + new(")")
    )


def _setter_call(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, SetterCall)
    head = new(f"{speller.name(operation.member)}(", operation.entry, "setter-to-call")
    return head + speller.code(operation.value) + new(")")


def _itself(speller: Speller, operation: Operation) -> Fragment:
    return new(speller.plan.component.name, operation.entry, "own-static-by-name")


def _redraw(speller: Speller, operation: Operation) -> Fragment:
    return new(f"{speller.plan.previous['redraw']}()", operation.entry, "redraw-by-count")


def _method_value(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, MethodValue)
    text = speller.name(operation.member)
    head = "" if operation.shorthand == f"{text}: " and not operation.bound else operation.shorthand
    name = new(head + text, operation.entry, "method-by-name")
    if not operation.bound:
        return name
    arguments = joined((speller.code(code) for code in operation.bound), ", ")
    return name + new(".bind(null, ") + arguments + new(")")


def _picked(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, Picked)
    end = ""
    if operation.next:
        indent = speller.source.indent_at(operation.span.start)
        end = f"{speller.semicolon}\n{indent}{operation.next} "
    head = new(f"{operation.local} = ", operation.entry, "pattern-by-name")
    return head + speller.operation(operation.taken) + new(end)


def _gone(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, Gone)
    return dropped(operation.entry, operation.rule)


def _left(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, Left)
    text = speller.source.slice(operation.span.start, operation.span.end)
    statement = text.rstrip().endswith(";")
    marker = left_marker(operation.rule, text)
    component = speller.plan.component
    cast = "(undefined: any)" if component.language.annotated else "(undefined as any)"
    nothing = cast if component.language.typed else "undefined"
    return left(marker if statement else f"{nothing} {marker}", operation.entry, operation.rule)


def left_marker(rule: str, text: str) -> str:
    """The comment that quotes what was left, escaped for standing in a block comment."""
    quoted = text.replace("*/", "*\\/")
    return f"/* left to you ({rule}): {quoted} */"


def _pattern_read(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, PatternRead)
    plan = speller.plan
    whole = PROPS if operation.source == "props" else STATE
    if speller.vanishes(operation):
        rule = "inputs-already-in-scope"
        if operation is plan.lifted:
            return settled(operation.entry, "pattern-to-signature")
        return dropped(operation.entry, rule)
    later = operation.entry in plan.later
    if whole in plan.names:
        text = plan.names[whole]
        if later and whole in plan.latest:
            text = plan.latest[whole]
        else:
            text = speller.before(operation.source) or text
        inside = operation.pattern
        start = operation.span.start
        ops = inside.operations
        head = speller.between(start, operation.right.start, ops)
        tail = copy(speller.source.span(operation.right.end, operation.span.end))
        return head + new(text, operation.entry, "pattern-over-whole") + tail
    kind = "prop" if operation.source == "props" else "state"
    indent = speller.source.indent_at(operation.span.start)
    lines = []
    for binding in operation.bindings or ():
        member = Member("prop" if kind == "prop" else "state", binding.key)
        value = speller.value_text(member, later)
        lines.append(f"{operation.keyword} {binding.local} = {value}{speller.semicolon}")
    return new(f"\n{indent}".join(lines), operation.entry, "pattern-by-name")


def _state_write(speller: Speller, operation: Operation) -> Fragment:
    assert isinstance(operation, StateWrite)
    plan = speller.plan
    if plan.layout == "whole":
        writer = new(plan.setters["*"], operation.entry, "write-whole")
        before = copy(speller.source.span(operation.callee.end, operation.argument.span.start))
        if operation.after is not None:
            return _followed(speller, operation, writer)
        after = copy(speller.source.span(operation.argument.span.end, operation.span.end))
        return writer + before + speller.code(operation.argument) + after
    calls = [_set_call(speller, operation, number) for number in range(_write_count(operation))]
    if operation.after is not None:
        calls.insert(0, _noted(speller, operation))
    return settled(operation.entry, "write-by-field") + _calls(speller, operation, calls)


def _calls(speller: Speller, operation: StateWrite, calls: list[Fragment]) -> Fragment:
    """Several calls where the one call of a write stood."""
    if len(calls) == 1:
        return calls[0]
    indent = speller.source.indent_at(operation.span.start)
    match operation.position:
        case "statement":
            return joined(calls, f"{speller.semicolon}\n{indent}")
        case "arrow body":
            inner = f"{speller.semicolon} "
            return new("{ ") + joined(calls, inner) + new(f"{speller.semicolon} }}")
        case _:
            return new("(") + joined(calls, ", ") + new(")")


def _noted(speller: Speller, operation: StateWrite) -> Fragment:
    """The call that notes what is to be called once a write is rendered."""
    assert operation.after is not None
    indent = speller.source.indent_at(operation.span.start)
    name = speller.plan.previous["after"]
    return new(f"{name}(") + releveled(speller, operation.after, indent) + new(")")


def _followed(speller: Speller, operation: StateWrite, head: Fragment) -> Fragment:
    """A write, and what is to be called after it: noted first, as the write may render at once."""
    indent = speller.source.indent_at(operation.span.start)
    write = head + new("(") + releveled(speller, operation.argument, indent) + new(")")
    settle = settled(operation.entry, "write-and-what-follows")
    return settle + _calls(speller, operation, [_noted(speller, operation), write])


def _write_count(operation: StateWrite) -> int:
    if operation.fields is not None:
        return len(operation.fields)
    assert operation.updater is not None and operation.updater.result is not None
    return len(operation.updater.result)


def set_calls(speller: Speller, operation: StateWrite) -> list[Fragment]:
    """The calls that write what a literal write gives, one for each field where state is split."""
    whole = settled(operation.entry, "derived-to-draw")
    if speller.plan.layout == "whole":
        setter = new(f"{speller.plan.setters['*']}(")
        return [whole + setter + speller.code(operation.argument) + new(")")]
    calls = [_set_call(speller, operation, number) for number in range(_write_count(operation))]
    return [whole + calls[0], *calls[1:]]


def _set_call(speller: Speller, operation: StateWrite, number: int) -> Fragment:
    plan = speller.plan
    if operation.fields is not None:
        patch = operation.fields[number]
        value = speller.code(patch.value) if patch.value is not None else new(patch.name)
        if patch.function:
            value = new("() => ") + value
        return new(f"{plan.setters[patch.name]}(") + value + new(")")
    updater = operation.updater
    assert updater is not None and updater.result is not None
    patch = updater.result[0]
    assert patch.value is not None
    name = plan.names[Member("state", patch.name)]
    spans = [span for span, _ in updater.own if patch.value.span.holds(span)]
    body = renamed(speller, patch.value, [(span, name) for span in spans])
    if speller.source.slice(patch.value.span.start, patch.value.span.end).startswith("{"):
        body = new("(") + body + new(")")
    parameter = name if speller.bare else f"({name})"
    return new(f"{plan.setters[patch.name]}({parameter} => ") + body + new(")")


def renamed(speller: Speller, code: Code, names: list[tuple[Span, str]]) -> Fragment:
    """The code spelled, with these spans (reads of parameters that go) replaced by names."""
    return replace(speller, renames=tuple(sorted(names))).code(code)


_SPELL: dict[type, Callable[[Speller, Operation], Fragment]] = {
    Read: _read,
    WholeRead: _whole_read,
    DraftState: _draft_state,
    RootElement: _root_element,
    FieldUse: _field_use,
    MethodCall: _method_call,
    SetterCall: _setter_call,
    Itself: _itself,
    Redraw: _redraw,
    Differs: _differs,
    MethodValue: _method_value,
    Gone: _gone,
    Left: _left,
    PatternRead: _pattern_read,
    Picked: _picked,
    StateWrite: _state_write,
}


def trimmed(speller: Speller, fragment: Fragment) -> Fragment:
    """Without the white space before the first and after the last of it."""
    pieces = list(fragment.pieces)
    while pieces:
        span = pieces[0].span
        if span is None:
            if pieces[0].text or pieces[0].entry >= 0:
                break
            pieces.pop(0)
            continue
        text = speller.source.data[span.start : span.end]
        lost = len(text) - len(text.lstrip())
        if lost == len(text):
            pieces.pop(0)
            continue
        pieces[0] = type(pieces[0])(
            span=Span(span.start + lost, span.end, span.file), shift=pieces[0].shift
        )
        break
    while pieces:
        span = pieces[-1].span
        if span is None:
            break
        text = speller.source.data[span.start : span.end]
        kept = len(text.rstrip())
        if kept == 0:
            pieces.pop()
            continue
        pieces[-1] = type(pieces[-1])(
            span=Span(span.start, span.start + kept, span.file), shift=pieces[-1].shift
        )
        break
    return Fragment(pieces)


def releveled(speller: Speller, code: Code, indent: str) -> Fragment:
    """The code spelled, with its later lines indented for standing on a line indented by `indent`."""
    unit = len(speller.unit)
    here = speller.source.indent_at(code.span.start)
    levels = [len(text.replace("\t", speller.unit)) // unit for text in (indent, here)]
    return speller.code(code).shifted(levels[0] - levels[1])
