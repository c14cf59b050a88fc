"""The walk through a project: survey, switch and retire, through the built program."""

from __future__ import annotations

import csv
import io
import json
import re
import shutil
import subprocess
from pathlib import Path

import pytest

import clean_carry
from clean_carry.project.journal import NAME
from conftest import Run

APPLICATIONS = Path(clean_carry.__file__).parent / "demo" / "gullmoor" / "applications"
FEW = ("--most-trials", "6")


def git(folder: Path, *arguments: str) -> str:
    who = ("-c", "user.name=Gull", "-c", "user.email=gull@gullmoor.example")
    done = subprocess.run(
        ["git", *who, *arguments], cwd=folder, capture_output=True, text=True, check=True
    )
    return done.stdout


@pytest.fixture
def office(tmp_path: Path) -> Path:
    """The office's application under version control, in the folder that commands run in."""
    shutil.copytree(APPLICATIONS / "office", tmp_path, dirs_exist_ok=True)
    git(tmp_path, "init", "-q")
    git(tmp_path, "config", "user.name", "Gull")
    git(tmp_path, "config", "user.email", "gull@gullmoor.example")
    git(tmp_path, "add", "-A")
    git(tmp_path, "commit", "-qm", "The office as it was")
    return tmp_path


BADGE = "src/components/DelayBadge.jsx"


def test_a_survey_in_every_form(office: Path, run: Run) -> None:
    shown = run("survey", "--to", "jsx-function").stdout
    assert "1  DelayBadge" in shown and "used by 2, uses nothing, clean" in shown
    assert "7 components in 7 files: 5 jsx-class, 2 jsx-function" in shown
    assert "carried to jsx-function: 5 clean, 2 already jsx-function" in shown
    found = json.loads(run("survey", "src", "--since", "2000-01-01", "--json").stdout)
    badge = found["components"][0]
    assert (badge["name"], badge["line"], badge["order"]) == ("DelayBadge", 4, 1)
    users = [(one["file"], one["line"], one["how"], one["role"]) for one in badge["users"]]
    assert ("src/components/index.js", 2, "re-export", "source") in users
    assert ("src/components/DelayBadge.stories.jsx", 2, "import", "story") in users
    assert ("src/pages/BerthsPage.jsx", 10, "tag", "source") in users
    assert [point["counts"] for point in found["progress"]] == [{"jsx-class": 5, "jsx-function": 2}]
    rows = list(csv.DictReader(io.StringIO(run("survey", "--csv").stdout)))
    assert [row["name"] for row in rows][-1] == "App" and rows[0]["used by"] == "2"


def test_a_survey_as_a_page(office: Path, run: Run) -> None:
    (office / "src" / "odd.jsx").write_text("export default function Odd() { return <b />; }\n")
    assert run("survey", "--to", "jsx-function", "--report", "page").returncode == 0
    page = (office / "page" / "index.html").read_text()
    data = re.search(r'<script type="application/json" id="data">(.*?)</script>', page, re.DOTALL)
    assert data is not None and "\\u003c" not in page.replace(data[0], "")
    known = json.loads(data[1])
    assert "Odd" in [row["name"] for row in known["rows"]]
    assert len(known["places"]) == len(known["rows"]) == 8
    assert "<polyline" not in page  # one commit is no progress


@pytest.mark.parametrize(
    ("arguments", "code", "said"),
    [
        (("survey", "--csv", "--json"), 2, "choose one"),
        (("survey", "--to", "jsx-functio"), 2, "Did you mean"),
        (("survey", "empty"), 2, "no component is there"),
        (("switch", BADGE), 3, "no new file stands beside it"),
        (("switch", "src"), 2, "use --proven"),
        (("switch", BADGE, "--write", "--patch", "a.patch"), 2, "choose one"),
        (("retire", BADGE, "--write", "--commit"), 2, "choose one"),
    ],
)
def test_mistakes(arguments: tuple[str, ...], code: int, said: str, office: Path, run: Run) -> None:
    (office / "empty").mkdir()
    done = run(*arguments)
    assert (done.returncode, "Traceback" in done.stderr) == (code, False)
    assert said in done.stderr and len(done.stderr.strip().splitlines()) == 1


def test_from_survey_to_retirement(office: Path, run: Run) -> None:
    assert run("carry", BADGE, "--to", "jsx-function", "--write").returncode == 0
    still = run("retire", BADGE)
    assert still.returncode == 1 and "is still used in 4 files" in still.stdout
    assert "src/components/SailingRow.jsx:2: left: import of ./DelayBadge" in still.stdout
    preview = run("switch", BADGE)
    assert (
        preview.returncode == 0
        and "+import DelayBadge from './DelayBadge.function';" in preview.stdout
    )
    assert git(office, "status", "--short").split() == [
        "??",
        "src/components/DelayBadge.function.jsx",
    ]
    done = run("switch", BADGE, "--write", *FEW)
    assert done.returncode == 0, done.stdout + done.stderr
    assert "SailingRow.jsx: same" in done.stdout and "BerthsPage.jsx: same" in done.stdout
    assert "4 files written" in done.stdout
    dirty = run("retire", BADGE, "--commit")
    assert dirty.returncode == 5 and "not committed" in dirty.stderr
    git(office, "add", "-A")
    git(office, "commit", "-qm", "Use the new badge")
    gone = run("retire", BADGE, "--commit")
    assert gone.returncode == 0, gone.stderr
    assert "DelayBadge.jsx: 11 → 6 lines; shipped" in gone.stdout
    assert git(office, "status", "--short") == ""
    assert "Retire DelayBadge.jsx for its jsx-function form" in git(
        office, "log", "-1", "--format=%B"
    )
    # In the end only the component itself has changed.
    assert git(office, "diff", "--name-only", "HEAD~2").split() == [BADGE]
    points = json.loads(run("survey", "--since", "2000-01-01", "--json").stdout)["progress"]
    assert [point["counts"]["jsx-class"] for point in points] == [5, 5, 4]


