"""`clean-carry verify`: render old and new in the real runtime and compare."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click

from clean_carry.report import terminal
from clean_carry.verify.pair import pair_of, trials_for
from clean_carry.verify.verify import Bench, verify


@click.command(
    "verify",
    epilog="Example: clean-carry verify src/Board.jsx src/Board.function.jsx --trials Board.trials.yaml",
)
@click.argument("old", type=click.Path(path_type=Path), metavar="OLD")
@click.argument("new", type=click.Path(path_type=Path), metavar="NEW")
@click.option(
    "--trials",
    "trial_file",
    type=click.Path(path_type=Path),
    metavar="FILE",
    help="The trials to run; X.trials.yaml beside OLD if not given.",
)
@click.option(
    "--runtime",
    "runtime_name",
    metavar="NAME",
    help="The runtime to render in; the project's own version if not given.",
)
@click.option("--offline", is_flag=True, help="Never install a missing runtime.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def verify_command(
    old: Path,
    new: Path,
    trial_file: Path | None,
    runtime_name: str | None,
    offline: bool,
    as_json: bool,
) -> None:
    """Render OLD and NEW step by step in the real runtime, and say where they differ.

    NEW's relative imports resolve as if it stood at OLD's path. Without trials the inputs that OLD
    declares are filled, and everything on the page is pressed and typed into.
    """
    before, after, interface = pair_of(old, new, runtime_name)
    found = trials_for(old, before.text, trial_file)
    before, after = found.mount(before), found.mount(after)
    with Bench(offline=offline, say=lambda text: click.echo(text, err=True)) as bench:
        result = verify(bench, before, after, found.trials, interface, _progress(as_json))
    _clear(as_json)
    if as_json:
        click.echo(json.dumps(result.as_json(), indent=2, ensure_ascii=False))
    else:
        for line in terminal.verdict(result, f"{old} → {new}"):
            click.echo(line)
    raise click.exceptions.Exit(0 if result.verdict == "same" else 1)


def _progress(as_json: bool):  # type: ignore[no-untyped-def]
    def say(name: str) -> None:
        if sys.stderr.isatty() and not as_json:
            click.echo(f"\r\033[Krunning: {name[:60]}", nl=False, err=True)

    return say


def _clear(as_json: bool) -> None:
    if sys.stderr.isatty() and not as_json:
        click.echo("\r\033[K", nl=False, err=True)
