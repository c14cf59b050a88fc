"""Write a component as the top-level statements of a script. The template stays as it is."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import (
    Assign,
    Code,
    Emit,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
)
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, between, copy, joined, new, settled
from clean_carry.component.model import Component, Derived, Method, Reaction, StateField
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText


@dataclass
class FlatWriter:
    """Writes one component. `helpers` are the names it takes from the runtime."""

    component: Component
    source: SourceText
    unit: str
    semicolon: str
    helpers: set[str] = field(default_factory=set)

    def write(self) -> Fragment:
        """The statements that take the place of the exported object."""
        component = self.component
        settle = settled(component.entries["component"], "object-to-statements")
        parts: list[Derived | Reaction | Method] = [
            *component.derived,
            *component.reactions,
            *component.methods(),
        ]
        for option in ("computed", "watch", "methods"):
            if option in component.entries:
                settle += settled(component.entries[option], "object-to-statements")
        blocks = [self._name(), self._contract(), self._state()]
        blocks += [self._part(part) for part in parts]
        return settle + joined((b for b in blocks if b), "\n\n")

    def _name(self) -> Fragment:
        if "name" not in self.component.entries:
            return Fragment()
        head = new("defineOptions({ name: ", self.component.entries["name"], "name-declared")
        value = copy(self.component.option_values["name"])
        return self._noted("name", head + value + new(f" }}){self.semicolon}"))

    def _contract(self) -> Fragment:
        lines: list[Fragment] = []
        uses = [operation for _, operation in self._script_operations()]
        for option, macro, local, needed in (
            ("props", "defineProps", "props", any(_is_prop(o) for o in uses) or self._watches()),
            ("emits", "defineEmits", "emit", any(isinstance(o, Emit) for o in uses)),
        ):
            if option not in self.component.entries:
                continue
            head = f"const {local} = {macro}(" if needed else f"{macro}("
            line = new(head, self.component.entries[option], f"{option}-declared")
            line += self._level(self.component.option_values[option])
            lines.append(self._noted(option, line + new(f"){self.semicolon}")))
        return joined(lines, "\n")

    def _state(self) -> Fragment:
        state = self.component.state
        if state is None:
            return Fragment()
        result = settled(state.entry, "state-to-refs")
        for note in state.comments:
            result += copy(note) + new("\n")
        return result + joined((self._field(f) for f in state.fields or ()), "\n")

    def _field(self, field_: StateField) -> Fragment:
        above = copy(field_.comment) + new("\n") if field_.comment is not None else Fragment()
        assert field_.code is not None
        self.helpers.add("ref")
        head = new(f"const {field_.name} = ref(", field_.entry, "state-field-to-ref")
        return above + head + self._releveled(field_.code) + new(f"){self.semicolon}")

    def _part(self, part: Derived | Reaction | Method) -> Fragment:
        above = Fragment()
        for note in part.comments:
            above += copy(note) + new("\n")
        if isinstance(part, Method):
            head = new(f"{part.prefix} {part.name}", part.entry, "method-to-function")
            return above + head + self._releveled(part.text)
        text = settled(part.text_entry, "", "kept") + self._arrow(part.text)
        end = new(f"){self.semicolon}")
        if isinstance(part, Derived):
            self.helpers.add("computed")
            head = new(f"const {part.name} = computed(", part.entry, "derived-to-computed")
            return above + head + text + end
        self.helpers.add("watch")
        for _, entry in (*part.now, *part.before):
            above += settled(entry, "", "kept")
        watched = self._value(part.source)
        head = new(f"watch(() => {watched}, ", part.entry, "reaction-to-watch")
        return above + head + text + end

    def _arrow(self, code: Code) -> Fragment:
        """A method's text as an arrow function: `=>` before its body."""
        body = self.source.data.find(b"{", self._after_parameters(code.span))
        first = [o for o in code.operations if o.span.start < body]
        rest = [o for o in code.operations if o.span.start >= body]
        head = between(code.span._replace(end=body), first, self._spell)
        levels = -self._levels(code.span.start)
        tail = between(code.span._replace(start=body), rest, self._spell).shifted(levels)
        return head + new("=> ") + tail

    def _after_parameters(self, span: Span) -> int:
        depth = 0
        for at in range(span.start, span.end):
            byte = self.source.data[at : at + 1]
            depth += (byte == b"(") - (byte == b")")
            if depth == 0:
                return at + 1
        return span.start

    def _noted(self, option: str, line: Fragment) -> Fragment:
        above = Fragment()
        for note in self.component.option_comments.get(option, ()):
            above += copy(note) + new("\n")
        return above + line

    def _level(self, span: Span) -> Fragment:
        return copy(span).shifted(-self._levels(span.start))

    def _releveled(self, code: Code) -> Fragment:
        text = between(code.span, code.operations, self._spell)
        return text.shifted(-self._levels(code.span.start))

    def _levels(self, at: int) -> int:
        indent = self.source.indent_at(at).replace("\t", self.unit)
        base = self.source.indent_at(self.component.span.start).replace("\t", self.unit)
        return (len(indent) - len(base)) // max(1, len(self.unit))

    def _script_operations(self) -> list[tuple[object, Operation]]:
        return [(owner, o) for owner, o in self.component.operations() if owner != "drawing"]

    def _watches(self) -> bool:
        return any(reaction.source.kind == "prop" for reaction in self.component.reactions)

    def _value(self, member: Member) -> str:
        return f"props.{member.name}" if member.kind == "prop" else f"{member.name}.value"

    def _spell(self, operation: Operation) -> Fragment:
        match operation:
            case Read():
                text = operation.shorthand + self._value(operation.member)
                return new(text, operation.entry, "read-by-name")
            case Assign():
                result = new(self._value(operation.member), operation.entry, "write-by-name")
                inner = operation.value.operations if operation.value is not None else ()
                rest = operation.span._replace(start=operation.target.end)
                return result + between(rest, inner, self._spell)
            case Emit():
                result = new("emit", operation.entry, "event-by-name")
                inner = tuple(o for code in operation.arguments for o in code.operations)
                rest = operation.span._replace(start=operation.callee.end)
                return result + between(rest, inner, self._spell)
            case MethodCall() | MethodValue():
                return new(operation.member.name, operation.entry, "method-by-name")
        raise UnsettledEntry(f"{type(operation).__name__} has no spelling", operation.span.start)


def _is_prop(operation: Operation) -> bool:
    return isinstance(operation, Read) and operation.member.kind == "prop"
