"""`clean-carry lift`: turn the blocks that repeat in pages into components."""

from __future__ import annotations

import json
from collections.abc import Collection, Mapping
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import TYPE_CHECKING

import click

from clean_carry.cli.bench import EFFORT, bench_for, effort_of, least_of
from clean_carry.cli.changes import AS_PATCH, show, shown, write, write_patch
from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.component.errors import InputError, WriteRefused, printable
from clean_carry.crossing.carry import check_syntaxes
from clean_carry.project.lift.inside.component_file import JSX, SINGLE_FILE
from clean_carry.project.lift.inside.lift import lift_inside
from clean_carry.project.lift.lift import LiftedPages, Wishes, lift
from clean_carry.project.walk.edits import Plan
from clean_carry.report import terminal, words

if TYPE_CHECKING:
    from clean_carry.verify.verify import Verification
    from clean_carry.verify.worker_pool import Bench

COMPONENTS = (*JSX, SINGLE_FILE)

_EXAMPLES = """\b
Examples:
  clean-carry lift --to single-file-flat tourist.html            show the components and the new page
  clean-carry lift --to single-file-flat tourist.html --explain  also why other blocks are left alone
  clean-carry lift --to single-file-flat tourist.html --write --verify
  clean-carry lift --to jsx-function pages --into src/parts --write
  clean-carry lift --to single-file-flat tourist.html --name IslandCard=Island --prop text=summary
  clean-carry lift --to jsx-function src/Harbour.jsx --write --verify
"""


@click.command("lift", epilog=_EXAMPLES)
@click.argument(
    "pages",
    nargs=-1,
    required=True,
    type=click.Path(exists=True, path_type=Path),
    metavar="PAGE…",
)
@click.option("--to", "target", required=True, metavar="SYNTAX", help="The syntax to write.")
@click.option("--write", "writes", is_flag=True, help="Write the new files, all or none.")
@click.option(
    "--into",
    type=click.Path(path_type=Path, file_okay=False),
    metavar="DIR",
    help="Where the new files stand; beside the first page if omitted.",
)
@AS_PATCH
@click.option("--force", is_flag=True, help="Also replace files that exist.")
@click.option(
    "--explain", is_flag=True, help="Also list the blocks that are left alone, with the reason."
)
@click.option(
    "--name",
    "names",
    multiple=True,
    metavar="OLD=NEW",
    help="Give a component another name; may be repeated.",
)
@click.option(
    "--prop",
    "props",
    multiple=True,
    metavar="[COMPONENT.]OLD=NEW",
    help="Give a prop another name; may be repeated.",
)
@click.option(
    "--min",
    "least",
    type=click.IntRange(2),
    default=2,
    show_default=True,
    metavar="N",
    help="Lift blocks of which there are N copies or more.",
)
@click.option(
    "--select", default="", metavar="SELECTOR", help="Look for blocks within these elements only."
)
@click.option(
    "--once",
    multiple=True,
    metavar="SELECTOR",
    help="Also lift this one block, though it does not repeat; may be repeated.",
)
@click.option(
    "--verify",
    is_flag=True,
    help="Compare each page with what takes its place, and each component with generated props.",
)
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def lift_command(
    pages: tuple[Path, ...],
    target: str,
    writes: bool,
    into: Path | None,
    patch_file: Path | None,
    force: bool,
    explain: bool,
    names: tuple[str, ...],
    props: tuple[str, ...],
    least: int,
    select: str,
    once: tuple[str, ...],
    verify: bool,
    as_json: bool,
    **effort: object,
) -> None:
    """Lift blocks that repeat in pages or component files into components.

    Use it on pages of HTML and CSS before there are components, or on markup that repeats within
    components. Blocks are alike if their structure is; what differs becomes props, what some lack is shown
    under a condition, and rows of alike children are lists. Rules of the page's style elements that reach
    only the copies move with the component. The page becomes a component that uses the others; rows of
    three or more copies are a list of data.

    PAGE is a page or a component file, or a folder of either. Out of a component file comes a component of
    the same syntax, which the file imports and uses. Nothing is written unless you pass --write or --patch.
    """
    if writes and patch_file is not None:
        raise click.UsageError("choose one of --write and --patch")
    check_syntaxes(target, None)
    wishes = Wishes(_pairs(names, "--name"), _pairs(props, "--prop"), least, select, once)
    line = Line(quiet=as_json)
    made = _lifted(pages, target, wishes, into)
    verdicts, alone = _verified(made, effort, line) if verify else ({}, {})
    line.clear()
    root, plan = Path.cwd(), _plan(made)
    differs = any(v.verdict == "differs" for v in (*verdicts.values(), *alone.values()))
    if writes and not differs:
        _write(plan, root, made.entries.values(), force)
    elif patch_file is not None:
        write_patch(plan, root, patch_file, line)
    if as_json:
        told = made.as_json(lambda path: shown(path, root))
        told["verification"] = {shown(p, root): one.as_json() for p, one in verdicts.items()}
        told["components"] = {name: one.as_json() for name, one in alone.items()}
        click.echo(json.dumps(told, indent=2, ensure_ascii=False))
    else:
        _tell(made, plan, root, preview=not writes and patch_file is None, explain=explain)
        _tell_verdicts(made, verdicts, alone, root, verbose=bool(effort["verbose"]))
        if writes:
            written = f"written: {words.many(len(plan.files), 'file')}"
            click.echo("not written, because one differs" if differs else written)
        elif not verify and made.entries:
            call = f"clean-carry lift --to {target} {' '.join(map(str, pages))} --write --verify"
            next_step(call, "compares the pages and writes")
    left = made.refused or any(one.level == "warning" for one in made.findings)
    raise click.exceptions.Exit(int(bool(left or differs or not made.lifted)))


