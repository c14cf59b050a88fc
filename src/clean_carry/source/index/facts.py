"""The facts an index keeps of one file: imports, exports, uses of names and of tags. Plain data.

Offsets are bytes of the file. Every fact is a named tuple of plain values, so that facts go to JSON and
back as they are.
"""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any, NamedTuple


class Import(NamedTuple):
    """One request for another module. `names` are (name there, name here); `*` stands for the whole module.

    `how` is import, type, re-export, lazy, require, mock, glob, or script for an element that loads a
    script. `start` and `end` are inside the quotes.
    """

    request: str
    how: str
    names: tuple[tuple[str, str], ...]
    start: int
    end: int
    line: int


class Export(NamedTuple):
    """One exported name, and the names of the file its value is made of ("" for a value of its own)."""

    name: str
    locals: tuple[str, ...]
    start: int
    line: int


class NameUse(NamedTuple):
    """One use of a name of the file: of an import, or of a declaration at its top.

    `member` is the member read from it (`Berths.Row`). `how` is tag, type, registration, route, re-export
    or value; `key` is the name under which a registration or an object holds it.
    """

    local: str
    member: str
    how: str
    key: str
    start: int
    end: int
    line: int


class TagUse(NamedTuple):
    """One name in markup: of an element, of an attribute, or in a text that code or a template reads as
    the name of a component. `how` is tag, attribute or string; `closing` is where its end tag names it, -1
    without one."""

    name: str
    how: str
    start: int
    end: int
    closing: int
    line: int


class Registration(NamedTuple):
    """One registration under a name ("" for a computed one): of a name of the file, or of a lazy import.

    `how` is components (for one component's template) or global.
    """

    name: str
    local: str
    request: str
    how: str
    start: int
    end: int
    line: int


@dataclass(frozen=True)
class Sighting:
    """A component that was seen in a file and not read.

    `local` is its name in the file ("" where it has none), `exports` are names under which it is exported
    without one, `tags` those it is registered under, `start` and `end` its stretch of the file. `counts`
    are numbers of props, state, derived, effects, slots, events and styles that the text shows.
    """

    name: str
    syntax: str
    start: int
    end: int
    line: int
    lines: int
    local: str = ""
    exports: tuple[str, ...] = ()
    tags: tuple[str, ...] = ()
    counts: dict[str, int] = field(default_factory=dict)


@dataclass
class FileFacts:
    """All facts of a file. `problem` says why it could not be read."""

    imports: list[Import] = field(default_factory=list)
    exports: list[Export] = field(default_factory=list)
    names: list[NameUse] = field(default_factory=list)
    tags: list[TagUse] = field(default_factory=list)
    registrations: list[Registration] = field(default_factory=list)
    components: list[Sighting] = field(default_factory=list)
    problem: str = ""

    def as_data(self) -> dict[str, Any]:
        """Plain data for JSON; empty lists are left out."""
        data: dict[str, Any] = {
            one.name: value for one in fields(self) if (value := getattr(self, one.name))
        }
        if self.components:
            data["components"] = [vars(one) for one in self.components]
        return data

    @classmethod
    def of_data(cls, data: dict[str, Any]) -> FileFacts:
        """The facts that `as_data` gave."""
        found = cls(problem=data.get("problem", ""))
        found.imports = [
            Import(r, h, tuple((a, b) for a, b in names), *rest)
            for r, h, names, *rest in data.get("imports", ())
        ]
        found.exports = [Export(n, tuple(own), *rest) for n, own, *rest in data.get("exports", ())]
        found.names = [NameUse(*one) for one in data.get("names", ())]
        found.tags = [TagUse(*one) for one in data.get("tags", ())]
        found.registrations = [Registration(*one) for one in data.get("registrations", ())]
        for one in data.get("components", ()):
            lists = {"exports": tuple(one["exports"]), "tags": tuple(one["tags"])}
            found.components.append(Sighting(**{**one, **lists}))
        return found
