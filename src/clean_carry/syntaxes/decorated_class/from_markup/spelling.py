"""The text of each operation of a component in a class with signals, and in its template.

State, inputs and derived values are signals: they are called to be read. A field that nothing writes is a
plain one, and so are those that are not rendered.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from clean_carry.component.code import (
    Assign,
    Builtin,
    Changed,
    Code,
    Emit,
    FieldUse,
    Filtered,
    Gone,
    Left,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    Rebound,
    Respelled,
    Taken,
)
from clean_carry.component.fragment import Fragment, between, dropped, joined, new
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.from_markup.names import ClassNames
from clean_carry.syntaxes.unsaid import Unsaid

# A copy of what a field holds, by what that is.
_COPIES = {
    "list": "[...{0}]",
    "object": "{{ ...{0} }}",
    "set": "new Set({0})",
    "map": "new Map({0})",
}


@dataclass
class Speller:
    """Writes the operations of one component.

    `written` are the fields of state that change, `containers` what they hold, `inner` the stretches of
    functions that have a `this` of their own; `listed` are names of elements in lists, `filters` methods
    that a template calls as filters. `core` are the functions of the runtime that are used, `asked` the
    helpers of the class. In the `template` nothing stands before a name.
    """

    names: ClassNames
    source: SourceText
    end: str
    unit: str
    quote: str
    written: frozenset[str]
    containers: dict[str, str]
    inner: tuple[tuple[int, int], ...]
    listed: frozenset[str]
    models: frozenset[str]
    setters: frozenset[str]
    start: int
    width: int
    last: str
    core: set[str] = field(default_factory=set)
    asked: set[str] = field(default_factory=set)
    template: bool = False
    used_own: bool = False
    root: str = ""
    # Assignments that a forced update stands for in a listener: the field gets its bound value back.
    put_back: list[str] = field(default_factory=list)

    @contextmanager
    def in_template(self) -> Iterator[None]:
        """While code of the template is spelled."""
        before, self.template = self.template, True
        try:
            yield
        finally:
            self.template = before

    def code(self, code: Code) -> Fragment:
        """Code with its operations spelled."""
        return between(code.span, code.operations, self.spell)

    def of_core(self, name: str) -> str:
        """A function of the runtime, which is imported then."""
        self.core.add(name)
        return name

    def ask(self, helper: str) -> str:
        """A member of the class that only new code needs, which is written then."""
        self.asked.add(helper)
        return self.names.helper(helper, helper)

    def tell(self, name: str) -> str:
        """The name of the method that sets a copy of a field whose list or object was changed in place."""
        self.asked.add(f"tell {name}")
        return self.names.helper(f"tell {name}", f"refresh{name[:1].upper()}{name[1:]}")

    def holder(self, at: int) -> str:
        """The text before a member at an offset."""
        if self.template:
            return ""
        if any(start <= at < end for start, end in self.inner):
            self.used_own = True
            return "self."
        return "this."

    def value(self, member: Member, at: int) -> str:
        """A member as an expression."""
        name = f"{self.holder(at)}{self.names.of(member)}"
        match member.kind:
            case "prop" | "derived" | "injected":
                return f"{name}()"
            case "state":
                return f"{name}()" if self.is_signal(member.name) else name
            case "element" if member.name in self.listed:
                return f"{name}().map((one) => one.nativeElement)"
            case "element":
                return f"{name}()?.nativeElement"
        return name

    def is_signal(self, name: str) -> bool:
        """Whether a field of state changes, so that it is a signal."""
        return name in self.written

    def write(self, member: Member, at: int, value: Fragment) -> Fragment:
        """A call that gives a member a value."""
        name = self.names.of(member)
        if member.kind == "derived":
            if member.name not in self.setters:
                raise Unsaid("derived-written", member.name, at)
            setter = self.names.helper(f"set {member.name}", f"set{name[:1].upper()}{name[1:]}")
            return new(f"{self.holder(at)}{setter}(") + value + new(")")
        if member.kind == "prop" and member.name not in self.models:
            raise Unsaid("input-written", member.name, at)
        return new(f"{self.holder(at)}{name}.set(") + value + new(")")

    def changed(self, name: str, at: int) -> str:
        """A call that sets a field to a copy of its list or object, which was changed in place."""
        form = self.containers.get(name, "")
        if not form:
            raise Unsaid("alias-not-followed", name, self.start)
        place = f"{self.holder(at)}{self.names.of(Member('state', name))}"
        return f"{place}.set({_COPIES[form].format(f'{place}()')})"

    def spell(self, operation: Operation) -> Fragment:
        """The fragment that stands in the place of an operation."""
        for kind, write in _SPELLED.items():
            if isinstance(operation, kind):
                found: Fragment = write(self, operation)
                return found
        raise Unsaid("not-in-target", self._shown(operation), operation.span.start)

    def _shown(self, operation: Operation) -> str:
        return self.source.slice(*operation.span[:2])[:40]

    def _left(self, one: Left) -> Fragment:
        raise Unsaid(one.rule, one.detail, one.span.start)

    def _read(self, one: Read) -> Fragment:
        text = one.shorthand + self.value(one.member, one.span.start)
        return new(text, one.entry, "read-of-signal")

    def _field(self, one: FieldUse) -> Fragment:
        return new(self.value(one.member, one.span.start), one.entry, "member-of-class")

    def _call(self, one: MethodCall) -> Fragment:
        return new(self.value(one.member, one.span.start), one.entry, "member-of-class")

    def _method(self, one: MethodValue) -> Fragment:
        text = one.shorthand + self.value(one.member, one.span.start)
        return new(text, one.entry, "member-of-class")

    def _rebound(self, one: Rebound) -> Fragment:
        return new(self.value(one.member, one.span.start), one.entry, "member-of-class")

    def _respelled(self, one: Respelled) -> Fragment:
        return new(one.text, one.entry, one.rule)

    def _gone(self, one: Gone) -> Fragment:
        return dropped(one.entry, one.rule)

    def _emit(self, one: Emit) -> Fragment:
        if len(one.arguments) > 1:
            raise Unsaid("event-of-several", one.event, one.span.start)
        event = one.event
        model = event.removeprefix("update:")
        if event.startswith("update:") and model in self.models:
            name = self.names.of(Member("prop", model))
            call = f"{self.holder(one.span.start)}{name}.set("
        else:
            call = f"{self.holder(one.span.start)}{self.names.output(event)}.emit("
        given = [self.code(code) for code in one.arguments]
        return new(call, one.entry, "event-to-output") + joined(given, ", ") + new(")")

    def _assign(self, one: Assign) -> Fragment:
        at, name = one.span.start, one.member.name
        if one.used:
            raise Unsaid("write-returned", name, at)
        settle = new("", one.entry, "write-to-signal")
        now = new(self.value(one.member, at))
        if one.operator in ("++", "--"):
            value = now + new(f" {one.operator[0]} 1")
            return settle + self.write(one.member, at, value)
        assert one.value is not None
        given = self.code(one.value)
        if one.operator == "=":
            return settle + self.write(one.member, at, given)
        if not one.atomic:
            given = new("(") + given + new(")")
        value = now + new(f" {one.operator.removesuffix('=')} ") + given
        return settle + self.write(one.member, at, value)

    def _changed(self, one: Changed) -> Fragment:
        at = one.span.start
        text = self.changed(one.name, at) if one.form != "opens" else ""
        if self.template:
            return new(f"; {text}", one.entry, "change-told")
        if one.form == "opens":
            return new("{ ", one.entry, "change-told")
        ended = self.source.data[:at].rstrip().endswith((b";", b"}"))
        if one.form == "closes":
            head = "" if self.source.data[:at].rstrip().endswith(b";") else ";"
            return new(f"{head} {text}; }}", one.entry, "change-told")
        head = "" if ended or not self.end else self.end
        tail = self.end if ended or self.end else ""
        return new(f"{head}\n{self.source.indent_at(at)}{text}{tail}", one.entry, "change-told")

    def _taken(self, one: Taken) -> Fragment:
        """A pattern over the instance as a declaration for each of its names."""
        result = new("", one.entry, "member-of-class")
        for number, (inner, local, _) in enumerate(one.members):
            result += new(f"{', ' if number else ''}{local} = ") + self.spell(inner)
        return result

    def _filter(self, one: Filtered) -> Fragment:
        name = self.names.members.get(Member("method", one.name))
        if name is None:
            raise Unsaid("not-in-target", f"the filter {one.name}", one.span.start)
        head = new(f"{self.holder(one.span.start)}{name}(", one.entry, "filter-to-call")
        given = [self.code(code) for code in (one.value, *one.arguments)]
        return head + joined(given, ", ") + new(")")

    def _builtin(self, one: Builtin) -> Fragment:
        at = one.span.start
        match one.name:
            case "$event":
                return new("$event", one.entry, "event-named")
            case "$nextTick" if not self.template:
                return new(f"{self.holder(at)}{self.ask('afterNext')}", one.entry, "after-drawing")
            case "$props":
                names = [m for m in self.names.members if m.kind == "prop"]
                parts = [f"{m.name}: {self.value(m, at)}" for m in names]
                return new(f"{{ {', '.join(parts)} }}", one.entry, "inputs-as-object")
            case "$forceUpdate" if self.put_back:
                return new(self.put_back.pop(), one.entry, "put-back")
            case "$el" if self.root and not self.template:
                text = f"{self.holder(at)}{self.root}()?.nativeElement"
                return new(text, one.entry, "root-element")
        raise Unsaid("not-in-target", one.name, at)


# How each kind of operation is written; the first that fits.
_SPELLED: dict[type[Operation], Callable[..., Fragment]] = {
    Left: Speller._left,
    Read: Speller._read,
    FieldUse: Speller._field,
    MethodCall: Speller._call,
    MethodValue: Speller._method,
    Rebound: Speller._rebound,
    Emit: Speller._emit,
    Assign: Speller._assign,
    Changed: Speller._changed,
    Taken: Speller._taken,
    Builtin: Speller._builtin,
    Filtered: Speller._filter,
    Respelled: Speller._respelled,
    Gone: Speller._gone,
}
