"""Code as a tree: verbatim text between operations, whose operands are code again.

A `Code` is a span and the operations inside it, in order and without overlap. The text between two
operations is copied. A writer replaces an operation whole, and no operand is ever written twice. Every
operation carries the key of its ledger entry.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, NamedTuple

from clean_carry.component.spans import Span

MemberKind = Literal[
    "prop", "state", "field", "element", "method", "derived", "event", "slot", "context", "injected"
]
Position = Literal["statement", "bare statement", "arrow body", "returned", "expression"]


class Member(NamedTuple):
    """A member of a component, by kind and the name its author gave it."""

    kind: MemberKind
    name: str


@dataclass(frozen=True)
class Code:
    """A stretch of source and the operations in it."""

    span: Span
    operations: tuple[Operation, ...] = ()

    def all(self) -> Iterator[Operation]:
        """Every operation, outer before inner."""
        for operation in self.operations:
            yield operation
            for operand in operation.operands():
                yield from operand.all()


@dataclass(frozen=True)
class Operation:
    """Something in code that means something to the component.

    `deferred` says that it runs later than the code around the member's start: in a timer, a
    listener, a promise, after an `await`, in a callback that got away.
    """

    span: Span
    entry: int
    deferred: bool

    def operands(self) -> tuple[Code, ...]:
        """The code inside this operation."""
        return ()


@dataclass(frozen=True)
class Read(Operation):
    """The value of an input, a state field or a derived value.

    `called` says that it stands to be called, `reference` that it is given to an element as its
    reference, `handled` that it stands in a function given as an attribute, which rendering never runs.
    A read that is `earlier` sees the value before a write above it. `path` is the member that is read.
    """

    member: Member
    shorthand: str = ""
    called: bool = False
    reference: bool = False
    handled: bool = False
    earlier: bool = False
    path: str = ""


@dataclass(frozen=True)
class WholeRead(Operation):
    """All inputs, the whole state or the context as one object."""

    source: Literal["props", "state", "context"]


@dataclass(frozen=True)
class RestInputs(Operation):
    """All inputs but those `named`, with whatever else the component is given, as one object. An element
    has attributes of its own that count instead of those `replaced`."""

    named: tuple[str, ...]
    replaced: frozenset[str] = frozenset()


@dataclass(frozen=True)
class DraftState(Operation):
    """The state while the code that makes it runs.

    `form` is `made` where it is given its first value for good, `result` where that value is also the
    last thing said (the span reaches up to the value), `named` anywhere else.
    """

    form: Literal["made", "result", "named"]


@dataclass(frozen=True)
class RootElement(Operation):
    """The one element that the component renders, under the `name` of a ref to it.

    It is found by code, or this is the place in markup that makes it known (a `mark`). As one of the names
    a pattern declares it is `local`; `next` is the keyword of the declaration of the one after it. `bare`
    is the reference itself, where a name stood for it.
    """

    name: str
    mark: bool
    local: str = ""
    next: str = ""
    bare: bool = False


@dataclass(frozen=True)
class FieldUse(Operation):
    """An instance field: read, written or updated where it stands.

    `declares` says that it is the target of a plain assignment that is a statement of its own at
    the top of a hook; `handled` that it stands in a handler that rendering never runs.
    """

    member: Member
    write: bool = False
    declares: bool = False
    handled: bool = False


@dataclass(frozen=True)
class MethodCall(Operation):
    """The callee of a call of an own method; for a `getter` the read that calls it.

    `opens` is what stands before its arguments where its span holds that too; `handled` says that rendering
    never runs it: it stands in a function given as an attribute.
    """

    member: Member
    getter: bool = False
    opens: str = ""
    handled: bool = False


@dataclass(frozen=True)
class SetterCall(MethodCall):
    """A plain assignment that calls an own setter with `value`."""

    value: Code = Code(Span(0, 0, ""))

    def operands(self) -> tuple[Code, ...]:
        return (self.value,)


@dataclass(frozen=True)
class Differs(Operation):
    """A comparison of two values by identity, in which not-a-number is equal to itself.

    `same` where it asks whether they are the same.
    """

    left: Code
    right: Code
    same: bool = False

    def operands(self) -> tuple[Code, ...]:
        return self.left, self.right


@dataclass(frozen=True)
class Itself(Operation):
    """The component as a value, of which a static member is read."""


@dataclass(frozen=True)
class Redraw(Operation):
    """A call that renders the component again although nothing changed."""


@dataclass(frozen=True)
class MethodValue(Operation):
    """A method used as a value: whether its identity matters depends on the place.

    `shorthand` is what stands before it where it is a part of an object. `place` is `element` (attribute
    of a plain element), `component` (of a component named `receiver`), `reference` (a callback
    reference), `timer`, `called back` (run before the call it is given to returns, as in
    `rows.map(this.row)`) or `kept` (anywhere else, so that it may run later).
    `handed` says that it is an argument of a function that may call it at once.
    """

    member: Member
    place: str
    receiver: str = ""
    bound: tuple[Code, ...] | None = None
    handed: bool = False
    shorthand: str = ""

    def operands(self) -> tuple[Code, ...]:
        return self.bound or ()


@dataclass(frozen=True)
class Patch:
    """One field of a literal state write. `value` is None where the name stands for itself.

    `function` says that the value is a function written in place, `again` that it may be the very
    object the state holds, changed in place, `constant` that it is the same each time, `flips` that it
    is the negation of what the field holds, which is never the same, `fresh` that it is never what the
    field holds, for whatever reason, `updates` that the value is a function that gives it from what the
    field holds.
    """

    name: str
    value: Code | None
    function: bool
    again: bool = False
    constant: bool = False
    flips: bool = False
    fresh: bool = False
    updates: bool = False


@dataclass(frozen=True)
class Updater:
    """A state write computed from the previous state.

    `parameter` is the name of the previous state; `own` are the reads of it by field;
    `result` the fields of the object an expression body gives, None if it is anything else;
    `reads_inputs` says that it takes the inputs as well.
    """

    function: Code
    parameter: str
    own: tuple[tuple[Span, str], ...]
    result: tuple[Patch, ...] | None
    may_skip: bool
    reads_inputs: bool = False


@dataclass(frozen=True)
class StateWrite(Operation):
    """A write of state: `fields` literally, by an `updater`, or what the argument gives.

    `open` says of the last that it may be nothing, or an updater, as well as an object, `gives_inputs` that
    such an updater may take the inputs. `after` is what is called when all is rendered. `keeps` are members
    whose values before it are read below.
    """

    position: Position
    argument: Code
    callee: Span
    fields: tuple[Patch, ...] | None = None
    updater: Updater | None = None
    open: bool = False
    after: Code | None = None
    gives_inputs: bool = False
    keeps: tuple[Member, ...] = ()

    def operands(self) -> tuple[Code, ...]:
        return (self.argument,) if self.after is None else (self.argument, self.after)


def reads_inputs_in_updater(write: StateWrite) -> bool:
    """Whether the inputs must be passed to what a write computes the state by."""
    return write.gives_inputs or (write.updater is not None and write.updater.reads_inputs)


@dataclass(frozen=True)
class Binding:
    """One name a pattern takes from inputs or state; `at` is where the name stands.

    `called` says that what it names is called, other than in a function given as an attribute,
    `reference` that it is given to an element as its reference.
    """

    key: str
    local: str
    constant: bool
    at: int
    called: bool = False
    reference: bool = False


@dataclass(frozen=True)
class PatternRead(Operation):
    """`const { a, b: c } = …` over all inputs or the whole state, as a declaration of its own.

    `bindings` is None where the pattern holds more than plain names (defaults, nesting, computed
    keys); `rest` is the name of the rest. `right` is the span of the right-hand side.
    `only` says that the declaration holds nothing else; `top` that it stands at the top of render.
    """

    source: Literal["props", "state"]
    bindings: tuple[Binding, ...] | None
    rest: str
    keyword: str
    pattern: Code
    right: Span
    only: bool
    top: bool = False

    def operands(self) -> tuple[Code, ...]:
        return (self.pattern,)


@dataclass(frozen=True)
class Emit(Operation):
    """An event sent to whoever uses the component."""

    event: str
    callee: Span
    arguments: tuple[Code, ...]

    def operands(self) -> tuple[Code, ...]:
        return self.arguments


@dataclass(frozen=True)
class Assign(Operation):
    """A state field written where it stands (`x = v`, `x += v`, `x++`), as mutable syntaxes do.

    `value` is None for `++` and `--`. `alone` says that it is a statement of its own at the top of
    its function, `looped` that it may run several times in one run of it, `atomic` that the value
    needs no parentheses beside an operator, `used` that somebody takes what the write itself gives.
    """

    member: Member
    target: Span
    operator: str
    value: Code | None
    alone: bool
    statement: bool
    looped: bool
    atomic: bool
    used: bool

    def operands(self) -> tuple[Code, ...]:
        return (self.value,) if self.value is not None else ()


@dataclass(frozen=True)
class AssignEach(Operation):
    """A statement that writes several state fields, in order, each with its value.

    `again` says that the values are the first ones of the fields, which stand elsewhere: their text is
    written here once more.
    """

    fields: tuple[tuple[Member, Code], ...]
    again: bool

    def operands(self) -> tuple[Code, ...]:
        return () if self.again else tuple(value for _, value in self.fields)


@dataclass(frozen=True)
class FieldByName(Operation):
    """A state field, one of `names`, that a value chooses while the code runs (`this[part]`): read or
    written where it stands."""

    names: tuple[str, ...]
    key: Code

    def operands(self) -> tuple[Code, ...]:
        return (self.key,)


@dataclass(frozen=True)
class StoreRead(Operation):
    """A store, or what is at a `path` of it, where a function is given it by a name.

    `store` is the function that gives it, "" for the application's.
    """

    store: str
    path: str
    shorthand: str = ""


@dataclass(frozen=True)
class Builtin(Operation):
    """Something a runtime gives every instance, under its own name for it."""

    name: str


@dataclass(frozen=True)
class Taken(Operation):
    """`{ a, b: c } = …` over the instance, in a declaration: each member, and where its local stands."""

    members: tuple[tuple[Operation, str, Span], ...]


@dataclass(frozen=True)
class Picked(Operation):
    """One part of `const { a, b: c } = this`: the member, and the `local` it is given as.

    `next` is the keyword of the declaration of the part after it.
    """

    taken: Operation
    local: str
    next: str = ""

    def operands(self) -> tuple[Code, ...]:
        return (Code(self.taken.span, (self.taken,)),)


@dataclass(frozen=True)
class Rebound(Operation):
    """An own method bound to the instance: a new function at each time."""

    member: Member


@dataclass(frozen=True)
class Inlined(Operation):
    """A name in the render code that is replaced by its value: all of `value`, in parentheses if it
    is `grouped`, followed by `path`."""

    value: Code
    grouped: bool
    path: str = ""
    shorthand: str = ""

    def operands(self) -> tuple[Code, ...]:
        return (self.value,)


@dataclass(frozen=True)
class Snapshot(Operation):
    """A declaration of names for members as they are now, which code that runs later reads:
    (member, name)."""

    taken: tuple[tuple[Member, str], ...]
    keyword: str


@dataclass(frozen=True)
class Filtered(Operation):
    """A value that a filter of the template makes into another one; `arguments` are what it is given
    besides."""

    name: str
    value: Code
    arguments: tuple[Code, ...]

    def operands(self) -> tuple[Code, ...]:
        return (self.value, *self.arguments)


@dataclass(frozen=True)
class Kept(Operation):
    """The start of a function that reads members after they may have changed: their values are kept."""

    members: tuple[Member, ...]


@dataclass(frozen=True)
class SetterValue(Operation):
    """The setter of a state field, as a function that takes the new value."""

    member: Member


@dataclass(frozen=True)
class Cleanup(Operation):
    """A `return` of an effect: the `value` is what ends it. The `last` statement returns nothing else."""

    value: Code
    last: bool

    def operands(self) -> tuple[Code, ...]:
        return (self.value,)


@dataclass(frozen=True)
class SlotGiven(Operation):
    """Whether content is given for a slot."""

    name: str


@dataclass(frozen=True)
class Changed(Operation):
    """The end of a statement that changes what a field of state holds, in place. `opens` and `closes`
    say that the statement stands alone where one is expected, and that this is its start or its end."""

    name: str
    form: Literal["behind", "opens", "closes"]


@dataclass(frozen=True)
class Gone(Operation):
    """A declaration that only served the old syntax and goes by a rule on the closed list."""

    rule: str


@dataclass(frozen=True)
class Respelled(Operation):
    """A place that is written as `text`, by a rule."""

    text: str
    rule: str


@dataclass(frozen=True)
class Box(Operation):
    """The reactive holder of a member's value, passed on instead of the value itself.

    A `getter` is enough where it is only watched; `shorthand` is what stands before it as a part of an
    object.
    """

    member: Member
    getter: bool = False
    shorthand: str = ""


@dataclass(frozen=True)
class Returned(Operation):
    """The expression an arrow function returns (`value`), with the arrow before it. A method writes it with
    braces and `return`; with `alone`, its result is unused and `return` is left out. `own_line` says that
    the value starts on a line of its own."""

    value: Code
    own_line: bool
    alone: bool = False

    def operands(self) -> tuple[Code, ...]:
        return (self.value,)


@dataclass(frozen=True)
class Left(Operation):
    """A place left to a person."""

    rule: str
    detail: str
