"""Change several files of a project: all of them or none, also when the change is interrupted.

The whole change is written to one journal in the project's top folder first. Once the journal stands there
the change counts as made: files are then written one by one, and the journal goes last. A command that
finds a journal finishes it before it does anything else. A journal that is not whole was never begun.
"""

from __future__ import annotations

import base64
import json
import os
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path

from clean_carry.component.errors import WriteRefused
from clean_carry.project.writing import replace
from clean_carry.source.system import locked

NAME = ".clean-carry-journal"
_VERSION = 1


@contextmanager
def working_on(root: Path) -> Iterator[None]:
    """Hold the project for one command that changes files, and finish what an interrupted one began."""
    with locked(root):
        finish(root)
        yield


def change(root: Path, files: Mapping[Path, bytes | None]) -> None:
    """Write files (None: delete) below `root`, all or none. Call it inside of `working_on`.

    Raises `WriteRefused` where a file cannot be written; nothing is changed then.
    """
    for path in files:
        if root.resolve() not in path.resolve().parents:
            raise WriteRefused("stands outside of the project", file=str(path))
        _writable(path)
    steps = [
        {
            "path": path.resolve().relative_to(root.resolve()).as_posix(),
            "data": None if data is None else base64.b64encode(data).decode(),
        }
        for path, data in files.items()
    ]
    if not steps:
        return
    replace(root / NAME, json.dumps({"version": _VERSION, "steps": steps}).encode())
    finish(root)


def finish(root: Path) -> bool:
    """Finish the change that a journal describes; whether there was one."""
    journal = root / NAME
    try:
        told = json.loads(journal.read_text("utf-8"))
    except FileNotFoundError:
        return False
    except (OSError, ValueError):
        raise WriteRefused(
            "is a journal of an interrupted change, and cannot be read",
            advice="Restore the project from version control, then delete it",
            file=str(journal),
        ) from None
    for step in told["steps"]:
        path = root / step["path"]
        if root.resolve() not in path.resolve().parents:
            raise WriteRefused("names a file outside of the project", file=str(journal))
        if step["data"] is None:
            path.unlink(missing_ok=True)
        else:
            replace(path, base64.b64decode(step["data"]))
    journal.unlink()
    return True


def _writable(path: Path) -> None:
    """Raises `WriteRefused` where a file can be neither written nor taken away."""
    folder = path.parent
    while not folder.exists():
        folder = folder.parent
    if not os.access(folder, os.W_OK) or (path.exists() and not os.access(path, os.W_OK)):
        raise WriteRefused("cannot be written (Permission denied)", file=str(path))
