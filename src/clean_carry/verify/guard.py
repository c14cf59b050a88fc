"""Ends the rendering workers when the program is gone, however it went.

A worker whose component loops for ever reads nothing any more, so it does not notice that nobody is left
to ask it. One small process watches all of them: it gets the list of processes, and
ends them when its pipe is closed, or its parent is another one.
"""

from __future__ import annotations

import atexit
import contextlib
import os
import subprocess
import sys
import threading

from clean_carry.source.system import GUARDED

# Read by `python -c`: a line a worker, `+PID` when it starts and `-PID` when it has ended.
_WATCH = """
import os, select, signal, sys
parent, workers, rest = os.getppid(), set(), b""
while os.getppid() == parent:
    if not select.select([0], [], [], 1.0)[0]:
        continue
    read = os.read(0, 65536)
    if not read:
        break
    *lines, rest = (rest + read).split(b"\\n")
    for line in lines:
        (workers.add if line[:1] == b"+" else workers.discard)(int(line[1:]))
for worker in workers:
    try:
        os.killpg(worker, signal.SIGKILL)
    except OSError:
        pass
"""


class Guard:
    """Tells the guarding process of workers; it is started with the first one."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._owner = 0
        self._process: subprocess.Popen[bytes] | None = None

    def starts(self, process: int) -> None:
        """A worker runs, the first of its process group."""
        self._tell(f"+{process}\n")

    def ended(self, process: int) -> None:
        """A worker has ended."""
        self._tell(f"-{process}\n")

    def _tell(self, line: str) -> None:
        if not GUARDED:
            return
        with self._lock:
            # A forked process has a guard of its own.
            if self._process is None or self._owner != os.getpid():
                self._process = subprocess.Popen(
                    [sys.executable, "-I", "-S", "-c", _WATCH],
                    stdin=subprocess.PIPE,
                    stdout=subprocess.DEVNULL,
                    stderr=subprocess.DEVNULL,
                    start_new_session=True,
                )
                self._owner = os.getpid()
                atexit.register(self._close)
            assert self._process.stdin is not None
            with contextlib.suppress(OSError):
                self._process.stdin.write(line.encode())
                self._process.stdin.flush()

    def _close(self) -> None:
        process = self._process
        if process is None or self._owner != os.getpid():
            return
        with contextlib.suppress(OSError):
            if process.stdin is not None:
                process.stdin.close()
        process.wait()


GUARD = Guard()
