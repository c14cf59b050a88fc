"""The search: walks through the component, guided by what reaches something new.

A walk starts from a situation, takes steps the page offers and is run on both versions. A few walks
are under way at once: each is planned from what all but those few have found, and they are merged in
their order, so that the same seed gives the same trials however many renderers there are.
"""

from __future__ import annotations

import json
import math
import re
import time
from collections import deque
from collections.abc import Callable, Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, field, replace
from random import Random
from typing import Any

from clean_carry.syntaxes.member_types import REPLY
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.compare import Difference, draws_or_calls
from clean_carry.verify.judge import (
    Judged,
    Pair,
    TrialResult,
    errors_of,
    judge,
    restless,
)
from clean_carry.verify.reach import reach_of
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.values.row_keys import keys_of
from clean_carry.verify.search.walks.aims import Aims
from clean_carry.verify.search.walks.groundwork import lay
from clean_carry.verify.search.walks.novelty import Looks, asked, drawn, elements, outline
from clean_carry.verify.search.walks.shrink import shrunk
from clean_carry.verify.search.walks.situations import Situation, Situations
from clean_carry.verify.search.walks.steps import Step, count
from clean_carry.verify.search.walks.walks import Chooser, Plan, Walk
from clean_carry.verify.strict import EVERY
from clean_carry.verify.told import fits, shaped, told_of
from clean_carry.verify.trials import THROWN, Trial
from clean_carry.verify.worker_pool import Bench, Crew, Lane

# So many walks are planned ahead of what has been found.
AHEAD = 4
FAILS = {"throws": THROWN}
LATER: tuple[dict[str, Any], ...] = (
    {"resolves": {"ok": True}, "after": 200},
    {"rejects": "the promise failed", "after": 200},
    FAILS,
    {"returns": False},
)
# The search is saturated when so many walks in a row found nothing new: no branch or function, no element,
# class or attribute, no call, no kind of request. While some of the old side's own code was never reached,
# or not every input had each of its values, twice as many are made. Walks are
# counted and not seconds: a seed finds the same wherever it runs.
PATIENCE = 40
PATIENCE_FOR_MORE = 80
FEWEST = 60
# After so many walks every third one aims at a branch.
FIRST = 8
MOST_HANGS = 3
# A page of more elements is a big one.
BIG = 150
# So many walks turn a flag just before a function is called.
MOST_TURNS = 24
# So many methods are called by a reference that was kept.
MOST_KEPT = 8


@dataclass(frozen=True)
class Effort:
    """How hard to look: seconds for one pair, the seed of every choice, whether a trial that differs
    is made smaller, and the most trials to run (0: as many as there is time for)."""

    budget: float = 10.0
    seed: int = 1
    shrink: bool = True
    most: int = 0


@dataclass
class Found:
    """The result of the search.

    `kept` are the trials that reached something new, `tried` how many were run, `points` at how many
    points both versions were compared; `stopped` says why it ended, `clean` how often the
    old version was mounted without an error, `looks` which trials render what others do not.
    """

    kept: list[Judged] = field(default_factory=list)
    failing: Judged | None = None
    tried: int = 0
    points: int = 0
    void: int = 0
    stopped: str = ""
    reach: tuple[set[str], set[str]] = field(default_factory=lambda: (set(), set()))
    clean: int = 0
    interrupted: bool = False
    looks: Looks = field(default_factory=Looks)


