"""`left`: the places left to a person, found again in what was written."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.project.left import left_places

BOARD = """import React, { Component } from 'react';
export default class Board extends Component {
  state = { open: false };
  press = () => {
    this.setState({ open: true }, this.props.onOpen ? done /* now */ : null);
    this.forceUpdate(done);
  };
  render() { return <p onClick={this.press}>{String(this.state.open)}</p>; }
}
"""


def test_what_carrying_left_is_listed(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Board.jsx").write_text(BOARD)
    run("carry", "Board.jsx", "--to", "jsx-function", "--write")
    done = run("left")
    assert done.returncode == 1
    assert "Board.function.jsx" in done.stdout
    assert "2 places are left to you in 1 file: write-callback 1, forced-update 1" in done.stdout
    found = json.loads(run("left", ".", "--json").stdout)["places"]
    assert [(p["rule"], p["text"]) for p in found] == [
        (
            "write-callback",
            "this.setState({ open: true }, this.props.onOpen ? done /* now */ : null);",
        ),
        ("forced-update", "this.forceUpdate(done);"),
    ]
    written = (tmp_path / "Board.function.jsx").read_text().splitlines()
    for place in found:
        assert written[place["line"] - 1][place["column"] - 1 :].startswith("/* left to you")
        assert place["advice"]
    only = json.loads(run("left", "Board.function.jsx", "--rule", "forced-update", "--json").stdout)
    assert [p["rule"] for p in only["places"]] == ["forced-update"]


def test_nothing_left(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "a.jsx").write_text("export const a = 1; // left to you\n")
    done = run("left", ".")
    assert (done.returncode, done.stdout) == (0, "no place is left to finish\n")


@pytest.mark.parametrize(
    ("arguments", "said"),
    [(("--rule", "no-such"), "there is no rule"), (("nowhere",), "does not exist")],
)
def test_mistakes(arguments: tuple[str, ...], said: str, run) -> None:  # type: ignore[no-untyped-def]
    done = run("left", *arguments)
    assert done.returncode == 2 and said in done.stderr and "Traceback" not in done.stderr


PLACES: list[tuple[str, str, list[tuple[int, int, str, str]]]] = [
    ("a.js", "x;\n  /* left to you (a-b): go() */\n", [(2, 3, "a-b", "go()")]),
    ("a.js", "/* left to you (a): a *\\/ b */", [(1, 1, "a", "a */ b")]),
    ("a.js", "/* left to you (a): one\n two */ /* left to you (b): c */",
     [(1, 1, "a", "one\n two"), (2, 9, "b", "c")]),
    ("a.vue", "<p>\n<!-- left to you (c): <b> -->", [(2, 1, "c", "<b>")]),
    ("a.css", "/* left to you (d): e */", [(1, 1, "d", "e")]),
    ("a.txt", "/* left to you (d): e */", []),
    ("node_modules/a.js", "/* left to you (d): e */", []),
    ("skipped/a.js", "/* left to you (d): e */", []),
    (".hidden/a.js", "/* left to you (d): e */", []),
    ("a.js", "/* left to you: e */ // left to you (d): e", []),
]  # fmt: skip


@pytest.mark.parametrize(("name", "text", "places"), PLACES)
def test_markers(
    name: str, text: str, places: list[tuple[int, int, str, str]], tmp_path: Path
) -> None:
    (tmp_path / "clean-carry.toml").write_text('ignore = ["skipped/*"]\n')
    file = tmp_path / name
    file.parent.mkdir(exist_ok=True)
    file.write_text(text)
    found = [(p.line, p.column, p.rule, p.text) for p in left_places([tmp_path])]
    assert found == places
