"""Options of the commands that render: how hard to look, what may be installed, what is kept."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING, Any

import click

from clean_carry.cli.progress import Line

if TYPE_CHECKING:
    from clean_carry.verify.verify import Effort
    from clean_carry.verify.worker_pool import Bench

_OPTIONS = (
    click.option(
        "--budget",
        type=click.FloatRange(min=0.1),
        default=10.0,
        show_default=True,
        metavar="SECONDS",
        help="How long to search for trials, for each component.",
    ),
    click.option(
        "--most-trials",
        type=click.IntRange(min=1),
        envvar="CLEAN_CARRY_MOST_TRIALS",
        metavar="N",
        help="End the search after N trials, so that results do not depend on the machine's speed.",
    ),
    click.option(
        "--seed",
        type=int,
        default=1,
        show_default=True,
        help="The seed of the random choices; another seed gives other trials.",
    ),
    click.option(
        "--workers",
        type=click.IntRange(1, 16),
        default=2,
        show_default=True,
        envvar="CLEAN_CARRY_WORKERS",
        metavar="N",
        help="The number of files to carry, or of renderers to run, in parallel.",
    ),
    click.option(
        "--in",
        "engine",
        type=click.Choice(["page", "browser"]),
        default="page",
        show_default=True,
        help="Compare in a simulated page only, or in a real browser afterwards, with styles and pixels.",
    ),
    click.option(
        "--width",
        "widths",
        type=click.IntRange(200, 3000),
        multiple=True,
        metavar="PIXELS",
        help="With --in browser: a window width; may be repeated; 1280 and 400 if omitted.",
    ),
    click.option(
        "--least-reach",
        type=click.FloatRange(0, 100),
        default=60.0,
        show_default=True,
        metavar="N",
        help="Report “unproven” if less than N percent of either version's own code ran.",
    ),
    click.option("--fresh", is_flag=True, help="Ignore the cache."),
    click.option(
        "--verbose",
        is_flag=True,
        help="Also print how often each kind of difference was normalised.",
    ),
    click.option("--offline", is_flag=True, help="Never install a missing runtime."),
)


def EFFORT(command: Callable[..., Any]) -> Callable[..., Any]:
    """The options of a command that renders."""
    for option in reversed(_OPTIONS):
        command = option(command)
    return command


def effort_of(options: Mapping[str, Any]) -> Effort:
    """How hard to look."""
    from clean_carry.verify.verify import Effort

    return Effort(float(options["budget"]), int(options["seed"]), most=options["most_trials"] or 0)


def least_of(options: Mapping[str, Any]) -> float:
    """How much of either side's own code must have run, in percent."""
    return float(options["least_reach"])


def bench_for(options: Mapping[str, Any], line: Line) -> Bench:
    """The bench a command renders on."""
    from clean_carry.source.system import cache_folder
    from clean_carry.verify.store import Store
    from clean_carry.verify.worker_pool import Bench

    gaze = None
    if options["widths"] and options["engine"] != "browser":
        raise click.UsageError("--width goes with --in browser")
    if options["engine"] == "browser":
        from clean_carry.verify.browser.browser_run import Gaze
        from clean_carry.verify.browser.engine import executable

        executable()  # a wrong path is reported before anything runs
        gaze = Gaze(tuple(options["widths"]), float(options["budget"]))
    return Bench(
        offline=bool(options["offline"]),
        say=line.say,
        size=int(options["workers"]),
        store=Store(None if options["fresh"] else cache_folder() / "store"),
        gaze=gaze,
    )
