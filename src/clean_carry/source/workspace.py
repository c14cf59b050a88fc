"""The read-only view of the project around a file: resolve an import, load and parse it once."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText

_ENDINGS = ("", ".js", ".jsx", ".ts", ".tsx", "/index.js", "/index.jsx", "/index.ts", "/index.tsx")


class Workspace:
    """Reads files of the project on demand. Nothing is ever written through it."""

    def __init__(self, file: Path) -> None:
        self.file = file
        self._trees: dict[Path, Tree | None] = {}

    def resolve(self, request: str) -> Path | None:
        """The file a relative import of this file means; None for packages and missing files."""
        if not request.startswith("."):
            return None
        base = (self.file.parent / request).as_posix()
        for ending in _ENDINGS:
            path = Path(base + ending)
            if path.is_file():
                return path
        return None

    def text(self, path: Path) -> str:
        """The text of a project file, empty where it cannot be read."""
        try:
            return path.read_text("utf-8", "replace")
        except OSError:
            return ""

    def tree(self, path: Path) -> Tree | None:
        """The parsed file; None where it is no source text we can read."""
        if path not in self._trees:
            try:
                self._trees[path] = Tree(SourceText.read(path))
            except InputError:
                self._trees[path] = None
        return self._trees[path]


@cache
def package_version(folder: Path, name: str) -> str | None:
    """The version of a package the project around `folder` uses.

    Taken from the nearest `node_modules`, else from the range in the nearest package.json.
    """
    for here in (folder, *folder.parents):
        installed = here / "node_modules" / name / "package.json"
        found = _json(installed).get("version")
        if isinstance(found, str):
            return found
        package = _json(here / "package.json")
        for group in ("dependencies", "peerDependencies", "devDependencies"):
            wanted = package.get(group)
            if isinstance(wanted, dict) and isinstance(wanted.get(name), str):
                return str(wanted[name])
    return None


def major(version: str | None) -> int | None:
    """The highest major number a version or a range of versions names."""
    if version is None:
        return None
    numbers = []
    for part in version.replace("||", " ").split():
        head = part.lstrip("^~>=<v").split(".")[0]
        if head.isdigit():
            numbers.append(int(head))
    return max(numbers) if numbers else None


def _json(path: Path) -> dict[str, object]:
    try:
        value = json.loads(path.read_text("utf-8"))
    except (OSError, ValueError):
        return {}
    return value if isinstance(value, dict) else {}
