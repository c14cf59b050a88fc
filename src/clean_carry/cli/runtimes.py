"""`clean-carry runtimes`: list, install and remove the rendering runtimes."""

from __future__ import annotations

import json

import click

from clean_carry.component.errors import CarryError
from clean_carry.verify.runtimes import RUNTIMES, Runtime, ensure, remove


@click.group(invoke_without_command=True, epilog="Example: clean-carry runtimes install react-18")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
@click.pass_context
def runtimes(context: click.Context, as_json: bool) -> None:
    """List the rendering runtimes; install or remove one.

    A missing runtime is installed on first need, from a lock file that ships with the tool, into the
    cache folder. Nothing else ever contacts a registry.
    """
    if context.invoked_subcommand is None:
        _list(as_json)


@runtimes.command("list", epilog="Example: clean-carry runtimes list --json")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def list_command(as_json: bool) -> None:
    """List the runtimes."""
    _list(as_json)


def _list(as_json: bool) -> None:
    if as_json:
        rows = [
            {"name": r.name, "summary": r.summary, "installed": r.installed}
            for r in RUNTIMES.values()
        ]
        click.echo(json.dumps({"runtimes": rows}, indent=2))
        return
    for runtime in RUNTIMES.values():
        state = click.style("installed", fg="green") if runtime.installed else "on first need"
        click.echo(f"{click.style(f'{runtime.name:<12}', bold=True)} {runtime.summary:<34} {state}")


def _runtime(name: str) -> Runtime:
    if name not in RUNTIMES:
        raise CarryError(
            f"there is no runtime “{name}”", advice=f"There are: {', '.join(RUNTIMES)}"
        )
    return RUNTIMES[name]


@runtimes.command("install", epilog="Example: clean-carry runtimes install react-19")
@click.argument("names", nargs=-1, required=True, metavar="NAME…")
def install_command(names: tuple[str, ...]) -> None:
    """Install runtimes now rather than on first need."""
    for name in names:
        runtime = _runtime(name)
        if runtime.installed:
            click.echo(f"{name} is installed already")
        ensure(runtime, offline=False, say=click.echo)


@runtimes.command("remove", epilog="Example: clean-carry runtimes remove react-16")
@click.argument("names", nargs=-1, required=True, metavar="NAME…")
def remove_command(names: tuple[str, ...]) -> None:
    """Remove installed runtimes from the cache folder."""
    for name in names:
        removed = remove(_runtime(name))
        click.echo(f"{name} was removed" if removed else f"{name} was not installed")
