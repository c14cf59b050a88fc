"""What the project's own uses give a component: parents, content, inputs."""

from __future__ import annotations

import json
from pathlib import Path

from clean_carry.verify.uses.scripts import parents_of, uses_of

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


TABS = """import React, { Component } from 'react';
export class Tabs extends Component {
  state = { at: this.props.first };

  render() {
    return (
      <nav>
        {React.Children.map(this.props.children, (tab) =>
          React.cloneElement(tab, { on: tab.props.id === this.state.at, pick: () => this.setState({ at: tab.props.id }) }))}
      </nav>
    );
  }
}
"""
TAB = """import React from 'react';
export const Tab = ({ id, on, pick, children }) => <button id={id} onClick={pick}>{on ? '* ' : ''}{children}</button>;
"""
PAGE = """import React from 'react';
import { Tabs } from './Tabs';
import { Tab } from './Tab';
import Unknown from 'not-installed';
export const Page = ({ names, more }) => (
  <div>
    <Tabs first="bb" wide lines={2} pick={names}>
      {/* two */}
      <Tab id="aa">Sailings</Tab>
      {more && <Tab id="bb" onPick={names}>Berths &amp; <i>cargo</i></Tab>}
      {more ? names.map((name) => (<Tab key={name} id={name}>{name}</Tab>)) : null}
      {names}
    </Tabs>
    <Tabs first="cc">text alone</Tabs>
    <Tabs />
  </div>
);
"""


def tabs(folder: Path) -> None:
    (folder / "package.json").write_text("{}")
    for name, text in (("Tabs", TABS), ("Tab", TAB), ("Page", PAGE)):
        (folder / f"{name}.jsx").write_text(text)


def test_the_content_and_the_inputs_of_uses(tmp_path: Path) -> None:
    tabs(tmp_path)
    found = uses_of("Tabs", tmp_path / "Tabs.jsx")
    assert found.inputs == {"first": ["bb", "cc"], "wide": [True], "lines": [2]}
    assert found.count == 1
    assert f"import {{ Tab }} from '{tmp_path.resolve()}/Tab.jsx';" in found.text
    assert '<Tab id="aa">Sailings</Tab>' in found.text
    assert '<Tab id="bb" onPick={() => {}}>Berths &amp; <i>cargo</i></Tab>' in found.text
    assert '{[<Tab id="id"></Tab>, <Tab id="id"></Tab>]}' in found.text
    assert "{names}" not in found.text and "not-installed" not in found.text
    nothing = uses_of("Unknown", tmp_path / "Unknown.jsx")
    assert (nothing.count, nothing.inputs) == (0, {})


def test_what_tells_content_apart_is_what_an_input_means(tmp_path: Path) -> None:
    tabs(tmp_path)
    page = "import { Tabs } from './Tabs';\nimport { Tab } from './Tab';\n"
    page += "export default ({ at }) => (\n  <Tabs shownTab={at}>\n"
    page += '    <Tab tabId="a" title="b">A</Tab>\n    <Tab tabId={2}>B</Tab>\n    text\n  </Tabs>\n);\n'
    (tmp_path / "Page.jsx").write_text(page)
    assert uses_of("Tabs", tmp_path / "Tabs.jsx").inputs == {"shownTab": ["a", 2]}


def test_tabs_are_pressed_in_the_tab_bar_of_the_project(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    tabs(tmp_path)
    run("carry", "Tabs.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "Tabs.jsx", "Tabs.function.jsx", "--budget", "3", "--json")
    found = json.loads(run(*call).stdout)
    assert found["verdict"] == "same" and found["reach"]["old"]["unreached"] == []
    new = tmp_path / "Tabs.function.jsx"
    text = new.read_text()
    assert "setAt(tab.props.id)" in text
    new.write_text(text.replace("setAt(tab.props.id)", "setAt('cc')"))
    found = json.loads(run(*call).stdout)
    assert found["verdict"] == "differs"
    run("verify", "Tabs.jsx", "Tabs.function.jsx", "--budget", "3", "--save", "Tabs.trials.yaml")
    assert "use: 1" in (tmp_path / "Tabs.trials.yaml").read_text()
    again = json.loads(run(*call).stdout)
    assert again["verdict"] == "differs" and not again["generated"]
