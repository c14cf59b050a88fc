"""How components of a framework stand in their files, and how the project uses them: one row for each."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from clean_carry.verify.application import own_lines
from clean_carry.verify.own_code import own_code
from clean_carry.verify.uses import related_scripts, scripts, single_files
from clean_carry.verify.uses.model import Parents, Uses
from clean_carry.verify.verify import component_of
from clean_carry.verify.worker_pool import Side


@dataclass(frozen=True)
class Manner:
    """The differences between frameworks before a component is mounted.

    `mounted` is a side with one of its exports mounted, `uses` and `parents` are what the project shows of
    it. Where components are `registered`, they are known by the names they are registered under.
    `target` is the syntax in which others are written for it.
    """

    mounted: Callable[[Side, str], Side]
    uses: Callable[[Side], Uses]
    parents: Callable[[Side], Parents | None]
    target: str
    registered: bool = False


def _of_script(side: Side, name: str) -> Side:
    lines = own_code(side.text, str(side.place), name or "default")
    return replace(side, exported=name, lines=lines)


def _of_file(side: Side, name: str) -> Side:
    # A file holds one component, whatever it was called among others.
    return replace(side, exported="default" if name else "")


def _registered(side: Side, name: str) -> Side:
    return replace(side, exported=name, lines=own_lines(side.text, str(side.place), name))


def _uses_in_scripts(side: Side) -> Uses:
    name = component_of(side)
    uses = scripts.uses_of(name, side.place)
    return uses if uses.count else related_scripts.kin_of(name, side.place, uses.inputs)


MANNERS = {
    "page": Manner(
        lambda side, name: replace(side, exported="default"),
        lambda side: Uses(side.place),
        lambda side: None,
        "",
    ),
    "illuminate/view": Manner(
        lambda side, name: replace(side, exported="default"),
        lambda side: Uses(side.place),
        lambda side: None,
        "server-view",
    ),
    "livewire/livewire": Manner(
        lambda side, name: replace(side, exported="default"),
        lambda side: Uses(side.place),
        lambda side: None,
        "stateful-view",
    ),
    "react": Manner(
        _of_script,
        _uses_in_scripts,
        lambda side: scripts.parents_of(component_of(side), side.place),
        "jsx-function",
    ),
    "vue": Manner(
        _of_file,
        lambda side: single_files.uses_of(side.place),
        lambda side: single_files.parents_of(side.place),
        "single-file-flat",
    ),
    "angular": Manner(
        _registered,
        lambda side: Uses(side.place),
        lambda side: None,
        "controller-component",
        registered=True,
    ),
    "@angular/core": Manner(
        _of_script,
        lambda side: Uses(side.place),
        lambda side: None,
        "decorated-class",
    ),
}


def manner_of(side: Side) -> Manner:
    """The row of a side's framework."""
    return MANNERS[side.runtime.framework]
