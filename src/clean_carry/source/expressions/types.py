"""The types of values, as far as they are known: what decides whether two languages mean the same."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

Kind = Literal["number", "text", "flag", "list", "record", "nothing", "any"]
# A value may be missing as null, as undefined, or as either.
Missing = Literal["", "null", "undefined", "either"]


@dataclass(frozen=True)
class Type:
    """The type of a value. A number is `whole` if it never has a fraction. `item` is the type of a list's
    items; `fields` are those of a record, None where they are not known. `missing` says that there may be
    no value, and whether null or undefined stands for it."""

    kind: Kind
    whole: bool = False
    item: Type | None = None
    fields: tuple[tuple[str, Type], ...] | None = None
    missing: Missing = ""

    @property
    def present(self) -> Type:
        """The same, without being missing."""
        return replace(self, missing="") if self.missing else self

    def or_missing(self, how: Missing = "undefined") -> Type:
        """The same, or nothing."""
        if self.kind == "nothing" or not how:
            return self
        both = self.missing and self.missing != how
        return replace(self, missing="either" if both else how)

    def field(self, name: str) -> Type | None:
        """The type of a field of a record; None where it is not known to have one."""
        return dict(self.fields or ()).get(name)


NUMBER, WHOLE, TEXT, FLAG = Type("number"), Type("number", whole=True), Type("text"), Type("flag")
ANY, NULL, UNDEFINED = (
    Type("any"),
    Type("nothing", missing="null"),
    Type("nothing", missing="undefined"),
)


def list_of(item: Type | None) -> Type:
    """A list of items of a type."""
    return Type("list", item=item or ANY)


def record_of(fields: Mapping[str, Type] | None = None) -> Type:
    """A record with fields of these types."""
    return Type("record", fields=tuple(fields.items()) if fields is not None else None)


def either(one: Type, other: Type) -> Type:
    """The type of what is one of two values."""
    if one.kind == "nothing" and other.kind == "nothing":
        return one if one == other else Type("nothing", missing="either")
    if one.kind == "nothing":
        return other.or_missing(one.missing)
    if other.kind == "nothing":
        return one.or_missing(other.missing)
    missing: Missing = one.missing or other.missing
    if one.missing and other.missing and one.missing != other.missing:
        missing = "either"
    if one.kind != other.kind:
        return ANY.or_missing(missing)
    item = either(one.item, other.item) if one.item and other.item else one.item or other.item
    return Type(one.kind, one.whole and other.whole, item, _fields(one, other), missing)


def _fields(one: Type, other: Type) -> tuple[tuple[str, Type], ...] | None:
    if one.fields is None or other.fields is None:
        return None
    first, second = dict(one.fields), dict(other.fields)
    return tuple(
        (name, either(first.get(name, UNDEFINED), second.get(name, UNDEFINED)))
        for name in {**first, **second}
    )


def type_of_value(value: object) -> Type:
    """The type of a value of JSON."""
    match value:
        case None:
            return NULL
        case bool():
            return FLAG
        case int():
            return WHOLE
        case float():
            return NUMBER
        case str():
            return TEXT
        case list():
            found: Type | None = None
            for one in value:
                own = type_of_value(one)
                found = own if found is None else either(found, own)
            return Type("list", item=found)
        case dict():
            return record_of({str(name): type_of_value(one) for name, one in value.items()})
    return ANY
