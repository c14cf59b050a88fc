"""`clean-carry retire`: take an old component away, and give the new one its place."""

from __future__ import annotations

import json
from pathlib import Path
from typing import TYPE_CHECKING

import click

from clean_carry.cli.changes import AS_PATCH, show, show_left, shown, write, write_patch
from clean_carry.cli.changes import as_json as change_json
from clean_carry.cli.next_step import next_step
from clean_carry.cli.progress import Line
from clean_carry.project.commit import commit, require_clean
from clean_carry.project.committed import not_committed
from clean_carry.project.index.build import index_of, top_of
from clean_carry.project.journal import working_on
from clean_carry.project.walk.edits import Plan
from clean_carry.project.walk.pairs import Pair, new_of
from clean_carry.project.walk.retire import StillUsed, lines_of, retire

if TYPE_CHECKING:
    from clean_carry.verify.worker_pool import Bench

_EXAMPLES = """\b
Examples:
  clean-carry retire src/Berth.jsx                  show the change, and what is saved
  clean-carry retire src/Berth.jsx --write          make it
  clean-carry retire src/Berth.jsx --commit         make it, and one commit of it
"""
_MOST_NAMED = 8
# Of each side: bytes when minified, and when compressed too.
Sizes = tuple[tuple[int, int], tuple[int, int]]


@click.command("retire", epilog=_EXAMPLES)
@click.argument("old", type=click.Path(exists=True, path_type=Path, dir_okay=False), metavar="OLD")
@click.argument(
    "new", required=False, type=click.Path(exists=True, path_type=Path), metavar="[NEW]"
)
@click.option("--write", "writes", is_flag=True, help="Write the change, all files or none.")
@click.option(
    "--commit", "commits", is_flag=True, help="Write the change and commit it; needs a clean tree."
)
@AS_PATCH
@click.option("--force", is_flag=True, help="Also change files with uncommitted changes.")
@click.option("--offline", is_flag=True, help="Never install a missing runtime.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def retire_command(
    old: Path,
    new: Path | None,
    writes: bool,
    commits: bool,
    patch_file: Path | None,
    force: bool,
    offline: bool,
    as_json: bool,
) -> None:
    """Delete an old component, and give the new one its name.

    Use it after `clean-carry switch`. While something still uses OLD, its users are listed and nothing
    changes. The new file takes the old one's name and imports follow, unless `naming` in the project file
    names new files. Styles that only OLD imported, and a bridge without users, are deleted too.

    Nothing is written unless you pass --write, --commit or --patch. The saving in lines and in bytes sent
    to the browser is printed.
    """
    if sum((writes, commits, patch_file is not None)) > 1:
        raise click.UsageError("choose one of --write, --commit and --patch")
    line = Line(quiet=as_json)
    root = top_of(old)
    pair = Pair.of(old, new or new_of(old))
    with working_on(root):
        index = index_of(old, say=lambda done, total: line.show(f"{done} of {total} files scanned"))
        try:
            plan = retire(index, pair)
        except StillUsed as error:
            _tell_users(error, root, as_json=as_json)
            raise click.exceptions.Exit(1) from None
        sizes = _sizes(pair, offline, line)
        if commits:
            require_clean(root)
        if writes or commits:
            write(plan, root, force=force or commits)
        if patch_file is not None:
            write_patch(plan, root, patch_file, line)
        made = commit(root, plan.files, _message(pair, plan, sizes, root)) if commits else ""
    line.clear()
    if as_json:
        click.echo(change_json(plan, root, saved=_saved(pair, plan, sizes), commit=made))
        return
    written = writes or commits
    if not written and patch_file is None:
        show(plan, root, f"{shown(pair.old, root)} is retired; not written without --write:")
    click.echo(_summary(pair, plan, sizes))
    if made:
        click.echo(f"committed as {made}; `git revert {made}` undoes it")
    elif written:
        undo = _undo(plan, root)
        if undo:
            click.echo(undo)
    if written:
        next_step("clean-carry survey", "shows which component is the next")


def _undo(plan: Plan, root: Path) -> str:
    """How a change that is not committed is taken back by the version control; "" where it cannot be."""
    before = [path for path, old in plan.old.items() if old is not None]
    if not_committed(before, changes=False):
        return ""
    if len(before) > _MOST_NAMED:
        return "`git stash` takes it back, with all other changes that are not committed"
    return f"`git restore -- {' '.join(shown(path, root) for path in before)}` takes it back"


def _tell_users(error: StillUsed, root: Path, *, as_json: bool) -> None:
    if as_json:
        left = [{**one.as_json(), "file": shown(one.file, root)} for one in error.users]
        click.echo(json.dumps({"files": [], "left": left}, indent=2, ensure_ascii=False))
        return
    click.echo(error.one_line())
    show_left(error.users, root)


def _sizes(pair: Pair, offline: bool, line: Line) -> Sizes | None:
    """The sizes of old and new in a browser; None where one cannot be built."""
    from clean_carry.component.errors import CarryError
    from clean_carry.verify.pair import pair_of
    from clean_carry.verify.worker_pool import Bench, WorkerFailed

    try:
        old, new, _ = pair_of(pair.old, pair.new)
        line.show("old and new bundled")
        with Bench(offline=offline, say=line.say, size=0) as bench:
            return _size(bench, pair.old, old), _size(bench, pair.new, new)
    except (CarryError, WorkerFailed):
        return None


def _size(bench: Bench, place: Path, side: object) -> tuple[int, int]:
    from clean_carry.verify.worker_pool import Side

    assert isinstance(side, Side)
    if side.runtime.typed:
        # It is rendered on the server, and a browser loads none of its code.
        return 0, 0
    return bench.shipped(place, side.runtime, side.settings)


def _saved(pair: Pair, plan: Plan, sizes: Sizes | None) -> dict[str, object]:
    old_lines, new_lines = lines_of(pair, plan)
    saved: dict[str, object] = {"lines": {"old": old_lines, "new": new_lines}}
    if sizes is not None:
        (old, packed), (new, packed_new) = sizes
        saved |= {
            "bytes": {"old": old, "new": new},
            "compressed": {"old": packed, "new": packed_new},
        }
    return saved


def _summary(pair: Pair, plan: Plan, sizes: Sizes | None) -> str:
    old_lines, new_lines = lines_of(pair, plan)
    text = f"{pair.old.name}: {old_lines} → {new_lines} lines"
    if sizes is not None:
        (old, packed), (new, packed_new) = sizes
        text += f"; shipped {old:,} → {new:,} bytes, compressed {packed:,} → {packed_new:,}"
    if pair.target.typed:
        text += "; the browser loads no code of it any more"
    return text


def _message(pair: Pair, plan: Plan, sizes: Sizes | None, root: Path) -> str:
    subject = f"Retire {pair.old.name} for its {pair.target.id} form"
    body = [_summary(pair, plan, sizes) + "."]
    body += [
        f"{'Deleted' if text is None else 'Written'}: {shown(path, root)}"
        for path, text in plan.files.items()
    ]
    return f"{subject[:72]}\n\n" + "\n".join(body) + "\n"
