"""The commands that only list: syntaxes, runtimes, rules; and what help says of every command."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.syntaxes.registry import OWN
from clean_carry.syntaxes.rules import every_rule
from clean_carry.verify.runtimes import RUNTIMES

RULES = every_rule()

COMMANDS = ["carry", "verify", "left", "syntaxes", "runtimes", "demo", "explain"]


@pytest.mark.parametrize("command", COMMANDS)
def test_every_command_has_help_with_an_example(command: str, run) -> None:  # type: ignore[no-untyped-def]
    done = run(command, "--help")
    assert done.returncode == 0 and "Example" in done.stdout
    assert f"clean-carry {command}" in done.stdout.partition("Example")[2]
    assert command in run("--help").stdout


def test_the_syntaxes(run) -> None:  # type: ignore[no-untyped-def]
    shown = run("syntaxes").stdout
    listed = json.loads(run("syntaxes", "--json").stdout)["syntaxes"]
    assert [one["id"] for one in listed] == list(OWN)
    assert all(one["id"] in shown for one in listed)


def test_the_runtimes(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    empty = {"CLEAN_CARRY_CACHE": str(tmp_path / "cache")}
    listed = json.loads(run("runtimes", "--json", env=empty).stdout)["runtimes"]
    assert {one["name"] for one in listed} == set(RUNTIMES)
    assert not any(one["installed"] for one in listed)
    assert "on first need" in run("runtimes", "list", env=empty).stdout
    done = run("runtimes", "install", "react-1", env=empty)
    assert done.returncode == 2 and "react-1" in done.stderr
    assert run("runtimes", "remove", "react-18", env=empty).returncode == 0


def test_the_rules(run) -> None:  # type: ignore[no-untyped-def]
    shown = run("explain").stdout
    assert [rule for rule in RULES if rule not in shown] == []
    assert len(json.loads(run("explain", "--json").stdout)["rules"]) == len(RULES)
    one = run("explain", "write-callback").stdout
    assert "Before" in one and RULES["write-callback"].advice in one
    done = run("explain", "no-such")
    assert done.returncode == 2 and done.stderr.startswith("clean-carry: there is no rule")


def test_without_a_runtime_and_without_a_registry(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "A.jsx").write_text("export default () => <p>a</p>;\n")
    empty = {"CLEAN_CARRY_CACHE": str(tmp_path / "cache")}
    done = run("verify", "A.jsx", "A.jsx", "--offline", env=empty)
    assert done.returncode == 4 and "Traceback" not in done.stderr
    assert "clean-carry runtimes install" in done.stderr


def test_no_color_and_a_pipe(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    for env in ({"NO_COLOR": "1"}, {}):
        assert "\x1b[" not in run("explain", env=env).stdout
