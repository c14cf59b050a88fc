"""A field that shows a value and writes it: one binding of a template (its guide, "Form Input Bindings").

`value` with a listener that gives a field of state the field's text is `v-model`; so is `checked` of a box.
A select with bound options writes text, where `v-model` would give the bound value: it stays as it is.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.code import Read, StateWrite
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Condition,
    Element,
    Handler,
    Loop,
    StaticAttribute,
    walk,
)
from clean_carry.source.text import SourceText

# The write of a listener: the name of its event, the field of state, the read part of the form field.
_TAKES = re.compile(
    r"^\(?\s*(\w+)(?:\s*:[^=]*?)?\s*\)?\s*=>\s*\{?\s*this\.setState\(\{\s*(\w+)\s*:\s*"
    r"\1\.(?:target|currentTarget)\.(value|checked)(?:\s+as\s+[\w.\[\]'\"| ]+?)?\s*\}\)\s*;?\s*\}?$"
)
# The same by the function that writes one field: what writes it, what of the field.
_GIVES = re.compile(
    r"^\(?\s*(\w+)(?:\s*:[^=]*?)?\s*\)?\s*=>\s*\{?\s*\w+\("
    r"\1\.(?:target|currentTarget)\.(value|checked)(?:\s+as\s+[\w.\[\]'\"| ]+?)?\)\s*;?\s*\}?$"
)
_NAMED = (BoundAttribute, StaticAttribute)
_TEXTS = frozenset("text search email url tel password".split())


@dataclass(frozen=True)
class Field:
    """The parts of an element that form one binding: its value, and its listener."""

    shown: BoundAttribute
    written: Handler


def field_of(node: Element, source: SourceText) -> Field | None:
    """The binding of a field, where it shows and writes one field of state."""
    kind = _type_of(node, source)
    chosen = node.tag == "select" and _plain_choice(node)
    if not (node.tag in ("input", "textarea") or chosen) or node.component or kind is None:
        return None
    wanted = "checked" if kind == "checkbox" else "value"
    shown = next((a for a in node.attributes if _shows(a, wanted)), None)
    if not isinstance(shown, BoundAttribute):
        return None
    name = shown.code.operations[0].member.name  # type: ignore[attr-defined]
    for one in node.attributes:
        if isinstance(one, Handler) and one.function and one.event in ("input", "change"):
            text = " ".join(source.slice(*one.code.span[:2]).split())
            taken, given = _TAKES.match(text), _GIVES.match(text)
            if taken is not None and (taken[2], taken[3]) == (name, wanted):
                return Field(shown, one)
            if given is not None and given[2] == wanted and _writes(one) == name:
                return Field(shown, one)
    return None


def _writes(handler: Handler) -> str:
    """The one field of state a listener writes."""
    first = handler.code.operations[0] if len(handler.code.operations) == 1 else None
    fields = first.fields if isinstance(first, StateWrite) else None
    return fields[0].name if fields is not None and len(fields) == 1 else ""


def _plain_choice(node: Element) -> bool:
    """Whether all a choice offers is literal text, one at a time."""
    for one in walk((node,)):
        if isinstance(one, Loop | Condition):
            return False
        named = (
            {a.name: a for a in one.attributes if isinstance(a, _NAMED)}
            if isinstance(one, Element)
            else {}
        )
        bound = one is not node and isinstance(named.get("value"), BoundAttribute)
        if bound or "multiple" in named:
            return False
    return True


def _type_of(node: Element, source: SourceText) -> str | None:
    """The type of a field whose text, or tick, is its value; None for any other."""
    for one in node.attributes:
        if getattr(one, "name", "") == "type":
            plain = isinstance(one, StaticAttribute) and one.value is not None
            kind = source.slice(*one.value[:2]) if plain else ""  # type: ignore[union-attr, index]
            return kind if kind == "checkbox" or kind in _TEXTS else None
    return "text"


def _shows(attribute: Attribute, name: str) -> bool:
    if not isinstance(attribute, BoundAttribute) or attribute.name != name:
        return False
    first = attribute.code.operations[0] if len(attribute.code.operations) == 1 else None
    whole = isinstance(first, Read) and first.span == attribute.code.span
    return whole and isinstance(first, Read) and first.member.kind == "state"


def written(field: Field, name: str) -> Fragment:
    """The binding as an attribute."""
    result = new(f'v-model="{name}"', field.shown.entry, "two-way")
    for operation in (*field.shown.code.all(), *field.written.code.all()):
        result += settled(operation.entry, "two-way")
    return result + settled(field.written.entry, "two-way")
