"""Expressions in PHP 8, with the values that they have in JavaScript.

A helper class does what PHP has no function for; whatever cannot be said is `Unsayable`. Values are those
of JSON: lists and records are arrays, null and undefined both null.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.source.expressions.model import (
    Apply,
    Choice,
    Constant,
    Expr,
    Field,
    Function,
    Item,
    Listing,
    Name,
    Record,
    Spread,
    Unsayable,
)
from clean_carry.source.expressions.types import FLAG, Type
from clean_carry.source.php.literals import (
    AND,
    ATOM,
    CHOICE,
    COMPARED,
    EQUAL,
    NULLISH,
    OR,
    as_text,
    constant,
    quoted,
)
from clean_carry.source.php.operations import CALLS, COMPARE, WRITERS

# Gives the spelling of a name in the code that is written.
Naming = Callable[[str], str]


@dataclass
class Speller:
    """Writes expressions. `name` gives the spelling of names that are no parameters; `helpers` are the
    methods of the helper class that are used."""

    name: Naming
    helpers: set[str] = field(default_factory=set)
    parameters: frozenset[str] = frozenset()

    def value(self, expr: Expr, level: int = CHOICE) -> str:
        """The value of an expression, as an operand of what binds as strongly as `level`."""
        text, own = self.ranked(expr)
        return text if own >= level else f"({text})"

    # -- what a value is taken for -------------------------------------------------------

    def truth(self, expr: Expr, level: int = CHOICE) -> str:
        """Whether JavaScript takes a value for true."""
        text, own = self.ranked_truth(expr)
        return text if own >= level else f"({text})"

    def text(self, expr: Expr, level: int = CHOICE) -> str:
        """A value as JavaScript's `String` gives it."""
        text, own = self.ranked_text(expr)
        return text if own >= level else f"({text})"

    def shown(self, expr: Expr, level: int = CHOICE) -> str:
        """A value as templates show it: nothing as no text."""
        if expr.type.kind == "nothing":
            return "''"
        if not expr.type.missing and expr.type.kind != "any":
            return self.text(expr, level)
        chosen = _chosen(expr)
        if chosen is not None:
            made = self._choose(chosen, self.shown)
            return made if level <= CHOICE else f"({made})"
        if expr.type.kind == "text":
            return self.value(expr, level)
        if expr.type.kind == "number" and expr.type.whole:
            return self.value(expr, level)
        if expr.type.kind == "number":
            return self.helper("shown", self.value(expr))
        raise Unsayable("a value that may be missing, as text")

    def ranked_truth(self, expr: Expr) -> tuple[str, int]:
        match expr:
            case Constant():
                return ("true" if expr.value not in (None, "", 0, False) else "false"), ATOM
            case Apply(operation="&&"):
                one, other = (self.truth(part, AND) for part in expr.parts)
                return f"{one} && {other}", AND
            case Apply(operation="||"):
                one, other = (self.truth(part, OR) for part in expr.parts)
                return f"{one} || {other}", OR
            case Apply(operation="truth"):
                return self.ranked_truth(expr.parts[0])
            case Apply(operation="itself"):
                return self.ranked_truth(expr.parts[0])
        return self.truth_of(expr, expr.type)

    def truth_of(self, expr: Expr, type_: Type) -> tuple[str, int]:
        match type_.kind:
            case "nothing":
                return "false", ATOM
            case "flag" if not type_.missing:
                return self.ranked(expr)
            case "flag":
                return f"{self.value(expr, EQUAL + 1)} === true", EQUAL
            case "number" if type_.whole and not type_.missing:
                return f"{self.value(expr, EQUAL + 1)} !== 0", EQUAL
            case "text" if not type_.missing:
                return f"{self.value(expr, EQUAL + 1)} !== ''", EQUAL
            case "text":
                return f"({self.value(expr, NULLISH)} ?? '') !== ''", EQUAL
            case "list" | "record" if not type_.missing:
                # Each is true, an empty one too.
                return "true", ATOM
            case "list" | "record":
                return f"{self.value(expr, EQUAL + 1)} !== null", EQUAL
        return self.helper("truth", self.value(expr)), ATOM

    def ranked_text(self, expr: Expr) -> tuple[str, int]:
        type_ = expr.type
        if isinstance(expr, Constant):
            return quoted(as_text(expr)), ATOM
        chosen = _chosen(expr)
        if chosen is not None and (type_.missing or type_.kind not in ("text", "number")):
            return self._choose(chosen, self.text), CHOICE
        if type_.missing:
            raise Unsayable("a value that may be missing, as text")
        match type_.kind:
            case "text":
                return self.ranked(expr)
            case "number" if type_.whole:
                return self.ranked(expr)
            case "number":
                return self.helper("num", self.value(expr)), ATOM
            case "flag":
                return f"{self.truth(expr, CHOICE + 1)} ? 'true' : 'false'", CHOICE
        raise Unsayable(f"a {type_.kind} as text")

    def _choose(self, chosen: Choice, said: Callable[[Expr, int], str]) -> str:
        test = self.truth(chosen.test, CHOICE + 1)
        return f"{test} ? {said(chosen.then, CHOICE + 1)} : {said(chosen.other, CHOICE + 1)}"

    def path(self, expr: Expr) -> str:
        """The text of a value of which a part is read, without asking whether it is there."""
        if isinstance(expr, Field):
            return f"{self.path(expr.of)}[{quoted(expr.name)}]"
        if isinstance(expr, Item):
            return f"{self.path(expr.of)}[{self.value(expr.at)}]"
        return self.value(expr, ATOM)

    # -- values --------------------------------------------------------------------------

    def ranked(self, expr: Expr) -> tuple[str, int]:
        match expr:
            case Constant():
                return constant(expr)
            case Name():
                own = expr.name in self.parameters
                return f"${expr.name}" if own else self.name(expr.name), ATOM
            case Field():
                head = self.path(expr)
                return (f"{head} ?? null", NULLISH) if _may_miss(expr) else (head, ATOM)
            case Item():
                head = self.path(expr)
                return (f"{head} ?? null", NULLISH) if _may_miss(expr) else (head, ATOM)
            case Choice():
                test = self.truth(expr.test, CHOICE + 1)
                then, other = (self.value(one, CHOICE + 1) for one in (expr.then, expr.other))
                return f"{test} ? {then} : {other}", CHOICE
            case Listing():
                return f"[{', '.join(self.given(one) for one in expr.items)}]", ATOM
            case Record():
                return self._record(expr), ATOM
            case Apply():
                return self._apply(expr)
        raise Unsayable("a function as a value")

    def given(self, expr: Expr) -> str:
        return f"...{self.value(expr.of)}" if isinstance(expr, Spread) else self.value(expr)

    def _record(self, expr: Record) -> str:
        fields = [
            self.given(value) if not name else f"{quoted(name)} => {self.value(value)}"
            for name, value in expr.fields
        ]
        return f"[{', '.join(fields)}]"

    def _apply(self, expr: Apply) -> tuple[str, int]:
        operation, parts = expr.operation, expr.parts
        made = WRITERS.get(operation)
        if made is not None:
            return made(self, expr)
        if operation in CALLS:
            return self.call(CALLS[operation], *(self.given(one) for one in parts)), ATOM
        if operation.startswith(("number ", "text ")) and operation.partition(" ")[2] in COMPARE:
            return self._compared(operation, parts)
        raise Unsayable(operation)

    def _compared(self, operation: str, parts: tuple[Expr, ...]) -> tuple[str, int]:
        kind, _, sign = operation.partition(" ")
        if kind == "number":
            one, other = (self.value(part, COMPARED + 1) for part in parts)
            return f"{one} {COMPARE[sign]} {other}", COMPARED
        return f"strcmp({self.value(parts[0])}, {self.value(parts[1])}) {sign} 0", COMPARED

    def function(self, expr: Function, *, truth: bool = False) -> str:
        """A function, of the truth of its value if asked."""
        outer = self.parameters
        self.parameters = outer | set(expr.parameters)
        try:
            body = self.truth(expr.body) if truth else self.value(expr.body)
        finally:
            self.parameters = outer
        return f"fn ({', '.join(f'${one}' for one in expr.parameters)}) => {body}"

    def call(self, function: str, *given: str) -> str:
        if function.startswith("Js::"):
            self.helpers.add(function.removeprefix("Js::"))
        return f"{function}({', '.join(given)})"

    def helper(self, method: str, *given: str) -> str:
        return self.call(f"Js::{method}", *given)


