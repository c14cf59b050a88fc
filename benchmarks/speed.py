"""Carrying in one process against a formatter's check, a ratio within one run; start-up on both sides.

    python benchmarks/speed.py [RUNS]

Both get the same files, at least 100: the class components of the open corpora. So that every file
takes the whole way rather than an early refusal, the copies extend the plain base where they extended
the pure one.
"""

from __future__ import annotations

import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from corpus import CORPORA, fetched, sources, tools

FEWEST = 100
BOUND = 0.6


def copies(folder: Path) -> list[str]:
    """Copies of the corpora's component files, each in a folder of its own place."""
    found: list[str] = []
    for corpus in CORPORA.values():
        root = fetched(corpus) / corpus.sources
        for path in sources(root):
            text = path.read_text("utf-8")
            if "Component" not in text:
                continue
            target = folder / corpus.package / path.relative_to(root)
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_text(text.replace("PureComponent", "Component"), "utf-8")
            found.append(str(target))
    return found


def seconds(command: list[str]) -> float:
    """Wall time of a whole process, its modules compiled as installing compiles them."""
    quiet = subprocess.DEVNULL
    started = time.perf_counter()
    subprocess.run(command, stdout=quiet, stderr=quiet, check=False, env=_environment())
    return time.perf_counter() - started


def _environment() -> dict[str, str]:
    return {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}


def main(runs: int) -> int:
    """Time both in turn and print the ratio pair by pair."""
    with tempfile.TemporaryDirectory() as name:
        files = copies(Path(name))
        assert len(files) >= FEWEST, len(files)
        carry = [
            sys.executable,
            "-m",
            "clean_carry",
            "carry",
            *files,
            "--to",
            "jsx-function",
            "--json",
            "--workers",
            "1",
        ]
        formatter = tools() / "node_modules" / "prettier" / "bin" / "prettier.cjs"
        check = ["node", str(formatter), "--check", *files]
        done = subprocess.run(
            carry, capture_output=True, text=True, check=False, env=_environment()
        )
        status = [r["status"] for r in json.loads(done.stdout)["results"]]
        print(
            f"{len(files)} files; "
            + ", ".join(f"{status.count(s)} {s}" for s in sorted(set(status)))
        )
        ratios = []
        for _ in range(runs):
            own, other = seconds(carry), seconds(check)
            ratios.append(own / other)
            print(f"carry {own:.2f} s, formatter's check {other:.2f} s, ratio {own / other:.2f}")
    middle = statistics.median(ratios)
    print(f"median ratio {middle:.2f} (bound {BOUND})")
    return 0 if middle <= BOUND else 1


if __name__ == "__main__":
    raise SystemExit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 5))
