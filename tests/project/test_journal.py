"""A change of several files is made wholly or not at all, whenever it is interrupted."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.component.errors import WriteRefused
from clean_carry.project import journal
from clean_carry.project.journal import NAME, change, finish, working_on

BEFORE = {"a.js": "1", "b.js": "2", "deep/c.js": "3"}
AFTER = {"a.js": "10", "deep/c.js": "3", "new/d.js": "4"}


def write(root: Path, files: dict[str, str]) -> None:
    for name, text in files.items():
        (root / name).parent.mkdir(parents=True, exist_ok=True)
        (root / name).write_text(text)


def there(root: Path) -> dict[str, str]:
    return {
        path.relative_to(root).as_posix(): path.read_text()
        for path in sorted(root.rglob("*"))
        if path.is_file()
    }


def wanted(root: Path) -> dict[Path, bytes | None]:
    return {root / "a.js": b"10", root / "b.js": None, root / "new/d.js": b"4"}


def test_all_of_a_change(tmp_path: Path) -> None:
    write(tmp_path, BEFORE)
    with working_on(tmp_path):
        change(tmp_path, wanted(tmp_path))
    assert there(tmp_path) == AFTER


class Stopped(Exception):
    """The process is gone."""


@pytest.mark.parametrize("at", range(4))
def test_stopped_at_any_file(at: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    write(tmp_path, BEFORE)
    real, done = journal.replace, 0

    def stops(path: Path, data: bytes) -> None:
        nonlocal done
        if done == at:
            raise Stopped
        done += 1
        real(path, data)

    monkeypatch.setattr(journal, "replace", stops)
    if at < 3:
        with pytest.raises(Stopped), working_on(tmp_path):
            change(tmp_path, wanted(tmp_path))
    monkeypatch.setattr(journal, "replace", real)
    with working_on(tmp_path):
        pass
    assert there(tmp_path) in (BEFORE, AFTER)
    assert (there(tmp_path) == BEFORE) == (at in (0, 3))


def test_a_journal_that_is_no_journal_stops_everything(tmp_path: Path) -> None:
    write(tmp_path, {NAME: "{"})
    with pytest.raises(WriteRefused, match="interrupted change"):
        finish(tmp_path)
    assert there(tmp_path) == {NAME: "{"}


def test_nothing_outside_of_the_project_is_written(tmp_path: Path) -> None:
    (tmp_path / "in").mkdir()
    with pytest.raises(WriteRefused, match="outside"):
        change(tmp_path / "in", {tmp_path / "out.js": b"1"})
    steps = [{"path": "../out.js", "data": None}]
    (tmp_path / "in" / NAME).write_text(json.dumps({"version": 1, "steps": steps}))
    write(tmp_path, {"out.js": "1"})
    with pytest.raises(WriteRefused):
        finish(tmp_path / "in")
    assert (tmp_path / "out.js").exists()


def test_a_file_that_cannot_be_written_stops_the_change_before_it_begins(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    write(tmp_path, BEFORE)
    monkeypatch.setattr(journal.os, "access", lambda path, mode: not str(path).endswith("b.js"))
    with pytest.raises(WriteRefused, match="Permission denied"):
        change(tmp_path, wanted(tmp_path))
    assert there(tmp_path) == BEFORE
