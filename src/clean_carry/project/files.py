"""Which files a command means: files as named, folders searched, what is ignored left out."""

from __future__ import annotations

from collections.abc import Iterable
from fnmatch import fnmatch
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.project.settings import Settings, settings_for
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registry import SYNTAXES, recognise

# Folders that hold what others wrote, or what was made from sources.
_PASSED_OVER = frozenset({"node_modules", "dist", "build", "coverage"})


def component_files(paths: Iterable[Path]) -> list[Path]:
    """The files meant, each once, in order.

    A folder stands for every file below it that is in a syntax that can be read, but hidden folders,
    `node_modules`, what was built, and what the project file ignores. A folder without any stands for
    itself, and reading it says what is wrong.
    """
    found: dict[Path, None] = {}
    for path in paths:
        if not path.is_dir():
            found.setdefault(path)
            continue
        found.update(dict.fromkeys(_below(path, settings_for(path / "x")) or [path]))
    return list(found)


def sources_of(settings: Settings) -> list[Path]:
    """The source folders a project file names."""
    return [settings.folder / name for name in settings.sources] if settings.folder else []


def _below(folder: Path, settings: Settings) -> list[Path]:
    endings = {ending for syntax in SYNTAXES.values() if syntax.reads for ending in syntax.endings}
    found: list[Path] = []
    for path in sorted(folder.rglob("*")):
        if path.suffix in endings and path.is_file() and not passed_over(path, folder, settings):
            if _is_component(path):
                found.append(path)
    return found


def passed_over(path: Path, folder: Path, settings: Settings) -> bool:
    """Whether a file below a searched folder is hidden, others' or made, or ignored by the project."""
    inside = path.relative_to(folder).parts
    if any(part.startswith(".") or part in _PASSED_OVER for part in inside):
        return True
    return _ignored(path, settings)


def _ignored(path: Path, settings: Settings) -> bool:
    if settings.folder is None:
        return False
    try:
        shown = path.resolve().relative_to(settings.folder.resolve()).as_posix()
    except ValueError:
        return False
    return any(fnmatch(shown, pattern) for pattern in settings.ignore)


def _is_component(path: Path) -> bool:
    try:
        return recognise(SourceText.read(path)) is not None
    except InputError:
        return False
