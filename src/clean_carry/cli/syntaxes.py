"""`clean-carry syntaxes`: what is read and written."""

from __future__ import annotations

import json

import click

from clean_carry.syntaxes.registry import crossings, every_syntax


@click.command(epilog="Example: clean-carry syntaxes --json")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def syntaxes(as_json: bool) -> None:
    """List the component syntaxes, and what each can be carried to."""
    rows = [
        {
            "id": s.id,
            "summary": s.summary,
            "reads": bool(s.reader),
            "writes": bool(s.writer),
            "to": [target for origin, target in crossings() if origin == s.id],
            "runtime": s.runtime.name,
        }
        for s in every_syntax()
    ]
    if as_json:
        click.echo(json.dumps({"syntaxes": rows}, indent=2))
        return
    for row in rows:
        name = click.style(f"{row['id']:<20}", bold=True)
        click.echo(f"{name} {row['summary']}")
        to = ", ".join(str(t) for t in row["to"]) or "—"  # type: ignore[attr-defined]
        click.echo(f"{'':<20} carried to: {to} · checked in: {row['runtime']}")
