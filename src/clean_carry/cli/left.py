"""`clean-carry left`: the places left to a person, so that they can be worked off."""

from __future__ import annotations

import json
from collections import Counter
from pathlib import Path

import click

from clean_carry.project.left import LeftPlace, left_places
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
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
@click.pass_context
def left(
    context: click.Context, paths: tuple[Path, ...], rules: tuple[str, ...], as_json: bool
) -> None:
    """List the places that carrying left for you to finish.

    Use it to work through a carried folder. Each place is marked in the new file; the list shows its line,
    the old code and advice. Without PATH, the current folder is searched.
    """
    for rule in rules:
        if rule not in every_rule():
            raise click.BadParameter(f"there is no rule “{rule}”; `clean-carry explain` lists them")
    found = [place for place in left_places(paths or (Path(),)) if not rules or place.rule in rules]
    if as_json:
        shape = {"places": [place.as_json() for place in found]}
        click.echo(json.dumps(shape, indent=2, ensure_ascii=False))
    else:
        _show(found)
    context.exit(EXIT_LEFT if found else 0)


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
