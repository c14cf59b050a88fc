"""Components that were translated by hand, across families: told to be the same as the ones they stand for."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest

import clean_carry
from conftest import Run

DEMO = Path(clean_carry.__file__).parent / "demo" / "gullmoor"
HERE = Path(__file__).parent / "translations"
PAIRS = (
    ("components/SailingCard.jsx", "SailingCard.vue"),
    ("components/TideStrip.jsx", "TideStrip.vue"),
    ("components/CargoChecklist.jsx", "CargoChecklist.vue"),
    ("components/DepartureBoard.jsx", "DepartureBoard.vue"),
    ("components/NoticePanel.jsx", "NoticePanel.vue"),
    ("passenger/SeatCounter.vue", "SeatCounter.jsx"),
    ("passenger/BoardingClock.vue", "BoardingClock.jsx"),
    ("passenger/SailingSearch.vue", "SailingSearch.jsx"),
    ("passenger/TicketBasket.vue", "TicketBasket.jsx"),
    ("passenger-older/WeatherStrip.vue", "WeatherStrip.jsx"),
)


@pytest.mark.slow
@pytest.mark.parametrize(("old", "new"), PAIRS)
def test_a_translation_by_hand_is_the_same(old: str, new: str, run: Run, tmp_path: Path) -> None:
    folder, _, name = old.partition("/")
    shutil.copytree(DEMO / folder, tmp_path / folder)
    shutil.copy(HERE / new, tmp_path / folder / f"By{new}")
    done = run("verify", f"{folder}/{name}", f"{folder}/By{new}", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", found["trials"][0]["differences"][:4]
