"""What classes inherit from bases of the project is written into them."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.exports import declared, exported
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace

VIEW = """import React, { Component } from 'react';
import { isTest, warn } from './tools';

/** What all views of the harbour share. */
export class HarbourView extends Component {
  timers = [];

  constructor(props) {
    super(props);
    if (!isTest()) {
      this.check(props);
    }
  }

  componentDidUpdate() {
    if (!isTest()) {
      this.check(this.props);
    }
  }

  componentWillUnmount() {
    this.clearTimers();
  }

  /** Wait, and forget about it when the view goes. */
  later(callback, wait) {
    const timer = setTimeout(callback, wait);
    this.timers.push(timer);
    return () => clearTimeout(timer);
  }

  clearTimers = () => {
    if (this.timers.length > 0) {
      for (const timer of this.timers) {
        clearTimeout(timer);
      }
      this.timers = [];
    }
  };

  check(props) {
    // heirs check what they are given
  }

  label(text) {
    return `${text} · ${this.props.port}`;
  }

  shout(word) {
    warn(word);
  }
}
"""
TOOLS = """export function isTest() {
  return typeof process !== 'undefined' && process.env.NODE_ENV === 'test';
}
export function warn(text) {
  console.warn(text);
}
"""
DRAWS = "  render() {\n    return <p>{this.props.tide}</p>;\n  }\n"


def project(folder: Path, view: str = VIEW) -> None:
    (folder / "common").mkdir(exist_ok=True)
    (folder / "common/harbourView.jsx").write_text(view, "utf-8")
    (folder / "common/tools.js").write_text(TOOLS, "utf-8")
    (folder / "common/index.js").write_text("export * from './harbourView';\n", "utf-8")
    (folder / "clean-carry.toml").write_text("", "utf-8")


def heir(body: str, imports: str = "import { HarbourView } from './common';") -> str:
    head = f"import React from 'react';\n{imports}\n\n"
    return f"{head}export default class Quay extends HarbourView {{\n{body}}}\n"


def carried(folder: Path, text: str, name: str = "Quay.jsx") -> Result:
    path = folder / name
    path.write_text(text, "utf-8")
    return carry_file(Request(path, name, "jsx-function", runtime=18))[0]


def new_text(folder: Path, body: str, view: str = VIEW) -> str:
    project(folder, view)
    result = carried(folder, heir(body))
    assert result.status == "clean", result.findings
    return result.files[0].text


def test_an_heir_without_need_of_it_gets_nothing(tmp_path: Path) -> None:
    assert new_text(tmp_path, DRAWS) == (
        "import React from 'react';\n\n"
        "export default function Quay({ tide }) {\n  return <p>{tide}</p>;\n}\n"
    )


def test_a_helper_comes_with_what_cleans_up_after_it(tmp_path: Path) -> None:
    mount = "  componentDidMount() {\n    this.later(this.props.onTide, 200);\n  }\n\n"
    text = new_text(tmp_path, mount + DRAWS)
    assert "/** Wait, and forget about it when the view goes. */\n  function later(" in text
    assert "timers.current.push(timer);" in text
    assert "return () => clearTimers();" in text
    for absent in ("isTest", "check", "label", "shout", "HarbourView"):
        assert absent not in text


def test_what_an_heir_fills_in_is_called_where_the_base_does(tmp_path: Path) -> None:
    check = "  check(props) {\n    if (!props.tide) throw new Error('no tide');\n  }\n\n"
    text = new_text(tmp_path, check + DRAWS)
    assert "import { isTest } from './common/tools';\n" in text
    assert "if (!isTest()) {\n      check(props);\n    }" in text
    assert text.count("isTest()") == 2
    assert "timers" not in text


def test_a_call_of_the_base_is_its_statements(tmp_path: Path) -> None:
    hooks = (
        "  componentWillUnmount() {\n    super.componentWillUnmount();\n    this.props.onLeave();\n  }\n\n"
        "  shout(text) {\n    super.shout(text);\n    this.props.onShout();\n  }\n\n"
        "  label(text) {\n    return '* ' + super.label(text);\n  }\n\n"
        "  componentDidMount() {\n    this.shout(this.label('Holm'));\n  }\n\n"
    )
    text = new_text(tmp_path, hooks + DRAWS)
    assert "    warn(text);\n    onShout();" in text
    assert "return '* ' + (`${text} · ${port}`);" in text
    assert "clearTimers" not in text  # nothing waits
    assert "import { warn } from './common/tools';" in text


def test_the_constructor_of_the_base_runs_in_that_of_the_heir(tmp_path: Path) -> None:
    view = VIEW.replace(
        "    if (!isTest()) {\n      this.check(props);\n    }\n", "    this.born = 1;\n"
    )
    body = "  constructor(props) {\n    super(props);\n    this.state = { open: true };\n  }\n\n"
    shown = "  render() {\n    return <p>{this.born}{String(this.state.open)}</p>;\n  }\n"
    text = new_text(tmp_path, body + shown, view)
    assert "const born = useRef(1);" in text
    assert "{born.current}" in text


def test_statics_given_after_the_base_are_inherited(tmp_path: Path) -> None:
    view = VIEW + "\nHarbourView.defaultProps = { tide: 'low' };\n"
    text = new_text(tmp_path, DRAWS, view)
    assert "export default function Quay({ tide = 'low' }) {" in text
    own = "  static defaultProps = { tide: 'high' };\n\n"
    assert "{ tide = 'high' }" in new_text(tmp_path, own + DRAWS, view)


def test_bases_of_bases(tmp_path: Path) -> None:
    project(tmp_path)
    view = (
        "import { HarbourView } from './common';\n\nexport class PierView extends HarbourView {\n"
    )
    view += "  boards() {\n    return this.label('Boards');\n  }\n}\n"
    (tmp_path / "pierView.jsx").write_text(view, "utf-8")
    shown = "  render() {\n    return <p>{this.boards()}</p>;\n  }\n"
    text = heir(shown, "import { PierView } from './pierView';").replace("HarbourView", "PierView")
    result = carried(tmp_path, text)
    assert result.status == "clean"
    new = result.files[0].text
    assert "function boards() {\n    return label('Boards');\n  }" in new
    assert "return `${text} · ${port}`;" in new


TYPED = """import * as React from "react";

