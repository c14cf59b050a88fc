"""Code of a template as its language says it; what that cannot say becomes a member of the class.

The template's language has no functions, no `new`, no spread and none of the world's names (the runtime's
reference, "Expression syntax").
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from clean_carry.component.code import Code
from clean_carry.component.fragment import Fragment, new
from clean_carry.syntaxes.decorated_class.from_markup.spelling import Speller
from clean_carry.syntaxes.piped_expressions import Unread, free_names
from clean_carry.syntaxes.unsaid import Unsaid

_WORDS = frozenset("true false null undefined typeof void in this $event $any $index".split())
_UNSAID = re.compile(
    r"\.\.\.|\bnew\s|\binstanceof\b|\bdelete\s|\bawait\b|\byield\b|(?<![=!<>])=(?!=)"
)
_ASSIGNS = re.compile(r"(?<![=!<>+\-*/])=(?![=>])")
_ENTITY = re.compile(r"&#?\w+;")
# A regular expression, where a value is expected.
_PATTERN = re.compile(r"(?:^|[(,=:?&|!\[])\s*/(?!\s)")


@dataclass
class Expressions:
    """Writes the code of one template. `members` are new members of the class, `used` the names of members
    that the template uses. `world` holds globals and names of the module, which
    become fields of the class."""

    speller: Speller
    members: list[Fragment] = field(default_factory=list)
    used: set[str] = field(default_factory=set)
    world: dict[str, str] = field(default_factory=dict)
    # Names that lists give, the outermost first.
    given: list[str] = field(default_factory=list)

    @contextmanager
    def within(self, names: list[str]) -> Iterator[None]:
        """While the items of a list are written."""
        self.given += names
        yield
        del self.given[len(self.given) - len(names) :]

    def text_of(self, fragment: Fragment) -> str:
        """The text of a fragment."""
        source = self.speller.source
        return "".join(
            p.text if p.span is None else source.slice(*p.span[:2]) for p in fragment.pieces
        )

    def value(self, code: Code, wish: str) -> Fragment:
        """An expression; `wish` is what a member for it would be called."""
        with self.speller.in_template():
            made = self.speller.code(code)
        text = self.text_of(made)
        if self._is_said(text):
            return made
        return self._member(code, wish)

    def note(self, text: str) -> None:
        """Take the names of new code into account."""
        self._is_said(text)

    def _is_said(self, text: str) -> bool:
        """Whether the template's language says an expression; its names are known then."""
        try:
            names = free_names(text)
        except Unread:
            return False
        if _UNSAID.search(_unquoted(text)) or _PATTERN.search(_unquoted(text)):
            return False
        return self._known(names)

    def _known(self, names: set[str]) -> bool:
        speller = self.speller
        own = {*speller.names.members.values(), *speller.names.outputs.values()}
        own |= set(speller.names.made.values())
        for name in sorted(names - _WORDS - set(self.given)):
            if name in own:
                self.used.add(name)
                continue
            if name in speller.names.taken and name not in self.world:
                raise Unsaid("not-in-target", f"the name {name}", speller.start)
            speller.names.taken.add(name)
            self.world[name] = name
            self.used.add(name)
        return True

    def _taken(self, code: Code) -> list[str]:
        """The names of lists that code uses."""
        text = self.speller.source.slice(*code.span[:2])
        return [
            name
            for name in dict.fromkeys(self.given)
            if re.search(rf"(?<![\w$.]){re.escape(name)}(?![\w$])", text)
        ]

    def _member(self, code: Code, wish: str) -> Fragment:
        """A member of the class for an expression, and its use."""
        speller = self.speller
        raw = speller.source.slice(*code.span[:2])
        if _ENTITY.search(raw):
            raise Unsaid("markup-unread", raw[:40], code.span.start)
        taken, body = self._taken(code), speller.code(code)
        name = speller.names.choose(f"{wish}Of" if taken else wish, f"{wish}Here")
        self.used.add(name)
        if raw.lstrip().startswith("{") and not taken:
            body = new("(") + body + new(")")
        if not taken:
            made = speller.of_core("computed")
            head = new(f"protected readonly {name} = {made}(() => ")
            self.members.append(head + body + new(f"){speller.end}"))
            return new(f"{name}()")
        parameters = ", ".join(f"{one}: any" for one in taken)
        head = new(f"protected {name}({parameters}) {{\n{speller.unit}return ")
        self.members.append(head + body + new(f"{speller.end}\n}}"))
        return new(f"{name}({', '.join(taken)})")

    def statement(self, code: Code, wish: str, *, states: bool) -> Fragment:
        """The code of a listener: as it is where the language says it, else a call of a method."""
        with self.speller.in_template():
            made = self.speller.code(code)
        text = self.text_of(made)
        plain = _unquoted(text)
        simple = not re.search(r"\b(?:if|for|while|const|let|return|throw|try|await)\b", plain)
        if simple and not _UNSAID.search(_ASSIGNS.sub("", plain)) and not _PATTERN.search(plain):
            try:
                names = free_names(text)
            except Unread:
                names = None
            if names is not None and self._known(names):
                return made
        raw = self.speller.source.slice(*code.span[:2])
        body = self.speller.code(code)
        if not states:
            body += new(self.speller.end)
        return self.method(code, wish, body, event="$event" in raw)

    def handler(self, code: Code, wish: str, given: str, *, block: bool) -> Fragment:
        """A method for a function that is written in place, called with the event where it is `given`."""
        speller = self.speller
        body = speller.code(code).shifted(1 - self._depth(code) if block else 0)
        if not block:
            body += new(speller.end)
        if block and "\n" in speller.source.slice(*code.span[:2]):
            body = _stripped(body, speller.source.data)
        else:
            body = _stripped(body, speller.source.data)
            if speller.end:
                body += new(speller.end) if not self.text_of(body).endswith(";") else Fragment()
        return self.method(code, wish, body, event=bool(given), called=given)

    def _depth(self, code: Code) -> int:
        indent = self.speller.source.indent_at(code.span.start).replace("\t", self.speller.unit)
        return len(indent) // max(1, len(self.speller.unit)) + 1

    def method(
        self, code: Code, wish: str, body: Fragment, *, event: bool, called: str = ""
    ) -> Fragment:
        """A method for code of a listener, and its call."""
        raw = self.speller.source.slice(*code.span[:2])
        if _ENTITY.search(raw):
            raise Unsaid("markup-unread", raw[:40], code.span.start)
        taken = self._taken(code)
        name = self.speller.names.choose(wish, f"{wish}Here")
        self.used.add(name)
        given = [*taken, *(["$event"] if event else [])]
        named = [*taken, *([called or "$event"] if event else [])]
        parameters = ", ".join(f"{one}: any" for one in named)
        head = new(f"protected {name}({parameters}) {{\n{self.speller.unit}")
        self.members.append(head + body + new("\n}"))
        return new(f"{name}({', '.join(given)})")


def _stripped(body: Fragment, data: bytes) -> Fragment:
    """Code without the white space at its ends."""
    pieces = list(body.pieces)
    if pieces and pieces[0].span is not None:
        span = pieces[0].span
        text = data[span.start : span.end]
        start = span.start + len(text) - len(text.lstrip())
        pieces[0] = pieces[0]._replace(span=span._replace(start=start))
    if pieces and pieces[-1].span is not None:
        span = pieces[-1].span
        end = span.start + len(data[span.start : span.end].rstrip())
        pieces[-1] = pieces[-1]._replace(span=span._replace(end=end))
    return Fragment(p for p in pieces if p.span is None or p.span.end > p.span.start)


def _unquoted(text: str) -> str:
    """Code with the text in its quotes left out."""
    return re.sub(r"'(?:[^'\\]|\\.)*'|\"(?:[^\"\\]|\\.)*\"|`[^`$]*`", "''", text)
