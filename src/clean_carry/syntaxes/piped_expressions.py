"""Expressions and statements with pipes, as some templates hold them, respelled for another template.

The grammar is that of the runtime's expression parser: JavaScript's expressions with pipes after `|` and
their arguments after `:`, an assertion `!` behind a value, the cast `$any(…)`, and statements parted by `;`
in listeners. Pipes bind weaker than the conditional operator.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

_TOKEN = re.compile(
    r"""(?P<space>\s+)
    | (?P<number>(?:\d[\d_]*\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)
    | (?P<name>[A-Za-z_$#][\w$]*)
    | (?P<text>"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|`(?:[^`\\]|\\.)*`)
    | (?P<sign>=>|\?\.|\?\?=?|===|!==|\*\*=?|==|!=|<=|>=|&&=?|\|\|=?|[-+*/%]=|\.\.\.
        |[-+*/%=<>!|:;,.?()\[\]{}])
    """,
    re.VERBOSE | re.DOTALL,
)
# Names that are no members: of the language.
_WORDS = frozenset("true false null undefined typeof void in this".split())
# Words that the grammar does not know, or only means something by in code of its own.
_UNKNOWN = frozenset(
    "new instanceof as let const var await async function class delete yield return throw".split()
)
_CLOSES = {"(": ")", "[": "]", "{": "}"}


class Unread(Exception):
    """Code that is not read: what it is, and where it stands in its text."""

    def __init__(self, what: str, at: int = 0) -> None:
        super().__init__(what)
        self.what, self.at = what, at


@dataclass
class Token:
    """A token; `space` is the white space in front of it."""

    kind: str
    text: str
    at: int
    space: str = ""


@dataclass
class Group:
    """A stretch of tokens and groups; `open` is the bracket around it, "" for the whole."""

    open: Token | None
    close: Token | None
    parts: list[Token | Group] = field(default_factory=list)


# Writes a pipe: its name, the text of its value, those of its arguments.
Pipe = Callable[[str, str, list[str]], str]


@dataclass(frozen=True)
class Spelling:
    """How names are written: `names` are what stands for a name, `called` for a call without arguments,
    `emits` for the start of `name.emit(…)`; `pipe` writes pipes."""

    names: Mapping[str, str]
    called: Mapping[str, str]
    emits: Mapping[str, str]
    pipe: Pipe
    # Whether assertions and casts of types go.
    bare: bool = True
    # Names of elements, which no expression reads.
    elements: frozenset[str] = frozenset()

    def within(self, more: Mapping[str, str]) -> Spelling:
        """The spelling where a template names more values."""
        if not more:
            return self
        called = {name: text for name, text in self.called.items() if name not in more}
        emits = {name: text for name, text in self.emits.items() if name not in more}
        elements = self.elements - more.keys()
        return Spelling({**self.names, **more}, called, emits, self.pipe, self.bare, elements)


def tokens(text: str) -> list[Token]:
    """The tokens of code. Raises `Unread`."""
    found: list[Token] = []
    at, space = 0, ""
    while at < len(text):
        match = _TOKEN.match(text, at)
        if text.startswith(("//", "/*"), at):
            raise Unread("a comment in code of a template", at)
        if match is None:
            raise Unread(text[at : at + 12], at)
        kind = match.lastgroup or ""
        if kind == "space":
            space = match.group()
        else:
            found.append(Token(kind, match.group(), at, space))
            space = ""
        at = match.end()
    return found


def grouped(text: str) -> Group:
    """Code as groups within brackets. Raises `Unread`."""
    root = Group(None, None)
    stack = [root]
    for token in tokens(text):
        if token.kind == "sign" and token.text in _CLOSES:
            inner = Group(token, None)
            stack[-1].parts.append(inner)
            stack.append(inner)
        elif token.kind == "sign" and token.text in _CLOSES.values():
            opened = stack[-1].open
            if opened is None or _CLOSES[opened.text] != token.text:
                raise Unread(text, token.at)
            stack.pop().close = token
        else:
            stack[-1].parts.append(token)
    if len(stack) > 1:
        raise Unread(text)
    return root


def respelled(text: str, spelling: Spelling) -> str:
    """An expression or statements in another spelling. Raises `Unread`."""
    text = text.strip()
    made = _Respelling(spelling).group(grouped(text))
    if made != text and re.fullmatch(r"[\w$]+", text) and made[:1] == "(" and made[-1:] == ")":
        # The whole is one name: what stands for it needs no parentheses.
        return made[1:-1]
    return made


def free_names(text: str) -> set[str]:
    """The names that code takes from around it. Raises `Unread`."""
    seen: set[str] = set()

    class Seeing(dict[str, str]):
        def get(self, key: str, default: str | None = None) -> str | None:  # type: ignore[override]
            seen.add(key)
            return default

    names = Seeing()
    nothing: dict[str, str] = {}
    respelled(text, Spelling(names, nothing, nothing, lambda name, value, given: value))
    return seen


class _Respelling:
    def __init__(self, spelling: Spelling) -> None:
        self.spelling = spelling

    def group(self, group: Group) -> str:
        """A group with its brackets."""
        opened = group.open.space + group.open.text if group.open is not None else ""
        closed = group.close.space + group.close.text if group.close is not None else ""
        is_object = group.open is not None and group.open.text == "{"
        parts: list[str] = []
        for segment, sign in _segments(group.parts):
            parts.append(self._segment(segment, is_object))
            if sign is not None:
                parts.append(sign.space + sign.text)
        return f"{opened}{''.join(parts)}{closed}"

    def _segment(self, parts: list[Token | Group], is_object: bool) -> str:
        lead = ""
        if is_object and len(parts) > 1 and _is(parts[1], ":"):
            key, colon = parts[0], parts[1]
            if not isinstance(key, Token) or not isinstance(colon, Token):
                raise Unread("a computed key")
            lead = key.space + key.text + colon.space + colon.text
            parts = parts[2:]
        elif is_object and len(parts) == 1 and isinstance(parts[0], Token):
            only = parts[0]
            value = self._name(only.text)
            return only.space + (only.text if value == only.text else f"{only.text}: {value}")
        pieces = _split(parts, "|")
        value = self._plain(pieces[0])
        for piece in pieces[1:]:
            value = self._piped(value, piece)
        return lead + value

    def _piped(self, value: str, parts: list[Token | Group]) -> str:
        name = parts[0] if parts else None
        if not isinstance(name, Token) or name.kind != "name":
            raise Unread("a pipe without a name")
        given = [self._plain(one).strip() for one in _arguments(parts[1:])]
        space = value[: len(value) - len(value.lstrip())]
        return space + self.spelling.pipe(name.text, value.strip(), given)

    def _plain(self, parts: list[Token | Group]) -> str:
        """An expression without pipes of its own."""
        text: list[str] = []
        at = 0
        while at < len(parts):
            part = parts[at]
            before = parts[at - 1] if at else None
            behind = parts[at + 1] if at + 1 < len(parts) else None
            at += 1
            if isinstance(part, Group):
                text.append(self.group(part))
            elif part.kind == "text" and part.text[0] == "`":
                text.append(part.space + self._literal(part.text))
            elif (
                part.kind == "sign"
                and part.text == "!"
                and _is_value(before)
                and self.spelling.bare
            ):
                continue
            elif part.kind == "sign" and part.text == "=>":
                raise Unread("a function in a template", part.at)
            elif part.kind != "name" or _is(before, ".") or _is(before, "?."):
                text.append(part.space + part.text)
            elif part.text == "$any" and isinstance(behind, Group) and self.spelling.bare:
                inner = self.group(behind)
                at += 1
                simple = re.fullmatch(r"\(\s*([\w$.]+)\s*\)", inner.strip())
                text.append(part.space + (simple[1] if simple else inner))
            elif part.text == "this" and _is(behind, ".") and self.spelling.bare:
                at += 1
                text.append(part.space)
            else:
                taken, more = self._named(part, parts[at:])
                text.append(part.space + more)
                at += taken
        return "".join(text)

    def _literal(self, text: str) -> str:
        """A template literal, its values respelled."""
        if "${" in re.sub(r"\$\{[^{}]*\}|\\.", "", text):
            raise Unread("braces within a template literal")
        return re.sub(
            r"\$\{([^{}]*)\}", lambda found: f"${{{respelled(found[1], self.spelling)}}}", text
        )

    def _named(self, part: Token, rest: list[Token | Group]) -> tuple[int, str]:
        """How many parts behind a name belong to it, and the text for all of that."""
        name, spelling = part.text, self.spelling
        first = rest[0] if rest else None
        if isinstance(first, Group) and first.open is not None and first.open.text == "(":
            if not first.parts and name in spelling.called:
                return 1, spelling.called[name]
        if name in spelling.called and _is(first, ".") and len(rest) > 2:
            method, given = rest[1], rest[2]
            if isinstance(method, Token) and isinstance(given, Group):
                if method.text == "set":
                    inner = self.group(given)[1:-1].strip()
                    return 3, f"{spelling.called[name]} = {inner}"
                if method.text in ("update", "asReadonly", "mutate"):
                    raise Unread(f"{name}.{method.text}()", part.at)
        if name in spelling.emits and _is(first, ".") and len(rest) > 2:
            method, given = rest[1], rest[2]
            if isinstance(method, Token) and method.text == "emit" and isinstance(given, Group):
                inner = self.group(given)[1:-1].strip()
                return 3, f"{spelling.emits[name]}{', ' + inner if inner else ''})"
        return 0, self._name(name)

    def _name(self, name: str) -> str:
        if name in _UNKNOWN or (name == "this" and self.spelling.bare):
            raise Unread(f"`{name}` in a template")
        if name in self.spelling.elements:
            raise Unread(f"the element #{name} in an expression")
        if name in _WORDS or name == "$event":
            return name
        return self.spelling.names.get(name, name) or name


def _segments(parts: list[Token | Group]) -> list[tuple[list[Token | Group], Token | None]]:
    """Parts between commas and semicolons, each with the sign behind it."""
    found: list[tuple[list[Token | Group], Token | None]] = []
    here: list[Token | Group] = []
    for part in parts:
        if isinstance(part, Token) and part.text in (",", ";") and part.kind == "sign":
            found.append((here, part))
            here = []
        else:
            here.append(part)
    return [*found, (here, None)]


def _split(parts: list[Token | Group], sign: str) -> list[list[Token | Group]]:
    found: list[list[Token | Group]] = [[]]
    for part in parts:
        if _is(part, sign):
            found.append([])
        else:
            found[-1].append(part)
    return found


def _arguments(parts: list[Token | Group]) -> list[list[Token | Group]]:
    """The arguments of a pipe: behind each `:` that belongs to no conditional."""
    found: list[list[Token | Group]] = []
    asked = 0
    for part in parts:
        if _is(part, "?"):
            asked += 1
        if _is(part, ":") and not asked:
            found.append([])
            continue
        if _is(part, ":"):
            asked -= 1
        if not found:
            raise Unread("an argument of a pipe")
        found[-1].append(part)
    return found


def _is(part: Token | Group | None, sign: str) -> bool:
    return isinstance(part, Token) and part.kind == "sign" and part.text == sign


def _is_value(part: Token | Group | None) -> bool:
    """Whether something is a value that a sign behind it says more of."""
    if isinstance(part, Group):
        return True
    return isinstance(part, Token) and part.kind in ("name", "number", "text")