export interface Named { name: string; }

export abstract class HarbourView<P, S = {}> extends React.PureComponent<P, S> {
    public componentWillUpdate!: never;
    protected abstract title(): string;

    protected of(props: P): P {
        return props;
    }
}
"""


def test_types_of_the_base_are_those_the_heir_gives(tmp_path: Path) -> None:
    project(tmp_path)
    (tmp_path / "common/harbourView.jsx").unlink()
    (tmp_path / "common/harbourView.tsx").write_text(TYPED, "utf-8")
    text = (
        'import * as React from "react";\nimport { HarbourView, Named } from "./common";\n\n'
        "export class Quay extends HarbourView<Named> {\n"
        "    protected title() {\n        return this.of(this.props).name;\n    }\n\n"
        "    public render() {\n        return <p>{this.title()}</p>;\n    }\n}\n"
    )
    result = carried(tmp_path, text, "Quay.tsx")
    assert result.status == "clean", result.findings
    new = result.files[0].text
    assert 'import { Named } from "./common";' in new
    assert "React.memo(function Quay(props: Named) {" in new
    assert "function of(props: Named): Named {" in new
    assert "componentWillUpdate" not in new


def test_help_for_classes_goes(tmp_path: Path) -> None:
    text = (
        "import React, { Component } from 'react';\nimport { polyfill } from 'react-lifecycles-compat';\n\n"
        "@polyfill\nexport class Quay extends Component {\n  static displayName = 'Quay';\n\n"
        + DRAWS
    )
    result = carried(tmp_path, text + "}\n")
    assert result.status == "clean", result.findings
    assert "polyfill" not in result.files[0].text
    assert "export function Quay({ tide }) {" in result.files[0].text
    assert "class-lifecycle-help" in [entry.rule for entry in result.entries]


REFUSED = [
    ("draws itself", VIEW.replace("  shout(word)", f"{DRAWS}\n  shout(word)"), DRAWS),
    ("extends nothing", VIEW.replace(" extends Component", ""), DRAWS),
    ("a member that is not read", VIEW.replace("  timers = [];", "  [name()] = 1;"), DRAWS),
    ("lines long", VIEW.replace("    warn(word);\n", "    warn(word);\n" * 120), DRAWS),
    (
        "makes use of what its later gives",
        VIEW,
        "  later(a) {\n    const stop = super.later(a, 1);\n    return stop;\n  }\n\n" + DRAWS,
    ),
    ("asks it for setState", VIEW, "  save() {\n    super.setState({});\n  }\n\n" + DRAWS),
    (
        "which its file keeps to itself",
        VIEW.replace("warn(word)", "own(word)") + "\nfunction own() {}\n",
        "  componentDidMount() {\n    this.shout('a');\n  }\n\n" + DRAWS,
    ),
    (
        "asks for what is made after it",
        VIEW,
        "  state = { open: true };\n\n  check() {\n    this.state.open.now();\n  }\n\n" + DRAWS,
    ),
    (
        "gives its result later",
        VIEW.replace("  shout(word) {", "  async shout(word) {"),
        "  shout() {\n    super.shout(1);\n  }\n\n  go() {\n    this.shout();\n  }\n\n" + DRAWS,
    ),
    (
        "does something in what it gives",
        VIEW,
        "  check(props) {\n    super.check(this.props.onCheck());\n  }\n\n" + DRAWS,
    ),
    (
        "names that meet those it is given",
        VIEW.replace("    warn(word);", "    word = 1;\n    warn(word);"),
        "  shout(a) {\n    super.shout(a);\n  }\n\n" + DRAWS,
    ),
    (
        "names that meet those it is given",
        VIEW.replace("    warn(word);", "    [1].forEach((a) => warn(word, a));"),
        "  shout(a) {\n    super.shout(a);\n  }\n\n" + DRAWS,
    ),
    ("hands on something else", VIEW.replace("super(props)", "super({ ...props })"), DRAWS),
    ("a member twice", VIEW.replace("  shout(", "  set shout(a) {}\n\n  shout("), DRAWS),
    ("#own of its own", VIEW.replace("timers = [];", "#own = 1;"), "  #own = 2;\n\n" + DRAWS),
    (
        "text over several lines",
        VIEW.replace("`${text} ·", "`${text}\n ·"),
        "  componentDidMount() {\n    this.label('a');\n  }\n\n" + DRAWS,
    ),
]  # fmt: skip


@pytest.mark.parametrize(("reason", "view", "body"), REFUSED)
def test_a_base_that_is_not_read_in(tmp_path: Path, reason: str, view: str, body: str) -> None:
    project(tmp_path, view)
    result = carried(tmp_path, heir(body))
    assert result.status == "refused"
    (finding,) = result.findings
    assert finding.rule == "own-base"
    assert reason in finding.message


def test_a_name_that_means_something_else_here(tmp_path: Path) -> None:
    project(tmp_path)
    body = "  componentDidMount() {\n    this.shout('a');\n  }\n\n" + DRAWS
    imports = "import { HarbourView } from './common';\nimport { warn } from './other';"
    result = carried(tmp_path, heir(body.replace("a');", "a');\n    warn('b');"), imports))
    text = result.files[0].text
    assert "import { warn as baseWarn } from './common/tools';" in text
    assert "baseWarn(word);" in text
    assert "warn('b');" in text


def test_a_name_that_means_something_else_and_has_no_other(tmp_path: Path) -> None:
    project(tmp_path)
    body = "  componentDidMount() {\n    this.shout('a');\n  }\n\n" + DRAWS
    imports = "import { HarbourView } from './common';\nimport { warn, baseWarn } from './other';"
    result = carried(tmp_path, heir(body, imports))
    assert result.status == "refused"
    assert "warn, which is something else here" in result.findings[0].message


def test_a_finding_in_the_base_names_its_place(tmp_path: Path) -> None:
    view = VIEW.replace("  componentDidUpdate() {", "  componentWillUpdate() {")
    project(tmp_path, view)
    body = "  check() {\n    this.props.onCheck();\n  }\n\n" + DRAWS
    result = carried(tmp_path, heir(body))
    (finding,) = result.findings
    assert finding.rule == "legacy-hook"
    line = view[: view.index("componentWillUpdate")].count("\n") + 1
    assert (finding.file, finding.line) == ("common/harbourView.jsx", line)


def test_carried_and_verified_by_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path)
    body = (
        "  state = { open: false };\n\n"
        "  componentDidMount() {\n    this.later(() => this.setState({ open: true }), 200);\n  }\n\n"
        "  check(props) {\n    if (props.tide === 'high') {\n      this.shout('high');\n    }\n  }\n\n"
        "  render() {\n    return <p>{this.state.open ? this.label(this.props.tide) : 'closed'}</p>;\n  }\n"
    )
    (tmp_path / "Quay.jsx").write_text(heir(body), "utf-8")
    done = run("carry", "Quay.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stdout + done.stderr
    assert "[base-read-in]" in done.stdout
    assert "HarbourView, common/harbourView.jsx" in done.stdout
    done = run("verify", "Quay.jsx", "Quay.function.jsx", "--budget", "4")
    assert done.returncode == 0, done.stdout + done.stderr
    assert "same" in done.stdout


# -- what it stands on -----------------------------------------------------------------------


def test_places_of_a_text_with_others_in_it() -> None:
    old = SourceText("Quay.jsx", b"one\ntwo\nthree\n")
    merged = MergedText(old, [Edit(4, 4, "new\nlines\n"), Edit(4, 7, "2")])
    assert merged.data == b"one\nnew\nlines\n2\nthree\n"
    assert merged.place(merged.data.index(b"one")).line == 1
    assert merged.place(merged.data.index(b"lines")).line == 2
    assert merged.place(merged.data.index(b"three")) == old.place(8)
    assert merged.moved(8) == merged.data.index(b"three")
    assert MergedText(SourceText("a", b"a\r\nb\r\n"), []).crlf


def test_a_name_is_followed_through_what_passes_it_on(tmp_path: Path) -> None:
    project(tmp_path)
    (tmp_path / "all.js").write_text(
        "export { HarbourView as View, default as none } from './common';\n"
        "import { warn } from './common/tools';\nexport { warn };\nexport default warn;\n"
    )
    workspace = Workspace(tmp_path / "Quay.jsx")
    view = exported("View", tmp_path / "all.js", workspace)
    assert view is not None
    assert view.file.name == "harbourView.jsx"
    for name in ("warn", "default"):
        found = exported(name, tmp_path / "all.js", workspace)
        assert found is not None
        assert found.node.type == "function_declaration"
    assert exported("none", tmp_path / "all.js", workspace) is None
    tree = Tree(SourceText("a.js", b"import { View as V } from './all';\nconst K = V, W = 1;\n"))
    assert declared("V", tree, tmp_path / "a.js", workspace) == view
    number = declared("W", tree, tmp_path / "a.js", workspace)
    assert number is not None
    assert number.node.text == "1"
    assert declared("X", tree, tmp_path / "a.js", workspace) is None


IMPORTS = [
    # (imports of the heir's file, what stands there after)
    ("import { HarbourView } from './common';\n", ""),
    ("import { HarbourView, } from './common';\n", ""),
    ("import { HarbourView, warn } from './common';\n", "import { warn } from './common';\n"),
    ("import { warn, HarbourView } from './common';\n", "import { warn } from './common';\n"),
    ("import { warn, HarbourView, } from './common';\n", "import { warn, } from './common';\n"),
    (
        "import {\n  HarbourView,\n  warn,\n} from './common';\n",
        "import {\n  warn,\n} from './common';\n",
    ),
    (
        "import {\n  warn,\n  HarbourView,\n} from './common';\n",
        "import {\n  warn,\n} from './common';\n",
    ),
    ("import HarbourView, { warn } from './view';\n", "import { warn } from './view';\n"),
    ("import HarbourView from './view';\n", ""),
    ("import { Other as HarbourView } from './common';\n", ""),
    ("import { HarbourView } from './common';\nexport { HarbourView };\n", None),
]


@pytest.mark.parametrize(("before", "after"), IMPORTS)
def test_the_import_of_the_base_goes(before: str, after: str | None, tmp_path: Path) -> None:
    project(tmp_path)
    (tmp_path / "common/index.js").write_text(
        "export * from './harbourView';\nexport * from './tools';\n"
        "export { HarbourView as Other } from './harbourView';\n"
    )
    (tmp_path / "view.js").write_text(
        "export { HarbourView as default } from './common';\nexport { warn } from './common';\n"
    )
    body = "  go() {\n    warn(1);\n  }\n\n  render() {\n    return <p onClick={() => this.go()} />;\n  }\n"
    if "warn" not in before:
        body = DRAWS
    head = "import React from 'react';\n"
    text = f"{head}{before}\nexport default class Quay extends HarbourView {{\n{body}}}\n"
    result = carried(tmp_path, text)
    assert result.status == "clean", result.findings
    new = result.files[0].text
    kept = before if after is None else after
    assert new.startswith(f"{head}{kept}\nexport default function Quay(")


ADDED = [
    ("import { warn } from './tools';", "import { warn } from './common/tools';"),
    ("import warn from './tools';", "import warn from './common/tools';"),
    ("import * as warn from './tools';", "import * as warn from './common/tools';"),
    (
        "import { isTest as warn } from './tools';",
        "import { isTest as warn } from './common/tools';",
    ),
    ("import { warn } from 'tools';", "import { warn } from 'tools';"),
    ("export const warn = (word) => word;", "import { warn } from './common/harbourView';"),
]


@pytest.mark.parametrize(("before", "after"), ADDED)
def test_what_the_base_uses_is_imported(before: str, after: str, tmp_path: Path) -> None:
    view = VIEW.replace("import { isTest, warn } from './tools';", before)
    view = view.replace("!isTest()", "true")
    mount = "  componentDidMount() {\n    this.shout('a');\n  }\n\n  check() {}\n\n"
    text = new_text(tmp_path, mount + DRAWS, view)
    assert f"from 'react';\n{after}\n" in text


def test_two_heirs_in_a_file(tmp_path: Path) -> None:
    project(tmp_path)
    one = "class One extends HarbourView {\n" + DRAWS + "}\n\n"
    two = "export class Two extends HarbourView {\n  componentDidMount() {\n    this.shout('b');\n  }\n\n"
    text = "import React from 'react';\nimport { HarbourView } from './common';\n\n" + one + two
    path = tmp_path / "Both.jsx"
    path.write_text(text + DRAWS + "}\n\nexport { One };\n", "utf-8")
    results = carry_file(Request(path, "Both.jsx", "jsx-function", runtime=18))
    assert [result.status for result in results] == ["clean", "clean"]
    assert [[f.rule for f in result.findings] for result in results] == [["base-read-in"]] * 2
    new = results[0].files[0].text
    assert "import { warn } from './common/tools';" in new
    assert "HarbourView" not in new
    assert new.count("function shout(word) {") == 1


HELD = """import * as React from "react";

