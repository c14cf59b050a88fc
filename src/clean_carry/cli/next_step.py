"""The one command that makes sense next, shown at a terminal and never in a pipe."""

from __future__ import annotations

import sys

import click

from clean_carry.component.errors import printable


def next_step(command: str, why: str = "") -> None:
    """Print the command to run next, and in dim letters its effect (`why`)."""
    if not sys.stdout.isatty():
        return
    note = f"  {click.style(why, dim=True)}" if why else ""
    click.echo(f"\n{click.style('next:', dim=True)} {printable(command)}{note}", err=True)
