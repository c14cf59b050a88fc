"""How much of a version's own code the trials reached."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from clean_carry.verify.bench import Bundle


@dataclass(frozen=True)
class Reach:
    """Branches and functions reached of all in the component's own file.

    `total` is 0 where the file could not be instrumented or has neither. `unreached` are
    {"line", "kind", "name"} of what was not reached, by line; only functions have a name.
    """

    covered: int
    total: int
    unreached: tuple[dict[str, Any], ...]

    @property
    def percent(self) -> float:
        """Reached of all, in percent; 100 where there is nothing to reach."""
        return 100.0 * self.covered / self.total if self.total else 100.0

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`."""
        return {
            "reached": self.covered,
            "of": self.total,
            "percent": round(self.percent, 1),
            "unreached": list(self.unreached),
        }


def reach_of(bundle: Bundle, hits: Iterable[str], lines: tuple[tuple[int, int], ...] = ()) -> Reach:
    """The reach of a bundle's own file, given the counters that were hit.

    `lines` are the stretches (first, last) that are the component's own; none means the whole file.
    """
    counters = bundle.counters or ()
    if lines:
        counters = tuple(c for c in counters if any(a <= c["line"] <= b for a, b in lines))
    known = set(hits)
    missed = [c for c in counters if c["id"] not in known]
    rows = sorted({(c["line"], c["kind"], c.get("name", "")) for c in missed})
    return Reach(
        len(counters) - len(missed),
        len(counters),
        tuple({"line": line, "kind": kind, "name": name} for line, kind, name in rows),
    )
