"""How each operation of a component whose markup was code reads in a script, and in a template.

A template reads members by their names alone; a script asks a reference for its value. Fields of state
are references of their own, unless something writes what it does not name: then they are parts of one
object.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace

from clean_carry.component.code import (
    Cleanup,
    Code,
    Emit,
    FieldUse,
    Inlined,
    Kept,
    Left,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Picked,
    Read,
    Redraw,
    RestInputs,
    RootElement,
    SetterCall,
    SetterValue,
    SlotGiven,
    Snapshot,
    StateWrite,
    WholeRead,
)
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, between, joined, new, settled
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.syntaxes.single_file.names import input_name
from clean_carry.syntaxes.single_file_flat.spelling import Speller
from clean_carry.syntaxes.unsaid import Unsaid


@dataclass
class CodeSpeller(Speller):
    """Spells operations of one component. `whole` is the name of the object that holds all state, "" where
    each field is a reference; `computed` are methods whose values are worked out once, `imported` names
    that inputs are called like."""

    component: Component | None = None
    whole: str = ""
    computed: frozenset[str] = frozenset()
    imported: frozenset[str] = frozenset()
    unit: str = "  "
    # Functions that are called with an element only when it changes, by their name.
    told: dict[str, str] = field(default_factory=dict)
    # Functions that tell a parent's references of an element, by the inputs that hold those.
    handed: dict[str, str] = field(default_factory=dict)
    # The function that is called with an effect's clean-up.
    ending: str = ""
    template: bool = field(default=False)
    bare: bool = field(default=False)

    @contextmanager
    def as_statements(self, wanted: bool) -> Iterator[None]:
        """Spell a write as statements with nothing around them, where that is `wanted`."""
        before, self.bare = self.bare, wanted
        try:
            yield
        finally:
            self.bare = before

    @contextmanager
    def in_template(self) -> Iterator[None]:
        """Spell for a template."""
        before, self.template = self.template, True
        try:
            yield
        finally:
            self.template = before

    def telling(self, method: str) -> str:
        """A function that calls a method with an element only where that is another one than before."""
        if method not in self.told:
            self.told[method] = self.names.helper(f"{method}Once")
        return self.told[method]

    def handing(self, name: str) -> str:
        """The function that tells a parent's reference, an input, of an element."""
        if name not in self.handed:
            self.handed[name] = self.names.helper(f"give{name[:1].upper()}{name[1:]}")
        return self.handed[name]

    def value(self, member: Member) -> str:
        """A member as an expression."""
        if member.kind == "prop":
            member = Member("prop", input_name(member.name))
        match member.kind:
            case "prop" if self.template and member.name not in self.imported:
                return member.name
            case "state" if self.whole:
                return f"{self.whole}.{member.name}"
            case "state" | "derived" | "element" if self.template:
                return self.names.of(member)
            case "element":
                return f"{self.names.of(member)}.value"
        return super().value(member)

    def spelled(self, operation: Operation) -> str:
        """The text an operation begins with; empty where it is not text."""
        match operation:
            case Read(member=member, earlier=True):
                return f"{member.name}Before"
            case FieldUse(member=member):
                return self.value(member)
            case RootElement(name=name):
                return self.value(Member("element", name))
            case Emit():
                return self.take("emit")
            case MethodCall(member=member, getter=True):
                name = self.names.of(member)
                if member.name not in self.computed:
                    return f"{name}()"
                return name if self.template else f"{name}.value"
            case SlotGiven(name=name):
                return f"$slots.{name or 'default'}"
            case WholeRead(source="props"):
                self._refuse_renamed(operation)
                return self.take("props")
            case WholeRead(source="state") if self.whole:
                return self.whole
            case StateWrite():
                return self._first_written(operation)
            case SetterValue(member=member):
                return self.value(member)
        return super().spelled(operation)

    def _refuse_renamed(self, whole: WholeRead) -> None:
        """All inputs in one object have the names they are read by here."""
        for prop in self.component.inputs.props if self.component is not None else ():
            if input_name(prop.name) != prop.name:
                raise Unsaid("not-in-target", f"all inputs, with {prop.name}", whole.span.start)

    def _handed_on(self, rest: RestInputs) -> list[tuple[str, str]]:
        """Return the declared props among those that are passed on with undeclared ones, and their
        values."""
        assert self.component is not None
        for name in self.component.outward.events:
            if name not in rest.named and name not in rest.replaced:
                raise Unsaid("event-handed-on", name, rest.span.start)
        names = [p.name for p in self.component.inputs.props if p.name not in rest.named]
        return [(name, self.value(Member("prop", name))) for name in names]

    def _root(self, found: RootElement) -> Fragment:
        if found.local or found.bare:
            raise Unsaid("reference-passed", found.name, found.span.start)
        return new(self.spelled(found), found.entry, "element-reference")

    def _handed(self, rest: RestInputs) -> Fragment:
        held = self._handed_on(rest)
        if not self.template:
            raise Unsaid("not-in-target", "inputs that are not named, in code", rest.span.start)
        parts = (name if value == name else f"{name}: {value}" for name, value in held)
        text = f"{{ {', '.join(['...$attrs', *parts])} }}" if held else "$attrs"
        return new(text, rest.entry, "inputs-handed-on")

    def _first_written(self, operation: StateWrite) -> str:
        fields = self._patches(operation)
        return self.value(Member("state", fields[0][0])) if fields else ""

    def roots(self, operation: Operation) -> list[str]:
        """The names that the text of an operation asks its surroundings for."""
        match operation:
            case StateWrite():
                if self.whole and is_open(operation):
                    return [self.whole]
                found = [
                    self.value(Member("state", name)) for name, _ in self._patches(operation) or ()
                ]
                return [text.partition(".")[0] for text in found]
            case Snapshot(taken=taken):
                return [self.value(member).partition(".")[0] for member, _ in taken]
            case RestInputs():
                return [value.partition(".")[0] for _, value in self._handed_on(operation)]
            case Inlined() | Left():
                return []
            case Picked(taken=taken):
                return self.roots(taken)
            case SetterCall():
                return [self._set(operation).partition(".")[0]]
        text = self.spelled(operation)
        return [text.partition("(")[0].partition(".")[0]] if text else []

    def spell(self, operation: Operation) -> Fragment:
        """The fragment that stands in the place of an operation."""
        for kind, write in _SPELLED.items():
            if isinstance(operation, kind):
                found: Fragment = write(self, operation)
                return found
        try:
            return super().spell(operation)
        except UnsettledEntry as error:
            detail = type(operation).__name__
            raise Unsaid("not-in-target", detail, operation.span.start) from error

    def _left(self, operation: Left) -> Fragment:
        raise Unsaid(operation.rule, operation.detail, operation.span.start)

    def _redraw(self, operation: Redraw) -> Fragment:
        """Return a re-render of the component, which only its instance offers."""
        text = f"{self.take('instance')}.proxy.$forceUpdate()"
        return new(text, operation.entry, "redraw")

    def _read(self, operation: Read) -> Fragment:
        text = operation.shorthand + self.spelled(operation) + operation.path
        return new(text, operation.entry, "read-by-name")

    def _kept(self, operation: Kept) -> Fragment:
        """Values as they are where a function begins."""
        line = f"\n{self.source.indent_at(operation.span.start)}{self.unit}"
        values = ((one.name, self.value(one)) for one in operation.members)
        lines = (f"{line}const {name}Before = {value}{self.end}" for name, value in values)
        return new("".join(lines), operation.entry, "old-value-kept")

    def _picked(self, operation: Picked) -> Fragment:
        """A member under a name of its own."""
        member = getattr(operation.taken, "member", None)
        name = self._local(member, operation.local) if member is not None else operation.local
        head = new(f"{name} = ", operation.entry, "member-by-name") + self.spell(operation.taken)
        line = f"{self.end}\n{self.source.indent_at(operation.span.start)}"
        return head + new(f"{line}{operation.next} " if operation.next else "")

    def _asked(self, operation: SlotGiven) -> Fragment:
        return new(self.spelled(operation), operation.entry, "slot-asked")

    def _method_value(self, operation: MethodValue) -> Fragment:
        if operation.bound:
            return self._bound(operation, operation.bound)
        text = operation.shorthand + self.spelled(operation)
        return new(text, operation.entry, "member-by-name")

    def _setter(self, operation: SetterCall) -> Fragment:
        head = new(f"{self._set(operation)} = ", operation.entry, "setter-to-computed")
        return head + self.code(operation.value)

    def _called(self, operation: MethodCall) -> Fragment:
        text = self.spelled(operation) + operation.opens
        return new(text, operation.entry, "member-by-name")

    def _set(self, operation: SetterCall) -> str:
        """Return the value of a setter, as an expression."""
        name = operation.member.name.removesuffix("=")
        if name not in self.computed:
            raise Unsaid("not-in-target", f"set {name}", operation.span.start)
        local = self.names.of(Member("method", name))
        return local if self.template else f"{local}.value"

    def _whole_read(self, operation: WholeRead) -> Fragment:
        text = self.spelled(operation)
        if not text:
            raise Unsaid("not-in-target", f"all of the {operation.source}", operation.span.start)
        return new(text, operation.entry, "read-by-name")

    def _inlined(self, operation: Inlined) -> Fragment:
        """A value where its name stood, as text: it may stand in several places."""
        text = self._again(operation.value)
        for inner in operation.value.all():
            if isinstance(inner, Left):
                raise Unsaid(inner.rule, inner.detail, inner.span.start)
        if operation.grouped or (operation.path and " " in text):
            text = f"({text})"
        result = settled(-1, "")
        for inner in operation.value.all():
            result += settled(inner.entry, "local-in-place")
        return result + new(
            f"{operation.shorthand}{text}{operation.path}", operation.entry, "local-in-place"
        )

    def _piece(self, operation: Operation) -> str:
        """The text of an operation that is written as text."""
        fragment = self.spell(operation)
        return "".join(
            piece.text if piece.span is None else self.source.slice(*piece.span[:2])
            for piece in fragment.pieces
        )

    def _snapshot(self, operation: Snapshot) -> Fragment:
        inputs = [(member, name) for member, name in operation.taken if member.kind == "prop"]
        lines = []
        if inputs:
            props = self.take("props")
            names = ", ".join(
                name if name == member.name else f"{input_name(member.name)}: {name}"
                for member, name in inputs
            )
            lines.append(f"{operation.keyword} {{ {names} }} = {props}")
        indent = self.source.indent_at(operation.span.start)
        for member, name in operation.taken:
            if member.kind != "prop":
                lines.append(
                    f"{operation.keyword} {self._local(member, name)} = {self.value(member)}"
                )
        text = f"{self.end}\n{indent}".join(lines)
        return new(f"{text}{self.end}", operation.entry, "pattern-to-values")

    def _local(self, member: Member, name: str) -> str:
        """Return the present name of a local whose name means the member."""
        for span, (text, _, _) in self.names.edits.texts.items():
            if text.startswith(("new", "current")) and self.source.slice(*span[:2]) == name:
                return text
        return name

    def _emit(self, operation: Emit) -> Fragment:
        quote = "'"
        head = f"{self.take('emit')}({quote}{operation.event}{quote}"
        result = new(head + (", " if operation.arguments else ""), operation.entry, "event-sent")
        start = operation.callee.end
        rest = operation.span._replace(start=start)
        inner = [o for code in operation.arguments for o in code.operations]
        return result + between(rest, inner, self.spell)

    def _bound(self, operation: MethodValue, bound: tuple[Code, ...]) -> Fragment:
        """A method with the first of what it is given."""
        name = self.names.of(operation.member)
        given = [self.code(code) for code in bound]
        result = new("", operation.entry, "member-by-name")
        if self.template:
            takes = _takes(self.component, operation.member.name, self)
            if takes < 0 or takes > len(given):
                given.append(new("$event"))
            return result + new(f"{name}(") + joined(given, ", ") + new(")")
        return (
            result
            + new(f"(...args) => {name}(")
            + joined([*given, new("...args")], ", ")
            + new(")")
        )

    # -- writes -----------------------------------------------------------------------------

    def _patches(self, operation: StateWrite) -> list[tuple[str, Code | None]]:
        """The fields a write names, each with its value."""
        if operation.fields is not None:
            return [(patch.name, patch.value) for patch in operation.fields]
        updater = operation.updater
        if updater is None or updater.result is None:
            return []
        found: list[tuple[str, Code | None]] = []
        for patch in updater.result:
            assert patch.value is not None
            own = [
                Read(span, -1, False, Member("state", name))
                for span, name in updater.own
                if patch.value.span.start <= span.start and span.end <= patch.value.span.end
            ]
            whole = sorted((*patch.value.operations, *own), key=lambda one: one.span.start)
            found.append((patch.name, replace(patch.value, operations=tuple(whole))))
        return found

    def _write(self, operation: StateWrite) -> Fragment:
        indent = self.source.indent_at(operation.span.start)
        line = f"{self.end}\n{indent}"
        parts: list[Fragment] = []
        for kept in operation.keeps:
            parts.append(new(f"const {kept.name}Before = {self.value(kept)}"))
        if is_open(operation):
            parts.append(self._merged(operation))
        else:
            parts += self._assigned(operation)
        if operation.after is not None:
            later = self.code(operation.after).shifted(self._levels(operation, operation.after))
            after = new(f"{self.run('nextTick')}(") + later + new(")")
            parts.append(after)
        result = new("", operation.entry, "write-by-name")
        if not parts:
            return result + new("undefined")
        position = operation.position
        if position == "statement" and not (self.template and self.bare):
            return result + joined(parts, line)
        if self.bare or (position in ("expression", "bare statement") and len(parts) == 1):
            return result + joined(parts, "; ")
        if position not in ("arrow body", "bare statement"):
            raise Unsaid("write-returned", "", operation.span.start)
        if self.template or len(parts) == 1:
            return result + new("{ ") + joined(parts, "; ") + new(" }")
        deeper = f"\n{indent}{self.unit}"
        body = joined(parts, f"{self.end}{deeper}")
        return result + new(f"{{{deeper}") + body + new(f"{self.end}\n{indent}}}")

    def _assigned(self, operation: StateWrite) -> list[Fragment]:
        patches = self._patches(operation)
        names = [self.value(Member("state", name)) for name, _ in patches]
        values = [
            self.code(code) if code is not None else self._same(operation, name)
            for name, code in patches
        ]
        for at, patch in enumerate(operation.fields or ()):
            if patch.updates:
                values[at] = new("(") + values[at] + new(f")({names[at]})")
        if self._meets(patches):
            left = ", ".join(names)
            return [new(f"[{left}] = [") + joined(values, ", ") + new("]")]
        return [new(f"{name} = ") + value for name, value in zip(names, values, strict=True)]

    def _meets(self, patches: list[tuple[str, Code | None]]) -> bool:
        """Whether a value needs what an earlier one of the same write has changed."""
        written: set[str] = set()
        for name, code in patches:
            for inner in code.all() if code is not None and written else ():
                if isinstance(inner, MethodCall):
                    return True
                if isinstance(inner, Read) and inner.member.kind == "state":
                    if inner.member.name in written and not inner.earlier:
                        return True
            written.add(name)
        return False

    def _cleanup(self, operation: Cleanup) -> Fragment:
        """Return the clean-up of an effect, passed to the caller."""
        head = f"{'' if operation.last else 'return '}{self.ending}("
        made = new(head, operation.entry, "effect-ends") + self.code(operation.value)
        semicolon = self.source.slice(*operation.span[:2]).endswith(";")
        return made + new(");" if semicolon else ")")

    def _setter_value(self, operation: SetterValue) -> Fragment:
        """Return the setter of a state field, as a function."""
        place = self.value(operation.member)
        return new(f"(value) => {{ {place} = value{self.end} }}", operation.entry, "write-by-name")

    def _same(self, operation: StateWrite, name: str) -> Fragment:
        """The value of a field that is named like it."""
        span = operation.argument.span
        for at, (text, entry, _) in self.names.edits.texts.items():
            if span.start <= at.start and at.end <= span.end and text.startswith(f"{name}: "):
                return new(text.partition(": ")[2], entry, "renamed-apart")
        return new(name)

    def _levels(self, operation: StateWrite, code: Code) -> int:
        """How many levels code goes that stands on the line of the write now."""
        here = self.source.indent_at(code.span.start).replace("\t", self.unit)
        around = self.source.indent_at(operation.span.start).replace("\t", self.unit)
        return (len(around) - len(here)) // max(1, len(self.unit))

    def _merged(self, operation: StateWrite) -> Fragment:
        """A write of what an object, or a function of the state, gives."""
        head = new(f"Object.assign({self.whole}, ")
        levels = self._levels(operation, operation.argument)
        if operation.updater is None and not operation.open:
            return head + self.code(operation.argument).shifted(levels) + new(")")
        given = (
            f"({self.whole}, {self.take('props')})"
            if _takes_inputs(operation)
            else f"({self.whole})"
        )
        if operation.updater is not None:
            return (
                head + new("(") + self.code(operation.argument).shifted(levels) + new(f"){given})")
            )
        raise Unsaid("write-not-seen", "", operation.span.start)


