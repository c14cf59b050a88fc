"""The edits of an upgrade of one file."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText


@dataclass
class Changes:
    """The edits of one file; `refused` and `noted` are findings: rule, detail, offset in the old text."""

    source: SourceText
    edits: list[Edit] = field(default_factory=list)
    refused: list[tuple[str, str, int]] = field(default_factory=list)
    noted: list[tuple[str, str, int]] = field(default_factory=list)

    def put(self, start: int, end: int, text: str) -> None:
        """Write something in the place of a stretch."""
        self.edits.append(Edit(start, end, text))

    def refuse(self, rule: str, detail: str, at: int) -> None:
        """Refuse a construct that version 3 has no form for."""
        self.refused.append((rule, detail, at))

    def note(self, rule: str, detail: str, at: int) -> None:
        """Add a note."""
        self.noted.append((rule, detail, at))
