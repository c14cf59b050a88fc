"""`clean-carry init`: a first project file."""

from __future__ import annotations

from pathlib import Path

import click

from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.project.index.build import index_of
from clean_carry.project.settings import NAME
from clean_carry.project.starting import project_file
from clean_carry.project.writing import write_new


@click.command("init", epilog="Example: clean-carry init && clean-carry survey")
@click.argument(
    "folder", default=Path(), type=click.Path(exists=True, path_type=Path, file_okay=False)
)
@click.option("--show", is_flag=True, help="Print the file instead of writing it.")
def init(folder: Path, show: bool) -> None:
    """Write a commented project file from what is found.

    Use it once, in the top folder of a project. Source folders, stylesheets, import prefixes and versions
    of frameworks are filled in; an existing project file is never changed.
    """
    line = Line(quiet=show)
    index = index_of(folder, say=lambda done, total: line.show(f"{done} of {total} files scanned"))
    line.clear()
    text = project_file(index)
    if show:
        click.echo(text, nl=False)
        return
    place = folder / NAME
    write_new(place, text.encode())
    click.echo(f"written: {place}")
    next_step("clean-carry survey", "lists the components and where to start")
