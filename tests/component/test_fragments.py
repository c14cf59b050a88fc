"""Pieces of written text: what is copied, what is new, and what they say to the ledger."""

from __future__ import annotations

import pytest

from clean_carry.component.code import Operation
from clean_carry.component.errors import UnsettledEntry
from clean_carry.component.fragment import (
    Fragment,
    between,
    copy,
    dropped,
    joined,
    left,
    length,
    new,
    render,
    settle,
    settled,
)
from clean_carry.component.ledger import Ledger
from clean_carry.component.spans import Span

TEXT = "class Berth {\n  draw() {\n    return `a\n    b`;\n  }\n}\n"
FILE = "Berth.jsx"


def span(part: str) -> Span:
    start = TEXT.index(part)
    return Span(start, start + len(part), FILE)


def written(fragment: Fragment, unit: str = "  ") -> str:
    fixed = [(TEXT.index("`"), TEXT.rindex("`") + 1)]
    return render(
        fragment,
        lambda start, end: TEXT[start:end],
        unit,
        lambda start, end: [(low, high) for low, high in fixed if low < end and high > start],
    )


def test_copies_and_new_text_in_their_order() -> None:
    both = copy(span("class Berth")) + new(" extends Harbour ") + copy(span("{\n"))
    assert written(both) == "class Berth extends Harbour {\n"
    assert length(both) == len("class Berth extends Harbour {\n")
    assert not copy(Span(3, 3, FILE)) and bool(both)


def test_joined_has_the_text_between_and_nowhere_else() -> None:
    parts = [new("a"), new("b"), new("c")]
    assert written(joined(parts, ", ")) == "a, b, c"
    assert written(joined(parts[:1], ", ")) == "a" and written(joined([], ", ")) == ""


DEEPER = "draw() {\n    return `a\n    b`;\n  }"
SHIFTS = [
    # The white space of a template literal is its content, at any depth.
    (1, "draw() {\n      return `a\n    b`;\n    }"),
    (2, "draw() {\n        return `a\n    b`;\n      }"),
    (0, DEEPER),
    (-1, "draw() {\n  return `a\n    b`;\n}"),
]


@pytest.mark.parametrize(("levels", "expected"), SHIFTS)
def test_copied_text_moves_with_its_lines_but_not_inside_of_literals(
    levels: int, expected: str
) -> None:
    assert written(copy(span(DEEPER)).shifted(levels)) == expected


@pytest.mark.parametrize(
    ("text", "levels", "unit", "expected"),
    [
        ("a;\nb;", 1, "\t", "a;\n\tb;"),
        ("a;\n\nb;", 1, "  ", "a;\n\n  b;"),
        ("a;\n", 1, "  ", "a;\n  "),
        ("a;\n\tb;", -1, "  ", "a;\nb;"),
        ("a;\n b;", -1, "    ", "a;\nb;"),
        ("a;\nb;", -2, "  ", "a;\nb;"),
        ("a;\n      b;", -2, "  ", "a;\n  b;"),
        ("one line", 3, "  ", "one line"),
    ],
)
def test_new_text_moves_by_levels(text: str, levels: int, unit: str, expected: str) -> None:
    assert written(new(text).shifted(levels), unit) == expected


def test_shifts_add_up() -> None:
    assert written(new("a\nb").shifted(2).shifted(-1)) == "a\n  b"


def test_between_spells_operations_and_copies_the_rest() -> None:
    whole = span("draw() {\n    return")
    operations = [Operation(span("draw"), 0, False), Operation(span("return"), 1, False)]
    found = between(whole, operations, lambda operation: new(f"<{operation.entry}>"))
    assert written(found) == "<0>() {\n    <1>"
    assert written(between(whole, [], lambda operation: new("!"))) == "draw() {\n    return"


def ledger() -> Ledger:
    book = Ledger(FILE, TEXT.encode(), {"base-import"})
    book.claim("class", Span(0, len(TEXT), FILE))
    book.claim("method", span(DEEPER))
    return book


def test_what_is_written_settles_the_ledger() -> None:
    book = ledger()
    whole = (
        settled(0, "class-to-function")
        + new("function Berth() {\n", 1, "method-to-body")
        + new("}\n")
    )
    settle(whole, book)
    assert book.counts() == {"kept": 0, "carried": 2, "dropped": 0, "left": 0}
    assert [entry.rule for entry in book.entries] == ["class-to-function", "method-to-body"]


def test_what_nobody_speaks_for_is_noticed() -> None:
    with pytest.raises(UnsettledEntry, match="method was not settled"):
        settle(settled(0, "class-to-function"), ledger())


def test_a_kept_construct_must_be_copied() -> None:
    book = ledger()
    with pytest.raises(UnsettledEntry, match="got lost"):
        settle(settled(0, "class-to-function") + settled(1, "", "kept"), book)
    book = ledger()
    settle(settled(0, "class-to-function") + settled(1, "", "kept") + copy(span(DEEPER)), book)
    assert book.counts()["kept"] == 1


def test_a_drop_names_a_rule_of_the_list_and_what_is_left_stays_left() -> None:
    book = ledger()
    with pytest.raises(UnsettledEntry, match="not on the list of drops"):
        settle(settled(0, "x") + dropped(1, "because"), book)
    book = ledger()
    settle(
        settled(0, "x") + left("// for a person", 1, "unknown-use") + dropped(1, "base-import"),
        book,
    )
    assert book.counts() == {"kept": 0, "carried": 1, "dropped": 0, "left": 1}


def test_copies_of_other_files_are_no_concern_of_this_ledger() -> None:
    book = ledger()
    other = Fragment(copy(span(DEEPER)._replace(file="Other.jsx")).pieces)
    settle(settled(0, "x") + settled(1, "y") + other + other, book)
    assert book.counts()["carried"] == 2
