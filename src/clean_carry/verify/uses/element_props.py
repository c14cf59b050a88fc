"""Inputs that are elements or instances: a table hands its cells the columns it was given as content.

By name and text: an input called like a component of the project, in a component that asks it for what an
element or an instance of the runtime has, or hands it on. The prop gets an object with the members that are
read.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from clean_carry.verify.search.inputs.single_file_children import pascal
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.uses.related_single_files import component_called

# Members of an element of the runtime, of which few other objects have both.
_OF_ELEMENTS = frozenset(("props", "children"))
# Members of an element of version 2.7: an instance it belongs to, others inside.
_OF_OLDER_ELEMENTS = ("child", "children")
_WORD = re.compile(r"""['"]([a-z][\w-]*)['"]""")
_SLOT = re.compile(
    r"\bchildren\??\.(\w+)|(?<!\bthis\.)(?<=[\w\])]\.)\$(?:scopedSlots|slots)\??\.(\w+)"
)
_COMPARED = re.compile(r"""[=!]==?\s*['"]([a-z][\w-]*)['"]""")
# Flags with which nothing is shown.
_AWAY = ("hidden", "disabled")
MOST_FLAGS = 5


@dataclass(frozen=True)
class Drawn:
    """One element: the component, its inputs by what is said of them, the slots it fills."""

    path: Path
    inputs: tuple[tuple[str, Shape], ...]
    slots: tuple[str, ...] = ()


@dataclass(frozen=True)
class DrawnInput:
    """An input that is an element, or the instance it becomes, or a list of such; the likeliest first."""

    name: str
    listed: bool
    instances: bool
    elements: list[Drawn]

    def values(self, numbers: list[int]) -> list[Any]:
        """Return the possible values of the prop, by the numbers of the functions that make its
        elements."""
        kind = {"instance": True} if self.instances else {}
        drawn = [{"$": "drawn", "use": number, **kind} for number in numbers]
        if not self.listed:
            return drawn
        return [drawn[:2], drawn, *([one, *drawn[:1]] for one in drawn[2:])]


def drawn_inputs(
    file: Path, text: str, shapes: dict[str, Shape], shapes_of: Callable[[Path], dict[str, Shape]]
) -> Iterator[DrawnInput]:
    """The inputs of a component that are elements, or instances, of one of the project."""
    words = set(_WORD.findall(text))
    compared = list(dict.fromkeys(_COMPARED.findall(text)))
    slots = tuple(dict.fromkeys(one or other for one, other in _SLOT.findall(text)))
    for name, shape in shapes.items():
        listed = "array" in shape.kinds
        inner = (shape.items or Shape()) if listed else shape
        if not shape.kinds & {"array", "object"}:
            continue
        path = component_called(pascal(name[:-1] if listed and name.endswith("s") else name), file)
        if path is None or path.resolve() == file:
            continue
        known = shapes_of(path)
        instances = _is_instance(inner, known)
        if not instances and not _may_be_drawn(inner):
            continue
        asked = [(n, s) for n, s in known.items() if n in words or s.required]
        flags = [(n, s) for n, s in asked if s.kinds == {"boolean"}]
        plain = [(n, _compared(s, compared)) for n, s in asked if s.kinds != {"boolean"}]
        shown = [(n, s) for n, s in flags if n not in _AWAY]
        found = [Drawn(path, (*plain, *shown), slots), Drawn(path, (*plain,), slots)]
        found += [Drawn(path, (*plain,))] if slots else []
        found += [Drawn(path, (*plain, flag), slots) for flag in flags[:MOST_FLAGS]]
        yield DrawnInput(name, listed, instances, found)


def _compared(shape: Shape, words: list[str]) -> Shape:
    """A word with a default, which is one of several, at one that the component compares with."""
    of_several = shape.kinds == {"string"} and shape.default is not None and shape.default[0]
    return replace(shape, literals=words) if of_several and words else shape


def _may_be_drawn(shape: Shape) -> bool:
    """Whether nothing is asked of it, or what an element has."""
    asked = set(shape.fields)
    return not asked or (bool(asked & _OF_ELEMENTS) and asked <= _OF_ELEMENTS | {"type", "key"})


def _is_instance(shape: Shape, known: dict[str, Shape]) -> bool:
    """Whether code reads members that an instance has: those of the runtime, and its props."""
    asked = set(shape.fields)
    return any(name.startswith("$") for name in asked) and all(
        name.startswith(("$", "_")) or name in known or name in _OF_OLDER_ELEMENTS for name in asked
    )
