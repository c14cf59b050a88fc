"""Hooks of a class as effects, methods that somebody compares, and names that meet in one scope."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """import React, {{ Component }} from 'react';
import {{ Other, outside }} from './others';

export default class Berth extends Component {{
  {state}

  {members}

  render() {{
    return {render};
  }}
}}
"""
DRAWN = (
    "<p onClick={() => this.setState({ used: 1, on: true })}>"
    "{this.state.used}{String(this.state.on)}</p>"
)


def carried(tmp_path: Path, members: str, render: str = DRAWN, runtime: int = 18) -> Result:
    path = tmp_path / "Berth.jsx"
    fields = {"used": "0", "on": "false"}
    own = [f"{n}: {v}" for n, v in fields.items() if re.search(rf"\b{n}\b", members + render)]
    state = f"state = {{ {', '.join(own)} }};" if own else ""
    path.write_text(FILE.format(state=state, members=members, render=render), "utf-8")
    return carry_file(Request(path, "Berth.jsx", "jsx-function", runtime=runtime))[0]


def written(tmp_path: Path, members: str, render: str = DRAWN, runtime: int = 18) -> str:
    result = carried(tmp_path, members, render, runtime)
    assert result.status == "clean", result.findings
    return " ".join(result.files[0].text.split())


EFFECTS: list[tuple[str, str]] = [
    ("componentDidMount() { watch(this.props.a); }", "useLayoutEffect(() => { watch(a); }, []);"),
    ("componentWillUnmount() { watch(this.props.a); }",
     "useLayoutEffect(() => () => { watch(latestA.current); }, []);"),
    ("componentDidMount() { this.t = watch(1); } componentWillUnmount() { watch(this.t); }",
     "useLayoutEffect(() => { const t = watch(1); return () => watch(t); }, []);"),
    ("componentDidMount() { this.t = watch(1); } componentWillUnmount() { watch(this.t); }"
     " a = () => this.t; b = () => this.a();", "t.current = watch(1);"),
    ("componentDidMount() { if (this.props.a) return; watch(1); } componentWillUnmount() { watch(2); }",
     "useLayoutEffect(() => () => { watch(2); }, []);"),
    ("componentDidMount() { this.props.a(); } componentWillUnmount() { watch(2); }",
     "useLayoutEffect(() => () => { watch(2); }, []);"),
    ("componentDidUpdate(old) { if (old.a !== this.props.a) { watch(this.props.a); } }",
     "const previousA = useRef(a); useLayoutEffect(() => { if (previousA.current === a) return;"
     " previousA.current = a; watch(a); });"),
    ("componentDidUpdate(old, before) { if (before.on !== this.state.on) { watch(1); } }",
     "const previousOn = useRef(on);"),
    ("componentDidUpdate(old, before) { if (before.used !== this.state.used) { watch(1); } }",
     "const before = previousState.current; previousState.current = { used };"),
    ("componentDidMount() { outside(); } componentWillUnmount() { watch(2); }",
     "useLayoutEffect(() => () => { watch(2); }, []);"),
    ("componentDidUpdate() { watch(1); }", "const mounted = useRef(false);"),
    ("componentDidUpdate({ a }) { if (a !== this.props.a) watch(a); }", "const { a } = propsThen;"),
    ("componentDidUpdate(old) { watch(old.a, this.props.b); }",
     "old = previousProps.current; previousProps.current = { a"),
    ("componentDidUpdate(old) { watch(old); }", "previousProps.current = props;"),
    ("componentDidMount() {} componentDidUpdate() {} componentWillUnmount() {}",
     "export default function Berth() { const [used, setUsed] = useState(0);"),
    ("componentDidMount() { this.setState({ used: 2 }); }", "useLayoutEffect(() => { setUsed(2); }, []);"),
    ("componentDidMount() { setInterval(() => this.setState({ used: this.state.used + 1 }), 9); }",
     "setInterval(() => setUsed(latestUsed.current + 1), 9);"),
    ("componentDidMount() { setInterval(() => this.setState((s) => ({ used: s.used + 1 })), 9); }",
     "setInterval(() => setUsed((used) => used + 1), 9);"),
    ("componentDidMount() { watch('a', this.hear); } componentWillUnmount() { watch('b', this.hear); }"
     " hear = () => this.setState({ used: 3 });", "return () => watch('b', hear);"),
    ("componentDidMount() { watch(this.hear); } hear() { this.setState({ on: !this.state.on }); }",
     "function hear() { setOn(!latestOn.current); }"),
]  # fmt: skip


@pytest.mark.parametrize(("members", "line"), EFFECTS)
def test_hooks_become_effects(members: str, line: str, tmp_path: Path) -> None:
    drawn = DRAWN.replace("<p ", "<p onBlur={() => this.b()} ") if " b = " in members else DRAWN
    assert line in written(tmp_path, members, drawn)


IDENTITY: list[tuple[str, str, str]] = [
    ("go = () => this.props.a();", "<p onClick={this.go} />", "const go = () => a();"),
    ("go = () => this.props.a();", "<p ref={this.go} />",
     "const go = useCallback(() => latestA.current(), []);"),
    ("go = () => this.props.a();", "<Other go={this.go} />", "const go = useCallback("),
    ("go() { return this.props.a(); }", "<Other go={this.go.bind(this)} />", "return <Other go={go} />;"),
    ("go(by) { return this.props.a(by); }", "<p onClick={this.go.bind(this, 2)} />",
     "onClick={go.bind(null, 2)}"),
    ("go = () => this.props.a();", "<p>{[1].map(this.go)}</p>", "{[1].map(go)}"),
    ("go = () => this.props.a();", "<p onClick={() => setTimeout(this.go)} />",
     "const go = () => latestA.current();"),
    ("async go() { await 1; return this.props.a(); }", "<p onClick={() => this.go()} />",
     "async function go() { await 1; return latestA.current(); }"),
    ("*go() { yield this.props.a; }", "<p>{[...this.go()]}</p>", "function* go() { yield a; }"),
]  # fmt: skip


@pytest.mark.parametrize(("members", "render", "line"), IDENTITY)
def test_methods_stay_one_function_where_somebody_compares(
    members: str, render: str, line: str, tmp_path: Path
) -> None:
    assert line in written(tmp_path, members, render)


NAMES: list[tuple[str, str, str]] = [
    ("", "<p>{this.props.used}{this.state.used}</p>", "{ used: usedProp }"),
    ("used = () => 1;", "<p onClick={this.used}>{this.state.used}</p>", "const [usedState] = useState(0);"),
    ("", "<p>{this.props.useState}{this.state.used}</p>", "{ useState: useStateProp }"),
    ("", "<p>{this.props.outside}{outside(1)}{this.state.used}</p>", "{ outside: outsideProp }"),
    ("", "<p>{this.props.class}{this.state.used}</p>", "{ class: classProp }"),
    ("", "<p>{this.props['aria-label']}{this.state.used}</p>", "{ 'aria-label': ariaLabel }"),
    ("go = (used) => used + this.state.used;", "<p onClick={() => this.go(1)} />",
     "const [usedState] = useState(0);"),
    ("go = (a) => a + this.props.a;", "<p onClick={() => this.go(1)}>{this.state.used}</p>",
     "{ a: aProp }"),
    ("setUsed = () => 1;",
     "<p onClick={() => { this.setUsed(); this.setState({ used: 2 }); }}>{this.state.used}</p>",
     "const [used, setUsedState] = useState(0);"),
    ("box = React.createRef();", "<p ref={this.box}>{this.props.box}</p>", "const boxRef = useRef(null);"),
    ("default = 1;", "<p>{this.default}</p>", "const defaultRef = useRef(1);"),
    ("#a = 1; go = () => this.#a;", "<p onClick={this.go} />", "const a = useRef(1);"),
    ("delete = () => 1;", "<p onClick={this.delete} />", "const handleDelete = () => 1;"),
]  # fmt: skip


@pytest.mark.parametrize(("members", "render", "line"), NAMES)
def test_names_that_meet(members: str, render: str, line: str, tmp_path: Path) -> None:
    assert line in written(tmp_path, members, render)


RUNTIMES: list[tuple[int, str]] = [
    (18, "setUsed(1); setOn(true);"),
    (17, "setState({ used: 1, on: true })"),
]


@pytest.mark.parametrize(("runtime", "line"), RUNTIMES)
def test_fields_written_together_stay_together_where_writes_are_not_batched(
    runtime: int, line: str, tmp_path: Path
) -> None:
    assert line in written(tmp_path, "", runtime=runtime)


def test_methods_for_somebody_outside_see_the_latest_(tmp_path: Path) -> None:
    members = "add() { this.setState({ used: 2 }); return this.state.used; }"
    assert "return latestUsed.current;" in written(tmp_path, members)
    assert "return latestState.current.used;" in written(tmp_path, members, runtime=17)


CHILDREN = [
    # (a class drawn, whether a write of the same value can be told by it)
    ("componentWillReceiveProps() { this.props.onCome(); }", True),
    ("UNSAFE_componentWillReceiveProps() {}", True),
    ("componentDidUpdate() {}", True),
    ("componentDidMount() {}", False),
]


@pytest.mark.parametrize(("hook", "told"), CHILDREN)
def test_a_child_that_does_something_whenever_it_is_drawn(
    hook: str, told: bool, tmp_path: Path
) -> None:
    (tmp_path / "Pier.jsx").write_text(
        "import React, { Component } from 'react';\nexport default class Pier extends Component {\n"
        f"  {hook}\n  render() {{ return <i />; }}\n}}\n"
    )
    (tmp_path / "index.js").write_text("export { default as Pier } from './Pier';\n")
    text = (
        "import React, { Component } from 'react';\nimport { Pier } from './index';\n\n"
        "export default class Berth extends Component {\n  state = { open: false };\n\n"
        "  render() {\n    return (\n      <p onClick={() => this.setState({ open: false })}>\n"
        "        <Pier open={this.state.open} />\n      </p>\n    );\n  }\n}\n"
    )
    path = tmp_path / "Berth.jsx"
    path.write_text(text)
    (result,) = carry_file(Request(path, "Berth.jsx", "jsx-function", runtime=18))
    assert result.status == "clean"
    assert ("useReducer" in result.files[0].text) is told
