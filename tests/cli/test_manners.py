"""What the commands say and do where a run cannot be what was meant."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from typing import Any

import pytest

CLASS = """import React from 'react';

export default class Berth extends React.Component {
  state = { free: true };

  render() {
    return <button onClick={() => this.setState({ free: false })}>{String(this.state.free)}</button>;
  }
}
"""
SINGLE = """<template><p>{{ level }}</p></template>
<script>
export default { data() { return { level: 1 }; } };
</script>
"""
DIRECTIVE = """angular.module('a', []).directive('tide', () => ({ scope: {}, template: '<p></p>' }));
"""


def mixed(folder: Path) -> None:
    folder.mkdir()
    (folder / "Berth.jsx").write_text(CLASS)
    (folder / "Tide.vue").write_text(SINGLE)
    (folder / "Wind.vue").write_text(SINGLE)
    (folder / "tide.js").write_text(DIRECTIVE)


def git(folder: Path, *arguments: str) -> None:
    identity = ["-c", "user.name=n", "-c", "user.email=e@example.org"]
    subprocess.run(["git", *identity, *arguments], cwd=folder, check=True, capture_output=True)


def test_files_of_other_syntaxes_are_skipped_and_counted(run: Any, tmp_path: Path) -> None:
    mixed(tmp_path / "src")
    done = run("carry", "src", "--to", "controller-component", "--write")
    assert (done.returncode, done.stderr) == (0, "")
    assert (
        done.stdout.splitlines()[-1]
        == "  skipped, in other syntaxes: 1 jsx-class, 2 single-file-object"
    )
    assert sorted(p.name for p in (tmp_path / "src").iterdir() if ".component." in p.name) == [
        "tide.component.js"
    ]
    done = run("carry", "src", "--to", "single-file-flat", "--from", "single-file-object", "--json")
    told = json.loads(done.stdout)
    assert len(told["results"]) == 2
    assert told["skipped"] == {"jsx-class": 1, "directive": 1}


def test_a_folder_of_other_syntaxes_alone(run: Any, tmp_path: Path) -> None:
    mixed(tmp_path / "src")
    (tmp_path / "src" / "Berth.jsx").unlink()
    done = run("carry", "src", "--to", "jsx-function", "--from", "jsx-class")
    assert (done.returncode, done.stdout) == (2, "")
    assert "nothing there is carried to jsx-function" in done.stderr
    assert "2 single-file-object, 1 directive" in done.stderr


@pytest.mark.parametrize("state", ["outside", "untracked", "added", "changed", "committed"])
def test_what_no_commit_holds_is_not_written_over(state: str, run: Any, tmp_path: Path) -> None:
    path = tmp_path / "Berth.jsx"
    path.write_text(CLASS)
    if state != "outside":
        git(tmp_path, "init")
    if state in ("added", "changed", "committed"):
        git(tmp_path, "add", ".")
    if state in ("changed", "committed"):
        git(tmp_path, "commit", "-m", "a")
    if state == "changed":
        path.write_text(CLASS + "\n")
    before = path.read_bytes()
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--replace")
    if state == "committed":
        assert done.returncode == 0
        assert b"function Berth()" in path.read_bytes()
        return
    why = {
        "outside": "is under no version control",
        "untracked": "is not tracked by version control",
    }.get(state, "has changes that are not committed")
    assert (done.returncode, done.stdout) == (5, "")
    assert done.stderr == f"clean-carry: Berth.jsx: {why}. Commit it first, or use --force\n"
    assert path.read_bytes() == before
    assert run("carry", "Berth.jsx", "--to", "jsx-function", "--replace", "--force").returncode == 0
    assert b"function Berth()" in path.read_bytes()


def test_the_committed_files_of_a_folder_are_replaced(run: Any, tmp_path: Path) -> None:
    for name in ("Berth.jsx", "Quay.jsx"):
        (tmp_path / name).write_text(CLASS)
    git(tmp_path, "init")
    git(tmp_path, "add", "Quay.jsx")
    git(tmp_path, "commit", "-m", "a")
    done = run("carry", ".", "--to", "jsx-function", "--replace")
    assert done.returncode == 5
    assert "Berth.jsx: is not tracked" in done.stderr
    assert (tmp_path / "Berth.jsx").read_text() == CLASS
    assert "function Berth()" in (tmp_path / "Quay.jsx").read_text()


def test_an_empty_patch_is_not_written(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS.replace("React.Component", "Vessel"))
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--patch", "all.patch")
    assert "no patch: nothing would change" in done.stderr
    assert not (tmp_path / "all.patch").exists()


@pytest.mark.parametrize(
    ("request_", "named", "told"),
    [
        ("loudness", True, "Berth.jsx:2: the package loudness is not installed. Run `npm install`"),
        ("@quay/bell/ring", True, "the package @quay/bell is not installed. Run `yarn install`"),
        ("loudness", False, "is not installed, and package.json does not name it"),
        ("./loudness", False, "Berth.jsx:2: there is no file ./loudness"),
        ("@/loudness", False, "@/loudness is not found; name its alias in clean-carry.toml"),
    ],
)
def test_an_import_that_is_not_found_says_what_to_run(
    request_: str, named: bool, told: str, run: Any, tmp_path: Path
) -> None:
    text = CLASS.replace("\n\n", f"\nimport ring from '{request_}';\n\n", 1)
    (tmp_path / "Berth.jsx").write_text(text.replace("{String(", "{ring(String)}{String("))
    packages = {"loudness": "^1.0.0", "@quay/bell": "^2.0.0"} if named else {}
    (tmp_path / "package.json").write_text(
        json.dumps({"dependencies": {"react": "18.3.1", "react-dom": "18.3.1", **packages}})
    )
    if request_.startswith("@quay"):
        (tmp_path / "yarn.lock").write_text("")
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--verify", "--budget", "2")
    assert done.returncode == 1
    assert told in done.stdout


@pytest.mark.parametrize(
    ("arguments", "near"),
    [
        (("carry", "X.jsx", "--to", "jsx-functon"), "Did you mean jsx-function?"),
        (
            ("carry", "X.jsx", "--to", "jsx-function", "--from", "jsxclass"),
            "Did you mean jsx-class?",
        ),
        (("carry", "X.jsx", "--too", "jsx-function"), "--to"),
        (("explain", "instance-escape"), "Did you mean instance-escapes?"),
        (("cary", "X.jsx"), "Did you mean carry?"),
    ],
)
def test_what_may_have_been_meant(arguments: tuple[str, ...], near: str, run: Any) -> None:
    done = run(*arguments)
    assert done.returncode == 2
    assert near in done.stderr
