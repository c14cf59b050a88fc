"""Files from outside of a project that a verdict rests on: it may be another one where they are others."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path

from clean_carry.source.system import cache_folder
from clean_carry.verify.runtimes import WORKER
from clean_carry.verify.worker_pool import Bundle

# Files at the top of a project.
_TOPS = ("package.json", "clean-carry.toml", ".git")
MOST = 20


def outside_of(place: Path, bundles: Iterable[Bundle]) -> tuple[str, ...]:
    """The files of some bundles that stand outside of the project of `place`, links resolved.

    Packages and the runtimes are left out; none where no project is found around it.
    """
    tops = [up for up in place.parents if any((up / name).exists() for name in _TOPS)]
    if not tops:
        return ()
    own = (tops[-1].resolve(), WORKER, cache_folder())
    found: dict[str, None] = {}
    for bundle in bundles:
        for name in bundle.files:
            file = Path(name)
            if "node_modules" in file.parts or not file.is_file():
                continue
            real = file.resolve()
            if not any(real.is_relative_to(folder) for folder in own):
                found.setdefault(str(real))
    return tuple(found)[:MOST]


__all__ = ["outside_of"]
