"""A component fitted for a target in which members, inputs and locals meet in one scope. Pure data."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Member, PatternRead
from clean_carry.component.model import Component

Layout = Literal["none", "split", "whole"]
InputsForm = Literal["none", "listed", "lifted", "whole"]

PROPS = Member("prop", "*")
STATE = Member("state", "*")
# The inputs that have no default, where all inputs are put together with their defaults.
OTHERS = Member("prop", "...")


@dataclass(frozen=True)
class Plan:
    """What fitting decided.

    `names` are the local names of members (`PROPS` and `STATE` for whole objects), `setters` those
    of state writers, `latest` those of references that hold the latest value. `later` are the
    entries of operations that must see it. `effect_locals` maps a field that becomes a local of one
    effect to its keyword and the entry of the use that declares it. `following` gives writes whose
    value is read again in the same run, and those reads, the local that holds the value.
    """

    component: Component
    names: dict[Member, str]
    setters: dict[str, str]
    latest: dict[Member, str]
    previous: dict[str, str]
    layout: Layout
    inputs: InputsForm
    lifted: PatternRead | None
    later: frozenset[int]
    stable: frozenset[str]
    removed_patterns: frozenset[int]
    effect_locals: dict[str, tuple[str, int]]
    merged: bool
    runtime: int
    updaters: bool
    may_skip: bool
    following: dict[int, str]


class Refused(Exception):
    """The component cannot be written in the target; `rule` says why."""

    def __init__(self, rule: str, detail: str, at: int) -> None:
        super().__init__(rule)
        self.rule, self.detail, self.at = rule, detail, at
