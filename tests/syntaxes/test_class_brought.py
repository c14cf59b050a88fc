"""What a base asks for that heirs may have, and the names of its module that come along."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

PANE = """import React, { PureComponent } from 'react';
import PropTypes from 'prop-types';

const CLOSING = ['mouseup', 'touchend'];
const LATE = 200;
const WAYS = { late: LATE };

export class Pane extends PureComponent {
  constructor(props) {
    super(props);
    this.watch = this.watch.bind(this);
    this.told = this.told.bind(this);
  }

  told(event) {
    if (event.target !== document.body) {
      this.onOutside(event);
    }
  }

  watch() {
    CLOSING.forEach((name) => document.addEventListener(name, this.told, true));
    this.watched = CLOSING;
  }

  componentDidMount() {
    const { tide } = this.props;
    if (tide) {
      document.title = tide;
    }
    if (typeof this.onOutside === 'function') {
      this.watch();
    }
  }

  componentDidUpdate() {
    this.onDrawn && this.onDrawn();
  }

  componentWillUnmount() {
    if (this.watched && typeof document !== 'undefined') {
      this.watched.forEach((name) => document.removeEventListener(name, this.told, true));
    }
  }

  wait() {
    return LATE + 1;
  }

  way() {
    return WAYS.late;
  }
}

Pane.propTypes = { tide: PropTypes.string };
"""
DRAWS = "  render() {\n    return <p>{this.props.tide}</p>;\n  }\n"


def carried(folder: Path, body: str, imports: str = "", base: str = PANE) -> Result:
    (folder / "pane.jsx").write_text(base, "utf-8")
    (folder / "clean-carry.toml").write_text("", "utf-8")
    head = f"import React from 'react';\nimport {{ Pane }} from './pane';\n{imports}\n"
    path = folder / "Quay.jsx"
    path.write_text(f"{head}export default class Quay extends Pane {{\n{body}}}\n", "utf-8")
    return carry_file(Request(path, path.name, "jsx-function"))[0]


def test_what_nobody_has(tmp_path: Path) -> None:
    text = carried(tmp_path, DRAWS).files[0].text
    assert "useLayoutEffect(() => {\n    if (tide) {" in text
    for word in ("watch", "told", "onOutside", "onDrawn", "CLOSING", "removeEventListener"):
        assert word not in text


def test_what_the_heir_has(tmp_path: Path) -> None:
    body = "  onOutside() {\n    document.title = 'out';\n  }\n\n" + DRAWS
    text = carried(tmp_path, body).files[0].text
    assert "const CLOSING = ['mouseup', 'touchend'];" in text
    assert "document.addEventListener(name, told, true)" in text
    assert "document.removeEventListener(name, told, true)" in text
    assert "onDrawn" not in text


def test_a_constant_the_base_keeps_to_itself(tmp_path: Path) -> None:
    text = carried(tmp_path, DRAWS.replace("this.props.tide", "this.wait()")).files[0].text
    assert "\n\nconst LATE = 200;\n\n" in text
    assert "return LATE + 1;" in text


def test_a_constant_that_is_no_literal(tmp_path: Path) -> None:
    result = carried(tmp_path, DRAWS.replace("this.props.tide", "this.way()"))
    assert result.status == "refused"
    assert "WAYS, which its file keeps to itself" in result.findings[0].message


def test_a_list_that_is_handed_on(tmp_path: Path) -> None:
    base = PANE.replace("return LATE + 1", "return show(CLOSING)")
    result = carried(tmp_path, DRAWS.replace("this.props.tide", "this.wait()"), base=base)
    assert "CLOSING, which its file keeps to itself" in result.findings[0].message


def test_a_constant_with_the_name_of_something_here(tmp_path: Path) -> None:
    body = DRAWS.replace("this.props.tide", "this.wait()")
    result = carried(tmp_path, body, "const LATE = 7;\n")
    assert "LATE, which is something else here" in result.findings[0].message


def test_an_import_under_another_name(tmp_path: Path) -> None:
    text = carried(tmp_path, DRAWS, "import { PropTypes } from './own';\n").files[0].text
    assert "import BasePropTypes from 'prop-types';" in text
    assert "{ tide: BasePropTypes.string };" in text
    assert ";;" not in text


def test_names_that_are_declared_where_the_base_is_asked(tmp_path: Path) -> None:
    body = "  componentDidMount() {\n    go();\n    super.componentDidMount();\n  }\n\n" + DRAWS
    text = carried(tmp_path, body).files[0].text
    assert "    go();\n    if (tide) {" in text


def test_names_that_meet_others(tmp_path: Path) -> None:
    body = (
        "  componentDidMount() {\n    const tide = go();\n    super.componentDidMount();\n"
        "    show(tide);\n  }\n\n" + DRAWS
    )
    text = carried(tmp_path, body).files[0].text
    assert "const tide = go();\n    {\n      const tide = tideProp;\n" in text
    assert "      }\n    }\n    show(tide);" in text


MIDDLE = """import { Pane } from './pane';

