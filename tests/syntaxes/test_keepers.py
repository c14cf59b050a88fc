"""Children that keep a function they are given, in the ways they are written."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file

DESK = """import React from 'react';
import { Clock } from './Clock';

export class Desk extends React.Component {
  state = { ticks: 0 };

  render() {
    return <Clock onTick={() => this.setState({ ticks: this.state.ticks + 1 })} />;
  }
}
"""
EFFECT = "useEffect(() => { const t = setInterval(() => @(), 1000); return () => clearInterval(t); }, []);"


def function(parameters: str, before: str, called: str) -> str:
    return f"export function Clock({parameters}) {{ {before} {EFFECT.replace('@', called)} return null; }}"


def mounting(code: str) -> str:
    return (
        "export class Clock extends React.Component {\n"
        f"  componentDidMount() {{ {code} }}\n  render() {{ return null; }}\n}}"
    )


def inner(name: str) -> str:
    return f"function Inner({{ {name} }}) {{ {EFFECT.replace('@', name)} return null; }}"


KEEPING = {
    "a pattern as the parameter": function("{ onTick }", "", "onTick"),
    "the whole": function("props", "", "props.onTick"),
    "a pattern in the body": function("props", "const { onTick } = props;", "onTick"),
    "a pattern with another name": function("props", "const { onTick: tick } = props;", "tick"),
    "a name for it": function("props", "const tick = props.onTick;", "tick"),
    "a name for a name": function("{ onTick }", "const tick = onTick;", "tick"),
    "handed on by name": inner("tell") + "\n"
    "export function Clock({ onTick }) { return <Inner tell={onTick} />; }",
    "handed on with all": inner("onTick") + "\n"
    "export function Clock(props) { return <Inner {...props} />; }",
    "handed on with the rest": inner("onTick") + "\n"
    "export function Clock({ pier, ...rest }) { return <Inner {...rest} />; }",
    "handed on by a class": inner("tell") + "\n"
    "export class Clock extends React.Component { "
    "render() { return <Inner tell={this.props.onTick} />; } }",
    "handed on by a class, with the rest": inner("onTick") + "\n"
    "export class Clock extends React.Component { render() { const { pier, ...rest } = this.props; "
    "return <Inner {...rest} />; } }",
    "a hook of its own": "function useEvery(run) { " + EFFECT.replace("@", "run") + " }\n"
    "export function Clock(props) { const { onTick } = props; useEvery(onTick); return null; }",
    "a function for a hook": "function useEvery(run) { " + EFFECT.replace("@", "run") + " }\n"
    "export function Clock({ onTick }) { useEvery(() => onTick()); return null; }",
    "a class, as a value": mounting("setInterval(this.props.onTick, 1000);"),
    "a class, taken apart": mounting("const { onTick } = this.props; setInterval(onTick, 1000);"),
    "a class, called later": mounting("const { onTick } = this.props; setInterval(() => onTick(), 1000);"),
}  # fmt: skip
CALLING = {
    "a pattern, listed": function("{ onTick }", "", "onTick").replace("[]", "[onTick]"),
    "taken apart, listed": function("props", "const { onTick } = props;", "onTick").replace(
        "[]", "[onTick]"
    ),
    "an element's handler": "export function Clock(props) { const { onTick } = props; "
    "return <button onClick={() => onTick()}>tick</button>; }",
    "a class, asked as it is called": inner("tell") + "\n"
    "export class Clock extends React.Component { "
    "render() { return <Inner tell={() => this.props.onTick()} />; } }",
    "a class, called at once": mounting("const { onTick } = this.props; onTick();"),
    "a class, asked later": mounting("setInterval(() => this.props.onTick(), 1000);"),
}


def carried(child: str, folder: Path) -> str:
    (folder / "Clock.jsx").write_text(f"import React, {{ useEffect }} from 'react';\n{child}\n")
    path = folder / "Desk.jsx"
    path.write_text(DESK)
    result = carry_file(Request(path, "Desk.jsx", "jsx-function"))[0]
    assert result.status == "clean"
    return result.files[0].text


@pytest.mark.parametrize("child", KEEPING.values(), ids=KEEPING)
def test_what_is_kept_sees_the_latest_state(child: str, tmp_path: Path) -> None:
    assert "setTicks(latestTicks.current + 1)" in carried(child, tmp_path)


@pytest.mark.parametrize("child", CALLING.values(), ids=CALLING)
def test_what_is_not_kept_is_a_plain_function(child: str, tmp_path: Path) -> None:
    assert "<Clock onTick={() => setTicks(ticks + 1)} />" in carried(child, tmp_path)


LOSING = {
    "handed on to a component of a package": "import { Dial } from 'pier-dials';\n"
    "export function Clock({ onTick }) { return <Dial tell={onTick} />; }",
    "in a function": "import { Dial } from 'pier-dials';\n"
    "export function Clock({ onTick }) { return <Dial tell={() => onTick()} />; }",
    "with all": "import { Dial } from 'pier-dials';\n"
    "export function Clock(props) { return <Dial {...props} />; }",
    "by a class": "import { Dial } from 'pier-dials';\nexport class Clock extends React.Component {\n"
    "  render() { return <Dial tell={this.props.onTick} />; }\n}",
    "by a class, taken apart": "import { Dial } from 'pier-dials';\n"
    "export class Clock extends React.Component {\n"
    "  render() { const { onTick, ...rest } = this.props; return <Dial {...rest} tell={onTick} />; }\n}",
    "as it is compiled": "import { Dial } from 'pier-dials';\n"
    "export function Clock(props) { return _jsx(Dial, { tell: props.onTick }); }",
    "as it is compiled, with all": "import { Dial } from 'pier-dials';\n"
    "export function Clock(props) { return React.createElement(Dial, _extends({}, props)); }",
    "to what is a value": "export function Clock({ onTick, as: Dial }) { return <Dial tell={onTick} />; }",
}


@pytest.mark.parametrize("child", LOSING.values(), ids=LOSING)
def test_what_goes_out_of_sight_is_said(child: str, tmp_path: Path) -> None:
    (tmp_path / "Clock.jsx").write_text(f"import React, {{ useEffect }} from 'react';\n{child}\n")
    (tmp_path / "Desk.jsx").write_text(DESK)
    result = carry_file(Request(tmp_path / "Desk.jsx", "Desk.jsx", "jsx-function"))[0]
    assert "receiver-not-followed" in {finding.rule for finding in result.findings}


def test_another_prop_out_of_sight_is_not_said(tmp_path: Path) -> None:
    (tmp_path / "Clock.jsx").write_text(
        "import React from 'react';\nimport { Dial } from 'pier-dials';\n"
        "export function Clock({ onTick, at }) { return <Dial at={at}><i onClick={onTick} /></Dial>; }\n"
    )
    (tmp_path / "Desk.jsx").write_text(DESK)
    result = carry_file(Request(tmp_path / "Desk.jsx", "Desk.jsx", "jsx-function"))[0]
    assert "receiver-not-followed" not in {finding.rule for finding in result.findings}
