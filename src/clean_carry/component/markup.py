"""Markup as a tree: what a template says, and what is seen as markup in code that gives it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Code, RestInputs
from clean_carry.component.spans import Span

# The value of an expression, where it is always the same kind: a number or string, a boolean, or unknown.
Form = Literal["text", "boolean", ""]


@dataclass(frozen=True)
class Text:
    """Text as written; `drawn` is what a page shows of it, None where that is up to the template's
    rules."""

    span: Span
    entry: int
    drawn: str | None = None


@dataclass(frozen=True)
class Expression:
    """A value shown as text."""

    code: Code
    form: Form
    entry: int


@dataclass(frozen=True)
class MarkupComment:
    """A comment; `inner` is the text between its marks."""

    span: Span
    inner: Span
    entry: int


@dataclass(frozen=True)
class StaticAttribute:
    """A name with a literal value, as HTML spells both; `value` is None where only the name stands."""

    name: str
    value: Span | None
    entry: int


@dataclass(frozen=True)
class BoundAttribute:
    """A name whose value is an expression. Where it `may_go` the value false takes the attribute away,
    whatever it is called."""

    name: str
    code: Code
    form: Form
    entry: int
    may_go: bool = False


@dataclass(frozen=True)
class ClassList:
    """Classes by condition: (class name, condition, form of the condition)."""

    items: tuple[tuple[str, Code, Form], ...]
    entry: int


@dataclass(frozen=True)
class Handler:
    """Code that runs on an event, or, as a `function`, a function that is called with it. `modifiers` are
    conditions of the listener by name (`capture`); code that `states` is statements, not one expression."""

    event: str
    code: Code
    entry: int
    function: bool = False
    modifiers: tuple[str, ...] = ()
    states: bool = False


@dataclass(frozen=True)
class StyleMap:
    """Styles by property, as a page names them: (name, value, whether a bare number means pixels)."""

    items: tuple[tuple[str, Code, bool], ...]
    entry: int


@dataclass(frozen=True)
class Spread:
    """All parts of an object as attributes."""

    code: Code
    entry: int


@dataclass(frozen=True)
class Reference:
    """Makes the element known to a member: `member` by its name, else a function called with it."""

    member: str
    code: Code | None
    entry: int


@dataclass(frozen=True)
class Key:
    """The key that identifies an element of a list."""

    code: Code
    entry: int


@dataclass(frozen=True)
class RawHtml:
    """Content given as HTML."""

    code: Code
    entry: int


@dataclass(frozen=True)
class Shown:
    """A condition for displaying an element: where it fails, the element stays in the page, hidden."""

    code: Code
    entry: int


@dataclass(frozen=True)
class TwoWay:
    """A two-way binding of a field or a component. `name` is the bound prop ("": its value), and
    `kind` the type of the field. `modifiers` say how the value is read, `changes` which state
    fields hold a bound part."""

    code: Code
    entry: int
    name: str = ""
    kind: str = ""
    modifiers: tuple[str, ...] = ()
    changes: tuple[str, ...] = ()


Attribute = (
    StaticAttribute
    | BoundAttribute
    | ClassList
    | Handler
    | StyleMap
    | Spread
    | Reference
    | Key
    | RawHtml
    | Shown
    | TwoWay
)


def attribute_codes(attribute: Attribute) -> Iterator[Code]:
    """Every piece of code in an attribute."""
    match attribute:
        case BoundAttribute(code=code) | Handler(code=code) | Spread(code=code) | Key(code=code):
            yield code
        case RawHtml(code=code) | Shown(code=code) | TwoWay(code=code):
            yield code
        case Reference(code=code) if code is not None:
            yield code
        case ClassList(items=items):
            yield from (condition for _, condition, _ in items)
        case StyleMap(items=styles):
            yield from (value for _, value, _ in styles)


@dataclass(frozen=True)
class Element:
    """An element, or a use of a component, with its attributes and children.

    `chosen` is what gives the tag where code does, which is `one_of` these where that is known, `branch`
    tells it from the same element in another branch.
    """

    tag: str
    attributes: tuple[Attribute, ...]
    children: tuple[Markup, ...]
    span: Span
    entry: int
    closed_itself: bool = False
    component: bool = False
    chosen: Code | None = None
    one_of: tuple[str, ...] = ()
    branch: str = ""

    def codes(self) -> Iterator[Code]:
        """Every piece of code in this element."""
        if self.chosen is not None:
            yield self.chosen
        for attribute in self.attributes:
            yield from attribute_codes(attribute)
        for child in self.children:
            yield from codes_of(child)


@dataclass(frozen=True)
class Group:
    """Several nodes as one, without an element around them."""

    children: tuple[Markup, ...]
    span: Span
    entry: int

    def codes(self) -> Iterator[Code]:
        """Every piece of code in it."""
        for child in self.children:
            yield from codes_of(child)


@dataclass(frozen=True)
class Loop:
    """Nodes rendered once for each of `items`; `item` and `index` are the names of the item and its
    index."""

    items: Code
    item: Code
    index: Code | None
    children: tuple[Markup, ...]
    span: Span
    entry: int

    def codes(self) -> Iterator[Code]:
        """Every piece of code in it."""
        yield self.items
        yield self.item
        if self.index is not None:
            yield self.index
        for child in self.children:
            yield from codes_of(child)


@dataclass(frozen=True)
class Branch:
    """One arm of a condition; `test` is None for the last resort, and where it is `negated` it must
    fail."""

    test: Code | None
    form: Form
    children: tuple[Markup, ...]
    entry: int
    negated: bool = False


@dataclass(frozen=True)
class Condition:
    """Branches of which the first true one is rendered."""

    branches: tuple[Branch, ...]
    span: Span

    def codes(self) -> Iterator[Code]:
        """Every piece of code in the arms."""
        for branch in self.branches:
            if branch.test is not None:
                yield branch.test
            for child in branch.children:
                yield from codes_of(child)


@dataclass(frozen=True)
class SlotOutlet:
    """A place where the user of the component puts content, with what stands there otherwise. `given` are
    values the content can use."""

    name: str
    fallback: tuple[Markup, ...]
    span: Span
    entry: int
    given: tuple[tuple[str, Code, int], ...] = ()

    def codes(self) -> Iterator[Code]:
        """Every piece of code in it."""
        yield from (code for _, code, _ in self.given)
        for child in self.fallback:
            yield from codes_of(child)


@dataclass(frozen=True)
class Content:
    """The content for a slot of a child: the slot's name, and the pattern of the values that it
    provides."""

    name: str
    parameters: Code | None
    children: tuple[Markup, ...]
    span: Span
    entry: int

    def codes(self) -> Iterator[Code]:
        """Every piece of code in it."""
        if self.parameters is not None:
            yield self.parameters
        for child in self.children:
            yield from codes_of(child)


@dataclass(frozen=True)
class Portal:
    """Nodes that stand elsewhere in the page: inside of the element `target` gives, or of the one that
    `selector`, literal text, finds."""

    children: tuple[Markup, ...]
    target: Code | None
    selector: str
    span: Span
    entry: int

    def codes(self) -> Iterator[Code]:
        """Every piece of code in it."""
        if self.target is not None:
            yield self.target
        for child in self.children:
            yield from codes_of(child)


Markup = (
    Element
    | Text
    | Expression
    | MarkupComment
    | Condition
    | SlotOutlet
    | Group
    | Loop
    | Content
    | Portal
)


def codes_of(node: Markup) -> Iterator[Code]:
    """Every piece of code in a markup node."""
    if isinstance(node, Expression):
        yield node.code
    elif isinstance(node, Element | Condition | SlotOutlet | Group | Loop | Content | Portal):
        yield from node.codes()


def children_of(node: Markup) -> tuple[Markup, ...]:
    """The nodes directly inside a markup node; of a condition, those of its arms."""
    match node:
        case Element(children=children) | SlotOutlet(fallback=children):
            return children
        case Group(children=children) | Loop(children=children) | Content(children=children):
            return children
        case Portal(children=children):
            return children
        case Condition(branches=branches):
            return tuple(child for branch in branches for child in branch.children)
    return ()


def inputs_handed_on(attribute: Attribute) -> RestInputs | None:
    """Return the props that an attribute passes on to an element: `{...others}`; None for any other
    attribute."""
    if not isinstance(attribute, Spread) or len(attribute.code.operations) != 1:
        return None
    first = attribute.code.operations[0]
    return first if isinstance(first, RestInputs) and first.span == attribute.code.span else None


def walk(markup: tuple[Markup, ...]) -> Iterator[Markup]:
    """All nodes, each before what stands in it."""
    for node in markup:
        yield node
        yield from walk(children_of(node))


def slot_names(markup: tuple[Markup, ...]) -> list[str]:
    """The names of the slots a template has, in source order, each once."""
    found: dict[str, None] = {}
    for node in markup:
        if isinstance(node, SlotOutlet):
            found.setdefault(node.name)
        found.update(dict.fromkeys(slot_names(children_of(node))))
    return list(found)
