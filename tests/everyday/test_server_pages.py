"""Everyday components that go to the server: those that only show become views, the rest stay for now."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

HERE = Path(__file__).parent / "server_pages"
SHOWING = ("DeckPlan", "FareTable", "NoticeBox", "TideStrip")
# What the rest needs of a browser, by the rule that says so.
REFUSED = {
    "BerthSearch": "runs-in-browser", "BookingForm": "runs-in-browser", "CargoHandle": "unknown-use",
    "DepartureClock": "runs-in-browser", "DiscountCodes": "runs-in-browser",
    "RouteTabs": "runs-in-browser", "SailingList": "runs-in-browser", "SeatCounter": "runs-in-browser",
}  # fmt: skip


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_components_that_only_show_are_the_same(run: Any, tmp_path: Path) -> None:
    shutil.copytree(HERE, tmp_path / "pages")
    done = run("carry", "pages", "--to", "server-view", "--verify", "--budget", "4", "--json")
    found = {one["component"]: one for one in json.loads(done.stdout)["results"]}
    clean = {name for name, one in found.items() if one["status"] == "clean"}
    assert clean == set(SHOWING)
    assert {found[name]["verification"]["verdict"] for name in clean} == {"same"}
    for name, rule in REFUSED.items():
        assert rule in [one["rule"] for one in found[name]["findings"]]


@pytest.mark.whole
@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
@pytest.mark.parametrize("name", ["DeckPlan", "FareTable", "NoticeBox"])
def test_generated_trials_find_no_difference(run: Any, tmp_path: Path, name: str) -> None:
    shutil.copytree(HERE, tmp_path / "pages")
    done = run("carry", f"pages/{name}.vue", "--to", "server-view", "--write", "--json")
    [result] = json.loads(done.stdout)["results"]
    view = result["files"][0]["path"]
    done = run("verify", f"pages/{name}.vue", view, "--search", "--budget", "10", "--json")
    assert json.loads(done.stdout)["verdict"] == "same", done.stdout[-2000:]
