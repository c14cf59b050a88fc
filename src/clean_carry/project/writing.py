"""Writing files: whole or not at all, and never over a file unless asked to."""

from __future__ import annotations

import glob
import os
import tempfile
from pathlib import Path

from clean_carry.component.errors import WriteRefused
from clean_carry.source.system import file_mode_mask, process_runs


def write_new(path: Path, data: bytes) -> None:
    """Write a file that is not there yet; raises `WriteRefused` where another text stands."""
    if path.exists():
        try:
            if path.read_bytes() == data:
                return
        except OSError:
            pass
        raise WriteRefused(
            "a file stands there already", advice="Move it away first", file=str(path)
        )
    replace(path, data)


def replace(path: Path, data: bytes) -> None:
    """Write a file in one step: a reader sees the old text or the new, never a part.

    Of a symbolic link the file it leads to is written.
    """
    path = path.resolve() if path.is_symlink() else path
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        if path.exists() and not os.access(path, os.W_OK):
            raise PermissionError(13, "Permission denied")
        if not os.access(path.parent, os.W_OK):
            raise PermissionError(13, "Permission denied")
        _sweep(path)
        prefix = f".{path.name}{_STAGED}{os.getpid()}."
        handle, name = tempfile.mkstemp(prefix=prefix, dir=path.parent)
    except OSError as error:
        raise WriteRefused(f"cannot be written ({error.strerror})", file=str(path)) from None
    staged = Path(name)
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(data)
            out.flush()
            os.fsync(out.fileno())
        mode = path.stat().st_mode & 0o777 if path.exists() else 0o666 & ~file_mode_mask()
        staged.chmod(mode)
        staged.replace(path)
    except OSError as error:
        staged.unlink(missing_ok=True)
        raise WriteRefused(f"cannot be written ({error.strerror})", file=str(path)) from None
    except BaseException:
        # Stopped half-way.
        staged.unlink(missing_ok=True)
        raise


# Between the name of a file and the process that writes it.
_STAGED = ".carry-"


def _sweep(path: Path) -> None:
    """Take away what a process that is gone had staged for a file."""
    for left in path.parent.glob(f".{glob.escape(path.name)}{_STAGED}*"):
        owner = left.name.rpartition(_STAGED)[2].partition(".")[0]
        if owner.isdigit() and not process_runs(int(owner)):
            left.unlink(missing_ok=True)
