"""Which files a command means, and how files are written."""

from __future__ import annotations

import subprocess
from pathlib import Path

import pytest

from clean_carry.component.errors import WriteRefused
from clean_carry.project.committed import CHANGED, OUTSIDE, UNTRACKED, not_committed
from clean_carry.project.files import component_files, sources_of
from clean_carry.project.settings import Settings, settings_for
from clean_carry.project.writing import replace, write_new
from tests_support import CLASS


def tree(folder: Path, *names: str) -> None:
    for name in names:
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(CLASS if path.suffix in (".jsx", ".js", ".tsx") else "text")


def test_a_folder_stands_for_its_components(tmp_path: Path) -> None:
    tree(
        tmp_path, "b/B.jsx", "A.jsx", "a.css", "node_modules/x/X.jsx", ".hidden/H.jsx", "dist/D.js"
    )
    (tmp_path / "plain.jsx").write_text("export const a = 1;")
    (tmp_path / "broken.jsx").write_bytes(b"\0class extends")
    found = component_files([tmp_path]).files
    assert [p.relative_to(tmp_path).as_posix() for p in found] == ["A.jsx", "b/B.jsx"]


def test_files_named_are_taken_as_they_are_each_once(tmp_path: Path) -> None:
    tree(tmp_path, "A.jsx", "B.jsx")
    one, none = tmp_path / "A.jsx", tmp_path / "none.jsx"
    assert component_files([one, none, one, tmp_path]).files == [one, none, tmp_path / "B.jsx"]


def test_a_folder_without_components_stands_for_itself(tmp_path: Path) -> None:
    tree(tmp_path, "a.css")
    assert component_files([tmp_path]).files == [tmp_path]


def test_what_the_project_ignores_is_passed_over(tmp_path: Path) -> None:
    tree(tmp_path, "src/A.jsx", "src/old/B.jsx", "src/A.test.jsx", "other/C.jsx")
    (tmp_path / "clean-carry.toml").write_text(
        'sources = ["src"]\nignore = ["src/old/*", "*.test.jsx"]\n'
    )
    settings = settings_for(tmp_path / "src" / "A.jsx")
    assert sources_of(settings) == [tmp_path.resolve() / "src"]
    found = component_files(sources_of(settings)).files
    assert [p.name for p in found] == ["A.jsx"]
    assert sources_of(Settings()) == []


def test_a_new_file_is_written_once(tmp_path: Path) -> None:
    path = tmp_path / "deep" / "X.jsx"
    write_new(path, b"a")
    write_new(path, b"a")
    assert path.read_bytes() == b"a"
    with pytest.raises(WriteRefused, match="a file stands there already"):
        write_new(path, b"b")
    assert path.read_bytes() == b"a"


def test_a_file_is_replaced_whole_and_keeps_its_mode(tmp_path: Path) -> None:
    path = tmp_path / "X.jsx"
    path.write_bytes(b"a")
    path.chmod(0o640)
    replace(path, b"b")
    assert (path.read_bytes(), path.stat().st_mode & 0o777) == (b"b", 0o640)
    assert [p.name for p in tmp_path.iterdir()] == ["X.jsx"]


def test_a_place_that_takes_no_file(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    with pytest.raises(WriteRefused):
        replace(tmp_path / "file" / "X.jsx", b"a")


def test_changes_that_are_not_committed(tmp_path: Path) -> None:
    def git(*arguments: str) -> None:
        identity = ["-c", "user.name=n", "-c", "user.email=e@example.org"]
        subprocess.run(
            ["git", *identity, *arguments], cwd=tmp_path, check=True, capture_output=True
        )

    path, other = tmp_path / "X.jsx", tmp_path / "deep" / "Y [1].jsx"
    other.parent.mkdir()
    path.write_text("a")
    other.write_text("a")
    both = [path, other]
    assert not_committed(both) == {path: OUTSIDE, other: OUTSIDE}
    git("init")
    assert not_committed(both) == {path: UNTRACKED, other: UNTRACKED}
    git("add", ".")
    assert not_committed(both) == {path: CHANGED, other: CHANGED}
    git("commit", "-m", "a")
    assert not_committed(both) == {}
    other.write_text("b")
    assert not_committed(both) == {other: CHANGED}
    git("add", ".")
    assert not_committed(both) == {other: CHANGED}
