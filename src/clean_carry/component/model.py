"""The neutral component in the middle of every crossing. Pure data."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, NamedTuple, TypeVar

from clean_carry.component.code import Code, Operation, StateWrite
from clean_carry.component.exposed import NOTHING_OPENED, Opened
from clean_carry.component.markup import Markup, codes_of
from clean_carry.component.members import (
    Context,
    Derived,
    Effect,
    Followed,
    InstanceField,
    Method,
    Part,
    Provided,
    Reaction,
    Reducer,
    State,
    Static,
    Timed,
)
from clean_carry.component.moments import Moment, MomentName
from clean_carry.component.spans import Span

_Kind = TypeVar("_Kind")
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
class Place:
    """Where a component stands in its file, and what stands with it.

    `form` is how it stands there, `export_span` what stands before it to export it as the default;
    `decorators` are calls its name stands for the result of, the outermost first: all of it, what is
    called, and its entry. `beside` are stretches of the file that are its own and stand elsewhere, `moved`
    those that go: span, entry, rule. `names_itself` says that its own code names it.
    """

    span: Span
    head: Span
    exported: Literal["", "named", "default"]
    form: Literal["declared", "constant", "returned", "expression"] = "declared"
    export_span: Span | None = None
    decorators: tuple[tuple[Span, Span, int], ...] = ()
    beside: tuple[Span, ...] = ()
    moved: tuple[tuple[Span, int, str], ...] = ()
    names_itself: bool = False


@dataclass(frozen=True)
class Inputs:
    """The props of a component.

    `type_text` is the type its inputs have, in which a key becomes optional at `optional_marks`;
    `optional_names` are keys its parameter makes optional. `defaults_kept` is why defaults stay a property.
    """

    props: tuple[Prop, ...] = ()
    type_text: str = ""
    optional_marks: tuple[Span, ...] = ()
    optional_names: tuple[str, ...] = ()
    type_parameters: Span | None = None
    defaults_kept: Kept | None = None


@dataclass(frozen=True)
class Outward:
    """The events and members that a component offers to its users.

    `events` are declared, `sent` those it sends, an empty one for those not known.
    `exposed` are methods and fields for who holds a reference to it, `written_outside` fields those write.
    """

    events: tuple[str, ...] = ()
    sent: tuple[str, ...] = ()
    exposed: tuple[str, ...] = ()
    written_outside: frozenset[str] = frozenset()


@dataclass(frozen=True)
class View:
    """The output of a component: `drawing` is code that returns markup, `markup` a template.

    `locals` are names the rendering code declares; it is `impure` where it has side effects. A `pure`
    component renders again only where props or state changed. At `undefined_at` it returns undefined. Of a
    template, `holders` stand for the instance before names, `names` are the names it uses: the name, where
    it stands, whether it is written, whether it stands for a field of its own name; `tags` are those of its
    elements, `element_names` those given to elements. An attribute that is no prop goes to the root by
    itself where it `falls_through`.
    """

    drawing: Code | None = None
    markup: tuple[Markup, ...] = ()
    locals: frozenset[tuple[str, int]] = frozenset()
    impure: bool = False
    pure: bool = False
    undefined_at: int = -1
    holders: tuple[Span, ...] = ()
    names: tuple[tuple[str, Span, bool, bool], ...] = ()
    element_names: tuple[tuple[str, Span], ...] = ()
    tags: frozenset[str] = frozenset()
    root_is_component: bool = False
    falls_through: bool = False


@dataclass(frozen=True)
class Language:
    """The script's language: it has types, Flow's where `annotated`, else TypeScript's."""

    typed: bool = False
    annotated: bool = False


class Elsewhere(NamedTuple):
    """A finding in another file, or at a place of a file that was changed before it was read."""

    rule: str
    file: str
    line: int
    detail: str = ""


@dataclass(frozen=True)
class Facts:
    """Facts that analyses found about a component and the code around it.

    `reserved` are names no member may take, `module_names` those of its file, `taken_elsewhere` those its
    code beside what it renders takes from the file or the world, `locals_at` the locals at an offset.
    `sensitive` are children that compare what they are given; `called` and `callable_state` are members
    that are called. `reacting` says that it renders a class of the project with code that runs at every
    update; `mutations` is state changed in place. Each of these comes with an offset: `unfollowed` are
    child components that are given functions and whose source is not there; `handed_on` is a package's
    function that takes it and whose source is not there; `looked_into` is a function that takes it and
    extends, constructs or inspects it; `unread` is what only a target that keeps it as it is can carry.
    `elsewhere` are findings in other files; `noted` are those of markup: rule, detail, offset. `moved_out`
    are stretches of its code that use nothing of it: they become code of the module; `carried_names` are
    the offsets of names of the runtime that its members say already.
    """

    reserved: frozenset[str] = frozenset()
    module_names: frozenset[str] = frozenset()
    taken_elsewhere: frozenset[str] = frozenset()
    locals_at: dict[int, frozenset[tuple[str, int]]] = field(default_factory=dict)
    sensitive: frozenset[str] = frozenset()
    callable_state: frozenset[str] = frozenset()
    called: frozenset[str] = frozenset()
    reacting: bool = False
    mutations: tuple[tuple[str, int], ...] = ()
    unfollowed: tuple[tuple[str, int], ...] = ()
    handed_on: tuple[str, int] | None = None
    looked_into: tuple[str, int] | None = None
    unread: tuple[tuple[str, str, int], ...] = ()
    elsewhere: tuple[Elsewhere, ...] = ()
    noted: tuple[tuple[str, str, int], ...] = ()
    moved_out: tuple[tuple[int, int], ...] = ()
    carried_names: frozenset[int] = frozenset()


