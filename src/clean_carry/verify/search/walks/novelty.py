"""Walks with new output: a browser runs those first.

A branch of the code says little of styles. Those select by kinds of elements, classes,
attributes and states: a walk that shows a new one is worth a look, whether or not it reached new code.
"""

from __future__ import annotations

import json
from collections.abc import Collection, Iterable, Iterator, Mapping
from typing import Any

from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.trials import Trial

# So many walks are remembered.
MOST = 40
# Attributes whose values selectors ask for, and seldom are made up of what is given.
_ASKED = frozenset(
    "type role dir open disabled hidden checked selected readonly required multiple".split()
)


def drawn(points: list[dict[str, Any]]) -> frozenset[str]:
    """Return everything that selectors could match in some points."""
    return frozenset(feature for point in points for feature in _of(point["tree"]))


def asked(points: list[dict[str, Any]]) -> frozenset[str]:
    """Return the calls and requests of some points: names of functions, methods of requests."""
    calls = (f"call {call[0]}" for point in points for call in point["calls"])
    requests = (f"request {one['method']}" for point in points for one in point["requests"])
    return frozenset([*calls, *requests])


def _of(nodes: list[Any]) -> Iterator[str]:
    for node in nodes:
        if not isinstance(node, list):
            continue
        tag, attributes, state, inside = node
        yield tag
        for name, value in attributes.items():
            if name == "class":
                yield from (f"{tag}.{word}" for word in value.split())
            elif name in _ASKED or name.startswith("aria-"):
                yield f"{tag}[{name}={value[:20]}]"
            else:
                yield f"{tag}[{name}]"
        for name, value in (state or {}).items():
            if isinstance(value, bool):
                yield f"{tag}:{name}={value}"
        yield from _of(inside)


def elements(nodes: Any) -> int:
    """How many elements a page has."""
    return sum(1 + elements(node[3]) for node in nodes if isinstance(node, list))


def outline(tree: Any) -> str:
    """The page as tags, attributes and form state, without text: what makes two pages look alike."""

    def parts(nodes: Any) -> list[Any]:
        return [
            [node[0], sorted(node[1].items()), node[2] and sorted(node[2].items()), parts(node[3])]
            for node in nodes
            if isinstance(node, list)
        ]

    return json.dumps(parts(tree))


class Looks:
    """Walks with the output that they rendered."""

    def __init__(self) -> None:
        self._known: set[str] = set()
        self._kept: list[tuple[Trial, frozenset[str]]] = []

    def note(self, trial: Trial, points: list[dict[str, Any]]) -> None:
        """Remember a walk that rendered something new."""
        if len(self._kept) >= MOST:
            return
        features = drawn(points)
        if not features <= self._known:
            self._known |= features
            self._kept.append((trial, features))

    def forget(self, names: Collection[str]) -> None:
        """Walks that were not the same when they were run again are no evidence of anything."""
        self._kept = [(trial, drew) for trial, drew in self._kept if trial.name not in names]

    def ordered(self) -> tuple[Trial, ...]:
        """Return the walks, each time the one that adds most to those before it."""
        rest, seen = list(self._kept), set[str]()
        found: list[Trial] = []
        while rest:
            best = max(rest, key=lambda one: len(one[1] - seen))
            if best[1] <= seen:
                break
            rest.remove(best)
            seen |= best[1]
            found.append(best[0])
        return tuple(found)


def as_in_use(trials: Iterable[Trial], shapes: Mapping[str, Shape]) -> tuple[Trial, ...]:
    """Order trials by how many props have a value that the project gives them, the most first."""

    def own(trial: Trial) -> int:
        used = sum(
            any(type(value) is type(one) and value == one for one in shapes[name].used)
            for name, value in trial.inputs.items()
            if name in shapes
        )
        return used + trial.in_use

    return tuple(sorted(trials, key=own, reverse=True))
