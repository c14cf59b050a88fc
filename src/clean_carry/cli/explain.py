"""`clean-carry explain`: what a finding means, an example, what to do."""

from __future__ import annotations

import json

import click

from clean_carry.component.errors import CarryError, closest
from clean_carry.syntaxes.rules import every_rule


@click.command(epilog="Example: clean-carry explain instance-escapes")
@click.argument("rule", required=False, metavar="RULE")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def explain(rule: str | None, as_json: bool) -> None:
    """Say what a finding means and what to do; without RULE, list all."""
    if rule is not None and rule not in every_rule():
        near = closest(rule, every_rule())
        raise CarryError(
            f"there is no rule “{rule}”", advice=f"{near}`clean-carry explain` lists them"
        )
    chosen = [every_rule()[rule]] if rule is not None else list(every_rule().values())
    if as_json:
        click.echo(json.dumps({"rules": [vars(r) for r in chosen]}, indent=2, ensure_ascii=False))
        return
    for known in chosen:
        if rule is None:
            click.echo(f"{click.style(f'{known.name:<24}', bold=True)} {known.summary}")
            continue
        click.echo(f"{click.style(known.name, bold=True)} ({known.level}): {known.summary}")
        click.echo(f"\nExample\n  {known.example}")
        click.echo(f"\nWhat to do\n  {known.advice}")
