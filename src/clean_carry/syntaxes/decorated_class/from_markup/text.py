"""Functions of options as text of a class: bodies and arrow functions at the depth of its members."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Code, Member, Operation
from clean_carry.component.fragment import Fragment, between, copy, new, settled, with_comments
from clean_carry.component.members import Callback
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.from_markup.spelling import Speller
from clean_carry.syntaxes.unsaid import Unsaid


@dataclass
class ClassText:
    """Writes the code of one component at the depth of the members of its class."""

    component: Component
    source: SourceText
    speller: Speller

    def __post_init__(self) -> None:
        self.unit, self.end = self.speller.unit, self.speller.end
        self.line = f"\n{self.unit}"

    def body(self, callback: Callback) -> Fragment:
        """The statements of a hook's function."""
        if callback.text is None:
            name = self.speller.names.of(Member("method", callback.method))
            return new(f"this.{name}(){self.end}")
        code, settle = callback.text, settled(callback.entry, "moment-to-hook")
        if callback.body_at < 0:
            return settle + new("(") + self.arrow(callback) + new(f")(){self.end}")
        start, end = callback.body_at + 1, code.span.end - 1
        for one in code.operations:
            if one.span.start < start:
                settle += settled(one.entry, "moment-to-hook")
        inner = [one for one in code.operations if one.span.start >= start]
        data = self.source.data
        start += len(data[start:end]) - len(data[start:end].lstrip())
        end = start + len(data[start:end].rstrip())
        span = code.span._replace(start=start, end=max(start, end))
        before, self.speller.used_own = self.speller.used_own, False
        made = between(span, inner, self.speller.spell)
        if self.speller.used_own:
            depth = self.unit * self.levels(span.start)
            made = new(f"const self = this{self.end}\n{depth}") + made
        self.speller.used_own = before
        return settle + made.shifted(1 - self.levels(code.span.start))

    def with_own(self, span: Span, inner: list[Operation]) -> Fragment:
        """The inside of a function, which names the instance where functions inside ask for it."""
        before, self.speller.used_own = self.speller.used_own, False
        made = between(span, inner, self.speller.spell)
        if self.speller.used_own:
            depth = self.unit * (self.levels(span.start) + 1)
            made = new(f"\n{depth}const self = this{self.end}") + made
        self.speller.used_own = before
        return made

    def arrow(self, callback: Callback) -> Fragment:
        """A function of an option as an arrow function."""
        assert callback.text is not None
        settle = settled(callback.entry, "", "kept")
        code, at = callback.text, callback.body_at
        if at < 0:
            return settle + self.level(code, 1)
        return settle + self.as_arrow(code, at, asynchronous=callback.asynchronous)

    def as_arrow(self, code: Code, at: int, *, asynchronous: bool) -> Fragment:
        """A function from its parameters on, whose body starts `at`, as an arrow function."""
        first = [one for one in code.operations if one.span.start < at]
        rest = [one for one in code.operations if one.span.start > at]
        head = between(code.span._replace(end=at), first, self.speller.spell)
        inner = self.with_own(code.span._replace(start=at + 1), rest)
        brace = copy(code.span._replace(start=at, end=at + 1))
        whole = (head + new("=> ") + brace + inner).shifted(1 - self.levels(code.span.start))
        return new("async " if asynchronous else "") + whole

    def noted(self, notes: tuple[Span, ...], line: Fragment, depth: int = 1) -> Fragment:
        """A member, or a statement at a greater depth, with its comments."""
        newline = f"\n{self.unit * depth}"
        return with_comments(line, notes, lambda at: depth - self.levels(at), newline)

    def level(self, code: Code, depth: int) -> Fragment:
        """Code with its operations spelled, at a depth."""
        before, self.speller.used_own = self.speller.used_own, False
        made = self.speller.code(code).shifted(depth - self.levels(code.span.start))
        if self.speller.used_own:
            raise Unsaid("not-in-target", "a function with a `this` of its own", code.span.start)
        self.speller.used_own = before
        return made

    def levels(self, at: int) -> int:
        """How deep the line at an offset is indented."""
        indent = self.source.indent_at(at).replace("\t", self.unit)
        return len(indent) // max(1, len(self.unit))
