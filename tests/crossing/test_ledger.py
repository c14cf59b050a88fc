"""The tests that keep the ledger honest."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.ledger import Ledger
from clean_carry.component.result import Result
from clean_carry.component.spans import Span
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.syntaxes.jsx_class.members.members import MEMBERS
from clean_carry.syntaxes.jsx_class.uses.operations import READERS
from clean_carry.syntaxes.registry import every_syntax
from clean_carry.syntaxes.rules import every_rule

RULES = every_rule()

WHOLE = """import React, { Component, createRef } from 'react';

export default class X extends Component {
  static defaultProps = { a: 1 };
  static KINDS = ['x'];
  static of() { return 1; }
  static contextType = Harbour;
  state = { n: 0, m: this.props.a };
  box = createRef();
  field = 1;
  declared;
  get twice() { return this.field * 2; }
  constructor(props) {
    super(props);
    check(props);
    this.go = this.go.bind(this);
  }
  componentWillMount() { this.field = 3; }
  componentDidMount() { this.field = 2; }
  componentDidUpdate(prevProps) { if (prevProps.a !== this.props.a) { this.go(); } }
  componentWillUnmount() { this.field = 0; }
  go() { this.setState({ n: 1 }); }
  arrow = () => {
    const { n } = this.state;
    this.forceUpdate();
    return [n, this.refs.note, this.props, this.state, this.context];
  };
  render() {
    const { a, ...rest } = this.props;
    return <p {...rest} onClick={this.go} ref={this.box}>{this.state.n}{a}{this.arrow()}{this.field}
      {this.twice}<i ref="note"/></p>;
  }
}
"""


def carried(tmp_path: Path, text: str, name: str = "X.jsx") -> Result:
    path = tmp_path / name
    path.write_text(text, "utf-8")
    return carry_file(Request(path, name, "jsx-function"))[0]


def test_the_whole_component_is_clean(tmp_path: Path) -> None:
    assert carried(tmp_path, WHOLE).status == "clean"


# Members the whole component has not: in the place of a field, and beside it.
IN_PLACE: dict[str, str] = {
    "unknown-member": "static set x(v) { }",
    "setter": "set x(v) { }",
    "refused-member": "shouldComponentUpdate() {}",
    "declared-field": "declare declared: number;",
    "type-field": "props: Props;",
}
BESIDE: dict[str, str] = {
    "derivation":
    "static getDerivedStateFromProps(p, s) { if (p.a !== s.m) { return { m: p.a }; } }",
    "receipt-hook": "componentWillReceiveProps(next) { this.field = next.a; }",
    "before-update-hook":
    "componentWillUpdate(next) { if (next.a !== this.props.a) this.field = next.a; }",
    "draws-always": "shouldComponentUpdate() { return true; }",
}  # fmt: skip


@pytest.mark.parametrize("notion", sorted(MEMBERS))
def test_without_a_reader_of_members_the_ledger_fails(
    notion: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    member = IN_PLACE.get(notion, "declared;")
    if notion in BESIDE:
        member += f"\n  {BESIDE[notion]}"
    text = WHOLE.replace("  declared;", f"  {member}")
    if notion == "type-field":
        text = "/* @flow */\n" + text
    name = "X.tsx" if notion == "declared-field" else "X.jsx"
    before = carried(tmp_path, text, name)
    monkeypatch.delitem(MEMBERS, notion)
    result = carried(tmp_path, text, name)
    assert result.status == "refused"
    assert result.findings[0].rule in ("ledger-unsettled", "no-render")
    assert before.findings == () or before.findings[0].rule != "ledger-unsettled"


@pytest.mark.parametrize("notion", sorted(READERS))
def test_without_a_reader_of_uses_the_ledger_fails(
    notion: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    extra = {
        "escape": "send(this);",
        "unknown-use": "this.other;",
        "hook-use": "this.componentDidMount();",
    }.get(notion, "")
    text = WHOLE.replace("this.setState({ n: 1 });", f"this.setState({{ n: 1 }}); {extra}")
    if notion == "state-draft":
        text = text.replace("  state = { n: 0, m: this.props.a };\n", "")
        made = "super(props);\n    const m = props.a;\n    this.state = { n: 0, m };"
        text = text.replace("super(props);", made)
        assert carried(tmp_path, text).status == "clean"
    monkeypatch.delitem(READERS, notion)
    result = carried(tmp_path, text)
    assert result.status == "refused"
    assert result.findings[0].rule == "ledger-unsettled"


UNKNOWN_MEMBERS = [
    "get _x() { return 1; }",
    "set x(v) { }",
    "[computed]() { }",
    "[computed] = 1;",
    "static { prepare(); }",
    "@logged note() { }",
    "async componentWillMount() { await 1; }",
]


@pytest.mark.parametrize("member", UNKNOWN_MEMBERS)
@pytest.mark.parametrize("before", ["  static KINDS", "  state =", "  constructor", "  render()"])
def test_an_unknown_member_is_left_wherever_it_stands(
    member: str, before: str, tmp_path: Path
) -> None:
    text = WHOLE.replace("  componentDidMount() { this.field = 2; }\n", "")
    result = carried(tmp_path, text.replace(before, f"  {member}\n{before}", 1))
    assert result.status in ("left", "refused")
    assert result.findings
    if result.status == "left":
        written = result.files[0].text
        assert f"left to you ({result.findings[0].rule})" in written
        assert member.split("(")[0] in written


UNKNOWN_USES = [
    "this.forceUpdate(() => 1)",
    "this.refs[key]",
    "this.context = 1",
    "this.nothing",
    "this['props']",
    "this[key]",
    "send(this)",
    "this.setState",
    "this.setState(...patch)",
    "this.setState()",
    "this.props.a = 2",
    "this.state.n = 2",
    "this.state.n++",
    "delete this.field",
    "this.go.call(window)",
    "this.go = null",
    "super.go()",
    "[this.field, this.props.a] = [1, 2]",
    "new this.Kind()",
    "this.refs.box",
    "this.isMounted()",
]
PLACES = [
    "go() { this.setState({ n: 1 }); @; }",
    "go() { if (this.state.n) { return @; } this.setState({ n: 1 }); }",
    "go() { setTimeout(() => { @; }); this.setState({ n: 1 }); }",
    "go() { const z = [@]; this.setState({ n: z }); }",
]


@pytest.mark.parametrize("use", UNKNOWN_USES)
@pytest.mark.parametrize("place", PLACES)
def test_an_unknown_use_is_never_clean(use: str, place: str, tmp_path: Path) -> None:
    text = WHOLE.replace("go() { this.setState({ n: 1 }); }", place.replace("@", use))
    try:
        result = carried(tmp_path, text)
    except Exception as error:
        assert "cannot be read" in str(error)
        return
    assert result.status in ("left", "refused"), result.files[0].text
    assert result.findings[0].rule in RULES
    assert result.findings[0].rule != "ledger-unsettled"


def test_lost_text_is_noticed() -> None:
    data = b"let a = 1; let b = 2;"
    ledger = Ledger("x", data)
    ledger.claim("module code", Span(0, len(data), "x"), "kept")
    with pytest.raises(UnsettledEntry, match="got lost"):
        ledger.close([(0, 10)])


def test_text_written_twice_is_noticed() -> None:
    ledger = Ledger("x", b"a b")
    ledger.claim("module code", Span(0, 3, "x"), "kept")
    with pytest.raises(UnsettledEntry, match="twice"):
        ledger.close([(0, 3), (0, 1)])


def test_an_open_entry_is_noticed() -> None:
    ledger = Ledger("x", b"a")
    ledger.claim("class", Span(0, 1, "x"))
    with pytest.raises(UnsettledEntry, match="not settled"):
        ledger.close([(0, 1)])


def test_a_drop_needs_a_rule_on_the_list() -> None:
    ledger = Ledger("x", b"a")
    key = ledger.claim("class", Span(0, 1, "x"))
    with pytest.raises(UnsettledEntry, match="not on the list"):
        ledger.settle(key, "dropped", "because")


def test_every_drop_has_a_row_in_the_docs() -> None:
    page = Path(__file__).parents[2] / "docs" / "dropped.md"
    text = page.read_text("utf-8")
    assert [
        name for syntax in every_syntax() for name in syntax.drops if f"`{name}`" not in text
    ] == []


def test_an_empty_hook_goes(tmp_path: Path) -> None:
    text = WHOLE.replace("{ this.field = 2; }", "{}").replace("{ this.field = 0; }", "{}")
    result = carried(tmp_path, text)
    assert result.status == "clean"
    assert "}\n\n\n" not in result.files[0].text
    assert "empty-hook" in [entry.rule for entry in result.entries]


def test_a_comment_in_an_empty_hook_stays(tmp_path: Path) -> None:
    text = WHOLE.replace("{ this.field = 2; }", "{\n    // nothing yet\n  }")
    result = carried(tmp_path, text)
    assert result.status == "clean"
    assert "// nothing yet" in result.files[0].text


@pytest.mark.parametrize(
    "use",
    [
        "<p ref={this.props.box}/>",
        "{(() => { const { box } = this.props; return <p ref={box}/>; })()}",
    ],
)
def test_an_input_given_on_as_a_reference_is_noted(use: str, tmp_path: Path) -> None:
    text = WHOLE.replace("{this.state.n}{a}", f"{use}{{this.state.n}}{{a}}")
    result = carried(tmp_path, text)
    found = [f for f in result.findings if f.rule == "reference-from-input"]
    assert len(found) == 1 and found[0].level == "note" and " box " in found[0].message


@pytest.mark.parametrize(
    ("use", "written"),
    [
        ("<p ref={(box) => this.props.keep(box, 1)}/>", "latestKeep.current(box, 1)"),
        ("<p ref={(box) => this.kept(box)}/>", "latestKeep.current(box)"),
        ("<p onClick={() => this.props.keep()}/>", "onClick={() => keep()}"),
    ],
)
def test_a_reference_calls_the_input_of_its_time(use: str, written: str, tmp_path: Path) -> None:
    """As an element goes, an instance has the newest inputs; the function it was given has those of old."""
    text = (
        "import React, { Component } from 'react';\n\nexport default class Berth extends Component {\n"
        "  kept(box) { this.props.keep(box); }\n\n"
        f"  render() {{ return <b onClick={{() => this.kept()}}>{use}</b>; }}\n}}\n"
    )
    result = carried(tmp_path, text)
    assert result.status == "clean"
    assert written in result.files[0].text


@pytest.mark.parametrize(
    ("drawn", "written", "noted"),
    [
        ("{this.props.format(this.state.n)}", "{ n: 0 }", True),
        ("{this.state.n}", "{ n: 0 }", False),
        ("{this.props.format(this.state.n)}", "{ n: this.props.n }", False),
        ("{this.state.n}<p onClick={() => this.props.format()}/>", "{ n: 0 }", False),
        ("{this.told(this.state.n)}", "{ n: 0 }", True),
        ("{this.state.n}<p onClick={() => this.told('press')}/>", "{ n: 0 }", False),
        ("{other(this.state.n)}", "{ n: 0 }", True),
        ("{this.state.n}<p onClick={() => other()}/>", "{ n: 0 }", False),
    ],
)
def test_an_input_called_while_drawing_is_called_less_often(
    drawn: str, written: str, noted: bool, tmp_path: Path
) -> None:
    text = f"""import React from 'react';
