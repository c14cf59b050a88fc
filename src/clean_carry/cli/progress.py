"""One line of progress on a terminal; nothing in a pipe."""

from __future__ import annotations

import shutil
import sys
import time

import click

from clean_carry.component.errors import printable

# The exit code of a command that the user stopped (docs/exit-codes.md).
EXIT_STOPPED = 130


class Line:
    """A line that is written over and over, on the error stream."""

    def __init__(self, *, quiet: bool = False) -> None:
        self._live = sys.stderr.isatty() and not quiet
        self._shown = 0.0
        self._there = False

    def show(self, text: str) -> None:
        """Show what goes on now, at most ten times a second."""
        now = time.monotonic()
        if not self._live or now - self._shown < 0.1:
            return
        self._shown, self._there = now, True
        width = shutil.get_terminal_size().columns - 1
        click.echo(f"\r\033[K{printable(text)[:width]}", nl=False, err=True)

    def clear(self) -> None:
        """Take the line away."""
        if self._there:
            click.echo("\r\033[K", nl=False, err=True)
            self._there = False

    def say(self, text: str) -> None:
        """Say something that stays."""
        self.clear()
        click.echo(printable(text), err=True)
