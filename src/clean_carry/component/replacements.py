"""Pieces of a file that are spelled anew, each where it stands; what is between them is copied."""

from __future__ import annotations

from bisect import bisect_right

from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.ledger import Ledger, Outcome
from clean_carry.component.spans import Span


def _order(start: int, end: int) -> tuple[int, bool, int]:
    """Order replacements: insertions between two bytes first, then the longer of two."""
    return start, end > start, -end


class Replacements:
    """Replacements in one file, whatever is moved where afterwards.

    `text` gives a stretch with everything replaced in it; of two replacements of which one holds the
    other, the outer one stands.
    """

    def __init__(self, file: str, ledger: Ledger) -> None:
        self.file, self.ledger = file, ledger
        self._items: list[tuple[int, int, Fragment]] = []

    def put(self, start: int, end: int, fragment: Fragment) -> None:
        """Have a fragment stand where these bytes stood; between two bytes where start is end."""
        at = bisect_right(self._items, _order(start, end), key=lambda item: _order(*item[:2]))
        self._items.insert(at, (start, end, fragment))

    def has(self, start: int, end: int) -> bool:
        """Whether just these bytes are replaced already."""
        return any(low == start and high == end for low, high, _ in self._items)

    def spell(
        self, start: int, end: int, text: str, notion: str, rule: str, outcome: Outcome = "carried"
    ) -> None:
        """Claim a stretch for a construct and write it anew by a rule."""
        entry = self.ledger.claim(notion, Span(start, end, self.file))
        fragment = new(text, entry, rule)
        if outcome != "carried":
            fragment = Fragment(
                [
                    p.__class__(text=text, entry=entry, rule=rule, outcome=outcome)
                    for p in fragment.pieces
                ]
            )
        self.put(start, end, fragment)

    def as_edits(self) -> tuple[tuple[int, int, str], ...]:
        """The replacements as (start, end, new text), where each is new text alone."""
        return tuple((a, b, "".join(p.text for p in f.pieces)) for a, b, f in self._items)

    def text(self, start: int, end: int) -> Fragment:
        """These bytes with what is replaced in them."""
        result = Fragment()
        here = start
        for low, high, fragment in self._items:
            if low < here or high > end or (low == high == end and end > start):
                continue
            if low < start:
                continue
            result += copy(Span(here, low, self.file)) + fragment
            here = high
        return result + copy(Span(here, end, self.file))
