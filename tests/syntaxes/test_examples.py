"""The examples of the documentation, carried again by the built program."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Any

import pytest

EXAMPLES = Path(__file__).parents[2] / "docs" / "examples"
# What each is carried to, by the end of its name, with the end of the new file's name.
TARGETS = {
    ".tsx": ("jsx-function", ".function.tsx"),
    ".jsx": ("jsx-function", ".function.jsx"),
    ".vue": ("single-file-flat", ".flat.vue"),
    ".js": ("controller-component", ".component.js"),
}
OLD = [p for p in sorted(EXAMPLES.iterdir()) if p.suffix in TARGETS and p.name.count(".") == 1]


@pytest.mark.parametrize("old", OLD, ids=lambda old: old.name)
def test_an_example_is_carried_to_the_file_beside_it(old: Path, run: Any, tmp_path: Path) -> None:
    target, suffix = TARGETS[old.suffix]
    for name in [*OLD, EXAMPLES / "package.json"]:  # the width of lines is that of the project
        shutil.copy(name, tmp_path)
    done = run("carry", old.name, "--to", target, "--write")
    assert done.returncode == 0, done.stdout + done.stderr
    new = old.stem + suffix
    assert (tmp_path / new).read_text("utf-8") == (EXAMPLES / new).read_text("utf-8")


def test_there_are_ten_and_the_page_names_each() -> None:
    page = (EXAMPLES / "README.md").read_text("utf-8")
    assert len(OLD) == 10
    assert all(f"[{old.name}]({old.name})" in page for old in OLD)
