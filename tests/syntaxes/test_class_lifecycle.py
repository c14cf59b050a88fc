"""Class components as a whole: pure ones, contexts, hooks before drawing, state made, elements found."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_class.members.no_change_analysis import idle


def carried(tmp_path: Path, text: str, name: str = "Berth.jsx", runtime: int = 18) -> Result:
    path = tmp_path / name
    path.write_text(text, "utf-8")
    return carry_file(Request(path, name, "jsx-function", runtime=runtime))[0]


def klass(members: str, render: str = "", base: str = "Component") -> str:
    used = [name for name in ("a", "b", "e", "kind") if f"{name} = (" in members]
    attributes = "".join(f" on{name.title()}={{this.{name}}}" for name in used)
    render = render or f"<p{attributes}>{{this.props.name}}</p>"
    return f"""import React, {{ Component, PureComponent }} from 'react';
import {{ findDOMNode }} from 'react-dom';
import {{ Quay }} from './Quay';

export default class Berth extends {base} {{
  {members}

  render() {{
    return {render};
  }}
}}
"""


WRITTEN: list[tuple[str, str, str]] = [
    ("PureComponent", "", "export default memo(function Berth({ name }) {"),
    ("React.PureComponent", "", "export default memo(function Berth({ name }) {"),
    ("PureComponent", "static kind = 'a';", "const Berth = memo(function Berth({ name }) {"),
    ("PureComponent", "static kind = 'a';", "Berth.kind = 'a';\n\nexport default Berth;"),
    ("PureComponent", "kind = () => Berth.of;", "const Berth = memo(function ({"),
    ("Component", "static contextType = Quay; a = () => this.context.b;", "useContext(Quay)"),
    ("Component", "static contextType = Quay; a = () => this.context.b;", "const a = () => context.b;"),
    ("Component", "static contextType = Quay; a = () => { const { b } = this.context; return b; };",
     "const { b } = context;"),
    ("Component",
     "static contextType = Quay; a = () => { const { props, context } = this; return context; };",
     "const a = () => { return ownContext; };"),
    ("Component", "static contextType = Quay; a = () => setTimeout(() => this.context.b);",
     "setTimeout(() => latestContext.current.b)"),
    ("Component", "static contextTypes = { b: f }; a = () => this.context.b;",
     "function Berth({ name }, context) {"),
    ("Component", "static contextTypes = { b: f }; a = () => this.context.b;",
     "Berth.contextTypes = { b: f };"),
    ("Component", "componentWillMount() { this.a = 1; }",
     "if (!started) {\n    setStarted(true); a.current = 1;\n    return null;\n  }"),
    ("Component", "UNSAFE_componentWillMount() {}", "export default function Berth({ name }) {"),
    ("Component", "componentWillReceiveProps() { this.a = this.props.name; }",
     "a.current = previousProps.name;"),
    ("Component", "componentWillReceiveProps(to) { this.a = to.name; }", "a.current = props.name;"),
    ("Component", "componentWillReceiveProps({ name }) { this.a = name; }", "const { name } = props;"),
    ("Component", "componentWillReceiveProps(to) { const props = to; this.a = props.name; }",
     "const props = inputs; a.current = props.name;"),
    ("Component", "componentWillReceiveProps(to) { setTimeout(() => this.props.go(to)); }",
     "setTimeout(() => latestProps.current.go(props))"),
    ("Component", "componentWillReceiveProps(to) { if (to.a) return; this.a = 1; }", "(() => {"),
    ("Component", "state = { a: 1 }; b = (c) => this.setState(c);", "const b = (c) => setState(c);"),
    ("Component", "state = { a: 1 }; b = (c) => this.setState({ ...c });", "setState({ ...c })"),
    ("Component", "state = { a: 1 }; b = (c) => this.setState({ [c]: 1 });", "setState({ [c]: 1 })"),
    ("Component", "state = { a: 1 }; b = () => this.setState(null);", "patch == null ? state"),
    ("PureComponent", "shouldComponentUpdate() { return true; }", "export default function Berth("),
    ("Component", "constructor(props) { super(props); const a = 1; this.go(a); this.b = a; } go = () => 1;",
     "useState(() => {\n    const a = 1; go(a); b.current = a;\n  });"),
    ("Component",
     "constructor(props) { super(props); const { a } = props; this.b = [a]; this.e = [this.b]; }",
     "b.current = [a]; e.current = [b.current];"),
    ("Component", "shouldComponentUpdate(to) { return to !== this.props; }",
     "export default function Berth("),
    ("Component", "a = 1; b = () => this.refs.c.focus(); d = () => <i ref={this.a ? 'c' : null} />;",
     "<i ref={a.current ? c : null} />"),
    ("Component", "b = () => this.refs.c.focus(); d() { const e = { ref: 'c' }; return <i {...e} />; }",
     "const e = { ref: c };"),
    ("Component",
     "b = () => this.refs.c.focus(); d() { return React.createElement('i', { id: 1, ref: 'c' }); }",
     "{ id: 1, ref: c }"),
    ("Component",
     "b = () => this.refs.c.focus(); d() { return [1].map((e) => <i key={e} ref={e && 'c'} />); }",
     "ref={e && c}"),
    ("Component",
     "componentWillReceiveProps(to) { if (to.a !== this.props.a) { var name = 1; this.f = name; } }",
     "f.current = name; }\n    })();"),
    ("Component", "c = 'i'; d() { return <this.c>1</this.c>; }", "return <c.current>1</c.current>;"),
    ("Component", "static Of = () => null; d() { return <this.constructor.Of a={1} />; }",
     "return <Berth.Of a={1} />;"),
    ("Component", "d() { return <this.props.Of a={1} />; }", "return <latestOf.current a={1} />;"),
    ("Component", "b = (c) => c; d() { return <i onClick={this.b.bind(null, 1)} />; }",
     "onClick={b.bind(null, 1)}"),
    ("Component",
     "componentWillUpdate(to) { if (to.a && !this.props.a && check()) { this.b = 1; } }",
     "if (props.a && !propsThen.a && check())"),
    ("Component", "b = () => 1; state = { a: this.b() };",
     "const b = () => 1;\n\n  useState(() => b());"),
    ("Component", "componentDidMount() { findDOMNode(this).focus(); }", "root.current.focus();"),
    ("Component", "componentDidMount() { findDOMNode(this).focus(); }", "<p ref={root}>{name}</p>"),
    ("Component", "root = 1; componentDidMount() { findDOMNode(this).title = this.root; }",
     "rootElement.current.title = root.current;"),
]  # fmt: skip


NOTED = ("reached-from-outside", "runs-while-drawing")


@pytest.mark.parametrize(("base", "members", "line"), WRITTEN)
def test_what_is_written(base: str, members: str, line: str, tmp_path: Path) -> None:
    result = carried(tmp_path, klass(members, base=base))
    left = [f.rule for f in result.findings if f.rule not in NOTED]
    assert result.status in ("clean", "left") and left == []
    assert line in result.files[0].text


@pytest.mark.parametrize("members", ["componentDidMount() { findDOMNode(this).focus(); }"])
def test_an_import_that_nothing_uses_any_more_goes(members: str, tmp_path: Path) -> None:
    text = carried(tmp_path, klass(members)).files[0].text
    assert "react-dom" not in text
    both = klass(members).replace("{ findDOMNode }", "{ findDOMNode, createPortal }")
    both += "export const over = createPortal;\n"
    assert "import { createPortal } from 'react-dom';" in carried(tmp_path, both).files[0].text


REFUSED: list[tuple[str, str, str]] = [
    ("PureComponent",
     "componentWillReceiveProps(to) { this.a = to; } componentDidUpdate() { this.props.go(); }",
     "pure-receives"),
    ("PureComponent", "static contextTypes = {}; static of = () => Berth; a = () => this.context.b;",
     "legacy-context"),
    ("Component", "static childContextTypes = {};", "legacy-context"),
    ("Component", "getChildContext() { return {}; }", "legacy-context"),
    ("Component", "static contextType = Quay; componentWillReceiveProps(to) { this.a = this.context; }",
     "legacy-hook"),
    ("Component", "componentWillReceiveProps(to, next) { this.a = next; }", "legacy-hook"),
    ("Component", "shouldComponentUpdate(to) { return to.a !== this.props.a; }", "decides-updates"),
    ("Component", "state = { b: 1 }; shouldComponentUpdate(to) { return to !== this.props; }"
     " b() { this.setState({ b: 2 }); }", "decides-updates"),
    ("Component", "d() { return <this.props.of a={1} />; }", "instance-tag"),
    ("Component", "d() { return <this.constructor.Of a={1} />; }", "instance-tag"),
    ("Component", "d() { return <this.props.of.Kind a={1} />; }", "instance-tag"),
    ("Component", "e() { return null; } d() { return <this.e a={1} />; }", "instance-tag"),
    ("Component", "static defaultProps = { a: 1 }; static defaultProps = { b: 1 };", "member-twice"),
    ("Component", "b = () => this.refs.c.focus(); d() { return { ref: 'c' }; }", "string-reference"),
    ("Component", "b = () => this.refs.c.focus(); d() { return <Quay draw={() => <i ref='c' />} />; }",
     "string-reference"),
    ("Component", "componentWillUpdate(to) { if (check() && to.a && !this.props.a) { this.b = 1; } }",
     "legacy-hook"),
    ("Component", "componentWillUpdate() { this.a = 1; }", "legacy-hook"),
    ("Component", "componentWillUpdate(to) { if (to.a) this.b = 1; }", "legacy-hook"),
    ("Component", "componentWillUpdate(to, next, all) { if (to.a !== this.props.a) this.b = all; }",
     "legacy-hook"),
    ("Component", "componentWillUpdate(to) { if (to.a !== this.props.a) this.setState({ b: 1 }); }",
     "legacy-hook"),
    ("Component",
     "componentWillUpdate(to) { if (to.a !== this.props.a) this.tell(); } tell() { go(this.props.b); }",
     "legacy-hook"),
    ("Component",
     "static contextType = Quay; componentWillUpdate(to) { if (to.a !== this.props.a) go(this.context); }",
     "legacy-hook"),
    ("Component", "state = { a: this.b() }; b = () => this.props.c;", "initial-needs-method"),
    ("Component",
     "state = { a: this.b() }; b() { return this.f; } f = 1; d() { setTimeout(() => this.b()); }"
     " e = () => this.d();", "initial-needs-method"),
    ("Component", "b = () => this.f; f = 1; state = { a: keep(this.b) };", "initial-needs-method"),
    ("Component", "state = { a: [this.b] }; b = () => 1;", "initial-needs-method"),
    ("Component", "constructor(props) { super(props); this.go(1); this.state = { a: this.f }; }"
     " f = 1; go = () => 1;", "constructor-code"),
    ("Component", "constructor(props) { super(props); if (props.a) return; this.state = { a: 1 }; }",
     "constructor-code"),
]  # fmt: skip


@pytest.mark.parametrize(("base", "members", "rule"), REFUSED)
def test_what_is_refused(base: str, members: str, rule: str, tmp_path: Path) -> None:
    result = carried(tmp_path, klass(members, base=base))
    assert result.status == "refused" and rule in {f.rule for f in result.findings}


HIDING = [
    # (what draws, whether a name of it hides what a method takes from the file or the world)
    ("const quay = 1; return <p>{quay}</p>;", True),
    ("const { quay } = this.props; return <p>{quay}</p>;", True),
    ("const { quay, ...others } = this.props; return <p {...others}>{quay}</p>;", True),
    ("const { location } = this.props; return <p>{location}</p>;", True),
    ("return <p>{[1].map((quay) => quay)}</p>;", False),
    ("return <p>{this.props.quay}</p>;", False),
    ("const berth = quay(2); return <p>{berth}</p>;", False),
]


@pytest.mark.parametrize(("drawn", "hides"), HIDING)
def test_a_local_of_drawing_that_hides_what_a_method_uses(
    tmp_path: Path, drawn: str, hides: bool
) -> None:
    text = (
        "import { Component } from 'react';\nimport quay from './quay';\n\n"
        "export class Berth extends Component {\n"
        "  static of = location.host;\n\n  go() {\n    location.reload(quay(1));\n  }\n\n"
        f"  render() {{\n    {drawn}\n  }}\n}}\n"
    )
    result = carried(tmp_path, text)
    assert (result.status == "refused") is hides
    assert not hides or result.findings[0].rule == "local-hides"


# What a static member that is written into the function, or a static the class is asked for, names.
_FROM_AROUND = [
    ("static getDerivedStateFromProps(props, state) {"
     " if (props.a !== state.m) return { m: props.a, n: quay(props.a) }; return null; }"
     " go() { done(); }", "quay"),
    ("static contextType = quay; go() { return this.context.b; }", "quay"),
    ("static of = 1; go() { return this.constructor.of; }", "Berth"),
    ("go() { return Berth.of; }", "Berth"),
]  # fmt: skip


@pytest.mark.parametrize(("members", "name"), _FROM_AROUND)
def test_what_the_function_takes_from_around_it_is_hidden_by_nothing(
    members: str, name: str, tmp_path: Path
) -> None:
    text = (
        "import { Component } from 'react';\nimport quay from './quay';\n\n"
        f"export class Berth extends Component {{\n  state = {{ m: 1, n: 2 }};\n\n  {members}\n\n"
        "  render() {\n    DRAWN\n    return <p onClick={this.go}>{this.state.n}</p>;\n  }\n}\n"
    )
    hidden = carried(tmp_path, text.replace("DRAWN", f"const {name} = 1;"))
    assert [f.rule for f in hidden.findings] == ["local-hides"]
    read = carried(tmp_path, text.replace("DRAWN", f"this.props.tell(this.props.{name});"))
    assert read.status == "clean"
    assert f"{name}: {name}Prop" in read.files[0].text


def test_a_class_asked_for_a_static_where_its_name_is_another(tmp_path: Path) -> None:
    result = carried(tmp_path, klass("static of = 1; b = (Berth) => [this.constructor.of, Berth];"))
    assert [f.rule for f in result.findings] == ["instance-escapes"]


def test_a_context_named_after_the_class_is_hidden_by_nothing(tmp_path: Path) -> None:
    text = klass("a = () => this.context.b;").replace("onA", "title={this.props.Quay} onA")
    result = carried(tmp_path, f"{text}\nBerth.contextType = Quay;\n")
    assert result.status == "clean"
    assert "Quay: QuayProp" in result.files[0].text
    assert "useContext(Quay)" in result.files[0].text


def test_a_write_with_what_comes_after_it_beside_a_local(tmp_path: Path) -> None:
    members = (
        "state = { n: 1 }; b = () => { const afterRender = 2;"
        " this.setState({ n: afterRender }, () => done()); };"
    )
    text = carried(tmp_path, klass(members)).files[0].text
    assert "callAfterRender(() => done())" in text


def test_conditions_that_are_joined_stay_apart(tmp_path: Path) -> None:
    members = (
        "state = { m: 1 }; static getDerivedStateFromProps(props, state) {"
        " if ((props.a ?? props.b) && props.c !== state.m) return { m: props.c }; return null; }"
    )
    guarded = members.replace(
        "if ((props.a ?? props.b) && ", "if (!props.z) return null; if ("
    ).replace("props.c !== state.m)", "props.a ?? props.b)")
    text = carried(tmp_path, klass(members)).files[0].text
    assert "if ((a ?? b) && !Object.is(c, m)) {" in text
    text = carried(tmp_path, klass(guarded)).files[0].text
    assert "if (z && (a ?? b) && !Object.is(m, c)) {" in text


@pytest.mark.parametrize("asked", ["name", "defaultProps", "of = 2", "other"])
def test_what_the_class_is_asked_for_that_a_function_may_not_have(
    tmp_path: Path, asked: str
) -> None:
    result = carried(tmp_path, klass(f"static of = 1; b = () => (this.constructor.{asked});"))
    assert result.status != "clean"
    assert "instance-escapes" in {f.rule for f in result.findings}


def test_the_old_context_ends_with_the_runtime_that_gave_it_up(tmp_path: Path) -> None:
    text = klass("static contextTypes = { b: f }; a = () => this.context.b;")
    assert carried(tmp_path, text, runtime=18).status != "refused"
    assert carried(tmp_path, text, runtime=19).findings[0].rule == "legacy-context"


DEFAULTS_KEPT = [
    (
        "PureComponent",
        "{ name: 'a' }",
        "componentDidUpdate() { this.props.go(); }",
        "pure-default-redraw",
    ),
    ("Component", "{ ...shared }", "", "defaults-not-literal"),
    ("Component", "{ get name() { return 'a'; } }", "", "defaults-not-literal"),
    ("Component", "shared.of('a')", "", "defaults-not-literal"),
    (
        "Component",
        "{ name: 'a' }",
        "of = () => Berth.defaultProps.name;",
        "defaults-read-elsewhere",
    ),
]


@pytest.mark.parametrize(("base", "defaults", "members", "rule"), DEFAULTS_KEPT)
def test_defaults_stay_a_property_while_the_runtime_takes_them_so(
    base: str, defaults: str, members: str, rule: str, tmp_path: Path
) -> None:
    text = klass(f"static defaultProps = {defaults}; {members}", base=base)
    result = carried(tmp_path, text, runtime=18)
    assert [f.rule for f in result.findings] == ["defaults-kept"]
    assert f"Berth.defaultProps = {defaults};" in result.files[0].text
    assert carried(tmp_path, text, runtime=19).findings[0].rule == rule


def test_the_types_of_a_memoised_function_know_of_no_defaults(tmp_path: Path) -> None:
    text = klass("static defaultProps = { name: 'a' }; componentDidUpdate() { this.props.go(); }")
    plain = carried(tmp_path, text.replace("{ name: 'a' }", "shared.of('a')"), "Berth.tsx")
    assert [f.rule for f in plain.findings] == ["defaults-kept"]
    pure = carried(
        tmp_path, text.replace("extends Component", "extends PureComponent"), "Berth.tsx"
    )
    assert [f.rule for f in pure.findings] == ["pure-default-redraw"]


@pytest.mark.parametrize(
    ("shown", "kept"), [("Berth.defaultProps.size", True), ("(Berth.defaultProps = {})", False)]
)
def test_defaults_that_another_file_reads_stay(shown: str, kept: bool, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text("{}", "utf-8")
    reader = f"import Berth from './Berth';\nexport const size = {shown};\n"
    (tmp_path / "reader.jsx").write_text(reader, "utf-8")
    result = carried(tmp_path, klass("static defaultProps = { size: 1 };"))
    assert ("Berth.defaultProps = { size: 1 };" in result.files[0].text) is kept


def test_a_pure_class_with_type_parameters_is_refused(tmp_path: Path) -> None:
    text = klass("", base="PureComponent<Props<T>>").replace("class Berth", "class Berth<T>")
    result = carried(tmp_path, text, "Berth.tsx")
    assert [f.rule for f in result.findings] == ["pure-with-type-parameters"]


def test_a_context_nobody_declared_is_left(tmp_path: Path) -> None:
    result = carried(tmp_path, klass("componentDidMount() { this.a = this.context.b; }"))
    assert result.status == "left" and result.findings[0].rule == "context-read"


LEFT_ELEMENTS = [
    "<Other />", "cond ? <p /> : <Other />", "<><p /></>", "this.props.children", "list.map((a) => <p />)",
    "<p ref={this.props.box} />", "<a.b />",
]  # fmt: skip


@pytest.mark.parametrize("drawn", LEFT_ELEMENTS)
def test_what_is_no_plain_element_cannot_be_found(drawn: str, tmp_path: Path) -> None:
    result = carried(tmp_path, klass("componentDidMount() { findDOMNode(this).focus(); }", drawn))
    assert "instance-escapes" in {f.rule for f in result.findings}


def test_what_must_be_drawn_each_time_is_said(tmp_path: Path) -> None:
    members = "state = { a: 1 }; componentWillReceiveProps(to) { this.setState({ a: to.a }); }"
    result = carried(tmp_path, klass(members, "<p>{this.state.a}</p>", "PureComponent"))
    assert [f.rule for f in result.findings] == ["draws-each-time"]
    assert "export default function Berth(props) {" in result.files[0].text


CONSTRUCTORS: list[tuple[str, list[str]]] = [
    ("const a = props.a; this.state = { a };", ["() => {\n      const a = aProp; return { a };\n    }"]),
    ("this.state = {}; if (props.a) this.state.a = 1;",
     ["const initial = {};", "initial.a = 1;", "return initial;"]),
    ("if (props.a) { this.state = { a: 1 }; } else { this.state = { a: 2 }; }",
     ["let initial;", "initial = { a: 1 };", "return initial;"]),
    ("this.list = []; const b = props.b; this.state = { b };", ["const list = useRef([]);"]),
    ("const b = props.b; this.first = b; this.state = { b }; this.last = 0;",
     ["first.current = b;", "const last = useRef(0);"]),
    ("this.state = { a: 1 }; this.state.b = this.state.a + 1;", ["initial.b = initial.a + 1;"]),
    ("const b = 1; this.state = { b, go: () => this.state.b };", ["go: () => latestState.current.b"]),
]  # fmt: skip


@pytest.mark.parametrize(("body", "lines"), CONSTRUCTORS)
def test_state_made_by_statements(body: str, lines: list[str], tmp_path: Path) -> None:
    members = f"constructor(props) {{ super(props); {body} }} list; first; last;"
    uses = "go = () => [this.list, this.first, this.last, this.setState({ a: 1 })];"
    text = klass(f"{members} {uses}", "<p onClick={this.go}>{this.state.a}{this.state.b}</p>")
    result = carried(tmp_path, text)
    assert result.status == "clean", result.findings
    for line in lines:
        assert line in result.files[0].text


IDLE = [
    "", ";", "const { a } = this.props;", "if (this.props.a !== to.a) { go(); }",
    "if (to.a !== this.props.a || to.b !== this.props.b) go();",
    "const { a, b: old } = this.props; if (a !== to.a || old !== to.b) go();",
    "if (this.props.a === to.a) return; go();", "if (this.props.a === to.a) { return; } else { go(); }",
    "if (!this.props.a && to.a) go();", "if (to.a && ready && !this.props.a) go();",
    "if (this.props.a.b !== to.a.b) go();", "const now = to.a; if (now !== this.props.a) go();",
    "if (!(this.props.a === to.a)) go();", "if (false) go();", "if (this.props['a'] !== to.a) go();",
]  # fmt: skip
ACTS = [
    "go();", "this.setState({ a: to.a });", "if (to.a) go();", "if (this.props.a !== to.b) go();",
    "if (this.props.a !== to.a || ready) go();", "if (this.props.a === to.a) go();", "const a = go();",
    "let now = to.a; now = 2; if (now !== this.props.a) go();", "if (changed(to)) return; go();",
    "if (ready) return; go();", "while (ready) go();", "to.a.push(1);", "this.count += 1;",
    "if (this.state.a !== to.a) go();", "if (other.a !== to.a) go();",
]  # fmt: skip


@pytest.mark.parametrize(
    ("body", "expected"), [(b, True) for b in IDLE] + [(b, False) for b in ACTS]
)
def test_what_does_nothing_where_no_input_changed(body: str, expected: bool) -> None:
    tree = Tree(SourceText("X.js", f"class X {{ receive(to) {{ {body} }} }}".encode()))
    method = tree.of("method_definition")[0]
    block, parameters = method.child("body"), method.child("parameters")
    assert block is not None and parameters is not None
    assert idle(block, parameters.named_children[0].child("pattern")) is expected
