"""All syntaxes, which one a file is written in, and what can be carried to what.

The built-in ones stand in a table and are loaded on first use. Packages may bring others, by entry points
of the group `clean_carry.syntaxes`; these are looked for only where an id or a file is none of ours.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from pkgutil import resolve_name

from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Syntax

GROUP = "clean_carry.syntaxes"
# Where each of our own is declared, as `SYNTAX`.
OWN = {
    "jsx-class": "clean_carry.syntaxes.jsx_class.syntax",
    "jsx-function": "clean_carry.syntaxes.jsx_function.syntax",
    "single-file-object": "clean_carry.syntaxes.single_file_object.syntax",
    "registered-object": "clean_carry.syntaxes.registered_object.syntax",
    "single-file-flat": "clean_carry.syntaxes.single_file_flat.syntax",
    "directive": "clean_carry.syntaxes.directive.syntax",
    "controller-component": "clean_carry.syntaxes.controller_component.syntax",
    "decorated-class": "clean_carry.syntaxes.decorated_class.syntax",
    "server-view": "clean_carry.syntaxes.server_view.syntax",
    "stateful-view": "clean_carry.syntaxes.stateful_view.syntax",
    "markup": "clean_carry.syntaxes.markup.syntax",
}


@cache
def _own(id_: str) -> Syntax:
    found: Syntax = resolve_name(f"{OWN[id_]}:SYNTAX")
    return found


@cache
def _others() -> dict[str, Syntax]:
    """The syntaxes other packages bring; none of them takes the place of one of ours."""
    # Loaded late: most commands never need it, and it takes as long as all else of a start.
    from importlib.metadata import entry_points

    found = {point.name: point.load() for point in entry_points(group=GROUP)}
    return {id_: syntax for id_, syntax in found.items() if id_ not in OWN}


def known(id_: str) -> bool:
    """Whether there is a syntax of this id."""
    return id_ in OWN or id_ in _others()


def declared(id_: str) -> Syntax:
    """The syntax of this id; raises `KeyError` where there is none."""
    return _own(id_) if id_ in OWN else _others()[id_]


def every_syntax() -> Iterator[Syntax]:
    """Ours, in the order of the table, then those of other packages."""
    yield from map(_own, OWN)
    yield from _others().values()


def recognise(source: SourceText) -> str | None:
    """The syntax a file is written in; None if none fits."""
    for found in every_syntax():
        if found.reader and found.marks.fit(source) and found.load_reader().recognises(source):
            return found.id
    return None


def is_across(old: Syntax, new: Syntax) -> bool:
    """Whether a crossing leads through the neutral component: to another family, or to what is written
    anew."""
    return (old.given or old.family) != new.family or (new.anew and old.id != new.id)


def crosses(origin: str, target: str) -> bool:
    """Whether files of one syntax can be carried to another."""
    if not (known(origin) and known(target)):
        return False
    if origin == target:
        return declared(origin).renews
    old, new = declared(origin), declared(target)
    if old.family_only and is_across(old, new):
        return False
    return bool(old.reader and new.writer) and (old.given or old.family) in new.takes


@cache
def way(origin: str, target: str) -> tuple[str, ...]:
    """The syntaxes from one to another, the shortest way: both, where a crossing leads there at once; empty
    where none leads there. Between them stand syntaxes that are read and written."""
    if origin == target and crosses(origin, target):
        return origin, target
    ways: list[tuple[str, ...]] = [(origin,)]
    seen = {origin}
    while ways:
        here = ways.pop(0)
        for after in every_syntax():
            if after.id in seen or not crosses(here[-1], after.id):
                continue
            if after.id == target:
                return (*here, after.id)
            seen.add(after.id)
            ways.append((*here, after.id))
    return ()


def crossings() -> Iterator[tuple[str, str]]:
    """Every (origin, target) that can be carried."""
    ids = [found.id for found in every_syntax()]
    for origin in ids:
        yield from ((origin, target) for target in ids if crosses(origin, target))
