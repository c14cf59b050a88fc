"""The ledger: what became of every construct of the source.

Every byte of a source file that is not white space belongs to the innermost entry whose span holds
it. An entry ends as *kept* (its own bytes are copied), *carried* (spelled anew by a named
rule), *dropped* (by a rule on the closed list in docs/dropped.md) or *left* (to a person).
`close` compares the entries with what was written and raises `UnsettledEntry` where they disagree.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.spans import Span

Outcome = Literal["open", "kept", "carried", "dropped", "left"]


@dataclass
class Entry:
    """One construct: its notion (a row of constructs.md), its span and what became of it."""

    notion: str
    span: Span
    outcome: Outcome = "open"
    rule: str = ""


class Ledger:
    """The entries of one file. `drops` is the closed list of rules by which a construct may vanish."""

    def __init__(self, file: str, data: bytes, drops: Collection[str] = ()) -> None:
        self.file = file
        self.data = data
        self.drops = drops
        self.entries: list[Entry] = []

    def claim(self, notion: str, span: Span, outcome: Outcome = "open", rule: str = "") -> int:
        """Claim `span` for a construct; returns the entry's key."""
        self.entries.append(Entry(notion, span, outcome, rule))
        return len(self.entries) - 1

    def settle(self, key: int, outcome: Outcome, rule: str = "") -> None:
        """Say what became of an entry.

        Raises `UnsettledEntry` when something is dropped by a rule that is not on the closed list.
        """
        entry = self.entries[key]
        if outcome == "dropped" and rule not in self.drops:
            raise UnsettledEntry(f"“{rule}” is not on the list of drops", entry.span.start)
        if entry.outcome == "left" and outcome != "left":
            return
        entry.outcome, entry.rule = outcome, rule

    def counts(self) -> dict[str, int]:
        """How many entries ended in each outcome."""
        found = {"kept": 0, "carried": 0, "dropped": 0, "left": 0}
        for entry in self.entries:
            if entry.outcome in found:
                found[entry.outcome] += 1
        return found

    def close(self, copied: Iterable[tuple[int, int]]) -> None:
        """Check the balance against the copied byte ranges.

        Raises `UnsettledEntry` for an entry without an outcome, a byte nobody claimed, a byte that
        should be kept and was not copied, and text that was copied twice.
        """
        for entry in self.entries:
            if entry.outcome == "open":
                raise UnsettledEntry(f"{entry.notion} was not settled", entry.span.start)
        copies = sorted(copied)
        for (_, end), (start, _) in pairwise(copies):
            if start < end:
                raise UnsettledEntry("text was written twice", start)
        owed = _owed(self.entries, len(self.data))
        at = 0
        for start, end, notion in owed:
            while at < len(copies) and copies[at][1] <= start:
                at += 1
            here, look = start, at
            while here < end:
                if look < len(copies) and copies[look][0] <= here:
                    here = max(here, copies[look][1])
                    look += 1
                    continue
                stop = min(end, copies[look][0]) if look < len(copies) else end
                gap = self.data[here:stop]
                if gap.strip():
                    lost = here + len(gap) - len(gap.lstrip())
                    word = gap.strip()[:30].decode("utf-8", "replace")
                    raise UnsettledEntry(f"{notion}: “{word}” got lost", lost)
                here = stop


def _goes(stack: list[Entry]) -> bool:
    """Whether code goes with a construct around it that is dropped; a comment in it stays owed."""
    return stack[-1].notion == "code" and any(entry.outcome == "dropped" for entry in stack)


def _owed(entries: list[Entry], size: int) -> list[tuple[int, int, str]]:
    """The byte ranges that must be copied: own bytes of kept entries, and unclaimed bytes."""
    order = sorted(
        range(len(entries)),
        key=lambda key: (entries[key].span.start, -entries[key].span.end, key),
    )
    owed: list[tuple[int, int, str]] = []
    stack: list[Entry] = []
    here = 0

    def own(upto: int) -> None:
        nonlocal here
        if upto > here:
            if not stack:
                owed.append((here, upto, "text outside every construct"))
            elif stack[-1].outcome == "kept" and not _goes(stack):
                owed.append((here, upto, stack[-1].notion))
            here = upto

    for key in order:
        entry = entries[key]
        while stack and stack[-1].span.end <= entry.span.start:
            own(stack[-1].span.end)
            stack.pop()
        if stack and entry.span.end > stack[-1].span.end:
            raise UnsettledEntry(f"{entry.notion} overlaps {stack[-1].notion}", entry.span.start)
        own(entry.span.start)
        stack.append(entry)
    while stack:
        own(stack[-1].span.end)
        stack.pop()
    own(size)
    return owed
