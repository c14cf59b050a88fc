"""`clean-carry carry`: carry components of files to another syntax."""

from __future__ import annotations

import json
from pathlib import Path

import click

from clean_carry.component.errors import CarryError, InputError, WriteRefused
from clean_carry.component.findings import Finding
from clean_carry.component.result import NewFile, Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.writing import replace, uncommitted, write_new
from clean_carry.report import terminal
from clean_carry.source.text import SourceText


@click.command(epilog="Example: clean-carry carry src/DepartureBoard.jsx --to jsx-function --write")
@click.argument("files", nargs=-1, required=True, type=click.Path(path_type=Path), metavar="FILE…")
@click.option("--to", "target", required=True, metavar="SYNTAX", help="The syntax to write.")
@click.option("--from", "origin", metavar="SYNTAX", help="The syntax of FILE; told by itself.")
@click.option(
    "--out",
    type=click.Path(path_type=Path, file_okay=False),
    metavar="DIR",
    help="Write the new files into DIR.",
)
@click.option(
    "--write", is_flag=True, help="Write each new file beside the old: X.function.jsx for X.jsx."
)
@click.option("--replace", "overwrite", is_flag=True, help="Write over FILE itself.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def carry(
    files: tuple[Path, ...],
    target: str,
    origin: str | None,
    out: Path | None,
    write: bool,
    overwrite: bool,
    as_json: bool,
) -> None:
    """Carry the components in FILE… to another syntax.

    Without --out, --write or --replace nothing is written: the change is shown as a unified diff
    with the ledger and the findings under it.
    """
    if sum((out is not None, write, overwrite)) > 1:
        raise click.UsageError("choose one of --out, --write and --replace")
    results: list[Result] = []
    code = 0
    for path in files:
        try:
            found = carry_file(Request(path, str(path), target, origin))
            if out is not None or write or overwrite:
                found = _write(found, path, out, overwrite)
        except (InputError, WriteRefused) as error:
            click.echo(f"clean-carry: {error.one_line()}", err=True)
            code = max(code, error.exit_code)
            continue
        results.extend(found)
        if not as_json:
            _show(found, path, preview=out is None and not write and not overwrite)
    if as_json:
        click.echo(json.dumps({"results": [r.as_json() for r in results]}, indent=2))
    raise click.exceptions.Exit(code or _code(results))


def _code(results: list[Result]) -> int:
    if any(f.rule == "ledger-unsettled" for r in results for f in r.findings):
        return 70
    return 0 if all(r.status == "clean" for r in results) else 1


def _write(results: list[Result], path: Path, out: Path | None, overwrite: bool) -> list[Result]:
    done: dict[str, NewFile] = {}
    notes: list[Finding] = []
    for result in results:
        for file in result.files:
            if file.path in done:
                continue
            place = Path(file.path)
            if overwrite and len(result.files) == 1:
                place = path
                if uncommitted(path):
                    notes.append(Finding.of("uncommitted-changes", str(path), 1, 1))
                replace(place, file.data)
            else:
                place = out / place.name if out is not None else place
                write_new(place, file.data)
            done[file.path] = NewFile(str(place), file.text, file.data)
    return [
        Result(
            **{
                **vars(result),
                "files": tuple(done[file.path] for file in result.files),
                "findings": (*result.findings, *notes),
            }
        )
        for result in results
    ]


def _show(results: list[Result], path: Path, *, preview: bool) -> None:
    files = {file.path: file for result in results for file in result.files}
    for number, file in enumerate(files.values()):
        if preview:
            source = SourceText.read(path)
            old = source.slice(0, len(source.data)) if number == 0 else ""
            for line in terminal.diff(old, file.text, str(path), file.path):
                click.echo(line)
        else:
            click.echo(f"written: {file.path}")
    for result in results:
        for line in terminal.summary(result):
            click.echo(line)


__all__ = ["CarryError", "carry"]
