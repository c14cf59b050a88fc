"""Type errors that carrying would add to a project, reported by the project's own compiler."""

from __future__ import annotations

import json
import subprocess
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import CarryError, RuntimeMissing
from clean_carry.source.importers import project_of
from clean_carry.source.workspace import package_version
from clean_carry.verify.node import node

WORKER = Path(__file__).parent / "worker" / "types.mjs"
# Files the compiler reads.
TYPED = frozenset({".ts", ".tsx", ".mts", ".cts"})


@dataclass(frozen=True)
class TypeFault:
    """A type error that was not there before: where it stands, with the new text in the old one's place."""

    file: str
    line: int
    column: int
    code: str
    message: str

    def one_line(self) -> str:
        """The fault as a line of text."""
        return f"{self.file}:{self.line}:{self.column}: type error: {self.message} [{self.code}]"


def needs_compiler(files: Sequence[Path]) -> None:
    """Raise `RuntimeMissing` where a file is typed and its project has no compiler."""
    for path in files:
        folder = project_of(path.resolve()) or path.resolve().parent
        if path.suffix in TYPED and package_version(path.resolve().parent, "typescript") is None:
            raise RuntimeMissing(
                "the project has no typescript to check types with",
                advice="Install it: npm install --save-dev typescript",
                file=str(folder),
            )


def added_faults(files: Sequence[tuple[Path, str]]) -> list[TypeFault]:
    """The type errors that files of a project get, or callers of theirs, by new texts in their places.

    Files the compiler does not read are passed over. Raises `CarryError` where the compiler fails.
    """
    found: list[TypeFault] = []
    by_project: dict[Path, list[tuple[Path, str]]] = {}
    for path, text in files:
        if path.suffix in TYPED:
            folder = project_of(path.resolve()) or path.resolve().parent
            by_project.setdefault(folder, []).append((path.resolve(), text))
    for folder, changed in by_project.items():
        found += _of_project(folder, changed)
    return found


def _of_project(folder: Path, files: list[tuple[Path, str]]) -> list[TypeFault]:
    asked = {"folder": str(folder), "files": [{"path": str(p), "text": t} for p, t in files]}
    done = subprocess.run(
        [node(), str(WORKER)], input=json.dumps(asked), capture_output=True, text=True
    )
    if done.returncode:
        said = done.stderr.strip().splitlines()
        raise CarryError(
            f"the compiler of the project failed: {said[-1] if said else 'it said nothing'}",
            advice="Run the project's own type check first",
            file=str(folder),
        )
    here = Path.cwd()
    faults = []
    for row in json.loads(done.stdout)["added"]:
        place = Path(row.pop("file"))
        shown = place.relative_to(here) if place.is_relative_to(here) else place
        faults.append(TypeFault(shown.as_posix(), **row))
    return faults


__all__ = ["TYPED", "TypeFault", "added_faults", "needs_compiler"]
