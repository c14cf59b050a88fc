"""An application looks and behaves the same in a browser before, half-way and after a switch."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from clean_carry.demo.story import settle_in
from clean_carry.demo.walk import WALKS, walks
from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.store import Store
from clean_carry.verify.worker_pool import Bench


@pytest.fixture
def looking(tmp_path: Path) -> Iterator[Bench]:
    with Bench(size=1, store=Store(None), gaze=Gaze((1280,), 6.0)) as made:
        yield made


def test_applications_look_the_same_all_the_way(looking: Bench, tmp_path: Path) -> None:
    settle_in(tmp_path / "ferries")
    found = list(walks(tmp_path / "ferries", looking, whole=True))
    assert [walk.application for walk in found] == [name for name, *_ in WALKS]
    assert [(walk.verdict, walk.half_way, walk.end) for walk in found] == [("same",) * 3] * 2
    assert [walk.lines for walk in found] == [(11, 6), (28, 28)]
    assert all(walk.is_same for walk in found)