def _situations(pair: Pair, inputs: Inputs) -> Situations:
    """The situations of a pair, as its runtimes allow them."""
    typed = pair.old.runtime.typed or pair.new.runtime.typed
    told = json.loads(told_of(pair.old.place, pair.old.text)) if typed else {}
    if told:
        # The server has types: those of the values that its writer was given.
        shapes = {n: shaped(told.get(n), shape) for n, shape in inputs.shapes.items()}
        inputs = replace(inputs, shapes=shapes)
    # A runtime's treatment of a value of another type than the declared one is its own.
    across = not pair.one_runtime
    keys = keys_of(pair.old.text) | keys_of(pair.new.text) if across else frozenset()
    situations = Situations(inputs, typed=across, keys=keys)
    if across and pair.interface is not None:
        situations.heard = {old for old, _ in pair.interface.events}
        # A call that asks by itself whether there is a function: `onPick?.(berth)`.
        asked = set(re.findall(r"([\w$]+)\?\.\(", pair.old.text))
        situations.always -= asked
    # Runtimes differ in whether a field is read during a composition or after it.
    situations.composes = not across or "composition" in pair.old.text
    if across and not pair.old.runtime.hands_listeners_on:
        situations.passed_functions.clear()
    if across and pair.new.runtime.closed:
        situations.passed.clear()
    situations.parsed = pair.old.runtime.sends_pages or pair.new.runtime.sends_pages
    if across and typed:
        situations.passed_functions.clear()
        situations.told = told
        situations.keep(lambda name, value: fits(told.get(name), value))
        situations.replies = [
            plan
            for plan in situations.replies
            if all(fits(told.get(REPLY), one["json"]) for one in plan if "json" in one)
        ] or situations.replies[2:4]
    if across and pair.old.application is not None:
        # Whatever an element is given besides its bindings stays on it.
        situations.passed.clear()
        situations.passed_functions.clear()
        situations.one_by_one_only = True
        situations.forgiven()
    if across:
        keeps = pair.old.runtime.keeps_content or pair.new.runtime.keeps_content
        situations.content_stays = keeps
        if pair.old.runtime.needs_required or pair.new.runtime.needs_required:
            situations.complete()
    return situations


