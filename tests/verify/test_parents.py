"""Components that draw nothing by themselves are mounted inside the parents the project gives them."""

from __future__ import annotations

import json
from pathlib import Path

from clean_carry.verify.parents import parents_of

PANEL = """import React, { createContext } from 'react';
export const Open = createContext(null);
export default function Piers({ label, children }) {
  return <Open.Provider value={label}><section>{children}</section></Open.Provider>;
}
"""
PIER = """import React, { Component } from 'react';
import { Open } from './Piers';

export default class Pier extends Component {
  state = { here: 0 };

  render() {
    return (
      <Open.Consumer>
        {(label) => label && <button onClick={() => this.setState({ here: this.state.here + 1 })}>{label} {this.state.here}</button>}
      </Open.Consumer>
    );
  }
}
"""
APP = """import React from 'react';
import Piers from './Piers';
import Pier from './Pier';
export const App = ({ pick }) => (
  <main><Piers label="Holm" onPick={pick} order={{ first: 1, pick }}><p><Pier /></p></Piers></main>
);
"""


def project(folder: Path) -> None:
    (folder / "package.json").write_text("{}")
    (folder / "Piers.jsx").write_text(PANEL)
    (folder / "Pier.jsx").write_text(PIER)
    (folder / "App.jsx").write_text(APP)


def test_the_parents_of_a_use(tmp_path: Path) -> None:
    project(tmp_path)
    found = parents_of("Pier", tmp_path / "Pier.jsx")
    assert found is not None and found.shown == "Piers"
    assert f"import Piers from '{tmp_path.resolve()}/Piers.jsx';" in found.text
    assert (
        '<Piers label="Holm" onPick={() => {}} order={{ first: 1, pick: () => {} }}>' in found.text
    )
    assert parents_of("Harbour", tmp_path / "Pier.jsx") is None
    (tmp_path / "App.jsx").write_text("broken {")
    assert parents_of("Pier", tmp_path / "Pier.jsx") is None


def test_through_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path)
    run("carry", "Pier.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "Pier.jsx", "Pier.function.jsx", "--budget", "1")
    found = json.loads(run(*call, "--json").stdout)
    assert (found["verdict"], found["around"], found["mounted"]) == ("same", "Piers", "default")
    assert "inside Piers" in run(*call).stdout
    (tmp_path / "App.jsx").unlink()
    assert json.loads(run(*call, "--json").stdout)["verdict"] == "not run"


def test_outside_of_a_project_only_the_folder_is_looked_through(tmp_path: Path) -> None:
    folder = tmp_path / "a"
    folder.mkdir()
    project(folder)
    (folder / "package.json").unlink()
    (folder / "App.jsx").rename(tmp_path / "App.jsx")
    assert parents_of("Pier", folder / "Pier.jsx") is None
    (folder / "node_modules").mkdir()
    (tmp_path / "App.jsx").rename(folder / "node_modules" / "App.jsx")
    assert parents_of("Pier", folder / "Pier.jsx") is None
