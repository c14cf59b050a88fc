"""Markup as a tree, for syntaxes whose markup is a template rather than code."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Code
from clean_carry.component.spans import Span

# What an expression gives whatever happens: a number or string, a truth value, or who knows.
Form = Literal["text", "boolean", ""]


@dataclass(frozen=True)
class Text:
    """Text as written."""

    span: Span
    entry: int


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
    """A name with a literal value; `value` is None where only the name stands."""

    name: str
    value: Span | None
    entry: int


@dataclass(frozen=True)
class BoundAttribute:
    """A name whose value is an expression."""

    name: str
    code: Code
    form: Form
    entry: int


@dataclass(frozen=True)
class ClassList:
    """Classes by condition: (class name, condition, form of the condition)."""

    items: tuple[tuple[str, Code, Form], ...]
    entry: int


@dataclass(frozen=True)
class Handler:
    """Code that runs on an event."""

    event: str
    code: Code
    entry: int


Attribute = StaticAttribute | BoundAttribute | ClassList | Handler


@dataclass(frozen=True)
class Element:
    """An element with its attributes and children."""

    tag: str
    attributes: tuple[Attribute, ...]
    children: tuple[Markup, ...]
    span: Span
    entry: int
    closed_itself: bool = False

    def codes(self) -> Iterator[Code]:
        """Every piece of code in this element."""
        for attribute in self.attributes:
            if isinstance(attribute, BoundAttribute | Handler):
                yield attribute.code
            elif isinstance(attribute, ClassList):
                for _, condition, _ in attribute.items:
                    yield condition
        for child in self.children:
            yield from codes_of(child)


@dataclass(frozen=True)
class Branch:
    """One arm of a condition; `test` is None for the last resort."""

    test: Code | None
    form: Form
    element: Element
    entry: int


@dataclass(frozen=True)
class Condition:
    """Arms of which the first true one is drawn."""

    branches: tuple[Branch, ...]
    span: Span

    def codes(self) -> Iterator[Code]:
        """Every piece of code in the arms."""
        for branch in self.branches:
            if branch.test is not None:
                yield branch.test
            yield from branch.element.codes()


@dataclass(frozen=True)
class SlotOutlet:
    """A place where the user of the component puts content, with what stands there otherwise."""

    name: str
    fallback: tuple[Markup, ...]
    span: Span
    entry: int

    def codes(self) -> Iterator[Code]:
        """Every piece of code in the fallback."""
        for child in self.fallback:
            yield from codes_of(child)


Markup = Element | Text | Expression | MarkupComment | Condition | SlotOutlet


def codes_of(node: Markup) -> Iterator[Code]:
    """Every piece of code in a markup node."""
    if isinstance(node, Expression):
        yield node.code
    elif isinstance(node, Element | Condition | SlotOutlet):
        yield from node.codes()


def children_of(node: Markup) -> tuple[Markup, ...]:
    """The nodes directly inside a markup node; of a condition, the elements of its arms."""
    match node:
        case Element(children=children) | SlotOutlet(fallback=children):
            return children
        case Condition(branches=branches):
            return tuple(branch.element for branch in branches)
    return ()


def slot_names(markup: tuple[Markup, ...]) -> list[str]:
    """The names of the slots a template has, in source order, each once."""
    found: dict[str, None] = {}
    for node in markup:
        if isinstance(node, SlotOutlet):
            found.setdefault(node.name)
        found.update(dict.fromkeys(slot_names(children_of(node))))
    return list(found)
