"""Carry the files of one run, each with its verdict where it is wanted."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Iterator, Mapping
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import contextmanager
from itertools import islice
from pathlib import Path
from typing import TYPE_CHECKING

from clean_carry.cli.bench import bench_for, effort_of, least_of
from clean_carry.cli.progress import Line
from clean_carry.component.errors import CarryError
from clean_carry.crossing.carry import Request
from clean_carry.crossing.many import Outcome, carried, carry_together

if TYPE_CHECKING:
    from clean_carry.verify.verify import Verification
    from clean_carry.verify.worker_pool import Bench

# A file, what it was carried to, the verdict, and how many seconds that took.
Each = tuple[Path, Outcome, "Verification | None", float]


def each_file(
    requests: list[Request], bench: Bench | None, effort: Mapping[str, object], line: Line
) -> Iterator[Each]:
    """Yield the result of each file in order, carried in several processes or verified side by side."""
    workers = int(effort["workers"])  # type: ignore[call-overload]
    if bench is None:
        for request, outcome in carry_together(requests, workers):
            yield request.path, outcome, None, 0.0
        return
    if len(requests) == 1:
        yield _proved(bench, requests[0], (), effort, line)
        return
    # A component that it renders may be written only in this run.
    settled = list(carry_together(requests, workers))
    requests = [request for request, _ in settled]
    written = tuple(text for request, outcome in settled for text in _texts(request.path, outcome))
    with ThreadPoolExecutor(workers) as pool:
        # A few are under way at once, so that who stops it finds the rest untouched.
        ahead: deque[Future[Each]] = deque()
        waiting = iter(requests)
        try:
            while True:
                for request in islice(waiting, workers - len(ahead)):
                    ahead.append(pool.submit(_proved, bench, request, written, effort, line))
                if not ahead:
                    return
                yield ahead.popleft().result()
        except KeyboardInterrupt:
            bench.stopped.set()
            for proof in ahead:
                yield proof.result()


@contextmanager
def bench_if(prove: bool, effort: Mapping[str, object], line: Line) -> Iterator[Bench | None]:
    """The bench to verify on; none where nothing is verified."""
    if not prove:
        yield None
        return
    with bench_for(effort, line) as bench:
        yield bench


def _texts(path: Path, outcome: Outcome) -> Iterator[tuple[Path, str]]:
    """The new files of an outcome, where they would stand."""
    folder = path.resolve().parent
    for result in outcome if isinstance(outcome, list) else ():
        yield from ((folder / Path(file.path).name, file.text) for file in result.files)


def _proved(
    bench: Bench,
    request: Request,
    written: tuple[tuple[Path, str], ...],
    effort: Mapping[str, object],
    line: Line,
) -> Each:
    """Carry a file and verify what it became, before any of it is written. `written` are the new files of
    the run."""
    from clean_carry.verify.pair import (
        sides_of_result,
        trials_for,
        verified,
        verified_each,
        with_drawn,
    )

    started = time.monotonic()
    path, found = request.path, carried(request)
    if isinstance(found, CarryError) or not any(r.files for r in found):
        return path, found, None, time.monotonic() - started
    try:
        made = [r for r in found if r.files]
        old, new, interface = sides_of_result(path, made[0], request.runtime)
        new = with_drawn(new, written)
        trials, much = trials_for(path, None), effort_of(effort)

        def tell(text: str) -> None:
            line.show(f"{path}: {text}")

        if new.application is not None:
            names = [result.component for result in made]
            verdict = verified_each(bench, (old, new), names, trials, much, tell)
        else:
            verdict = verified(bench, (old, new), interface, trials, much, tell)
    except CarryError as error:
        return path, error, None, time.monotonic() - started
    return path, found, verdict.measured(least_of(effort)), time.monotonic() - started
