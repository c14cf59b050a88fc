"""The neutral component in the middle of every crossing. Pure data."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, NamedTuple

from clean_carry.component.code import Code, Member, Operation, StateWrite
from clean_carry.component.markup import Markup, codes_of
from clean_carry.component.moments import Moment, MomentName
from clean_carry.component.opened import NOTHING_OPENED, Opened
from clean_carry.component.spans import Span

DefaultKind = Literal["constant", "name", "function", "object", "other"]


@dataclass(frozen=True)
class Default:
    """The default of an input: its code, what kind of value it is, and whether that is a number.

    `text` is written in place of the code where the default is a member of a constant that stays. A default
    written as a method has code that begins with its parameters; `method` is what a function of that kind
    begins with (`function`, `async function`). `runs_code` says that evaluating it has an effect or a cost.
    """

    code: Code
    kind: DefaultKind
    entry: int
    numeric: bool = False
    text: str = ""
    method: str = ""
    comments: tuple[Span, ...] = ()
    runs_code: bool = False


class Kept(NamedTuple):
    """Why something stays as its old side has it: the rule, its detail, and the offset it points at."""

    rule: str
    detail: str
    at: int


@dataclass(frozen=True)
class Prop:
    """A declared or used input. `implied` is the value its syntax gives it without a default; one that is
    `made` is called for each instance."""

    name: str
    default: Default | None = None
    kind: str = ""
    implied: str = ""
    required: bool = False
    entry: int = -1


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
    """A value that lives as long as the instance and draws nothing when it changes. A `primitive` one has
    no insides to change."""

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
    """What a value or function of a store is: `store` the function that gives the store ("": the
    application's), `taken` what is asked of it, `path` what stands behind it; `code` works it out where a
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
    of it runs.
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
    """Code that runs when its source changed, before the component is drawn.

    `text` is its function from the parameters on, under an entry of its own; `body` is what stands
    between its braces. `now` and `before` are the uses of its parameters, the new and the old value,
    each with its entry. `path` leads on from the source, `handler` is the function where it is kept as
    one, `settings` are how it is run. A `plain` source is never an object, a `held` one is always one.
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


@dataclass(frozen=True)
class Timed:
    """A function the runtime calls at a moment, kept as one.

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

    The instance itself is provided as its `members`, those that anybody asks for.
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
    Method
    | Moment
    | LeftMember
    | Static
    | Derived
    | Reaction
    | Timed
    | Injected
    | Provided
    | KeptOption
)


