"""What is compared beside what is drawn: what declared types say, and states in which nothing is drawn."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench
from conftest import Run

STRICT = """import React, { Component } from 'react';
export default class Berth extends Component {
  static propTypes = {
    place: (props, name) => (String(props[name]).length > 2 ? new Error(`${name} is too long`) : null),
  };
  render() { return <b>{this.props.place}</b>; }
}
"""
QUIET = """import React from 'react';
export default function Notice({ open, text }) {
  const shown = open ? text : null;
  return shown ? <p>{shown}</p> : null;
}
"""
MAKER = """import React, { Component } from 'react';
export default function withTide(Inner) {
  return class extends Component {
    state = { level: 1 };
    rise = () => this.setState({ level: this.state.level + 1 });
    render() { return <Inner {...this.props} rise={this.rise} level={this.state.level} />; }
  };
}
"""


def explored(bench: Bench, folder: Path, old: str, new: str) -> Verification:
    place = folder / "C.jsx"
    return verified(
        bench, sides_of(place, old, place, new)[:2], None, Trials(None), Effort(4.0, shrink=False)
    )


def carried(run: Run, path: Path) -> Path:
    done = run("carry", path.name, "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stderr
    return path.with_name(f"{path.stem}.function.jsx")


@pytest.mark.parametrize(
    ("was", "by", "verdict"),
    [
        ("", "", "same"),
        ("too long", "long", "differs"),
        ("place: (props", "berth: (props", "differs"),
    ],
)
def test_what_declared_types_say(
    tmp_path: Path, bench: Bench, run: Run, was: str, by: str, verdict: str
) -> None:
    path = tmp_path / "Berth.jsx"
    path.write_text(STRICT, "utf-8")
    new = carried(run, path).read_text("utf-8").replace(was, by)
    found = explored(bench, tmp_path, STRICT, new)
    assert found.verdict == verdict
    if verdict == "differs":
        assert found.trials[-1].differences[0].what == "calls"
    assert (found.reach is not None and found.reach[0].percent == 100) or verdict == "differs"


@pytest.mark.parametrize(
    ("was", "by", "verdict"),
    [
        ("", "", "same"),
        ("shown ? <p>{shown}</p> : null", "shown ? <p>{shown}</p> : false", "same"),
        ("open ? text : null", "open ? text : (() => { throw new Error('shut'); })()", "differs"),
    ],
)
def test_states_in_which_nothing_is_drawn(
    tmp_path: Path, bench: Bench, was: str, by: str, verdict: str
) -> None:
    found = explored(bench, tmp_path, QUIET, QUIET.replace(was, by))
    assert found.verdict == verdict
    if verdict == "same":
        assert found.reach is not None and found.reach[0].percent == 100


def test_nothing_is_proven_where_nothing_is_ever_drawn(tmp_path: Path, bench: Bench) -> None:
    empty = "export default function Empty({ open }) { return open ? null : undefined ?? null; }\n"
    assert explored(bench, tmp_path, empty, empty).verdict == "not run"


@pytest.mark.parametrize(("was", "verdict"), [("", "same"), ("level={level}", "differs")])
def test_a_function_that_makes_components_is_mounted(
    tmp_path: Path, bench: Bench, run: Run, was: str, verdict: str
) -> None:
    path = tmp_path / "withTide.jsx"
    path.write_text(MAKER, "utf-8")
    new = carried(run, path).read_text("utf-8")
    assert was in new
    if was:
        new = new.replace(was, "level={level + 1}")
    assert explored(bench, tmp_path, MAKER, new).verdict == verdict
