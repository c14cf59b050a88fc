"""Writing files: whole or not at all, and never over a file unless asked to."""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

from clean_carry.component.errors import WriteRefused


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
    """Write a file in one step: a reader sees the old text or the new, never a part."""
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        if path.exists() and not os.access(path, os.W_OK):
            raise PermissionError(13, "Permission denied")
        if not os.access(path.parent, os.W_OK):
            raise PermissionError(13, "Permission denied")
        handle, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
    except OSError as error:
        raise WriteRefused(f"cannot be written ({error.strerror})", file=str(path)) from None
    staged = Path(name)
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(data)
            out.flush()
            os.fsync(out.fileno())
        mode = path.stat().st_mode & 0o777 if path.exists() else 0o666 & ~_umask()
        staged.chmod(mode)
        staged.replace(path)
    except OSError as error:
        staged.unlink(missing_ok=True)
        raise WriteRefused(f"cannot be written ({error.strerror})", file=str(path)) from None


def _umask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask
