"""Figures of a front page as plain numbers for SVG: standings by folder, reach, time."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from clean_carry.report.subject import STANDINGS, Summary

MOST_FOLDERS = 10


@dataclass(frozen=True)
class Bar:
    """One bar: its label, its parts (what, how many, start and length as a share of 100), and all."""

    label: str
    parts: tuple[tuple[str, int, float, float], ...]
    total: int


def by_folder(subjects: Sequence[Summary]) -> list[Bar]:
    """Return a bar for each folder with the share of each status, the fullest first; further folders share
    one bar."""
    folders: dict[str, Counter[str]] = {}
    for subject in subjects:
        folders.setdefault(subject.folder, Counter())[subject.standing] += 1
    ordered = sorted(folders.items(), key=lambda item: (-item[1].total(), item[0]))
    shown = ordered[:MOST_FOLDERS]
    if len(ordered) > MOST_FOLDERS:
        rest = sum((counts for _, counts in ordered[MOST_FOLDERS:]), Counter())
        shown.append((f"{len(ordered) - MOST_FOLDERS} more folders", rest))
    return [_bar(label, counts) for label, counts in shown]


def _bar(label: str, counts: Counter[str]) -> Bar:
    parts, at = [], 0.0
    for standing in STANDINGS:
        if counts[standing]:
            length = 100 * counts[standing] / counts.total()
            parts.append((standing, counts[standing], round(at, 2), round(length, 2)))
            at += length
    return Bar(label, tuple(parts), counts.total())


@dataclass(frozen=True)
class Progress:
    """How many of all components are done, which means the verdict is `same`, or carried if none was
    verified."""

    done: int
    total: int

    @property
    def percent(self) -> float:
        """The share that is done, from 0 to 100."""
        return 100 * self.done / self.total if self.total else 0.0


def progress(subjects: Sequence[Summary]) -> Progress:
    """Return how far a project is."""
    return Progress(sum(one.standing in ("same", "clean") for one in subjects), len(subjects))


def crossings(subjects: Sequence[Summary]) -> list[tuple[str, str, int]]:
    """Return (from, to, how many components), the most frequent first."""
    found = Counter((one.origin, one.target) for one in subjects if one.origin)
    return [(origin, target, count) for (origin, target), count in found.most_common()]


def reaches(subjects: Sequence[Summary]) -> list[Bar]:
    """How many components had how much of their old side's own code run, in tenths."""
    found = [subject.reach for subject in subjects if subject.reach is not None]
    tenths = Counter(min(9, int(percent // 10)) for percent in found)
    labels = [f"{10 * at}–{10 * at + 10} %" for at in range(10)]
    return _histogram(labels, [tenths[at] for at in range(10)]) if found else []


# Upper ends of the stretches of time, in seconds.
_TIMES = (1, 2, 5, 10, 20, 60)


def times(subjects: Sequence[Summary]) -> list[Bar]:
    """How many components took how long."""
    taken = [subject.seconds for subject in subjects if subject.trials]
    if not taken:
        return []
    ends = (0, *_TIMES, float("inf"))
    counts = [sum(low <= seconds < high for seconds in taken) for low, high in pairwise(ends)]
    labels = [f"{low}–{high} s" for low, high in zip((0, *_TIMES), _TIMES, strict=False)]
    return _histogram([*labels, f"over {_TIMES[-1]} s"], counts)


def _histogram(labels: Sequence[str], counts: Sequence[int]) -> list[Bar]:
    most = max(counts) or 1
    return [
        Bar(label, (("plain", count, 0.0, round(100 * count / most, 2)),), count)
        for label, count in zip(labels, counts, strict=True)
        if count
    ]