class Search:
    """A search over one pair of versions."""

    def __init__(
        self,
        bench: Bench,
        pair: Pair,
        inputs: Inputs,
        effort: Effort,
        progress: Callable[[str], None],
    ) -> None:
        self.bench, self.pair = bench, pair
        self.situations = _situations(pair, inputs)
        self.effort, self.progress = effort, progress
        self.found = Found()
        self._crew: Crew
        self.aims = Aims.of(pair.old, pair.bundles[0], self.situations.named)
        self._own = {row[0] for row in reach_of(pair.bundles[0], (), pair.old.lines).rows}
        # Whether every fixed walk was planned.
        self._planned = False
        self._tried: dict[str, int] = {}
        self._seen: set[str] = set()
        # Elements, calls and requests that walks have had.
        self._known: set[str] = set()
        self._corpus: list[Trial] = []
        # Runs of the old side in the walks that are kept, by their names.
        self._answers: dict[str, dict[str, Any]] = {}
        self._callers: list[tuple[Trial, int, str]] = []
        # Walks to where a function is called, which is not there this time, or does something else.
        self._otherwise: deque[tuple[Situation, tuple[Step, ...]]] = deque()
        self._called: set[tuple[str, str]] = set()
        self._turns: set[tuple[str, str]] = set()
        self._number = 0
        self._idle = 0
        self._hangs = 0
        # How many elements the biggest page had.
        self._size = 0
        self._asks = False

    def run(self) -> Found:
        """Search until the budget is used up, nothing new is found, or a trial differs."""
        found = self.found
        with self.bench.crew() as self._crew, ThreadPoolExecutor(self.bench.size) as pool:
            try:
                # The budget is spent on trials alone.
                self._crew.warm(self.pair.bundles)
                with self._crew.lane() as lane:
                    lay(lane, self.pair, self.situations, self.effort.budget)
                self._look(pool)
                self._confirm(pool)
            except KeyboardInterrupt:
                found.stopped, found.interrupted = "it was interrupted", True
        return found

    def _look(self, pool: ThreadPoolExecutor) -> None:
        plans = self._plans()
        found = self.found
        started = time.monotonic()
        ahead: deque[Future[Walk]] = deque()
        try:
            while not self._ended(time.monotonic() - started):
                while len(ahead) < AHEAD:
                    ahead.append(pool.submit(self._walk, next(plans), dict(self._tried)))
                self._merge(ahead.popleft().result())
                self.progress(
                    f"{found.tried} trials, {len(found.reach[0])} branches and functions reached"
                )
        finally:
            for walk in ahead:
                walk.cancel()

    def _confirm(self, pool: ThreadPoolExecutor) -> None:
        """The trials that count are run once more in fresh pages: OLD, which must do what it did in its
        walk, or else twice the same, then NEW."""
        found = self.found
        if found.failing is not None:
            return

        def once_more(kept: Judged) -> Judged:
            with self._crew.lane() as lane:
                judged = judge(lane, self.pair, kept.trial, self._answers.get(kept.trial.name))
                again = judged.result.verdict == "void"
                return judge(lane, self.pair, kept.trial) if again else judged

        judged = list(pool.map(once_more, found.kept))
        found.kept = [j for j in judged if j.result.verdict == "same"]
        found.looks.forget({j.trial.name for j in judged if j.result.verdict != "same"})
        found.void += sum(j.result.verdict == "void" for j in judged)
        failing = next((j for j in judged if j.result.verdict == "differs"), None)
        if failing is not None:
            with self._crew.lane() as lane:
                found.failing = shrunk(lane, self.pair, failing) if self.effort.shrink else failing

    def _ended(self, spent: float) -> bool:
        """Whether the search is over, and why."""
        found = self.found
        if found.failing is not None:
            return True
        if self.bench.stopped.is_set():
            raise KeyboardInterrupt
        if self.effort.most and found.tried >= self.effort.most:
            found.stopped = f"{found.tried} trials were run, as many as asked for"
        elif spent > self.effort.budget:
            found.stopped = f"the time was up ({self.effort.budget:g} s)"
        elif self._idle >= self._patience and found.tried >= FEWEST:
            found.stopped = f"{self._idle} trials in a row brought nothing new"
        elif self._hangs > MOST_HANGS and found.tried < self._hangs:
            found.stopped = "the old side never comes to rest"
        return bool(found.stopped)

    @property
    def _patience(self) -> int:
        """How many walks in a row may bring nothing new."""
        known = self._planned and self._own <= self.found.reach[0]
        return PATIENCE if known else PATIENCE_FOR_MORE

    # -- planning -----------------------------------------------------------------------------

    def _plans(self) -> Iterator[Plan]:
        """First what is fixed, then what is random; both for ever new."""
        fixed = self._fixed()
        rng = Random(self.effort.seed)
        turn = 0
        while True:
            turn += 1
            if turn % 2 and self._otherwise:
                situation, script = self._otherwise.popleft()
                yield self._plan(situation, script=script, length=2, extras=0.2)
                continue
            if turn > FIRST and turn % 3 == 0:
                names = self.aims.next(self.found.reach[0], rng)
                if names:
                    yield self._aimed(names, rng)
                    continue
            planned = turn % 4 or turn < 24
            plan = next(fixed, None) if planned else None
            self._planned = self._planned or (bool(planned) and plan is None)
            yield plan if plan is not None else self._random(rng)

    def _plan(self, situation: Situation, length: int = 4, **more: Any) -> Plan:
        """A walk; through a big page it takes fewer steps, so that there is time for others."""
        self._number += 1
        situation = self.situations.with_all(situation, self.pair.needed)
        share = min(1.0, BIG / max(1, self._size))
        return Plan(self._number, situation, length=math.ceil(length * share), **more)

    def _fixed(self) -> Iterator[Plan]:
        situations = self.situations
        openings = situations.openings()
        for situation in openings:
            yield self._plan(situation, length=14)
        yield self._plan(openings[0], script=({"twice": True},), length=9, twin=True)
        yield self._plan(openings[2], script=({"twice": True},), length=12, twin=True)
        yield from self._kept(openings[0])
        yield self._plan(openings[0], script=({"pass": 60_000}, {"return": True}), length=6)
        yield self._plan(openings[1], length=14)
        for situation in situations.modes():
            yield self._plan(situation, length=8)
        for name, plans in situations.functions.items():
            failing = replace(openings[0], functions={**openings[0].functions, name: FAILS})
            if {} in plans or len(plans) > 1:
                yield self._plan(failing, length=10)
        for name, plans in situations.functions.items():
            if name in situations.heard:
                continue
            renewed: Step = {"change": {"functions": {name: plans[0]}}}
            yield self._plan(openings[0], script=({"pass": 1}, renewed), length=10, extras=0.15)
            if name in situations.always:
                continue
            taken: Step = {"change": {"without": [name]}}
            yield self._plan(openings[0], script=({"pass": 1}, taken), length=8, extras=0.1)
        if self._asks:
            yield from self._replies(openings[0])
        changes = situations.changes()
        singles = situations.one_by_one()
        while True:
            before = self._number
            yield from self._some(singles, changes, openings[0])
            if self._number == before:
                return

    def _kept(self, full: Situation) -> Iterator[Plan]:
        """Each method called as a parent may, and again by the reference it was given first."""
        for name, given in list(self.situations.inputs.methods.items())[:MOST_KEPT]:
            call = {"method": name, **({"given": given} if given else {})}
            again: Step = {"call": {**call, "kept": True}}
            yield self._plan(full, script=({"call": call}, again, again), length=2)

    def _replies(self, full: Situation) -> Iterator[Plan]:
        """Every reply there may be; and for each input, a change while a reply is under way."""
        sparse = self.situations.sparse()
        for replies in self.situations.replies:
            yield self._plan(replace(full, replies=replies), length=5, extras=0.3)
            yield self._plan(replace(sparse, replies=replies), length=3, extras=0.3)
        race = replace(full, replies=self.situations.replies[-1])
        for name, values in list(self.situations.values.items())[:8]:
            other = next((v for v in values if v not in (None, full.inputs.get(name))), None)
            change = {"change": {"inputs": {name: other}}}
            script = ({"pass": 10}, change, {"pass": 60}, {"pass": 600})
            yield self._plan(race, script=script, length=2)
            yield self._plan(race, script=({"pass": 10}, {"remove": True}, {"pass": 600}), length=0)

    def _some(
        self, singles: Iterator[Situation], changes: Iterator[list[Step]], full: Situation
    ) -> Iterator[Plan]:
        for _ in range(3):
            situation = next(singles, None)
            if situation is not None:
                yield self._plan(situation, length=4)
        steps = next(changes, None)
        if steps is not None:
            yield self._plan(full, script=tuple(steps), length=1)

    def _random(self, rng: Random) -> Plan:
        if self._callers and rng.random() < 0.25:
            return self._overtaken(rng)
        if self._corpus and rng.random() < 0.5:
            known = rng.choice(self._corpus[-24:])
            steps = tuple(known.steps[: rng.randrange(len(known.steps) + 1)])
            situation = Situation(known.inputs, known.functions, known.slots, known.replies)
            if rng.random() < 0.4 and self.situations.values:
                name = rng.choice(sorted(self.situations.values))
                values = self.situations.values[name] or [None]
                situation = situation.with_input(name, rng.choice(values))
            return self._plan(situation, script=steps, length=rng.randrange(2, 8), extras=0.35)
        situation = self.situations.anything(rng)
        return self._plan(situation, length=rng.randrange(3, 12), extras=0.35)

    def _aimed(self, names: tuple[str, ...], rng: Random) -> Plan:
        """A walk from where one was before, with the inputs that a branch hangs on at other values."""
        if self._corpus and rng.random() < 0.5:
            known = rng.choice(self._corpus[-24:])
            base = Situation(known.inputs, known.functions, known.slots, known.replies)
            script = tuple(known.steps[: rng.randrange(len(known.steps) + 1)])
        else:
            base = rng.choice(self.situations.openings())
            script = ()
        situation = self.situations.together(base, names, rng)
        return self._plan(situation, script=script, length=rng.randrange(2, 6), extras=0.2)

    def _overtaken(self, rng: Random) -> Plan:
        """Return a walk up to a call or a request, which then fails or takes long.

        Meanwhile an input changes, something is done on the page, or the component is removed.
        """
        known, at, name = rng.choice(self._callers[-40:])
        situation = Situation(known.inputs, known.functions, known.slots, known.replies)
        if name in situation.functions:
            plan = rng.choice(LATER)
            situation = replace(situation, functions={**situation.functions, name: plan})
        else:
            slow = {"url": "*", "after": 200}
            replies = rng.choice(self.situations.replies)
            situation = replace(situation, replies=[{**replies[0], **slow}, *replies[1:]])
        script: list[Step] = list(known.steps[:at])
        change = self.situations.any_change(rng)
        chance = rng.random()
        if change is not None and chance < 0.6:
            script.append(change)
        elif chance < 0.75:
            script.append({"remove": True})
        length = 0 if chance < 0.5 else rng.randrange(1, 4)
        if length == 0:
            script.append({"pass": 250})
        return self._plan(situation, script=tuple(script), length=length, extras=0.5)

    # -- walking ------------------------------------------------------------------------------

    def _walk(self, plan: Plan, tried: dict[str, int]) -> Walk:
        with self._crew.lane() as lane:
            return self._walk_on(lane, plan, tried)

    def _walk_on(self, lane: Lane, plan: Plan, tried: dict[str, int]) -> Walk:
        rng = Random(self.effort.seed * 1_000_003 + plan.number)
        situation = plan.situation
        strict = self.pair.strict is not None and plan.number % EVERY == 0
        base = situation.trial(f"found {plan.number}", strict=strict)
        bundles = self.pair.bundles_for(base)
        steps: list[Step] = []
        try:
            inputs = self.situations.inputs
            opened = base.request(held=bool(inputs.methods)) | {"handed": bool(inputs.handed)}
            run, answer = lane.open(bundles[0], self.pair.old.exported, opened)
            points = [answer["point"]]
            offered = self._offered(answer)
            chooser = Chooser(self.situations, plan, rng, tried)
            while (step := chooser.next(offered)) is not None:
                answer = lane.step(run, step)
                points.append(answer["point"])
                offered = self._offered(answer)
                steps.append(step)
            last = lane.end(run)
        except WorkerFailed as error:
            trial = replace(base, steps=steps)
            return Walk(plan, trial, failed=error.reason, hung=error.ended)
        trial = replace(base, steps=steps)
        first = {"points": points, **last}
        walk = Walk(plan, trial, first)
        if restless(first):
            return walk
        request = trial.request(self.pair.interface, held=opened["held"])
        try:
            walk.second = lane.trial(bundles[1], self.pair.new.exported, request, reuse=True)
        except WorkerFailed as error:
            walk.failed = error.reason
        return walk

    # -- merging ------------------------------------------------------------------------------

    def _offered(self, answer: dict[str, Any]) -> dict[str, Any]:
        """The steps that could be done now; none with elements of a page that was sent."""
        found: dict[str, Any] = answer["actions"]
        if self.pair.new.runtime.sends_pages or self.pair.old.runtime.sends_pages:
            return {**found, "elements": [], "outside": {}}
        return found

    def _merge(self, walk: Walk) -> None:
        found = self.found
        for step in walk.trial.steps:
            count(step, self._tried)
        if walk.first is None:
            self._hangs += walk.hung
            return
        self._asks = self._asks or any(p["requests"] for p in walk.first["points"])
        if walk.second is None and not walk.failed:
            self._idle += 1
            return
        found.clean += not walk.first["points"][0]["errors"]
        found.tried += 1
        self._size = max(self._size, *(elements(p["tree"]) for p in walk.first["points"]))
        found.points += len(walk.first["points"])
        differences = self._differences(walk)
        if not draws_or_calls(walk.first) and not differences:
            # A walk that renders nothing on both sides reaches code, but proves nothing.
            self._idle += 1
            for known, reached in zip(found.reach, _reached(walk), strict=True):
                known.update(reached)
            return
        if differences:
            self._control(walk)
            if found.failing is not None:
                for known, reached in zip(found.reach, _reached(walk), strict=True):
                    known.update(reached)
                return
        self._keep_new(walk)

    def _differences(self, walk: Walk) -> list[Difference]:
        assert walk.first is not None
        if walk.second is None:
            name = walk.trial.name
            return [Difference(name, 0, "shown", "end", "", "came to rest", walk.failed)]
        return self.pair.compare(walk.trial, walk.first, walk.second)

    def _control(self, walk: Walk) -> None:
        """Is it the new version, or does the old one differ from itself?"""
        with self._crew.lane() as lane:
            judged = judge(lane, self.pair, walk.trial)
            if judged.result.verdict == "void":
                self.found.void += 1
            elif judged.result.verdict == "differs":
                self.found.failing = (
                    shrunk(lane, self.pair, judged) if self.effort.shrink else judged
                )

    def _keep_new(self, walk: Walk) -> None:
        """Keep a trial that reached a new branch, or a page that was not seen before."""
        assert walk.first is not None
        reached = _reached(walk)
        known = self.found.reach
        new_code = not reached[0] <= known[0] or not reached[1] <= known[1]
        pages = {outline(point["tree"]) for point in walk.first["points"]}
        new_page = not pages <= self._seen
        self._seen |= pages
        known[0].update(reached[0])
        known[1].update(reached[1])
        brought = drawn(walk.first["points"]) | asked(walk.first["points"])
        self._idle = self._idle + 1 if not new_code and brought <= self._known else 0
        self._known |= brought
        if new_code or (new_page and len(self._corpus) < 40):
            self._corpus.append(walk.trial)
            self._note_callers(walk.trial, walk.first["points"])
        self._note_called(walk.trial, walk.first["points"])
        self.found.looks.note(walk.trial, walk.first["points"])
        # Where nothing is counted in the file, the first trial stands for those that ran.
        if new_code or not self.found.kept:
            steps = tuple(point["name"] for point in walk.first["points"])
            errors = errors_of(walk.first)
            note = f"both threw {errors[0]}" if errors else ""
            trees = [p["tree"] for p in walk.first["points"] if p["name"] != "remove"]
            moved = any(tree != trees[0] for tree in trees)
            result = TrialResult(walk.trial.name, "same", steps, note=note, moved=moved)
            self.found.kept.append(Judged(walk.trial, result, reached))
            self._answers[walk.trial.name] = walk.first

    def _note_callers(self, trial: Trial, points: list[dict[str, Any]]) -> None:
        """Remember the step of a trial after which a function is called, or a request is sent."""
        for at, point in enumerate(points):
            names = {str(call[0]) for call in point["calls"]} & set(trial.functions)
            for name in sorted(names) + ["a request"] * bool(point["requests"]):
                self._callers.append((trial, at, name))

    def _turned(self, called: str, base: Situation) -> Iterator[Step]:
        """Each flag turned, once for each function called: it may still know the old value there."""
        for name in self.situations.flags:
            if (
                (called, name) not in self._turns
                and name in base.inputs
                and len(self._turns) < MOST_TURNS
            ):
                self._turns.add((called, name))
                yield {"change": {"inputs": {name: not base.inputs[name]}}}

    def _note_called(self, trial: Trial, points: list[dict[str, Any]]) -> None:
        """Plan to go again to where a function is called first, by each kind of step: without it, with
        another one in its place or a flag turned just before, and with all else it may do."""
        for at, point in enumerate(points):
            names = dict.fromkeys(str(call[0]) for call in point["calls"])
            for name in (n for n in names if n in trial.functions):
                if (name, point["name"]) in self._called:
                    continue
                base = Situation(trial.inputs, trial.functions, trial.slots, trial.replies)
                plans = self.situations.functions.get(name, [])
                if any(name == known for known, _ in self._called):
                    plans = [FAILS]
                self._called.add((name, point["name"]))
                script = tuple(trial.steps[:at])
                if name not in self.situations.always:
                    self._otherwise.append((base.without("functions", name), script))
                if at and name not in self.situations.heard:
                    other: Step = {"change": {"functions": {name: trial.functions[name] or {}}}}
                    for change in (other, *self._turned(name, base)):
                        self._otherwise.append((base, (*script[:-1], change, script[-1])))
                for plan in plans:
                    if plan != trial.functions[name]:
                        functions = {**base.functions, name: plan}
                        self._otherwise.append((replace(base, functions=functions), script))


def _reached(walk: Walk) -> tuple[frozenset[str], frozenset[str]]:
    """The counters a walk hit on either side."""
    first = walk.first["reach"] if walk.first is not None else ()
    second = walk.second["reach"] if walk.second is not None else ()
    return frozenset(first), frozenset(second)
