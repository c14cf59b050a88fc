"""Watch files: report which one was saved, until the user stops."""

from __future__ import annotations

import time
from collections.abc import Iterable, Iterator
from pathlib import Path

# Seconds between two looks, and for how long files must stay as they are to count as saved.
_LOOK, _QUIET = 0.2, 0.1
# File systems tell times by a clock that ticks so slowly (nanoseconds).
_TICK = 20_000_000


def saved(files: set[Path], since: int) -> set[Path]:
    """Wait until some of the files change, and have stopped changing; those that did.

    `since` is a time of the system's clock in nanoseconds: what was saved after it counts as well.
    """
    before = dict(_states(files))
    late = {path for path, state in before.items() if state and state[0] > since - _TICK}
    while True:
        now = dict(_states(files))
        changed = late | {path for path in files if now[path] != before[path]}
        if changed and now == _after_a_while(files):
            return changed
        if not changed:
            time.sleep(_LOOK)


def _after_a_while(files: set[Path]) -> dict[Path, tuple[int, int, int] | None]:
    time.sleep(_QUIET)
    return dict(_states(files))


def _states(files: Iterable[Path]) -> Iterator[tuple[Path, tuple[int, int, int] | None]]:
    for path in files:
        try:
            known = path.stat()
        except OSError:
            yield path, None
        else:
            yield path, (known.st_mtime_ns, known.st_size, known.st_ino)
