"""Before the search: inputs and content the old side can be mounted with.

A value that is likely by declaration and name may still break the first render. Such values are
left out of the situations walks start from, as far as the rest can be mounted then; among the odd values
they come up all the same.
"""

from __future__ import annotations

import time
from dataclasses import replace
from typing import Any

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.judge import Pair
from clean_carry.verify.search.walks.situations import Situation, Situations
from clean_carry.verify.worker_pool import Lane

# The share of the budget this may take, and how many other values of an input are tried.
SHARE = 0.25
MOST_OTHERS = 4
# So many contents are tried with other inputs, where none is shown with the usual ones.
MOST_CONTENTS = 2


def lay(lane: Lane, pair: Pair, situations: Situations, budget: float) -> None:
    """Settle on inputs the old side mounts with, then on the project's own contents it can show."""
    ground = _Ground(lane, pair, budget * SHARE)
    full = situations.full()
    plain = replace(full, slots=dict.fromkeys(full.slots, situations.plain_content))
    if not ground.mounts(plain):
        situations.fitting = ground.fitting(situations, plain)
        full = situations.full()
    if situations.own_contents:
        slot = "default" if "default" in situations.slots else "children"
        shown = [
            content
            for content in situations.own_contents
            if ground.mounts(replace(full, slots={**full.slots, slot: content}))
        ]
        if not shown:
            shown = ground.fitted_to_content(situations, full, slot)
        situations.keep_contents(shown)


class _Ground:
    def __init__(self, lane: Lane, pair: Pair, seconds: float) -> None:
        self.lane, self.pair = lane, pair
        self.deadline = time.monotonic() + seconds

    def mounts(self, situation: Situation) -> bool:
        """Whether the old side is mounted without an error."""
        return self.drawn(situation) is not None

    def drawn(self, situation: Situation) -> Any:
        """Return the old side's output if it mounts without an error, else None."""
        if time.monotonic() > self.deadline:
            return None
        request = situation.trial("groundwork").request()
        bundle, exported = self.pair.bundles[0], self.pair.old.exported
        try:
            answer = self.lane.trial(bundle, exported, request, reuse=True)
        except WorkerFailed:
            return None
        point = answer["points"][0]
        return None if point["errors"] else point["tree"]

    def fitting(self, situations: Situations, full: Situation) -> dict[str, Any]:
        """Inputs the old side mounts with: as many as can be, at other values where need be."""
        least = next((s for s in self._fewer(situations, full) if self.mounts(s)), None)
        if least is None:
            return self._mended(situations, full)
        given = dict(least.inputs)
        self._add(situations, full, given, [name for name in full.inputs if name not in given])
        return given

    def fitted_to_content(
        self, situations: Situations, full: Situation, slot: str
    ) -> list[list[Any]]:
        """Content of its own that goes with other inputs: an index among as many as there are, say. Inputs
        with which nothing of it is shown are no help."""
        for content in situations.own_contents[:MOST_CONTENTS]:
            filled = replace(full, slots={**full.slots, slot: content})
            given = self.fitting(situations, filled)
            drawn = self.drawn(replace(filled, inputs=given))
            empty = replace(filled, inputs=given, slots={**filled.slots, slot: []})
            if drawn is not None and drawn != self.drawn(empty):
                situations.fitting = given
                return [content]
        return []

    def _add(
        self, situations: Situations, full: Situation, given: dict[str, Any], names: list[str]
    ) -> None:
        """Give as many of the named inputs as can be: all at once, else by halves, else at other values."""
        if not names:
            return
        wider = {**given, **{name: full.inputs[name] for name in names}}
        if self.mounts(replace(full, inputs=wider)):
            given.update(wider)
        elif len(names) > 1:
            half = len(names) // 2
            self._add(situations, full, given, names[:half])
            self._add(situations, full, given, names[half:])
        else:
            value = self._value(full, given, names[0], situations.values[names[0]][:MOST_OTHERS])
            if value is not None:
                given[names[0]] = value[0]

    def _fewer(self, situations: Situations, full: Situation) -> list[Situation]:
        sparse = situations.sparse()
        return [replace(full, inputs=sparse.inputs), replace(full, inputs={})]

    def _mended(self, situations: Situations, full: Situation) -> dict[str, Any]:
        """The full inputs with one left out or at another value; all of them where that is no help."""
        for name in full.inputs:
            others = {key: value for key, value in full.inputs.items() if key != name}
            if self.mounts(replace(full, inputs=others)):
                return others
            value = self._value(full, others, name, situations.values[name][:MOST_OTHERS])
            if value is not None:
                return {**others, name: value[0]}
        return dict(full.inputs)

    def _value(
        self, full: Situation, others: dict[str, Any], name: str, likely: list[Any]
    ) -> tuple[Any] | None:
        """(value,) of an input that can be mounted with the others, None where none of the likely can."""
        for value in likely:
            if self.mounts(replace(full, inputs={**others, name: value})):
                return (value,)
        return None
