"""Facts of files, kept on the disk by their content, so that only what changed is scanned again."""

from __future__ import annotations

import contextlib
import hashlib
import json
import sqlite3
from collections.abc import Iterable, Iterator, Mapping
from functools import cache
from pathlib import Path
from typing import Any

from clean_carry import __version__
from clean_carry.source.index.facts import FileFacts
from clean_carry.source.system import cache_folder

_TABLES = """
CREATE TABLE IF NOT EXISTS files (path TEXT PRIMARY KEY, changed INTEGER, size INTEGER, digest TEXT);
CREATE TABLE IF NOT EXISTS facts (digest TEXT PRIMARY KEY, data TEXT);
CREATE TABLE IF NOT EXISTS kept (kind TEXT, name TEXT, data TEXT, PRIMARY KEY (kind, name));
"""


class FactStore:
    """The facts of the files of one project. Without a folder nothing is kept.

    A cache that cannot be read or written counts as empty: it never fails a run.
    """

    def __init__(self, folder: Path | None, root: Path) -> None:
        self._base: sqlite3.Connection | None = None
        if folder is None:
            return
        name = hashlib.sha256(f"{_tool()}\0{root}".encode()).hexdigest()[:24]
        with contextlib.suppress(OSError, sqlite3.Error):
            folder.mkdir(parents=True, exist_ok=True)
            base = sqlite3.connect(folder / f"{name}.sqlite", timeout=10)
            base.execute("PRAGMA journal_mode=WAL")
            base.execute("PRAGMA synchronous=OFF")
            base.executescript(_TABLES)
            self._base = base

    @classmethod
    def of(cls, root: Path, *, fresh: bool) -> FactStore:
        """The store of a project in the user's cache; one that keeps nothing where `fresh`."""
        return cls(None if fresh else cache_folder() / "index", root)

    def close(self) -> None:
        """Close the file."""
        if self._base is not None:
            self._base.close()

    def known(self) -> dict[str, tuple[int, int, str]]:
        """{path: (time of its last change in ns, size in bytes, digest)} of the files scanned before."""
        rows = self._rows("SELECT path, changed, size, digest FROM files")
        return {path: (changed, size, digest) for path, changed, size, digest in rows}

    def facts(self) -> Iterator[tuple[str, FileFacts]]:
        """The facts that are kept, by digest."""
        for digest, data in self._rows("SELECT digest, data FROM facts"):
            with contextlib.suppress(ValueError, TypeError, KeyError):
                yield digest, FileFacts.of_data(json.loads(data))

    def keep(
        self, files: Iterable[tuple[str, int, int, str]], facts: Iterable[tuple[str, FileFacts]]
    ) -> None:
        """Keep the state of files (path, changed, size, digest), and new facts by digest."""
        if self._base is None:
            return
        rows = [(digest, json.dumps(one.as_data(), separators=(",", ":"))) for digest, one in facts]
        with contextlib.suppress(sqlite3.Error), self._base:
            self._base.execute("DELETE FROM files")
            self._base.executemany("INSERT OR REPLACE INTO files VALUES (?, ?, ?, ?)", files)
            self._base.executemany("INSERT OR REPLACE INTO facts VALUES (?, ?)", rows)
            self._base.execute("DELETE FROM facts WHERE digest NOT IN (SELECT digest FROM files)")

    def values(self, kind: str) -> dict[str, Any]:
        """The plain values of a kind by name."""
        rows = self._rows("SELECT name, data FROM kept WHERE kind = ?", kind)
        return {name: json.loads(data) for name, data in rows}

    def keep_values(self, kind: str, values: Mapping[str, Any], *, only: bool = True) -> None:
        """Keep plain values of a kind. With `only`, other kinds that begin with the same word go."""
        if self._base is None:
            return
        rows = [(kind, name, json.dumps(value)) for name, value in values.items()]
        with contextlib.suppress(sqlite3.Error), self._base:
            if only:
                word = f"{kind.split(' ')[0]} %"
                self._base.execute("DELETE FROM kept WHERE kind LIKE ? AND kind != ?", (word, kind))
            self._base.executemany("INSERT OR REPLACE INTO kept VALUES (?, ?, ?)", rows)

    def _rows(self, query: str, *given: str) -> list[tuple[Any, ...]]:
        try:
            return self._base.execute(query, given).fetchall() if self._base is not None else []
        except sqlite3.Error:
            return []


def digest_of(path: str, data: bytes) -> str:
    """The digest of a file: facts depend on its content, and on its name."""
    return hashlib.sha256(path.encode() + b"\0" + data).hexdigest()[:32]


@cache
def _tool() -> str:
    """The version of the tool, and the content of what scans."""
    own = Path(__file__).parents[2]
    scanning = [*own.glob("source/index/*.py"), *own.glob("syntaxes/*/census.py")]
    total = hashlib.sha256(__version__.encode())
    for path in sorted((*scanning, Path(__file__).with_name("scan.py"))):
        total.update(path.read_bytes())
    return total.hexdigest()
