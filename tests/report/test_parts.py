"""The parts of a report page on their own: rows, outlines, source lines behind a difference, figures."""

from __future__ import annotations

from typing import Any

import pytest

from clean_carry.report import words
from clean_carry.report.page import figures
from clean_carry.report.page.causes import behind
from clean_carry.report.page.outline import element_of, node_at, outline
from clean_carry.report.page.rows import Row, aligned
from clean_carry.report.subject import Summary
from clean_carry.verify.compare import Difference

TREE: list[Any] = [
    ["article", {"class": "sailing pinned"}, None, [
        ["h3", {}, None, ["Holm"]],
        ["p", {"class": "status"}, None, ["On sale"]],
        ["p", {}, None, ["late ", ["b", {}, None, ["now"]]]],
        ["input", {"type": "text"}, {"value": "x"}, []],
    ]],
]  # fmt: skip


def test_rows_line_up_what_both_have() -> None:
    old = ["import a;", "", "class X {", "  go = () => { this.b(); };", "}", "end();"]
    new = [
        "import a;",
        "",
        "function X() {",
        "  const go = () => { b(); };",
        "  more();",
        "}",
        "end();",
    ]
    assert aligned(old, new) == [
        Row("same", 0, 0), Row("same", 1, 1), Row("changed", 2, 2), Row("changed", 3, 3),
        Row("new", None, 4), Row("same", 4, 5), Row("same", 5, 6),
    ]  # fmt: skip


def test_rows_of_what_one_side_has() -> None:
    assert aligned(["a();", "b();"], ["a();"]) == [Row("same", 0, 0), Row("old", 1, None)]
    assert aligned([], ["a();"]) == [Row("new", None, 0)]


@pytest.mark.parametrize(
    ("place", "element"),
    [
        ("/div[1]/p[2]@class", "/div[1]/p[2]"),
        ("/div[1]:hover color", "/div[1]"),
        ("/div[1] ::before color", "/div[1]"),
        ("/input[1] (form state)", "/input[1]"),
        ("/p[1]/text[1]", "/p[1]/text[1]"),
    ],
)
def test_the_element_of_a_place(place: str, element: str) -> None:
    assert element_of(place) == element


def test_an_outline_marks_what_differs() -> None:
    lines = outline(TREE, frozenset(["/article[1]/p[1]", "/article[1]/p[2]/b[1]/text[1]"]))
    assert [(line.depth, line.text) for line in lines] == [
        (0, '<article class="sailing pinned">'),
        (1, "<h3>Holm</h3>"),
        (1, '<p class="status">On sale</p>'),
        (1, "<p>"),
        (2, "late"),
        (2, "<b>now</b>"),
        (1, '<input type="text" ·value=x></input>'),
    ]
    assert [line.text for line in lines if line.marked] == [
        '<p class="status">On sale</p>',
        "<b>now</b>",
    ]


def test_the_node_at_a_place() -> None:
    node = node_at(TREE, "/article[1]/p[1]/text[1]")
    assert node is not None and node[1] == {"class": "status"}
    assert node_at(TREE, "/nav[1]") is None


SOURCE = """// the status of a sailing
const classes = ['sailing', status, pinned && 'pinned'];
return (
  <article className={classes.join(' ')}>
    <p className="status">On sale</p>
    <p>late <b>now</b></p>
    <button onClick={() => onPin(id)} />
  </article>
);""".splitlines()


@pytest.mark.parametrize(
    ("what", "place", "old", "lines"),
    [
        ("style", "/article[1] color", "red", [1]),
        ("tree", "/article[1]/p[1]@class", "status", [4]),
        ("tree", "/article[1]/p[2]/b[1]/text[1]", "now", [5]),
        ("calls", "", [["onPin", 1]], [6]),
        ("focus", "", "", []),
        ("tree", "/nav[1]", "", []),
    ],
)
def test_the_lines_behind_a_difference(what: str, place: str, old: Any, lines: list[int]) -> None:
    difference = Difference("t", 0, "shown", what, place, old, None)
    assert behind(difference, TREE, SOURCE) == lines


def summary(
    folder: str, standing: str, reach: float | None = None, seconds: float = 0.5
) -> Summary:
    return Summary("x.html", "X", f"{folder}/X.jsx", folder, standing, reach, 1, 1, seconds, "")


def test_figures_count_everything() -> None:
    rows = [summary("a", "same", 100.0), summary("a", "differs", 55.0, 30), summary("b", "refused")]
    folders = figures.by_folder(rows)
    assert [(bar.label, bar.total) for bar in folders] == [("a", 2), ("b", 1)]
    assert folders[0].parts == (("differs", 1, 0.0, 50.0), ("same", 1, 50.0, 50.0))
    assert [(bar.label, bar.total) for bar in figures.reaches(rows)] == [
        ("50–60 %", 1),
        ("90–100 %", 1),
    ]
    assert sum(bar.total for bar in figures.times(rows)) == 3
    assert figures.reaches([summary("a", "same")]) == []


def test_the_bar_of_a_folder_shows_shares() -> None:
    rows = [summary("a", "same")] * 9 + [summary("b", "same"), summary("b", "differs")]
    assert [bar.parts[-1][3] for bar in figures.by_folder(rows)] == [100.0, 50.0]


def test_progress_counts_what_is_done() -> None:
    rows = [summary("a", "same"), summary("a", "clean"), summary("b", "refused")]
    done = figures.progress(rows)
    assert (done.done, done.total) == (2, 3) and round(done.percent) == 67
    assert figures.progress([]).percent == 0


def test_many_folders_are_one_bar_at_the_end() -> None:
    bars = figures.by_folder([summary(f"f{at}", "same") for at in range(14)])
    assert (bars[-1].label, bars[-1].total) == ("4 more folders", 4)


@pytest.mark.parametrize(
    ("what", "value", "text"),
    [
        ("calls", [["onPin", "s1", True], ["onGone"]], 'onPin("s1", true), onGone()'),
        ("calls", [], "no call"),
        ("style", "red", "red"),
        ("errors", ["a", "b"], '["a", "b"]'),
    ],
)
def test_values_in_words(what: str, value: Any, text: str) -> None:
    assert words.value(what, value) == text
