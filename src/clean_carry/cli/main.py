"""The command `clean-carry` and what all its commands share."""

from __future__ import annotations

import gc
import os
import signal
import sys
from pathlib import Path
from typing import Any, NoReturn

import click

from clean_carry import __version__
from clean_carry.cli.lazy import LazyGroup
from clean_carry.cli.progress import EXIT_STOPPED
from clean_carry.component.errors import CarryError
from clean_carry.project.journal import NAME as JOURNAL
from clean_carry.project.journal import working_on
from clean_carry.source.places import upward

EXIT_FAULT = 70


@click.group(
    cls=LazyGroup,
    commands_in={
        "init": "clean_carry.cli.init:init",
        "survey": "clean_carry.cli.survey:survey_command",
        "carry": "clean_carry.cli.carry:carry",
        "verify": "clean_carry.cli.verify:verify_command",
        "lift": "clean_carry.cli.lift:lift_command",
        "sheet": "clean_carry.cli.sheet:sheet_command",
        "switch": "clean_carry.cli.switch:switch_command",
        "retire": "clean_carry.cli.retire:retire_command",
        "left": "clean_carry.cli.left:left",
        "syntaxes": "clean_carry.cli.syntaxes:syntaxes",
        "runtimes": "clean_carry.cli.runtimes:runtimes",
        "demo": "clean_carry.cli.demo:demo",
        "explain": "clean_carry.cli.explain:explain",
    },
    context_settings={"help_option_names": ["-h", "--help"]},
    epilog="Exit codes: 0 all well, 1 something left, refused or different, 2 a mistake in the call, "
    "3 unreadable input, 4 a runtime is missing, 5 not written, 70 a fault of the tool.",
)
@click.version_option(__version__, message="%(version)s")
@click.pass_context
def cli(context: click.Context) -> None:
    """Move UI components from one component syntax to another, and prove that both behave the same.

    Example: clean-carry carry src/DepartureBoard.jsx --to jsx-function
    """
    if "NO_COLOR" in os.environ:
        context.color = False
    journal = upward(Path.cwd(), JOURNAL)
    if journal is not None:
        with working_on(journal.parent):
            click.echo("finished a change that was interrupted", err=True)


def main(arguments: list[str] | None = None) -> Any:
    """Run the command; a user's mistake is one line and an exit code, never a traceback."""
    try:
        return cli.main(args=arguments, prog_name="clean-carry", standalone_mode=False) or 0
    except click.exceptions.Exit as stop:
        return stop.exit_code
    except click.ClickException as mistake:
        click.echo(f"clean-carry: {' '.join(mistake.format_message().split())}", err=True)
        return 2
    except (click.Abort, KeyboardInterrupt):
        click.echo("clean-carry: stopped", err=True)
        return EXIT_STOPPED
    except CarryError as error:
        click.echo(f"clean-carry: {error.one_line()}", err=True)
        return error.exit_code
    except BrokenPipeError:
        sys.stderr.close()
        return 0
    except Exception as error:
        text = " ".join(f"{type(error).__name__}: {error}".split())[:200]
        click.echo(f"clean-carry: a fault of the tool ({text}); nothing more was written", err=True)
        if os.environ.get("CLEAN_CARRY_TRACE"):
            raise
        return EXIT_FAULT


# So many more objects must live before garbage is looked for: carrying leaves hardly any.
COLLECT_AFTER = 100_000


def run() -> None:
    """The console script."""
    gc.set_threshold(COLLECT_AFTER)
    # Who ends the command ends it as who stops it: what is under way is taken back, nothing stays behind.
    signal.signal(signal.SIGTERM, _stopped)
    sys.exit(main())


def _stopped(number: int, frame: object) -> NoReturn:
    raise KeyboardInterrupt
