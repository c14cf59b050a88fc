"""A syntax from outside of the package: a made-up one, read and written through its entry points."""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

import pytest

DECLARED = """
from clean_carry.component.fragment import copy, new
from clean_carry.component.interface import InterfaceMap
from dataclasses import replace
from clean_carry.component.model import Component, Place, Refusal
from clean_carry.syntaxes.contract import Marks, ReadFile, RuntimeSpec, Syntax
from clean_carry.syntaxes.written import NewText, Written, beside, unchanged


class Reader:
    def recognises(self, source):
        return source.data.startswith(b"card ")

    def whole(self, source, workspace, wishes):
        return source

    def read(self, source, ledger, workspace, wishes):
        end = source.data.index(b"\\n")
        span = source.span(0, len(source.data))
        head = source.span(0, end)
        entries = {"head": ledger.claim("head", head), "rows": ledger.claim("rows", span, "kept")}
        name = source.slice(5, end)
        made = Component(name, Place(span, head, "named"), entries=entries)
        return ReadFile(CARD, source, (made,), ())


class Writer:
    def write(self, fitted):
        (made,) = fitted.file.components
        source = fitted.file.source
        head = new(f"slip {made.name.upper()}", made.entries["head"], "card-to-slip")
        rows = source.span(made.place.head.end, made.span.end)
        path = beside(source.path, "slip", "tides")
        text = NewText(path, head + copy(rows), source, fitted.ledger)
        return Written((text,), (made,), (), {made.span.start: InterfaceMap()})


class SlipReader(Reader):
    def recognises(self, source):
        return source.data.startswith(b"slip ")

    def read(self, source, ledger, workspace, wishes):
        file = super().read(source, ledger, workspace, wishes)
        if b"storm" in source.data:
            at = source.data.index(b"storm")
            return ReadFile(SLIP, source, (), (Refusal("PIER", "unknown-option", "storm", at),))
        return file


class BookWriter(Writer):
    def write(self, fitted):
        if fitted.file.refusals:
            return unchanged(fitted.file.source, fitted.ledger, fitted.file.refusals)
        written = super().write(fitted)
        (text,) = written.files
        path = text.path.replace(".slip.", ".book.")
        return replace(written, files=(replace(text, path=path),))


RUNTIME = RuntimeSpec("tides", 1)
RULES = "clean_carry.syntaxes.single_file.rules:RULES"
CARD = Syntax("tide-card", "a card of tides", "tides", "card", Marks((".tides",), ((b"card ",),)),
              RUNTIME, frozenset(), reader="tide_cards:Reader")
BOOK = Syntax("tide-book", "a book of tides", "books", "book", Marks((".tides",)), RUNTIME, frozenset(),
              writer="tide_cards:BookWriter", takes=frozenset({"slips"}))
SLIP = Syntax("tide-slip", "a slip of tides", "slips", "slip", Marks((".tides",)),
              RUNTIME, frozenset(), reader="tide_cards:SlipReader", rules=RULES, writer="tide_cards:Writer",
              takes=frozenset({"tides"}))
"""
POINTS = "[clean_carry.syntaxes]\ntide-card = tide_cards:CARD\ntide-slip = tide_cards:SLIP\n"
POINTS += "tide-book = tide_cards:BOOK\n"


@pytest.fixture
def outside(tmp_path: Path) -> dict[str, str]:
    place = tmp_path / "site"
    info = place / "tide_cards-1.0.dist-info"
    info.mkdir(parents=True)
    (info / "METADATA").write_text("Metadata-Version: 2.1\nName: tide-cards\nVersion: 1.0\n")
    (info / "entry_points.txt").write_text(POINTS)
    (place / "tide_cards.py").write_text(DECLARED)
    others = os.environ.get("PYTHONPATH")
    return {"PYTHONPATH": os.pathsep.join([str(place), *([others] if others else [])])}


def test_a_syntax_from_outside_is_listed_read_and_written(
    run: Any, tmp_path: Path, outside: dict[str, str]
) -> None:
    (tmp_path / "Pier.tides").write_text("card Pier\nhigh 06:12\nlow 12:31\n")
    listed = run("syntaxes", env=outside).stdout
    assert "tide-card" in listed and "tide-slip" in listed
    done = run("carry", "Pier.tides", "--to", "tide-slip", "--write", env=outside)
    assert done.returncode == 0, done.stderr
    assert "Pier: clean" in done.stdout
    assert (tmp_path / "Pier.slip.tides").read_text() == "slip PIER\nhigh 06:12\nlow 12:31\n"


def test_a_folder_holds_its_files_too(run: Any, tmp_path: Path, outside: dict[str, str]) -> None:
    (tmp_path / "src").mkdir()
    for name in ("Pier", "Quay"):
        (tmp_path / "src" / f"{name}.tides").write_text(f"card {name}\nhigh 06:12\n")
    done = run("carry", "src", "--to", "tide-slip", env=outside)
    assert "2 components in 2 files: 2 clean" in done.stdout, done.stdout + done.stderr


def test_without_it_nobody_knows_the_syntax(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Pier.tides").write_text("card Pier\nhigh 06:12\n")
    done = run("carry", "Pier.tides", "--to", "tide-slip")
    assert done.returncode == 2 and "“tide-slip” is not a syntax that can be written" in done.stderr


def test_two_crossings_one_after_the_other(
    run: Any, tmp_path: Path, outside: dict[str, str]
) -> None:
    (tmp_path / "Pier.tides").write_text("card Pier\nhigh 06:12\nlow 12:31\n")
    done = run("carry", "Pier.tides", "--to", "tide-book", "--write", env=outside)
    assert done.returncode == 0, done.stderr
    assert (tmp_path / "Pier.book.tides").read_text() == "slip PIER\nhigh 06:12\nlow 12:31\n"
    # What stands between the two is never written.
    assert not (tmp_path / "Pier.slip.tides").exists()


def test_a_link_that_refuses_is_named(run: Any, tmp_path: Path, outside: dict[str, str]) -> None:
    (tmp_path / "Pier.tides").write_text("card Pier\nhigh 06:12\nstorm 12:31\n")
    done = run("carry", "Pier.tides", "--to", "tide-book", "--json", env=outside)
    assert done.returncode == 1, done.stderr
    result = json.loads(done.stdout)["results"][0]
    assert (result["from"], result["to"]) == ("tide-card", "tide-book")
    assert (result["status"], result["files"]) == ("refused", [])
    found = result["findings"][0]
    assert found["message"].startswith("tide-slip → tide-book: ")
    assert (found["file"], found["line"]) == ("Pier.tides", 3)
