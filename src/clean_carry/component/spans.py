"""Places in a source file."""

from __future__ import annotations

from typing import NamedTuple


class Span(NamedTuple):
    """A half-open range of byte offsets into the file named `file`."""

    start: int
    end: int
    file: str

    def holds(self, other: Span) -> bool:
        """Whether `other` lies inside this span (or equals it)."""
        return self.start <= other.start and other.end <= self.end


class Place(NamedTuple):
    """A place as people count: line and column start at 1; the column counts characters."""

    file: str
    line: int
    column: int
