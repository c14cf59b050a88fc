"""Make a failing trial smaller while it still fails in the same way."""

from __future__ import annotations

import time
from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.judge import Judged, Pair, judge, restless
from clean_carry.verify.trials import Trial
from clean_carry.verify.worker_pool import Lane

# A trial is made smaller for at most this many seconds.
LONGEST = 4.0


def shrunk(lane: Lane, pair: Pair, failing: Judged) -> Judged:
    """The smallest trial found that differs in what the failing one differs in."""
    kinds = {difference.what for difference in failing.result.differences}
    deadline = time.monotonic() + LONGEST
    best = _cut(failing)
    if best is not failing.trial and not _fails(lane, pair, best, kinds):
        best = failing.trial
    smaller = True
    while smaller:
        smaller = False
        for candidate in _smaller(best):
            if time.monotonic() > deadline:
                break
            if _fails(lane, pair, candidate, kinds):
                best, smaller = candidate, True
                break
    judged = judge(lane, pair, best)
    return judged if judged.result.verdict == "differs" else failing


def _fails(lane: Lane, pair: Pair, trial: Trial, kinds: set[str]) -> bool:
    """Whether old and new differ in one of these things; the last word is a fresh page's."""
    bundles = pair.bundles_for(trial)
    try:
        first = lane.trial(bundles[0], pair.old.exported, trial.request(), reuse=True)
    except WorkerFailed:
        return False
    if restless(first):
        return False
    try:
        request = trial.request(pair.interface)
        second = lane.trial(bundles[1], pair.new.exported, request, reuse=True)
    except WorkerFailed:
        return "end" in kinds
    return bool(kinds & {difference.what for difference in pair.compare(trial, first, second)})


def _cut(failing: Judged) -> Trial:
    """Without the steps after the first difference."""
    first = min(d.step for d in failing.result.differences)
    trial = failing.trial
    return replace(trial, steps=trial.steps[:first]) if first < len(trial.steps) else trial


def _smaller(trial: Trial) -> Iterator[Trial]:
    """Trials with one thing less, the biggest cuts first."""
    half = len(trial.steps) // 2
    if half > 1:
        yield replace(trial, steps=trial.steps[half:])
    if len(trial.inputs) > 3:
        yield replace(trial, inputs={})
    for at in range(len(trial.steps) - 1, -1, -1):
        yield replace(trial, steps=trial.steps[:at] + trial.steps[at + 1 :])
    for part in ("slots", "inputs", "functions"):
        held: dict[str, Any] = getattr(trial, part)
        for name in held:
            less: Any = {part: {k: v for k, v in held.items() if k != name}}
            yield replace(trial, **less)
    if trial.replies:
        yield replace(trial, replies=[])
    for at, step in enumerate(trial.steps):
        for smaller in _smaller_step(step):
            yield replace(trial, steps=[*trial.steps[:at], smaller, *trial.steps[at + 1 :]])
    for name, value in trial.inputs.items():
        for simple in _simpler(value):
            yield replace(trial, inputs={**trial.inputs, name: simple})


def _smaller_step(step: dict[str, Any]) -> Iterator[dict[str, Any]]:
    typed = step.get("type")
    if isinstance(typed, dict) and len(typed.get("text", "")) > 1:
        yield {"type": {**typed, "text": typed["text"][:1]}}
    change = step.get("change")
    if isinstance(change, dict) and "then" in change:
        yield {"change": {k: v for k, v in change.items() if k != "then"}}


def _simpler(value: Any) -> Iterator[Any]:
    if isinstance(value, str) and len(value) > 12:
        yield value[:4]
    elif isinstance(value, list) and len(value) > 1:
        yield value[:1]
    elif isinstance(value, dict) and "$" not in value and len(value) > 1:
        for key in value:
            yield {k: v for k, v in value.items() if k != key}
