"""What other files of the project do with a class, through the built program."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.importers import importers_of
from conftest import Run

PANEL = """import React from 'react';

export default class Panel extends React.Component {
  state = { open: false };
  open = () => this.setState({ open: true });
  close() { this.setState({ open: false }); }
  render() {
    return <p onClick={() => (this.state.open ? this.close() : this.open())}>{String(this.state.open)}</p>;
  }
}
"""
USE = "import React from 'react';\nimport Panel from './Panel';\n"


def carried(run: Run, folder: Path, **files: str) -> tuple[dict[str, Any], str]:
    """The result of carrying Panel.jsx among other files, and what was written."""
    (folder / "package.json").write_text("{}")
    (folder / "Panel.jsx").write_text(PANEL, "utf-8")
    for name, text in files.items():
        place = folder / name.replace("__", "/").replace("_", ".")
        place.parent.mkdir(exist_ok=True)
        place.write_text(text, "utf-8")
    done = run("carry", "Panel.jsx", "--to", "jsx-function", "--write", "--json")
    result = json.loads(done.stdout)["results"][0]
    new = folder / "Panel.function.jsx"
    return result, new.read_text("utf-8") if new.exists() else ""


CALLS = [
    ("<Panel ref={this.held} />; this.held.current.close();", "close"),
    ("<Panel label='a' ref={(p) => { held = p; }} />; held.open(1);", "open"),
    ("<Panel ref={held} />; held.current.elsewhere();", ""),
    ("<Panel />; other.close();", ""),
]


@pytest.mark.parametrize(("use", "given"), CALLS)
def test_methods_another_file_calls_are_given_out(
    run: Run, tmp_path: Path, use: str, given: str
) -> None:
    result, text = carried(run, tmp_path, Page_jsx=f"{USE}const x = {use}\n")
    assert result["status"] == "clean"
    assert ("useImperativeHandle" in text) == bool(given)
    assert not given or f"() => ({{ {given} }})" in text


@pytest.mark.parametrize(
    "use",
    [
        "export class Wide extends Panel {}",
        "export default class Wide extends Panel { render() { return <b/>; } }",
    ],
)
def test_a_class_that_another_file_extends_is_refused(run: Run, tmp_path: Path, use: str) -> None:
    result, _ = carried(run, tmp_path, Wide_jsx=f"{USE}{use}\n")
    assert result["status"] == "refused"
    assert result["findings"][0]["rule"] == "extended-by"
    assert "Wide.jsx, line 3" in result["findings"][0]["message"]


def test_also_through_a_file_that_passes_it_on(run: Run, tmp_path: Path) -> None:
    index = "export { default as Panel } from './Panel';\n"
    wide = "import { Panel } from './index';\nclass Wide extends Panel {}\n"
    result, _ = carried(run, tmp_path, index_js=index, Wide_jsx=wide)
    assert result["findings"][0]["rule"] == "extended-by"


TESTS = [
    ("Panel_test_jsx", "expect(shallow(<Panel />).state('open')).toBe(true);", 1),
    ("Panel_spec_jsx", "wrapper.setState({ open: true });\nwrapper.instance().close();", 2),
    ("__tests____Panel_jsx".strip("_"), "wrapper.find('p').simulate('click');", 0),
    ("Other_test_jsx", "wrapper.state('open');", 0),
    ("Panel_stories_jsx", "x.state('open');", 0),
]


@pytest.mark.parametrize(("name", "text", "count"), TESTS)
def test_tests_that_reach_into_the_instance_are_pointed_at(
    run: Run, tmp_path: Path, name: str, text: str, count: int
) -> None:
    result, _ = carried(run, tmp_path, **{name: f"{USE}{text}\n"})
    found = [f for f in result["findings"] if f["rule"] == "test-reaches-in"]
    assert len(found) == count and result["status"] == "clean"
    if count:
        assert found[0]["line"] == 3 and name.split("_")[1] in found[0]["file"]


def test_who_imports_a_file(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text("{}")
    made = {
        "a.js": "import x from './b';",
        "c.jsx": "const b = require('./b.js');",
        "d/index.ts": "export * from '../b';",
        "e.tsx": "import { x } from './d';",
        "f.js": "import './g';",
        "node_modules/p/h.js": "import './../../b';",
        "b.js": "",
    }
    for name, text in made.items():
        (tmp_path / name).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / name).write_text(text)
    found = [i.path.name for i in importers_of(tmp_path / "b.js")]
    assert found == ["a.js", "c.jsx", "e.tsx"]


@pytest.mark.parametrize(
    ("asked", "kept"),
    [
        ("React.Children.map(all, (one) => one.props.size)", True),
        ("all.map((one) => { const { size } = one.props; return size; })", True),
        ("all.map((one) => one.props.name)", False),
        ("(() => this.props.size)()", False),
    ],
)
def test_who_asks_elements_for_what_has_a_default(
    run: Run, tmp_path: Path, asked: str, kept: bool
) -> None:
    """An element of a class has the defaults of its inputs, one of a function has what it was given."""
    text = PANEL.replace("  state =", "  static defaultProps = { size: 2 };\n\n  state =")
    text = text.replace("String(this.state.open)", "this.props.size")
    (tmp_path / "Other.jsx").write_text(f"{USE}export const sizes = (all) => {asked};\n", "utf-8")
    (tmp_path / "package.json").write_text("{}")
    (tmp_path / "Panel.jsx").write_text(text, "utf-8")
    done = run("carry", "Panel.jsx", "--to", "jsx-function", "--write", "--runtime", "18")
    assert done.returncode == 0, done.stdout
    new = (tmp_path / "Panel.function.jsx").read_text("utf-8")
    assert ("Panel.defaultProps = {" in new) is kept
    assert ("size = 2" in new) is not kept
