"""What the test pairs and the demo are carried to is as it is frozen in benchmarks/outputs."""

import subprocess
import sys
from pathlib import Path

PROGRAM = Path(__file__).parents[2] / "benchmarks" / "outputs.py"


def test_pairs_and_demo_are_carried_as_frozen() -> None:
    """After a change that is meant: `python benchmarks/outputs.py --pairs --freeze`."""
    command = [sys.executable, str(PROGRAM), "--pairs", "--diff"]
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout + done.stderr
