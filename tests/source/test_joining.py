"""What is written on one line where it fits, and what stays as its author broke it."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.javascript.joining import RULES, Fit, fit_of, joined
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from conftest import Run

ALL = Fit(40, 2, tuple(RULES))

JOINED = [
    ("x = (\n  <A\n    b={1}\n    c\n  />\n);", "x = <A b={1} c />;"),
    ("x = <A>\n  some text\n</A>;", "x = <A>some text</A>;"),
    ("x = <A>\n  {b}\n</A>;", "x = <A>{b}</A>;"),
    ("go(\n  a,\n  b\n);", "go(a, b);"),
    ("go(\n  a,\n  b,\n);", "go(a, b);"),
    ("x = [\n  a,\n  b,\n];", "x = [a, b];"),
    ("const {\n  a,\n  b,\n} = c;", "const { a, b } = c;"),
    ("x = (a) =>\n  b(a);", "x = (a) => b(a);"),
    ("const x =\n  a + b;", "const x = a + b;"),
    ("x =\n  a || b;", "x = a || b;"),
    ("x = {\n  a:\n    b,\n};", "x = {\n  a: b,\n};"),
    ("x = a\n  ? b\n  : c;", "x = a ? b : c;"),
    ("if (\n  a &&\n  b\n) go();", "if (a && b) go();"),
    ("x = <A b={\n  c\n} />;", "x = <A b={c} />;"),
]
KEPT = [
    "go(\n  aVeryLongArgumentOfThisCall,\n  another\n);",
    "x = {\n  a,\n  b,\n};",
    "x = [\n  { a: 1 },\n  { b: 2 },\n];",
    "x = [\n  1, 2,\n  3, 4,\n];",
    "x = <A>\n  <B />\n</A>;",
    "x = <A b c>\n  text\n</A>;",
    "x = <A>\n  {b}\n  {c}\n</A>;",
    "go(\n  a, // first\n  b\n);",
    "x = a /* one */ +\n  b;",
    "x = a ? (\n  <B />\n) : (\n  <C />\n);",
    "x = list.map((a) => (\n  <A />\n));",
    "const {\n  a: { b },\n} = c;",
    "x = `\n${a}\n`;",
]


@pytest.mark.parametrize(("text", "line"), JOINED)
def test_what_fits_is_joined(text: str, line: str) -> None:
    assert joined(text, "x.jsx", ALL) == line
    assert joined(line, "x.jsx", ALL) == line


@pytest.mark.parametrize("text", KEPT)
def test_what_stays_broken(text: str) -> None:
    assert joined(text, "x.jsx", ALL) == text


def test_words_are_filled_into_lines() -> None:
    words = "one two three four five six\n    seven eight nine ten"
    text = f'x = (\n  <p className="a">\n    {words}\n  </p>\n);'
    filled = joined(text, "x.jsx", ALL)
    assert filled.split("\n")[2:4] == [
        "    one two three four five six seven",
        "    eight nine ten",
    ]
    assert joined(filled, "x.jsx", ALL) == filled


FORMATS: list[tuple[str, int, list[str]]] = [
    ("go(a, b);\n", 80, list(RULES)),
    ("go(\n  a,\n  b\n);\n", 80, [name for name in RULES if name != "list"]),
    (f"go({'a, ' * 30}b);\n" * 4, 100, list(RULES)),
    (f"// {'long ' * 40}\n" * 9 + "go(a);\n", 80, list(RULES)),
]


@pytest.mark.parametrize(("text", "width", "rules"), FORMATS)
def test_the_width_and_the_rules_of_a_file(text: str, width: int, rules: list[str]) -> None:
    fit = fit_of(Tree(SourceText("x.jsx", text.encode())))
    assert (fit.width, list(fit.rules)) == (width, rules)


FORMATTED = """import React, { Component } from 'react';

export default class Departures extends Component {
  render() {
    const sailings = this.props.sailings.filter(
      (sailing) => sailing.pier === this.props.pier
    );
    return (
      <ul
        className={this.props.className}
        title={`from pier ${this.props.pier}`}
      >
        {sailings.map(@)}
      </ul>
    );
  }
}
"""


@pytest.mark.parametrize(
    ("inner", "joins"),
    [
        ("(sailing) => sailing.name", True),
        # Broken by hand: it would fit in the old file as well, so lists are nothing to join here.
        ("(\n          sailing\n        ) => sailing.name", False),
    ],
)
def test_through_the_program(run: Run, tmp_path: Path, inner: str, joins: bool) -> None:
    (tmp_path / "D.jsx").write_text(FORMATTED.replace("@", inner), "utf-8")
    assert run("carry", "D.jsx", "--to", "jsx-function", "--write").returncode == 0
    written = (tmp_path / "D.function.jsx").read_text("utf-8")
    line = "const sailings = sailingsProp.filter((sailing) => sailing.pier === pier);"
    assert (line in written) == joins
    assert "<ul className={className} title={`from pier ${pier}`}>" in written
