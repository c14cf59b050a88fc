"""Everyday components, carried and verified by the program: none is clean and wrong."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

HERE = Path(__file__).parent
# (folder, target, how many of its files must be clean and the same at least)
FAMILIES = [
    ("classes", "jsx-function", 18),
    ("single_files", "single-file-flat", 10),
    ("single_files_older", "single-file-flat", 6),
    ("directives", "controller-component", 15),
]
# Seconds for each component, where its runtime needs more of them to reach most of the code.
BUDGETS = {"directives": "5"}
# Findings that tell of a difference which trials then show, at the line it comes from.
TOLD = frozenset({"derived-not-a-number", "made-may-throw"})


@pytest.mark.parametrize(("folder", "target", "least"), FAMILIES)
def test_none_is_clean_and_wrong(
    run: Any, tmp_path: Path, folder: str, target: str, least: int
) -> None:
    shutil.copytree(HERE / folder, tmp_path / folder)
    options = ("--verify", "--budget", BUDGETS.get(folder, "1.5"), "--fresh", "--json")
    done = run("carry", folder, "--to", target, *options)
    assert done.returncode in (0, 1), done.stderr
    found: dict[str, list[dict[str, Any]]] = {}
    for result in json.loads(done.stdout)["results"]:
        found.setdefault(result["source"], []).append(result)
    same = 0
    for source, results in found.items():
        clean = [result for result in results if result["status"] == "clean"]
        verdicts = {result["verification"]["verdict"] for result in clean}
        told = any(f["rule"] in TOLD for result in clean for f in result["findings"])
        assert told or "differs" not in verdicts or len(clean) < len(results), source
        same += bool(clean) and verdicts == {"same"}
    assert same >= least, {
        source: [r["status"] for r in results] for source, results in found.items()
    }


# Between families: (folder, target, those verified each time, how many of all are the same at least).
ACROSS = [
    ("functions", "single-file-flat", ("BerthForm.jsx", "TideBoard.jsx", "CrewShift.jsx"), 10),
    (
        "functions",
        "single-file-object",
        ("BerthForm.jsx", "SeatCounter.jsx", "NoticeDrawer.jsx"),
        10,
    ),
    (
        "flat_files",
        "single-file-object",
        ("SeatModel.vue", "WeatherStrip.vue", "FareTable.vue"),
        12,
    ),
    ("flat_files", "jsx-function", ("FareTable.vue", "SailingSearch.vue", "SeatModel.vue"), 10),
    (
        "decorated",
        "single-file-flat",
        ("sailing-list.component.ts", "notice-box.component.ts", "cargo-table.component.ts"),
        10,
    ),
    (
        "decorated",
        "jsx-function",
        ("cargo-table.component.ts", "berth-search.component.ts", "weather-panel.component.ts"),
        9,
    ),
    (
        "decorated",
        "decorated-class",
        ("berth-search.component.ts", "fare-calculator.component.ts", "route-tabs.component.ts"),
        12,
    ),
    (
        "controllers",
        "single-file-flat",
        ("berth-list.js", "departure-clock.js", "seat-counter.js"),
        6,
    ),
    (
        "controllers",
        "decorated-class",
        ("berth-list.js", "departure-clock.js", "tide-table.js"),
        6,
    ),
]
# How many of a folder are carried at least; the others are refused by a rule that names the construct.
CARRIED = {
    ("functions", "single-file-flat"): 11,
    ("functions", "single-file-object"): 11,
    ("flat_files", "single-file-object"): 13,
    ("flat_files", "jsx-function"): 10,
    ("decorated", "single-file-flat"): 12,
    ("decorated", "jsx-function"): 12,
    ("decorated", "decorated-class"): 12,
    ("controllers", "single-file-flat"): 10,
    ("controllers", "decorated-class"): 9,
}
# What refuses the others.
NAMED = frozenset(
    "hook-not-followed context-not-in-target not-in-target unknown-option old-runtime-used markup-unread "
    "moment-not-in-target binding-both-ways controller-required alias-not-followed".split()
)


@pytest.mark.parametrize(("folder", "target", "three", "least"), ACROSS)
def test_across_all_are_carried_and_three_are_the_same(
    run: Any, tmp_path: Path, folder: str, target: str, three: tuple[str, ...], least: int
) -> None:
    shutil.copytree(HERE / folder, tmp_path / folder)
    done = run("carry", folder, "--to", target, "--json")
    results = json.loads(done.stdout)["results"]
    carried = [result for result in results if result["status"] == "clean"]
    assert len(carried) >= CARRIED[folder, target], [r["findings"] for r in results]
    for result in results:
        if result["status"] == "refused":
            assert result["findings"][0]["rule"] in NAMED, result["findings"]
    for name in three:
        options = (
            "--verify",
            "--budget",
            "60",
            "--most-trials",
            "40",
            "--assume-carried",
            "--json",
        )
        done = run("carry", f"{folder}/{name}", "--to", target, *options)
        (result,) = json.loads(done.stdout)["results"]
        assert result["verification"]["verdict"] == "same", (name, result["verification"]["trials"])


@pytest.mark.whole
@pytest.mark.parametrize(("folder", "target", "three", "least"), ACROSS)
def test_across_none_is_clean_and_wrong(
    run: Any, tmp_path: Path, folder: str, target: str, three: tuple[str, ...], least: int
) -> None:
    shutil.copytree(HERE / folder, tmp_path / folder)
    done = run("carry", folder, "--to", target, "--verify", "--budget", "3", "--fresh", "--json")
    results = json.loads(done.stdout)["results"]
    verdicts = {
        result["component"]: result["verification"]["verdict"]
        for result in results
        if result["status"] == "clean"
    }
    told = {r["component"] for r in results if any(f["rule"] in TOLD_ACROSS for f in r["findings"])}
    assert [n for n, verdict in verdicts.items() if verdict == "differs" and n not in told] == []
    assert sum(verdict == "same" for verdict in verdicts.values()) >= least, verdicts


# Findings of a crossing between runtimes that tell of a difference trials then show.
TOLD_ACROSS = frozenset(
    {
        "slots-kept",
        "number-as-typed",
        "element-not-followed",
        "tracked-by-place",
        "value-in-step",
        "told-by-place",
        "field-trimmed",
    }
)
