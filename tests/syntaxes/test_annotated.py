"""Scripts annotated with Flow types: read, carried with their types, and verified."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from clean_carry.component.errors import InputError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.read_inputs import read_inputs

TIDE = """/* @flow */
import React, { Component } from 'react';
import type { Port } from './ports';
import { label } from './ports';

type Props = {|
  +name: ?string,
  count: number,
  port: Port,
  notes?: Array<$ReadOnly<{ text: string }>>,
  onGo?: (name: string, at: number) => void,
|};
type State = { open: boolean, at: ?number };

export default class Tide extends Component<Props, State> {
  props: Props;
  timer: ?TimeoutID;

  static defaultProps = { count: 2 };

  state: State = { open: false, at: null };

  componentDidMount() {
    this.timer = setTimeout(() => this.setState({ at: 3 }), 200);
  }

  componentWillUnmount() {
    if (this.timer) clearTimeout(this.timer);
  }

  go = (event: SyntheticEvent<HTMLButtonElement>): void => {
    event.preventDefault();
    this.setState({ open: !(this.state.open: boolean) });
    if (this.props.onGo) this.props.onGo(this.props.name || '', this.props.count);
  };

  render(): React$Element<any> {
    const { name, port } = this.props;
    return (
      <button onClick={this.go} title={label(port)}>
        {this.state.open ? name : 'closed'} {this.state.at}
      </button>
    );
  }
}
"""
PORTS = """// @flow
export type Port = 'Holm' | 'Sund';
export opaque type Depth = number;
export const label = (port: Port): string => `Port of ${port}`;
"""


def carried(folder: Path, text: str) -> Result:
    path = folder / "Tide.jsx"
    path.write_text(text, "utf-8")
    return carry_file(Request(path, "Tide.jsx", "jsx-function", runtime=18))[0]


def test_annotations_are_carried(tmp_path: Path) -> None:
    result = carried(tmp_path, TIDE)
    assert result.status == "clean", result.findings
    new = result.files[0].text
    assert "export default function Tide({ count = 2, onGo, name, port }: Props) {" in new
    assert "const [open, setOpen] = useState<$PropertyType<State, 'open'>>(false);\n" in new
    assert "const go = (event: SyntheticEvent<HTMLButtonElement>): void => {" in new
    assert "setOpen(!(open: boolean));" in new
    assert new.split("export default")[0] == TIDE.split("export default")[0].replace(
        "{ Component }", "{ useLayoutEffect, useState }"
    )


def test_a_state_written_as_a_whole_has_its_type(tmp_path: Path) -> None:
    text = TIDE.replace("this.setState({ at: 3 })", "this.setState(this.props.next)")
    result = carried(tmp_path, text)
    assert "(state: State, change: $Shape<State>" in result.files[0].text


def test_three_types_and_types_by_fields(tmp_path: Path) -> None:
    of_three = carried(tmp_path, TIDE.replace("<Props, State>", "<*, Props, State>"))
    by_field = carried(tmp_path, TIDE.replace("<Props, State>", ""))
    for result in (of_three, by_field):
        assert "port }: Props) {" in result.files[0].text
        assert "$PropertyType<State, 'at'>" in result.files[0].text


def test_what_is_left_stands_in_for_any(tmp_path: Path) -> None:
    result = carried(tmp_path, TIDE.replace("this.props.count)", "this.isMounted())"))
    assert result.status == "left"
    assert "(undefined: any) /* left to you" in result.files[0].text


UNKNOWN = [
    "type A = { +name: string, -size: number };",
    "type B = (?string, number) => void;",
    "type C = ?(name: string) => void;",
    "opaque type D = number;",
    "import typeof E from './ports';",
    "function isOpen(x: mixed): boolean %checks { return x === 1; }",
    "const b = (c: any);",
    "type F = {| ...Port, at: number |};",
    "export type G = { ...$Exact<Array<Port>>, at: number };",
    "type H = { onGo: ({ event: SyntheticEvent<>, at: number }) => void, to: (string, Port) => void };",
    "type I = { label: string => Node, load: (string, (Port) => void) => Promise<*> | void };",
    "type J<At: string = string> = { at: At, ports: Array<*> };",
    "type K =\n  | false\n  | ((?{ from: number }) => void | {});",
    "type L = { // what ends; here\n  at: 'a;b' };",
    "type M = $Call<typeof x, ...> & { [[call]]: (...) => void };",
    "const go = (event: SyntheticEvent<>) => event;",
    "const load = (all: Promise<*>) => all;",
]


@pytest.mark.parametrize("line", UNKNOWN)
def test_what_the_grammar_does_not_know(line: str) -> None:
    tree = Tree(SourceText("a.js", f"// @flow\n{line}\nlet last = 1;\n".encode()))
    assert tree.annotated
    assert tree.typed
    assert tree.root.named_children[-1].text == "let last = 1;"
    assert line in tree.root.text
    with pytest.raises(InputError) as refused:
        Tree(SourceText("a.js", f"// @flow\n{line}\nlet = = 1;\n".encode()))
    assert refused.value.line == 3 + line.count("\n")


def test_a_name_that_only_unread_types_use_stays_imported(tmp_path: Path) -> None:
    text = (
        "// @flow\nimport React, { Component, type Node, type ElementType } from 'react';\n\n"
        "type Props = {| ...Rest, draw: ({ at: Node }) => void |};\n\n"
        "export default class Tide extends Component<Props> {\n"
        "  draw(): ElementType { return 'b'; }\n\n"
        "  render(): Node { return <b>{this.draw()}</b>; }\n}\n"
    )
    path = tmp_path / "Tide.jsx"
    path.write_text(text, "utf-8")
    result = carry_file(Request(path, path.name, "jsx-function"))[0]
    assert result.status == "clean"
    assert "import React, { type Node, type ElementType } from 'react';" in result.files[0].text


def test_only_a_first_comment_makes_it_so() -> None:
    assert not Tree(SourceText("a.js", b"let a = 1;\n// @flow\n")).annotated
    assert not Tree(SourceText("a.ts", b"let a = 1;\n")).annotated


def test_inputs_have_the_types_of_annotations() -> None:
    for text in (TIDE, TIDE.replace("<Props, State>", ""), TIDE.replace("<Pr", "<*, Pr")):
        shapes = read_inputs(text, "Tide.jsx", "Tide").shapes
        assert "string" in shapes["name"].kinds
        assert not shapes["name"].required
        assert shapes["count"].kinds == {"number"}
        assert shapes["onGo"].kinds == {"function"}
        assert shapes["notes"].items is not None
        assert set(shapes["notes"].items.fields) == {"text"}


def test_inputs_have_the_types_beside_what_is_not_known() -> None:
    text = TIDE.replace("  count: number,", "  ...Rest,\n  count: number,\n  draw: string => any,")
    text = text.replace("(name: string, at: number) => void", "({ name: string }, ?Port) => void")
    shapes = read_inputs(text, "Tide.jsx", "Tide").shapes
    assert shapes["count"].kinds == {"number"}
    assert shapes["onGo"].kinds == shapes["draw"].kinds == {"function"}


def test_carried_and_verified_by_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    more = (
        "type More = { at: number };\ntype Props = {|\n  ...$Exact<More>,\n  draw?: string => any,"
    )
    text = TIDE.replace("type Props = {|", more)
    (tmp_path / "Tide.jsx").write_text(text, "utf-8")
    (tmp_path / "ports.js").write_text(PORTS, "utf-8")
    done = run("carry", "Tide.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stdout + done.stderr
    done = run("verify", "Tide.jsx", "Tide.function.jsx", "--budget", "3")
    assert done.returncode == 0, done.stdout + done.stderr
    assert "same" in done.stdout
    assert re.search(r"code that ran: \d+ of \d+ branches and functions", done.stdout)
    changed = (tmp_path / "Tide.function.jsx").read_text("utf-8").replace("count)", "1)")
    (tmp_path / "Tide.function.jsx").write_text(changed, "utf-8")
    assert run("verify", "Tide.jsx", "Tide.function.jsx", "--budget", "3").returncode == 1
