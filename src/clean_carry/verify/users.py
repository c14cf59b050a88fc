"""Verify the users of a component before and after a change of several files.

The changed files may be index files that users import through, so both states are needed as whole trees.
The changed one is a copy of the project's sources in a temporary folder, with its packages linked in.
"""

from __future__ import annotations

import os
import shutil
import tempfile
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.verify.pair import sides_of, trials_for, verified
from clean_carry.verify.runtimes import runtime_for
from clean_carry.verify.verify import Effort, Progress, Verification
from clean_carry.verify.worker_pool import Bench

# Folders that are linked, and those that no component imports from.
_LINKED = frozenset({"node_modules", "bower_components"})
_LEFT_OUT = frozenset({".git", "coverage", "dist", "build"})


@dataclass(frozen=True)
class UserVerdict:
    """The verdict on one file that uses the component; `reason` says why it was not rendered."""

    file: Path
    verdict: str
    reason: str = ""
    verification: Verification | None = None


@contextmanager
def changed_tree(root: Path, files: Mapping[Path, str | None]) -> Iterator[Path]:
    """A copy of a project's sources in which some files have other texts (None: they are gone)."""
    with tempfile.TemporaryDirectory(prefix="clean-carry-") as name:
        top = Path(name).resolve() / root.name
        _copy(root, top)
        for path, text in files.items():
            place = top / path.resolve().relative_to(root.resolve())
            if text is None:
                place.unlink(missing_ok=True)
            else:
                place.parent.mkdir(parents=True, exist_ok=True)
                place.write_text(text, "utf-8")
        yield top


def _copy(root: Path, top: Path) -> None:
    top.mkdir(parents=True)
    for entry in os.scandir(root):
        target = top / entry.name
        if entry.name in _LINKED:
            target.symlink_to(Path(entry.path).resolve(), target_is_directory=True)
        elif entry.is_dir(follow_symlinks=False):
            if entry.name not in _LEFT_OUT and not entry.name.startswith("."):
                _copy(Path(entry.path), target)
        elif entry.is_file():
            shutil.copyfile(entry.path, target)


def verify_users(
    bench: Bench,
    root: Path,
    users: Iterable[Path],
    files: Mapping[Path, str | None],
    effort: Effort,
    progress: Progress = lambda text: None,
    bridged: str = "",
    marks: tuple[str, ...] = (),
) -> list[UserVerdict]:
    """The verdict on each user, rendered with the files as they are and as `files` makes them.

    `bridged` is the framework of components that are rendered through a bridge, "" for none; `marks` are
    attributes by which those scope their styles.
    """
    found = []
    with changed_tree(root, files) as top:
        for user in users:
            progress(f"{user.name}: verified as a user")
            after = top / user.resolve().relative_to(root)
            found.append(_verdict(bench, (user, after), effort, progress, (bridged, marks)))
    return found


def _verdict(
    bench: Bench,
    files: tuple[Path, Path],
    effort: Effort,
    progress: Progress,
    across: tuple[str, tuple[str, ...]],
) -> UserVerdict:
    before, after = files
    bridged, marks = across
    try:
        old, new, _ = sides_of(before, before.read_text("utf-8"), after, after.read_text("utf-8"))
        also = runtime_for(bridged, before.resolve().parent) if bridged else None
        new = replace(new, place=after.resolve(), beside=False, bridged=also, marks=marks)
        result = verified(bench, (old, new), None, trials_for(before, None), effort, progress)
    except (CarryError, UnicodeDecodeError) as error:
        reason = error.one_line() if isinstance(error, CarryError) else str(error)
        return UserVerdict(before, "not run", reason)
    return UserVerdict(before, result.verdict, result.reason, result)