def test_a_user_that_differs_stops_the_switch(office: Path, run: Run) -> None:
    new = office / "src/components/DelayBadge.function.jsx"
    new.write_text("export default function DelayBadge() { return <i>late</i>; }\n")
    before = git(office, "status", "--short")
    done = run("switch", BADGE, "--write", "--json", *FEW)
    assert done.returncode == 1
    found = json.loads(done.stdout)
    assert {one["verdict"] for one in found["users"]} == {"differs"}
    assert git(office, "status", "--short") == before
    assert len(found["files"]) == 4


def test_switch_and_retire_as_patches_and_uncommitted_files(office: Path, run: Run) -> None:
    run("carry", BADGE, "--to", "jsx-function", "--write")
    assert run("switch", BADGE, "--patch", "switch.patch").returncode == 0
    git(office, "apply", "switch.patch")
    row = office / "src/components/SailingRow.jsx"
    assert "./DelayBadge.function" in row.read_text()
    assert run("retire", BADGE, "--patch", "retire.patch").returncode == 0
    git(office, "apply", "retire.patch")
    assert not (office / "src/components/DelayBadge.function.jsx").exists()
    assert "./DelayBadge'" in row.read_text()
    git(office, "checkout", "-q", ".")
    run("carry", BADGE, "--to", "jsx-function", "--write")
    row.write_text(row.read_text() + "// changed\n")
    done = run("switch", BADGE, "--write", "--no-users")
    assert (
        done.returncode == 5 and "SailingRow.jsx: has changes that are not committed" in done.stderr
    )
    assert run("switch", BADGE, "--write", "--no-users", "--force").returncode == 0


def test_an_interrupted_change_is_finished_by_the_next_command(office: Path, run: Run) -> None:
    run("carry", BADGE, "--to", "jsx-function", "--write")
    text = "aW50ZXJydXB0ZWQK"
    steps = [{"path": "src/routes.jsx", "data": text}, {"path": "index.html", "data": None}]
    (office / NAME).write_text(json.dumps({"version": 1, "steps": steps}))
    run("switch", BADGE)
    assert (office / "src/routes.jsx").read_text() == "interrupted\n"
    assert not (office / "index.html").exists() and not (office / NAME).exists()


def test_all_proven_components_at_once(office: Path, run: Run) -> None:
    for name in ("DelayBadge", "BerthCard"):
        run("carry", f"src/components/{name}.jsx", "--to", "jsx-function", "--write")
    (office / "src/components/BerthCard.function.jsx").write_text(
        "export default function BerthCard() { return <p />; }\n"
    )
    done = run("switch", "src", "--proven", "--json", *FEW)
    assert "not switched: BerthCard.jsx: differs" in done.stderr
    index = next(
        one for one in json.loads(done.stdout)["files"] if one["path"].endswith("index.js")
    )
    assert "./DelayBadge.function" in index["text"] and "./BerthCard'" in index["text"]


def test_a_bridge_to_another_framework(office: Path, run: Run) -> None:
    package = office / "package.json"
    package.write_text(package.read_text().replace('"react":', '"vue": "^3.5.0", "react":'))
    run("carry", BADGE, "--to", "single-file-flat", "--write")
    done = run("switch", BADGE, "--write", *FEW)
    assert done.returncode == 0, done.stdout + done.stderr
    assert "SailingRow.jsx: same" in done.stdout
    assert "data-bridge" in (office / "src/components/DelayBadge.bridge.jsx").read_text()


def test_a_script_of_a_page(run: Run, tmp_path: Path) -> None:
    shutil.copytree(APPLICATIONS / "freight", tmp_path, dirs_exist_ok=True)
    run("carry", "src/weight-tag.js", "--to", "controller-component", "--write")
    done = run("switch", "src/weight-tag.js", "--write", "--force", *FEW)
    assert done.returncode == 0, done.stdout + done.stderr
    assert "crate-row.js: same" in done.stdout
    assert '<script src="src/weight-tag.component.js">' in (tmp_path / "index.html").read_text()
    assert run("retire", "src/weight-tag.js", "--write", "--force").returncode == 0
    assert '<script src="src/weight-tag.js">' in (tmp_path / "index.html").read_text()
    assert ".component('weightTag'" in (tmp_path / "src/weight-tag.js").read_text()
