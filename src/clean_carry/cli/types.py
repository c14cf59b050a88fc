"""`--types`: the type errors that a crossing adds, printed with the results."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

import click

from clean_carry.cli.progress import Line

if TYPE_CHECKING:
    from clean_carry.verify.types import TypeFault


def require_compiler(files: Sequence[Path]) -> None:
    """Raise `RuntimeMissing` where types are to be checked and a project has no compiler."""
    from clean_carry.verify.types import needs_compiler

    needs_compiler(files)


def type_faults(
    files: Sequence[tuple[Path, str]], beside: Sequence[tuple[Path, str]], line: Line
) -> list[TypeFault]:
    """Ask the project's compiler; `beside` are all new files where they are to stand. Raises `CarryError`
    where it fails."""
    from clean_carry.verify.types import added_faults

    line.show("checking types")
    return added_faults(files, beside)


def show_faults(faults: Sequence[TypeFault]) -> None:
    """Print each fault on a line, and how many there are."""
    for fault in faults:
        click.echo(fault.one_line())
    more = {0: "no error more", 1: "one error more"}.get(len(faults), f"{len(faults)} errors more")
    click.echo(f"types: {more}")
