"""Small bodies of a class's method: what becomes of each form in a function."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """import React, {{ Component }} from 'react';

export default class Berth extends Component {{
  state = {{ used: 0, on: false }};

  go = (by) => {{
    {body}
  }};

  render() {{
    return <p onClick={{() => this.go(1)}}>{{this.state.used}}{{String(this.state.on)}}</p>;
  }}
}}
"""


def carried(tmp_path: Path, body: str, runtime: int = 18) -> Result:
    path = tmp_path / "Berth.jsx"
    path.write_text(FILE.format(body=body), "utf-8")
    return carry_file(Request(path, "Berth.jsx", "jsx-function", runtime=runtime))[0]


SPLIT: list[tuple[str, str]] = [
    ("this.setState({ used: by });", "setUsed(by);"),
    ("this.setState({ 'used': by });", "setUsed(by);"),
    ("this.setState({ used: by, on: true });", "setUsed(by);\n    setOn(true);"),
    ("this.setState((s) => ({ used: s.used + by }));", "setUsed((used) => used + by);"),
    ("this.setState(({ used }) => ({ used: used + by }));", "setUsed((used) => used + by);"),
    ("return this.setState({ used: by });", "return setUsed(by);"),
    ("this.setState({ used: () => by });", "setUsed(() => () => by);"),
    ("const { used } = this.state; return used + by;", "return used + by;"),
    ("const { used: now } = this.state; return now;", "const now = used; return now;"),
    ("const self = this; self.setState({ used: by });", "setUsed(by);"),
    ("const { props } = this; return props.pier;", "return pier;"),
    (
        "setTimeout(() => this.setState({ used: this.state.used + 1 }), 10);",
        "setTimeout(() => setUsed(latestUsed.current + 1), 10);",
    ),
    (
        "setTimeout(() => this.props.onGone(this.state.used), 10);",
        "setTimeout(() => latestOnGone.current(used), 10);",
    ),
    ("[1].forEach(() => this.props.onGone(this.state.used));", "[1].forEach(() => onGone(used));"),
    ("this.props.onGone(this.props.pier, this.state.used);", "onGone(pier, used);"),
    ("this.props['on-gone'](by);", "onGone(by);"),
    ("return this.props[by];", "return props[by];"),
    ("return this.props[`on-${by}`];", "return props[`on-${by}`];"),
    ("return this.props[0];", "return props[0];"),
    ("this.count = by; return this.count;", "count.current = by; return count.current;"),
    ("this.count += by;", "count.current += by;"),
    ("return { ...this.props };", "return { ...props };"),
    ("const { pier, ...rest } = this.props; return rest;", "const { pier, ...rest } = props;"),
]


@pytest.mark.parametrize(("body", "text"), SPLIT)
def test_a_body_is_spelled(body: str, text: str, tmp_path: Path) -> None:
    result = carried(tmp_path, body)
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert text in written and "this" not in written
    assert "const [used" in written


WHOLE: list[tuple[str, str]] = [
    (
        "this.setState((s) => ({ used: s.used, on: !s.on }));",
        "setState((s) => ({ used: s.used, on: !s.on }));",
    ),
    (
        "this.setState((s) => (by ? { used: by } : null));",
        "setState((s) => (by ? { used: by } : null));",
    ),
    ("if (by) this.setState({ used: by, on: true });", "if (by) setState({ used: by, on: true });"),
    ("return Object.keys(this.state);", "return Object.keys(state);"),
    ("return this.state[by];", "return state[by];"),
    ("this.setState({ [by]: !this.state[by] });", "setState({ [by]: !state[by] });"),
    ("const { used, ...more } = this.state; return more;", "const { used, ...more } = state;"),
]


@pytest.mark.parametrize(("body", "text"), WHOLE)
def test_state_that_cannot_be_split_stays_one(body: str, text: str, tmp_path: Path) -> None:
    result = carried(tmp_path, body)
    assert result.status == "clean", result.findings
    assert text in result.files[0].text
    # One that nothing writes needs no reducer.
    hook = "useReducer(" if "setState" in body else "const [state] = useState("
    assert hook in result.files[0].text


@pytest.mark.parametrize("runtime", [16, 17])
def test_what_is_written_together_stays_together_where_writes_are_not_batched(
    runtime: int, tmp_path: Path
) -> None:
    body = "this.setState({ used: by, on: true });"
    assert "setState({ used: by, on: true });" in carried(tmp_path, body, runtime).files[0].text
    assert (
        "setUsed(by);" in carried(tmp_path, "this.setState({ used: by });", runtime).files[0].text
    )


LEFT: list[tuple[str, str, str]] = [
    (
        "this.forceUpdate(done);",
        "forced-update",
        "/* left to you (forced-update): this.forceUpdate(done); */",
    ),
    (
        "send(this);",
        "instance-escapes",
        "send(undefined /* left to you (instance-escapes): this */);",
    ),
    (
        "this.state.used = by; return by;",
        "state-written-directly",
        "/* left to you (state-written-directly): this.state.used = by; */",
    ),
    (
        "this.props.pier = by; return by;",
        "input-written",
        "/* left to you (input-written): this.props.pier = by; */",
    ),
    ("delete this.count;", "unknown-use", "/* left to you (unknown-use): delete this.count; */"),
    ("this.other();", "unknown-use", "/* left to you (unknown-use): this.other(); */"),
    (
        "return this.constructor.name;",
        "instance-escapes",
        "return undefined /* left to you (instance-escapes): this.constructor.name */;",
    ),
    (
        "this.go.call(window, 1); return by;",
        "method-as-object",
        "/* left to you (method-as-object): this.go.call(window, 1); */",
    ),
    (
        "this.setState(); return by;",
        "patch-not-literal",
        "/* left to you (patch-not-literal): this.setState(); */",
    ),
    (
        "this.setState({ used: 1 }, done()); return by;",
        "write-callback",
        "/* left to you (write-callback): this.setState({ used: 1 }, done()); */",
    ),
    (
        "load().then(this.setState); return by;",
        "state-writer-as-value",
        "load().then(undefined /* left to you (state-writer-as-value): this.setState */);",
    ),
]


@pytest.mark.parametrize(("body", "rule", "marker"), LEFT)
def test_what_is_not_known_is_left_with_its_text(
    body: str, rule: str, marker: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, body)
    assert result.status == "left", result.findings
    assert rule in [finding.rule for finding in result.findings]
    assert marker in result.files[0].text
    finding = next(f for f in result.findings if f.rule == rule)
    assert (finding.line, finding.level) == (7, "warning")


REFUSED: list[tuple[str, str]] = [
    ("this.go = by;", "method-replaced"),
    ("this.componentDidMount();", "hook-called"),
    ("this.refs.box.focus();", "string-reference"),
]


@pytest.mark.parametrize(("body", "rule"), REFUSED)
def test_what_would_be_wrong_whatever_is_written_is_refused(
    body: str, rule: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, f"{body} return by;")
    assert result.status == "refused"
    assert not result.files
    assert result.findings[0].rule == rule


def test_the_project_decides_the_name_of_the_new_file(tmp_path: Path) -> None:
    path = tmp_path / "Berth.jsx"
    path.write_text(FILE.format(body="return by;"), "utf-8")
    request = Request(path, "src/Berth.jsx", "jsx-function", naming="{stem}Fn{ending}")
    assert carry_file(request)[0].files[0].path == "src/BerthFn.jsx"
    plain = Request(path, "src/Berth.jsx", "jsx-function")
    assert carry_file(plain)[0].files[0].path == "src/Berth.function.jsx"


INDIRECT = [
    # (how a method is called on its own instance, what stands there; "" where it is left)
    ("this.tell.call(this, 'one', this.props.tide);", "tell('one', tide);"),
    ("this.tell.call(this);", "tell();"),
    ("this.tell.apply(this);", "tell();"),
    ("this.tell.apply(this, args);", "tell(...args);"),
    ("this.tell.apply(this, [1, this.props.tide]);", "tell(...[1, tide]);"),
    ("this.tell.apply(this, args.concat([this.props.tide]));", "tell(...args.concat([tide]));"),
    ("this.tell.apply(this, args.map((a) => a));", "tell(...args.map((a) => a));"),
    ("this.tell.apply(this, this.props.list);", ""),
    ("this.tell.apply(window, args);", ""),
    ("this.tell.call();", ""),
    ("this.tell.call(this, /* why */ 1);", ""),
    ("show(this.tell.length);", ""),
]


@pytest.mark.parametrize(("call", "written"), INDIRECT)
def test_methods_called_through_call_and_apply(call: str, written: str, tmp_path: Path) -> None:
    text = (
        "import React, { Component } from 'react';\n\nexport default class Berth extends Component {\n"
        "  tell(...args) {\n    this.props.onTell(...args);\n  }\n\n"
        f"  all(...args) {{\n    {call}\n  }}\n\n"
        "  render() {\n    return <p onClick={() => this.all(1)}>{this.props.tide}</p>;\n  }\n}\n"
    )
    path = tmp_path / "Berth.jsx"
    path.write_text(text, "utf-8")
    (result,) = carry_file(Request(path, "Berth.jsx", "jsx-function", runtime=18))
    assert (result.status == "clean") is bool(written)
    if written:
        assert f"    {written}\n" in result.files[0].text
