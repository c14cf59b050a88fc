"""How far a migration is, read from the version control's own history."""

from __future__ import annotations

import subprocess
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from clean_carry.project.index.roles import role_of
from clean_carry.project.index.scan import scan
from clean_carry.project.index.store import FactStore
from clean_carry.source.index.parsed import SCRIPTS, SINGLE_FILES

# So many commits of the stretch of time are looked at.
SAMPLES = 24
_PASSED_OVER = frozenset({"node_modules", "dist", "build", "coverage"})


@dataclass(frozen=True)
class Point:
    """A commit: its short name, its date (YYYY-MM-DD), and components and lines of each syntax."""

    commit: str
    date: str
    counts: dict[str, int]
    lines: dict[str, int]

    def as_json(self) -> dict[str, Any]:
        """The JSON shape: {"commit", "date", "counts", "lines"}."""
        return vars(self)


def progress(
    root: Path,
    since: str,
    *,
    fresh: bool = False,
    say: Callable[[int, int], None] = lambda d, t: None,
) -> list[Point]:
    """The state at commits since a date, sampled evenly, the oldest first; none without version control.

    `since` is a date as the version control reads it (`2026-01-01`, `6 months ago`), "" for all of it.
    """
    given = [f"--since={since}"] if since else []
    listed = _git(root, "log", "--first-parent", "--date=short", "--format=%h %ad", *given)
    commits = [line.split(" ") for line in reversed(listed.splitlines()) if " " in line]
    step = max(1.0, len(commits) / SAMPLES)
    chosen = [commits[int(at * step)] for at in range(min(SAMPLES, len(commits)))]
    if commits and chosen[-1] != commits[-1]:
        chosen.append(commits[-1])
    store = FactStore.of(root, fresh=fresh)
    try:
        known = store.values("history blobs")
        before = len(known)
        found = []
        for done, (commit, date) in enumerate(chosen, 1):
            say(done, len(chosen))
            found.append(_point(root, commit, date, known))
        if len(known) > before:
            store.keep_values("history blobs", known)
        return found
    finally:
        store.close()


def _point(root: Path, commit: str, date: str, known: dict[str, Any]) -> Point:
    rows = []
    for line in _git(root, "ls-tree", "-r", "-z", commit).split("\0"):
        about, _, path = line.partition("\t")
        inside = set(path.split("/")[:-1])
        if not path.endswith((*SCRIPTS, *SINGLE_FILES)) or inside & _PASSED_OVER:
            continue
        if path.endswith((".min.js", ".d.ts")) or role_of("/" + path) != "source":
            continue
        rows.append((f"{about.split(' ')[2]}{path[path.rfind('.') :]}", path))
    missing = [(key, path) for key, path in rows if key not in known]
    for (key, path), data in zip(missing, _blobs(root, [key for key, _ in missing]), strict=True):
        known[key] = [[one.syntax, one.lines] for one in scan(Path(path), data).components]
    counts: Counter[str] = Counter()
    lines: Counter[str] = Counter()
    for key, _ in rows:
        for syntax, size in known[key]:
            counts[syntax] += 1
            lines[syntax] += size
    return Point(commit, date, dict(sorted(counts.items())), dict(sorted(lines.items())))


def _blobs(root: Path, keys: list[str]) -> list[bytes]:
    """The contents of blobs, in the order asked."""
    if not keys:
        return []
    names = "\n".join(key.partition(".")[0] for key in keys).encode() + b"\n"
    data = _run(root, ["cat-file", "--batch"], names)
    found = []
    at = 0
    for _ in keys:
        line = data.find(b"\n", at)
        if line < 0:
            found.append(b"")
            continue
        size = int(data[at:line].split()[-1]) if data[at:line].split()[-1].isdigit() else 0
        found.append(data[line + 1 : line + 1 + size])
        at = line + size + 2
    return found


def _git(root: Path, *arguments: str) -> str:
    return _run(root, list(arguments)).decode("utf-8", "surrogateescape")


def _run(root: Path, arguments: list[str], given: bytes = b"") -> bytes:
    """The output of the version control; empty where it cannot be asked."""
    try:
        done = subprocess.run(
            ["git", *arguments],
            cwd=root,
            capture_output=True,
            input=given,
            timeout=300,
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return b""
    return done.stdout if done.returncode == 0 else b""
