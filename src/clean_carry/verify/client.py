"""The client of the rendering workers: processes that answer one line of JSON with another."""

from __future__ import annotations

import json
import os
import queue
import secrets
import subprocess
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from clean_carry.source.system import processor_seconds, resident_memory, worker_environment
from clean_carry.verify.guard import GUARD
from clean_carry.verify.node import node, version
from clean_carry.verify.runtimes import WORKER

# A trial that has computed for this many seconds and has not answered is ended with its worker.
PATIENCE = 5.0
# On a busy machine a worker may have to wait for a processor, but no longer than this many times that.
BUSY = 6
START_PATIENCE = 60.0
# A worker that holds more than this is ended (bytes of resident memory).
MOST_MEMORY = 1_500_000_000


class WorkerFailed(Exception):
    """A worker refused a request, or was ended by the watchdog."""

    def __init__(self, reason: str, *, ended: bool) -> None:
        super().__init__(reason)
        self.reason = reason
        self.ended = ended


class Worker:
    """One process. It is started on first use and again after it was ended.

    A `sealed` one gets a secret before it runs anything, and each answer carries it: output that component
    code writes is no answer.
    """

    def __init__(
        self, arguments: Callable[[], list[str]], *, waits_ready: bool, sealed: bool = False
    ) -> None:
        self._arguments = arguments
        self._waits_ready = waits_ready
        self._sealed = sealed
        self._secret = ""
        self._process: subprocess.Popen[bytes] | None = None
        self._lines: queue.Queue[bytes | None] = queue.Queue()
        self._number = 0
        self.generation = 0

    def _start(self) -> subprocess.Popen[bytes]:
        environment = {**worker_environment(), "NODE_NO_WARNINGS": "1"}
        process = subprocess.Popen(
            self._arguments(),
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            env=environment,
            cwd=WORKER,
            # A key press that stops the command must not end its workers before it has said what it has.
            start_new_session=True,
        )
        GUARD.starts(process.pid)
        lines: queue.Queue[bytes | None] = queue.Queue()
        threading.Thread(target=_pump, args=(process, lines), daemon=True).start()
        self._process, self._lines = process, lines
        self.generation += 1
        if self._waits_ready:
            self._answer(START_PATIENCE)
        if self._sealed:
            assert process.stdin is not None
            self._secret = secrets.token_hex(16)
            process.stdin.write(json.dumps({"secret": self._secret}).encode() + b"\n")
        return process

    @property
    def ended(self) -> bool:
        """Whether there is no running process (a new one starts on the next request)."""
        return self._process is None or self._process.poll() is not None

    def ask(self, request: dict[str, Any], patience: float = PATIENCE) -> dict[str, Any]:
        """Send a request and wait for its answer.

        Raises `WorkerFailed` when the worker says no, dies, or does not answer within `patience`
        seconds of computing.
        """
        process = self._process
        if process is None or process.poll() is not None:
            self.close()
            process = self._start()
        self._number += 1
        line = json.dumps({**request, "id": self._number}).encode() + b"\n"
        assert process.stdin is not None
        try:
            process.stdin.write(line)
            process.stdin.flush()
        except OSError:
            self.close()
            raise WorkerFailed("the worker went away", ended=True) from None
        while True:
            answer = self._answer(patience)
            if answer.get("secret", "") != self._secret:
                self.close()
                raise WorkerFailed("an answer was not its own", ended=True)
            if answer.get("id") == self._number:
                break
        if not answer.get("ok"):
            raise WorkerFailed(str(answer.get("error")), ended=False)
        return answer

    def _answer(self, patience: float) -> dict[str, Any]:
        asked, computed = time.monotonic(), _computed(self._process)
        while True:
            try:
                line = self._lines.get(timeout=0.25)
            except queue.Empty:
                waited = time.monotonic() - asked
                spent = _computed(self._process)
                busy = spent is not None and computed is not None and spent - computed < patience
                if waited > (patience * BUSY if busy else patience):
                    self.close()
                    raise WorkerFailed("it did not come to an end", ended=True) from None
                if _resident(self._process) > MOST_MEMORY:
                    self.close()
                    raise WorkerFailed("it filled the memory", ended=True) from None
                continue
            if line is None:
                self.close()
                raise WorkerFailed("it ended the worker", ended=True)
            try:
                answer = json.loads(line)
            except ValueError:
                continue
            if isinstance(answer, dict):
                return answer

    def close(self) -> None:
        """End the process."""
        process, self._process = self._process, None
        if process is None:
            return
        process.kill()
        process.wait()
        GUARD.ended(process.pid)
        for stream in (process.stdin, process.stdout):
            if stream is not None:
                try:
                    stream.close()
                except OSError:
                    continue


def _pump(process: subprocess.Popen[bytes], lines: queue.Queue[bytes | None]) -> None:
    assert process.stdout is not None
    try:
        for line in process.stdout:
            lines.put(line)
    except (OSError, ValueError):
        pass
    lines.put(None)


def _computed(process: subprocess.Popen[bytes] | None) -> float | None:
    return processor_seconds(process.pid) if process is not None else None


def _resident(process: subprocess.Popen[bytes] | None) -> int:
    """Return the resident memory of a process in bytes; 0 if the system does not tell."""
    return resident_memory(process.pid) if process is not None else 0


def builder(workbench: Path) -> Worker:
    """A worker that bundles components and never runs them."""
    return Worker(lambda: [node(), str(WORKER / "builder.mjs"), str(workbench)], waits_ready=False)


def renderer(workbench: Path) -> Worker:
    """A worker that runs components under Node's permission model, without network or writing."""

    def arguments() -> list[str]:
        executable = node()
        return [
            executable,
            _permission_flag(executable),
            f"--allow-fs-read={workbench}{os.sep}*",
            f"--allow-fs-read={WORKER}{os.sep}*",
            "--disallow-code-generation-from-strings",
            "--max-old-space-size=512",
            # Nearly all that a walk makes is gone with it: room for the young saves a sixth of the time.
            "--min-semi-space-size=64",
            "--max-semi-space-size=64",
            # Renderers run side by side: helpers of one would take the cores of the others.
            "--single-threaded-gc",
            "--no-warnings",
            str(WORKER / "renderer.mjs"),
            str(workbench),
        ]

    return Worker(arguments, waits_ready=True, sealed=True)


def _permission_flag(executable: str) -> str:
    """Return the permission flag; it has its plain name from Node 23.5 on (its documentation of
    permissions)."""
    return "--permission" if version(executable) >= (23, 5) else "--experimental-permission"
