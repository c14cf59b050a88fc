"""Which files a command means: files as named, folders searched, what is ignored left out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable
from fnmatch import fnmatch
from pathlib import Path
from typing import NamedTuple

from clean_carry.component.errors import InputError
from clean_carry.project.settings import Settings, settings_for
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registry import declared, every_syntax, recognise

# Folders that hold what others wrote, or what was made from sources.
_PASSED_OVER = frozenset({"node_modules", "dist", "build", "coverage"})


class Meant(NamedTuple):
    """The files meant, and how many components of other syntaxes were passed over, by syntax."""

    files: list[Path]
    passed_over: Counter[str]


def component_files(
    paths: Iterable[Path], wanted: Callable[[str], bool] = lambda syntax: True
) -> Meant:
    """The files meant, each once, in order.

    A folder stands for every file below it that is in a `wanted` syntax, but hidden folders,
    `node_modules`, what was built, and what the project file ignores. A folder without any component
    stands for itself, and reading it says what is wrong.
    """
    found: dict[Path, None] = {}
    others: Counter[str] = Counter()
    for path in paths:
        if not path.is_dir():
            found.setdefault(path)
            continue
        below = _below(path, settings_for(path / "x"))
        found.update((file, None) for file, syntax in below if wanted(syntax))
        others.update(syntax for _, syntax in below if not wanted(syntax))
        if not below:
            found.setdefault(path)
    return Meant(list(found), others)


def sources_of(settings: Settings) -> list[Path]:
    """The source folders a project file names."""
    return [settings.folder / name for name in settings.sources] if settings.folder else []


def _below(folder: Path, settings: Settings) -> list[tuple[Path, str]]:
    endings = tuple(
        ending for syntax in every_syntax() if syntax.reader for ending in syntax.marks.endings
    )
    found: list[tuple[Path, str]] = []
    for path in sorted(folder.rglob("*")):
        if (
            path.name.endswith(endings)
            and path.is_file()
            and not passed_over(path, folder, settings)
        ):
            syntax = _syntax_of(path)
            if syntax is not None and not declared(syntax).named_only:
                found.append((path, syntax))
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


def _syntax_of(path: Path) -> str | None:
    try:
        return recognise(SourceText.read(path))
    except InputError:
        return None
