"""Hooks that do nothing where no input changed, and derived state that settles at once."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.script_style import RESERVED
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_class.members.derived_state import derivation_of
from clean_carry.syntaxes.jsx_class.members.no_change_analysis import idle
from clean_carry.syntaxes.jsx_function.planning.scope import identifier


def method(text: str) -> Node:
    tree = Tree(SourceText("Berth.jsx", f"class Berth {{\n{text}\n}}\n".encode()))
    return tree.of("method_definition")[0]


IDLE = [
    # (parameter, body, does nothing where no input changed)
    ("next", "if (next.tide !== this.props.tide) this.go();", True),
    ("next", "if (this.props.tide != next.tide) { this.go(); }", True),
    ("next", "if (next.tide === this.props.tide) return; this.go();", True),
    ("next", "if (next.tide === this.props.tide) { return null; } this.go();", True),
    ("next", "if (next.tide !== this.props.port) this.go();", False),
    ("next", "if (next.tide) this.go();", False),
    ("next", "if (next.open && !this.props.open) this.go();", True),
    ("next", "if (!next.open && this.props.open) this.go();", True),
    ("next", "if (next.open && this.props.open) this.go();", False),
    ("next", "if (this.state.a && next.tide !== this.props.tide) this.go();", True),
    ("next", "if (this.state.a || next.tide !== this.props.tide) this.go();", False),
    ("next", "if (next.a !== this.props.a || next.b !== this.props.b) this.go();", True),
    ("next", "if (!(next.tide === this.props.tide)) this.go();", True),
    ("next", "if (next.ship.name !== this.props.ship.name) this.go();", True),
    ("next", "if (next['tide'] !== this.props.tide) this.go();", True),
    ("next", "const { tide } = next; if (tide !== this.props.tide) this.go();", True),
    ("next", "const { tide: t } = this.props; if (t !== next.tide) this.go();", True),
    ("next", "const t = next.tide; if (t !== this.props.tide) this.go();", True),
    ("next", "let t = next.tide; if (t !== this.props.tide) this.go();", False),
    ("next", "const t = this.tell(); if (next.a !== this.props.a) this.go();", False),
    ("{ tide }", "if (tide !== this.props.tide) this.go();", True),
    ("{ tide: t }", "if (t !== this.props.tide) this.go();", True),
    ("{ tide }", "if (tide !== this.props.port) this.go();", False),
    ("next", "if (next.a !== this.props.a) this.go(); else if (true) { }", True),
    ("next", "if (next.a !== this.props.a) { this.go(); } else { this.stay(); }", False),
    ("next", "if (this.moved()) return;", False),
    ("next", "if (next.a === this.props.a) { } else { this.go(); }", True),
    ("next", "for (const a of next.all) this.go(a);", False),
    ("next", "if (this.state.far) return; this.go();", False),
    ("", "this.go();", False),
    ("", "; /* nothing */", True),
    ("", "if (false) this.go();", True),
]


@pytest.mark.parametrize(("parameter", "body", "nothing"), IDLE)
def test_where_no_input_changed(parameter: str, body: str, nothing: bool) -> None:
    hook = method(f"receive({parameter}) {{ {body} }}")
    parameters, block = hook.child("parameters"), hook.child("body")
    assert parameters is not None and block is not None
    given = parameters.named_children
    pattern = (given[0].child("pattern") or given[0]) if given else None
    assert idle(block, pattern) is nothing


SETTLES = [
    # (what the hook does, whether it settles)
    ("if (props.at !== state.at) return { at: props.at }; return null;", True),
    ("if (props.at !== state.at) { return { at: props.at, open: false }; } return null;", True),
    ("if (props.at !== state.at) { return { at: props.at }; } else { return null; }", True),
    ("if (state.at !== props.at) return { at: props.at };", True),
    ("if (props.open && !state.seen) return { seen: true }; return {};", True),
    ("if (props.open && !state.open) return { open: props.open }; return null;", True),
    ("if (state.late) return { late: false }; return undefined;", True),
    ("if (state.late && props.now) return { late: null }; return null;", True),
    ("if (props.at !== state.at) return { at: props.at + 1 }; return null;", False),
    ("if (props.at != state.at) return { at: props.at }; return null;", True),
    ("if (props.at !== state.at) return { other: props.at }; return null;", True),
    ("if (props.at !== state.at) return { other: state.at }; return null;", False),
    ("if (find(props.at)) return { at: props.at }; return null;", False),
    ("if (props.at !== state.at) return { at: props.at }; return { far: 1 };", False),
    ("if (props.at !== state.at) { tell(); return { at: props.at }; } return null;", False),
    ("return { at: props.at };", True),
    ("if (state.late) return { late: false }; return state;", True),
    ("if (state.late) return { late: false }; return props;", False),
    ("return { at: props.at, far: 1 };", True),
    ("return { at: props.at, far: [] };", False),
    ("return { at: props.at.side };", False),
    ("if (props.at === state.at) return null; return { at: props.at, far: find(1) };", True),
    ("if (props.at === state.seen) return null; return { at: find(props.at) };", False),
    ("if (state.was.up && !props.up) return { was: { up: props.up }, far: find(1) };", True),
    ("if (state.was !== props.was) return { was: { up: props.up }, far: find(1) };", False),
    ("if (state.was.down !== props.up) return { was: { up: props.up }, far: find(1) };", False),
    ("if (state.a !== props.a) return { a: props.a }; if (props.b) return { b: [] };", False),
    (
        "if (state.a !== props.a) return { a: props.a }; "
        "if (state.b !== props.b) return { b: props.b };",
        False,
    ),
    (
        "if (state.a !== props.a || state.b !== props.b) return { a: props.a, b: props.b };",
        True,
    ),
    ("if (state.a !== props.a || props.b) return { a: props.a, n: find(1) };", False),
    ("const { at } = props; if (at !== state.at) return { at, far: [] };", True),
    ("const at = props.at; if (at !== state.at) return { at, far: [] };", True),
    ("const at = find(props); if (at !== state.at) return { at };", False),
    ("const { at } = props; if (at !== state.at) return { at, to: (at) => at };", False),
    ("if (props.at !== state.at) return { ...state }; return null;", False),
]


@pytest.mark.parametrize(("body", "settles"), SETTLES)
def test_derived_state_that_settles(body: str, settles: bool) -> None:
    found = derivation_of(method(f"static getDerivedStateFromProps(props, state) {{ {body} }}"))
    assert (found is not None) is settles
    if found is not None:
        assert found.names == ("props", "state")


def test_derived_state_with_other_parameters() -> None:
    hook = "static getDerivedStateFromProps({}) {{ if ({}) return {{ at: 1, far: [] }}; return null; }}"
    found = derivation_of(method(hook.format("{ at }, state", "at !== state.at && state.at !== 1")))
    assert found is not None and found.aliases == {"at": ("props", "at")}
    assert derivation_of(method(hook.format("{ at = 2 }, state", "state.at !== 1"))) is None
    assert derivation_of(method(hook.format("", "a"))) is None


NAMED = [
    # (members of the class, what stands in the function)
    (
        "state = { setTide: 1, tide: 2 };\n  render() {\n    return (\n      "
        "<p onClick={() => this.setState({ tide: 3 })}>{this.state.setTide}"
        "{this.state.tide}</p>\n    );\n  }",
        ["const [setTide] = useState(1);", "const [tide, setTideState] = useState(2);"],
    ),
    (
        "go() { this.props.go(); }\n  render() { return <p onClick={() => this.go()} />; }",
        ["Berth({ go: goProp })", "function go() { goProp(); }"],
    ),
    (
        "state = { at: 1 };\n  render() {\n    const at = this.props.at;\n    "
        "return <p>{at}{this.state.at}</p>;\n  }",
        ["const [atState] = useState(1);", "const at = atProp;"],
    ),
    (
        "default = 1;\n  render() { return <p onClick={() => { this.default += 1; }}>"
        "{this.props.for}</p>; }",
        ["const defaultRef = useRef(1);", "for: forProp"],
    ),
]  # fmt: skip


@pytest.mark.parametrize(("members", "among"), NAMED)
def test_names_that_meet(members: str, among: list[str], tmp_path: Path) -> None:
    text = (
        "import React, { Component } from 'react';\n\nexport default class Berth extends Component {\n"
        f"  {members}\n}}\n"
    )
    path = tmp_path / "Berth.jsx"
    path.write_text(text, "utf-8")
    (result,) = carry_file(Request(path, "Berth.jsx", "jsx-function", runtime=18))
    assert result.status == "clean"
    for part in among:
        assert part in result.files[0].text


def test_a_name_as_an_identifier() -> None:
    assert identifier("aria-label") == "ariaLabel"
    assert identifier("update:tide") == "updateTide"
    assert identifier("on>") == "on"
    assert identifier("2nd") == "value2nd"
    assert identifier("ship.name") == "shipName"
    assert identifier("-") == "value"
    assert "default" in RESERVED
