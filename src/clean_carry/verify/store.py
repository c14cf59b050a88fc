"""A content-addressed store on the disk: bundles and verdicts, named by what they were made from."""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import tempfile
import zlib
from collections.abc import Iterable
from functools import cache
from pathlib import Path
from typing import Any

from clean_carry import __version__
from clean_carry.verify.runtimes import WORKER


class Store:
    """Keeps JSON values under the digest of a key. Without a folder it keeps nothing.

    An entry that cannot be read back, or not written, counts as not kept: the cache never fails a run.
    """

    def __init__(self, folder: Path | None) -> None:
        self.folder = folder

    def digest(self, key: object) -> str:
        """The digest of a key made of plain data, of the tool's own version and of its workers."""
        text = json.dumps([_tool(), key], sort_keys=True, default=str)
        return hashlib.sha256(text.encode()).hexdigest()[:40]

    def digest_of_files(self, names: Iterable[str]) -> str:
        """The digest of the content of files; one that is gone counts as empty."""
        total = hashlib.sha256()
        for name in names:
            try:
                content = Path(name).read_bytes()
            except OSError:
                content = b""
            total.update(name.encode() + b"\0" + hashlib.sha256(content).digest())
        return total.hexdigest()[:40]

    def digest_of_places(self, names: Iterable[str]) -> str:
        """The digest of what decides where imports lead: the packages files belong to, settings of a
        compiler above them, and the files beside them that have their names or their folders'."""
        total = hashlib.sha256()
        settings: dict[Path, None] = {}
        for name in names:
            place = Path(name)
            inside = "node_modules" in place.parts
            stems = {place.stem.partition(".")[0]: place.parent}
            if place.stem == "index":
                stems[place.parent.name] = place.parent.parent
            if not inside:
                for stem, folder in stems.items():
                    beside = sorted(one for one in _names(folder) if one.partition(".")[0] == stem)
                    total.update("\0".join([str(folder), *beside]).encode() + b"\n")
            for folder in place.parents:
                settings.setdefault(folder / "package.json")
                if not inside:
                    settings.setdefault(folder / "tsconfig.json")
                    settings.setdefault(folder / "jsconfig.json")
                if folder.parent.name == "node_modules" or folder.name == "node_modules":
                    break
        total.update(self.digest_of_files(sorted(map(str, settings))).encode())
        return total.hexdigest()[:40]

    def value(self, key: object) -> Any | None:
        """Return the value kept under a key, None if there is none."""
        if self.folder is None:
            return None
        try:
            return json.loads(zlib.decompress(self._place(key).read_bytes()))
        except (OSError, ValueError, zlib.error):
            return None

    def keep(self, key: object, value: Any) -> None:
        """Keep a value of plain data; it appears whole or not at all."""
        if self.folder is None:
            return
        place = self._place(key)
        with contextlib.suppress(OSError):
            place.parent.mkdir(parents=True, exist_ok=True)
            handle, name = tempfile.mkstemp(dir=place.parent)
            with os.fdopen(handle, "wb") as out:
                out.write(zlib.compress(json.dumps(value).encode(), 1))
            Path(name).replace(place)

    def _place(self, key: object) -> Path:
        digest = self.digest(key)
        assert self.folder is not None
        return self.folder / digest[:2] / digest[2:]


def _names(folder: Path) -> list[str]:
    try:
        return [one.name for one in folder.iterdir()]
    except OSError:
        return []


# The scripts that render, below the folder of the workers.
_WORKERS = ("*.mjs", "browser/*.mjs", "adapters/*.js", "php/*.php")


@cache
def _tool() -> str:
    """The tool's version, and the content of the workers that render."""
    total = hashlib.sha256()
    for path in sorted(path for form in _WORKERS for path in WORKER.glob(form)):
        total.update(path.read_bytes())
    for path in sorted(WORKER.parent.rglob("*.py")):
        total.update(path.read_bytes())
    return f"{__version__} {total.hexdigest()}"
