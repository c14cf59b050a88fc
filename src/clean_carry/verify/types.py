"""Type errors that carrying would add to a project, reported by the project's own compiler."""

from __future__ import annotations

import json
import subprocess
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import CarryError, RuntimeMissing
from clean_carry.source.importers import importers_of, project_of
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import package_version
from clean_carry.syntaxes.registry import every_syntax
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


def added_faults(
    files: Sequence[tuple[Path, str]], beside: Sequence[tuple[Path, str]] = ()
) -> list[TypeFault]:
    """The type errors that files of a project get, or callers of theirs, by new texts in their places.

    `beside` are new files that the new texts may import, or name as their templates; beside files that the
    compiler does not read they are checked themselves. Decorated classes are checked with their templates,
    by the strict rules of their own compiler. Files the compiler does not read are passed over. Raises
    `CarryError` where the compiler fails.
    """
    found: list[TypeFault] = []
    by_project: dict[Path, list[tuple[Path, str]]] = {}
    untyped = {path.parent for path, _ in files if path.suffix not in TYPED}
    for path, text in [*files, *(one for one in beside if one[0].parent in untyped)]:
        if path.suffix in TYPED:
            folder = project_of(path.resolve()) or path.resolve().parent
            by_project.setdefault(folder, []).append((path.resolve(), text))
    for folder, changed in by_project.items():
        new = [(path.resolve(), text) for path, text in beside]
        found += _of_project(folder, changed, [*new, *_relinked(changed)])
    return found


def _relinked(changed: Sequence[tuple[Path, str]]) -> list[tuple[Path, str]]:
    """The files that import the changed ones, as they are once those are switched to: lists of modules."""
    taken: dict[Path, dict[str, tuple[Tree, str]]] = defaultdict(dict)
    syntaxes = [one for one in every_syntax() if one.relinks]
    for path, text in changed:
        source = SourceText(str(path), text.encode())
        if any(one.marks.fit(source) for one in syntaxes):
            tree = Tree(source)
            for node in tree.of("class_declaration"):
                name = node.child("name")
                for importer in importers_of(path) if name is not None else ():
                    taken[importer.path][name.text] = tree, name.text  # type: ignore[union-attr]
    found = []
    for file, names in taken.items():
        source = SourceText.read(file)
        edits = [e for one in syntaxes for e in one.load_relinks()(Tree(source), names).edits]
        if edits:
            found.append((file, MergedText(source, edits).data.decode()))
    return found


def _of_project(
    folder: Path, files: list[tuple[Path, str]], beside: list[tuple[Path, str]]
) -> list[TypeFault]:
    asked = {
        "folder": str(folder),
        "files": [{"path": str(path), "text": text} for path, text in files],
        "beside": {str(path): text for path, text in beside},
    }
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
