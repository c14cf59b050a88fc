"""Everyday views of a server that become single files, and two that rightly stay."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

HERE = Path(__file__).parent / "server_views"
CARRIED = (
    "booking-card", "cargo-badge", "fare-table", "notice", "quay-tabs", "route-select", "sailing-list",
    "ticket-field", "ticket-pager", "tide-strip",
)  # fmt: skip
USES = {"booking-card": ("cargo-badge", "notice")}
REFUSED = {"Departures": "view-of-parts", "QuayClock": "server-call"}
# Each time three are verified with generated trials; the mark `whole` verifies the rest.
OFTEN = ("booking-card", "fare-table", "ticket-field")
VERIFIED = [
    pytest.param(name, marks=() if name in OFTEN else pytest.mark.whole) for name in CARRIED
]


def folder(tmp_path: Path) -> list[str]:
    shutil.copytree(HERE, tmp_path / "views")
    return sorted(f"views/{path.name}" for path in HERE.glob("*.blade.php"))


def test_which_ones_are_carried(run: Any, tmp_path: Path) -> None:
    done = run("carry", *folder(tmp_path), "--to", "single-file-flat", "--json")
    found = {one["component"]: one for one in json.loads(done.stdout)["results"]}
    assert {name for name, one in found.items() if one["status"] == "clean"} == set(CARRIED)
    for name, rule in REFUSED.items():
        assert [one["rule"] for one in found[name]["findings"]] == [rule]


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
@pytest.mark.parametrize("name", VERIFIED)
def test_generated_trials_find_no_difference(run: Any, tmp_path: Path, name: str) -> None:
    folder(tmp_path)
    names = [f"views/{one}.blade.php" for one in (name, *USES.get(name, ()))]
    run("carry", *names, "--to", "single-file-flat", "--write")
    old, new = f"views/{name}.blade.php", f"views/{name}.flat.vue"
    done = run("verify", old, new, "--search", "--budget", "6", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", done.stdout[-2000:]
    assert found["tried"] > 2


@pytest.mark.parametrize("target", ["jsx-function", "decorated-class", "single-file-object"])
def test_other_families_are_reached_too(run: Any, tmp_path: Path, target: str) -> None:
    folder(tmp_path)
    done = run("carry", "views/sailing-list.blade.php", "--to", target, "--json")
    [found] = json.loads(done.stdout)["results"]
    assert found["status"] == "clean"