# How each kind of operation is written; the first that fits.
_SPELLED: dict[type[Operation], Callable[..., Fragment]] = {
    Left: CodeSpeller._left,
    Read: CodeSpeller._read,
    Inlined: CodeSpeller._inlined,
    Snapshot: CodeSpeller._snapshot,
    Kept: CodeSpeller._kept,
    Picked: CodeSpeller._picked,
    SlotGiven: CodeSpeller._asked,
    Emit: CodeSpeller._emit,
    StateWrite: CodeSpeller._write,
    Cleanup: CodeSpeller._cleanup,
    SetterValue: CodeSpeller._setter_value,
    MethodValue: CodeSpeller._method_value,
    SetterCall: CodeSpeller._setter,
    MethodCall: CodeSpeller._called,
    WholeRead: CodeSpeller._whole_read,
    RestInputs: CodeSpeller._handed,
    Redraw: CodeSpeller._redraw,
    RootElement: CodeSpeller._root,
}


def _takes_inputs(operation: StateWrite) -> bool:
    return operation.gives_inputs or (
        operation.updater is not None and operation.updater.reads_inputs
    )


def is_open(operation: StateWrite) -> bool:
    """Whether a write does not say what it changes."""
    if operation.fields is not None:
        return False
    updater = operation.updater
    return updater is None or updater.result is None or updater.reads_inputs or updater.may_skip


def _takes(component: Component | None, name: str, speller: CodeSpeller) -> int:
    """How many values a method takes; -1 where it is not known."""
    for member in component.members if component is not None else ():
        if isinstance(member, Method) and member.name == name and not member.uses_arguments:
            text = speller.source.slice(member.text.span.start, member.text.span.end)
            head = text[text.find("(") + 1 : text.find(")")]
            if "..." in head or "(" in head or "{" in head or "[" in head:
                return -1
            return len([part for part in head.split(",") if part.strip()])
    return -1