def _plan(made: LiftedPages) -> Plan:
    plan = Plan()
    for path, text in made.files.items():
        plan.put(path, text)
    return plan


def _tell_verdicts(
    made: LiftedPages,
    verdicts: Mapping[Path, Verification],
    alone: Mapping[str, Verification],
    root: Path,
    *,
    verbose: bool,
) -> None:
    named = [
        (f"{shown(p, root)} → {shown(made.entries[p], root)}", one) for p, one in verdicts.items()
    ]
    named += [(f"{name}, alone", one) for name, one in alone.items()]
    for label, verdict in named:
        for text in terminal.verdict(verdict, label, verbose=verbose):
            click.echo(text)


def _lifted(given: tuple[Path, ...], target: str, wishes: Wishes, into: Path | None) -> LiftedPages:
    """Lift out of pages, or out of component files."""
    files = _pages(given)
    inside = [path for path in files if path.suffix in COMPONENTS]
    if inside and len(inside) < len(files):
        raise click.UsageError("name pages, or component files, but not both")
    return (lift_inside if inside else lift)(files, target, wishes, into)


def _pages(given: tuple[Path, ...]) -> list[Path]:
    found: list[Path] = []
    for path in given:
        every = sorted(path.rglob("*"))
        inside = [p for p in every if p.suffix in (".html", ".htm")]
        inside = inside or [p for p in every if p.suffix in COMPONENTS]
        found += inside if path.is_dir() else [path]
        if path.is_dir() and not inside:
            raise InputError(
                "holds no page and no component file",
                advice="Name a page or a component file, or a folder of them",
                file=str(path),
            )
    return found


def _pairs(given: tuple[str, ...], option: str) -> dict[str, str]:
    found = {}
    for one in given:
        old, sign, new = one.partition("=")
        if not sign or not old or not new.isidentifier():
            raise click.UsageError(f"{option} takes OLD=NEW, where NEW is a name: {one}")
        found[old] = new
    return found


