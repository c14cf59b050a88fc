"""Components written by hand in several structures: every pair of one kind is the same."""

from __future__ import annotations

from itertools import combinations
from pathlib import Path

import pytest

from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

ALIKE = Path(__file__).parent / "alike"
PAIRS = [
    (one, two)
    for folder in sorted(ALIKE.iterdir())
    for one, two in combinations(sorted(folder.glob("*.jsx")), 2)
]


def test_there_are_thirty_pairs() -> None:
    assert len(PAIRS) >= 30


@pytest.mark.parametrize(
    ("one", "two"), PAIRS, ids=[f"{a.parent.name}-{a.stem}{b.stem}" for a, b in PAIRS]
)
def test_other_structures_are_the_same(one: Path, two: Path, bench: Bench) -> None:
    place = one.with_name("Component.jsx")
    before, after, _ = sides_of(place, one.read_text("utf-8"), place, two.read_text("utf-8"))
    found = verified(bench, (before, after), None, Trials(None), Effort(2.0, most=40))
    assert found.verdict == "same", found.as_json()["trials"][-1:] or found.reason
    assert found.tried >= 3
