"""Many files at once, through the built program: processes, verifying side by side, what goes wrong."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from clean_carry.component.errors import CarryError, Fault, InputError
from clean_carry.crossing import many
from clean_carry.crossing.carry import Request
from conftest import Run
from tests_support import CLASS, hears_interrupts


def fleet(folder: Path, count: int) -> None:
    for number in range(count):
        text = CLASS.replace("Berth", f"Berth{number}")
        (folder / f"Berth{number:02}.jsx").write_text(text, "utf-8")


@pytest.mark.parametrize("workers", ["1", "2"])
def test_every_file_in_order_and_a_bad_one_stops_nothing(
    run: Run, tmp_path: Path, workers: str
) -> None:
    source = tmp_path / "src"
    source.mkdir()
    fleet(source, 20)
    (source / "Berth05.jsx").write_text("class X extends Component { render() {", "utf-8")
    (source / "Berth07.jsx").write_bytes(b"\xff\xfe\x00")
    names = [str(p) for p in sorted(source.iterdir())]
    done = run("carry", *names, "--to", "jsx-function", "--json", "--workers", workers)
    rows = json.loads(done.stdout)["results"]
    assert [row["component"] for row in rows] == [f"Berth{n}" for n in range(20) if n not in (5, 7)]
    assert done.returncode == 3
    assert "Berth05.jsx" in done.stderr and "Berth07.jsx" in done.stderr


def test_a_second_run_finds_what_the_first_one_wrote(run: Run, tmp_path: Path) -> None:
    source = tmp_path / "src"
    source.mkdir()
    fleet(source, 3)
    first = run("carry", "src", "--to", "jsx-function", "--write")
    assert first.returncode == 0 and "3 clean" in first.stdout
    (source / "Berth01.function.jsx").unlink()
    again = run("carry", "src", "--to", "jsx-function", "--write")
    assert again.returncode == 0
    assert len(list(source.glob("*.function.jsx"))) == 3


def test_verified_side_by_side(run: Run, tmp_path: Path) -> None:
    source = tmp_path / "src"
    source.mkdir()
    fleet(source, 3)
    options = ("--to", "jsx-function", "--write", "--verify", "--budget", "1", "--json")
    done = run("carry", "src", *options)
    rows = json.loads(done.stdout)["results"]
    assert [row["verification"]["verdict"] for row in rows] == ["same"] * 3
    assert len(list(source.glob("*.function.jsx"))) == 3 and done.returncode == 0


def test_stopped_in_the_middle(tmp_path: Path) -> None:
    fleet(tmp_path, 40)
    command = [sys.executable, "-m", "clean_carry", "carry", ".", "--to", "jsx-function"]
    more = ["--write", "--verify", "--budget", "60", "--fresh"]
    running = subprocess.Popen(
        [*command, *more],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        preexec_fn=hears_interrupts,
    )
    time.sleep(6)
    os.kill(running.pid, signal.SIGINT)
    output, _ = running.communicate(timeout=60)
    assert running.returncode == 130
    assert "interrupted" in output
    assert not list(tmp_path.glob("*.function.jsx"))


CONTEXT = """import React from 'react';

export default class Sail extends React.Component {
  render() {
    return <p>{this.context.wind}</p>;
  }
}
Sail.contextTypes = { wind: () => null };
"""


@pytest.mark.parametrize(("major", "status"), [("16", "clean"), ("18", "clean"), ("19", "refused")])
def test_written_for_the_version_asked_for(
    run: Run, tmp_path: Path, major: str, status: str
) -> None:
    (tmp_path / "Sail.jsx").write_text(CONTEXT, "utf-8")
    done = run("carry", "Sail.jsx", "--to", "jsx-function", "--runtime", major, "--json")
    assert json.loads(done.stdout)["results"][0]["status"] == status


def test_a_version_there_is_no_runtime_for(run: Run, tmp_path: Path) -> None:
    (tmp_path / "X.jsx").write_text(CLASS, "utf-8")
    done = run("carry", "X.jsx", "--to", "jsx-function", "--runtime", "12", "--verify")
    assert done.returncode == 2 and "react-12" in done.stderr


def test_a_process_that_ends_costs_one_file(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    fleet(tmp_path, 17)
    requests = [Request(p, p.name, "jsx-function") for p in sorted(tmp_path.iterdir())]
    real = many.carry_file

    def falls(request: Request) -> list[many.Result]:
        if request.path.stem == "Berth03":
            os.kill(os.getpid(), signal.SIGKILL)
        if request.path.stem == "Berth04":
            raise ZeroDivisionError
        return real(request)

    monkeypatch.setattr(many, "carry_file", falls)
    outcomes = list(many.carry_all(requests, 2))
    faults = [n for n, o in enumerate(outcomes) if isinstance(o, Fault)]
    assert faults == [3, 4] and len(outcomes) == 17
    assert all(isinstance(o, list) for n, o in enumerate(outcomes) if n not in faults)


def test_errors_come_through_processes_whole() -> None:
    import pickle

    error = InputError("cannot be read", advice="Look", file="a.jsx", line=3, column=4)
    again = pickle.loads(pickle.dumps(error))
    assert isinstance(again, CarryError) and again.one_line() == error.one_line()
    assert again.exit_code == 3


def test_what_only_looks_like_a_class_component_is_passed_over(run: Run, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(
        "import React from 'react';\nexport default class Berth extends React.Component {\n"
        "  render() { return <p>berth</p>; }\n}\n"
    )
    (tmp_path / "gone.js").write_text("export class Gone extends Error {}\n")
    (tmp_path / "Typed.tsx").write_text(
        "interface Row extends Other { name: string }\n"
        'export const Typed = ({ name }: Row) => <p className="row">{name}</p>;\n'
    )
    done = run("carry", ".", "--to", "jsx-function")
    assert done.returncode == 0, done.stderr
    assert "passed over: gone.js: holds no class component" in done.stderr
    assert "Typed" not in done.stderr
    # Named by itself it is an error.
    assert run("carry", "gone.js", "--to", "jsx-function").returncode == 3


def test_a_class_with_defaults_for_its_type_parameters_is_found(run: Run, tmp_path: Path) -> None:
    (tmp_path / "Slot.tsx").write_text(
        "import React from 'react';\n"
        "export default class Slot<P = {}, S = {}> extends React.Component<P, S> {\n"
        "  render() { return <p>slot</p>; }\n}\n"
    )
    done = run("carry", ".", "--to", "jsx-function")
    assert "passed over" not in done.stderr
    assert "1 file" in done.stdout or "Slot: " in done.stdout, done.stdout + done.stderr
