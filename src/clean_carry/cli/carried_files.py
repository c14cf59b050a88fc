"""Where what was carried is written: beside the old file, in another folder, or in its place."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, field
from dataclasses import replace as replaced
from pathlib import Path
from typing import TYPE_CHECKING

from clean_carry.component.errors import WriteRefused
from clean_carry.component.result import NewFile, Result
from clean_carry.project.writing import replace, write_new

if TYPE_CHECKING:
    from clean_carry.report.patch import Change


@dataclass
class Place:
    """Where new files stand: in the folder `out`, over the old file, else beside it.

    `changed` are the files of this run that several crossings change.
    """

    out: Path | None = None
    overwrite: bool = False
    changed: dict[Path, NewFile] = field(default_factory=dict)

    def of(self, file: NewFile) -> Path:
        """Where a file goes."""
        place = Path(file.path)
        return self.out / place.name if self.out is not None else place


def changes(results: list[Result], path: Path, place: Place) -> list[Change]:
    """Return the changes that writing would make. Raises `WriteRefused` if another file is in the
    way."""
    from clean_carry.report.patch import Change

    found: dict[Path, Change] = {}
    for result in results:
        for file in result.files:
            if place.overwrite and len(result.files) == 1:
                found[path] = Change(path, path.read_bytes(), file.data)
                continue
            there = place.of(file)
            if there in place.changed:
                file = file.with_edits(place.changed[there].edits)
            if file.edits:
                place.changed[there] = file
            elif there.exists() and there.read_bytes() != file.data:
                raise WriteRefused(
                    "a file stands there already", advice="Move it away first", file=str(there)
                )
            before = there.read_bytes() if there.exists() else None
            found[there] = Change(there, before, file.data)
    return list(found.values())


def write(results: list[Result], path: Path, place: Place) -> list[Result]:
    """Write what was made; the results with the files where they stand now."""
    done: dict[str, NewFile] = {}
    for result in results:
        for file in result.files:
            if file.path in done:
                continue
            there = path
            if place.overwrite and len(result.files) == 1:
                _unchanged(path, result.digest)
                replace(path, file.data)
            else:
                there = place.of(file)
                before = place.changed.get(there)
                if before is not None:
                    file = file.with_edits(before.edits)
                    replace(there, file.data)
                elif file is result.files[0] or not _stands(there, file.data):
                    write_new(there, file.data)
                if file.edits:
                    place.changed[there] = file
            done[file.path] = NewFile(str(there), file.text, file.data)
    return [
        replaced(result, files=tuple(done[file.path] for file in result.files))
        for result in results
    ]


def _stands(place: Path, data: bytes) -> bool:
    """Whether a file stands there with just this content: a helper that several components share."""
    return place.is_file() and place.read_bytes() == data


def _unchanged(path: Path, digest: str) -> None:
    """Raise `WriteRefused` where a file is not what was carried any more."""
    if hashlib.sha256(path.read_bytes()).hexdigest() != digest:
        raise WriteRefused(
            "was saved while it was carried", advice="Carry it again", file=str(path)
        )
