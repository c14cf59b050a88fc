"""Canonical components carried every way, and back from the new text alone: each as the table says."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import pytest

PROJECT = Path(__file__).parents[2]
TABLE = json.loads((PROJECT / "benchmarks" / "matrix.json").read_text("utf-8"))
FIRST = "BerthCard"


@pytest.mark.slow
@pytest.mark.parametrize(
    "name",
    [name if name == FIRST else pytest.param(name, marks=pytest.mark.whole) for name in TABLE],
)
def test_there_and_back(name: str) -> None:
    program = str(PROJECT / "benchmarks" / "matrix.py")
    command = [sys.executable, program, "--check", "--budget", "3", "--only", name]
    if name == FIRST:
        # The others are rows of the whole run.
        command += ["--from", "jsx-function", "single-file-object", "controller-component"]
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout + done.stderr


def test_nothing_comes_back_wrong() -> None:
    cells = [cell for cells in TABLE.values() for cell in cells.values()]
    there = [cell["there"] for cell in cells]
    back = [cell["back"] for cell in cells if "back" in cell]
    assert there.count("same") >= 0.8 * len(there)
    assert {said.split()[0] for said in [*there, *back]} <= {"same", "refused", "unproven"}
