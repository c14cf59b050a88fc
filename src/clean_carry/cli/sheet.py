"""`clean-carry sheet`: everything about one component on one page."""

from __future__ import annotations

import json
from collections import Counter
from pathlib import Path

import click

from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.component.errors import printable
from clean_carry.crossing.carry import check_syntaxes
from clean_carry.project.index.build import index_of
from clean_carry.project.manifest import manifest
from clean_carry.project.sheet import KINDS, Item, Sheet, sheets
from clean_carry.report import words

_TITLES = {
    "prop": "Props", "event": "Events out", "slot": "Slots", "state": "State",
    "derived": "Derived values", "effect": "Effects", "method": "Methods", "field": "Fields",
    "injected": "Injected", "provided": "Provided", "style": "Styles", "tag": "Registered as",
}  # fmt: skip
_OUTCOMES = {"kept": "=", "carried": "→", "dropped": "−", "left": "!"}
_MOST_PLACES = 3


@click.command(
    "sheet",
    epilog="Examples: clean-carry sheet src/Berth.jsx --to jsx-function; "
    "clean-carry sheet src/Berth.vue --manifest > custom-elements.json",
)
@click.argument("file", type=click.Path(exists=True, path_type=Path, dir_okay=False))
@click.option(
    "--to", "target", metavar="SYNTAX", help="Also say what carrying would do with each part."
)
@click.option("--manifest", "as_manifest", is_flag=True, help="Print a custom-elements manifest.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def sheet_command(file: Path, target: str | None, as_manifest: bool, as_json: bool) -> None:
    """Show the anatomy of the components in a file.

    Use it to read a component before you carry it: props and where each is passed, state and what writes
    it, derived values, effects and when they run, events, slots, injected and provided values, styles, and
    who uses it.

    With --to, the signs =, →, − and ! count the constructs on a line that are kept, carried, dropped and
    left to you.
    """
    if as_manifest and as_json:
        raise click.UsageError("choose one of --manifest and --json")
    if target is not None:
        check_syntaxes(target, None)
    line = Line(quiet=as_json or as_manifest)
    index = index_of(file, say=lambda done, total: line.show(f"{done} of {total} files scanned"))
    line.clear()
    found = sheets(index, file, target)
    root = index.root
    if as_manifest:
        module = file.resolve().relative_to(root).as_posix()
        click.echo(json.dumps(manifest(found, module), indent=2, ensure_ascii=False))
    elif as_json:
        rows = [one.as_json(root) for one in found]
        click.echo(json.dumps({"components": rows}, indent=2, ensure_ascii=False))
    else:
        for one in found:
            _show(one, root)
        if target is not None:
            next_step(f"clean-carry carry {file} --to {target}", "shows the change")


def _show(sheet: Sheet, root: Path) -> None:
    head = click.style(printable(sheet.name), bold=True)
    click.echo(
        f"{head} · {sheet.syntax}, {words.many(sheet.lines, 'line')} · {sheet.file}:{sheet.line}"
    )
    _users(sheet, root)
    if sheet.problem:
        click.echo(f"  not read: {printable(sheet.problem)}")
    for kind in KINDS:
        items = sheet.of(kind)
        if items:
            click.echo(click.style(_TITLES[kind], underline=True))
            for item in items:
                _item(item, max(len(one.name) for one in items))
    result = sheet.carry
    if result is not None:
        click.echo(click.style(f"Carried to {result.target}: {result.status}", underline=True))
        for finding in result.findings:
            place = f"{finding.line}:{finding.column}"
            click.echo(f"  {place:>8}  {printable(finding.message)} [{finding.rule}]")
    click.echo()


def _users(sheet: Sheet, root: Path) -> None:
    top = len(root.as_posix().rstrip("/")) + 1
    roles = Counter(use.role for use in sheet.users)
    files = sorted({use.file[top:] for use in sheet.users if use.role == "source"})
    named = ", ".join(files[:_MOST_PLACES]) + (
        f" and {len(files) - _MOST_PLACES} more" if len(files) > _MOST_PLACES else ""
    )
    aside = ", ".join(
        f"{count} in {role} files" for role, count in roles.items() if role != "source"
    )
    click.echo(f"  used by: {printable(named) or 'nothing'}{f' ({aside})' if aside else ''}")
    click.echo(f"  uses: {', '.join(sheet.uses) or 'no other component'}")


def _item(item: Item, width: int) -> None:
    signs = " ".join(f"{_OUTCOMES[one]}{count}" for one, count in item.carry.items())
    where = f"{item.line:>5}" if item.line else " " * 5
    about = [item.about] if item.about else []
    places = item.places[:_MOST_PLACES]
    if len(item.places) > _MOST_PLACES:
        places.append(f"{len(item.places) - _MOST_PLACES} more")
    if places:
        lead = "" if places[0].startswith("written") else "passed at "
        about.append(lead + ", ".join(places))
    text = f"{where}  {printable(item.name):<{width}}  {printable('; '.join(about))}".rstrip()
    click.echo(text + (f"  {click.style(signs, dim=True)}" if signs else ""))
