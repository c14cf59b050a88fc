"""Sixty everyday components, carried and verified by the program: none is clean and wrong."""

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
