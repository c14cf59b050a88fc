"""The interface map: how what a component offers is called on either side of a crossing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Interface:
    """Pairs (old, new) of names. Inputs, events out and slots; a slot named "" is the default one."""

    inputs: tuple[tuple[str, str], ...] = ()
    events: tuple[tuple[str, str], ...] = ()
    slots: tuple[tuple[str, str], ...] = ()

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `carry --json`."""
        return {
            "inputs": [{"old": old, "new": new} for old, new in self.inputs],
            "events": [{"old": old, "new": new} for old, new in self.events],
            "slots": [{"old": old, "new": new} for old, new in self.slots],
        }
