"""The places left to a person in a tree of sources: the markers that writers put into what they wrote.

A marker is a comment `left to you (RULE): TEXT`, TEXT being what stood there, with `*/` written `*\\/`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.project.files import passed_over
from clean_carry.project.settings import settings_for
from clean_carry.syntaxes.rules import every_rule

# The comments of scripts, of markup and of stylesheets a marker may stand in.
_MARKER = re.compile(
    r"/\*\s*left to you \((?P<rule>[a-z0-9-]+)\): (?P<text>.*?)\s*\*/"
    r"|<!--\s*left to you \((?P<markup>[a-z0-9-]+)\): (?P<inside>.*?)\s*-->",
    re.DOTALL,
)
_ENDINGS = frozenset({".js", ".jsx", ".ts", ".tsx", ".vue", ".css", ".html"})
# A file longer than this (bytes) is nobody's source.
LONGEST = 2_000_000


@dataclass(frozen=True)
class LeftPlace:
    """One place: the file, its line and column (from 1), the rule that left it, what stood there."""

    file: str
    line: int
    column: int
    rule: str
    text: str

    @property
    def advice(self) -> str:
        """Return the advice for this place."""
        known = every_rule().get(self.rule)
        return known.advice if known is not None else ""

    def as_json(self) -> dict[str, object]:
        """The JSON shape of `left --json`."""
        return {**vars(self), "advice": self.advice}


def left_places(paths: Iterable[Path]) -> Iterator[LeftPlace]:
    """The places left in these files and in every file below these folders, in order."""
    for path in paths:
        for file in _files(path) if path.is_dir() else [path]:
            yield from _in_file(file)


def _files(folder: Path) -> Iterator[Path]:
    settings = settings_for(folder / "x")
    for path in sorted(folder.rglob("*")):
        if path.suffix in _ENDINGS and path.is_file() and not passed_over(path, folder, settings):
            yield path


def _in_file(file: Path) -> Iterator[LeftPlace]:
    try:
        data = file.read_bytes()
    except OSError:
        return
    if len(data) > LONGEST or b"left to you (" not in data:
        return
    text = data.decode("utf-8", "replace")
    for found in _MARKER.finditer(text):
        start = found.start()
        line_start = text.rfind("\n", 0, start) + 1
        shown = (found["text"] or found["inside"] or "").replace("*\\/", "*/")
        yield LeftPlace(
            file.as_posix(),
            text.count("\n", 0, start) + 1,
            start - line_start + 1,
            found["rule"] or found["markup"],
            shown,
        )
