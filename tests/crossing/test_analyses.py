"""What the crossing finds out about a component before it is written."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.read import read
from clean_carry.syntaxes.jsx_class.syntax import SYNTAX as JSX_CLASS
from clean_carry.syntaxes.jsx_class.uses.receivers import Receivers, find
from clean_carry.syntaxes.jsx_function.planning.stale_reads import (
    calls_inputs,
    drawn_by,
    later_entries,
    later_methods,
    stable_methods,
)

DRAWS = "  render() { return <p>{this.props.tide}</p>; }\n"


def tree_of(members: str) -> tuple[Tree, Names]:
    text = (
        "import React, { Component } from 'react';\nimport Pier from './pier';\n"
        f"export default class Berth extends Component {{\n{members}\n}}\n"
    )
    tree = Tree(SourceText("Berth.jsx", text.encode()))
    return tree, Names(tree)


def component(members: str) -> Component:
    tree, names = tree_of(members)
    ledger = Ledger("Berth.jsx", tree.source.data, JSX_CLASS.drops)
    components, refusals = read(tree, names, ledger, Workspace(Path("Berth.jsx")))
    assert refusals == ()
    return components[0]


# -- who stands for the instance -------------------------------------------------------------


def receivers(members: str) -> Receivers:
    tree, names = tree_of(members)
    node = tree.of("class_declaration")[0]
    body = node.child("body")
    assert body is not None
    made = [
        (member, ("props", "context"))
        for member in body.named_children
        if (name := member.child("name")) is not None and name.text == "constructor"
    ]
    return find(tree, names, node, made)


STAND = [
    ("go() { this.a(); }", ["this"], 0, 0),
    ("go = () => { this.a(); };", ["this"], 0, 0),
    ("go() { return () => this.a(); }", ["this"], 0, 0),
    ("go() { return function () { this.a(); }; }", [], 0, 0),
    ("static go() { this.a(); }", [], 0, 1),
    ("static far = this.a;", [], 0, 1),
    ("go() { const self = this; self.a(); self.b(); }", ["this", "this"], 1, 0),
    ("go() { let self = this; self = 1; }", ["this"], 0, 0),
    ("go() { const { props, state: now } = this; use(props.a, now.b); }", ["props", "state"], 1, 0),
    ("go() { const { props, far } = this; use(props.a); }", ["this"], 0, 0),
    ("go() { const self = this, at = 1; }", ["this"], 0, 0),
    ("constructor(props) { super(props); use(props.a); }", ["props", "props"], 0, 0),
    ("constructor(p, c) { super(p, c); use(c.a); }", ["props", "context"], 0, 0),
    ("go() { class A { b() { this.c(); } } }", [], 0, 0),
]


@pytest.mark.parametrize(("members", "means", "declared", "static"), STAND)
def test_who_stands_for_the_instance(
    members: str, means: list[str], declared: int, static: int
) -> None:
    found = receivers(members)
    assert [use.means for use in found.uses] == means
    assert len(found.declarations) == declared
    assert len(found.static_uses) == static


# -- what runs later than the draw it was made in --------------------------------------------


STABLE = [
    ("componentDidMount() { window.addEventListener('tide', this.go); }", False),  # kept once
    ("componentDidUpdate() { window.addEventListener('tide', this.go); }", True),
    ("componentDidMount() { this.go(); }", False),
    ("show() { return <Pier onGo={this.go} />; }", True),
    ("show() { return <p onClick={this.go} />; }", False),
    ("show() { return <p ref={this.go} />; }", True),
]


@pytest.mark.parametrize(("members", "stable"), STABLE)
def test_methods_somebody_may_compare(members: str, stable: bool) -> None:
    one = component(f"  go = () => {{ this.props.onGo(); }};\n  {members}\n{DRAWS}")
    found = stable_methods(one, merged=False)
    assert ("go" in found) is stable


def test_lateness_spreads_through_methods() -> None:
    one = component(
        "  far() { return this.props.far; }\n"
        "  near() { return this.far(); }\n"
        "  soon() { return this.props.soon; }\n"
        "  componentDidMount() { setTimeout(() => this.near(), 100); this.soon(); }\n"
        "  componentWillUnmount() { this.last(); }\n"
        "  last() { this.props.onLeave(); }\n" + DRAWS
    )
    later = later_methods(one, frozenset())
    assert later == {"far", "near", "last"}
    assert later_methods(one, frozenset(), ("soon",)) == {"far", "near", "last", "soon"}
    entries = later_entries(one, later)
    read = {
        operation.member.name: operation.entry in entries
        for _, operation in one.operations()
        if type(operation).__name__ == "Read"
    }
    assert read == {"far": True, "soon": False, "onLeave": True, "tide": False}


def test_methods_that_drawing_calls() -> None:
    one = component(
        "  part() { return this.piece(); }\n  piece() { return 1; }\n  row = () => 2;\n"
        "  go() { return this.never(); }\n  never() {}\n  componentDidMount() { this.go(); }\n"
        "  render() {\n    return <p>{this.part()}{[1].map(this.row)}</p>;\n  }\n"
    )
    assert drawn_by(one) == {"part", "piece", "row"}


CALLS = [
    ("this.props.onGo();", True),
    ("const { onGo } = this.props; onGo();", True),
    ("this.tell();", True),
    ("setTimeout(() => this.props.onGo());", False),
    ("use(this.props.onGo);", False),
    ("this.wait();", False),
]


@pytest.mark.parametrize(("body", "calls"), CALLS)
def test_whether_an_input_is_called_at_once(body: str, calls: bool) -> None:
    one = component(
        f"  componentDidMount() {{ {body} }}\n  tell() {{ this.props.onTell(); }}\n"
        f"  async wait() {{ await 0; this.props.onTell(); }}\n{DRAWS}"
    )
    (moment,) = one.moments("displayed")
    assert calls_inputs(one, moment.body) is calls
