"""Projects made of texts, and their indexes."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from pathlib import Path

import pytest

from clean_carry.project.index.build import index_of
from clean_carry.project.index.links import Index
from clean_carry.project.settings import forget_settings

Made = Callable[[Mapping[str, str]], Index]


@pytest.fixture
def project(tmp_path: Path) -> Made:
    """Write files and index them; the top folder is the temporary one."""

    def made(files: Mapping[str, str]) -> Index:
        for name, text in {"package.json": '{"name": "ferries"}', **files}.items():
            (tmp_path / name).parent.mkdir(parents=True, exist_ok=True)
            (tmp_path / name).write_text(text, "utf-8")
        forget_settings()
        return index_of(tmp_path, fresh=True)

    return made


def uses(index: Index, name: str) -> list[tuple[str, int, str]]:
    """(file, line, how) of every use of the component of a name."""
    top = len(index.root.as_posix()) + 1
    return [
        (use.file[top:], use.line, use.how)
        for found in index.components.values()
        if found.seen.name == name
        for use in found.users
    ]
