"""One walk through a component: its plan, what it was, and how its steps are chosen on the way."""

from __future__ import annotations

from dataclasses import dataclass
from random import Random
from typing import Any

from clean_carry.verify.search.situations import Situation, Situations
from clean_carry.verify.search.steps import WAITS, Step, choose, count, following, possible
from clean_carry.verify.trials import Trial

# How often what was typed is entered next.
ENTERED = 0.3


@dataclass(frozen=True)
class Plan:
    """One walk to make: where it starts, steps it begins with, and how many it finds by itself."""

    number: int
    situation: Situation
    script: tuple[Step, ...] = ()
    length: int = 4
    extras: float = 0.0


@dataclass
class Walk:
    """A walk that was made: the trial it amounts to, and what both versions did."""

    plan: Plan
    trial: Trial
    first: dict[str, Any] | None = None
    second: dict[str, Any] | None = None
    failed: str = ""
    hung: bool = False


class Chooser:
    """Gives the steps of one walk: those of its script, then what the page offers."""

    def __init__(
        self, situations: Situations, plan: Plan, rng: Random, tried: dict[str, int]
    ) -> None:
        self.situations, self.plan, self.rng, self.tried = situations, plan, rng, tried
        self.here: dict[str, int] = {}
        # What was listened to outside once is sent again: somebody may have stopped listening.
        self.outside: dict[str, set[str]] = {}
        self.done = 0
        self.last: Step = {}
        self.leaves = rng.random() < 0.5

    def next(self, offered: dict[str, Any]) -> Step | None:
        """The next step, None where the walk ends."""
        plan = self.plan
        for place, types in offered["outside"].items():
            self.outside.setdefault(place, set()).update(types)
        self.done += 1
        at = self.done - 1
        if at < len(plan.script):
            return plan.script[at]
        if at < len(plan.script) + plan.length:
            step = self._chosen(offered)
            if step is not None:
                count(step, self.here)
                return step
            self.done = len(plan.script) + plan.length + 1
        elif at > len(plan.script) + plan.length:
            return None
        leaves, self.leaves = self.leaves, False
        return {"remove": True} if leaves else None

    def _chosen(self, offered: dict[str, Any]) -> Step | None:
        if self.rng.random() < self.plan.extras:
            return self._extra(offered)
        outside = {place: sorted(types) for place, types in self.outside.items()}
        steps = possible({**offered, "outside": outside}, self.situations.inputs.held)
        for name, given in self.situations.inputs.methods.items():
            steps.append({"call": {"method": name, **({"given": given} if given else {})}})
        steps += self.situations.inputs.signals
        if self.rng.random() < ENTERED:
            steps = following(self.last, steps) or steps
        self.last = choose(steps, self.here, self.tried, self.rng) if steps else {}
        return self.last or self._extra(offered)

    def _extra(self, offered: dict[str, Any]) -> Step | None:
        """A step that no element offers: time, other inputs, leaving and coming back."""
        chance = self.rng.random()
        if chance < 0.45:
            change = self.situations.any_change(self.rng)
            if change is not None:
                return change
        if chance < 0.85:
            return {"pass": int(self.rng.choice([*offered["waits"], *WAITS]))}
        return {"return": True} if chance < 0.95 else {"twice": True}
