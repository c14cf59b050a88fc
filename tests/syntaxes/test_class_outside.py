"""What stands around a class and decides what it may become: packages, references, values made once."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

BERTH = """import React from 'react';
%s
class Berth extends React.Component {
  state = { lit: false };
  blink() { this.setState({ lit: !this.state.lit }); }
  render() { return <p onClick={() => this.blink()}>{String(this.state.lit)}</p>; }
}
%s
"""


def carried(folder: Path, text: str, name: str = "Berth.jsx", **options: Any) -> list[Result]:
    path = folder / name
    path.write_text(text, "utf-8")
    return carry_file(Request(path, name, "jsx-function", runtime=18, **options))


def package(folder: Path, text: str, **entry: str) -> None:
    """Install a package of this text."""
    inside = folder / "node_modules" / "lit-up"
    inside.mkdir(parents=True)
    main = entry.get("main", "index.js")
    (inside / "package.json").write_text(f'{{"name": "lit-up", "main": "{main}"}}')
    (inside / main).write_text(text)


WRAPPERS = [
    # (what the package holds, the status, the rule)
    ("export default (Inner) => class extends Inner {};", "refused", "extended-by"),
    ("module.exports = function (Inner) { return new Inner(); };", "refused", "extended-by"),
    (
        "exports.default = lit;\nfunction lit(Inner) { return class extends C { render() { return Inner(this.props); } }; }",
        "refused",
        "extended-by",
    ),
    (
        "export default (Inner) => (Inner.prototype ? a(Inner) : b(Inner));",
        "left",
        "wrapper-looks-in",
    ),
    (
        "export default (Inner) => (Inner.prototype && Inner.prototype.isReactComponent"
        " ? a(Inner) : (props) => Inner(props));\nfunction a(C) { C.prototype.render = 1; return C; }",
        "clean",
        "wrapper-looks-in",
    ),
    (
        "export default (Inner) => (Inner.prototype.isReactComponent"
        " ? Inner : class extends C { render() { return Inner(this.props); } });",
        "refused",
        "extended-by",
    ),
    ("export default (Inner) => (props) => h(Inner, props);", "clean", ""),
]


@pytest.mark.parametrize(("text", "status", "rule"), WRAPPERS)
def test_a_package_that_takes_the_class_is_read(
    text: str, status: str, rule: str, tmp_path: Path
) -> None:
    package(tmp_path, text)
    file = BERTH % ("import lit from 'lit-up';", "export default lit(Berth);")
    (result,) = carried(tmp_path, file)
    assert result.status == status, result.findings
    assert rule in {f.rule for f in result.findings} | {""}
    if rule:
        assert next(f for f in result.findings if f.rule == rule).line == len(file.splitlines()) - (
            file.endswith("\n\n")
        )


@pytest.mark.parametrize("call", ["lit(Berth)", "lit(3)(Berth)", "all.lit(Berth)"])
def test_a_package_that_is_missing_leaves_the_component_unclean(call: str, tmp_path: Path) -> None:
    imports = "import lit from 'lit-up';\nimport * as all from 'lit-up';"
    (result,) = carried(tmp_path, BERTH % (imports, f"export default {call};"))
    assert result.status == "left"
    assert [f.rule for f in result.findings] == ["handed-to-package"]
    assert result.files


def test_the_runtime_and_what_puts_functions_together_take_functions(tmp_path: Path) -> None:
    imports = "import { compose } from 'redux';\nimport { sized } from './sized';"
    (tmp_path / "sized.js").write_text(
        "export const sized = (n) => (C) => (props) => <C {...props} />;"
    )
    text = BERTH % (imports, "export default compose(React.memo, sized(3))(Berth);")
    assert carried(tmp_path, text)[0].status == "clean"


HOLDERS = [
    # (how a parent in another file uses its reference, what the handle must give)
    ("this.berth.blink();", "({ blink })"),
    ("const b = this.berth; b.lamp.focus();", "get lamp() { return lamp.current; }"),
    ("const { lamp } = this.berth;", "get lamp() { return lamp.current; }"),
    ("this.berth.lamp = null;", "set lamp(value) { lamp.current = value; }"),
]


@pytest.mark.parametrize("project", [True, False])
@pytest.mark.parametrize(("use", "given"), HOLDERS)
def test_what_a_parent_reaches_by_a_reference(
    use: str, given: str, project: bool, tmp_path: Path
) -> None:
    if project:
        (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "Pier.jsx").write_text(
        "import React from 'react';\nimport Berth from './Berth';\n"
        f"export class Pier extends React.Component {{ go() {{ {use} }}\n"
        "  render() { return <Berth ref={(berth) => (this.berth = berth)} />; } }\n"
    )
    text = (BERTH % ("", "export default Berth;")).replace(
        "<p ", "<p ref={(node) => (this.lamp = node)} "
    )
    (result,) = carried(tmp_path, text)
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert given in written
    assert "useImperativeHandle(ref, () => (" in written and "), []);" in written


@pytest.mark.parametrize("use", ["this.berth.setState({ lit: 1 });", "go(this.berth.state.lit);"])
def test_a_parent_that_reaches_into_the_instance(use: str, tmp_path: Path) -> None:
    pier = (
        f"class Pier extends React.Component {{ go() {{ {use} }}\n"
        "  render() { return <Berth ref={(berth) => { this.berth = berth; }} />; } }"
    )
    berth, _ = carried(tmp_path, BERTH % ("", pier))
    assert (berth.status, berth.findings[0].rule) == ("refused", "reached-from-outside")


MADE = "export const Harbour = React.createContext({ berths: [] });"
VALUES = [
    (MADE, "export { Harbour };"),
    ("export const KEY = Symbol('berth');", "export { KEY };"),
    ("export const seen = new WeakMap();", "export { seen };"),
    ("export const store = createStore(reduce);", "export { store };"),
    ("const Harbour = React.createContext(1);\nexport { Harbour };", "import { Harbour } from"),
]


@pytest.mark.parametrize(("made", "wanted"), VALUES)
def test_what_must_exist_once_is_imported_from_the_old_file(
    made: str, wanted: str, tmp_path: Path
) -> None:
    (result,) = carried(tmp_path, BERTH % (made, "export default Berth;"))
    written = result.files[0].text
    assert result.status == "clean" and wanted in written
    assert "from './Berth';" in written and made not in written
    assert "imported-from-old" in {f.rule for f in result.findings}
    (result,) = carried(tmp_path, BERTH % (made, "export default Berth;"), beside=False)
    assert made in result.files[0].text


def test_a_context_that_is_not_exported_and_shared(tmp_path: Path) -> None:
    made = "const Harbour = React.createContext(1);\nexport const useHarbour = () => React.useContext(Harbour);"
    text = BERTH % (made, "export default Berth;")
    assert carried(tmp_path, text)[0].status == "clean"
    text = text.replace("<p onClick", "<Harbour.Provider value={1} /> && <p onClick")
    (result,) = carried(tmp_path, text)
    assert (result.status, result.findings[0].rule) == ("refused", "made-once-unexported")


def test_a_provider_beside_the_old_one_is_verified_and_replaced(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Harbour.jsx").write_text(
        "import React from 'react';\n\nexport const Harbour = React.createContext('none');\n\n"
        "export default class Pier extends React.Component {\n  state = { name: 'Skail' };\n\n"
        "  render() {\n    return (\n      <Harbour.Provider value={this.state.name}>\n"
        "        <Harbour.Consumer>{(name) => <b>{name}</b>}</Harbour.Consumer>\n"
        "        <button onClick={() => this.setState({ name: 'Holm' })}>move</button>\n"
        "      </Harbour.Provider>\n    );\n  }\n}\n"
    )
    done = run(
        "carry", "Harbour.jsx", "--to", "jsx-function", "--write", "--verify", "--budget", "1"
    )
    assert done.returncode == 0, done.stdout
    assert ": same (" in done.stdout
    assert "import { Harbour } from './Harbour';" in (tmp_path / "Harbour.function.jsx").read_text()


def test_a_default_that_may_be_nothing_is_of_the_whole_type(tmp_path: Path) -> None:
    path = tmp_path / "Portal.tsx"
    path.write_text(
        "import React from 'react';\n\n"
        "interface Props { holder?: HTMLElement; marks?: string[] }\n\n"
        "export class Portal extends React.Component<Props> {\n"
        "  static defaultProps = { holder: typeof document !== 'undefined' ? document.body : undefined, "
        "marks: ['holm'] };\n"
        "  render() { return <b>{String(this.props.holder)}{this.props.marks}</b>; }\n}\n"
    )
    text = carry_file(Request(path, "Portal.tsx", "jsx-function"))[0].files[0].text
    assert "const defaultHolder: Props['holder'] = typeof document" in text
    assert "const defaultMarks: NonNullable<Props['marks']> = ['holm'];" in text
