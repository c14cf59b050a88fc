"""`clean-carry switch`: move the users of an old component to the new one."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

import click

from clean_carry.cli.bench import EFFORT, bench_for, effort_of, least_of
from clean_carry.cli.changes import AS_PATCH, show, show_left, shown, write, write_patch
from clean_carry.cli.changes import as_json as change_json
from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.component.errors import printable
from clean_carry.project.index.build import index_of, top_of
from clean_carry.project.index.links import Index
from clean_carry.project.journal import working_on
from clean_carry.project.verdicts import note_verdict
from clean_carry.project.walk.edits import Plan
from clean_carry.project.walk.pairs import Pair, new_of, pairs_below
from clean_carry.project.walk.switch import switch, users_of
from clean_carry.report import words

if TYPE_CHECKING:
    from clean_carry.verify.users import UserVerdict

_EXAMPLES = """\b
Examples:
  clean-carry switch src/Berth.jsx                          show the change
  clean-carry switch src/Berth.jsx --write                  verify all users, then change them
  clean-carry switch --proven src --write                   all components whose verdict is same
  clean-carry switch src/Berth.jsx new/Berth.tsx --patch switch.patch
"""


@click.command("switch", epilog=_EXAMPLES)
@click.argument("old", type=click.Path(exists=True, path_type=Path), metavar="OLD")
@click.argument(
    "new", required=False, type=click.Path(exists=True, path_type=Path), metavar="[NEW]"
)
@click.option(
    "--proven",
    is_flag=True,
    help="OLD is a folder: switch each component below it whose verdict is same.",
)
@click.option("--write", "writes", is_flag=True, help="Write the change, all files or none.")
@AS_PATCH
@click.option(
    "--no-users", is_flag=True, help="Write without rendering the users before and after."
)
@click.option("--force", is_flag=True, help="Also change files with uncommitted changes.")
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def switch_command(
    old: Path,
    new: Path | None,
    proven: bool,
    writes: bool,
    patch_file: Path | None,
    no_users: bool,
    force: bool,
    as_json: bool,
    **effort: object,
) -> None:
    """Make every user of an old component use the new one.

    Use it once the new file beside OLD is proven. Imports, re-exports, lazy imports, mocks, stories and
    script elements are pointed at the new file. Without NEW, the new file beside OLD is taken.

    Nothing is written unless you pass --write or --patch. With --write, each user is rendered before and
    after; the change is not written if one differs. Uses that cannot be followed are listed.

    A new component of another framework is used through a bridge, which is written beside it.
    """
    _agree(old, new, proven, writes, patch_file)
    line = Line(quiet=as_json)
    root = top_of(old)
    with working_on(root):
        index = _index(old, line)
        pairs = _pairs(old, new, proven, effort, line)
        plan = switch(index, pairs)
        verdicts: list[UserVerdict] = []
        if writes and not no_users and plan.files:
            verdicts = _users(index, pairs, plan, effort, line)
        differs = [one for one in verdicts if one.verdict == "differs"]
        line.clear()
        if writes and not differs:
            write(plan, root, force=force)
        if patch_file is not None:
            write_patch(plan, root, patch_file, line)
    if as_json:
        told = [
            {"file": shown(v.file, root), "verdict": v.verdict, "reason": v.reason}
            for v in verdicts
        ]
        click.echo(change_json(plan, root, users=told))
    else:
        _tell(root, pairs, plan, verdicts, written=writes and not differs, preview=not writes)
    raise click.exceptions.Exit(int(bool(differs or plan.left)))


def _agree(
    old: Path, new: Path | None, proven: bool, writes: bool, patch_file: Path | None
) -> None:
    if proven != old.is_dir():
        raise click.UsageError(
            "--proven goes with a folder" if proven else "name a file, or use --proven"
        )
    if proven and new is not None:
        raise click.UsageError("--proven takes no NEW")
    if writes and patch_file is not None:
        raise click.UsageError("choose one of --write and --patch")


def _index(path: Path, line: Line) -> Index:
    return index_of(path, say=lambda done, total: line.show(f"{done} of {total} files scanned"))


def _pairs(
    old: Path, new: Path | None, proven: bool, effort: Mapping[str, object], line: Line
) -> list[Pair]:
    if not proven:
        return [Pair.of(old, new or new_of(old))]
    from clean_carry.verify.pair import pair_of, trials_for, verified

    found = []
    with bench_for(effort, line) as bench:
        for pair in pairs_below(old):
            line.show(f"{pair.old.name}: verified")
            before, after, interface = pair_of(pair.old, pair.new)
            result = verified(
                bench, (before, after), interface, trials_for(pair.old, None), effort_of(effort)
            ).measured(least_of(effort))
            note_verdict(top_of(pair.old), pair.old, pair.new, result.verdict)
            if result.verdict == "same":
                found.append(pair)
            else:
                line.say(f"not switched: {pair.old.name}: {result.verdict}")
    return found


def _users(
    index: Index, pairs: list[Pair], plan: Plan, effort: Mapping[str, object], line: Line
) -> list[UserVerdict]:
    from clean_carry.syntaxes.jsx_function.from_markup.styles import scope_mark
    from clean_carry.verify.users import verify_users

    users = users_of(index, pairs)
    with bench_for(effort, line) as bench:
        bridged = next((one.target.runtime.name for one in pairs if one.is_across), "")
        much = effort_of(effort)
        marks = tuple(
            scope_mark(index.files[one.new.as_posix()].components[0].name)
            for one in pairs
            if one.is_across and one.target.family == "jsx"
        )
        return verify_users(bench, index.root, users, plan.files, much, line.show, bridged, marks)


def _tell(
    root: Path,
    pairs: list[Pair],
    plan: Plan,
    verdicts: list[UserVerdict],
    *,
    written: bool,
    preview: bool,
) -> None:
    names = ", ".join(f"{shown(one.old, root)} → {one.new.name}" for one in pairs[:3])
    names += f" and {len(pairs) - 3} more" if len(pairs) > 3 else ""
    if not plan.files:
        click.echo(f"nothing uses {names or 'an old component with a proven new one'}")
    elif preview:
        show(plan, root, f"users of {names}; not written without --write:")
    for one in verdicts:
        colour = {"same": "green", "differs": "red"}.get(one.verdict, "magenta")
        note = f" ({printable(one.reason)})" if one.reason else ""
        name = printable(shown(one.file, root))
        click.echo(f"  {name}: {click.style(one.verdict, fg=colour)}{note}")
    if verdicts and not written:
        click.echo("not written, because a user differs")
    if written and plan.files:
        changed = words.many(len(plan.files), "file")
        click.echo(f"switched: {names}; {changed} written")
    show_left(plan.left, root)
    if preview and plan.files and len(pairs) == 1:
        old = shown(pairs[0].old, Path.cwd().resolve())
        next_step(f"clean-carry switch {old} --write", "verifies the users and writes")
    elif written and len(pairs) == 1 and not plan.left:
        next_step(
            f"clean-carry retire {shown(pairs[0].old, Path.cwd().resolve())}",
            "takes the old file away",
        )
