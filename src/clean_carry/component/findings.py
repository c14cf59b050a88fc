"""Findings: one problem or note, with its place and advice."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any, Literal

from clean_carry.component.rules import Rule

Level = Literal["note", "warning", "error"]


@dataclass(frozen=True)
class Finding:
    """One thing to know about one place. `level` is one of SARIF 2.1.0's levels (§3.27.10)."""

    rule: str
    level: Level
    file: str
    line: int
    column: int
    message: str
    advice: str

    @classmethod
    def of(cls, known: Rule, file: str, line: int, column: int, detail: str = "") -> Finding:
        """Return the finding of a rule at a place; `detail` is the name or the code it is about there."""
        return cls(known.name, known.level, file, line, column, known.about(detail), known.advice)

    def as_json(self) -> dict[str, Any]:
        """The finding in the JSON shape of `carry --json`."""
        return asdict(self)
