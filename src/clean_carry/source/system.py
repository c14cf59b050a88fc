"""Calls that differ between operating systems, in one place.

On a system without a call, the function does the safe thing: nothing is locked, no memory is measured,
and a process counts as running.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

# Whether processes have groups and parents that a guard can watch.
GUARDED = os.name == "posix"


def process_runs(process: int) -> bool:
    """Whether a process runs. Windows cannot tell without ending it: there it counts as running."""
    if os.name != "posix":
        return True
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except OSError:
        return True
    return True


def file_mode_mask() -> int:
    """Return the mask for the mode of new files."""
    mask = os.umask(0)
    os.umask(mask)
    return mask


def resident_memory(process: int) -> int:
    """Return the resident memory of a process in bytes; 0 except on Linux."""
    try:
        pages = int(Path(f"/proc/{process}/statm").read_text().split()[1])
    except (OSError, ValueError, IndexError):
        return 0
    return pages * os.sysconf("SC_PAGE_SIZE")


def processor_seconds(process: int) -> float | None:
    """Return the seconds that a process has computed (proc_pid_stat(5)); None except on Linux."""
    try:
        after_name = Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()
        ticks = int(after_name[11]) + int(after_name[12])
    except (OSError, ValueError, IndexError):
        return None
    return float(ticks / os.sysconf("SC_CLK_TCK"))


def cache_folder() -> Path:
    """The user's cache folder for the tool (XDG base directories, or `CLEAN_CARRY_CACHE`)."""
    given = os.environ.get("CLEAN_CARRY_CACHE")
    if given:
        return Path(given).expanduser().resolve()
    base = os.environ.get("XDG_CACHE_HOME")
    return ((Path(base) if base else Path.home() / ".cache") / "clean-carry").resolve()


@contextmanager
def locked(folder: Path) -> Iterator[None]:
    """Hold the lock of a folder; Windows has no such locks, so there nobody waits."""
    try:
        import fcntl
    except ImportError:
        yield
        return
    held = os.open(folder, os.O_RDONLY)
    try:
        fcntl.flock(held, fcntl.LOCK_EX)
        yield
    finally:
        os.close(held)


def worker_environment() -> dict[str, str]:
    """Return the environment of a worker: the path, and on Windows the folder that Node needs to start."""
    environment = {"PATH": os.environ.get("PATH", "")}
    if os.name == "nt":
        environment["SYSTEMROOT"] = os.environ.get("SYSTEMROOT", "")
    return environment
