"""Effects, and reducers, as statements of a script."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from clean_carry.component.code import Code, Member, Read
from clean_carry.component.fragment import Fragment, joined, new, settled
from clean_carry.component.members import Effect, Reducer
from clean_carry.source.javascript.values import is_identifier
from clean_carry.syntaxes.single_file_flat.from_code.spelling import CodeSpeller


@dataclass
class EffectWriter:
    """Writes what runs when a component is displayed, and when what it looks at has changed.

    `level` gives code at a level of indentation.
    """

    speller: CodeSpeller
    unit: str
    end: str
    quote: str
    level: Callable[[Code, int], Fragment]
    typed: bool

    def written(self, one: Effect) -> Fragment:
        """One effect."""
        mounted = self.speller.run("onMounted")
        if not one.sources:
            self.speller.ending = self.speller.run("onBeforeUnmount") if one.ends else ""
            head = new(f"{mounted}(() => ", one.entry, "hook-to-call")
            return head + self._body(one, 0) + new(f"){self.end}")
        run = self.speller.run("watch")
        self.speller.ending = "onCleanup"
        sources = [self._source(code) for code in one.sources]
        watched = sources[0]
        if len(sources) > 1:
            watched = new("[") + joined(sources, ", ") + new("]")
        given = "(_now, _before, onCleanup)" if one.ends else "()"
        settings = f"{{ immediate: true, flush: {self.quote}post{self.quote} }}"
        line = f"\n{self.unit}"
        return (
            new(f"{mounted}(() => {{{line}{run}(", one.entry, "hook-to-watch")
            + watched
            + new(f", {given} => ")
            + self._body(one, 1)
            + new(f", {settings}){self.end}\n}}){self.end}")
        )

    def _body(self, one: Effect, depth: int) -> Fragment:
        text = self.level(one.text, depth)
        if not one.expression:
            return new("{") + text + new("}")
        return new("{ ") + text + new(f"{self.end} }}")

    def _source(self, code: Code) -> Fragment:
        """Return the source of a watcher: a ref, or a function that returns the value."""
        first = code.operations[0] if len(code.operations) == 1 else None
        if isinstance(first, Read) and first.span == code.span and not self.speller.whole:
            if first.member.kind in ("state", "derived"):
                name = self.speller.names.of(first.member)
                return new(name, first.entry, "read-by-name")
        return new("() => ") + self.speller.code(code)

    def dispatch(self, one: Reducer) -> Fragment:
        """The function that is called with an action."""
        name = self.speller.names.of(Member("method", one.dispatch))
        place = self.speller.value(Member("state", one.state))
        reduce = self.speller.source.slice(*one.reduce.span[:2])
        kind = f": Parameters<typeof {reduce}>[1]" if is_identifier(reduce) else ": any"
        typed = kind if self.typed else ""
        head = new(f"function {name}(action{typed}) {{\n{self.unit}{place} = ")
        settle = settled(one.entry, "reducer-to-function")
        function = self.level(one.reduce, 1)
        if not is_identifier(reduce):
            function = new("(") + function + new(")")
        return settle + head + function + new(f"({place}, action){self.end}\n}}")
