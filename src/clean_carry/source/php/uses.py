"""Types that values must have by the way they are used, where nothing declares them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from clean_carry.source.expressions.model import Expr, Field, Item, Name
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    record_of,
)

Path = tuple[str, ...]
# The step of a path to the items of a list, or to the values of a record whose keys are computed.
EACH = "[]"
# The begin of a step to a value that was found to be of a kind.
FOUND = "as "
# A use says most about a type that stands first here. `keys` are read of records alone.
_KINDS = ("number", "whole", "text", "shown", "flag", "truth")


@dataclass
class Uses:
    """Kinds of values by path, as their uses tell them. `missing` are values that may be missing.

    New kinds (`found`) count from the next round of reading on, so that the order of uses decides nothing.
    """

    kinds: dict[Path, set[str]] = field(default_factory=dict)
    missing: set[Path] = field(default_factory=set)
    # Values of which members are read as an object's: those are true, also where they are empty.
    objects: set[Path] = field(default_factory=set)
    found: dict[Path, set[str]] = field(default_factory=dict)

    def note(self, path: Path | None, kind: str) -> None:
        """Note a use of the value of a path."""
        if path is not None:
            self.found.setdefault(path, set()).add(kind)

    def note_each(self, path: Path | None) -> None:
        """Note that the items of a value are read."""
        self.note((*path, EACH) if path is not None else None, "item")

    def note_missing(self, path: Path | None) -> None:
        """Note that code asks whether a value is there."""
        if path is not None:
            self.found.setdefault(path, set()).add("missing")

    def next_round(self) -> bool:
        """Take what was found for known; whether there was anything new."""
        new = False
        for path, kinds in self.found.items():
            known = self.kinds.setdefault(path, set())
            new |= not kinds <= known
            known |= kinds
        self.missing |= {path for path, kinds in self.found.items() if "missing" in kinds}
        self.found = {}
        return new

    def type_of(self, path: Path, known: Type = ANY) -> Type:
        """The type of a path; what is `known` of it is refined only."""
        made = self._bare(path, known)
        return made.or_missing("either") if path in self.missing else made

    def _bare(self, path: Path, known: Type) -> Type:
        kinds = self.kinds.get(path, set())
        below = {
            one[len(path)]
            for one in self.kinds
            if len(one) > len(path) and one[: len(path)] == path
        }
        if known.kind == "any" and any(one.startswith(FOUND) for one in below):
            return known
        if known.kind == "list" or (known.kind == "any" and "list" in kinds):
            item = self.type_of((*path, EACH), known.item or ANY)
            return Type("list", item=item, missing=known.missing)
        if known.kind == "record" and known.fields is not None:
            fields = {name: self.type_of((*path, name), own) for name, own in known.fields}
            return Type("record", fields=tuple(fields.items()), missing=known.missing)
        if known.kind == "record" or (known.kind == "any" and (below or "keys" in kinds)):
            return self._record(path, below, known)
        if known.kind != "any":
            return known
        named = [one for one in _KINDS if one in kinds]
        if "number" in named and "text" in named:
            return known
        kind = named[0] if named else ""
        by_kind = {
            "number": WHOLE if "whole" in kinds else NUMBER, "whole": WHOLE, "text": TEXT,
            "shown": TEXT, "flag": FLAG, "truth": FLAG,
        }  # fmt: skip
        made = by_kind.get(kind, ANY)
        return made.or_missing(known.missing) if known.missing else made

    def _record(self, path: Path, below: set[str], known: Type) -> Type:
        if EACH in below:
            item = self.type_of((*path, EACH))
            return Type("record", item=item, missing=known.missing)
        fields = {name: self.type_of((*path, name)) for name in sorted(below)}
        made = record_of(fields)
        return made.or_missing(known.missing) if known.missing else made


def path_of(expr: Expr, items: Mapping[str, Path]) -> Path | None:
    """The path of a value that is read as a name, a field or an item; None for any other. `items` are the
    paths of names that stand for items."""
    match expr:
        case Name():
            return items.get(expr.name, (expr.name,))
        case Field():
            of = path_of(expr.of, items)
            return (*of, expr.name) if of is not None else None
        case Item():
            of = path_of(expr.of, items)
            return (*of, EACH) if of is not None else None
    return None