@dataclass(frozen=True)
class Component:
    """One component, whatever syntax it came from.

    `optional_marks` are places in the type of its props where a key becomes optional, `optional_names`
    keys that its parameter makes optional. `drawing` is code that gives markup; `markup` is a template.
    `typed` says that its script has types, Flow's if `annotated`, else TypeScript's. `option_values` are
    those of options a target may keep as they are; `mutations` is state changed in place. A `pure` one
    draws again only where inputs or state changed; `named_elsewhere` and `names_itself` say that the
    file, or its own code, names it, `export_span` is what stands before it to export it as the default.
    `exposed` are methods and fields for who holds a reference to it, `written_outside` fields those
    write. `form` is how it stands in its file; `decorators` are calls its name stands for the result of,
    the outermost first: all of it, what is called, and its entry. `taken_elsewhere` are names its own
    code beside what it draws takes from the file or the world. `reacting` says that it renders a class of
    the project with code that runs at every update. Each of these comes with an offset: `unfollowed` are
    child components that are given functions and whose source is not there; `handed_on` is a package's
    function that takes the class and whose source is not there; `looked_into` is a function that takes
    the class and extends, constructs or inspects it;
    `undefined_at` is where it may draw nothing at all, not even null; `defaults_kept` is why its defaults
    stay a property of it; `elsewhere` are findings in other files: rule, file, line. `unread` is what
    only a target that keeps it as it is can carry: rule, detail, offset. `template_holders` is what
    stands for the instance before names of its template, `template_names` are the names its template
    uses: the name, where it stands, whether it is written, whether it stands for a field of its own name;
    `tags` those of its elements, `element_names` those given to elements, `sent` the events it sends, an
    empty one for those not known. `plain_fields` live on the instance and draw nothing; `mixed`,
    `mixed_props` and `mixed_hooks` are what is mixed in, `mixed_calm` what of it no hook changes,
    `open_names` what is asked of the instance undeclared, `opened` what of its own others ask it for;
    `beside` are stretches of its file that are its own and stand elsewhere, `prelude` statements that run
    before there is state, and the names they declare.
    """

    name: str
    span: Span
    body: Span
    head: Span
    exported: Literal["", "named", "default"]
    props: tuple[Prop, ...] = ()
    props_type: str = ""
    optional_marks: tuple[Span, ...] = ()
    optional_names: tuple[str, ...] = ()
    type_parameters: Span | None = None
    typed: bool = False
    annotated: bool = False
    state: State | None = None
    fields: tuple[InstanceField, ...] = ()
    members: tuple[Part, ...] = ()
    statics: tuple[Static, ...] = ()
    events: tuple[str, ...] = ()
    sent: tuple[str, ...] = ()
    slots: tuple[str, ...] = ()
    drawing: Code | None = None
    markup: tuple[Markup, ...] = ()
    entries: dict[str, int] = field(default_factory=dict)
    reserved: frozenset[str] = frozenset()
    module_names: frozenset[str] = frozenset()
    drawing_locals: frozenset[tuple[str, int]] = frozenset()
    taken_elsewhere: frozenset[str] = frozenset()
    comments: tuple[Span, ...] = ()
    locals_at: dict[int, frozenset[tuple[str, int]]] = field(default_factory=dict)
    sensitive: frozenset[str] = frozenset()
    reacting: bool = False
    callable_state: frozenset[str] = frozenset()
    called: frozenset[str] = frozenset()
    impure_drawing: bool = False
    pure: bool = False
    context: Context | None = None
    exposed: tuple[str, ...] = ()
    written_outside: frozenset[str] = frozenset()
    named_elsewhere: bool = False
    names_itself: bool = False
    export_span: Span | None = None
    unfollowed: tuple[tuple[str, int], ...] = ()
    handed_on: tuple[str, int] | None = None
    looked_into: tuple[str, int] | None = None
    undefined_at: int = -1
    defaults_kept: Kept | None = None
    elsewhere: tuple[tuple[str, str, int], ...] = ()
    form: Literal["declared", "constant", "returned", "expression"] = "declared"
    decorators: tuple[tuple[Span, Span, int], ...] = ()
    moved: tuple[tuple[Span, int, str], ...] = ()
    mutations: tuple[tuple[str, int], ...] = ()
    unread: tuple[tuple[str, str, int], ...] = ()
    template_holders: tuple[Span, ...] = ()
    template_names: tuple[tuple[str, Span, bool, bool], ...] = ()
    element_names: tuple[tuple[str, Span], ...] = ()
    tags: frozenset[str] = frozenset()
    root_is_component: bool = False
    plain_fields: tuple[str, ...] = ()
    mixed: frozenset[str] = frozenset()
    mixed_calm: frozenset[str] = frozenset()
    mixed_props: frozenset[str] = frozenset()
    open_names: tuple[tuple[str, int], ...] = ()
    mixed_hooks: frozenset[str] = frozenset()
    opened: Opened = NOTHING_OPENED
    beside: tuple[Span, ...] = ()
    prelude: Code | None = None
    prelude_names: frozenset[str] = frozenset()
    option_comments: dict[str, tuple[Span, ...]] = field(default_factory=dict)
    option_values: dict[str, Span] = field(default_factory=dict)

    def codes(self) -> Iterator[tuple[object, Code]]:
        """Every piece of code with what owns it."""
        if self.state is not None:
            if self.state.whole is not None:
                yield self.state, self.state.whole
            for state_field in self.state.fields or ():
                if state_field.code is not None:
                    yield state_field, state_field.code
        for instance_field in self.fields:
            if instance_field.code is not None:
                yield instance_field, instance_field.code
        for member in self.members:
            if isinstance(member, Method | Derived | Reaction):
                yield member, member.text
                if isinstance(member, Derived) and member.setter and member.setter.text:
                    yield member, member.setter.text
            elif isinstance(member, Timed) and member.callback.text is not None:
                yield member, member.callback.text
            elif isinstance(member, Provided):
                yield member, member.code
            elif isinstance(member, Moment):
                yield member, member.body
        if self.drawing is not None:
            yield "drawing", self.drawing
        for node in self.markup:
            for code in codes_of(node):
                yield "drawing", code

    @cached_property
    def _operations(self) -> tuple[tuple[object, Operation], ...]:
        return tuple((owner, one) for owner, code in self.codes() for one in code.all())

    def operations(self) -> Iterator[tuple[object, Operation]]:
        """Every operation with the member that owns it."""
        return iter(self._operations)

    def writes(self) -> list[StateWrite]:
        """The writes of state, in the order of `operations`."""
        return [operation for _, operation in self._operations if isinstance(operation, StateWrite)]

    @property
    def writes_constants(self) -> bool:
        """Whether a write gives a field what it may have had already."""
        return any(patch.constant for write in self.writes() for patch in write.fields or ())

    def methods(self) -> list[Method]:
        """The own functions, in source order."""
        return [member for member in self.members if isinstance(member, Method)]

    @property
    def derived(self) -> list[Derived]:
        """The derived values, in source order."""
        return [member for member in self.members if isinstance(member, Derived)]

    @property
    def reactions(self) -> list[Reaction]:
        """What runs when a source changed, in source order."""
        return [member for member in self.members if isinstance(member, Reaction)]

    def moments(self, when: MomentName) -> list[Moment]:
        """The code that runs at this moment."""
        return [m for m in self.members if isinstance(m, Moment) and m.when == when]


@dataclass(frozen=True)
class Refusal:
    """A component that is not written, and why."""

    name: str
    rule: str
    detail: str
    at: int


@dataclass(frozen=True)
class StyleBlock:
    """A stylesheet that belongs to the file. `scoped` keeps it from touching neighbours.

    `language` is "css" or a preprocessor's, `linked` the path of a stylesheet of its own, "" for none.
    """

    content: Span
    scoped: bool
    language: str = "css"
    linked: str = ""
