"""How a script is written, read off it; where new files stand; what became of comments."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.fragment import copy, new
from clean_carry.component.ledger import Ledger
from clean_carry.source.javascript.script_style import ScriptStyle, fixed_ranges, script_style
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.written import beside, orphaned_comments


def style(text: str, folder: Path) -> ScriptStyle:
    path = folder / "Berth.jsx"
    return script_style(Tree(SourceText(str(path), text.encode())), path)


UNITS = [
    ("class A {\n\tb() {}\n}\n", "\t"),
    ("class A {\n    b() {}\n}\n", "    "),
    ("const a = {\n   b: 1,\n};\n", "   "),
    ("function a() {\n  b();\n}\n", "  "),
    ("  class A {\n     b() {}\n  }\n", "   "),
    ("class A { b() {} }\n", "  "),
    ("let a = 1;\n", "  "),
]


@pytest.mark.parametrize(("text", "unit"), UNITS)
def test_the_indentation(text: str, unit: str, tmp_path: Path) -> None:
    assert style(text, tmp_path).unit == unit


ENDS = [
    ("a();\nb();\nc()\n", ";"),
    ("a()\nb()\nc();\n", ""),
    ("import a from 'a'\na()\n", ""),
    ("a()\nb();\n", ";"),
]


@pytest.mark.parametrize(("text", "semicolon"), ENDS)
def test_semicolons(text: str, semicolon: str, tmp_path: Path) -> None:
    assert style(text, tmp_path).semicolon == semicolon


def test_quotes_are_those_of_the_imports_else_of_the_first_text(tmp_path: Path) -> None:
    assert style("import a from \"a\";\nb('c');\n", tmp_path).quote == '"'
    assert style("import a from 'a';\nb(\"c\");\n", tmp_path).quote == "'"
    assert style("b(\"c\");\nd('e');\n", tmp_path).quote == '"'
    assert style("b();\n", tmp_path).quote == "'"


def test_commas_at_the_end(tmp_path: Path) -> None:
    assert style("a(\n  b,\n  c,\n);\n", tmp_path).comma == ","
    assert style("a(\n  b,\n  c\n);\n", tmp_path).comma == ""
    assert style("a = {\n  b: 1,\n};\nc = [\n  1,\n];\nd = {\n  e: 1\n};\n", tmp_path).last == ","
    assert style("a = {\n  b: 1\n};\nc = [\n  1 // last,\n];\n", tmp_path).last == ""
    assert style("a = { b: 1 };\n", tmp_path).last == ","


def test_parentheses_around_one_parameter(tmp_path: Path) -> None:
    assert style("a(b => b);\nc(d => d);\ne((f) => f);\n", tmp_path).bare
    assert not style("a(b => b);\nc((d) => d);\n", tmp_path).bare
    assert not style("a((b, c) => b);\n", tmp_path).bare


BESIDE = [
    ("src/Berth.jsx", "", "src/Berth.function.jsx"),
    ("Berth.class.jsx", "", "Berth.function.jsx"),
    ("src\\Berth.tsx", "", "src/Berth.function.tsx"),
    ("Berth.object.vue", "js", "Berth.function.js"),
    ("a.b/Berth.list.jsx", "", "a.b/Berth.list.function.jsx"),
]


@pytest.mark.parametrize(("path", "ending", "new_path"), BESIDE)
def test_the_file_beside(path: str, ending: str, new_path: str) -> None:
    assert beside(path, "function", ending) == new_path


def test_comments_that_were_not_copied() -> None:
    source = SourceText("a.js", b"one /* a */ two /* b */ three /* c */\n")
    ledger = Ledger("a.js", source.data)
    spans = [
        source.span(source.data.index(b"/* " + c), source.data.index(b"/* " + c) + 7)
        for c in (b"a", b"b", b"c")
    ]
    for span in spans:
        ledger.claim("comment", span, "kept")
    ledger.claim("code", source.span(0, 3), "kept")
    fragment = new("1") + copy(source.span(0, 11)) + copy(source.span(20, 26))
    found = orphaned_comments(fragment, ledger, source.span(0, 30))
    assert found == [spans[1]]


def test_white_space_that_is_content() -> None:
    text = b"a = `one\n  two`; b = 'three';\nc = `four`; d = 'five\\\n  six';\n"
    within = fixed_ranges(Tree(SourceText("a.js", text)))
    first, last = text.index(b"`one"), text.index(b"'five")
    assert within(0, len(text)) == [(first, first + 11), (last, len(text) - 2)]
    assert within(0, 3) == []
    assert within(first + 8, first + 9) == [(first, first + 11)]
