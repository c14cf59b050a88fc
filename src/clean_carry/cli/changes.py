"""How the commands that change several files show, write and pass on their change."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import click

from clean_carry.cli.progress import Line
from clean_carry.component.errors import WriteRefused, printable
from clean_carry.project.committed import CHANGED, not_committed
from clean_carry.project.journal import change
from clean_carry.project.walk.edits import Left, Plan
from clean_carry.project.writing import replace
from clean_carry.report import terminal, words
from clean_carry.report.patch import Change, patch

AS_PATCH = click.option(
    "--patch",
    "patch_file",
    type=click.Path(path_type=Path, dir_okay=False),
    metavar="FILE",
    help="Write the change as one diff for `git apply`.",
)


def shown(path: Path | str, root: Path) -> str:
    """A path inside of the project, as it is shown."""
    try:
        return Path(path).relative_to(root).as_posix()
    except ValueError:
        return str(path)


def as_json(plan: Plan, root: Path, **more: Any) -> str:
    """The JSON of a change: {"files": [{"path", "text"}], "left": […]}, all files as they would be."""
    files = [{"path": shown(path, root), "text": text} for path, text in plan.files.items()]
    left = [{**one.as_json(), "file": shown(one.file, root)} for one in plan.left]
    return json.dumps({"files": files, "left": left, **more}, indent=2, ensure_ascii=False)


def show(plan: Plan, root: Path, heading: str) -> None:
    """Print a change as a diff, introduced by a heading."""
    click.echo(click.style(heading, bold=True))
    for path, text in plan.files.items():
        name, old = shown(path, root), plan.old[path] or ""
        if text is None:
            size = words.many(old.count("\n"), "line")
            click.echo(click.style(f"deleted: {printable(name)} ({size})", bold=True))
            continue
        same = [
            known for known, gone in plan.files.items() if gone is None and plan.old[known] == text
        ]
        if plan.old[path] is None and same:
            click.echo(click.style(f"moved: {printable(shown(same[0], root))} → {name}", bold=True))
            continue
        for line in terminal.diff(
            old, text, name if plan.old[path] is not None else "/dev/null", name
        ):
            click.echo(line)


def show_left(left: list[Left], root: Path) -> None:
    """Print the uses that stay as they are."""
    for one in left:
        place = printable(f"{shown(one.file, root)}:{one.line}")
        click.echo(f"  {place}: {click.style('left', fg='magenta')}: {printable(one.what)}")
        click.echo(f"      {click.style('→', dim=True)} {printable(one.advice)}")


def write(plan: Plan, root: Path, *, force: bool) -> None:
    """Write a change, all files or none. Raises `WriteRefused` for uncommitted changes in its files."""
    if not force:
        there = [path for path, old in plan.old.items() if old is not None]
        dirty = {path: why for path, why in not_committed(there).items() if why == CHANGED}
        if dirty:
            path = next(iter(dirty))
            more = f" (and {len(dirty) - 1} more files)" if len(dirty) > 1 else ""
            raise WriteRefused(
                f"{CHANGED}{more}", advice="Commit first, or use --force", file=shown(path, root)
            )
    change(root, plan.data())


def write_patch(plan: Plan, root: Path, place: Path, line: Line) -> None:
    """Write a change as one diff for `git apply`."""
    changes = [
        Change(path, path.read_bytes() if path.is_file() else None, data)
        for path, data in plan.data().items()
    ]
    replace(place, patch(changes))
    line.say(f"patch: {place}")
