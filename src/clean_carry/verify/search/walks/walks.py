"""One walk through a component: its plan, what it was, and how its steps are chosen on the way."""

from __future__ import annotations

import re
from dataclasses import dataclass
from random import Random
from typing import Any

from clean_carry.verify.search.walks.situations import Situation, Situations
from clean_carry.verify.search.walks.steps import (
    WAITS,
    Step,
    choose,
    composing,
    count,
    following,
    of_the_other,
    possible,
)
from clean_carry.verify.trials import Trial

# How often what was typed is entered next.
ENTERED = 0.3
# Steps that are done to two instances, one after the other.
_MAIN = frozenset(("press", "type", "choose", "submit"))


@dataclass(frozen=True)
class Plan:
    """One walk to make: where it starts, steps it begins with, and how many it finds by itself.

    `twin`: what is done to one of two instances is done to the other one as well, then time passes.
    """

    number: int
    situation: Situation
    script: tuple[Step, ...] = ()
    length: int = 4
    extras: float = 0.0
    twin: bool = False


@dataclass
class Walk:
    """A walk that was made: the trial it amounts to, and what both versions did."""

    plan: Plan
    trial: Trial
    first: dict[str, Any] | None = None
    second: dict[str, Any] | None = None
    failed: str = ""
    hung: bool = False


def _spelled(event: str) -> tuple[str, str]:
    """An event as one writes it in code and in markup: `rowPicked`, `row-picked`."""
    return event, re.sub(r"\B([A-Z])", r"-\1", event).lower()


class Chooser:
    """Gives the steps of one walk: those of its script, then what the page offers."""

    def __init__(
        self, situations: Situations, plan: Plan, rng: Random, tried: dict[str, int]
    ) -> None:
        self.situations, self.plan, self.rng, self.tried = situations, plan, rng, tried
        self.here: dict[str, int] = {}
        # An outside event that was listened to once is sent again: a listener may have been removed.
        self.outside: dict[str, set[str]] = {}
        self.done = 0
        self.last: Step = {}
        # Steps that come before any other choice.
        self.then: list[Step] = []
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
        if self.then:
            return self.then.pop(0)
        step = self._any(offered)
        if self.plan.twin and step is not None:
            other = of_the_other(step, offered["elements"])
            self.then = [other, {"pass": WAITS[3]}] if other is not None else []
        return step

    def _any(self, offered: dict[str, Any]) -> Step | None:
        if self.rng.random() < self.plan.extras:
            return self._extra(offered)
        outside = {place: sorted(types) for place, types in self.outside.items()}
        inputs = self.situations.inputs
        # A signal, and an event that children send, is no event of the page.
        sent = {name for event in (*inputs.events, *inputs.handed) for name in _spelled(event)}
        steps = possible({**offered, "outside": outside}, inputs.held, sent)
        if not self.situations.composes:
            steps = [one for one in steps if not composing(one)]
        for name, given in self.situations.inputs.methods.items():
            steps.append({"call": {"method": name, **({"given": given} if given else {})}})
        for child in offered.get("children", ()):
            known = self.situations.inputs.handed.get(child["calls"])
            if known is not None:
                steps.append({"child": {**child, **({"given": known} if known else {})}})
        steps += self.situations.inputs.signals
        if self.plan.twin:
            steps = [s for s in steps if _MAIN.intersection(s)] or steps
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
