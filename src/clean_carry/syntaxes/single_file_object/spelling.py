"""How each operation of the neutral component reads in the object form."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from clean_carry.component.code import (
    Assign,
    Box,
    Builtin,
    Code,
    Emit,
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    Respelled,
    Returned,
)
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import Fragment, between, copy, new, settled
from clean_carry.component.spans import Span
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "statements-to-object"


@dataclass
class Speller:
    """Spells operations. `inner` are the stretches of functions that have a `this` of their own, `own`
    the name the instance gets for them; `listed` are names of several elements, `local` fields of state
    that are read by a local name, where code makes the state.

    `level` is how deep the line at an offset is indented, `statements` are the offsets at which a statement
    begins, `imports` are functions the new text takes from the runtime.
    """

    unit: str
    end: str
    quote: str
    inner: tuple[tuple[int, int], ...]
    own: str
    level: Callable[[int], int]
    statements: frozenset[int]
    listed: frozenset[str] = frozenset()
    local: frozenset[str] = frozenset()
    imports: set[str] = field(default_factory=set)
    used_own: bool = False
    making_state: bool = False

    @contextmanager
    def making(self) -> Iterator[None]:
        """While the code that makes the state is spelled."""
        self.making_state = True
        yield
        self.making_state = False

    def code(self, code: Code) -> Fragment:
        """Code with its operations spelled."""
        return between(code.span, code.operations, self.spell)

    def instance(self, at: int) -> str:
        """Return the name of the instance at an offset."""
        if any(start <= at < end for start, end in self.inner):
            self.used_own = True
            return self.own
        return "this"

    def place(self, member: Member, at: int) -> str:
        """A member as an expression."""
        holder = self.instance(at)
        if member.kind != "element":
            return f"{holder}.{member.name}"
        found = f"{holder}.$refs.{member.name}"
        if member.name not in self.listed:
            return found
        # Without semicolons a line that begins with a parenthesis goes on with the one before it.
        return f"{'' if self.end or at not in self.statements else ';'}({found} || [])"

    def spell(self, operation: Operation) -> Fragment:
        """One operation."""
        entry, at = operation.entry, operation.span.start
        match operation:
            case Read(member=member, shorthand=short):
                if self.making_state and member.kind in ("derived", "field"):
                    raise Unsaid("state-from-derived", member.name, at)
                if self.making_state and member.name in self.local and not operation.deferred:
                    return new(short + member.name, entry, _RULE)
                return new(short + self.place(member, at), entry, _RULE)
            case FieldUse(member=member):
                if self.making_state and not operation.deferred:
                    raise Unsaid("state-from-derived", member.name, at)
                return new(self.place(member, at), entry, _RULE)
            case MethodCall(member=member):
                return new(self.place(member, at), entry, _RULE)
            case MethodValue(member=member, shorthand=short):
                return new(short + self.place(member, at), entry, _RULE)
            case Builtin(name=name):
                return new(f"{self.instance(at)}.{name}", entry, _RULE)
            case Assign():
                return self._assign(operation)
            case Emit():
                return self._emit(operation)
            case Box():
                return new(self._box(operation), entry, _RULE)
            case Returned():
                return self._returned(operation)
            case Respelled(text=text, rule=rule):
                return new(text, entry, rule)
        raise UnsettledEntry(type(operation).__name__, at)

    def _assign(self, one: Assign) -> Fragment:
        target = new(self.place(one.member, one.span.start), one.entry, _RULE)
        made = copy(_part(one.span, one.span.start, one.target.start)) + target
        if one.value is None:
            return made + copy(_part(one.span, one.target.end, one.span.end))
        made += copy(_part(one.span, one.target.end, one.value.span.start)) + self.code(one.value)
        return made + copy(_part(one.span, one.value.span.end, one.span.end))

    def _emit(self, one: Emit) -> Fragment:
        made = new(f"{self.instance(one.span.start)}.$emit", one.entry, _RULE)
        here = one.callee.end
        for argument in one.arguments:
            made += copy(_part(one.span, here, argument.span.start)) + self.code(argument)
            here = argument.span.end
        return made + copy(_part(one.span, here, one.span.end))

    def _box(self, one: Box) -> str:
        place = self.place(one.member, one.span.start)
        if one.getter:
            return f"{one.shorthand}() => {place}"
        if one.member.kind == "derived":
            self.imports.add("computed")
            return f"{one.shorthand}computed(() => {place})"
        self.imports.add("toRef")
        holder = self.instance(one.span.start)
        return f"{one.shorthand}toRef({holder}, {self.quote}{one.member.name}{self.quote})"

    def _returned(self, one: Returned) -> Fragment:
        before, self.used_own = self.used_own, False
        value = self.code(one.value).shifted(0 if one.own_line else 1)
        own = self.declared_own() if self.used_own else ""
        self.used_own = before
        line = f"\n{self.unit}"
        return (
            new(f" {{{line}{own}{'' if one.alone else 'return '}", one.entry, "arrow-as-method")
            + value
            + new(f"{self.end}\n}}")
        )

    def declared_own(self) -> str:
        """The statement that gives the instance a name, and the line after it."""
        return f"const {self.own} = this{self.end}\n{self.unit}"

    def function(self, text: Code, body_at: int) -> Fragment:
        """A function from its parameters on; it names the instance where functions inside ask for it."""
        before, self.used_own = self.used_own, False
        head = [one for one in text.operations if one.span.start < body_at]
        if any(isinstance(one, Returned) for one in text.operations) or body_at <= text.span.start:
            made = self.code(text)
        else:
            cut = body_at + 1
            made = between(_part(text.span, text.span.start, cut), head, self.spell)
            rest = [one for one in text.operations if one.span.start >= cut]
            inner = between(_part(text.span, cut, text.span.end), rest, self.spell)
            if self.used_own:
                made += new(f"\n{self.unit}const {self.own} = this{self.end}")
            made += inner
        self.used_own = before
        return made.shifted(-self.level(text.span.start))

    def at_top(self, code: Code) -> Fragment:
        """Code as it stands at the top of a script."""
        return self.code(code).shifted(-self.level(code.span.start))


def _part(span: Span, start: int, end: int) -> Span:
    return span._replace(start=start, end=end)


def nothing(entry: int) -> Fragment:
    """Nothing here: what it means stands elsewhere."""
    return settled(entry, _RULE)
