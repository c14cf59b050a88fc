"""Functions of options as text of a function: bodies and arrow functions at their new depth."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, between, new, settled, with_comments
from clean_carry.component.members import Callback
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller


@dataclass
class FunctionText:
    """Writes the code of one component at the depth of statements in its function."""

    component: Component
    source: SourceText
    speller: Speller

    def __post_init__(self) -> None:
        self.unit, self.end = self.speller.unit, self.speller.end
        self.line = f"\n{self.unit}"

    def _run(self, callback: Callback) -> Fragment:
        """Return the text between the braces of a hook's function."""
        if callback.text is None:
            name = self.speller.names.of(Member("method", callback.method))
            return new(f" {name}(){self.end} ")
        code = callback.text
        settle = settled(callback.entry, "moment-to-effect")
        if callback.body_at < 0 or callback.asynchronous or callback.parameters:
            call = new("(") + self._arrow(callback) + new(f")(){self.end}")
            return new(f"{self.line}{self.unit}") + call + new(self.line)
        start, end = callback.body_at + 1, code.span.end - 1
        inner = tuple(o for o in code.operations if o.span.start >= start)
        for one in code.operations:
            if one.span.start < start:
                settle += settled(one.entry, "moment-to-effect")
        span = code.span._replace(start=start, end=end)
        body = between(span, inner, self.speller.spell)
        return settle + body.shifted(1 - self._levels(code.span.start))

    def _arrow(self, callback: Callback) -> Fragment:
        """A function of an option as an arrow function."""
        assert callback.text is not None
        settle = settled(callback.entry, "", "kept")
        code, at = callback.text, callback.body_at
        if at < 0:
            return settle + self._level(code, 1)
        first = [o for o in code.operations if o.span.start < at]
        rest = [o for o in code.operations if o.span.start >= at]
        head = between(code.span._replace(end=at), first, self.speller.spell)
        body = between(code.span._replace(start=at), rest, self.speller.spell)
        prefix = "async " if callback.asynchronous else ""
        return (
            settle
            + new(prefix)
            + (head + new("=> ") + body).shifted(1 - self._levels(code.span.start))
        )

    def _noted(self, notes: tuple[Span, ...], line: Fragment) -> Fragment:
        return with_comments(line, notes, lambda at: 1 - self._levels(at), self.line)

    def _level(self, code: Code, depth: int) -> Fragment:
        return self.speller.code(code).shifted(depth - self._levels(code.span.start))

    def _levels(self, at: int) -> int:
        indent = self.source.indent_at(at).replace("\t", self.unit)
        return len(indent) // max(1, len(self.unit))