export default class Berth extends React.Component {{
  state = {{ n: 0 }};
  clear = () => {{ this.setState({written}); }};
  told(what) {{ return this.props.tell(what); }}
  render() {{
    const {{ other }} = this.props;
    return <b onClick={{this.clear}}>{drawn}</b>;
  }}
}}
"""
    result = carried(tmp_path, text)
    assert result.status == "clean"
    assert ("equal-write-spared" in [f.rule for f in result.findings]) == noted


CLEAN_UPS = [
    ("this.props.onShown();", False),
    ("this.tell();", False),
    ("this.later();", True),
    ("if (this.props.on) return;", False),
    ("this.field = setInterval(() => this.props.onShown(), 10);", True),
    ("const { onShown } = this.props; onShown();", False),
]


@pytest.mark.parametrize(("body", "merged"), CLEAN_UPS)
def test_a_clean_up_joins_its_effect_only_where_that_reaches_its_end(
    body: str, merged: bool, tmp_path: Path
) -> None:
    text = WHOLE.replace(
        "componentDidMount() { this.field = 2; }", f"componentDidMount() {{ {body} }}"
    )
    text = text.replace(
        "  arrow =",
        "  tell() { this.props.onShown(); }\n  async later() { this.tell(); }\n  arrow =",
    )
    text = text.replace("{this.arrow()}", "{this.arrow()}{this.tell()}{String(this.later())}")
    written = carried(tmp_path, text).files[0].text
    assert ("return () =>" in written) == merged
    if not merged:
        clean_up, effect = written.index("(() => () =>"), written.index("useLayoutEffect(() => {")
        assert clean_up < effect


GUARDS = [
    ("static defaultProps = { a: 1 };", "if (prevProps === null) return;"),
    ("static defaultProps = { a: 'x' };", "if (previousA.current === a) return;"),
]


@pytest.mark.parametrize(("defaults", "line"), GUARDS)
def test_a_number_is_compared_as_the_class_compared_it(
    defaults: str, line: str, tmp_path: Path
) -> None:
    text = WHOLE.replace("static defaultProps = { a: 1 };", defaults).replace(
        "check(props)", "check()"
    )
    text = text.replace("this.props, this.state,", "this.state.m,").replace("{...rest} ", "")
    text = text.replace("const { a, ...rest } = this.props;", "const { a } = this.props;")
    result = carried(tmp_path, text)
    assert result.status == "clean" and line in result.files[0].text


@pytest.mark.parametrize(
    ("drawn", "runtime", "kept", "noted"),
    [
        ("this.props.draw(this.props.size)", 18, True, False),
        ("this.props.draw(this.props.size)", 19, False, True),
        ("list(this.props.draw, this.props.size)", 18, True, False),
        ("this.props.size", 18, False, False),
        ("this.props.size", 19, False, False),
    ],
)
def test_drawing_that_calls_an_input_tells_of_a_default_not_given(
    drawn: str, runtime: int, kept: bool, noted: bool, tmp_path: Path
) -> None:
    text = (
        "import React, { PureComponent } from 'react';\nimport list from './list';\n\n"
        "export default class Row extends PureComponent {\n"
        "  static propTypes = { draw: PropTypes.func };\n\n  static defaultProps = { size: 2 };\n\n"
        f"  render() {{\n    return <p>{{{drawn}}}</p>;\n  }}\n}}\n"
    )
    path = tmp_path / "Row.jsx"
    path.write_text(text, "utf-8")
    result = carry_file(Request(path, "Row.jsx", "jsx-function", runtime=runtime))[0]
    assert result.status == "clean"
    assert ("Row.defaultProps = {" in result.files[0].text) is kept
    assert [f.rule for f in result.findings if f.rule == "default-draws-again"] == [
        "default-draws-again"
    ] * noted
