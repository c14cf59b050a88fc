"""`clean-carry left`: the places left to a person, so that they can be worked off."""

from __future__ import annotations

import json
import os
from collections import Counter
from pathlib import Path

import click

from clean_carry.cli.changes import shown
from clean_carry.cli.progress import Line
from clean_carry.component.errors import printable
from clean_carry.crossing.carry import check_syntaxes
from clean_carry.project.index.build import index_of
from clean_carry.project.index.links import Index
from clean_carry.project.left import LeftPlace, left_places
from clean_carry.project.open_work import Refused, Unproven, refused, unproven
from clean_carry.syntaxes.rules import every_rule

EXIT_LEFT = 1
# Code at a place is shown up to this many characters.
SHOWN = 72


@click.command(
    epilog="Examples: clean-carry left src; clean-carry left src --rule unknown-use --json"
)
@click.argument("paths", nargs=-1, type=click.Path(exists=True, path_type=Path), metavar="[PATH]…")
@click.option(
    "--rule",
    "rules",
    multiple=True,
    metavar="RULE",
    help="Only list places of this rule; may be repeated.",
)
@click.option(
    "--to",
    "target",
    metavar="SYNTAX",
    help="List components that cannot be carried to SYNTAX; to their family's own target if omitted.",
)
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
@click.pass_context
def left(
    context: click.Context,
    paths: tuple[Path, ...],
    rules: tuple[str, ...],
    target: str | None,
    as_json: bool,
) -> None:
    """List what is left for you to do.

    Use it to work through a carried folder. It lists the places that carrying left, which are marked in
    the new files, each with its line, the old code and advice. It also lists components that were refused,
    and new files that are not proven. Without PATH, the current folder is searched.

    With --rule, only marked places and refusals of that rule are listed.
    """
    if target is not None:
        check_syntaxes(target, None)
    for rule in rules:
        if rule not in every_rule():
            raise click.BadParameter(f"there is no rule “{rule}”; `clean-carry explain` lists them")
    tops = paths or (Path(),)
    found = [place for place in left_places(tops) if not rules or place.rule in rules]
    line = Line(quiet=as_json)
    index = index_of(tops[0], say=lambda done, total: line.show(f"{done} of {total} files scanned"))
    not_carried = refused(
        index, tops, target, processes=os.cpu_count() or 1,
        say=lambda done, total: line.show(f"{done} of {total} files tried"),
    )  # fmt: skip
    not_carried = [one for one in not_carried if not rules or set(rules) & set(one.rules)]
    not_proven = unproven(index, tops) if not rules else []
    line.clear()
    if as_json:
        shape = {
            "places": [place.as_json() for place in found],
            "refused": [vars(one) for one in not_carried],
            "unproven": [vars(one) for one in not_proven],
        }
        click.echo(json.dumps(shape, indent=2, ensure_ascii=False))
    else:
        _show(found)
        _show_refused(index, not_carried)
        _show_unproven(index, not_proven)
    context.exit(EXIT_LEFT if found or not_carried or not_proven else 0)


def _show_refused(index: Index, found: list[Refused]) -> None:
    if found:
        click.echo(click.style("\nNot carried, because a rule refuses it", bold=True))
    for one in found:
        place = printable(f"{shown(one.file, index.root)}:{one.line}")
        rules = ", ".join(one.rules)
        click.echo(
            f"  {place}  {printable(one.name)} → {one.to}  {click.style(f'[{rules}]', dim=True)}"
        )
        for rule in one.rules[:1]:
            known = every_rule().get(rule)
            click.echo(f"            → {known.advice if known is not None else 'by hand'}")


def _show_unproven(index: Index, found: list[Unproven]) -> None:
    if found:
        click.echo(click.style("\nNot proven to be the same", bold=True))
    for one in found:
        old, new = shown(one.old, index.root), shown(one.new, index.root)
        click.echo(f"  {printable(old)}  {one.verdict or 'not verified since it changed'}")
        click.echo(f"            → clean-carry verify {printable(old)} {printable(new)}")


def _show(found: list[LeftPlace]) -> None:
    file = ""
    for place in found:
        if place.file != file:
            file = place.file
            click.echo(click.style(file, bold=True))
        text = " ".join(place.text.split())
        text = text if len(text) <= SHOWN else f"{text[: SHOWN - 1]}…"
        where = f"{place.line}:{place.column}"
        click.echo(f"  {where:>8}  {text}  {click.style(f'[{place.rule}]', dim=True)}")
        click.echo(f"            → {place.advice or 'by hand'}")
    if not found:
        click.echo("no place is left to finish")
        return
    by_rule = Counter(place.rule for place in found)
    files = len({place.file for place in found})
    counted = ", ".join(f"{rule} {count}" for rule, count in by_rule.most_common())
    plural = "place is" if len(found) == 1 else "places are"
    click.echo(
        f"\n{len(found)} {plural} left to you in {files} file{'s' * (files != 1)}: {counted}"
    )
