"""`clean-carry explain`: the meaning of a finding, code before and after, and the advice."""

from __future__ import annotations

import json
from itertools import groupby
from typing import Any

import click

from clean_carry.component.errors import CarryError, closest
from clean_carry.component.rules import Rule
from clean_carry.syntaxes.rules import every_rule


@click.command(
    epilog="Examples: clean-carry explain old-value-read; clean-carry explain --json | jq '.rules[].name'"
)
@click.argument("rule", required=False, metavar="RULE")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def explain(rule: str | None, as_json: bool) -> None:
    """Explain a finding that `carry` reported: why it matters and how to change the code.

    RULE is the name in brackets behind the finding. Without RULE, list every rule by topic.
    """
    if rule is not None and rule not in every_rule():
        near = closest(rule, every_rule())
        raise CarryError(
            f"there is no rule “{rule}”", advice=f"{near}`clean-carry explain` lists them"
        )
    chosen = [every_rule()[rule]] if rule is not None else list(every_rule().values())
    if as_json:
        found = [_as_json(one) for one in chosen]
        click.echo(json.dumps({"rules": found}, indent=2, ensure_ascii=False))
    elif rule is not None:
        _explain_one(chosen[0])
    else:
        _list(chosen)


def _as_json(rule: Rule) -> dict[str, Any]:
    return {**vars(rule), "message": rule.title}


def _explain_one(rule: Rule) -> None:
    click.echo(f"{click.style(rule.name, bold=True)} ({rule.level}, {rule.topic})")
    click.echo(f"  {rule.title}")
    for heading, text in (("Before", rule.before), ("After", rule.after), ("Advice", rule.advice)):
        if text:
            click.echo(f"\n{heading}\n  {text}")


def _list(rules: list[Rule]) -> None:
    width = max(len(rule.name) for rule in rules)
    by_topic = sorted(rules, key=lambda rule: rule.topic)
    for number, (topic, ones) in enumerate(groupby(by_topic, key=lambda rule: rule.topic)):
        gap = "\n" if number else ""
        click.echo(f"{gap}{click.style(topic, bold=True)}")
        for rule in ones:
            click.echo(f"  {rule.name:<{width}}  {rule.title}")
