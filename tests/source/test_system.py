"""Calls that differ between operating systems."""

from __future__ import annotations

import builtins
import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source import system


def test_processes_that_run_and_that_ended() -> None:
    assert system.process_runs(os.getpid())
    ended = subprocess.Popen([sys.executable, "-c", ""])
    ended.wait()
    assert not system.process_runs(ended.pid)


def test_windows_takes_every_process_for_running(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(os, "name", "nt")
    assert system.process_runs(2**22 - 1)
    monkeypatch.setenv("SYSTEMROOT", "C:/Windows")
    assert system.worker_environment()["SYSTEMROOT"] == "C:/Windows"


def test_memory_is_measured_on_linux_alone() -> None:
    measured = system.resident_memory(os.getpid())
    assert measured > 1_000_000 if sys.platform == "linux" else measured == 0
    assert system.resident_memory(2**22 - 1) == 0


def test_computing_time_is_measured_on_linux_alone() -> None:
    spent = system.processor_seconds(os.getpid())
    assert spent is None or 0 < spent < 1e6
    assert (spent is not None) == (sys.platform == "linux")
    assert system.processor_seconds(2**22 - 1) is None


def test_a_folder_is_locked_or_nobody_waits(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    with system.locked(tmp_path):
        pass
    real = builtins.__import__

    def missing(name: str, *rest: Any) -> Any:
        if name == "fcntl":
            raise ImportError(name)
        return real(name, *rest)

    monkeypatch.setattr(builtins, "__import__", missing)
    with system.locked(tmp_path / "nowhere"):
        pass


def test_the_mask_of_new_files_stays(tmp_path: Path) -> None:
    assert system.file_mode_mask() == system.file_mode_mask()
