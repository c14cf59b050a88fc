"""Write the page of a survey: the component tree, the list, and the progress."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Any

from clean_carry import __version__
from clean_carry.component.errors import WriteRefused
from clean_carry.project.history import Point
from clean_carry.project.index.links import Index
from clean_carry.project.survey import Row
from clean_carry.project.writing import replace
from clean_carry.report import words
from clean_carry.report.page.write import hash_of, now
from clean_carry.report.survey.layout import HEIGHT, WIDTH, layout

if TYPE_CHECKING:
    from jinja2 import Environment

FRONT = "index.html"
_HERE = Path(__file__).parent
# The outcomes of a dry run as the page names them, each with its sign.
OUTCOMES = {
    "clean": ("clean", "✓"),
    "left": ("left in part", "!"),
    "refused": ("refused", "×"),
    "no crossing": ("no crossing", "–"),
    "not read": ("not read", "?"),
    "done": ("carried", "●"),
    "": ("not tried", "○"),
}
_MOST_NAMED = 12


@cache
def _environment() -> Environment:
    from jinja2 import Environment, FileSystemLoader, StrictUndefined

    made = Environment(
        loader=FileSystemLoader([_HERE / "templates", _HERE.parent / "page" / "templates"]),
        autoescape=True, undefined=StrictUndefined, trim_blocks=True, lstrip_blocks=True,
    )  # fmt: skip
    page = (_HERE.parent / "page" / "page.css").read_text("utf-8")
    style = page + (_HERE / "survey.css").read_text("utf-8")
    script = (_HERE / "survey.js").read_text("utf-8")
    made.globals.update(
        style=style,
        script=script,
        policy=f"default-src 'none'; style-src {hash_of(style)}; script-src {hash_of(script)}; "
        "base-uri 'none'; form-action 'none'",
        version=__version__,
        many=words.many,
    )
    return made


def write_survey(
    folder: Path, index: Index, rows: Sequence[Row], points: Sequence[Point], target: str | None
) -> Path:
    """Write the page into a folder; the place to begin reading. Raises `WriteRefused`."""
    if folder.exists() and not folder.is_dir():
        raise WriteRefused("is a file", advice="Name a folder", file=str(folder))
    syntaxes = Counter(row.found.seen.syntax for row in rows)
    outcomes = Counter(row.carry.outcome if row.carry is not None else "" for row in rows)
    shown = {
        "title": f"{index.root.name}: {words.many(len(rows), 'component')}",
        "target": target or "",
        "syntaxes": [
            (name, count, sorted(syntaxes).index(name) % 6)
            for name, count in syntaxes.most_common()
        ],
        "outcomes": [(key, *OUTCOMES[key], outcomes[key]) for key in OUTCOMES if outcomes[key]],
        "progress": _bars(points, target),
        "data": _data(index, rows),
        "made": now(),
    }
    text = _environment().get_template("survey.html.j2").render(**shown)
    replace(folder / FRONT, text.encode("utf-8", "replace"))
    return folder / FRONT


def _data(index: Index, rows: Sequence[Row]) -> str:
    """The rows as JSON that may stand inside of a page."""
    top = len(index.root.as_posix().rstrip("/")) + 1
    placed = layout(rows)
    number = {row.found.key: at for at, row in enumerate(rows)}
    listed = []
    for row in rows:
        seen = row.found.seen
        users = sorted({use.file[top:] for use in row.users if use.file != row.found.key.file})
        listed.append(
            {
                "name": seen.name,
                "file": f"{row.found.key.file[top:]}:{seen.line}",
                "syntax": seen.syntax,
                "lines": seen.lines,
                "used": row.files_using,
                "users": users[:_MOST_NAMED],
                "more": max(0, len(users) - _MOST_NAMED),
                "uses": [number[one.key] for one in row.uses if one.key in number],
                "counts": seen.counts,
                "outcome": row.carry.outcome if row.carry is not None else "",
                "rules": list(row.carry.rules) if row.carry is not None else [],
                "cycle": len(row.cycle),
                "why": row.reason,
            }
        )
    whole = {
        "rows": listed, "places": placed.places, "edges": placed.edges,
        "size": [placed.width, placed.height], "box": [WIDTH, HEIGHT],
        "signs": {key: sign for key, (_, sign) in OUTCOMES.items()},
        "words": {key: word for key, (word, _) in OUTCOMES.items()},
    }  # fmt: skip
    text = json.dumps(whole, ensure_ascii=False, separators=(",", ":"))
    return text.replace("<", "\\u003c").replace("\u2028", "\\u2028").replace("\u2029", "\\u2029")


def _bars(points: Sequence[Point], target: str | None) -> dict[str, Any] | None:
    """The progress as shares of 100: a bar for each commit, and the line of the target's share."""
    if len(points) < 2:
        return None
    syntaxes = sorted({name for point in points for name in point.counts})
    syntaxes.sort(key=lambda name: name == target)
    most = max(sum(point.counts.values()) for point in points) or 1
    step = 100 / len(points)
    bars, line = [], []
    for at, point in enumerate(points):
        y, parts = 100.0, []
        for number, name in enumerate(syntaxes):
            high = 92 * point.counts.get(name, 0) / most
            y -= high
            if high:
                parts.append((number, name, point.counts[name], round(y, 2), round(high, 2)))
        total = sum(point.counts.values())
        share = 100 * point.counts.get(target or "", 0) / total if total else 0
        line.append((round(at * step + step / 2, 2), round(100 - 0.92 * share, 2)))
        bars.append(
            {
                "x": round(at * step + step * 0.12, 2), "width": round(step * 0.76, 2),
                "parts": parts, "date": point.date, "commit": point.commit, "total": total,
                "share": round(share),
            }
        )  # fmt: skip
    return {
        "bars": bars,
        "syntaxes": list(enumerate(syntaxes)),
        "line": line if target else [],
        "most": most,
    }
