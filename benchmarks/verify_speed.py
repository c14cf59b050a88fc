"""What verifying costs, as ratios within one run.

    python benchmarks/verify_speed.py [--browser]

- snapshots and comparing against the same steps without them;
- two renderers against one, both warm: a renderer needs some seconds until its code is compiled;
- a second run, answered from the cache, against a first of at least 20 seconds;
- the time for 100 components of the demo's size;
- in the browser (alone with `--browser`): trials a second in one frame and in two, and looking (styles,
  boxes, pictures) and comparing against drawing both without.
"""

from __future__ import annotations

import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY
from clean_carry.verify.browser.browser_run import Gaze, seen
from clean_carry.verify.browser.engine import Browser
from clean_carry.verify.browser.views import View
from clean_carry.verify.judge import Pair
from clean_carry.verify.pair import Trials, sides_of_result, trials_for, verified
from clean_carry.verify.trials import Trial
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench, Side

COMPONENTS = [
    p
    for p in sorted((COMPANY / "components").glob("*.?sx"))
    if p.stem not in ("BerthRow", "HarbourGuard")
]


def pairs() -> list[tuple[Side, Side]]:
    """Old and carried sides of the demo's components."""
    found = []
    for path in COMPONENTS:
        result = carry_file(Request(path, str(path), "jsx-function"))[0]
        old, new, _ = sides_of_result(path, result)
        found.append((old, new))
    return found


def snapshots(bench: Bench) -> float:
    """The cost of looking and comparing, relative to the same steps without it."""
    ratios = []
    for old, new in pairs():
        name = "" if "export default" in old.text else old.place.name.split(".")[0]
        old, new = replace(old, exported=name), replace(new, exported=name)
        found = verified(bench, (old, new), None, Trials(None, name or "default"), Effort(2.0))
        trials = [t for t in found.sources if t.steps]
        bundles = (bench.build(old), bench.build(new))
        pair = Pair.of(bench, old, new, bundles, None)
        with bench.lane() as lane:
            for _ in range(2):
                blind = looking = 0.0
                for trial in trials * 3:
                    request = trial.request()
                    started = time.perf_counter()
                    for bundle in bundles:
                        lane.trial(bundle, name, {**request, "blind": True}, reuse=True)
                    middle = time.perf_counter()
                    answers = [lane.trial(b, name, request, reuse=True) for b in bundles]
                    pair.compare(trial, answers[0], answers[1])
                    looking += time.perf_counter() - middle
                    blind += middle - started
            if trials:
                ratios.append(looking / blind)
    return statistics.median(ratios)


def many(count: int, size: int, budget: float, warm: float = 0.0) -> float:
    """Trials a second over `count` components with `size` renderers.

    `warm`: before it is timed, every component is verified once for so many seconds.
    """
    every = (pairs() * (count // len(COMPONENTS) + 1))[:count]
    with Bench(size=size) as bench, ThreadPoolExecutor(size) as pool:
        for old, new in every[: len(COMPONENTS)]:
            bench.build(old)
            bench.build(new)
        bench.baseline(every[0][0].runtime)

        def one(sides: tuple[Side, Side], seconds: float = budget) -> int:
            return verified(bench, sides, None, Trials(None), Effort(seconds)).tried

        if warm:
            list(pool.map(lambda sides: one(sides, warm), every))
        started = time.perf_counter()
        tried = sum(pool.map(one, every))
        seconds = time.perf_counter() - started
    print(f"  {count} components, {size} renderers: {seconds:.1f} s, {tried} trials")
    return tried / seconds


def cached() -> float:
    """A second run of the program relative to the first."""
    with tempfile.TemporaryDirectory() as name:
        for part in ("NoticePanel.jsx", "NoticePanel.css"):
            shutil.copy(COMPANY / "components" / part, name)
        path = Path(name) / "NoticePanel.jsx"
        program = [sys.executable, "-m", "clean_carry"]
        write = [*program, "carry", str(path), "--to", "jsx-function", "--write"]
        subprocess.run(write, capture_output=True, check=True)
        new = str(path.with_name("NoticePanel.function.jsx"))
        check = [
            *program,
            "verify",
            str(path),
            new,
            "--budget",
            "25",
            "--seed",
            str(time.time_ns() % 10**6),
        ]
        times = []
        for _ in range(2):
            started = time.perf_counter()
            subprocess.run(check, capture_output=True, check=True)
            times.append(time.perf_counter() - started)
    print(f"  first run {times[0]:.1f} s, second {times[1]:.2f} s")
    return times[1] / times[0]


def in_browser() -> None:
    """Trials a second, and the cost of looking and comparing, over the demo's own trials."""
    view = View()
    times: list[tuple[float, float, float]] = []
    with Bench(size=1, gaze=Gaze((view.width,), 0.0)) as bench, bench.browser() as browser:
        for old, new in pairs():
            name = "" if "export default" in old.text else old.place.name.split(".")[0]
            old, new = replace(old, exported=name), replace(new, exported=name)
            pair = Pair.of(bench, old, new, (bench.build(old), bench.build(new)), None)
            for trial in trials_for(old.place, None).trials or ():
                drawn(browser, pair, trial, view, looks=False, slots=("old", "new"))
                one = drawn(browser, pair, trial, view, looks=True, slots=("old",))
                blind = drawn(browser, pair, trial, view, looks=False, slots=("old", "new"))
                started = time.perf_counter()
                found = seen(browser, pair, [trial], Gaze((view.width,), 0.0))
                # It ran in every view that a stylesheet asks for.
                each = (time.perf_counter() - started) / len(found.results)
                times.append((one, each, blind))
    one, two, blind = (sum(column) for column in zip(*times, strict=True))
    print(
        f"in the browser, {len(times)} trials: {len(times) / one:.2f} a second in one frame, "
        f"{len(times) / two:.2f} in two; looking and comparing: {two / blind:.2f} × drawing both "
        "without (bound 2.5)"
    )


def drawn(
    browser: Browser, pair: Pair, trial: Trial, view: View, *, looks: bool, slots: tuple[str, ...]
) -> float:
    """Seconds for running a trial in some frames, with or without looking at every settled point."""
    started = time.perf_counter()
    for slot in slots:
        side = pair.new if slot == "new" else pair.old
        browser.trial(
            pair.bundles[slot == "new"], side.exported, trial.request(), slot=slot, view=view,
            looks=looks, pictures=looks,
        )  # fmt: skip
    return time.perf_counter() - started


def main() -> None:
    """Print all of them."""
    if "--browser" in sys.argv:
        in_browser()
        return
    with Bench(size=1) as bench:
        print(f"looking and comparing: {snapshots(bench):.2f} × the steps without (bound 2.0)")
    # In turns, because the machine is not equally fast all the time.
    ratios = [1 / many(16, 1, 2.0, 1.0) * many(16, 2, 2.0, 1.0) for _ in range(3)]
    print(
        f"two renderers: {statistics.median(ratios):.2f} × the trials a second of one (bound 1.5; "
        f"runs: {', '.join(f'{ratio:.2f}' for ratio in ratios)})"
    )
    print(f"from the cache: {100 * cached():.1f} % of the first run (bound 5)")
    started = time.perf_counter()
    many(100, 2, 3.0)
    print(f"100 components, 3 seconds each at most: {time.perf_counter() - started:.0f} s")
    in_browser()


if __name__ == "__main__":
    main()
