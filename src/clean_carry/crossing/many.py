"""Carry many files at once: in several processes, in order, and none stops the others."""

from __future__ import annotations

import os
import signal
import threading
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool

from clean_carry.component.errors import CarryError, Fault
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

Outcome = list[Result] | CarryError
# Fewer files are carried sooner than processes are started.
FEWEST = 16
CHUNK = 4


def carry_all(requests: Sequence[Request], processes: int) -> Iterator[Outcome]:
    """Carry each file; what became of it, in the order given, as soon as it is known.

    What is wrong with a file comes as the error it is, a fault of ours as `Fault`.
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
