"""The source of a template's loop: a list for certain, or perhaps an object or a number."""

from __future__ import annotations

import re

from clean_carry.component.code import Code, Read
from clean_carry.component.members import Derived
from clean_carry.component.model import Component
from clean_carry.source.text import SourceText

# ECMA-262 §23.1, §20.1.2, §22.1.3: what always gives a list.
_GIVING = frozenset(
    "map filter slice concat sort reverse flat flatMap splice toSorted toReversed split".split()
)
_MAKERS = re.compile(r"(?:Object\.(?:keys|values|entries)|Array\.(?:from|of))$")
_RETURNS = re.compile(r"\breturn\b\s*")


def is_list(
    code: Code, component: Component, source: SourceText, containers: dict[str, str]
) -> bool:
    """Whether an expression gives a list, whatever happens; `containers` say what fields of state hold."""
    first = code.operations[0] if code.operations else None
    if isinstance(first, Read) and first.span == code.span:
        return _member(first, component, source, containers)
    return gives_list(source.slice(code.span.start, code.span.end))


def gives_list(text: str) -> bool:
    """Whether the text of an expression is a list, or a call that gives one."""
    text = text.strip().removesuffix(";").strip()
    if text.startswith("[") and _opening(text) == 0:
        return True
    at = _opening(text) if text.endswith(")") else -1
    if at <= 0:
        return False
    callee = text[:at].rstrip()
    if _MAKERS.search(callee):
        return True
    head, dot, name = callee.rpartition(".")
    return bool(dot) and name.strip() in _GIVING and bool(head.strip())


def container_of(text: str) -> str:
    """Return "list", "object", "set" or "map" if the expression always makes one, else ""."""
    plain = _untyped(text.strip())
    if gives_list(plain):
        return "list"
    made = re.match(r"new (Set|Map)\b", plain)
    if made is not None and plain.endswith(")"):
        return made[1].lower()
    return "object" if plain.startswith("{") and _opening(plain) == 0 else ""


def _untyped(text: str) -> str:
    """An expression without what it is said to be at its end: `[] as Row[]`."""
    depth = 0
    for at, sign in enumerate(text):
        depth += (sign in "([{") - (sign in ")]}")
        if depth == 0 and at and text.startswith(" as ", at):
            return text[:at]
    return text


def _opening(text: str) -> int:
    """Where the bracket that the last one closes opens, as far as quotes do not hide any; -1."""
    plain = re.sub(r"'[^'\n]*'|\"[^\"\n]*\"|`[^`]*`", lambda found: "_" * len(found[0]), text)
    depth = 0
    for at in range(len(plain) - 1, -1, -1):
        if plain[at] in ")]}":
            depth += 1
        elif plain[at] in "([{":
            depth -= 1
            if depth == 0:
                return at
    return -1


def _member(
    read: Read, component: Component, source: SourceText, containers: dict[str, str]
) -> bool:
    match read.member.kind:
        case "prop":
            prop = next(
                (one for one in component.inputs.props if one.name == read.member.name), None
            )
            if prop is None:
                return False
            default = prop.default
            text = source.slice(*default.code.span[:2]) if default is not None else ""
            return prop.kind.split(" ")[0] == "Array" or gives_list(text)
        case "state":
            return containers.get(read.member.name) == "list"
        case "derived":
            found = next((one for one in component.derived if one.name == read.member.name), None)
            return found is not None and _derived(found, source)
    return False


def _derived(one: Derived, source: SourceText) -> bool:
    """Whether a derived value is a list each time it is worked out."""
    if one.returned is not None:
        return gives_list(source.slice(*one.returned.span[:2]))
    text = source.slice(*one.text.span[:2])
    starts = [found.end() for found in _RETURNS.finditer(text)]
    return bool(starts) and all(gives_list(_expression(text[at:])) for at in starts)


def _expression(text: str) -> str:
    """The expression a text begins with, up to the end of its statement."""
    depth = 0
    for at, sign in enumerate(text):
        depth += (sign in "([{") - (sign in ")]}")
        if depth < 0 or (depth == 0 and sign == ";"):
            return text[:at]
    return text
