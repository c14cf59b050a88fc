"""The width of a project's lines: stated, or seen in the files beside a file."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.javascript.joining import WIDTHS
from clean_carry.source.line_width import widths_of

LONG = f"load(first, {'second, ' * 9}last);\n"
LONGER = f"load(first, {'second, ' * 11}last);\n"
SEEN = [
    ("load(a);\n" * 9, 80),
    (LONG * 9, 100),
    (LONGER * 9, 120),
    (LONG * 2 + "load(a);\n" * 9, 80),
    (f"// {'long ' * 20}\n" * 9, 80),
    (f"load(a); // {'long ' * 20}\n" * 9, 80),
]


@pytest.mark.parametrize(("text", "width"), SEEN)
@pytest.mark.parametrize("count", [1, 6])
def test_the_width_files_around_keep_to(count: int, text: str, width: int, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    for number in range(count):
        (tmp_path / f"pier{number}.jsx").write_text(text if number == 0 else "")
    (tmp_path / "chart.vue").write_text(LONGER * 9)
    assert widths_of(tmp_path / "pier0.jsx") == (WIDTHS, width)


def test_only_the_script_of_a_single_file_counts(tmp_path: Path) -> None:
    (tmp_path / "Pier.vue").write_text(
        f"<template>\n{LONGER * 9}</template>\n<script>\n</script>\n"
    )
    assert widths_of(tmp_path / "Pier.vue") == (WIDTHS, 80)


STATED = [
    ("[*]\nmax_line_length = 90\n", 90),
    ("[*.{jsx,tsx}]\nmax_line_length = 90\n", 90),
    ("[*]\nmax_line_length = 70\n[*.jsx]\nmax_line_length = 90\n", 90),
    ("[*.md]\nmax_line_length = 90\n", None),
    ("[*]\nmax_line_length = off\n", None),
]


@pytest.mark.parametrize(("text", "width"), STATED)
@pytest.mark.parametrize("inside", ["", "src/piers"])
def test_a_stated_width_is_taken(inside: str, text: str, width: int | None, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    (tmp_path / ".editorconfig").write_text(text)
    folder = tmp_path / inside
    folder.mkdir(parents=True, exist_ok=True)
    (folder / "pier.jsx").write_text("")
    wanted = (WIDTHS, 80) if width is None else ((width,), width)
    assert widths_of(folder / "pier.jsx") == wanted
