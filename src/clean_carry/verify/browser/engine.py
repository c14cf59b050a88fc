"""The client of the browser: found on the machine, else installed as a runtime."""

from __future__ import annotations

import os
import shutil
from pathlib import Path
from typing import Any

from clean_carry.component.errors import RuntimeMissing
from clean_carry.verify.browser.views import View
from clean_carry.verify.client import Worker, WorkerFailed
from clean_carry.verify.node import node
from clean_carry.verify.runtimes import RUNTIMES, WORKER, Say, ensure
from clean_carry.verify.worker_pool import Bundle

DRIVER, BINARY = "browser", "chromium"
# Names under which the browser is installed on machines.
_NAMES = (
    "chromium",
    "chromium-browser",
    "google-chrome",
    "google-chrome-stable",
    "chrome",
    "msedge",
)
_PLACES = (
    "/Applications/Google Chrome.app/Contents/MacOS/Google Chrome",
    "/Applications/Chromium.app/Contents/MacOS/Chromium",
)
# Seconds a whole trial may take, its pictures with it.
PATIENCE = 60.0


def executable() -> str | None:
    """The browser on this machine: `CLEAN_CARRY_BROWSER`, or one found by its name; None if none is.

    Raises `RuntimeMissing` where the variable names what is not there.
    """
    named = os.environ.get("CLEAN_CARRY_BROWSER")
    if named:
        if not Path(named).is_file():
            raise RuntimeMissing(
                f"CLEAN_CARRY_BROWSER names {named}, which is not there",
                advice="Name the browser's executable, or leave the variable out",
            )
        return named
    found = next((path for name in _NAMES if (path := shutil.which(name))), None)
    return found or next((path for path in _PLACES if Path(path).is_file()), None)


class Browser:
    """One browser with one page. Used by one thread at a time."""

    def __init__(self, *, offline: bool, say: Say) -> None:
        driver = ensure(RUNTIMES[DRIVER], offline=offline, say=say)
        binary = executable()
        if binary is None:
            binary = f"package:{ensure(RUNTIMES[BINARY], offline=offline, say=say)}"
        host = str(WORKER / "browser" / "host.mjs")
        self._worker = Worker(lambda: [node(), host, str(driver), binary], waits_ready=True)
        self._loaded: set[str] = set()
        self._generation = 0

    def close(self) -> None:
        """End the browser."""
        self._worker.close()

    def trial(
        self, bundle: Bundle, exported: str, request: dict[str, Any], *, slot: str, view: View,
        marks: tuple[str, ...] = (), pictures: bool = True, looks: bool = True,
    ) -> dict[str, Any]:  # fmt: skip
        """Run a trial in a fresh frame; each point has a `look`, or says at which point it was as it is.

        `slot` is "old" or "new": which frame of the page. Raises `WorkerFailed`.
        """
        worker = self._worker
        if worker.ended or worker.generation != self._generation:
            self._loaded.clear()
        key = bundle.digest
        if key not in self._loaded:
            load = {"op": "load", "key": key, "code": bundle.code, "css": bundle.css}
            try:
                worker.ask(load, PATIENCE)
            except WorkerFailed as error:
                # The trial before may have ended the page after it was answered.
                if not error.ended:
                    raise
                self._loaded.clear()
                worker.ask(load, PATIENCE)
            self._generation = worker.generation
            self._loaded.add(key)
        return worker.ask(
            {
                "op": "trial",
                "key": key,
                "exported": exported,
                "trial": request,
                "slot": slot,
                "view": view.as_json(),
                "marks": list(marks),
                "pictures": pictures,
                "looks": looks,
            },
            PATIENCE,
        )
