"""Kill switch and retire at random moments: the next command finds all of a change, or none of it.

    python benchmarks/interrupted.py [RUNS] [SEED]

Each run takes a copy of the demo company's office with a carried component, starts `switch --write` or
`retire --write`, kills it after a random time, and runs `survey`. The sources must then be those of before
or those of a run that nobody killed. Prints how often each was found; exits with 1 where it was neither.
"""

from __future__ import annotations

import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path

import clean_carry

OFFICE = Path(clean_carry.__file__).parent / "demo" / "gullmoor" / "applications" / "office"
BADGE = "src/components/DelayBadge.jsx"
PROGRAM = [sys.executable, "-m", "clean_carry"]
COMMANDS = {
    "switch": ["switch", BADGE, "--write", "--no-users", "--force"],
    "retire": ["retire", BADGE, "--write", "--force", "--offline"],
}


def sources(folder: Path) -> dict[str, str]:
    """The texts below a folder."""
    files = (path for path in sorted(folder.rglob("*")) if path.is_file())
    return {path.relative_to(folder).as_posix(): path.read_text() for path in files}


def run(folder: Path, arguments: list[str]) -> None:
    subprocess.run([*PROGRAM, *arguments], cwd=folder, capture_output=True, check=False)


def main(runs: int, seed: int) -> int:
    rng = random.Random(seed)
    found: Counter[str] = Counter()
    with tempfile.TemporaryDirectory() as name:
        start = {"switch": Path(name, "carried"), "retire": Path(name, "switched")}
        shutil.copytree(OFFICE, start["switch"])
        run(start["switch"], ["carry", BADGE, "--to", "jsx-function", "--write"])
        shutil.copytree(start["switch"], start["retire"])
        run(start["retire"], COMMANDS["switch"])
        after, lasts = {}, {}
        for command, folder in start.items():
            whole = Path(name, "whole", command)
            shutil.copytree(folder, whole)
            began = time.monotonic()
            run(whole, COMMANDS[command])
            lasts[command], after[command] = time.monotonic() - began, sources(whole)
            assert after[command] != sources(folder), command
        for at in range(runs):
            command = rng.choice(list(COMMANDS))
            here = Path(name, f"run{at}")
            shutil.copytree(start[command], here)
            process = subprocess.Popen(
                [*PROGRAM, *COMMANDS[command]],
                cwd=here, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
            )  # fmt: skip
            # Half of the time right where the files are written, at the end.
            near = rng.random() < 0.5
            time.sleep(lasts[command] * (rng.uniform(0.85, 1.05) if near else rng.random()))
            process.kill()
            process.wait()
            run(here, ["survey"])
            state = sources(here)
            before = sources(start[command])
            staged = [one for one in state if ".carry-" in one]
            for one in staged:
                del state[one]
            kind = "before" if state == before else "after" if state == after[command] else "torn"
            found[f"{command}: {kind}"] += 1
            if kind == "torn":
                changed = [one for one in {*state, *before} if state.get(one) != before.get(one)]
                print(f"torn in run {at} of {command}: {changed}")
            shutil.rmtree(here)
    for kind, count in sorted(found.items()):
        print(f"{kind} {count}")
    return int(any("torn" in kind for kind in found))


if __name__ == "__main__":
    given = [int(one) for one in sys.argv[1:]]
    sys.exit(main(*(given + [200, 1][len(given) :])))
