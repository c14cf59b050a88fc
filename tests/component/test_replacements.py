"""Replacements in a file: each stands where it belongs, what is between them is copied."""

from __future__ import annotations

from clean_carry.component.fragment import Fragment, new, render
from clean_carry.component.ledger import Ledger
from clean_carry.component.replacements import Replacements

TEXT = "this.a + this.b;"


def made() -> tuple[Replacements, Ledger]:
    ledger = Ledger("a.js", TEXT.encode())
    return Replacements("a.js", ledger), ledger


def written(fragment: Fragment) -> str:
    return render(fragment, lambda start, end: TEXT[start:end], "  ", lambda start, end: [])


def test_what_is_between_is_copied() -> None:
    found, ledger = made()
    found.spell(9, 15, "b.value", "use", "member-to-ref")
    found.spell(0, 6, "a.value", "use", "member-to-ref")
    assert written(found.text(0, len(TEXT))) == "a.value + b.value;"
    assert written(found.text(9, 15)) == "b.value" and written(found.text(6, 9)) == " + "
    assert found.as_edits() == ((0, 6, "a.value"), (9, 15, "b.value"))
    assert [entry.span[:2] for entry in ledger.entries] == [(9, 15), (0, 6)]


def test_the_outer_one_of_two_stands() -> None:
    found, _ = made()
    found.put(0, 6, new("a"))
    found.put(0, 15, new("sum"))
    assert written(found.text(0, len(TEXT))) == "sum;"


def test_what_is_put_between_two_bytes_comes_first() -> None:
    found, _ = made()
    found.put(9, 15, new("b"))
    found.put(9, 9, new("+ "))
    assert written(found.text(0, len(TEXT))) == "this.a + + b;"
    assert found.has(9, 15) and found.has(9, 9) and not found.has(0, 6)


def test_a_stretch_has_only_its_own() -> None:
    found, _ = made()
    found.put(9, 15, new("b"))
    assert written(found.text(0, 8)) == "this.a +"


def test_what_is_left_says_so_in_the_ledger() -> None:
    found, ledger = made()
    found.spell(0, 6, "/* for a person */", "use", "unknown-use", "left")
    (piece,) = found.text(0, 6).pieces
    assert (piece.outcome, piece.rule) == ("left", "unknown-use")
    assert ledger.entries[0].outcome == "open", "what is written settles it"
