"""Runtimes: which one fits a project, and that one is installed whole or not at all."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.component.errors import RuntimeMissing
from clean_carry.source.system import cache_folder
from clean_carry.verify.node import node, npm
from clean_carry.verify.runtimes import (
    RUNTIMES,
    ensure,
    install,
    remove,
    runtime_for,
)

FITTING = [
    ("react", "16.14.0", "react-16"),
    ("react", "15.6.0", "react-16"),
    ("react", "^17.0.2", "react-17"),
    ("react", "16 || 17 || 18", "react-18"),
    ("react", "^19.1.0", "react-19"),
    ("react", "", "react-18"),
    ("vue", "2.7.16", "vue-2"),
    ("vue", "^3.4.0", "vue-3"),
    ("vue", "", "vue-3"),
    ("angular", "1.8.3", "angular-1"),
]


@pytest.mark.parametrize(("framework", "version", "name"), FITTING)
def test_the_runtime_that_fits_a_project(
    framework: str, version: str, name: str, tmp_path: Path
) -> None:
    listed = {"dependencies": {framework: version}} if version else {}
    (tmp_path / "package.json").write_text(json.dumps(listed))
    assert runtime_for(framework, tmp_path).name == name


@pytest.fixture
def cache(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """An empty cache of its own."""
    monkeypatch.setenv("CLEAN_CARRY_CACHE", str(tmp_path / "cache"))
    return tmp_path / "cache"


def program(folder: Path, name: str, text: str) -> None:
    path = folder / name
    path.write_text(f"#!/bin/sh\n{text}\n")
    path.chmod(0o755)


def found(folder: Path, monkeypatch: pytest.MonkeyPatch, *, npm: str) -> None:
    """Have these two programs found before all others."""
    program(folder, "node", "echo v20.19.0")
    program(folder, "npm", npm)
    monkeypatch.setenv("PATH", f"{folder}:/usr/bin:/bin")


def test_where_the_cache_is(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setenv("CLEAN_CARRY_CACHE", str(tmp_path))
    assert cache_folder() == tmp_path
    monkeypatch.delenv("CLEAN_CARRY_CACHE")
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "xdg"))
    assert cache_folder() == tmp_path / "xdg" / "clean-carry"
    monkeypatch.delenv("XDG_CACHE_HOME")
    assert cache_folder() == Path.home() / ".cache" / "clean-carry"


def test_offline_nothing_is_installed(cache: Path) -> None:
    with pytest.raises(RuntimeMissing, match="react-18 is not installed") as caught:
        ensure(RUNTIMES["react-18"], offline=True, say=print)
    assert "runtimes install react-18" in str(caught.value.advice)
    assert not cache.exists()


def test_what_fails_to_install_leaves_nothing_and_says_why(
    cache: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    found(tmp_path, monkeypatch, npm="echo 'the registry is away' >&2; exit 1")
    said: list[str] = []
    with pytest.raises(RuntimeMissing, match="the registry is away"):
        install(RUNTIMES["react-18"], said.append)
    assert "Installing the runtime react-18" in said[0] and len(said) == 1
    assert [path for path in cache.rglob("*") if path.is_file()] == []


def test_an_installed_one_is_there_whole_and_can_be_removed(
    cache: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    found(tmp_path, monkeypatch, npm="mkdir node_modules; echo made > node_modules/react")
    runtime = RUNTIMES["react-18"]
    folder = ensure(runtime, offline=False, say=lambda text: None)
    assert (folder / "node_modules/react").read_text() == "made\n" and runtime.installed
    assert (folder / "package-lock.json").is_file()
    assert ensure(runtime, offline=True, say=print) == folder
    assert remove(runtime) and not folder.exists() and not remove(runtime)


def shipped(folder: Path | None, monkeypatch: pytest.MonkeyPatch) -> None:
    """Have the Python package with Node stand in a folder, or nowhere."""
    monkeypatch.setattr("clean_carry.verify.node._shipped_folder", lambda: folder)
    monkeypatch.delenv("CLEAN_CARRY_NODE", raising=False)


@pytest.mark.parametrize("version", ["v18.19.0", "v20.18.1", "v21.7.0", "v22.11.0", "none"])
def test_an_old_node_is_told(version: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    shipped(None, monkeypatch)
    program(tmp_path, "node", f"echo {version}")
    monkeypatch.setenv("PATH", f"{tmp_path}:/usr/bin:/bin")
    with pytest.raises(RuntimeMissing, match="too old"):
        node()
    monkeypatch.setenv("PATH", str(tmp_path / "empty"))
    with pytest.raises(RuntimeMissing, match="not installed"):
        node()


def test_which_node_is_taken(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    package, own = tmp_path / "package", tmp_path / "own"
    for folder in (package / "bin", own):
        folder.mkdir(parents=True)
    program(package / "bin", "node", "echo v24.1.0")
    script = package / "lib/node_modules/npm/bin/npm-cli.js"
    script.parent.mkdir(parents=True)
    script.write_text("")
    shipped(package, monkeypatch)
    monkeypatch.setenv("PATH", str(own))
    assert node() == str(package / "bin" / "node")
    assert npm() == [node(), str(script)]
    program(own, "node", "echo v22.12.0")
    assert node() == str(own / "node")
    assert npm() == [node(), str(script)]
    program(own, "npm", "echo 10")
    assert npm() == [str(own / "npm")]
    monkeypatch.setenv("CLEAN_CARRY_NODE", str(package / "bin" / "node"))
    assert npm() == [str(package / "bin" / "node"), str(script)]


def test_an_old_node_gives_way_to_the_shipped_one(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "package/bin").mkdir(parents=True)
    program(tmp_path / "package/bin", "node", "echo v24.1.0")
    shipped(tmp_path / "package", monkeypatch)
    program(tmp_path, "node", "echo v18.19.0")
    monkeypatch.setenv("PATH", str(tmp_path))
    assert node() == str(tmp_path / "package/bin/node")


def test_windows_has_node_beside_its_modules(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    program(tmp_path, "node.exe", "echo v24.1.0")
    script = tmp_path / "node_modules/npm/bin/npm-cli.js"
    script.parent.mkdir(parents=True)
    script.write_text("")
    shipped(tmp_path, monkeypatch)
    monkeypatch.setenv("PATH", str(tmp_path / "empty"))
    assert (node(), npm()) == (
        str(tmp_path / "node.exe"),
        [str(tmp_path / "node.exe"), str(script)],
    )
