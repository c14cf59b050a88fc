"""The interface map: how what a component offers is called on either side of a crossing."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal, NamedTuple

# The kinds of rows: a prop, an event, a slot ("" is the default one), a two-way bound value
# (a prop and the event that reports a new value), a member that is open on a reference, the element's name,
# and where a parent's classes go.
RowKind = Literal["prop", "event", "slot", "two-way", "exposed", "tag", "class"]
Names = Iterable[tuple[str, str]]


class Row(NamedTuple):
    """One thing a component offers, and its name on the old and on the new side."""

    kind: RowKind
    old: str
    new: str


@dataclass(frozen=True)
class InterfaceMap:
    """The rows of names that a component offers in the syntax `old` and in the syntax `new`."""

    old: str = ""
    new: str = ""
    rows: tuple[Row, ...] = ()

    def of(self, *kinds: RowKind) -> tuple[tuple[str, str], ...]:
        """The names (old, new) of all rows of these kinds."""
        return tuple((row.old, row.new) for row in self.rows if row.kind in kinds)

    @property
    def inputs(self) -> tuple[tuple[str, str], ...]:
        """Return the names that a parent passes: props and classes."""
        return self.of("prop", "class")

    @property
    def events(self) -> tuple[tuple[str, str], ...]:
        """Return the names that a parent listens to."""
        return self.of("event")

    @property
    def slots(self) -> tuple[tuple[str, str], ...]:
        """Where a parent puts content."""
        return self.of("slot")

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `carry --json`: {"old", "new", "rows": [{"kind", "old", "new"}]}."""
        return {"old": self.old, "new": self.new, "rows": [row._asdict() for row in self.rows]}


def interface_of(
    props: Names = (),
    events: Names = (),
    slots: Names = (),
    *,
    exposed: Names = (),
    tags: Names = (),
    classes: Names = (),
) -> InterfaceMap:
    """The map of a component; an input that an event `update:…` gives back is bound both ways."""
    props, events = tuple(props), tuple(events)
    back = dict(events)
    rows = [Row("prop", *names) for names in props]
    rows += [Row("class", *names) for names in classes]
    rows += [Row("event", *names) for names in events]
    for old, new in props:
        if f"update:{old}" in back:
            rows.append(Row("two-way", f"{old} update:{old}", f"{new} {back[f'update:{old}']}"))
    rows += [Row("slot", *names) for names in slots]
    rows += [Row("exposed", *names) for names in exposed]
    rows += [Row("tag", *names) for names in tags]
    return InterfaceMap("", "", tuple(rows))
