"""The text of each operation of a template's component in a function, during render and in later
code.

During a render a member is a name. Code that needs a newer value of a field reads it from a reference to
the latest one; a function that outlives its render reads the props from a reference to the latest.
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
    SlotGiven,
    Taken,
)
from clean_carry.component.fragment import Fragment, between, dropped, joined, new
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.from_markup.analysis import Analysis
from clean_carry.syntaxes.jsx_function.from_markup.names import Names
from clean_carry.syntaxes.unsaid import Unsaid

# A copy of what a field holds, by what that is.
_COPIES = {
    "list": "[...{now}]",
    "object": "{{ ...{now} }}",
    "set": "new Set({now})",
    "map": "new Map({now})",
}


@dataclass
class Speller:
    """Writes the operations of one component. `hooks` are the framework's functions it needs,
    `helpers` those of the file, `latest` the props read later, `heard` the listeners. `containers`
    says whether a field holds a list or an object."""

    names: Names
    times: Analysis
    source: SourceText
    end: str
    unit: str
    quote: str
    containers: dict[str, str] = field(default_factory=dict)
    # Fields of state that are constants of the module.
    module_values: set[str] = field(default_factory=set)
    hooks: set[str] = field(default_factory=set)
    page_functions: set[str] = field(default_factory=set)
    helpers: set[str] = field(default_factory=set)
    latest: dict[str, None] = field(default_factory=dict)
    heard: dict[str, None] = field(default_factory=dict)
    # Names that refer to the root element, where code reads it.
    root_named: str = ""
    drawing: bool = True
    late: bool = False

    @contextmanager
    def mode(self, *, drawing: bool, late: bool = False) -> Iterator[None]:
        """Write for render code, or for code that runs by itself, perhaps `late`."""
        before = self.drawing, self.late
        self.drawing, self.late = drawing, late
        try:
            yield
        finally:
            self.drawing, self.late = before

    def code(self, code: Code) -> Fragment:
        """Code with its operations spelled."""
        return between(code.span, code.operations, self.spell)

    def hook(self, name: str) -> str:
        """A function of the runtime, which is imported then."""
        self.hooks.add(name)
        return name

    def page_function(self, name: str) -> str:
        """A function of the runtime's part for pages, which is imported then."""
        self.page_functions.add(name)
        return name

    def helper(self, name: str) -> str:
        """A function of the file, which is written then."""
        self.helpers.add(name)
        return name

    def value(self, member: Member, late: bool = False) -> str:
        """A member as an expression."""
        late = late or self.late
        match member.kind:
            case "state" if not self.drawing and member.name in self.times.live:
                return f"{self.names.now(member.name)}.current"
            case "derived" if not self.drawing and member.name in self.times.asked:
                return f"{self.names.reader(member.name)}()"
            case "derived" if member.name in self.times.lazy:
                return f"{self.names.of(member)}()"
            case "prop" | "injected" if not self.drawing and late:
                return self.later(self.names.of(member))
            case "element" | "field":
                return f"{self.names.of(member)}.current"
        return self.names.of(member)

    def later(self, name: str) -> str:
        """Return the latest value of a prop, for a function that outlives its render."""
        self.latest.setdefault(name)
        return f"{self.names.latest}.current.{name}"

    def root(self, operation: Operation) -> list[str]:
        """The names that the text of an operation asks its surroundings for."""
        match operation:
            case Assign(member=member):
                read = [self.value(member)] if operation.operator != "=" else []
                return [self.names.setter(member.name), *(text.partition(".")[0] for text in read)]
            case Read(member=member) | FieldUse(member=member):
                return [self.value(member, operation.deferred).partition(".")[0].partition("(")[0]]
            case MethodCall(member=member) | MethodValue(member=member) | Rebound(member=member):
                return [self.names.of(member)]
            case Taken(members=members):
                return [name for inner, _, _ in members for name in self.root(inner)]
            case Emit(event=event):
                return [self.names.event(event)]
        return []

    def spell(self, operation: Operation) -> Fragment:
        """The fragment that stands in the place of an operation."""
        for kind, write in _SPELLED.items():
            if isinstance(operation, kind):
                found: Fragment = write(self, operation)
                return found
        raise Unsaid("not-in-target", _shown(operation, self.source), operation.span.start)

    def _left(self, operation: Left) -> Fragment:
        raise Unsaid(operation.rule, operation.detail, operation.span.start)

    def _read(self, operation: Read) -> Fragment:
        text = self.value(operation.member, operation.deferred)
        return new(operation.shorthand + text, operation.entry, "read-by-name")

    def _field(self, operation: FieldUse) -> Fragment:
        return new(self.value(operation.member), operation.entry, "field-to-reference")

    def _call(self, operation: MethodCall) -> Fragment:
        return new(self.names.of(operation.member), operation.entry, "member-by-name")

    def _method(self, operation: MethodValue) -> Fragment:
        text = operation.shorthand + self.names.of(operation.member)
        return new(text, operation.entry, "member-by-name")

    def _rebound(self, operation: Rebound) -> Fragment:
        return new(self.names.of(operation.member), operation.entry, "member-by-name")

    def _respelled(self, operation: Respelled) -> Fragment:
        return new(operation.text, operation.entry, operation.rule)

    def _gone(self, operation: Gone) -> Fragment:
        return dropped(operation.entry, operation.rule)

    def _asked(self, operation: SlotGiven) -> Fragment:
        name = self.names.slot(operation.name)
        late = not self.drawing and (self.late or operation.deferred)
        return new(self.later(name) if late else name, operation.entry, "slot-asked")

    def _emit(self, operation: Emit) -> Fragment:
        name = self.names.event(operation.event)
        if self.late or operation.deferred:
            self.heard.setdefault(name)
            self.helper("useListeners")
            name = f"{self.names.listeners}.current.{name}"
        result = new(f"{name}?.(", operation.entry, "event-to-input")
        given = [self.code(code) for code in operation.arguments]
        return result + joined(given, ", ") + new(")")

    def _assign(self, operation: Assign) -> Fragment:
        name = operation.member.name
        now = self.value(operation.member)
        if operation.used and operation.member.kind == "derived":
            raise Unsaid("write-returned", name, operation.span.start)
        result = new(f"{self.names.setter(name)}(", operation.entry, "write-to-setter")
        operator, value = operation.operator, operation.value
        if operator in ("++", "--"):
            if operation.used and name not in self.times.live:
                raise Unsaid("write-returned", name, operation.span.start)
            return result + new(f"{now} {operator[0]} 1)")
        assert value is not None
        given = self.code(value)
        if operator == "=":
            return result + given + new(")")
        sign = operator.removesuffix("=")
        if not operation.atomic:
            given = new("(") + given + new(")")
        return result + new(f"{now} {sign} ") + given + new(")")

    def changed(self, name: str) -> str:
        """A call that sets a field to a copy of its list or object, which was changed in place."""
        now = f"{self.names.now(name)}.current"
        form = self.containers.get(name, "")
        if not form:
            raise Unsaid("alias-not-followed", name, self.times.component.span.start)
        copied = _COPIES[form].format(now=now)
        return f"{self.names.setter(name)}({copied})"

    def _changed(self, operation: Changed) -> Fragment:
        text = self.changed(operation.name) if operation.form != "opens" else ""
        indent = self.source.indent_at(operation.span.start)
        match operation.form:
            case "behind":
                ended = self.source.data[: operation.span.start].rstrip().endswith((b";", b"}"))
                head = "" if ended or not self.end else self.end
                tail = self.end if ended or self.end else ""
                if self.inline:
                    return new(f"{head} {text}", operation.entry, "change-told")
                return new(f"{head}\n{indent}{text}{tail}", operation.entry, "change-told")
            case "opens":
                return new("{ ", operation.entry, "change-told")
        ended = self.source.data[: operation.span.start].rstrip().endswith(b";")
        head = "" if ended else ";"
        return new(f"{head} {text}; }}", operation.entry, "change-told")

    inline: bool = False

    def _taken(self, operation: Taken) -> Fragment:
        """A pattern over the instance as a declaration for each of its names."""
        result = new("", operation.entry, "members-by-name")
        for number, (inner, local, span) in enumerate(operation.members):
            name, entry, _ = self.names.edits.texts.get(span, (local, -1, ""))
            name = name.rpartition(": ")[2]
            result += new(f"{', ' if number else ''}{name} = ", entry, "renamed-apart")
            result += self.spell(inner)
        return result

    def _filter(self, operation: Filtered) -> Fragment:
        """A filter is a function that is called."""
        name = operation.name
        if all(method.name != name for method in self.times.component.methods()):
            raise Unsaid("not-in-target", f"the filter {name}", operation.span.start)
        head = new(f"{self.names.of(Member('method', name))}(", operation.entry, "filter-to-call")
        given = [self.code(code) for code in (operation.value, *operation.arguments)]
        return head + joined(given, ", ") + new(")")

    def _builtin(self, operation: Builtin) -> Fragment:
        match operation.name:
            case "$nextTick":
                return new(self.names.after(self), operation.entry, "after-drawing")
            case "$event":
                return new("event", operation.entry, "event-named")
            case "$el" if not self.drawing and self.root_named:
                return new(f"{self.root_named}.current", operation.entry, "root-element")
            case "$forceUpdate":
                return new(self.names.redraw(self), operation.entry, "redraw")
            case "$attrs" if self.drawing:
                return new(self.names.others, operation.entry, "other-inputs")
        raise Unsaid("not-in-target", operation.name, operation.span.start)


def _shown(operation: Operation, source: SourceText) -> str:
    return source.slice(operation.span.start, operation.span.end)[:40]


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
    SlotGiven: Speller._asked,
    Respelled: Speller._respelled,
    Gone: Speller._gone,
}
