"""Build the index of a project: every source file scanned once, and again only when it changes."""

from __future__ import annotations

import hashlib
import json
import os
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from fnmatch import fnmatch
from pathlib import Path

from clean_carry.project.index.links import Index
from clean_carry.project.index.scan import scan
from clean_carry.project.index.store import FactStore, digest_of
from clean_carry.project.settings import Settings, settings_for
from clean_carry.source.importers import project_of
from clean_carry.source.index.facts import FileFacts
from clean_carry.source.index.parsed import PAGES, SCRIPTS, SINGLE_FILES, VIEWS
from clean_carry.source.places import folder_of, real

Say = Callable[[int, int], None]
_PASSED_OVER = frozenset({"node_modules", "dist", "build", "coverage", "bower_components"})
_ENDINGS = (*SCRIPTS, *SINGLE_FILES, *PAGES, *VIEWS)
_MADE = (".min.js", ".d.ts")
# Forms of one built script that stand beside each other.
_FORMS = (".min.js", ".cjs.js", ".common.js", ".esm.js", ".umd.js", ".iife.js")
# A file longer than this (bytes) is nobody's source.
LONGEST = 2_000_000
# Fewer files are scanned sooner than processes are started.
_FEWEST = 40
_CHUNK = 16

Entry = tuple[str, int, int]


def top_of(path: Path) -> Path:
    """The top folder of the project around a file or folder."""
    inside = path / "x" if path.is_dir() else path
    settings = settings_for(inside)
    if settings.folder is not None:
        return real(settings.folder)
    return project_of(inside) or folder_of(inside)


def index_of(
    path: Path, *, fresh: bool = False, processes: int = 1, say: Say = lambda done, total: None
) -> Index:
    """The index of the project around a file or folder.

    `fresh` neither reads nor writes the cache; `say` is called with how many files are scanned of how many.
    """
    root = top_of(path)
    settings = settings_for(root / "x")
    store = FactStore.of(root, fresh=fresh)
    try:
        facts, digest = _facts(root, settings, store, processes, say)
        return Index(root, settings, facts, digest)
    finally:
        store.close()


def _facts(
    root: Path, settings: Settings, store: FactStore, processes: int, say: Say
) -> tuple[dict[str, FileFacts], str]:
    """The facts by file, and a digest of the content of all files."""
    known = store.known()
    by_digest = dict(store.facts()) if known else {}
    found: dict[str, FileFacts] = {}
    rows: list[tuple[str, int, int, str]] = []
    new: dict[str, FileFacts] = {}
    missing: list[Entry] = []
    order: list[str] = []
    for name, changed, size in _files(root, settings):
        order.append(name)
        before = known.get(name)
        if before is not None and before[:2] == (changed, size) and before[2] in by_digest:
            found[name] = by_digest[before[2]]
            rows.append((name, changed, size, before[2]))
        else:
            missing.append((name, changed, size))
    for done, (entry, digest, facts) in enumerate(_scanned(missing, by_digest, processes), 1):
        say(done, len(missing))
        found[entry[0]] = facts
        rows.append((*entry, digest))
        new[digest] = facts
    if missing or len(rows) != len(known):
        store.keep(rows, new.items())
    whole = hashlib.sha256("\n".join(sorted(row[3] for row in rows)).encode()).hexdigest()
    return {name: found[name] for name in order}, whole


def _scanned(
    missing: list[Entry], by_digest: dict[str, FileFacts], processes: int
) -> Iterator[tuple[Entry, str, FileFacts]]:
    if processes < 2 or len(missing) < _FEWEST:
        yield from ((entry, *_one(entry[0])) for entry in missing)
        return
    with ProcessPoolExecutor(processes) as pool:
        names = [entry[0] for entry in missing]
        for entry, (digest, facts) in zip(
            missing, pool.map(_one, names, chunksize=_CHUNK), strict=True
        ):
            yield entry, digest, facts


def _one(name: str) -> tuple[str, FileFacts]:
    try:
        data = Path(name).read_bytes()
    except OSError as error:
        return digest_of(name, b""), FileFacts(problem=f"{name}: cannot be read ({error.strerror})")
    return digest_of(name, data), scan(Path(name), data)


def _files(root: Path, settings: Settings) -> Iterator[Entry]:
    """The source files below a folder: hidden ones, packages and built files left out."""
    base = len(root.as_posix().rstrip("/")) + 1
    for folder, inside, names in os.walk(root):
        made = _built_folders(Path(folder)) if "package.json" in names else frozenset()
        inside[:] = sorted(
            n for n in inside if n not in _PASSED_OVER | made and not n.startswith(".")
        )
        forms = Counter(n.removesuffix(form) for n in names for form in _FORMS if n.endswith(form))
        built = {f"{stem}{form}" for stem, count in forms.items() if count > 1 for form in _FORMS}
        place = Path(folder).as_posix()
        for name in sorted(set(names) - built):
            if not name.endswith(_ENDINGS) or name.endswith(_MADE):
                continue
            whole = f"{place}/{name}"
            if any(fnmatch(whole[base:], pattern) for pattern in settings.ignore):
                continue
            try:
                state = Path(whole).stat()
            except OSError:
                continue
            if state.st_size <= LONGEST:
                yield whole, state.st_mtime_ns, state.st_size


def _built_folders(package: Path) -> frozenset[str]:
    """The folders a package ships that stand beside its sources: built from them."""
    try:
        known = json.loads((package / "package.json").read_text("utf-8"))
    except (OSError, ValueError):
        return frozenset()
    if not isinstance(known, dict) or not (package / "src").is_dir():
        return frozenset()
    entries = [known.get(key) for key in ("main", "module", "unpkg", "jsnext:main")]
    tops = {Path(entry).parts[0] for entry in entries if isinstance(entry, str) and "/" in entry}
    return frozenset(tops - {"src", ".", ".."})
