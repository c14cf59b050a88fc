"""Parents, contents and inputs of a component, as its project has them."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from itertools import takewhile
from pathlib import Path
from typing import Any

from clean_carry.verify.search.values.shape import Shape

# A value that a trial gives the innermost parent is given like an input of this name.
AROUND = "$around."


@dataclass(frozen=True)
class Parents:
    """A module whose default export wraps what it is given in the parents found.

    `place` is where it would stand, `text` what it says, `shown` the parents from the outside in,
    `inputs` what is known of the inputs of the innermost one that the component may ask it for.
    """

    place: Path
    text: str
    shown: str
    inputs: dict[str, Shape] = field(default_factory=dict)


@dataclass(frozen=True)
class Uses:
    """How the project uses a component.

    `place` and `text` are those of a module whose default export is a list of functions, each giving
    the content of one use; `count` how many there are before those that make elements for inputs,
    `inputs` the constants given to each input, without repeats, `elements` what inputs that are elements
    may be.
    """

    place: Path
    text: str = ""
    count: int = 0
    inputs: dict[str, list[Any]] = field(default_factory=dict)
    elements: dict[str, list[Any]] = field(default_factory=dict)

    def plain(self) -> Uses:
        """The constants alone."""
        return Uses(self.place, inputs=self.inputs)


# So many uses, contents and values of an input are taken.
MOST_USES = 40
MOST_CONTENTS = 3
MOST_VALUES = 4


# An input that tells one of several from the others.
_NAMING = re.compile(r"(\w{3,})(?:Id|Key|Name|Index|Value)")


def meant_by(given: str, inputs: Iterable[str]) -> str:
    """The input that says which of several is meant by what they are given: `activeTab` for `tabId`."""
    words = _NAMING.fullmatch(given)
    stem = words[1].lower() if words is not None else ""
    return next((name for name in inputs if stem and stem in name.lower() and name != given), "")


def note_value(inputs: dict[str, list[Any]], name: str, value: Any) -> None:
    """Keep a value that the project gives an input, unless it is known."""
    known = inputs.setdefault(name, [])
    if len(known) < MOST_VALUES and not any(_alike(value, other) for other in known):
        known.append(value)


def _alike(one: Any, other: Any) -> bool:
    return type(one) is type(other) and bool(one == other)


def distance(path: Path, file: Path) -> int:
    """Steps from folder to folder between two files."""
    one, other = path.parent.parts, file.parent.parts
    pairs = zip(one, other, strict=False)
    shared = sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], pairs))
    return len(one) + len(other) - 2 * shared
