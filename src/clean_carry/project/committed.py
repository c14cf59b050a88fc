"""The state of a file in version control: whether its old text can be restored after it is
overwritten."""

from __future__ import annotations

import subprocess
from collections import defaultdict
from collections.abc import Iterable
from pathlib import Path

CHANGED = "has changes that are not committed"
UNTRACKED = "is not tracked by version control"
OUTSIDE = "is under no version control"


def not_committed(paths: Iterable[Path], *, changes: bool = True) -> dict[Path, str]:
    """The files whose text no commit holds, each with the reason, in the order given.

    Without `changes`, those that are tracked and changed are not among them.

    Version control is asked twice for each folder. Where it cannot be asked, a file is under none.
    """
    folders: dict[Path, list[Path]] = defaultdict(list)
    for path in paths:
        folders[path.parent].append(path)
    found: dict[Path, str] = {}
    for folder, files in folders.items():
        names = [path.name for path in files]
        tracked = _listed(folder, "ls-files", "-z", "--", *names)
        changed = _listed(folder, "diff", "--name-only", "-z", "--relative", "HEAD", "--", *names)
        for path in files:
            if tracked is None:
                found[path] = OUTSIDE
            elif path.name not in tracked:
                found[path] = UNTRACKED
            elif changes and (changed is None or path.name in changed):  # None: no commit yet
                found[path] = CHANGED
    return found


def _listed(folder: Path, *arguments: str) -> set[str] | None:
    try:
        done = subprocess.run(
            ["git", "--literal-pathspecs", *arguments],
            cwd=folder,
            capture_output=True,
            text=True,
            encoding="utf-8",
            errors="surrogateescape",
            timeout=60,
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return None
    return set(done.stdout.split("\0")) if done.returncode == 0 else None
