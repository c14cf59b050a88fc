"""Lifecycle code of a component, and the earlier values that it reads."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from clean_carry.component.code import Code, Member
from clean_carry.component.spans import Span

# Hooks are named for when they run.
MomentName = Literal[
    "made",
    "starting",
    "derived",
    "received",
    "updating",
    "displayed",
    "before update",
    "updated",
    "before removal",
    "removed",
    "before drawing",
    "shown again",
    "leaving route",
    "route changing",
    "hidden",
    "failed",
]


@dataclass(frozen=True)
class Previous:
    """The earlier props or state that a hook reads: the parameter and the names.

    For an update hook those before, for new inputs those that came; `uses` is where the parameter stands,
    each with its entry.
    """

    parameter: str
    names: tuple[str, ...] | None
    uses: tuple[tuple[Span, int], ...] = ()


@dataclass(frozen=True)
class Guard:
    """A body that is one `if (before.x !== now.x) { … }`: the names compared and the inner body."""

    sources: tuple[Member, ...]
    body: Code
    entry: int
    comments: tuple[Span, ...]


@dataclass(frozen=True)
class Asked:
    """A condition; one that must not hold is `negated`. `grouped` says that it needs parentheses beside
    others, or behind the sign that negates it."""

    code: Code
    negated: bool
    grouped: bool


@dataclass(frozen=True)
class Moment:
    """Code of a lifecycle hook. `locals` are the names that its own body declares.

    `kept_guard` is the entry of a guard that is copied with the body instead of being carried;
    `calls_imports` says that a function of another file is called at once, which may throw; `one_call` that
    it is a single call (in a typed file of what is known to give nothing); `expression` that the body is
    one, without braces; `hoists` that it declares a name by `var`; `asynchronous` that it may wait, and
    that nobody uses its result. A hook that writes state does so while all `asked` conditions hold; for
    each of `unlike`, while a field differs from a prop or a constant.
    """

    when: MomentName
    body: Code
    entry: int
    previous_props: Previous | None = None
    previous_state: Previous | None = None
    guard: Guard | None = None
    reaches_end: bool = True
    locals: frozenset[str] = frozenset()
    references: frozenset[str] = frozenset()
    compares_only: bool = False
    single_expression: bool = False
    comments: tuple[Span, ...] = ()
    kept_guard: int = -1
    calls_imports: bool = False
    asynchronous: bool = False
    hoists: bool = False
    one_call: bool = False
    expression: bool = False
    asked: tuple[Asked, ...] = ()
    unlike: tuple[tuple[Member, Member | str], ...] = ()
