"""The parts of an expression, apart from how a language writes them."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.expressions.types import Type


@dataclass(frozen=True)
class Expr:
    """An expression, with the type of its value."""

    type: Type


@dataclass(frozen=True)
class Constant(Expr):
    """A text, a number, true, false, null or undefined (both None; the type tells which)."""

    value: str | int | float | bool | None


@dataclass(frozen=True)
class Name(Expr):
    """A value by its name: a member of the component, the item of a list, a parameter."""

    name: str


@dataclass(frozen=True)
class Field(Expr):
    """A field of a record; a `safe` one is nothing where the record is."""

    of: Expr
    name: str
    safe: bool = False


@dataclass(frozen=True)
class Item(Expr):
    """An item of a list by its number, or a field by a name that is computed."""

    of: Expr
    at: Expr
    safe: bool = False


@dataclass(frozen=True)
class Apply(Expr):
    """An operation with its parts: an operator (`+`), a method (`text.upper`) or a function (`round`)."""

    operation: str
    parts: tuple[Expr, ...]


@dataclass(frozen=True)
class Choice(Expr):
    """One of two values, by whether a third is true."""

    test: Expr
    then: Expr
    other: Expr


@dataclass(frozen=True)
class Function(Expr):
    """A function written in an expression; `type` is the type of the value it returns."""

    parameters: tuple[str, ...]
    body: Expr


@dataclass(frozen=True)
class Spread(Expr):
    """The items of a list, or the fields of a record, in another one."""

    of: Expr


@dataclass(frozen=True)
class Listing(Expr):
    """A list by its items."""

    items: tuple[Expr, ...]


@dataclass(frozen=True)
class Record(Expr):
    """A record by its fields; a `Spread` has no name."""

    fields: tuple[tuple[str, Expr], ...]


class Unsayable(Exception):
    """An expression whose meaning is not known well enough: what, and where it stands."""

    def __init__(self, what: str, at: int = 0) -> None:
        super().__init__(what)
        self.what, self.at = what, at
