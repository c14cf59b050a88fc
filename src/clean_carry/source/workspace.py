"""The read-only view of the project around a file: resolve an import, load and parse it once."""

from __future__ import annotations

import json
from collections.abc import Mapping
from functools import cache, lru_cache
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.places import is_file
from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText

_ENDINGS = (
    "",
    *(f"{i}{e}" for i in ("", "/index") for e in (".js", ".jsx", ".ts", ".tsx", ".vue")),
)


class Workspace:
    """Reads files of the project on demand. Nothing is ever written through it.

    `aliases` are prefixes of imports with the absolute path each stands for, `prefix` is what the names of
    the project's elements begin with, `one_way` says that bindings are to go one way, `beside` that a new
    file is to stand beside the old one rather than take its place. `assume_carried` says that components it
    renders have been carried, or will be, and stand beside their old ones: all, or those of some files.
    """

    def __init__(
        self,
        file: Path,
        aliases: Mapping[str, str] | None = None,
        prefix: str = "",
        one_way: bool = False,
        beside: bool = True,
        assume_carried: bool | frozenset[Path] = False,
    ) -> None:
        self.assume_carried = assume_carried
        self.file, self.prefix, self.one_way, self.beside = file, prefix, one_way, beside
        self.aliases = dict(aliases or {})
        self._trees: dict[Path, Tree | None] = {}

    def is_carried(self, request: str) -> bool:
        """Whether the component that an import of this file means is, or will be, carried. One of another
        syntax may be imported as the single file that it is read as."""
        if isinstance(self.assume_carried, bool):
            return self.assume_carried
        found = self.resolve(request) or self.stood_for(request)
        return found is not None and found.resolve() in self.assume_carried

    def stood_for(self, request: str) -> Path | None:
        """The file of another syntax that is read as the single file which an import names."""
        stem = request.removesuffix(".vue")
        return self.resolve(stem) or self.resolve(f"{stem}.php")

    def resolve(self, request: str, origin: Path | None = None) -> Path | None:
        """The file an import of this file (or of `origin`) means; None for packages and missing files."""
        base = ((origin or self.file).parent / request).as_posix()
        if not request.startswith("."):
            known = [a for a in self.aliases if request.startswith(a) or request + "/" == a]
            if not known:
                return None
            prefix = max(known, key=len)
            inside = request[len(prefix) :].lstrip("/")
            base = "/".join([self.aliases[prefix].rstrip("/"), *([inside] if inside else [])])
        for ending in _ENDINGS:
            if is_file(base + ending):
                return Path(base + ending)
        return _entry(Path(base))

    def package(self, name: str, origin: Path | None = None) -> Path | None:
        """The file an import of an installed package (or of a part of it) means; None where it is
        missing."""
        here = (origin or self.file).resolve().parent
        for folder in (here, *here.parents):
            base = folder / "node_modules" / name
            if base.is_dir():
                entry = _entry(base) or _exports(base)
                return entry if entry is not None else _first_file(base / "index")
            found = _first_file(base)
            if found is not None:
                return found
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
                self._trees[path] = _parsed(path, path.stat().st_mtime_ns)
            except OSError:
                self._trees[path] = None
        return self._trees[path]


@lru_cache(maxsize=64)
def _parsed(path: Path, _changed: int) -> Tree | None:
    """A file as it was when it changed last: what many files of a project ask for is parsed once."""
    try:
        source = SourceText.read(path)
        view = None
        if path.suffix == ".vue":
            scripts = [n for n in read_blocks(source) if n.tag == "script"]
            view = bytes(source.blanked([scripts[0].inner] if scripts else []))
        return Tree(source, view)
    except InputError:
        return None


@cache
def _entry(folder: Path) -> Path | None:
    """The file a folder's own package.json names as its entry, modules of the language first."""
    known = _json(folder / "package.json")
    for kind in ("module", "main"):
        name = known.get(kind)
        if isinstance(name, str) and (folder / name).is_file():
            return folder / name
    return None


def _first_file(base: Path) -> Path | None:
    """The file that a path without its ending means."""
    names = (f"{base.as_posix()}{ending}" for ending in ("", ".js", ".mjs", ".cjs"))
    return next((Path(name) for name in names if is_file(name)), None)


def _exports(folder: Path) -> Path | None:
    """The entry that `exports` of a package.json names, a module of the language first."""
    value = _json(folder / "package.json").get("exports")
    for _ in range(4):
        if isinstance(value, dict):
            keys = (".", "import", "module", "default", "require")
            value = next((value[key] for key in keys if key in value), None)
    path = folder / value if isinstance(value, str) else None
    return path if path is not None and path.is_file() else None


@cache
def package_version(folder: Path, name: str) -> str | None:
    """The version of a package the project around `folder` uses.

    Taken from the nearest `node_modules`, else from the range in the nearest package.json.
    """
    found = _json(folder / "node_modules" / name / "package.json").get("version")
    if isinstance(found, str):
        return found
    package = _json(folder / "package.json")
    for group in ("dependencies", "peerDependencies", "devDependencies"):
        wanted = package.get(group)
        if isinstance(wanted, dict) and isinstance(wanted.get(name), str):
            return str(wanted[name])
    above = folder.parent
    return package_version(above, name) if above != folder else None


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
