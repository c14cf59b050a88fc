"""Trials in the mode in which a runtime's development build mounts everything twice.

React 18 and later run every effect, its clean-up and the effect again when something is first displayed
in `StrictMode`, and render twice. Applications are developed in it, so what a component does there is seen.
Calls and requests of both versions are compared there without their number, since a body that is rendered
twice calls twice. For the same reason states that were painted on the way are not compared.
"""

from __future__ import annotations

from typing import Any

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.worker_pool import Bench, Bundle, Side

# One walk in so many is made in that mode.
EVERY = 10


def strict_bundles(bench: Bench, old: Side, new: Side) -> tuple[Bundle, Bundle] | None:
    """Both versions as the development build runs them; None where a runtime has no such mode."""
    if not (old.runtime.strict and old.runtime == new.runtime) or new.bridged is not None:
        return None
    try:
        return bench.build(old, development=True), bench.build(new, development=True)
    except WorkerFailed:
        return None


def once(answer: dict[str, Any]) -> dict[str, Any]:
    """Return the behaviour of a version with calls, requests and errors once a point, and no states
    in between."""
    points = [
        {**point, **_once(point), "frames": [], "prevented": []} for point in answer["points"]
    ]
    return {**answer, "points": points, "last": {**answer["last"], **_once(answer["last"])}}


def _once(told: dict[str, Any]) -> dict[str, Any]:
    return {what: _distinct(told[what]) for what in ("calls", "requests", "errors")}


def _distinct(values: list[Any]) -> list[Any]:
    found: list[Any] = []
    for value in values:
        if value not in found:
            found.append(value)
    return found


__all__ = ["EVERY", "once", "strict_bundles"]
