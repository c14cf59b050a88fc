"""Requests of a component when it is displayed: the hook that sends them, and flags for that time."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from clean_carry.component.code import Assign, Code, Member, MethodCall, MethodValue
from clean_carry.component.members import Derived, Method, Timed
from clean_carry.component.model import Component
from clean_carry.source.expressions.folding import folded
from clean_carry.source.expressions.model import Constant, Expr, Listing
from clean_carry.source.expressions.types import ANY, FLAG, Type, either
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.member_types import MemberTypes, is_full
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.stateful_view.requests import RequestStatements, pending_in
from clean_carry.syntaxes.stateful_view.routes import Queries
from clean_carry.syntaxes.unsaid import Unsaid

_REQUEST = re.compile(rb"\bfetch\s*\(")
# Hooks that run once, before or right after the first display.
_HOOKS = frozenset({"created", "beforeMount", "mounted"})
# The interface that gives the data, and the error for data that cannot be had.
SOURCE_FILES = {
    "DataSource.php": """<?php

namespace App;

interface DataSource
{
    /**
     * The data at an address.
     *
     * @throws DataSourceError for a request that fails, a reply that is no success, or that is no JSON
     */
    public function get(string $url): mixed;
}
""",
    "DataSourceError.php": """<?php

namespace App;

use RuntimeException;

