"""Uses of a view that only a person can change: tags in other views, and names in scripts of the server."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

from clean_carry.project.index.links import Index
from clean_carry.project.walk.edits import Left
from clean_carry.source.index.parsed import VIEWS
from clean_carry.syntaxes.server_view.reading.class_file import class_beside

_ADVICE = "Carry this view first: it renders views of the server alone"
# Calls and directives that name a view by its path.
_NAMING = r"(?:\bview|\bmake|@(?:include\w*|extends|component|each))\s*\(\s*['\"]"


def in_views(index: Index, old: Path, but: set[str]) -> list[Left]:
    """The uses of a view by others than the files `but`; none of a file that is no view."""
    if not old.name.endswith(VIEWS):
        return []
    tags = [
        Left(use.file, use.line, f"its tag in {Path(use.file).name}", _ADVICE)
        for key in index.in_file(old.as_posix())
        for use in index.components[key].users
        if use.file.endswith(VIEWS) and use.file not in but
    ]
    return [*tags, *_named(index.root, old, but)]


def class_to_go(root: Path, old: Path) -> Path | None:
    """The script of a view's class, if no other script names the class."""
    script = class_beside(old) if old.name.endswith(VIEWS) else None
    if script is None:
        return None
    named = re.compile(rf"\b{re.escape(script.stem)}\b")
    others = (path for path in _scripts(root) if path.resolve() != script.resolve())
    used = any(named.search(path.read_text("utf-8", "replace")) for path in others)
    return None if used else script


def _scripts(root: Path) -> Iterator[Path]:
    """The scripts and views of a project, packages left out."""
    for path in sorted(root.rglob("*.php")):
        if not {"vendor", "node_modules"} & set(path.parts):
            yield path


def _named(root: Path, old: Path, but: set[str]) -> Iterator[Left]:
    """The scripts and views that name a view by its path, but its own class."""
    name = re.escape(old.name.removesuffix(VIEWS[0]))
    named = re.compile(rf"{_NAMING}(?:[\w:.-]*[.:])?{name}['\"]")
    script = class_beside(old)
    own = {*but, script.resolve().as_posix() if script is not None else ""}
    for path in _scripts(root):
        if path.as_posix() in own:
            continue
        text = path.read_text("utf-8", "replace")
        found = named.search(text)
        if found is not None:
            line = text.count("\n", 0, found.start()) + 1
            advice = "Render what takes its place there by hand"
            yield Left(path.as_posix(), line, f"{found[0]} in {path.name}", advice)
