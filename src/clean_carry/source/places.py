"""Where files really are. Names are text here: a path object of each costs more than to ask for it."""

from __future__ import annotations

import os
from functools import cache
from pathlib import Path


def real(file: Path) -> Path:
    """The file itself, absolute and without links."""
    return _real(os.path.abspath(file))  # noqa: PTH100


def folder_of(file: Path) -> Path:
    """The folder a file itself stands in."""
    return real(file).parent


def is_file(name: str) -> bool:
    """Whether there is a file of this name."""
    return os.path.isfile(name)  # noqa: PTH113


def upward(folder: Path, name: str) -> Path | None:
    """The nearest file of this name in a folder or above it."""
    here = str(folder)
    while not is_file(os.path.join(here, name)):  # noqa: PTH118
        here, last = os.path.dirname(here), here  # noqa: PTH120
        if here == last:
            return None
    return Path(here, name)


@cache
def _real(file: str) -> Path:
    return Path(os.path.realpath(file))
