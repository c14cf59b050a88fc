"""Run trials on both versions in the browser, in every view, and compare what is seen."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

from clean_carry.verify.browser.engine import Browser
from clean_carry.verify.browser.look import look_differences, looks_of, matched, plain
from clean_carry.verify.browser.pixels import Region, differing, regions
from clean_carry.verify.browser.views import View, views_of
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.compare import Difference
from clean_carry.verify.judge import MARKS, Pair, TrialResult, restless
from clean_carry.verify.trials import Trial

# Differing trials after which no further ones are run: a report needs examples, not all of them.
ENOUGH = 3
# Pictures kept for showing, beside those that differ.
MOST_SHOTS = 24


@dataclass(frozen=True)
class Shot:
    """Both sides at one point: PNG pictures, and the places that differ."""

    trial: str
    step: int
    step_name: str
    view: str
    old: bytes
    new: bytes
    regions: tuple[Region, ...] = ()
    boxes: tuple[tuple[float, float, float, float], ...] = ()


@dataclass(frozen=True)
class Seen:
    """The result in the browser: a result for each trial and view, and pictures.

    `unlooked` counts elements beyond those that are looked at, `uncompiled` are (file, package) of
    styles that were left out because the project lacks their compiler.
    """

    results: tuple[TrialResult, ...]
    views: tuple[str, ...]
    points: int
    shots: tuple[Shot, ...] = ()
    stopped: str = ""
    unlooked: int = 0
    uncompiled: tuple[tuple[str, str], ...] = ()

    @property
    def verdict(self) -> str:
        """`same` only where a trial ran in the browser and none differed."""
        verdicts = {result.verdict for result in self.results}
        if "differs" in verdicts:
            return "differs"
        return "same" if "same" in verdicts else "not run"

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `verify --json`: no pictures."""
        return {
            "verdict": self.verdict,
            "views": list(self.views),
            "points": self.points,
            "stopped": self.stopped,
            "unlooked": self.unlooked,
            "uncompiled": [{"file": file, "needs": package} for file, package in self.uncompiled],
            "trials": [result.as_json() for result in self.results],
            "shots": len(self.shots),
        }


@dataclass(frozen=True)
class Gaze:
    """The options of a browser run: window widths (none: the usual ones), and seconds."""

    widths: tuple[int, ...] = ()
    budget: float = 10.0
    pictures: bool = True


def seen(
    browser: Browser,
    pair: Pair,
    trials: Sequence[Trial],
    gaze: Gaze,
    progress: Callable[[str], None] = lambda text: None,
    *,
    whole: bool = False,
) -> Seen:
    """Run trials in the browser: the first in every view, the others in the first, then the rest.

    It ends when all have run, `gaze.budget` seconds are over (the first trial runs in every view all
    the same, and with `whole` every trial in the first view), or enough differ. A trial that differs
    runs once more on the old side, which must be like itself.
    """
    sheets = [text for bundle in pair.bundles for text in (bundle.css, bundle.code)]
    views = views_of(sheets, gaze.widths)
    started = time.monotonic()
    results: list[TrialResult] = []
    shots: list[Shot] = []
    points = unlooked = 0
    stopped = "all trials ran in all views"
    failing: set[str] = set()
    least = len(views) + (len(trials) - 1 if whole else 0)
    for number, (trial, view) in enumerate(_turns(trials, views)):
        if number >= least and time.monotonic() - started > gaze.budget:
            stopped = "the budget was used up"
            break
        if len(failing) >= ENOUGH:
            stopped = f"{ENOUGH} trials differ"
            break
        progress(f"{trial.name}, {view.name}, in the browser")
        one = _Once(browser, pair, trial, view, gaze.pictures).run()
        results.append(one.result)
        points += len(one.result.steps)
        unlooked = max(unlooked, one.unlooked)
        if one.result.verdict == "differs":
            failing.add(trial.name)
            shots.extend(one.shots)
        elif len(shots) < MOST_SHOTS:
            shots.extend(one.shots[: MOST_SHOTS - len(shots)])
    names = tuple(view.name for view in views)
    uncompiled = dict(found for bundle in pair.bundles for found in bundle.uncompiled)
    return Seen(
        tuple(results), names, points, tuple(shots), stopped, unlooked, tuple(uncompiled.items())
    )


def _turns(trials: Sequence[Trial], views: Sequence[View]) -> Iterator[tuple[Trial, View]]:
    for view in views:
        yield from ((trial, view) for trial in trials[:1])
    yield from ((trial, views[0]) for trial in trials[1:])
    yield from ((trial, view) for trial in trials[1:] for view in views[1:])


