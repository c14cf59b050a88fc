"""What is stopped, saved meanwhile, linked, unreadable or hostile leaves nothing half done."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
import uuid
from pathlib import Path
from typing import Any

import pytest

from clean_carry.cli.carried_files import Place, write
from clean_carry.component.errors import WriteRefused, printable
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.report import terminal
from tests_support import hears_interrupts

BERTH = """import React from 'react';

export class Berth%s extends React.Component {
  render() {
    return <b>{this.props.pier}</b>;
  }
}
"""


def test_what_is_saved_meanwhile_is_not_written_over(tmp_path: Path) -> None:
    path = tmp_path / "Berth.jsx"
    path.write_bytes((BERTH % "").replace("\n", "\r\n").encode("utf-8-sig"))
    found = carry_file(Request(path, "Berth.jsx", "jsx-function"))
    path.write_text(BERTH % "Saved")
    with pytest.raises(WriteRefused, match="saved while it was carried"):
        write(found, path, Place(overwrite=True))
    assert path.read_text() == BERTH % "Saved"


def test_what_stayed_is_written_over(tmp_path: Path) -> None:
    path = tmp_path / "Berth.jsx"
    path.write_bytes((BERTH % "").replace("\n", "\r\n").encode("utf-8-sig"))
    write(carry_file(Request(path, "Berth.jsx", "jsx-function")), path, Place(overwrite=True))
    assert path.read_bytes().startswith(b"\xef\xbb\xbf") and b"function Berth" in path.read_bytes()


def test_a_link_stays_one(run: Any, tmp_path: Path) -> None:
    (tmp_path / "own").mkdir()
    target, link = tmp_path / "own" / "Berth.jsx", tmp_path / "Berth.jsx"
    target.write_text(BERTH % "")
    link.symlink_to(target)
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--replace", "--force")
    assert done.returncode == 0, done.stderr
    assert link.is_symlink() and "function Berth" in target.read_text()


@pytest.mark.parametrize("command", ["carry", "verify"])
def test_a_pipe_is_no_file(command: str, run: Any, tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe.jsx")
    (tmp_path / "Berth.jsx").write_text(BERTH % "")
    more = ("--to", "jsx-function") if command == "carry" else ("pipe.jsx",)
    first = "pipe.jsx" if command == "carry" else "Berth.jsx"
    done = run(command, first, *more)
    assert done.returncode == 3 and "is a pipe or a device" in done.stderr


def test_a_report_that_cannot_be_written_is_not_announced(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(BERTH % "")
    options = ("--to", "jsx-function", "--write", "--report", "Berth.jsx/report")
    done = run("carry", "Berth.jsx", *options)
    assert done.returncode == 5
    assert "cannot be written" in done.stderr and "report:" not in done.stderr
    # What does not need it is done all the same.
    assert (tmp_path / "Berth.function.jsx").exists()


def test_signs_that_steer_a_terminal_are_shown() -> None:
    assert printable("\x1b[31mred\nline\x07 \u202egnol\ttab\xa0é") == (
        "\\x1b[31mred\\nline\\x07 \\u202egnol\ttab\xa0é"
    )
    lines = list(terminal.diff("a", "\x1b[2Jb", "old", "new"))
    assert not any("\x1b[2J" in line for line in lines)
    assert any("\\x1b[2J" in line for line in lines)


def many(folder: Path, count: int = 300) -> None:
    for number in range(count):
        (folder / f"Berth{number}.jsx").write_text(BERTH % number)


def started(folder: Path, mark: str) -> subprocess.Popen[bytes]:
    command = [sys.executable, "-m", "clean_carry", "carry", ".", "--to", "jsx-function", "--write"]
    return subprocess.Popen(
        command,
        cwd=folder,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        env={**os.environ, "MARK": mark},
        preexec_fn=hears_interrupts,
    )


def running(mark: str) -> list[str]:
    """The processes with a mark in their environment."""
    found = []
    for place in Path("/proc").glob("[0-9]*/environ"):
        try:
            if mark.encode() in place.read_bytes():
                found.append(place.parent.name)
        except OSError:
            continue
    return found


@pytest.mark.skipif(not Path("/proc/self/environ").exists(), reason="asks /proc for processes")
@pytest.mark.parametrize("number", [signal.SIGTERM, signal.SIGKILL, signal.SIGINT])
def test_a_run_that_is_ended_leaves_nothing(number: signal.Signals, tmp_path: Path) -> None:
    many(tmp_path)
    mark = f"mark-{uuid.uuid4()}"
    process = started(tmp_path, mark)
    deadline = time.monotonic() + 60
    while not any(tmp_path.glob("*.function.jsx")) and time.monotonic() < deadline:
        time.sleep(0.02)
    process.send_signal(number)
    code = process.wait(timeout=60)
    assert code in (130, -number, 0)
    while running(mark) and time.monotonic() < deadline:
        time.sleep(0.05)
    assert running(mark) == []
    written = sorted(tmp_path.glob("*.function.jsx"))
    assert all("function Berth" in path.read_text() for path in written)
    # The rerun completes; what stood there whole is kept.
    again = started(tmp_path, mark)
    assert again.wait(timeout=120) == 0
    assert len(list(tmp_path.glob("*.function.jsx"))) == 300
    assert list(tmp_path.glob(".Berth*")) == []


def test_what_a_process_that_is_gone_had_staged_is_taken_away(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(BERTH % "")
    gone = subprocess.Popen(["true"])
    gone.wait()
    left = tmp_path / f".Berth.function.jsx.carry-{gone.pid}.abcdefgh"
    kept = tmp_path / f".Berth.function.jsx.carry-{os.getpid()}.abcdefgh"
    left.write_text("half")
    kept.write_text("under way")
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 0
    assert not left.exists() and kept.exists()


def test_a_crash_on_import_is_told_without_steps(run: Any, tmp_path: Path) -> None:
    text = (
        "import React from 'react';\n{}export default class Berth extends React.Component {{\n"
        "  state = {{ taken: 0 }};\n  take = () => this.setState({{ taken: 1 }});\n"
        "  render() {{ return <button onClick={{this.take}}>{{this.state.taken}}</button>; }}\n}}\n"
    )
    (tmp_path / "Berth.jsx").write_text(text.format(""))
    (tmp_path / "Other.jsx").write_text(text.format("const gone = window.nowhere.at;\n"))
    done = run("verify", "Berth.jsx", "Other.jsx", "--budget", "2")
    assert done.returncode == 1
    assert "new  Cannot read properties of undefined (reading 'at')" in done.stdout
    assert "the component is mounted without props" in done.stdout
    assert "step 1:" not in done.stdout
