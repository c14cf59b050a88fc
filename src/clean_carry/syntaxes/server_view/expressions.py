"""Code of a component as the view says it, or its class."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Literal

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, settled
from clean_carry.source.expressions.folding import truth_of
from clean_carry.source.expressions.model import Expr, Unsayable
from clean_carry.source.expressions.types import Type
from clean_carry.source.php.spelling import Speller
from clean_carry.syntaxes.member_types import MemberTypes
from clean_carry.syntaxes.server_view.names import variable
from clean_carry.syntaxes.unsaid import Unsaid

RULE = "expression-in-view"
Use = Literal["value", "truth", "shown", "text"]


@dataclass
class Expressions:
    """Says the code of one component. `settled` are the entries of all code that was said, `helpers` the
    methods of the helper class that it uses, `used` the members."""

    types: MemberTypes
    settled: Fragment = field(default_factory=Fragment)
    helpers: set[str] = field(default_factory=set)
    used: dict[Member, None] = field(default_factory=dict)
    names: dict[str, Type] = field(default_factory=dict)
    in_class: bool = False
    # Stretches of code that were said.
    said_spans: list[tuple[int, int]] = field(default_factory=list)
    # Texts of expressions that have a value here.
    there: frozenset[str] = frozenset()

    # Texts that are written as they are.
    texts: list[str] = field(default_factory=list)

    def verbatim(self, text: str) -> str:
        """A name for code that is written as it is."""
        if text not in self.texts:
            self.texts.append(text)
        return f"verbatim {self.texts.index(text)}"

    def read(self, code: Code) -> Expr:
        """Code as an expression. Raises `Unsaid`."""
        for operation in code.all():
            self.settled += settled(operation.entry, RULE)
        self.said_spans.append(code.span[:2])
        try:
            return self.types.read(code, self.names, self.there)
        except Unsayable as reason:
            raise Unsaid("not-said-in-view", reason.what, reason.at) from None

    def known(self, code: Code) -> bool | None:
        """Whether a condition holds, where that is known."""
        try:
            return truth_of(self.types.read(code, self.names, self.there))
        except Unsayable:
            return None

    def passed_over(self, code: Code) -> None:
        """Take code for said that a view needs no words for: names of items, keys."""
        self.said_spans.append(code.span[:2])
        for operation in code.all():
            self.settled += settled(operation.entry, RULE)

    def said(self, code: Code, use: Use, level: int | None = None) -> str:
        """Code as the view says it, for its value, its truth, or as text. Raises `Unsaid`."""
        return self.said_of(self.read(code), use, code.span.start, level)

    def said_of(self, expr: Expr, use: Use, at: int, level: int | None = None) -> str:
        """The same of an expression."""
        speller = Speller(self._name, self.helpers, frozenset(self.names))
        say: Callable[..., str] = {
            "value": speller.value, "truth": speller.truth, "shown": speller.shown, "text": speller.text,
        }[use]  # fmt: skip
        try:
            return say(expr) if level is None else say(expr, level)
        except Unsayable as reason:
            raise Unsaid("not-said-in-view", reason.what, at) from None

    def _name(self, name: str) -> str:
        kind, _, own = name.partition(" ")
        if kind == "verbatim":
            return self.texts[int(own)]
        if kind == "slot":
            return (
                f"(${variable(own)} ?? null)"
                if own != "default"
                else "($slot->isEmpty() ? null : $slot)"
            )
        member = Member(kind, own)  # type: ignore[arg-type]
        self.used[member] = None
        return self.member(member)

    def member(self, member: Member) -> str:
        """The spelling of a member."""
        head = "$this->" if self.in_class else "$"
        return f"{head}{variable(member.name)}{'()' if member.kind == 'derived' else ''}"

    @contextmanager
    def within(self, names: Mapping[str, Type]) -> Iterator[None]:
        """Say code where more names are known."""
        before = self.names
        self.names = {**before, **names}
        try:
            yield
        finally:
            self.names = before

    @contextmanager
    def where(self, code: Code | None, *, holds: bool) -> Iterator[None]:
        """Say code where a condition holds, or does not."""
        before = self.there
        if code is not None:
            try:
                self.there = before | self.types.there_where(code, holds=holds)
            except Unsayable as reason:
                raise Unsaid("not-said-in-view", reason.what, reason.at) from None
        try:
            yield
        finally:
            self.there = before

    @contextmanager
    def of_class(self) -> Iterator[None]:
        """Say code of the class."""
        self.in_class = True
        try:
            yield
        finally:
            self.in_class = False
