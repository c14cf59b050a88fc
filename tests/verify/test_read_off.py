"""What is read off a component's code: constants, functions, static objects, what methods are called with."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.methods import given_to
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.inputs.statics import parts_of, static_objects
from clean_carry.verify.search.values.constants import Constants, imports_of
from clean_carry.verify.search.values.functions import functions_of, parameters_of, pattern_names
from clean_carry.verify.search.values.shapes import Shapes


def tree_of(text: str, path: Path | str = "Berth.jsx") -> Tree:
    return Tree(SourceText(str(path), text.encode()))


def told(text: str, path: Path | str = "Berth.jsx") -> Node:
    """The tree's last expression: what is asked for."""
    tree = tree_of(text, path)
    return tree.root.named_children[-1].named_children[0]


HERE: dict[str, tuple[str, tuple[bool, Any]]] = {
    "a literal": ("'open'", (True, "open")),
    "a negative number": ("-4", (True, -4)),
    "an escape": (r"'a\nb'", (True, "a\nb")),
    "a constant": ("const A = 'open'; A", (True, "open")),
    "a constant of a constant": ("const A = 3; const B = A; B", (True, 3)),
    "a member": ("const K = { OPEN: 'open' }; K.OPEN", (True, "open")),
    "a member of a member": ("const K = { A: { B: 7 } }; K.A.B", (True, 7)),
    "a frozen object": ("const K = Object.freeze({ A: 1 }); K.A", (True, 1)),
    "a constant object of types": ("const K = { A: 'a' } as const; K.A", (True, "a")),
    "a member set afterwards": ("const K = {}; K.A = 'late'; K.A", (True, "late")),
    "an enumeration": ("enum K { A = 'a', B = 'b' } K.B", (True, "b")),
    "a variable is no constant": ("let A = 'open'; A", (False, None)),
    "a local is none of the module": ("function f() { const A = 1; return A; } A", (False, None)),
    "a call is not known": ("const A = made(); A", (False, None)),
    "nothing of the name": ("A", (False, None)),
    "a member of what is not known": ("a.b", (False, None)),
}


@pytest.mark.parametrize(("text", "meant"), HERE.values(), ids=HERE)
def test_what_a_constant_means(text: str, meant: tuple[bool, Any]) -> None:
    node = told(text, "Berth.tsx")
    assert Constants([_tree(node, text)]).literal(node) == meant


def _tree(node: Node, text: str) -> Tree:
    return tree_of(text, node.text_of.path)


FILES = {
    "kinds.js": "export const OPEN = 'open';\nexport default 'late';\nconst inner = 'x';\nexport { inner as INNER };\n",
    "more.js": "export { OPEN as SHUT } from './kinds';\nimport * as K from './kinds';\nexport const SAME = K.OPEN;\n",
    "list.js": "export const KINDS = ['a', 'b', made()];\n",
}
ELSEWHERE: dict[str, tuple[str, tuple[bool, Any]]] = {
    "by its name": ("import { OPEN } from './kinds'; OPEN", (True, "open")),
    "by another name": ("import { OPEN as O } from './kinds'; O", (True, "open")),
    "the default": ("import late from './kinds'; late", (True, "late")),
    "all of a file": ("import * as K from './kinds'; K.OPEN", (True, "open")),
    "exported by another name": ("import { INNER } from './kinds'; INNER", (True, "x")),
    "handed on": ("import { SHUT } from './more'; SHUT", (True, "open")),
    "through two files": ("import { SAME } from './more'; SAME", (True, "open")),
    "not exported": ("import { NONE } from './kinds'; NONE", (False, None)),
    "a package": ("import { OPEN } from 'kinds'; OPEN", (False, None)),
    "a file that is not there": ("import { OPEN } from './none'; OPEN", (False, None)),
}


@pytest.mark.parametrize(("text", "meant"), ELSEWHERE.values(), ids=ELSEWHERE)
def test_constants_of_other_files(text: str, meant: tuple[bool, Any], tmp_path: Path) -> None:
    for name, content in FILES.items():
        (tmp_path / name).write_text(content)
    path = tmp_path / "Berth.jsx"
    node = told(text, path)
    assert Constants([_tree(node, text)]).literal(node) == meant


def test_files_that_import_each_other_come_to_an_end(tmp_path: Path) -> None:
    (tmp_path / "a.js").write_text("export { X } from './b';\n")
    (tmp_path / "b.js").write_text("export { X } from './a';\n")
    text = "import { X } from './a'; X"
    node = told(text, tmp_path / "Berth.jsx")
    assert Constants([_tree(node, text)]).literal(node) == (False, None)


