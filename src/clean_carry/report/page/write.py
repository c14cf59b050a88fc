"""Write a report: a page for each pair, and a front page where there are many."""

from __future__ import annotations

import base64
import hashlib
import re
from collections import Counter
from datetime import UTC, datetime
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Any

from clean_carry import __version__
from clean_carry.component.errors import WriteRefused
from clean_carry.project.writing import replace
from clean_carry.report import words
from clean_carry.report.page import figures, view
from clean_carry.report.subject import STANDINGS, Subject, Summary

if TYPE_CHECKING:
    from jinja2 import Environment

FRONT = "index.html"
PAGES = "components"
# Points with differences that a page shows.
MOST_SCENES = 12
_HERE = Path(__file__).parent


@cache
def _environment() -> Environment:
    from jinja2 import Environment, FileSystemLoader, StrictUndefined

    made = Environment(
        loader=FileSystemLoader(_HERE / "templates"),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )
    style, script = ((_HERE / name).read_text("utf-8") for name in ("page.css", "page.js"))
    # Nothing but this page's own style and script counts (Content Security Policy, level 3).
    made.globals.update(
        style=style,
        script=script,
        policy="default-src 'none'; img-src data:; "
        f"style-src {hash_of(style)}; script-src {hash_of(script)}; "
        "base-uri 'none'; form-action 'none'",
        version=__version__,
        many=words.many,
    )
    return made


def hash_of(text: str) -> str:
    """The source expression of a text in a content security policy."""
    digest = base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()
    return f"'sha256-{digest}'"


class Report:
    """A report in a folder. `add` writes each pair's page at once, `close` the front page.

    A report of `many` has its pages in a folder of their own; one of a single pair is one page. Raises
    `WriteRefused` where the folder cannot be written.
    """

    def __init__(self, folder: Path, *, many: bool) -> None:
        if folder.exists() and not folder.is_dir():
            raise WriteRefused("is a file", advice="Name a folder", file=str(folder))
        self.folder, self.many = folder, many
        self._rows: list[Summary] = []

    def add(self, subject: Subject) -> None:
        """Write the page of one pair."""
        name = FRONT
        if self.many:
            name = f"{PAGES}/{len(self._rows) + 1:04}-{_named(subject.name)}.html"
        self._write(name, "component.html.j2", _shown(subject, self.many))
        self._rows.append(subject.summary(name))

    def close(self) -> Path:
        """Write the front page, where there is one; the place to begin reading."""
        if self.many:
            counts = Counter(row.standing for row in self._rows)
            shown = {
                "title": words.many(len(self._rows), "component"),
                "project": Path.cwd().name,
                "crossings": figures.crossings(self._rows),
                "progress": figures.progress(self._rows),
                "rows": sorted(self._rows, key=lambda row: STANDINGS.index(row.standing)),
                "counts": [(standing, counts[standing]) for standing in STANDINGS],
                "folders": figures.by_folder(self._rows),
                "reaches": figures.reaches(self._rows),
                "times": figures.times(self._rows),
            }
            self._write(FRONT, "front.html.j2", shown)
        return self.folder / FRONT

    def _write(self, name: str, template: str, shown: dict[str, Any]) -> None:
        text = _environment().get_template(template).render(**shown, made=now())
        replace(self.folder / name, text.encode("utf-8", "replace"))


def _named(name: str) -> str:
    return re.sub(r"[^A-Za-z0-9_-]+", "-", name).strip("-")[:60] or "component"


def now() -> str:
    """The time at which a page is made, as it shows it."""
    return datetime.now(UTC).strftime("%d %B %Y, %H:%M UTC").lstrip("0")


def _shown(subject: Subject, home: bool) -> dict[str, Any]:
    """The values of a pair's page."""
    verification = subject.verification
    scenes = view.scenes(subject)
    facts = list(words.facts(verification)) if verification is not None else []
    return {
        "title": subject.name,
        "subject": subject,
        "verification": verification,
        "facts": [text for what, text in facts if what != "normalised"],
        "scenes": scenes[:MOST_SCENES],
        "differing": len(scenes),
        "drawn": view.drawn(subject),
        "trials": view.trials(subject),
        "set_aside": view.set_aside(subject),
        "sources": view.sources(subject),
        "home": f"../{FRONT}" if home else "",
    }
