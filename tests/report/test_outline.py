"""Trees as lines of markup, with the lines marked that differences are told of."""

from __future__ import annotations

from typing import Any

import pytest

from clean_carry.report.page.outline import MOST, OutlineLine, element_of, node_at, outline


def el(tag: str, *inside: Any, state: Any = None, **attributes: str) -> list[Any]:
    return [tag, attributes, state, list(inside)]


PLACES: list[tuple[str, str]] = [
    ("/p[1]", "/p[1]"),
    ("/p[1]/b[2]@title", "/p[1]/b[2]"),
    ("/p[1] color", "/p[1]"),
    ("/p[1]:hover background-color", "/p[1]"),
    ("/p[1]/text[2]", "/p[1]/text[2]"),
    ("/input[1] (form state)", "/input[1]"),
    ("/p[1] color where the page sets what is inherited", "/p[1]"),
    ("/", "/"),
    ("", ""),
]


@pytest.mark.parametrize(("place", "element"), PLACES)
def test_the_element_a_difference_is_told_of(place: str, element: str) -> None:
    assert element_of(place) == element


LINES: dict[str, tuple[list[Any], list[tuple[int, str]]]] = {
    "text stands in its element": ([el("p", " Tide ")], [(0, "<p>Tide</p>")]),
    "an empty element is closed": ([el("hr")], [(0, "<hr></hr>")]),
    "what is inside is deeper": (
        [el("ul", el("li", "a"), el("li", "b"))],
        [(0, "<ul>"), (1, "<li>a</li>"), (1, "<li>b</li>")],
    ),
    "text beside elements": (
        [el("p", "now ", el("b", "7"), None)],
        [(0, "<p>"), (1, "now"), (1, "<b>7</b>")],
    ),
    "attributes": ([el("input", type="text", required="")], [(0, '<input type="text" required></input>')]),
    "the state of a field": (
        [el("input", state={"value": "7", "checked": False})],
        [(0, "<input ·checked=False ·value=7></input>")],
    ),
    "blanks alone are no line": ([" ", el("p"), None], [(0, "<p></p>")]),
}  # fmt: skip


@pytest.mark.parametrize(("tree", "lines"), LINES.values(), ids=LINES)
def test_lines(tree: list[Any], lines: list[tuple[int, str]]) -> None:
    found = outline(tree, frozenset())
    assert [(line.depth, line.text) for line in found] == lines
    assert not any(line.marked for line in found)


def test_long_texts_and_values_are_cut() -> None:
    (line,) = outline([el("p", title="x" * 300)], frozenset())
    assert len(line.text) < MOST + 30 and "…" in line.text
    (_, text) = outline([el("p", "y" * 300)], frozenset())
    assert len(text.text) == MOST


TREE = [el("div", el("p", "one"), el("p", el("b", "two"), "three"))]


@pytest.mark.parametrize(
    ("place", "marked"),
    [
        ("/div[1]/p[2]", "<p>"),
        ("/div[1]/p[1]", "<p>one</p>"),
        ("/div[1]/p[1]/text[1]", "<p>one</p>"),
        ("/div[1]/p[2]/text[1]", "three"),
        ("/div[1]/p[2]/b[1]", "<b>two</b>"),
    ],
)
def test_the_line_of_a_difference_is_marked(place: str, marked: str) -> None:
    assert [line.text for line in outline(TREE, frozenset([place])) if line.marked] == [marked]


def test_a_difference_of_the_whole_marks_what_stands_at_the_top() -> None:
    assert [line.marked for line in outline(TREE, frozenset(["/"]))] == [
        True,
        False,
        False,
        False,
        False,
    ]
    assert outline([], frozenset(["/"])) == []
    assert outline(["x"], frozenset(["/text[1]"])) == [OutlineLine(0, "x", True)]


@pytest.mark.parametrize(
    ("place", "tag"),
    [
        ("/div[1]", "div"),
        ("/div[1]/p[2]", "p"),
        ("/div[1]/p[2]/b[1]", "b"),
        ("/div[1]/p[2]/text[1]", "p"),
        ("/div[1]/p[9]", "div"),
        ("/main[1]", None),
    ],
)
def test_the_element_at_a_place(place: str, tag: str | None) -> None:
    found = node_at(TREE, place)
    assert (found[0] if found else None) == tag
