"""Expressions of templates that are evaluated against a scope object, and the names they take from it.

The grammar is that of the runtime's expression compiler: JavaScript's operators without functions,
loops and regular expressions, filters after `|` with arguments after `:`, statements parted by `;`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

_TOKEN = re.compile(
    r"""\s*(?:
      (?P<number>(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)
    | (?P<name>[A-Za-z_$][\w$]*)
    | (?P<text>"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*')
    | (?P<sign>===|!==|==|!=|<=|>=|&&|\|\||[-+*/%=<>!|:;,.?()\[\]{}])
    )""",
    re.VERBOSE | re.DOTALL | re.ASCII,
)
_LITERALS = frozenset({"true", "false", "null", "undefined"})
_LEVELS: tuple[frozenset[str], ...] = (
    frozenset({"||"}),
    frozenset({"&&"}),
    frozenset({"==", "!=", "===", "!=="}),
    frozenset({"<", ">", "<=", ">="}),
    frozenset({"+", "-"}),
    frozenset({"*", "/", "%"}),
)


class ExpressionError(Exception):
    """Text that is no expression; `at` is where it stops being one."""

    def __init__(self, what: str, at: int) -> None:
        super().__init__(what)
        self.at = at


@dataclass
class NameUse:
    """A name that is taken from the scope, with the members asked of it by name, in order.

    `written` says that what the whole path names is assigned to, `called` that it is called;
    `shorthand` that the name is also the key of an object (`{ name }`). Offsets count characters.
    """

    name: str
    start: int
    end: int
    path: list[tuple[str, int, int]] = field(default_factory=list)
    written: bool = False
    called: bool = False
    shorthand: bool = False


@dataclass(frozen=True)
class _Token:
    kind: str
    text: str
    start: int
    end: int


def _tokens(text: str, start: int, end: int) -> Iterator[_Token]:
    at = start
    while True:
        found = _TOKEN.match(text, at, end)
        if found is None:
            rest = text[at:end]
            if rest.strip():
                raise ExpressionError("this is no expression", at + len(rest) - len(rest.lstrip()))
            yield _Token("end", "", end, end)
            return
        kind = found.lastgroup or ""
        yield _Token(kind, found.group(kind), found.start(kind), found.end(kind))
        at = found.end()


class _Parser:
    def __init__(self, text: str, start: int, end: int) -> None:
        self.tokens = list(_tokens(text, start, end))
        self.at = 0
        self.uses: list[NameUse] = []

    @property
    def next(self) -> _Token:
        return self.tokens[self.at]

    def take(self, *signs: str) -> _Token | None:
        token = self.next
        if token.kind == "sign" and token.text in signs:
            self.at += 1
            return token
        return None

    def need(self, sign: str) -> _Token:
        token = self.take(sign)
        if token is None:
            raise ExpressionError(f"“{sign}” is missing", self.next.start)
        return token

    def name(self) -> _Token:
        token = self.next
        if token.kind != "name":
            raise ExpressionError("a name is missing", token.start)
        self.at += 1
        return token

    def program(self) -> None:
        while self.next.kind != "end":
            if self.take(";") is None:
                self.filtered()
                if self.next.kind != "end":
                    self.need(";")

    def filtered(self) -> NameUse | None:
        use = self.assigned()
        while self.take("|"):
            use = None
            self.name()
            while self.take(":"):
                self.assigned()
        return use

    def assigned(self) -> NameUse | None:
        use = self.chosen()
        while self.take("="):
            if use is None:
                raise ExpressionError("this cannot be assigned to", self.next.start)
            use.written = True
            use = self.assigned()
        return use

    def chosen(self) -> NameUse | None:
        use = self.level(0)
        if self.take("?"):
            self.assigned()
            self.need(":")
            self.assigned()
            return None
        return use

    def level(self, number: int) -> NameUse | None:
        if number == len(_LEVELS):
            return self.signed()
        use = self.level(number + 1)
        while self.take(*_LEVELS[number]):
            self.level(number + 1)
            use = None
        return use

    def signed(self) -> NameUse | None:
        if self.take("+", "-", "!"):
            self.signed()
            return None
        return self.primary()

    def primary(self) -> NameUse | None:
        token = self.next
        use: NameUse | None = None
        inner = True
        if self.take("("):
            self.filtered()
            self.need(")")
            inner = False
        elif self.take("["):
            self.several("]")
        elif self.take("{"):
            self.pairs()
        elif token.kind in ("number", "text"):
            self.at += 1
        elif token.kind == "name":
            self.at += 1
            if token.text not in _LITERALS:
                use = NameUse(token.text, token.start, token.end)
                self.uses.append(use)
        else:
            raise ExpressionError("a value is missing", token.start)
        return self.followed(use, whole=inner)

    def followed(self, use: NameUse | None, whole: bool) -> NameUse | None:
        """Yield the uses of a value: calls, members by name, members by an expression."""
        path = use
        while True:
            if self.take("("):
                if path is not None:
                    path.called = True
                self.several(")")
                use, path = None, None
            elif self.take("["):
                self.assigned()
                self.need("]")
                # A computed member may be assigned to; the name in brackets may not.
                use, path = _elsewhere(), None
            elif self.take("."):
                member = self.name()
                if path is not None:
                    path.path.append((member.text, member.start, member.end))
                else:
                    use = _elsewhere()
            else:
                return use if whole or use is None else None

    def several(self, end: str) -> None:
        while self.take(end) is None:
            self.filtered()
            if self.take(","):
                continue
            self.need(end)
            return

    def pairs(self) -> None:
        while self.take("}") is None:
            token = self.next
            self.at += 1
            if token.kind == "sign" and token.text == "[":
                self.assigned()
                self.need("]")
                self.need(":")
                self.assigned()
            elif self.take(":"):
                self.assigned()
            elif token.kind == "name":
                self.uses.append(NameUse(token.text, token.start, token.end, shorthand=True))
            else:
                raise ExpressionError("a key is missing", token.start)
            if self.take(","):
                continue
            self.need("}")
            return


def _elsewhere() -> NameUse:
    """Return assignment targets that are no names of the scope."""
    return NameUse("", 0, 0)


def names_in(text: str, start: int = 0, end: int | None = None) -> list[NameUse]:
    """Every name an expression takes from its scope, in source order. Raises `ExpressionError`."""
    end = len(text) if end is None else end
    lead = re.compile(r"\s*::").match(text, start, end)
    parser = _Parser(text, lead.end() if lead else start, end)
    parser.program()
    return parser.uses


__all__ = ["ExpressionError", "NameUse", "names_in"]
