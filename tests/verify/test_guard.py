"""What is left running when the program is killed: nothing."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

pytestmark = pytest.mark.skipif(
    not Path("/proc/self/stat").exists(), reason="processes are listed by /proc"
)

LOOPS = """import React from 'react';
export default class Loops extends React.Component {
  render() { while (true) {} }
}
"""


def children(parent: int) -> dict[int, str]:
    """Processes of a parent: number, and command line."""
    found = {}
    for folder in Path("/proc").iterdir():
        try:
            after_name = (folder / "stat").read_text().rpartition(")")[2].split()
            if int(after_name[1]) == parent:
                found[int(folder.name)] = (folder / "cmdline").read_text()
        except (OSError, ValueError, IndexError):
            continue
    return found


def runs(process: int) -> bool:
    try:
        state = Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()[0]
    except OSError:
        return False
    return state != "Z"


def waits_for(condition, seconds: float) -> bool:  # type: ignore[no-untyped-def]
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        if condition():
            return True
        time.sleep(0.1)
    return bool(condition())


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGTERM])
def test_a_renderer_that_loops_ends_with_the_program(how: signal.Signals, tmp_path: Path) -> None:
    (tmp_path / "Loops.jsx").write_text(LOOPS)
    program = subprocess.Popen(
        [sys.executable, "-m", "clean_carry", "verify", "Loops.jsx", "Loops.jsx", "--fresh"],
        cwd=tmp_path,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    try:
        assert waits_for(
            lambda: any("renderer.mjs" in line for line in children(program.pid).values()), 60
        )
        started = list(children(program.pid))
        os.kill(program.pid, how)
        program.wait(30)
        assert waits_for(lambda: not any(runs(one) for one in started), 10), started
    finally:
        program.kill()
        program.wait()


def test_the_guard_forgets_what_has_ended() -> None:
    """A number that was given back must not be ended when another process has it."""
    code = (
        "import subprocess\n"
        "from clean_carry.verify.guard import GUARD\n"
        "quiet = {'stdout': subprocess.DEVNULL, 'stderr': subprocess.DEVNULL}\n"
        "started = [\n"
        "    subprocess.Popen(['sleep', '60'], start_new_session=True, **quiet) for _ in 'ab'\n"
        "]\n"
        "kept, ended = started\n"
        "GUARD.starts(kept.pid); GUARD.starts(ended.pid); GUARD.ended(ended.pid)\n"
        "print(kept.pid, ended.pid)\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    kept, forgotten = (int(number) for number in done.stdout.split())
    try:
        assert waits_for(lambda: not runs(kept), 10)
        assert runs(forgotten)
    finally:
        os.kill(forgotten, signal.SIGKILL)
