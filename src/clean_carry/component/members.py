"""The parts of a component: state, fields, functions, reactions, props and events. Pure data."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Code, Member
from clean_carry.component.moments import Moment, MomentName
from clean_carry.component.spans import Span


@dataclass(frozen=True)
class StateField:
    """One field of the component's state. `code` is None where it starts undefined; comments `behind` it
    stand on its line."""

    name: str
    code: Code | None
    lazy: bool
    entry: int
    comment: Span | None = None
    numeric: bool = False
    behind: tuple[Span, ...] = ()
    type_text: str = ""


@dataclass(frozen=True)
class State:
    """State as the author wrote it. `fields` is None where the initial value is no plain literal.

    `body` says that `whole` are statements that make it, `after` the instance fields made before it.
    """

    fields: tuple[StateField, ...] | None
    whole: Code | None
    lazy: bool
    type_text: str
    entry: int
    comments: tuple[Span, ...] = ()
    body: bool = False
    after: tuple[str, ...] = ()


@dataclass(frozen=True)
class InstanceField:
    """A value that lives as long as the instance and does not re-render when it changes. A
    `primitive` one cannot be changed in place."""

    name: str
    code: Code | None
    lazy: bool
    element: bool
    type_text: str
    entry: int
    comments: tuple[Span, ...] = ()
    primitive: bool = False


@dataclass(frozen=True)
class Callback:
    """A function of an option: its text from the parameters on, and where its body starts.

    `body_at` is -1 for an arrow function, which is copied whole, `method` the name of an own method
    that stands in its place, `parameters` whether it takes any, `untyped` those without a type.
    """

    text: Code | None
    entry: int
    body_at: int = -1
    asynchronous: bool = False
    parameters: bool = False
    method: str = ""
    untyped: tuple[Span, ...] = ()
    shared: tuple[Span, Span] | None = None


@dataclass(frozen=True)
class Stored:
    """A value or function of a store: `store` is the function that returns the store ("": the
    application's), `taken` the member, `path` the rest of the path; `code` computes it if a
    function does."""

    store: str
    taken: str
    path: str
    code: Code | None = None


@dataclass(frozen=True)
class Derived:
    """A value computed from inputs and state.

    `text` is its function from the parameters on, under an entry of its own for writers that keep
    it; `returned` is the expression where the body is one return of it; `setter` is what a write
    of it runs. `gives` is the local that the statements of `text` work out.
    """

    name: str
    text: Code
    text_entry: int
    returned: Code | None
    entry: int
    comments: tuple[Span, ...] = ()
    getter: Callback | None = None
    setter: Callback | None = None
    stored: Stored | None = None
    type_text: str = ""
    gives: str = ""


@dataclass(frozen=True)
class Method:
    """An own function. `form` is how it was written; `text` is what is copied of it.

    `shared` is set for a method that one call made for all instances, as `load: debounce(function () {…},
    400)`: the text of the function called (`debounce`), and of the arguments behind the method (`, 400`).
    A `getter` is called where its name is read. An `asynchronous` method never throws: it returns a
    promise that is rejected.
    """

    name: str
    form: Literal["declared", "assigned"]
    text: Code
    prefix: str
    stable: bool
    entry: int
    uses_arguments: bool = False
    body_at: int = 0
    asynchronous: bool = False
    comments: tuple[Span, ...] = ()
    getter: bool = False
    shared: tuple[Span, Span] | None = None
    stored: Stored | None = None


@dataclass(frozen=True)
class Reaction:
    """Code that runs after its source changed, before the component re-renders.

    `text` is its function from the parameters on, under an entry of its own; `body` is what stands
    between its braces. `now` and `before` are the uses of its parameters, the new and the old value,
    each with its entry. `path` leads on from the source, `handler` is the function where it is kept as
    one, `settings` are how it is run. A `plain` source is never an object, a `held` one is always one. An
    `ended` one takes a function, after both values, that registers a clean-up for the next run.
    """

    source: Member
    text: Code
    text_entry: int
    body: Code
    now: tuple[tuple[Span, int], ...]
    before: tuple[tuple[Span, int], ...]
    runs_code: bool
    entry: int
    comments: tuple[Span, ...] = ()
    path: tuple[str, ...] = ()
    handler: Callback | None = None
    settings: tuple[Span, ...] = ()
    deep: bool = False
    immediate: bool = False
    plain: bool = False
    held: bool = False
    ended: bool = False


@dataclass(frozen=True)
class Timed:
    """A function that the runtime calls as a lifecycle hook, kept as one.

    `hook` is what its syntax calls it; `locals` are the names its top declares, `flows` says that it can
    be a run of statements as it is: it returns nothing, takes nothing and waits for nothing. `inner` is
    what stands between its braces.
    """

    when: MomentName
    hook: str
    callback: Callback
    entry: int
    inner: Code | None
    locals: frozenset[str] = frozenset()
    flows: bool = False
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Effect:
    """Code that runs once the component is displayed, and again whenever one of its `sources` has changed;
    what it returns ends it before it runs again and before the component is removed.

    `text` is what stands between the braces of its function, or the one expression it is. Without sources
    it runs once.
    """

    text: Code
    sources: tuple[Code, ...]
    ends: bool
    expression: bool
    entry: int
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Followed:
    """An effect that follows what it reads: it runs during setup, or after mount if `drawn`, and
    again when a value changed that its last run read.

    `text` is what stands between the braces of its function, or the one `expression` it is. A `branching`
    one calls the component's functions, and reads some of it on a condition only.
    """

    text: Code
    drawn: bool
    expression: bool
    branching: bool
    entry: int
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Reducer:
    """A field of state that a function gives its next value, `reduce(state, action)`; `dispatch` is the
    component's own function that is called with the action."""

    state: str
    dispatch: str
    reduce: Code
    entry: int
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Injected:
    """A value an ancestor provides. `fallback` is used where none does, `made` by calling it."""

    name: str
    key: str
    fallback: Code | None
    made: bool
    entry: int
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Provided:
    """A value for all descendants under a key, whose text is written as it is.

    The instance itself is provided as its `members`, those that other code reads.
    """

    key: str
    code: Code
    entry: int
    comments: tuple[Span, ...] = ()
    members: tuple[str, ...] | None = None
    everything: bool = False


@dataclass(frozen=True)
class KeptOption:
    """An option that only the runtime reads, or somebody else: it stays. An `idle` one nobody reads."""

    name: str
    span: Span
    entry: int
    comments: tuple[Span, ...] = ()
    idle: bool = False


@dataclass(frozen=True)
class Model:
    """A value its parent binds both ways, under the name `prop`, which has a value of its own where no
    parent does. `declared` is what the input is declared as where that is written out, else `kind` is."""

    name: str
    prop: str
    declared: Code | None
    kind: str
    entry: int
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class SharedCall:
    """A statement that calls shared code of the family (a composable), or makes what such a call is given.

    It stays as it is. `names` are what it declares, `offered` those of them that other code uses.
    """

    span: Span
    entry: int
    names: tuple[str, ...]
    offered: tuple[str, ...]
    comments: tuple[Span, ...] = ()


@dataclass(frozen=True)
class Context:
    """The context a component reads: `shared`, made by the expression `text`, or the `old` one.

    `span` is the statement that named it outside of the component, which goes.
    """

    kind: Literal["shared", "old"]
    text: str
    entry: int
    span: Span | None


@dataclass(frozen=True)
class Static:
    """A value on the component itself rather than on its instances."""

    name: str
    code: Code
    entry: int
    method: str = ""
    comments: tuple[Span, ...] = ()
    runs_code: bool = False


@dataclass(frozen=True)
class LeftMember:
    """A member left to a person, whole."""

    rule: str
    detail: str
    span: Span
    entry: int


Part = (
    State
    | InstanceField
    | Method
    | Moment
    | LeftMember
    | Static
    | Context
    | Derived
    | Reaction
    | Timed
    | Injected
    | Provided
    | KeptOption
    | SharedCall
    | Model
    | Effect
    | Followed
    | Reducer
)