def test_the_literals_of_a_list(tmp_path: Path) -> None:
    (tmp_path / "list.js").write_text(FILES["list.js"])
    for text, values in (
        ("import { KINDS } from './list'; KINDS", ["a", "b"]),
        ("const A = 1; [A, 2, null]", [1, 2]),
        ("const A = 1; A", []),
    ):
        node = told(text, tmp_path / "Berth.jsx")
        assert Constants([_tree(node, text)]).parts(node) == values


def test_imports_by_their_local_names() -> None:
    tree = tree_of(
        "import A, { b as c, d } from './x';\nimport * as E from './y';\nimport './z';\n"
    )
    assert list(imports_of(tree, "A")) == [("./x", "default")]
    assert list(imports_of(tree, "c")) == [("./x", "b")] and list(imports_of(tree, "b")) == []
    assert list(imports_of(tree, "E")) == [("./y", "")] and list(imports_of(tree, "z")) == []


FUNCTIONS = """
function a(x) {}
const b = (y) => y, no = 1;
class C { d(z) {} e = function (w) {}; }
const o = { f() {}, g: (v) => v, 'h-i': () => 1 };
o.j = (u) => u;
"""


def test_functions_by_name() -> None:
    found = functions_of([tree_of(FUNCTIONS)])
    assert sorted(found) == ["a", "b", "d", "e", "f", "g", "h-i", "j"]
    assert [p.text for p in parameters_of(found["d"])] == ["z"]


PARAMETERS = [
    ("x => x", ["x"]),
    ("(x, { y }, z = 1) => x", ["x", "{ y }", "z"]),
    ("({ a, b: c, d = 1, e: f = 2, ...g }) => a", ["{ a, b: c, d = 1, e: f = 2, ...g }"]),
    ("() => 1", []),
]


@pytest.mark.parametrize(("text", "names"), PARAMETERS)
def test_parameters(text: str, names: list[str]) -> None:
    (function,) = tree_of(f"const f = {text};").of("arrow_function")
    assert [p.text for p in parameters_of(function)] == names


def test_the_names_a_pattern_binds() -> None:
    (pattern,) = list(
        tree_of("const { a, b: c, d = 1, e: f = 2, 'g-h': i } = x;").of("object_pattern")
    )
    assert list(pattern_names(pattern)) == [
        ("a", "a"), ("b", "c"), ("d", "d"), ("e", "f"), ("g-h", "i"),
    ]  # fmt: skip


CALLED = [
    ("open(event) {}", [{"$": "event"}]),
    ("open($e, name) {}", [{"$": "event"}, "name Holm"]),
    ("open(size) { size.toFixed(1); }", [3]),
    ("open(rows) { rows.map((r) => r.id); }", [[{"id": "id-1"}, {"id": "id-2"}]]),
    ("open(name, at = 1, more) {}", ["name Holm"]),
    ("open({ name }) {}", []),
    ("open() {}", []),
]


@pytest.mark.parametrize(("method", "given"), CALLED)
def test_what_a_method_is_called_with(method: str, given: list[Any]) -> None:
    tree = tree_of(f"class Berth {{ {method} }}")
    assert given_to(functions_of([tree])["open"], Shapes([tree])) == given
    assert given_to(None, Shapes([tree])) == []


STATICS = [
    ("class Berth { static propTypes = { a: 1 }; }", {"a": "1"}),
    ("class Berth {} Berth.propTypes = { a: 1, 'b-c': 2 };", {"a": "1", "b-c": "2"}),
    ("const types = { a: 1 }; class Berth {} Berth.propTypes = types;", {"a": "1"}),
    (
        "const more = { b: 2 }; class Berth {} Berth.propTypes = { a: 1, ...more };",
        {"a": "1", "b": "2"},
    ),
    ("class Berth {} class Other {} Other.propTypes = { a: 1 };", {}),
    ("class Berth {} Berth.other = { a: 1 };", {}),
    ("class Berth {} Berth.propTypes = made();", {}),
]


@pytest.mark.parametrize(("text", "parts"), STATICS)
def test_static_objects(text: str, parts: dict[str, str]) -> None:
    tree = tree_of(text)
    found = {
        name: value.text
        for _, whole in static_objects(tree, "Berth", ("propTypes",))
        for name, value, _ in parts_of(whole, tree)
    }
    assert found == parts


METHODS = """import React, { Component } from 'react';
export default class Berth extends Component {
  constructor(props) {
    super(props);
    this.focus = this.focus.bind(this);
    this.go = this.go.bind(this);
    this.far = this.far.bind(this);
  }
  focus() { if (this.ref) this.ref.focus(); }
  go() {}
  far() {}
  near() {}
  _own() {}
  render() {
    const { near } = this;
    return <p onClick={this.go} ref={near}>{this.props.far}</p>;
  }
}
"""


def test_methods_that_are_only_bound_are_somebody_elses() -> None:
    found = read_inputs(METHODS, "Berth.jsx", "Berth")
    assert sorted(found.methods) == ["far", "focus"]
