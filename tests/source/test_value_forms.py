"""What kind of value an expression is."""

from __future__ import annotations

import pytest

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.javascript.values import does_nothing
from clean_carry.source.text import SourceText

NOTHING = [
    "1",
    "'Skail'",
    "[]",
    "{ pier: 1, 'open': [2, 3] }",
    "new Date().getTime()",
    "Date.now()",
    "new Map()",
    "Math.round(2.5 * 3)",
    "undefined",
]
SOMETHING = [
    "++tickers",
    "load()",
    "this.props.pier",
    "pier",
    "`pier ${n}`",
    "[...piers]",
    "{ [name()]: 1 }",
    "{ pier }",
    "new Berth()",
    "new Date(pier).getTime()",
    "new Date('').toISOString()",
    "piers.getAll()",
    "Math.max(tell())",
    "(n = 1)",
    "() => 1",
]


def value_of(text: str) -> bool:
    tree = Tree(SourceText.checked("a.js", f"x = {text};".encode()))
    node = tree.of("assignment_expression")[0].child("right")
    assert node is not None
    return does_nothing(node)


@pytest.mark.parametrize("text", NOTHING)
def test_what_may_as_well_not_be_made(text: str) -> None:
    assert value_of(text)


@pytest.mark.parametrize("text", SOMETHING)
def test_what_has_an_effect_or_may_fail(text: str) -> None:
    assert not value_of(text)
