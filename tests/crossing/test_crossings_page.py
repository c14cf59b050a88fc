"""docs/crossings.md says what the crossings do."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

PROJECT = Path(__file__).parents[2]


def test_the_page_is_up_to_date() -> None:
    command = [sys.executable, str(PROJECT / "benchmarks" / "crossings.py"), "--check"]
    done = subprocess.run(command, cwd=PROJECT, capture_output=True, text=True, check=False)
    assert done.returncode == 0, f"run benchmarks/crossings.py {done.stderr}"
