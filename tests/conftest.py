"""What every test shares: running the built program, and one bench for all renderings."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from zlib import crc32

import pytest

from clean_carry.verify.worker_pool import Bench
from made_projects import project

__all__ = ["project"]

# Each test process keeps one renderer busy; several run at once.
ONE_WORKER = {"CLEAN_CARRY_WORKERS": "1"}
Run = Callable[..., subprocess.CompletedProcess[str]]


# Folders whose tests render components, or run the program over many files.
SLOW = ("cli", "everyday", "report", "verify")


# Tables whose tests render: of each six rows one is a part of every run, another one in each table.
THINNED = ("cli", "report", "verify", "across", "crossing", "syntaxes")
EVERY = 6
# What guards the machine is always tried whole.
ALWAYS = ("hostile", "isolation")


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Mark what `pytest -m "not slow"` leaves out, and rows of long tables as `whole`."""
    tables: dict[str, list[pytest.Item]] = {}
    for item in items:
        folder = item.path.relative_to(Path(__file__).parent).parts[0]
        if folder in SLOW:
            item.add_marker(pytest.mark.slow)
        renders = folder in SLOW or "bench" in getattr(item, "fixturenames", ())
        if folder in THINNED and renders and not any(word in item.nodeid for word in ALWAYS):
            tables.setdefault(item.nodeid.partition("[")[0], []).append(item)
    for name, rows in tables.items():
        first = crc32(name.encode()) % min(EVERY, len(rows))
        for number, item in enumerate(rows):
            if number % EVERY != first:
                item.add_marker(pytest.mark.whole)


@pytest.fixture
def run(tmp_path: Path) -> Run:
    """Run the built program in a temporary folder."""

    def call(
        *arguments: str, env: dict[str, str] | None = None
    ) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "-m", "clean_carry", *arguments],
            cwd=tmp_path,
            capture_output=True,
            text=True,
            encoding="utf-8",
            env={**os.environ, **ONE_WORKER, **(env or {})},
            timeout=180,
            check=False,
        )

    return call


@pytest.fixture
def carry_json(run: Run, tmp_path: Path) -> Callable[[str], dict[str, Any]]:
    """Carry source text through the built program; the first component's result."""

    def call(text: str, name: str = "X.jsx") -> dict[str, Any]:
        (tmp_path / name).write_text(text, "utf-8")
        done = run("carry", name, "--to", "jsx-function", "--json")
        results: list[dict[str, Any]] = json.loads(done.stdout)["results"]
        return results[0]

    return call


@pytest.fixture(scope="session")
def bench() -> Iterator[Bench]:
    """The rendering workers, started once."""
    with Bench(size=1) as made:
        yield made
