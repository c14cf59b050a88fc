"""A folder of heirs, their base, and annotated scripts, through the program."""

from __future__ import annotations

import json
from pathlib import Path

BASE = """import React, { Component } from 'react';

export class FerryView extends Component {
  notes = [];

  componentWillUnmount() {
    this.notes.forEach((note) => note.close());
  }

  note(text) {
    this.notes.push({ text, close() {} });
    this.props.onNote(text);
  }
}
"""
HEIR = """import React from 'react';
import { FerryView } from './ferryView';

export default class @ extends FerryView {
  render() {
    return <button onClick={() => this.note('@')}>{this.props.tide}</button>;
  }
}
"""
BOARD = """/* @flow */
import React, { Component } from 'react';

type Props = { tide: ?string };

export default class Board extends Component<Props> {
  render() {
    return <p>{this.props.tide}</p>;
  }
}
"""


def project(folder: Path) -> None:
    (folder / "clean-carry.toml").write_text('sources = ["src"]\n')
    (folder / "src").mkdir()
    (folder / "src/ferryView.jsx").write_text(BASE)
    (folder / "src/Board.jsx").write_text(BOARD)
    for name in ("Berth", "Quay"):
        (folder / f"src/{name}.jsx").write_text(HEIR.replace("@", name))


def test_a_folder_with_bases_and_annotations(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path)
    done = run("carry", "src", "--to", "jsx-function", "--write", "--verify", "--budget", "2")
    # The base itself is no component: it is told apart, and stays.
    assert done.returncode == 1
    assert "FerryView: refused" in done.stdout
    assert "3 clean" in done.stdout
    written = sorted(path.name for path in (tmp_path / "src").glob("*.function.jsx"))
    assert written == ["Berth.function.jsx", "Board.function.jsx", "Quay.function.jsx"]
    berth = (tmp_path / "src/Berth.function.jsx").read_text()
    assert "notes.current.push({ text, close() {} });" in berth
    assert (
        "export default function Board({ tide }: Props) {"
        in (tmp_path / "src/Board.function.jsx").read_text()
    )


def test_what_is_told_of_a_base(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path)
    done = run("carry", "src/Berth.jsx", "--to", "jsx-function", "--json")
    (result,) = json.loads(done.stdout)["results"]
    (finding,) = result["findings"]
    assert (finding["rule"], finding["line"]) == ("base-read-in", 4)
    assert "FerryView, ferryView.jsx" in finding["message"]
    lines = len(HEIR.splitlines())
    assert all(1 <= entry["line"] <= lines for entry in result["ledger"]["entries"])
    for rule in ("base-read-in", "wrapper-looks-in", "own-base"):
        assert "Advice" in run("explain", rule).stdout


def test_a_heir_that_differs_is_told_apart(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path)
    run("carry", "src/Berth.jsx", "--to", "jsx-function", "--write")
    new = tmp_path / "src/Berth.function.jsx"
    new.write_text(new.read_text().replace("onNote(text);", "onNote('x');"))
    done = run("verify", "src/Berth.jsx", "src/Berth.function.jsx", "--budget", "3")
    assert done.returncode == 1
    assert "onNote" in done.stdout


PANE = """import React from 'react';

const CLOSING = ['mouseup', 'touchend'];

export class Pane extends React.Component {
  constructor(props) {
    super(props);
    this.told = this.told.bind(this);
  }

  told(event) {
    this.onOutside(event);
  }

  componentDidMount() {
    const { tide } = this.props;
    document.title = tide || 'none';
    if (typeof this.onOutside === 'function') {
      CLOSING.forEach((name) => document.addEventListener(name, this.told));
    }
  }

  componentWillUnmount() {
    if (typeof this.onOutside === 'function') {
      CLOSING.forEach((name) => document.removeEventListener(name, this.told));
    }
  }
}

Pane.defaultProps = { tide: 'low' };
"""
CLOSED = """import React from 'react';
import { Pane } from './pane';

export default class @ extends Pane {
  state = { closed: 0 };
!
  render() {
    return (
      <p>
        {this.props.tide} {this.state.closed}
      </p>
    );
  }
}

@.defaultProps = { ...Pane.defaultProps, closed: 0 };
"""
OUTSIDE = "\n  onOutside() {\n    this.setState((state) => ({ closed: state.closed + 1 }));\n  }\n"


def test_hooks_of_a_base_that_heirs_have_or_have_not(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "clean-carry.toml").write_text('sources = ["src"]\n')
    (tmp_path / "src").mkdir()
    (tmp_path / "src/pane.jsx").write_text(PANE)
    for name, members in (("Quay", ""), ("Berth", OUTSIDE)):
        (tmp_path / f"src/{name}.jsx").write_text(CLOSED.replace("@", name).replace("!", members))
    done = run("carry", "src", "--to", "jsx-function", "--write", "--verify", "--budget", "3")
    assert "2 same" in done.stdout
    quay, berth = ((tmp_path / f"src/{n}.function.jsx").read_text() for n in ("Quay", "Berth"))
    assert "addEventListener" not in quay
    assert "document.addEventListener(name, told)" in berth
    assert "const CLOSING = ['mouseup', 'touchend'];" in berth
    for text in (quay, berth):
        assert ".defaultProps = { ...Pane.defaultProps, closed: 0 };" in text


def test_a_script_that_only_looks_annotated_is_run(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "between.js").write_text(
        "export function between(low: number, high: ?number): number {\n"
        "  return (low + (high || 0)) / 2;\n}\n"
    )
    (tmp_path / "Tide.jsx").write_text(
        "import React from 'react';\nimport { between } from './between';\n\n"
        "export default ({ low, high }) => <p>{between(low, high)}</p>;\n"
    )
    done = run("verify", "Tide.jsx", "Tide.jsx", "--budget", "2")
    assert done.returncode == 0
    assert "same" in done.stdout


# Types of the other kind are not for the tool that takes these away: it would take more.
TYPED = """import React from 'react';

enum Tide { Low = 1, High }

export default function Berth({ at }: { at: number }): any {
  const shown = (name: string): string => `${name} ${Tide[at]} ${Tide.High as number}`;
  return <p>{shown('tide')}</p>;
}
"""


def test_scripts_with_types_of_the_other_kind_are_run_as_they_are(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Berth.tsx").write_text(TYPED)
    (tmp_path / "Other.tsx").write_text(TYPED.replace("High }", "High = 3 }"))
    same = run("verify", "Berth.tsx", "Berth.tsx", "--budget", "1")
    assert same.returncode == 0, same.stdout + same.stderr
    assert run("verify", "Berth.tsx", "Other.tsx", "--budget", "2").returncode == 1