def _may_miss(expr: Expr) -> bool:
    """Whether a part that is read may not be there."""
    if not isinstance(expr, Field | Item):
        return False
    return bool(expr.type.missing) or getattr(expr, "safe", False) or _may_miss(expr.of)


def _chosen(expr: Expr) -> Choice | None:
    """One of two values by a third, also where it is written by `&&`, `||` or `??`."""
    if isinstance(expr, Choice):
        return expr
    if not isinstance(expr, Apply):
        return None
    match expr.operation:
        case "&&":
            return Choice(expr.type, expr.parts[0], expr.parts[1], _false(expr.parts[0]))
        case "||":
            one = _without_nothing(expr.parts[0])
            return Choice(expr.type, expr.parts[0], one, expr.parts[1])
        case "??" if expr.type.kind == "any":
            one = expr.parts[0]
            there = Apply(FLAG, "not", (Apply(FLAG, "is missing", (one,)),))
            return Choice(expr.type, there, _without_nothing(one), expr.parts[1])
    return None


# The values of each kind that are taken for false.
_EMPTY: dict[str, str | int | bool] = {"text": "", "number": 0, "flag": False}


def _false(expr: Expr) -> Expr:
    """The value of an expression where it is taken for false, if there is but one."""
    type_ = expr.type
    if type_.kind in ("list", "record"):
        return Constant(Type("nothing", missing=type_.missing or "null"), None)
    if type_.missing or (type_.kind == "number" and not type_.whole) or type_.kind == "any":
        return expr
    return Constant(type_, _EMPTY[type_.kind])


def _without_nothing(expr: Expr) -> Expr:
    """The same value, where it was found to be there."""
    return Apply(expr.type.present, "itself", (expr,)) if expr.type.missing else expr
