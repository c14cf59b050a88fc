"""One commit of a change, on a clean tree only."""

from __future__ import annotations

import subprocess
from collections.abc import Iterable
from pathlib import Path

from clean_carry.component.errors import WriteRefused


def require_clean(root: Path) -> None:
    """Raises `WriteRefused` where the work tree holds changes, or there is no version control."""
    done = _git(root, "status", "--porcelain", "--untracked-files=no")
    if done is None:
        raise WriteRefused("is under no version control", file=str(root))
    if done.strip():
        raise WriteRefused(
            "has changes that are not committed", advice="Commit them first", file=str(root)
        )


def commit(root: Path, paths: Iterable[Path], message: str) -> str:
    """Commit these files, those that are gone too; the commit's short name. Raises `WriteRefused`."""
    names = [str(path) for path in paths]
    added = _git(root, "add", "-A", "--", *names)
    made = _git(root, "commit", "-q", "-m", message, "--", *names) if added is not None else None
    name = _git(root, "rev-parse", "--short", "HEAD") if made is not None else None
    if name is None:
        raise WriteRefused(
            "the version control did not take the commit",
            advice="The files are written; commit them by hand",
            file=str(root),
        )
    return name.strip()


def _git(root: Path, *arguments: str) -> str | None:
    try:
        done = subprocess.run(
            ["git", "--literal-pathspecs", *arguments],
            cwd=root, capture_output=True, text=True, encoding="utf-8",
            errors="surrogateescape", timeout=120, check=False,
        )  # fmt: skip
    except (OSError, subprocess.TimeoutExpired):
        return None
    return done.stdout if done.returncode == 0 else None
