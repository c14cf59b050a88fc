"""In which media a pair is looked at: widths, and what the stylesheets of either side ask for besides.

Media features are those of Media Queries Level 5 that a stylesheet can ask for.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any

HEIGHT = 800
WIDTHS = (1280, 400)
# Widths beside the requested ones, on both sides of each width that stylesheets query.
MOST_BREAKS = 4

_PRELUDE = re.compile(r"@(?:media|custom-media)\b([^{;]*)[{;]|\bmatchMedia\(([^)]*)\)?")
_COMMENT = re.compile(r"/\*.*?\*/", re.DOTALL)
_WIDTH = re.compile(
    r"(min-|max-)?width\s*(:|<=|>=|<|>)\s*([\d.]+)(px|em|rem)"
    r"|([\d.]+)(px|em|rem)\s*(<=|>=|<|>)\s*width"
)
_PER = {"px": 1.0, "em": 16.0, "rem": 16.0}


@dataclass(frozen=True)
class View:
    """A medium: the size of the window in CSS pixels, and what a page may ask of it."""

    width: int = WIDTHS[0]
    height: int = HEIGHT
    scheme: str = "light"
    motion: str = "no-preference"
    contrast: str = "no-preference"
    forced: str = "none"
    print: bool = False

    @property
    def name(self) -> str:
        """Return its name in reports: `400 px, dark`."""
        parts = [f"{self.width} px"]
        if self.scheme != "light":
            parts.append(self.scheme)
        if self.motion != "no-preference":
            parts.append("reduced motion")
        if self.contrast != "no-preference":
            parts.append("more contrast")
        if self.forced != "none":
            parts.append("forced colours")
        if self.print:
            parts.append("printed")
        return ", ".join(parts)

    def as_json(self) -> dict[str, Any]:
        """Return the settings for the browser."""
        return {
            "width": self.width,
            "height": self.height,
            "scheme": self.scheme,
            "motion": self.motion,
            "contrast": self.contrast,
            "forced": self.forced,
            "print": self.print,
        }


# A media query for such a word is looked at in a view that matches it.
_ASKED: tuple[tuple[str, dict[str, Any]], ...] = (
    ("prefers-color-scheme", {"scheme": "dark"}),
    ("prefers-reduced-motion", {"motion": "reduce"}),
    ("prefers-contrast", {"contrast": "more"}),
    ("forced-colors", {"forced": "active"}),
    ("print", {"print": True}),
)


def views_of(sheets: Iterable[str], widths: Iterable[int] = ()) -> list[View]:
    """The views a pair is looked at in, the widest first.

    `sheets` are the stylesheets (or code) of both sides. To the requested widths those of media queries are
    added, and to the first width each other medium that a stylesheet queries.
    """
    given = list(dict.fromkeys(widths)) or list(WIDTHS)
    asked = _preludes(sheets)
    turns = sorted({width for text in asked for width in _turns(text)} - set(given))
    if len(turns) > MOST_BREAKS:
        turns = [turns[round(at * (len(turns) - 1) / (MOST_BREAKS - 1))] for at in range(4)]
    first = View(given[0])
    found = [first, *(View(width) for width in (*given[1:], *turns))]
    text = " ".join(asked)
    whole = text + (" prefers-color-scheme" if _has_schemes(sheets) else "")
    found.extend(replace(first, **has) for word, has in _ASKED if re.search(rf"\b{word}\b", whole))
    return found


def _has_schemes(sheets: Iterable[str]) -> bool:
    return any("light-dark(" in sheet or "color-scheme" in sheet for sheet in sheets)


def _preludes(sheets: Iterable[str]) -> list[str]:
    return [
        found.group(1) or found.group(2) or ""
        for sheet in sheets
        for found in _PRELUDE.finditer(_COMMENT.sub("", sheet))
    ]


def _turns(prelude: str) -> Iterator[int]:
    """A width on the side of each break that the widest view is not on."""
    for found in _WIDTH.finditer(prelude):
        end, sign, value, unit, value_before, unit_before, _ = found.groups()
        pixels = float(value or value_before) * _PER[unit or unit_before]
        upper = end == "max-" or (end is None and sign in ("<", "<="))
        width = round(pixels) if upper else round(pixels) - 1
        if 200 <= width <= 3000:
            yield width
            yield width + 1 if upper else width + 2
