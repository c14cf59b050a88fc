"""What a finding can say: what it means, an example, what to do. Each syntax has a table of its own."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

RuleLevel = Literal["note", "warning", "error"]
# Name, level, what it means, what to do, source that causes it.
Row = tuple[str, RuleLevel, str, str, str]


@dataclass(frozen=True)
class Rule:
    """One kind of finding. `example` is source that causes it."""

    name: str
    level: RuleLevel
    summary: str
    advice: str
    example: str


def table(rows: Iterable[Row]) -> dict[str, Rule]:
    """Rules by their names, in the order of their rows."""
    return {row[0]: Rule(*row) for row in rows}
