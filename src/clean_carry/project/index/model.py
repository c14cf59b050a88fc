"""Records of an index: components, their places, and the places that use them."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import NamedTuple

from clean_carry.project.index.roles import Role
from clean_carry.source.index.facts import Sighting


class Key(NamedTuple):
    """A component: its file, and its number there."""

    file: str
    number: int


@dataclass(frozen=True)
class Use:
    """One place that uses a component: `how` names the form, `role` says whether it is a test or a story.

    `start` and `end` are the bytes of the name or of the request, `user` the component it stands in.
    """

    file: str
    line: int
    how: str
    start: int
    end: int
    role: Role = "source"
    user: Key | None = None


@dataclass
class Found:
    """A component of the project with what it uses and who uses it."""

    key: Key
    seen: Sighting
    users: list[Use] = field(default_factory=list)
    uses: list[tuple[Key, Use]] = field(default_factory=list)
