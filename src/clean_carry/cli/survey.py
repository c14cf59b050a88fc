"""`clean-carry survey`: look a code base over before and while it is carried."""

from __future__ import annotations

import csv
import io
import json
import os
import shutil
import sys
from collections import Counter
from pathlib import Path

import click

from clean_carry.cli.changes import shown
from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.component.errors import CarryError, printable
from clean_carry.crossing.carry import check_syntaxes
from clean_carry.project.history import Point, progress
from clean_carry.project.index.build import index_of
from clean_carry.project.index.links import Index
from clean_carry.project.survey import Row, dry_run, survey
from clean_carry.report import words

_EXAMPLES = """\b
Examples:
  clean-carry survey                                    every component, and where to start
  clean-carry survey src --to jsx-function              what a carry would leave, easy ones first
  clean-carry survey --report overview --since 2026-01-01    a page to show to others
  clean-carry survey --csv > components.csv             a table for a spreadsheet
"""
_OUTCOME = {
    "clean": "green", "left": "magenta", "refused": "red", "done": "cyan", "no crossing": "magenta",
    "not read": "magenta",
}  # fmt: skip
_FIELDS = ("props", "state", "derived", "effects", "slots", "events", "styles")


@click.command("survey", epilog=_EXAMPLES)
@click.argument("paths", nargs=-1, type=click.Path(exists=True, path_type=Path), metavar="[PATH…]")
@click.option(
    "--to",
    "target",
    metavar="SYNTAX",
    help="Also try to carry each component to SYNTAX, without writing, and put the easy ones first.",
)
@click.option(
    "--since",
    metavar="DATE",
    help="Also read the progress since DATE from the version control's history.",
)
@click.option(
    "--report",
    "folder",
    type=click.Path(path_type=Path, file_okay=False),
    metavar="DIR",
    help="Write a page with the component tree and the progress to DIR/index.html.",
)
@click.option("--csv", "as_csv", is_flag=True, help="Print CSV, a line for each component.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
@click.option("--fresh", is_flag=True, help="Scan all files again instead of reading the cache.")
@click.option(
    "--workers",
    type=click.IntRange(1),
    default=os.cpu_count() or 1,
    help="How many processes scan.",
)
def survey_command(
    paths: tuple[Path, ...],
    target: str | None,
    since: str | None,
    folder: Path | None,
    as_csv: bool,
    as_json: bool,
    fresh: bool,
    workers: int,
) -> None:
    """List all components, who uses them, and in which order to carry them.

    Use it before a migration to see how big it is, and later to see how far it is. Leaves come first, the
    easy ones first among them. Without PATH the whole project is listed.

    Uses are found in imports, re-exports, lazy imports, tags, registrations, routes, tests and stories.
    """
    if as_csv and as_json:
        raise click.UsageError("choose one of --csv and --json")
    if target is not None:
        check_syntaxes(target, None)
    line = Line(quiet=as_json or as_csv)
    index = index_of(
        paths[0] if paths else Path(),
        fresh=fresh,
        processes=workers,
        say=lambda done, total: line.show(f"{done} of {total} files scanned"),
    )
    tried = None
    if target is not None:
        tried = dry_run(
            index,
            target,
            paths,
            processes=workers,
            say=lambda done, total: line.show(f"{done} of {total} files tried"),
            fresh=fresh,
        )
    rows = survey(index, paths, tried)
    points = _progress(index, since, folder, fresh, line)
    line.clear()
    if not rows:
        where = ", ".join(map(str, paths)) or str(index.root)
        raise CarryError("no component is there", advice="Name a folder of sources", file=where)
    if folder is not None:
        from clean_carry.report.survey.write import write_survey

        line.say(f"report: {write_survey(folder, index, rows, points, target)}")
    if as_json:
        found = {
            "components": [row.as_json(index.root) for row in rows],
            "progress": [point.as_json() for point in points],
        }
        click.echo(json.dumps(found, indent=2, ensure_ascii=False))
    elif as_csv:
        click.echo(_csv(index, rows), nl=False)
    else:
        _table(index, rows, target)
        _summary(index, rows, points, target)
        _next(index, rows, target)


def _next(index: Index, rows: list[Row], target: str | None) -> None:
    """Show how to read the first component that is to be carried."""
    first = next(
        (row for row in rows if row.carry is None or row.carry.outcome in ("clean", "left")), None
    )
    if first is None:
        return
    file = shown(first.found.key.file, Path.cwd().resolve())
    to = f" --to {target}" if target else ""
    next_step(f"clean-carry sheet {file}{to}", "reads the first one")


def _progress(
    index: Index, since: str | None, folder: Path | None, fresh: bool, line: Line
) -> list[Point]:
    if since is None and folder is None:
        return []
    return progress(
        index.root,
        since or "",
        fresh=fresh,
        say=lambda done, total: line.show(f"{done} of {total} commits read"),
    )


def _csv(index: Index, rows: list[Row]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    fixed = ("order", "name", "file", "line", "syntax", "lines")
    writer.writerow((*fixed, *_FIELDS, "used by", "uses", "cycle", "outcome", "rules", "reason"))
    for row in rows:
        known = row.as_json(index.root)
        tried = row.carry
        writer.writerow(
            (
                *(known[name] for name in fixed),
                *(row.found.seen.counts.get(name, 0) for name in _FIELDS),
                row.files_using,
                len(row.uses),
                " ".join(row.cycle),
                tried.outcome if tried is not None else "",
                " ".join(tried.rules) if tried is not None else "",
                row.reason,
            )
        )
    return out.getvalue()


def _table(index: Index, rows: list[Row], target: str | None) -> None:
    """Print a row for each component; what does not fit the width is cut."""
    width = shutil.get_terminal_size((80, 24)).columns if sys.stdout.isatty() else 100
    top = len(index.root.as_posix().rstrip("/")) + 1
    longest = max(len(row.name) for row in rows)
    syntaxes = max(len(row.found.seen.syntax) for row in rows)
    name = min(longest, max(14, width // 4))
    place = len(str(len(rows)))
    kinds = syntaxes if width >= 72 else 0
    head = f"{'#':>{place}}  {'component':<{name}}  "
    head += f"{'syntax':<{kinds}}  " if kinds else ""
    head += f"{'lines':>5}  {'why here'}"
    click.echo(click.style(head[:width], dim=True))
    for row in rows:
        left = f"{row.order:>{place}}  {_cut(row.name, name):<{name}}  "
        left += f"{row.found.seen.syntax:<{kinds}}  " if kinds else ""
        left += f"{row.found.seen.lines:>5}  "
        why = row.reason
        rest = width - len(left)
        if rest - len(why) > 24:
            why = f"{why} · {row.found.key.file[top:]}:{row.found.seen.line}"
        colour = _OUTCOME.get(row.carry.outcome) if row.carry is not None else None
        click.echo(printable(left) + click.style(printable(_cut(why, rest)), fg=colour))


def _cut(text: str, width: int) -> str:
    return text if len(text) <= width else text[: max(width - 1, 0)] + "…"


def _summary(index: Index, rows: list[Row], points: list[Point], target: str | None) -> None:
    syntaxes = Counter(row.found.seen.syntax for row in rows)
    files = len({row.found.key.file for row in rows})
    named = ", ".join(f"{count} {syntax}" for syntax, count in syntaxes.most_common())
    click.echo(f"\n{words.many(len(rows), 'component')} in {words.many(files, 'file')}: {named}")
    if target is not None:
        outcomes = Counter(row.carry.outcome for row in rows if row.carry is not None)
        told = {"done": f"already {target}", "left": "left in part"}
        shown = ", ".join(f"{n} {told.get(one, one)}" for one, n in outcomes.most_common())
        click.echo(f"carried to {target}: {shown}")
    cycles = sum(bool(row.cycle) for row in rows)
    if cycles:
        click.echo(f"{words.many(cycles, 'component')} in cycles: carry those of a cycle together")
    unread = [facts.problem for facts in index.files.values() if facts.problem]
    for problem in unread[:5]:
        click.echo(f"not read: {printable(problem)}")
    if len(unread) > 5:
        click.echo(f"not read: {len(unread) - 5} more files")
    for point in points[:1] + points[-1:] if len(points) > 1 else points:
        counted = ", ".join(f"{count} {syntax}" for syntax, count in point.counts.items())
        click.echo(f"{point.date} ({point.commit}): {counted or 'no component'}")