final class DataSourceError extends RuntimeException
{
}
""",
}


@dataclass
class Loading:
    """The requests of one component: its hook, and the methods that ask for data. `pending` flags are only
    true while data are on their way. `answer` is the type of the data."""

    component: Component
    source: SourceText
    answer: Type = ANY
    queries: Queries | None = None
    hook: Timed | None = None
    methods: dict[str, Method] = field(default_factory=dict)
    pending: frozenset[str] = frozenset()
    # The findings about each address.
    notes: list[tuple[str, str, int]] = field(default_factory=list)
    # Whether an address has no query: the data come from the interface then.
    opens: bool = False

    def __post_init__(self) -> None:
        self.methods = {
            one.name: one
            for one in self.component.members
            if isinstance(one, Method) and self._asks(one.text)
        }
        self.hook = next(
            (
                one
                for one in self.component.members
                if isinstance(one, Timed) and self._is_hook(one)
            ),
            None,
        )

    def _asks(self, code: Code) -> bool:
        return _REQUEST.search(self.source.data, *code.span[:2]) is not None

    def _is_hook(self, one: Timed) -> bool:
        code = one.callback.text
        if one.hook not in _HOOKS or one.callback.parameters:
            return False
        if one.callback.method:
            return one.callback.method in self.methods
        if code is None:
            return False
        called = {each.member.name for each in code.all() if isinstance(each, MethodCall)}
        return self._asks(code) or bool(called & set(self.methods))

    def codes(self) -> Iterator[Code]:
        """The functions that ask for data."""
        if self.hook is not None and self.hook.callback.text is not None:
            yield self.hook.callback.text
        for one in self.methods.values():
            yield one.text

    def statements(self, expressions: Expressions, code: Code) -> RequestStatements:
        """The statements of a function that asks for data."""
        made = RequestStatements(self.source, expressions, code, self.answer, self.pending)
        made.queries, made.passes_source = self.queries, self.opens
        return made

    def find_pending(self, expressions: Expressions) -> None:
        """Find the flags. Raises `Unsaid` for data that are requested again."""
        codes = list(self.codes())
        spans = [code.span for code in codes]
        for _, one in self.component.operations():
            inside = any(
                span.start <= one.span.start and one.span.end <= span.end for span in spans
            )
            if (
                isinstance(one, MethodCall | MethodValue)
                and one.member.name in self.methods
                and not inside
            ):
                raise Unsaid("runs-in-browser", "a request that is sent again", one.span.start)
        flags = self._flags(spans)
        found: set[str] = set()
        for code in codes:
            with self.statements(expressions, code).tree() as function:
                found |= pending_in(function, flags)
        self.pending = frozenset(found)

    def _flags(self, spans: Sequence[tuple[int, int, str]]) -> frozenset[str]:
        """Flags of the state that these functions alone write, and that are true before the reply."""
        state = self.component.state
        first = {
            one.name: self.source.slice(*one.code.span[:2]).strip()
            for one in (state.fields or () if state is not None else ())
            if one.code is not None
        }
        written: dict[str, set[str]] = {}
        for _, one in self.component.operations():
            if not isinstance(one, Assign) or one.member.kind != "state":
                continue
            inside = any(
                start <= one.span.start and one.span.end <= end for start, end, *_ in spans
            )
            value = self.source.slice(*one.value.span[:2]).strip() if one.value is not None else ""
            written.setdefault(one.member.name, set()).add(value if inside else "")
        return frozenset(
            name
            for name, values in written.items()
            if values <= {"true", "false"} and (first.get(name) == "true" or "true" in values)
        )

    def learn(self, expressions: Expressions) -> None:
        """Learn the types of state from the data that it is given. Raises `Unsaid`."""
        try:
            self._learn(expressions)
        except Unsaid:
            # Types may be known the second time.
            self.notes.clear()
            self._learn(expressions)

    def _learn(self, expressions: Expressions) -> None:
        types = expressions.types
        for code in self.codes():
            made = self.statements(expressions, code)
            made.asking = frozenset(self.methods)
            try:
                with expressions.of_class():
                    made.written({}, 0)
            finally:
                self._take(made, types)

    def _take(self, made: RequestStatements, types: MemberTypes) -> None:
        """Take findings and types from the statements of a function."""
        for address, at, query in made.addresses:
            self.opens |= query is None
            if query is not None:
                self.notes.append(("query-not-run", f"{query.origin} ({address})", at))
                continue
            self.notes.append(("data-source-open", address, at))
            if not made.checked:
                self.notes.append(("success-not-checked", address, at))
        for member, given in made.gave.items():
            first = types.of(member)
            if first.kind == "nothing":
                types.learn(member, given.or_missing(first.missing))
            elif given.kind != "any" and not is_full(first):
                types.learn(member, given)
            elif given.kind != "any":
                types.learn(member, either(first, given))

    def settle_flags(self, expressions: Expressions) -> None:
        """Take the flags for false, as they are once the data are there."""
        false = Constant(FLAG, False)
        expressions.types.fixed = {Member("state", name): false for name in self.pending}

    def wait(self, expressions: Expressions) -> dict[str, Code]:
        """Take state for what it is while data are on their way; the code of each first value."""
        expressions.types.fixed = {}
        first = self._before()
        fixed: dict[Member, Expr] = {}
        for name, code in first.items():
            member, value = Member("state", name), expressions.read(code)
            if isinstance(value, Constant):
                fixed[member] = value
            elif isinstance(value, Listing) and not value.items:
                fixed[member] = Listing(expressions.types.of(member).present, ())
        true = Constant(FLAG, True)
        fixed |= {Member("state", name): true for name in self.pending}
        expressions.types.fixed = fixed
        for derived in self.component.derived:
            made = self._folded(expressions, derived)
            if isinstance(made, Constant) or (isinstance(made, Listing) and not made.items):
                fixed[Member("derived", derived.name)] = made
        return first

    def _folded(self, expressions: Expressions, derived: Derived) -> Expr | None:
        """The value of a computed one while data are on their way; None where it is not known."""
        if derived.returned is None:
            return None
        try:
            return folded(expressions.read(derived.returned))
        except Unsaid:
            return None

    def _before(self) -> dict[str, Code]:
        """State before the data are there: its first values, or what a function gives it before it asks."""
        state = self.component.state
        found = {
            one.name: one.code
            for one in (state.fields or () if state is not None else ())
            if one.code is not None
        }
        for code in self.codes():
            asked = _REQUEST.search(self.source.data, *code.span[:2])
            until = asked.start() if asked is not None else code.span.end
            for one in code.all():
                if not isinstance(one, Assign) or one.span.start > until:
                    continue
                name = one.member.name
                if one.value is None or one.operator != "=" or one.value.operations:
                    raise Unsaid("runs-in-browser", f"the change of {name}", one.span.start)
                found[name] = one.value
        return found