class _Once:
    """One trial in one view."""

    def __init__(
        self, browser: Browser, pair: Pair, trial: Trial, view: View, pictures: bool
    ) -> None:
        self.browser, self.pair, self.trial, self.view = browser, pair, trial, view
        self.pictures = pictures
        self.shots: list[Shot] = []
        self.unlooked = 0
        self.result = TrialResult(self.name, "not run")

    @property
    def name(self) -> str:
        """The trial with the view it ran in."""
        return f"{self.trial.name} ({self.view.name})"

    def _side(self, slot: str) -> dict[str, Any]:
        pair, new = self.pair, slot == "new"
        side = pair.new if new else pair.old
        marks = (*MARKS.get(side.runtime.framework, ()), *side.marks)
        return self.browser.trial(
            pair.bundles_for(self.trial)[new],
            side.exported,
            self.trial.request(pair.interface if new else None),
            slot=slot,
            view=self.view,
            marks=marks,
            pictures=self.pictures,
        )

    def run(self) -> _Once:
        """Old, then new; old once more where they differ."""
        try:
            old = self._side("old")
        except WorkerFailed as error:
            self.result = replace(self.result, reason=f"the old side failed: {error.reason}")
            return self
        steps = tuple(point["name"] for point in old["points"])
        if restless(old):
            self.result = replace(self.result, reason="the old side never comes to rest")
            return self
        try:
            new = self._side("new")
        except WorkerFailed as error:
            gap = Difference(self.name, 0, "shown", "end", "", "came to rest", error.reason)
            self.result = TrialResult(self.name, "differs", steps, (gap,))
            return self
        found = self._compared(old, new)
        unsteady = self._unsteady(old) if found else ""
        if unsteady == "picture":
            # A picture taken while painting may be another one; a real difference shows again.
            again = self._again()
            found, unsteady = again or [], "" if again is not None else unsteady
        if unsteady:
            reason = f"the old side differs from itself ({unsteady})"
            self.result = TrialResult(self.name, "void", steps, reason=reason)
            return self
        verdict = "differs" if found else "same"
        trees = self.pair.trees(plain(old), plain(new), {one.step for one in found})
        self.result = TrialResult(self.name, verdict, steps, tuple(found), trees=trees)
        return self

    def _unsteady(self, old: dict[str, Any]) -> str:
        """In what the old side differs from its first run; nothing where it is steady."""
        try:
            again = self._side("old")
        except WorkerFailed:
            return "it does not always come to its end"
        return ", ".join(sorted({one.what for one in self._compared(old, again, itself=True)}))

    def _again(self) -> list[Difference] | None:
        """The differences of a second run of both sides, None where one of them fails in it."""
        self.shots.clear()
        try:
            return self._compared(self._side("old"), self._side("new"))
        except WorkerFailed:
            return None

    def _compared(
        self, old: dict[str, Any], new: dict[str, Any], *, itself: bool = False
    ) -> list[Difference]:
        """Return the differences at each point; with `itself`, `new` is the old side's second run."""
        pair = self.pair
        if itself:
            if not pair.steady(self.trial, plain(old), plain(new)):
                return [Difference(self.name, 0, "", "steadiness", "", "", "")]
            found = []
        else:
            found = [
                replace(one, trial=self.name)
                for one in pair.compare(self.trial, plain(old), plain(new))
            ]
        sides = pair.normalisers(new, itself=itself)
        looks = looks_of(old), looks_of(new)
        points = zip(old["points"], new["points"], *looks, strict=False)
        # A difference is reported where it shows first.
        known: list[tuple[Any, ...]] = []
        for step, (a, b, look_a, look_b) in enumerate(points):
            self.unlooked = max(self.unlooked, look_a.get("unlooked", 0))
            told = look_differences(look_a, look_b, (a["tree"], b["tree"]), sides)
            here = []
            for one in told:
                if one[:4] not in known:
                    known.append(one[:4])
                    here.append(Difference(self.name, step, a["name"], *one))
            fresh = "picture" in (a.get("look") or {}) or "picture" in (b.get("look") or {})
            drawn = look_a.get("picture"), look_b.get("picture")
            if fresh and drawn[0] and drawn[1]:
                pictures = (_bytes(drawn[0]), _bytes(drawn[1]))
                places = regions(differing(*pictures))
                if places:
                    here.append(self._picture(step, a, b, look_a, places, sides))
                if not itself:
                    boxes = _boxes_of(look_a, here, (a["tree"], b["tree"]), sides)
                    self.shots.append(
                        Shot(self.trial.name, step, a["name"], self.view.name, *pictures,
                             tuple(places), boxes)
                    )  # fmt: skip
            found.extend(pair.unaccepted(here))
        return found

    def _picture(
        self, step: int, a: dict[str, Any], b: dict[str, Any], look: dict[str, Any],
        places: list[Region], sides: tuple[Any, Any],
    ) -> Difference:  # fmt: skip
        """Pixels that differ, with the innermost element they lie in."""
        first = places[0]
        x, y = first.left + first.width / 2, first.top + first.height / 2
        inside = ""
        for i, _, place, _ in matched(sides[0].tree(a["tree"]), sides[1].tree(b["tree"])):
            if i < len(look["elements"]):
                left, top, width, height = look["elements"][i]["box"]
                if left <= x <= left + width and top <= y <= top + height:
                    inside = place
        pixels = sum(region.pixels for region in places)
        regions = f"{len(places)} region{'' if len(places) == 1 else 's'}"
        text = f"{pixels} pixels differ, in {regions}, the largest {_shown(first)}"
        return Difference(self.name, step, a["name"], "picture", inside, "the reference", text)


def _boxes_of(
    look: dict[str, Any], found: list[Difference], trees: tuple[Any, Any], sides: tuple[Any, Any]
) -> tuple[tuple[float, float, float, float], ...]:
    """Return the boxes of the elements that differ."""
    named = {one.place.partition(" ")[0].partition(":")[0] for one in found}
    result = []
    for i, _, place, _ in matched(sides[0].tree(trees[0]), sides[1].tree(trees[1])):
        if place in named and i < len(look["elements"]):
            left, top, width, height = look["elements"][i]["box"]
            result.append((left, top, width, height))
    return tuple(result[:8])


def _bytes(text: str) -> bytes:
    import base64

    return base64.b64decode(text)


def _shown(region: Region) -> str:
    return f"{region.width} × {region.height} at {region.left}, {region.top}"