import { Deck, Size } from "./deck";

interface Props {
    open: boolean;
}

export class Berth extends React.PureComponent<Props> {
    public static displayName = "Harbour.Berth";

    /** How long it is. */
    public static Length = Size.LONG;

    public static of(name: string) {
        return name;
    }

    public render() {
        return <Deck open={this.props.open} />;
    }
}
"""


def test_statics_of_a_typed_component_that_is_wrapped(tmp_path: Path) -> None:
    result = carried(tmp_path, HELD, "Berth.tsx")
    assert result.status == "clean", result.findings
    assert result.files[0].text.endswith(
        """export const Berth = Object.assign(
    React.memo(function Berth({ open }: Props) {
        return <Deck open={open} />;
    }),
    {
        displayName: "Harbour.Berth",
        /** How long it is. */
        Length: Size.LONG,
        of(name: string) {
            return name;
        },
    }
);
"""
    )
    names_itself = HELD.replace("return name;", "return Berth.Length + name;")
    new = carried(tmp_path, names_itself, "Berth.tsx").files[0].text
    assert "Berth.Length = Size.LONG;" in new
    known = HELD.replace("public static Length", "public static propTypes")
    known = known.replace(
        "    public static of(name: string) {\n        return name;\n    }\n\n", ""
    )
    new = carried(tmp_path, known, "Berth.tsx").files[0].text
    assert 'Berth.displayName = "Harbour.Berth";' in new
    assert "Object.assign" not in new


def test_types_of_what_makes_a_pure_state(tmp_path: Path) -> None:
    text = HELD.replace("PureComponent<Props>", "PureComponent<Props, State>").replace(
        "interface Props",
        "interface State {\n    at: string;\n    far: number;\n}\n\ninterface Props",
    )
    state = "    public state: State = { at: tell(this.props.open), far: 1 };\n\n    public render() {\n"
    text = text.replace("    public render() {\n", state)
    text = text.replace(
        "<Deck", "<Deck onGo={() => this.setState(this.props.next)} state={this.state}"
    )
    new = carried(tmp_path, text, "Berth.tsx").files[0].text
    assert "change: Partial<State> | ((before: State) => Partial<State> | null)) => {" in new
    assert "(Object.keys(patch) as (keyof State)[]).every(" in new
    assert "(): State => ({ at: tell(open), far: 1 })" in new


def test_arguments_a_typed_heir_does_not_take(tmp_path: Path) -> None:
    project(tmp_path)
    (tmp_path / "common/harbourView.jsx").unlink()
    base = TYPED.replace(
        "    protected of(",
        "    public componentDidUpdate() {\n        this.check(this.props, 2);\n    }\n\n    protected of(",
    )
    (tmp_path / "common/harbourView.tsx").write_text(base, "utf-8")
    text = (
        'import * as React from "react";\nimport { HarbourView, Named } from "./common";\n\n'
        "export class Quay extends HarbourView<Named> {\n    protected check(NEEDS) {\n"
        "        console.warn(NEEDS);\n    }\n\n"
        "    public render() {\n        return <p>{this.props.name}</p>;\n    }\n}\n"
    )
    for needs, call in (
        ("", "check();"),
        ("one: Named", "check(props);"),
        ("...all: Named[]", "2);"),
    ):
        result = carried(
            tmp_path, text.replace("NEEDS", needs, 1).replace("NEEDS", "1"), "Quay.tsx"
        )
        assert result.status == "clean", result.findings
        assert call in result.files[0].text, needs


def test_a_name_that_stands_for_itself_where_it_is_given_another(tmp_path: Path) -> None:
    view = VIEW.replace("    warn(word);", "    warn({ word });")
    body = "  shout(text) {\n    super.shout(text);\n    this.props.onShout();\n  }\n\n"
    mount = "  componentDidMount() {\n    this.shout('a');\n  }\n\n"
    assert "warn({ word: text });" in new_text(tmp_path, body + mount + DRAWS, view)


def test_arguments_nobody_takes_in_a_constructor(tmp_path: Path) -> None:
    project(tmp_path)
    (tmp_path / "common/harbourView.jsx").unlink()
    made = (
        "    constructor(props: P) {\n        super(props);\n        this.check(props, 1);\n    }\n\n"
        "    protected of("
    )
    base = TYPED.replace("    protected of(", made)
    (tmp_path / "common/harbourView.tsx").write_text(base, "utf-8")
    text = (
        'import * as React from "react";\nimport { HarbourView, Named } from "./common";\n\n'
        "export class Quay extends HarbourView<Named> {\n    constructor(given: Named) {\n"
        "        super(given);\n    }\n\n    protected check() {\n        console.warn(1);\n    }\n\n"
        "    public render() {\n        return <p>{this.props.name}</p>;\n    }\n}\n"
    )
    result = carried(tmp_path, text, "Quay.tsx")
    assert result.status == "clean", result.findings
    assert "React.useState(() => check());" in result.files[0].text
