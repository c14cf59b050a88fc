"""Functions of PHP as operations: by name, with what they need of their arguments.

Sources: the language's reference, the pages of the functions.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from clean_carry.source.expressions.model import Apply, Constant, Expr, Field, Function, Name
from clean_carry.source.expressions.types import ANY, FLAG, NUMBER, TEXT, WHOLE, Type, list_of

if TYPE_CHECKING:
    from clean_carry.source.php.reading import PhpReader
    from clean_carry.source.php.tree import PhpNode


@dataclass(frozen=True)
class Given:
    """A call: who reads it, its node, and the nodes of its arguments."""

    reader: PhpReader
    node: PhpNode
    nodes: list[PhpNode]

    def count(self, least: int, most: int) -> None:
        """Raises `Unsayable` for another number of arguments."""
        if not least <= len(self.nodes) <= most:
            raise self.reader.unsaid(self.node)

    def value(self, at: int, kind: str = "") -> Expr:
        """An argument as a value of a kind."""
        made = self.reader.read(self.nodes[at])
        return self.reader.expect(made, kind, self.nodes[at]) if kind else made

    def text(self, at: int) -> Expr:
        """An argument as a text that methods are called of."""
        made = self.reader.read(self.nodes[at])
        if made.type.kind == "any":
            return self.reader.expect(made, "text", self.nodes[at])
        shown = self.reader.shown(made, self.nodes[at])
        return Apply(TEXT, "number.text", (shown,)) if shown.type.kind == "number" else shown

    def whole(self, at: int) -> int:
        """An argument that is a whole number as it is written. Raises `Unsayable`."""
        found = self.reader.read(self.nodes[at])
        if (
            not isinstance(found, Constant)
            or isinstance(found.value, bool)
            or not isinstance(found.value, int)
        ):
            raise self.reader.unsaid(self.nodes[at])
        return found.value


Call = Callable[[Given], Expr]


def _of_text(operation: str, type_: Type = TEXT) -> Call:
    def made(given: Given) -> Expr:
        given.count(1, 1)
        return Apply(type_, operation, (given.text(0),))

    return made


def _of_number(operation: str, type_: Type = NUMBER) -> Call:
    def made(given: Given) -> Expr:
        given.count(1, 1)
        return Apply(type_, operation, (given.value(0, "number"),))

    return made


def _of_texts(operation: str) -> Call:
    def made(given: Given) -> Expr:
        given.count(2, 2)
        return Apply(FLAG, operation, (given.text(0), given.text(1)))

    return made


def _count(given: Given) -> Expr:
    given.count(1, 1)
    of = given.value(0, "list")
    size = "record.size" if of.type.kind == "record" else "list.length"
    return Apply(WHOLE, size, (of,))


def _isset(given: Given) -> Expr:
    made: Expr | None = None
    for node in given.nodes:
        there = Apply(FLAG, "not", (Apply(FLAG, "is missing", (given.reader.there(node),)),))
        made = there if made is None else Apply(FLAG, "&&", (made, there))
    assert made is not None
    return made


def _empty(given: Given) -> Expr:
    given.count(1, 1)
    value = given.reader.there(given.nodes[0])
    return Apply(FLAG, "not", (given.reader.truth(value, given.nodes[0]),))


def _is_null(given: Given) -> Expr:
    given.count(1, 1)
    value = given.value(0)
    given.reader.uses.note_missing(given.reader.path(value))
    return Apply(FLAG, "is missing", (value,))


def _kind(operation: str) -> Call:
    def made(given: Given) -> Expr:
        given.count(1, 1)
        return Apply(FLAG, operation, (given.value(0),))

    return made


def _in_array(given: Given) -> Expr:
    given.count(2, 3)
    value, items = given.value(0), given.value(1, "list")
    item = items.type.item or ANY
    strict = len(given.nodes) == 3 and given.nodes[2].text.lower() == "true"
    kinds = {value.type.kind, item.kind}
    if items.type.kind != "list" or (not strict and kinds != {"number"}):
        raise given.reader.unsaid(given.node, ": say `true` as its third argument")
    if not kinds <= {"text", "number", "any"}:
        raise given.reader.unsaid(given.node)
    for kind in sorted(kinds - {"any"}):
        given.reader.uses.note(given.reader.path(value), kind)
    return Apply(FLAG, "list.holds", (items, value))


def _implode(given: Given) -> Expr:
    given.count(2, 2)
    between, items = given.text(0), given.value(1, "list")
    item = items.type.item or ANY
    if items.type.kind != "list" or item.missing or item.kind not in ("text", "number", "any"):
        raise given.reader.unsaid(given.node)
    path = given.reader.path(items)
    given.reader.uses.note((*path, "[]") if path else None, "shown")
    return Apply(TEXT, "list.join", (items, between))


def _round(given: Given) -> Expr:
    given.count(1, 2)
    places = given.whole(1) if len(given.nodes) > 1 else 0
    if not 0 <= places <= 10:
        raise given.reader.unsaid(given.node)
    given.reader.notes.append(("halves-rounded", given.node.text, given.node.start))
    value = given.value(0, "number")
    return Apply(NUMBER if places else WHOLE, "round away", (value, Constant(WHOLE, places)))


def _number_format(given: Given) -> Expr:
    given.count(1, 2)
    places = given.whole(1) if len(given.nodes) > 1 else 0
    if not 0 <= places <= 10:
        raise given.reader.unsaid(given.node)
    value = given.value(0, "number")
    if not value.type.whole:
        given.reader.notes.append(("halves-rounded", given.node.text, given.node.start))
    return Apply(TEXT, "number.grouped", (value, Constant(WHOLE, places)))


def _extreme(operation: str) -> Call:
    def made(given: Given) -> Expr:
        given.count(1, 9)
        if len(given.nodes) > 1:
            parts = tuple(given.value(at, "number") for at in range(len(given.nodes)))
            return Apply(NUMBER, operation, parts)
        items = given.value(0, "list")
        if items.type.kind != "list" or (items.type.item or ANY).kind != "number":
            raise given.reader.unsaid(given.node)
        return Apply(items.type.item or NUMBER, f"{operation} of list", (items,))

    return made


def _column(given: Given) -> Expr:
    given.count(2, 2)
    items, key = given.value(0, "list"), given.value(1)
    item = items.type.item or ANY
    if items.type.kind != "list" or not isinstance(key, Constant) or not isinstance(key.value, str):
        raise given.reader.unsaid(given.node)
    type_ = item.field(key.value) or ANY
    path = given.reader.path(items)
    given.reader.uses.note((*path, "[]", key.value) if path else None, "field")
    body = Field(type_, Name(item, "one"), key.value)
    return Apply(list_of(type_), "list.map", (items, Function(type_, ("one",), body)))


def _sum(given: Given) -> Expr:
    given.count(1, 1)
    items = given.value(0, "list")
    item = items.type.item or ANY
    if items.type.kind != "list" or item.kind not in ("number", "any"):
        raise given.reader.unsaid(given.node)
    path = given.reader.path(items)
    given.reader.uses.note((*path, "[]") if path else None, "number")
    return Apply(WHOLE if item.whole else NUMBER, "list.sum", (items,))


def _part(given: Given) -> Expr:
    given.count(2, 3)
    start = given.whole(1)
    size = given.whole(2) if len(given.nodes) > 2 else None
    if start < 0 or (size is not None and size < 0):
        raise given.reader.unsaid(given.node)
    ends = () if size is None else (Constant(WHOLE, start + size),)
    return Apply(TEXT, "text.signs", (given.text(0), Constant(WHOLE, start), *ends))


def _replaced(given: Given) -> Expr:
    given.count(3, 3)
    old, new = given.value(0), given.value(1)
    if not (isinstance(old, Constant) and isinstance(new, Constant) and old.value):
        raise given.reader.unsaid(given.node)
    if not (isinstance(old.value, str) and isinstance(new.value, str)):
        raise given.reader.unsaid(given.node)
    if "$" in str(new.value):
        # A sign with a meaning of its own in the other language's replacements.
        raise given.reader.unsaid(given.node)
    return Apply(TEXT, "text.replace all", (given.text(2), old, new))


# Functions that the language has a syntax for: their arguments may be missing.
SPECIAL: dict[str, Call] = {"isset": _isset, "empty": _empty}
CALLS: dict[str, Call] = {
    "count": _count, "sizeof": _count, "is_null": _is_null, "in_array": _in_array,
    "is_string": _kind("is text"), "is_array": _kind("is array"), "implode": _implode, "join": _implode,
    "mb_strtoupper": _of_text("text.upper"), "mb_strtolower": _of_text("text.lower"),
    "strtoupper": _of_text("ascii.upper"), "strtolower": _of_text("ascii.lower"),
    "ucfirst": _of_text("ascii.capital"), "ucwords": _of_text("ascii.capitals"),
    "lcfirst": _of_text("ascii.small"), "trim": _of_text("ascii.trim"),
    "mb_strlen": _of_text("text.count", WHOLE), "mb_substr": _part, "str_replace": _replaced,
    "str_contains": _of_texts("text.holds"), "str_starts_with": _of_texts("text.starts"),
    "str_ends_with": _of_texts("text.ends"), "e": _of_text("text.itself"),
    "abs": _of_number("abs"), "floor": _of_number("floor"), "ceil": _of_number("ceil"),
    "sqrt": _of_number("sqrt"), "round": _round, "number_format": _number_format,
    "min": _extreme("min"), "max": _extreme("max"), "array_column": _column, "array_sum": _sum,
}  # fmt: skip
