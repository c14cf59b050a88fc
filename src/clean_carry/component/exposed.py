"""The members of a component's instance that other code reads."""

from __future__ import annotations

from typing import NamedTuple


class Opened(NamedTuple):
    """The members others ask the instance for, and those of them others write.

    `asked_at` is where the component hands its instance on, else where it says what it mixes in, -1 where
    nobody asks. `listed` says that they also ask what its members are.
    """

    names: tuple[str, ...] = ()
    written: frozenset[str] = frozenset()
    asked_at: int = -1
    listed: bool = False


NOTHING_OPENED = Opened()
