"""A component fitted for a target in which members, props and locals share one scope. Pure data."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Member, PatternRead
from clean_carry.component.model import Component

Layout = Literal["none", "split", "whole"]
InputsForm = Literal["none", "listed", "lifted", "whole"]

# Why state is held as one object.
WholeReason = Literal[
    "",
    "updaters with props",
    "callbacks",
    "changed in place",
    "made whole",
    "read whole",
    "written together",
    "written while rendering",
    "every render counts",
]

PROPS = Member("prop", "*")
STATE = Member("state", "*")
CONTEXT = Member("context", "*")
# The name of a whole object in code, and its member.
WHOLES = {"props": PROPS, "state": STATE, "context": CONTEXT}
# From this major version on every component may render `undefined` (the runtime's release notes for 18.0).
UNDEFINED_DRAWN = 18
GIVEN = Member("prop", "given")
# The inputs that have no default, where all inputs are put together with their defaults.
OTHERS = Member("prop", "...")


@dataclass(frozen=True)
class Plan:
    """The decisions of fitting.

    `names` are the local names of members (`PROPS`, `STATE`, `CONTEXT` for whole objects, `GIVEN` for the
    inputs as they were given, where defaults are filled in later), `setters` those of state writers,
    `latest` the expressions for latest values, `references` the names of what holds them. `later` are the
    entries of operations that must see it. `effect_locals` maps a field that becomes a local of one
    effect to its keyword and the entry of the use that declares it. `reads_before` says
    that code run when new inputs came reads those before. `early` are methods that the initial state
    names, `before_fields` those only initial values of fields do, `inputs_first` says that one of them
    needs what holds the latest inputs. `once` are fields made by code when the component is made and
    never written again, `in_order` says that state and fields are made in the order of the class.
    `remembered` says that the function is not called again where no input changed, `receiving` that
    methods called when new inputs came read those before, `followed` that something is called after a
    write of state was rendered, `always_draws` that no write may be spared for that.
    """

    component: Component
    names: dict[Member, str]
    setters: dict[str, str]
    latest: dict[Member, str]
    references: dict[str, tuple[Member, ...]]
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
    reads_before: bool = False
    early: frozenset[str] = frozenset()
    before_fields: frozenset[str] = frozenset()
    inputs_first: bool = False
    remembered: bool = False
    receiving: bool = False
    followed: bool = False
    always_draws: bool = False
    whole_reason: WholeReason = ""
    once: frozenset[str] = frozenset()
    in_order: bool = False

    @property
    def wrapped(self) -> bool:
        """Whether the function is written inside of a call that makes the component of it."""
        component = self.component
        decorated = bool(component.place.decorators) and not self.decorated_after
        return self.remembered or bool(component.outward.exposed) or decorated

    @property
    def draws_undefined(self) -> bool:
        """Whether the runtime takes `undefined` from it where it refused it from a class."""
        wrapped = self.remembered or bool(self.component.outward.exposed)
        return wrapped and self.runtime < UNDEFINED_DRAWN

    @property
    def decorated_after(self) -> bool:
        """Whether decorators are called where it is exported: its statics must be there by then."""
        return bool(self.component.place.decorators) and bool(self.component.statics)

    @property
    def exports_after(self) -> bool:
        """Whether it is exported by a statement of its own."""
        exported = self.component.place.export_span is not None
        return exported and (self.wrapped or self.decorated_after)


class Refused(Exception):
    """The component cannot be written in the target; `rule` says why."""

    def __init__(self, rule: str, detail: str, at: int) -> None:
        super().__init__(rule)
        self.rule, self.detail, self.at = rule, detail, at
