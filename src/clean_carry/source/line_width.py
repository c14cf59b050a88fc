"""The width the files of a project are kept to: stated by the project, or seen in the files of a folder."""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import cache
from itertools import islice
from pathlib import Path

from clean_carry.source.importers import project_of, texts_of
from clean_carry.source.javascript.joining import WIDTHS, is_breakable
from clean_carry.source.places import folder_of

_SCRIPT = re.compile(r"<script[^>]*>(.*?)</script>", re.S)
_COMMENT = re.compile(r"\s+//.*$")
_SECTION = re.compile(r"^\s*(?:\[(.*)\]|max_line_length\s*=\s*(\d+))", re.M)
# So many files are looked at, those of the folder where it has a few; of so many lines one may be longer.
_MOST_FILES = 60
_A_FEW = 5
_LONG = 200


def widths_of(file: Path) -> tuple[tuple[int, ...], int]:
    """The widths a file may be kept to, one where `.editorconfig` states it; and the least of them that
    files like it keep to."""
    return _widths(folder_of(file), file.suffix)


@cache
def _widths(folder: Path, ending: str) -> tuple[tuple[int, ...], int]:
    root = project_of(folder / "x")
    for here in (folder, *folder.parents):
        stated = _stated(_text(here / ".editorconfig"), ending)
        if stated is not None:
            return (stated,), stated
        if root is None or here == root:
            break
    near = sorted(p for p in folder.iterdir() if p.name.endswith(ending))[:_MOST_FILES]
    if len(near) < _A_FEW and root is not None:
        return WIDTHS, _kept_to(root, ending)
    return WIDTHS, _allowed(_text(path) for path in near)


def _stated(text: str, ending: str) -> int | None:
    """The width a project states for files of an ending (the EditorConfig format); the last one holds."""
    width: int | None = None
    meant = False
    for pattern, number in _SECTION.findall(text):
        if not number:
            meant = pattern == "*" or ending[1:] in re.findall(r"\w+", pattern)
        elif meant:
            width = int(number)
    return width


@cache
def _kept_to(root: Path, ending: str) -> int:
    return _allowed(islice(texts_of(root, ending), _MOST_FILES))


def _allowed(texts: Iterable[str]) -> int:
    lines: list[str] = []
    for text in texts:
        parts = _SCRIPT.findall(text) if "<script" in text else [text]
        # A comment at the end of a line is never broken: how long its code is tells.
        lines += "\n".join(parts).split("\n")
    long = [_COMMENT.sub("", line) for line in lines if len(line) > WIDTHS[0]]
    for width in WIDTHS:
        over = sum(len(line) > width and is_breakable(line) for line in long)
        if over <= max(2, len(lines) // _LONG):
            return width
    return WIDTHS[-1]


def _text(path: Path) -> str:
    try:
        return path.read_text("utf-8", "replace")
    except OSError:
        return ""
