"""`clean-carry carry` through the built program."""

from __future__ import annotations

import json
from pathlib import Path

from tests_support import CLASS


def test_preview_writes_nothing(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    done = run("carry", "X.jsx", "--to", "jsx-function")
    assert done.returncode == 0
    assert "+++ X.function.jsx" in done.stdout
    assert "+  const [open, setOpen] = useState(false);" in done.stdout
    assert "Berth: clean · constructs:" in done.stdout
    assert "\x1b[" not in done.stdout
    assert [p.name for p in tmp_path.iterdir()] == ["X.jsx"]


def test_json_shape(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    done = run("carry", "X.jsx", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert set(result) == {
        "source",
        "component",
        "from",
        "to",
        "status",
        "files",
        "ledger",
        "interface",
        "findings",
    }
    assert (result["component"], result["from"], result["status"]) == (
        "Berth",
        "jsx-class",
        "clean",
    )
    assert set(result["ledger"]) == {"kept", "carried", "dropped", "left", "entries"}
    assert sum(result["ledger"][k] for k in ("kept", "carried", "dropped", "left")) == len(
        result["ledger"]["entries"]
    )
    assert result["files"][0]["path"] == "X.function.jsx"
    assert "function Berth()" in result["files"][0]["text"]


def test_findings_name_the_place(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = CLASS.replace(
        "  render", "  go = () => {\n    this.forceUpdate(done);\n  };\n\n  render"
    )
    text = text.replace("() => this.setState({ open: true })", "this.go")
    (tmp_path / "X.jsx").write_text(text)
    done = run("carry", "X.jsx", "--to", "jsx-function", "--json")
    assert done.returncode == 1
    finding = json.loads(done.stdout)["results"][0]["findings"][0]
    assert (finding["rule"], finding["level"]) == ("forced-update", "warning")
    assert (finding["file"], finding["line"], finding["column"]) == ("X.jsx", 7, 5)
    assert finding["advice"]


def test_write_out_and_replace(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    assert run("carry", "X.jsx", "--to", "jsx-function", "--out", "there").returncode == 0
    written = (tmp_path / "there" / "X.function.jsx").read_text()
    assert run("carry", "X.jsx", "--to", "jsx-function", "--write").returncode == 0
    assert (tmp_path / "X.function.jsx").read_text() == written
    assert (tmp_path / "X.jsx").read_text() == CLASS
    done = run("carry", "X.jsx", "--to", "jsx-function", "--replace", "--force")
    assert done.returncode == 0
    assert (tmp_path / "X.jsx").read_text() == written


def test_refused_writes_nothing(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS.replace("extends Component", "extends Vessel"))
    done = run("carry", "X.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 1
    assert "own-base" in done.stdout
    assert [p.name for p in tmp_path.iterdir()] == ["X.jsx"]


def test_colour_only_where_it_is_wanted(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    assert (
        "\x1b[" not in run("carry", "X.jsx", "--to", "jsx-function", env={"NO_COLOR": "1"}).stdout
    )


def test_older_runtimes_keep_what_is_written_together(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = CLASS.replace("state = { open: false }", "state = { open: false, by: '' }").replace(
        "{ open: true }", "{ open: true, by: 'crew' }"
    )
    (tmp_path / "X.jsx").write_text(text)
    (tmp_path / "package.json").write_text('{"dependencies": {"react": "^17.0.2"}}')
    done = run("carry", "X.jsx", "--to", "jsx-function")
    assert "useReducer" in done.stdout


def test_every_command_has_help_with_an_example(run) -> None:  # type: ignore[no-untyped-def]
    for command in ("carry", "verify", "syntaxes", "runtimes", "demo", "explain"):
        done = run(command, "--help")
        assert done.returncode == 0
        assert "Example" in done.stdout and f"clean-carry {command}" in done.stdout


def test_lists_print_json(run) -> None:  # type: ignore[no-untyped-def]
    assert json.loads(run("syntaxes", "--json").stdout)["syntaxes"][0]["id"] == "jsx-class"
    assert json.loads(run("runtimes", "--json").stdout)["runtimes"][0]["name"] == "workbench"
    assert len(json.loads(run("explain", "--json").stdout)["rules"]) > 30
    assert "Advice" in run("explain", "own-base").stdout
    assert "jsx-function" in run("syntaxes").stdout


def test_many_files_end_in_a_summary_and_one_bad_file_stops_nothing(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    good = "import React, { Component } from 'react';\nexport default class @ extends Component {\n"
    good += "  render() { return <p>a</p>; }\n}\n"
    folder = tmp_path / "src"
    folder.mkdir()
    for name in ("Pier", "Quay"):
        (folder / f"{name}.jsx").write_text(good.replace("@", name))
    (folder / "Guard.jsx").write_text(
        good.replace("@", "Guard").replace("render()", "componentDidCatch() {} render()")
    )
    (folder / "Left.jsx").write_text(
        good.replace("@", "Left").replace(
            "render()", "_lost() { this.forceUpdate(done); } render()"
        )
    )
    (folder / "Bad.jsx").write_text("class { extends Component }")
    done = run("carry", "src", "src/Bad.jsx", "--to", "jsx-function", "--write")
    assert done.returncode == 3 and "Bad.jsx" in done.stderr
    assert "4 components in 4 files: 2 clean, 1 left in part, 1 refused" in done.stdout
    assert "  refused: error-capture 1" in done.stdout
    assert "  left: reached-from-outside 1" in done.stdout
    assert sorted(p.name for p in folder.glob("*.function.jsx")) == [
        "Left.function.jsx", "Pier.function.jsx", "Quay.function.jsx",
    ]  # fmt: skip
    again = run("carry", "src", "--to", "jsx-function", "--write")
    assert again.returncode == 3 and "4 components in 4 files" in again.stdout
    assert "components in" not in run("carry", "src/Pier.jsx", "--to", "jsx-function").stdout
