"""Where a class may stand, what it is called there, and what its surroundings become."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

HEAD = "import React, { Component, PureComponent } from 'react';\n\n"
BODY = "{\n  render() {\n    return <p>{this.props.tide}</p>;\n  }\n}"


def carried(folder: Path, text: str, name: str = "tideStrip.jsx") -> Result:
    path = folder / name
    path.write_text(HEAD + text, "utf-8")
    return carry_file(Request(path, name, "jsx-function", runtime=18))[0]


PLACES = [
    ("class A extends Component @", "function A({ tide }) {"),
    ("export class A extends React.Component @", "export function A({ tide }) {"),
    ("export default class A extends Component @", "export default function A({ tide }) {"),
    ("export default class extends Component @", "export default function TideStrip({ tide }) {"),
    ("const A = class extends Component @;", "function A({ tide }) {"),
    ("export const A = class extends Component @;", "export function A({ tide }) {"),
    ("const A = class B extends Component @;", "const A = function B({ tide }) {"),
    ("let A = class extends Component @;", "let A = function TideStrip({ tide }) {"),
    ("const A: any = class extends Component @;", "const A: any = function TideStrip({ tide }"),
    (
        "module.exports = class extends Component @;",
        "module.exports = function TideStrip({ tide }) {",
    ),
    ("export default shown(class A extends Component @);", "shown(function A({ tide }) {"),
    (
        "export default shown(class extends PureComponent @);",
        "shown(memo(function TideStrip({ tide })",
    ),
    ("const A = class extends PureComponent @;", "const A = memo(function A({ tide }) {"),
    ("function make() { return class extends Component @; }", "function Make({ tide }) {"),
    ("const make = () => { return class extends Component @; };", "return Make;"),
    ("function make(Make) { return class extends Component @; }", "function TideStrip({ tide }) {"),
    ("function make() { class A extends Component @ return A; }", "function A({ tide }) {"),
    ("@shown class A extends Component @", "const A = shown(function A({ tide }) {"),
    ("@shown export class A extends Component @", "export const A = shown(function A({ tide }) {"),
    (
        "@shown(1) @told export default class A extends Component @",
        "shown(1)(told(function A({ tide })",
    ),
    ("@a.b class A extends PureComponent @", "const A = a.b(memo(function A({ tide }) {"),
]


@pytest.mark.parametrize(("text", "line"), PLACES)
def test_where_a_class_may_stand(tmp_path: Path, text: str, line: str) -> None:
    name = "tideStrip.tsx" if ": any" in text else "tideStrip.jsx"
    before, _, after = text.rpartition("@")
    result = carried(tmp_path, f"{before}{BODY}{after}\n", name)
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert line in written
    assert "class" not in written and ";;" not in written


REFUSED = [
    ("function make() { if (a) return class extends Component @; }", "class-in-expression"),
    ("const A = /* a */ class extends Component @;", "class-in-expression"),
    ("push(class extends Component { static kind = 1; render() { return <p/>; } });",
     "class-in-expression"),
    ("@shown class A extends Component { static kind = 1; render() { return <p/>; } }", "decorated"),
    ("const A = class extends Component @;\nclass B extends A @", "extended-by"),
    ("const A = class extends Component @;\nnew A();", "instance-escapes"),
    ("abstract class A extends Component @", "abstract-class"),
    ("class A extends Berth { render() { return <p/>; } }", "own-base"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "rule"), REFUSED)
def test_where_it_may_not(tmp_path: Path, text: str, rule: str) -> None:
    name = "tideStrip.tsx" if "abstract" in text else "tideStrip.jsx"
    result = carried(tmp_path, text.replace(" @", f" {BODY}") + "\n", name)
    assert result.status in ("refused", "left")
    assert rule in [finding.rule for finding in result.findings]


DERIVED = [
    ("if (p.a !== s.a) return { a: p.a }; return null;", True),
    ("if (s.a !== p.a) { return { a: p.a, n: 1 }; } else { return null; }", True),
    ("if (p.a && !s.a) { return { a: p.a }; }", True),
    ("if (!s.a && p.b > 1) { return { a: true }; } return null;", True),
    ("if (s.a && !p.a) { return { a: false }; } return {};", True),
    ("if (p.a !== s.a) return { b: p.a }; return null;", True),
    ("if (p.a != s.a) return { a: p.a }; return null;", True),
    ("if (p.a !== s.a || p.b) return { a: p.a }; return null;", True),
    ("if (changed(p.a, s.a)) return { a: p.a }; return null;", False),
    ("if (p.a !== s.a) return { ...p }; return null;", False),
    ("if (p.a !== s.a) return { a: p.a }; return { n: 1 };", False),
    ("if (p.a) return { a: [p.a] }; return null;", False),
    ("return { a: p.a };", True),
    ("const next = p.a; if (next !== s.a) return { a: next }; return null;", True),
]


@pytest.mark.parametrize(("body", "settles"), DERIVED)
def test_derived_state_is_carried_where_it_settles(
    tmp_path: Path, body: str, settles: bool
) -> None:
    text = (
        "class A extends Component {\n  state = { a: 1, b: 2, n: 3 };\n"
        f"  static getDerivedStateFromProps(p, s) {{ {body} }}\n"
        "  render() {\n    return <p>{this.state.a}{this.state.b}{this.state.n}</p>;\n  }\n}\n"
    )
    result = carried(tmp_path, text)
    assert (result.status == "clean") == settles
    assert settles or result.findings[0].rule == "derived-state"
    if settles:
        assert "return null;\n  }" in result.files[0].text


MADE = [
    ("check(props);", "useState(() => check(props));"),
    ("check(this.props.a); this.n = make();", "check(a);"),
    ("this.n = this.go(1);", "n.current = go(1);"),
    ("if (props.a) { this.n = 1; }", "if (a) { n.current = 1; }"),
    ("const { a } = props; check(a);", "check(a);"),
    ("const a = make(); check(a); this.n = () => a;", "n.current = () => a;"),
    ("this.id = this.go(1); this.n = this.id;", "n.current = id.current;"),
    ("check(() => this.setState({ open: true }));", "check(() => setOpen(true))"),
]
NOT_MADE = [
    "this.setState({ open: true });",
    "check(props); return undefined;",
    "this.load();",
    "check(props); this.n = this.id;",
]


@pytest.mark.parametrize(("code", "line"), [*MADE, *((code, "") for code in NOT_MADE)])
def test_other_code_of_a_constructor(tmp_path: Path, code: str, line: str) -> None:
    text = (
        "class A extends Component {\n"
        f"  constructor(props) {{\n    super(props);\n    {code}\n  }}\n"
        "  n = 0;\n  state = { open: false };\n  go(by) { return by + this.props.a; }\n"
        "  load() { this.setState({ open: true }); }\n"
        "  render() {\n    return <p onClick={() => this.load()}>"
        "{this.go(1)}{this.state.open}{this.n}</p>;\n  }\n}\n"
    )
    result = carried(tmp_path, text)
    assert (result.status == "clean") == bool(line), result.findings
    if line:
        assert line in result.files[0].text and "useState(() => " in result.files[0].text


EARLY = [
    ("state = { a: this.first() };", "first() { return this.state; }", False),
    ("state = { a: this.first() };", "first() { return this.n; }\n  n = 1;", False),
    ("state = { a: this.first() };", "first() { return this.second(); }\n  second() { return this.state; }",
     False),
    ("state = { a: this.first() };", "first() { return this.props.a; }", True),
    ("state = { a: this.first() };", "first() { return () => this.props.a; }", True),
    ("state = { a: this.first() };", "first() { return () => this.n; }\n  n = 1;", True),
]  # fmt: skip


@pytest.mark.parametrize(("state", "methods", "fits"), EARLY)
def test_a_method_called_for_the_first_state_uses_nothing_declared_after_it(
    tmp_path: Path, state: str, methods: str, fits: bool
) -> None:
    text = (
        f"class A extends Component {{\n  {state}\n  {methods}\n"
        "  render() {\n    return <p>{String(this.state.a)}{this.first()}</p>;\n  }\n}\n"
    )
    result = carried(tmp_path, text)
    assert (result.status == "clean") == fits
    assert fits or result.findings[0].rule == "initial-needs-method"


HANDED = [
    # (what a file of the project gives out, how the class is handed to it, whether that looks into it)
    ("export default (C) => { C.prototype.go = 1; return C; };", "export default lit(A);", True),
    ("export default (C) => (C.prototype ? one(C) : C);", "export default lit(A);", True),
    ("export default (C) => two(C);\nfunction two(D) { return new D(); }", "export default lit(A);", True),
    ("export default (more, C = null) => C.isReactComponent;", "export default lit(1, A);", True),
    ("export default (C) => (props) => <C {...props} />;", "export default lit(A);", False),
    ("export default (C) => two(C);\nfunction two(D) { return D.name; }", "export default lit(A);", False),
    ("export default (more, C) => more.prototype;", "export default lit(1, A);", False),
    ("export default ({ prototype }) => prototype;", "export default lit(A);", False),
]  # fmt: skip


@pytest.mark.parametrize(("wrapper", "handed", "looks"), HANDED)
def test_what_looks_into_the_class(wrapper: str, handed: str, looks: bool, tmp_path: Path) -> None:
    (tmp_path / "lit.js").write_text(f"{wrapper}\n", "utf-8")
    text = f"import lit from './lit';\n\nclass A extends Component {BODY}\n\n{handed}\n"
    result = carried(tmp_path, text)
    found = [f for f in result.findings if f.rule == "wrapper-looks-in"]
    assert bool(found) is looks or result.status == "refused"
    assert (result.status == "clean") is not looks
    if found:
        assert found[0].line == len((HEAD + text).splitlines())


EXTENDS = "export const lit = (size) => (C) => {\n  class Lit extends C {}\n  return Lit;\n};"
EXTENDED = [
    # (what a file of the project gives out, how the class is handed to it, whether that extends it)
    ("export function lit(C) { return class extends C {}; }", "export default lit(A);", True),
    (EXTENDS, "export default lit(3)(A);", True),
    (EXTENDS, "export default compose(dim, lit(3))(A);", True),
    (EXTENDS, "const wide = lit(3);\nexport default wide(A);", True),
    (EXTENDS, "const wide = compose(dim, lit(3));\nexport default wide(A);", True),
    (EXTENDS, "export default compose(dim, compose(lit(3)))(A);", True),
    ("export function lit(C) { return two(C); }\nconst two = (D) => class extends D {};",
     "export default compose(dim, lit)(A);", True),
    (EXTENDS, "export default lit(A)(dim);", False),
    ("export const lit = (C) => class extends Other { a() { return C; } };",
     "export default lit(A);", False),
    ("export const lit = (size) => (C) => (props) => <C {...props} />;",
     "export default lit(3)(A);", False),
]  # fmt: skip


@pytest.mark.parametrize(("wrapper", "handed", "extends"), EXTENDED)
@pytest.mark.parametrize(
    "passed", ["", "export lit from './lit.js'", "export { lit } from './lit.js'"]
)
def test_what_extends_the_class_it_is_handed(
    passed: str, wrapper: str, handed: str, extends: bool, tmp_path: Path
) -> None:
    if passed.startswith("export lit"):
        wrapper = wrapper.replace("export const lit = ", "export default ").replace(
            "export function", "export default function"
        )
    (tmp_path / "lit.js").write_text(f"{wrapper}\n", "utf-8")
    (tmp_path / "all.js").write_text(f"{passed};\n", "utf-8")
    source = "all" if passed else "lit"
    head = f"import {{ lit }} from './{source}';\nimport compose from 'compose';\n"
    result = carried(tmp_path, f"{head}\nclass A extends Component {BODY}\n\n{handed}\n")
    rules = [f.rule for f in result.findings]
    assert (rules == ["extended-by"]) is extends, rules
    assert (result.status == "refused") is extends


def test_a_decorator_that_looks_into_the_class(tmp_path: Path) -> None:
    (tmp_path / "lit.js").write_text("export const lit = (C) => C.prototype && C;\n", "utf-8")
    text = f"import {{ lit }} from './lit';\n\n@lit\nexport class A extends Component {BODY}\n"
    rules = [f.rule for f in carried(tmp_path, text).findings]
    assert rules == ["wrapper-looks-in", "decorator-called"]
