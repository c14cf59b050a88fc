"""How much of a version's own code the trials reached."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from clean_carry.verify.worker_pool import Bundle

# A counter with what it counts: its name, line, kind, the function's name, and whether it was reached.
Row = tuple[str, int, str, str, bool]


# Hints for so many lines are given.
MOST_HINTS = 6


@dataclass(frozen=True)
class Reach:
    """Branches and functions reached of all in the component's own code.

    `total` is 0 where the file could not be instrumented or has neither. `unreached` are
    {"line", "kind", "name"} of what was not reached, by line; only functions have a name. `rows` are the
    counters one by one.
    """

    covered: int
    total: int
    unreached: tuple[dict[str, Any], ...]
    rows: tuple[Row, ...] = ()

    @property
    def percent(self) -> float:
        """Reached of all, in percent; 100 where there is nothing to reach."""
        return 100.0 * self.covered / self.total if self.total else 100.0

    @classmethod
    def of(cls, rows: Iterable[Row]) -> Reach:
        """The reach that some counters amount to."""
        rows = tuple(rows)
        missed = sorted({(line, kind, name) for _, line, kind, name, hit in rows if not hit})
        told = tuple({"line": line, "kind": kind, "name": name} for line, kind, name in missed)
        return cls(sum(row[4] for row in rows), len(rows), told, rows)

    @classmethod
    def joined(cls, found: Sequence[Reach]) -> Reach:
        """Return the reach of several components of one file; any of them may reach shared code."""
        rows: dict[str, Row] = {}
        for row in (row for reach in found for row in reach.rows):
            if row[4] or row[0] not in rows:
                rows[row[0]] = row
        return cls.of(rows.values())

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return {
            "reached": self.covered,
            "of": self.total,
            "percent": round(self.percent, 1),
            "unreached": list(self.unreached),
        }


def hints(reach: Reach, hangs_on: Mapping[str, tuple[str, ...]]) -> tuple[str, ...]:
    """Return the props that lines which never ran depend on, by counter."""
    found: dict[int, dict[str, None]] = {}
    for name, line, _, _, hit in reach.rows:
        if not hit and name in hangs_on:
            found.setdefault(line, {}).update(dict.fromkeys(hangs_on[name]))
    told = [f"line {line} hangs on {', '.join(names)}" for line, names in sorted(found.items())]
    return tuple(told[:MOST_HINTS])


def reach_of(bundle: Bundle, hits: Iterable[str], lines: tuple[tuple[int, int], ...] = ()) -> Reach:
    """The reach of a bundle's own file, given the counters that were hit.

    `lines` are the stretches (first, last) that are the component's own; none means the whole file.
    """
    counters = bundle.counters or ()
    if lines:
        counters = tuple(c for c in counters if any(a <= c["line"] <= b for a, b in lines))
    known = set(hits)
    return Reach.of(
        (c["id"], c["line"], c["kind"], c.get("name", ""), c["id"] in known) for c in counters
    )
