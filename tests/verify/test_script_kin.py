"""Content from a component's kin: which files are kin, and what is put together of them."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.verify.uses.model import meant_by
from clean_carry.verify.uses.related_scripts import _family, kin_of

FAMILIES: list[tuple[str, list[str], list[str]]] = [
    ("Menu", ["MenuItem", "MenuBar", "Other"], ["MenuBar", "MenuItem"]),
    ("TabBar", ["Tab", "Tide"], ["Tab"]),
    ("Tabs", ["Tab", "TabsContainer"], ["Tab", "TabsContainer"]),
    ("TabContent", ["TabPane", "Table"], ["TabPane"]),
    ("UncontrolledMenu", [f"Uncontrolled{n}" for n in ("A", "B", "C", "D", "E")], []),
    ("Berth", ["berth", "Berths"], []),
    ("SailingCard", ["SailingCardTitle", "SailingRow"], ["SailingCardTitle"]),
]


@pytest.mark.parametrize(("component", "files", "kin"), FAMILIES)
def test_the_family(component: str, files: list[str], kin: list[str], tmp_path: Path) -> None:
    for name in [component, *files]:
        (tmp_path / f"{name}.jsx").write_text("export default () => null;\n")
    (tmp_path / f"{component}Note.css").write_text("")
    found = _family(component, tmp_path / f"{component}.jsx")
    assert sorted(path.stem for path in found) == kin


def test_what_is_put_together(tmp_path: Path) -> None:
    (tmp_path / "Menu.jsx").write_text("export default () => null;\n")
    (tmp_path / "MenuItem.jsx").write_text(
        "import T from 'prop-types';\nexport function MenuItem({ at, go }) { return at; }\n"
        "MenuItem.propTypes = { at: T.number.isRequired, go: T.func.isRequired, on: T.bool };\n"
    )
    (tmp_path / "MenuList.jsx").write_text("export default function MenuList() {}\n")
    (tmp_path / "MenuNothing.jsx").write_text("export const other = 1;\n")
    found = kin_of("Menu", tmp_path / "Menu.jsx", {})
    assert found.count == 4
    assert f"import {{ MenuItem }} from {json.dumps(str(tmp_path / 'MenuItem.jsx'))};" in found.text
    assert "<MenuItem at={3} go={() => {}}>MenuItem 1</MenuItem>" in found.text
    assert "<MenuList><MenuItem at={3} go={() => {}}>MenuItem</MenuItem></MenuList>" in found.text
    assert "MenuNothing" not in found.text
    assert kin_of("Alone", tmp_path / "Alone.jsx", {}).count == 0


def test_one_of_two_has_what_the_component_means(tmp_path: Path) -> None:
    (tmp_path / "TabContent.jsx").write_text(
        "export default ({ activeTab, children }) => [activeTab, children];\n"
    )
    (tmp_path / "TabPane.jsx").write_text("export default ({ tabId, paneKey }) => tabId;\n")
    (tmp_path / "TabPlace.jsx").write_text(
        "import React from 'react';\nexport const TabPlace = React.createContext({});\n"
    )
    place = tmp_path / "TabContent.jsx"
    found = kin_of("TabContent", place, {"activeTab": [7, 8]})
    assert "<TabPane tabId={7}>TabPane 1</TabPane><TabPane>TabPane 2</TabPane>" in found.text
    assert "TabPlace" not in found.text
    assert found.inputs == {"activeTab": [7, 8]}
    assert 'tabId={"activeTab Holm"}' in kin_of("TabContent", place, {}).text


def test_which_input_means_one_of_several() -> None:
    assert meant_by("tabId", ["tabs", "activeTab"]) == "tabs"
    assert meant_by("tabId", ["pane", "tabId"]) == ""
    assert meant_by("title", ["title"]) == ""


LIST = """import React, { Component } from 'react';
export class Piers extends Component {
  state = { at: 0 };

  render() {
    const all = React.Children.toArray(this.props.children);
    if (!all.every((one) => one.type && one.type.pier)) throw new Error('piers only');
    return (
      <ul>
        {all.map((one, at) => (
          <li key={at} onClick={() => this.setState({ at })}>{at === this.state.at ? '* ' : ''}{one}</li>
        ))}
      </ul>
    );
  }
}
"""
PIER = "import React from 'react';\nexport const PiersEntry = ({ children }) => <b>{children}</b>;\nPiersEntry.pier = true;\n"


def test_a_list_is_tried_with_its_entries(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text("{}")
    (tmp_path / "Piers.jsx").write_text(LIST)
    (tmp_path / "PiersEntry.jsx").write_text(PIER)
    run("carry", "Piers.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "Piers.jsx", "Piers.function.jsx", "--budget", "2", "--json")
    found = json.loads(run(*call).stdout)
    assert found["verdict"] == "same" and found["reach"]["old"]["unreached"] == []
    new = tmp_path / "Piers.function.jsx"
    new.write_text(new.read_text().replace("at === ", "at >= "))
    assert json.loads(run(*call).stdout)["verdict"] == "differs"
