"""`clean-carry verify`: render old and new in the real runtime and compare."""

from __future__ import annotations

import json
from pathlib import Path

import click

from clean_carry.cli.bench import EFFORT, bench_for, effort_of
from clean_carry.cli.progress import EXIT_STOPPED, Line
from clean_carry.report import terminal
from clean_carry.verify.pair import Trials, pair_of, trials_for, verified
from clean_carry.verify.trials import save as save_trial


@click.command(
    "verify",
    epilog="Example: clean-carry verify src/Board.jsx src/Board.function.jsx --save Board.trials.yaml",
)
@click.argument("old", type=click.Path(path_type=Path), metavar="OLD")
@click.argument("new", type=click.Path(path_type=Path), metavar="NEW")
@click.option(
    "--trials",
    "trial_file",
    type=click.Path(path_type=Path),
    metavar="FILE",
    help="The trials to run; X.trials.yaml beside OLD if not given; else they find themselves.",
)
@click.option(
    "--search", is_flag=True, help="Let trials find themselves also where a file is there."
)
@click.option(
    "--mount", metavar="EXPORT", help="The export to mount; decided and said if not given."
)
@click.option(
    "--save",
    type=click.Path(path_type=Path),
    metavar="FILE",
    help="Save the smallest trial that differs.",
)
@click.option(
    "--least-reach",
    type=click.FloatRange(0, 100),
    metavar="N",
    help="Fail where less than N percent of the branches of either side were reached.",
)
@click.option(
    "--runtime",
    "runtime_name",
    metavar="NAME",
    help="The runtime to render in; the project's own version if not given.",
)
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def verify_command(
    old: Path,
    new: Path,
    trial_file: Path | None,
    search: bool,
    mount: str | None,
    save: Path | None,
    least_reach: float | None,
    runtime_name: str | None,
    as_json: bool,
    **effort: object,
) -> None:
    """Render OLD and NEW step by step in the real runtime, and say where they differ.

    NEW's relative imports resolve as if it stood at OLD's path. Without a trial file trials find
    themselves: inputs from what the code says, steps from what the page offers, guided by what
    reaches something new, until nothing new is found or the budget is used up.
    """
    before, after, interface = pair_of(old, new, runtime_name)
    trials = Trials(None) if search else trials_for(old, trial_file)
    if mount is not None:
        trials = Trials(trials.trials, mount)
    line = Line(quiet=as_json)
    with bench_for(effort, line) as bench:
        result = verified(bench, (before, after), interface, trials, effort_of(effort), line.show)
    line.clear()
    if as_json:
        click.echo(json.dumps(result.as_json(), indent=2, ensure_ascii=False))
    else:
        for text in terminal.verdict(result, f"{old} → {new}"):
            click.echo(text)
    if save is not None and result.failing is not None:
        save_trial(save, result.failing, trials.exported)
        line.say(f"saved: {save}")
    short = (
        least_reach is not None
        and result.reach is not None
        and any(r.percent < least_reach for r in result.reach)
    )
    if short:
        line.say(f"clean-carry: less than {least_reach:g} % of the branches were reached")
    if result.interrupted:
        raise click.exceptions.Exit(EXIT_STOPPED)
    raise click.exceptions.Exit(0 if result.verdict == "same" and not short else 1)
