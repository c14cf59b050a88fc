"""Carry many files at once: in several processes, in order, and none stops the others."""

from __future__ import annotations

import os
import signal
import threading
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from dataclasses import replace
from pathlib import Path

from clean_carry.component.errors import CarryError, Fault
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

Outcome = list[Result] | CarryError
# Fewer files are carried sooner than processes are started.
FEWEST = 16
CHUNK = 4
# The rules by which a file waits for a component that it renders.
WAITS = frozenset({"child-not-carried", "class-stays-declared"})


def carry_all(requests: Sequence[Request], processes: int) -> Iterator[Outcome]:
    """Carry each file; what became of it, in the order given, as soon as it is known.

    A fault of a file is raised as its own error, a fault of the program as `Fault`.
    """
    if processes < 2 or len(requests) < FEWEST:
        yield from map(carried, requests)
        return
    done = 0
    pool = ProcessPoolExecutor(processes, initializer=_helper, initargs=(os.getpid(),))
    try:
        with pool:
            for outcome in pool.map(carried, requests, chunksize=CHUNK):
                done += 1
                yield outcome
    except (KeyboardInterrupt, GeneratorExit):
        # Nobody waits for the rest.
        pool.shutdown(wait=False, cancel_futures=True)
        raise
    except BrokenProcessPool:
        # One of those under way ended its process: each of the rest gets one of its own.
        for request in requests[done:]:
            yield _alone(request)


def carry_together(
    requests: Sequence[Request], processes: int
) -> Iterator[tuple[Request, Outcome]]:
    """Carry files in the order given; some of them may render components of others.

    A file that waits for a component is carried as if all other files were; those that cannot be then
    are taken out, and what waits for them is carried again. Each comes with what it was carried with.
    """
    able: set[Path] = set()
    held: list[tuple[Request, Outcome]] = []
    for request, outcome in zip(requests, carry_all(requests, processes), strict=True):
        waits = _waits(outcome)
        if waits or _is_written(outcome):
            able.add(request.path.resolve())
        if waits or held:
            held.append((request, outcome))
        else:
            yield request, outcome
    waiting = [at for at, (_, outcome) in enumerate(held) if _waits(outcome)]
    while waiting:
        again = [replace(held[at][0], assume_carried=frozenset(able)) for at in waiting]
        for at, request, outcome in zip(
            waiting, again, list(carry_all(again, processes)), strict=True
        ):
            held[at] = (request, outcome)
        failed = {at for at in waiting if not _is_written(held[at][1])}
        gone = {held[at][0].path.resolve() for at in failed} & able
        able -= gone
        waiting = [at for at in waiting if at not in failed] if gone else []
    yield from held


def _waits(outcome: Outcome) -> bool:
    """Whether a file is refused for a component that has not been carried."""
    return isinstance(outcome, list) and any(
        finding.rule in WAITS for result in outcome for finding in result.findings
    )


def _is_written(outcome: Outcome) -> bool:
    return isinstance(outcome, list) and any(result.files for result in outcome)


def carried(request: Request) -> Outcome:
    """Carry one file."""
    try:
        return carry_file(request)
    except CarryError as error:
        return error
    except Exception as error:
        return Fault.of(error, request.shown)


def _alone(request: Request) -> Outcome:
    try:
        with ProcessPoolExecutor(1, initializer=_helper, initargs=(os.getpid(),)) as pool:
            return pool.submit(carried, request).result()
    except BrokenProcessPool as error:
        return Fault.of(error, request.shown)


def _helper(parent: int) -> None:
    """Who stops the command stops it as a whole; a process whose parent is gone ends."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    threading.Thread(target=_follow, args=(parent,), daemon=True).start()


def _follow(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(0.2)
    os._exit(1)
