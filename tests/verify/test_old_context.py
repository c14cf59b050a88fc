"""The old context, given by what the project wraps every trial in: what a function reads of it is compared."""

from __future__ import annotations

import json
from pathlib import Path

SETUP = """import React, { Component } from 'react';
export default class Harbour extends Component {
  static childContextTypes = { quay: () => null };
  getChildContext() { return { quay: 'Holm' }; }
  render() { return this.props.children; }
}
"""
BERTH = """import React, { Component } from 'react';
export default class Berth extends Component {
  static contextTypes = { quay: () => null };
  render() { return <button onClick={() => this.props.onCall(this.context.quay)}>{this.context.quay}</button>; }
}
"""


def test_what_is_given_is_read(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "clean-carry.toml").write_text('setup = "setup.jsx"\n')
    (tmp_path / "setup.jsx").write_text(SETUP)
    (tmp_path / "Berth.jsx").write_text(BERTH)
    run("carry", "Berth.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "Berth.jsx", "Berth.function.jsx", "--budget", "1", "--json")
    assert json.loads(run(*call).stdout)["verdict"] == "same"
    new = tmp_path / "Berth.function.jsx"
    new.write_text(new.read_text().replace("Berth.contextTypes =", "Berth.otherTypes ="))
    assert json.loads(run(*call).stdout)["verdict"] == "differs"


def test_a_memoised_function_would_not_read_it(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Berth.jsx").write_text(BERTH.replace("Component", "PureComponent"))
    found = json.loads(run("carry", "Berth.jsx", "--to", "jsx-function", "--json").stdout)
    assert [f["rule"] for f in found["results"][0]["findings"]] == ["legacy-context"]


ROW = """import React, { Component } from 'react';
export default class Row extends Component {
  static contextTypes = { header: () => null, level: () => null, onPick: () => null };
  render() {
    const { header, level, onPick } = this.context;
    if (header && level > 2) return <b onClick={() => onPick(level)}>deep</b>;
    return header ? <b>head</b> : <i>{level}</i>;
  }
}
"""


def test_it_is_looked_for_like_any_input(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Row.jsx").write_text(ROW)
    run("carry", "Row.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "Row.jsx", "Row.function.jsx", "--budget", "4", "--json")
    found = json.loads(run(*call).stdout)
    missed = [row for row in found["reach"]["old"]["unreached"] if row["kind"] != "function"]
    assert found["verdict"] == "same" and missed == []
    new = tmp_path / "Row.function.jsx"
    new.write_text(new.read_text().replace("level > 2", "level > 1"))
    assert json.loads(run(*call, "--save", "smallest.yaml").stdout)["verdict"] == "differs"
    assert "$context.header: true" in (tmp_path / "smallest.yaml").read_text()