def _verified(
    made: LiftedPages, effort: Mapping[str, object], line: Line
) -> tuple[dict[Path, Verification], dict[str, Verification]]:
    with bench_for(effort, line) as bench:
        return (
            _pages_verified(made, bench, effort, line),
            _components_verified(made, bench, effort, line),
        )


def _pages_verified(
    made: LiftedPages, bench: Bench, effort: Mapping[str, object], line: Line
) -> dict[Path, Verification]:
    """Each page against what takes its place."""
    from clean_carry.verify.pair import Trials, sides_of, verified, with_drawn
    from clean_carry.verify.verify import read_text

    found = {}
    for page, entry in made.entries.items():
        beside = page.resolve().parent
        texts = [(beside / path.name, text) for path, text in made.files.items()]
        old, new, interface = sides_of(
            page, read_text(page), page.with_name(entry.name), made.files[entry]
        )
        line.show(f"{page.name}: compared")
        sides = old, replace(with_drawn(new, texts), lifted=True)
        result = verified(bench, sides, interface, Trials(None), effort_of(effort))
        found[page] = result.measured(least_of(effort))
    return found


def _components_verified(
    made: LiftedPages, bench: Bench, effort: Mapping[str, object], line: Line
) -> dict[str, Verification]:
    """Each component as it was composed against what it became, with generated props."""
    from clean_carry.verify.pair import Trials, sides_of, verified, with_drawn

    found = {}
    with TemporaryDirectory() as folder:
        for name, (text, entry) in made.carried.items():
            old = Path(folder, f"{name}.vue")
            old.write_text(text, "utf-8")
            texts = [(Path(folder, path.name), new) for path, new in made.files.items()]
            before, after, interface = sides_of(
                old, text, old.with_name(entry.name), made.files[entry]
            )
            line.show(f"{name}: compared")
            sides = before, with_drawn(after, texts)
            result = verified(bench, sides, interface, Trials(None), effort_of(effort))
            found[name] = result.measured(least_of(effort))
    return found


def _write(plan: Plan, root: Path, changed: Collection[Path], force: bool) -> None:
    there = [
        path
        for path, old in plan.old.items()
        if old is not None and old != plan.files[path] and path not in changed
    ]
    if there and not force:
        raise WriteRefused(
            "is there already", advice="Use --into DIR, or --force", file=shown(there[0], root)
        )
    for path in plan.files:
        path.parent.mkdir(parents=True, exist_ok=True)
    write(plan, root, force=force)


def _tell(made: LiftedPages, plan: Plan, root: Path, *, preview: bool, explain: bool) -> None:
    if preview and plan.files:
        show(plan, root, "new files; not written without --write:")
        click.echo()
    for group in made.groups:
        lifted = made.lifted.get(id(group))
        if lifted is not None:
            props = ", ".join(one.name + ("" if one.required else "?") for one in lifted.plan.props)
            name = click.style(lifted.name, bold=True)
            count = "1 copy" if len(group.copies) == 1 else f"{len(group.copies)} copies"
            click.echo(f"{name}: {count} · {f'props: {props}' if props else 'no props'}")
    if explain:
        for group in made.groups:
            if id(group) not in made.lifted:
                one = group.copies[0]
                place = f"{one.source.path}:{one.source.place(one.node.start).line}"
                tag = ".".join((one.tag, *one.classes))
                told = (
                    f"  {printable(place)}: <{printable(tag)}> ×{len(group.copies)} is left alone: "
                )
                click.echo(click.style(told + group.reason, dim=True))
    for finding in (*made.refused, *made.findings):
        if finding.level == "note" and not explain:
            continue
        colour = "red" if finding.level == "error" else "magenta"
        place = printable(f"{finding.file}:{finding.line}:{finding.column}")
        click.echo(
            f"{place}: {click.style(finding.level, fg=colour)}: {printable(finding.message)}"
        )
        click.echo(f"      {click.style('→', dim=True)} {printable(finding.advice)}")
    if not made.lifted:
        click.echo("no block repeats often enough to be lifted (--explain says why)")