export class Strip extends Pane {
  tall() {
    return this.wait() > 100;
  }
}
"""


def test_what_comes_through_a_base_between(tmp_path: Path) -> None:
    (tmp_path / "strip.jsx").write_text(MIDDLE, "utf-8")
    (tmp_path / "pane.jsx").write_text(PANE, "utf-8")
    (tmp_path / "clean-carry.toml").write_text("", "utf-8")
    path = tmp_path / "Quay.jsx"
    path.write_text(
        "import React from 'react';\nimport { Strip } from './strip';\n\n"
        "export default class Quay extends Strip {\n  onDrawn() {\n    document.title = 'drawn';\n  }\n\n"
        "  render() {\n    return <p>{this.wait()}</p>;\n  }\n}\n",
        "utf-8",
    )
    result = carry_file(Request(path, path.name, "jsx-function"))[0]
    assert result.status == "clean"
    text = result.files[0].text
    assert "return LATE + 1;" in text
    assert "onDrawn();" in text
    assert "tall" not in text
    assert "CLOSING" not in text


GIVEN_ON = """import React from 'react';
import Quay from './Quay';

export default class Pier extends React.Component {
  wait() {
    return this.props.called(1) + this.called(2) + this.quay.asked(3);
  }

  render() {
    return <Quay ref={(quay) => { this.quay = quay; }} />;
  }
}
"""


def test_own_members_and_inputs_are_no_calls_by_reference(tmp_path: Path) -> None:
    (tmp_path / "Pier.jsx").write_text(GIVEN_ON, "utf-8")
    draws = DRAWS.replace("this.props.tide", "this.called() + this.asked()")
    body = "  called() {\n    return 1;\n  }\n\n  asked() {\n    return 2;\n  }\n\n" + draws
    result = carried(tmp_path, body)
    text = result.files[0].text
    assert "useImperativeHandle(ref, () => ({ asked }), []);" in text


def test_what_the_base_may_be_given_by_others_is_not_absent(tmp_path: Path) -> None:
    base = PANE.replace(
        "    this.watch = this", "    Object.assign(this, props.more);\n    this.watch = this"
    )
    result = carried(tmp_path, DRAWS, base=base)
    assert result.status != "clean"


def test_names_declared_by_two_calls_of_the_base(tmp_path: Path) -> None:
    base = PANE.replace(
        "  wait() {",
        "  late() {\n    const { tide } = this.props;\n    document.body.title = tide;\n  }\n\n  wait() {",
    )
    body = (
        "  componentDidMount() {\n    super.componentDidMount();\n    super.late();\n  }\n\n"
        + DRAWS.replace("this.props.tide", "this.props.name")
    )
    text = carried(tmp_path, body, base=base).files[0].text
    assert "    }\n    {\n      document.body.title = tide;\n    }\n  }, []);" in text


OTHER = """import { warn } from './louder';
import React from 'react';

export class Mole extends React.Component {
  tell() {
    warn('mole');
  }
}
"""


def test_two_bases_that_bring_one_name_for_two_things(tmp_path: Path) -> None:
    (tmp_path / "mole.jsx").write_text(OTHER, "utf-8")
    (tmp_path / "pier.jsx").write_text(
        OTHER.replace("Mole", "Pier").replace("./louder", "./quieter"), "utf-8"
    )
    (tmp_path / "clean-carry.toml").write_text("", "utf-8")
    draws = "  render() {\n    return <p onClick={() => this.tell()}>a</p>;\n  }\n"
    path = tmp_path / "Two.jsx"
    path.write_text(
        "import React from 'react';\nimport { Mole } from './mole';\nimport { Pier } from './pier';\n\n"
        f"export class One extends Mole {{\n{draws}}}\n\nexport class Other extends Pier {{\n{draws}}}\n",
        "utf-8",
    )
    one, other = carry_file(Request(path, path.name, "jsx-function"))
    assert (one.status, other.status) == ("clean", "refused")
    assert "brings a name that another base brings" in other.findings[0].message
    assert "import { warn } from './louder';" in one.files[0].text


FETCHES = """import React from 'react';
import fetch from './fetching';

const status = 3;

export class Buoy extends React.Component {
  ask() {
    return fetch('tides');
  }

  state_() {
    return status;
  }
}
"""


def heir_of_buoy(folder: Path, body: str) -> Result:
    (folder / "buoy.jsx").write_text(FETCHES, "utf-8")
    (folder / "clean-carry.toml").write_text("", "utf-8")
    path = folder / "Quay.jsx"
    head = "import React from 'react';\nimport { Buoy } from './buoy';\n\n"
    path.write_text(f"{head}export default class Quay extends Buoy {{\n{body}}}\n", "utf-8")
    return carry_file(Request(path, path.name, "jsx-function"))[0]


def test_an_import_with_the_name_of_what_every_page_has(tmp_path: Path) -> None:
    body = "  render() {\n    return <p onClick={() => this.ask(fetch('berths'))}>a</p>;\n  }\n"
    text = heir_of_buoy(tmp_path, body).files[0].text
    assert "import baseFetch from './fetching';" in text
    assert "return baseFetch('tides');" in text
    assert "ask(fetch('berths'))" in text


def test_a_constant_with_the_name_of_what_every_page_has(tmp_path: Path) -> None:
    body = "  render() {\n    return <p title={status}>{this.state_()}</p>;\n  }\n"
    result = heir_of_buoy(tmp_path, body)
    assert result.status == "refused"
    assert "status, which is something else here" in result.findings[0].message


def test_another_name_that_stands_anywhere_is_not_taken(tmp_path: Path) -> None:
    body = "  render() {\n    const baseFetch = fetch;\n    return <p>{this.ask(baseFetch)}</p>;\n  }\n"
    result = heir_of_buoy(tmp_path, body)
    assert "fetch, which is something else here" in result.findings[0].message
