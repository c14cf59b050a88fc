"""What others ask the instance of a component for."""

from __future__ import annotations

from typing import NamedTuple


class Opened(NamedTuple):
    """The members others ask the instance for, and those of them others write.

    `handed_at` is where the component hands its instance on, -1 where only what it mixes in asks.
    `listed` says that they also ask what its members are.
    """

    names: tuple[str, ...] = ()
    written: frozenset[str] = frozenset()
    handed_at: int = -1
    listed: bool = False


NOTHING_OPENED = Opened()