@dataclass(frozen=True)
class Foreign:
    """Facts that only one family knows about a component, and only a target of it can express.

    `plain_fields` live on the instance and are not rendered; `mixed`, `mixed_props` and `mixed_hooks` come
    from mixins, `mixed_calm` are members of those that no hook changes; `open_names` are undeclared members
    read from the instance, `opened` its own members that other code reads; `prelude` are statements that
    run before there is state, and the names they declare; `option_values` are the values of options a
    target may keep as they are, `option_comments` their comments; `stands_for` are names of the script for
    a member, or for something every instance has, of another name.
    """

    plain_fields: tuple[str, ...] = ()
    mixed: frozenset[str] = frozenset()
    mixed_calm: frozenset[str] = frozenset()
    mixed_props: frozenset[str] = frozenset()
    mixed_hooks: frozenset[str] = frozenset()
    open_names: tuple[tuple[str, int], ...] = ()
    opened: Opened = NOTHING_OPENED
    prelude: Code | None = None
    prelude_names: frozenset[str] = frozenset()
    option_comments: dict[str, tuple[Span, ...]] = field(default_factory=dict)
    option_values: dict[str, Span] = field(default_factory=dict)
    stands_for: dict[str, str] = field(default_factory=dict)


def _codes_of(member: Part) -> Iterator[Code]:
    """The code of a member that is neither state nor a field."""
    match member:
        case Method() | Derived() | Reaction():
            yield member.text
            if isinstance(member, Derived) and member.setter and member.setter.text:
                yield member.setter.text
        case Timed() if member.callback.text is not None:
            yield member.callback.text
        case Provided():
            yield member.code
        case Effect(text=text, sources=sources):
            yield text
            yield from sources
        case Followed(text=text):
            yield text
        case Reducer(reduce=reduce):
            yield reduce
        case Moment():
            yield member.body


@dataclass(frozen=True)
class Component:
    """One component, whatever syntax it came from.

    `entries` are those of the ledger by what they are of, `comments` stand with what it renders.
    """

    name: str
    place: Place
    inputs: Inputs = Inputs()
    outward: Outward = Outward()
    members: tuple[Part, ...] = ()
    view: View = View()
    language: Language = Language()
    foreign: Foreign = field(default_factory=Foreign)
    facts: Facts = field(default_factory=Facts)
    entries: dict[str, int] = field(default_factory=dict)
    comments: tuple[Span, ...] = ()

    @property
    def span(self) -> Span:
        """All of it in its file."""
        return self.place.span

    def _every(self, kind: type[_Kind]) -> tuple[_Kind, ...]:
        return tuple(member for member in self.members if isinstance(member, kind))

    @cached_property
    def state(self) -> State | None:
        """Its state; None where it has none."""
        return next(iter(self._every(State)), None)

    @cached_property
    def fields(self) -> tuple[InstanceField, ...]:
        """Return its fields that do not re-render, in source order."""
        return self._every(InstanceField)

    @cached_property
    def statics(self) -> tuple[Static, ...]:
        """Values on the component itself, in source order."""
        return self._every(Static)

    @cached_property
    def context(self) -> Context | None:
        """The context it reads; None where it reads none."""
        return next(iter(self._every(Context)), None)

    def codes(self) -> Iterator[tuple[object, Code]]:
        """Every piece of code with what owns it."""
        if self.state is not None:
            if self.state.whole is not None:
                yield self.state, self.state.whole
            yield from ((one, one.code) for one in self.state.fields or () if one.code is not None)
        yield from ((one, one.code) for one in self.fields if one.code is not None)
        for member in self.members:
            yield from ((member, code) for code in _codes_of(member))
        if self.view.drawing is not None:
            yield "drawing", self.view.drawing
        for node in self.view.markup:
            yield from (("drawing", code) for code in codes_of(node))

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
        """Return the reactions to changed sources, in source order."""
        return [member for member in self.members if isinstance(member, Reaction)]

    def moments(self, when: MomentName) -> list[Moment]:
        """Return the code of this lifecycle hook."""
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
