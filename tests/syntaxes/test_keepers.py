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
