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


STATEFUL = ("BerthSearch", "DiscountCodes", "RouteTabs", "SeatCounter")
LEFT = ("SailingList",)
# Each time three are verified with generated trials; the mark `whole` verifies the rest.
VERIFIED = [
    *(pytest.param(name) for name in STATEFUL[:3]),
    *(pytest.param(name, marks=pytest.mark.whole) for name in (*STATEFUL[3:], *LEFT)),
]


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_which_ones_keep_state(run: Any, tmp_path: Path) -> None:
    shutil.copytree(HERE, tmp_path / "pages")
    done = run("carry", "pages", "--to", "stateful-view", "--json")
    found = {one["component"]: one for one in json.loads(done.stdout)["results"]}
    assert {name for name, one in found.items() if one["status"] == "clean"} == set(STATEFUL)
    rules = {name: [one["rule"] for one in found[name]["findings"]] for name in found}
    assert all("keeps-no-state" in rules[name] for name in ("DeckPlan", "FareTable", "TideStrip"))
    assert "view-markup-unread" in rules["NoticeBox"]
    # The data of the list have no source on the server yet.
    assert found["SailingList"]["status"] == "left"
    assert "runs-in-browser" in rules["DepartureClock"]
    assert "unknown-use" in rules["CargoHandle"]


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
@pytest.mark.parametrize("name", VERIFIED)
def test_actions_do_what_events_did(run: Any, tmp_path: Path, name: str) -> None:
    shutil.copytree(HERE, tmp_path / "pages")
    done = run("carry", f"pages/{name}.vue", "--to", "stateful-view", "--write", "--json")
    [result] = json.loads(done.stdout)["results"]
    view = result["files"][0]["path"]
    done = run("verify", f"pages/{name}.vue", view, "--search", "--budget", "8", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", done.stdout[-2000:]
    assert "stand-in" in found["stand_in"]
    assert found["tried"] > 2


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
