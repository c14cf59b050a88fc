"""Commands before carrying: `init`, `sheet`, and what is left afterwards, through the built program."""

from __future__ import annotations

import json
import os
import pty
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import clean_carry
from conftest import Run

APPLICATIONS = Path(clean_carry.__file__).parent / "demo" / "gullmoor" / "applications"


@pytest.fixture
def tickets(tmp_path: Path) -> Path:
    shutil.copytree(APPLICATIONS / "tickets", tmp_path, dirs_exist_ok=True)
    return tmp_path


def test_a_first_project_file(tickets: Path, run: Run) -> None:
    (tickets / "src/page.css").write_text("p {}\n")
    main = tickets / "src/main.js"
    main.write_text("import './page.css';\n" + main.read_text())
    shown = run("init", "--show").stdout
    assert 'sources = ["src"]' in shown and '\nstyles = ["src/page.css"]' in shown
    assert '# setup = "src/main.js"' in shown and '# vue = "3"' in shown
    assert '# "@/" = "src/"' in shown
    there = run("init")
    assert there.returncode == 5 and "stands there already" in there.stderr
    (tickets / "clean-carry.toml").unlink()
    assert run("init").stdout == "written: clean-carry.toml\n"
    assert run("survey").returncode == 0


def test_a_sheet_of_a_single_file(tickets: Path, run: Run) -> None:
    shown = run("sheet", "src/components/SeatPicker.vue", "--to", "jsx-function").stdout
    for line in (
        "SeatPicker · single-file-object, 24 lines",
        "used by: src/components/TicketLine.vue, src/components/index.js",
        "12  start  Number, default 1",
        "10  change  passed at src/components/TicketLine.vue:4",
        "15  seats  starts as this.start; written by change",
        "Carried to jsx-function: clean",
    ):
        assert line in shown, shown
    found = json.loads(run("sheet", "src/components/FareTag.vue", "--json").stdout)["components"][0]
    items = {(item["kind"], item["name"]): item for item in found["items"]}
    assert items["prop", "child"]["places"] == ["src/pages/BasketPage.vue:2"]
    assert items["derived", "shown"]["line"] == 13
    assert found["carry"] is None and found["problem"] == ""


def test_a_sheet_of_a_class(run: Run, tmp_path: Path) -> None:
    shutil.copytree(APPLICATIONS / "office", tmp_path, dirs_exist_ok=True)
    shown = run("sheet", "src/components/SailingRow.jsx").stdout
    assert "sailing  passed at src/components/SailingTable.jsx:17" in shown
    assert "onBook" in shown and "booked  starts as 0; written by book" in shown
    (tmp_path / "src/Wait.jsx").write_text(
        "import React, { useEffect, useState } from 'react';\n"
        "export function Wait({ until, children }) {\n"
        "  const [left, setLeft] = useState(9);\n"
        "  useEffect(() => {\n"
        "    const timer = setInterval(() => setLeft((now) => now - 1), 1000);\n"
        "    return () => clearInterval(timer);\n"
        "  }, [until]);\n"
        "  return <p>{left} {children}</p>;\n}\n"
    )
    shown = run("sheet", "src/Wait.jsx").stdout
    assert "after render  when until changes, with a clean-up" in shown


def test_a_manifest(tickets: Path, run: Run) -> None:
    found = json.loads(run("sheet", "src/components/SeatPicker.vue", "--manifest").stdout)
    assert found["schemaVersion"] == "1.0.0"
    module = found["modules"][0]
    assert module["path"] == "src/components/SeatPicker.vue"
    declaration = module["declarations"][0]
    assert declaration["tagName"] == "SeatPicker" and declaration["events"][0]["name"] == "change"
    prop = {
        "kind": "field",
        "name": "start",
        "privacy": "public",
        "type": {"text": "Number"},
        "default": "1",
    }
    assert prop in declaration["members"]


def test_the_target_is_inferred_inside_of_a_family(tickets: Path, run: Run) -> None:
    done = run("carry", "src/components/SeatPicker.vue")
    assert done.returncode == 0 and "single-file-object → single-file-flat" in done.stdout
    (tickets / "Berth.jsx").write_text("export default function Berth() { return <b />; }\n")
    none = run("carry", "Berth.jsx")
    assert none.returncode == 2 and "say --to SYNTAX" in none.stderr
    shutil.copy(APPLICATIONS / "office/src/components/BerthCard.jsx", tickets / "BerthCard.jsx")
    both = run("carry", "BerthCard.jsx", "src/components/SeatPicker.vue")
    assert "these files are carried to jsx-function, single-file-flat" in both.stderr


ODD = """import React from 'react';
import { Base } from 'base';
export default class Odd extends Base {
  render() { return <b />; }
}
"""


def test_refused_components_and_unproven_files_are_left_too(tickets: Path, run: Run) -> None:
    (tickets / "src/Odd.jsx").write_text(ODD)
    seat = "src/components/SeatPicker.vue"
    run("carry", seat, "--write")
    done = run("left")
    assert done.returncode == 1
    assert "src/Odd.jsx:3  Odd → jsx-function  [own-base]" in done.stdout
    assert f"{seat}  not verified since it changed" in done.stdout
    new = "src/components/SeatPicker.flat.vue"
    assert f"→ clean-carry verify {seat} {new}" in done.stdout
    assert run("verify", seat, new, "--most-trials", "30").returncode == 0
    found = json.loads(run("left", "--json").stdout)
    assert [one["name"] for one in found["refused"]] == ["Odd"] and found["unproven"] == []
    assert json.loads(run("left", "--rule", "own-base", "--json").stdout)["refused"]
    (tickets / new).write_text((tickets / new).read_text() + "<!-- changed -->\n")
    assert json.loads(run("left", "--json").stdout)["unproven"]


@pytest.mark.skipif(sys.platform == "win32", reason="needs a terminal")
def test_the_next_command_is_said_at_a_terminal_only(tickets: Path, run: Run) -> None:
    arguments = ("carry", "src/components/SeatPicker.vue", "--write")
    ours, theirs = pty.openpty()
    done = subprocess.run(
        [sys.executable, "-m", "clean_carry", *arguments],
        cwd=tickets, stdout=theirs, stderr=subprocess.PIPE, text=True, check=False,
        env={**os.environ, "NO_COLOR": "1"},
    )  # fmt: skip
    os.close(theirs)
    os.close(ours)
    assert "next: clean-carry verify src/components/SeatPicker.vue" in done.stderr
    (tickets / "src/components/SeatPicker.flat.vue").unlink()
    assert "next:" not in run(*arguments).stderr
