"""What is kept by content: values under a key, files by what is in them, and what is broken counts as nothing."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.store import Store

VALUES: list[Any] = [None, 0, "", "⛴", [1, [2]], {"a": {"b": None}}, ["x" * 100_000]]


@pytest.mark.parametrize("value", VALUES)
def test_a_value_comes_back(value: Any, tmp_path: Path) -> None:
    store = Store(tmp_path / "kept")
    store.keep(("key", 1), {"value": value})
    assert store.value(("key", 1)) == {"value": value}
    assert Store(tmp_path / "kept").value(["key", 1]) == {"value": value}
    assert store.value(("key", 2)) is None


def test_without_a_folder_nothing_is_kept() -> None:
    store = Store(None)
    store.keep("a", 1)
    assert store.value("a") is None


@pytest.mark.parametrize("broken", [b"", b"x", b"\x78\x9c\x03\x00\x00\x00\x00\x01"])
def test_what_is_broken_counts_as_nothing(broken: bytes, tmp_path: Path) -> None:
    store = Store(tmp_path)
    store.keep("a", {"b": 1})
    (kept,) = (path for path in tmp_path.rglob("*") if path.is_file())
    kept.write_bytes(broken)
    assert store.value("a") is None
    store.keep("a", {"b": 2})
    assert store.value("a") == {"b": 2}


def test_a_place_that_takes_nothing_fails_nothing(tmp_path: Path) -> None:
    (tmp_path / "kept").write_text("a file")
    store = Store(tmp_path / "kept")
    store.keep("a", 1)
    assert store.value("a") is None


def test_files_are_known_by_name_and_content(tmp_path: Path) -> None:
    store, one, two = Store(tmp_path), tmp_path / "one", tmp_path / "two"
    one.write_text("a")
    two.write_text("a")
    before = store.digest_of_files([str(one)])
    assert before == store.digest_of_files([str(one)]) != store.digest_of_files([str(two)])
    one.write_text("b")
    assert store.digest_of_files([str(one)]) != before
    one.unlink()
    gone = store.digest_of_files([str(one)])
    assert gone not in (before, store.digest_of_files([]))


def test_digests_differ_where_keys_do() -> None:
    store = Store(None)
    keys: list[Any] = [1, "1", [1], {"a": 1}, {"a": 2}, None, ("a", "b"), ("ab",)]
    assert len({store.digest(key) for key in keys}) == len(keys)
    assert store.digest({"a": 1, "b": 2}) == store.digest({"b": 2, "a": 1})
