"""Where the selectors of a stylesheet are (CSS Syntax Level 3 §5): our own scanner, byte-exact."""

from __future__ import annotations

import re
from collections.abc import Iterator

_LEXEME = re.compile(
    rb"/\*.*?(?:\*/|\Z)|\"(?:[^\"\\\n]|\\.)*\"?|'(?:[^'\\\n]|\\.)*'?"
    rb"|url\(\s*[^\"'\s)][^)]*\)|\\.|[{};()\[\],]|::?[\w-]*|\s*[>+~]\s*|\s+",
    re.DOTALL,
)
# At-rules whose block holds rules (CSS Conditional, Cascade and Containment).
_NESTING = (b"@media", b"@supports", b"@layer", b"@container")
# Forms of a scoping dialect in selectors: below the scope, and outside of it.
_BELOW = re.compile(rb"(?:::?v-deep|:deep)(\()|(?:::v-deep(?![\w(-])|>>>|/deep/)\s*")
_OUTSIDE = re.compile(rb"(?:::?v-global|:global)\(")
# Content of a slot is of another scope, `&` of another language, v-bind() of another file.
FOREIGN_ANYWHERE = (b"v-bind(",)
FOREIGN = (b":slotted", b"::v-slotted", *FOREIGN_ANYWHERE, b"&")

Splice = tuple[int, int, bytes]


def preludes(data: bytes, start: int, end: int) -> Iterator[tuple[int, int]]:
    """(start, end) of the selector list of every style rule, at-rules entered."""
    opened: list[bytes] = []
    here = start
    for found in _LEXEME.finditer(data, start, end):
        word = found.group()
        if word == b";":
            here = found.end()
        elif word == b"{":
            low, high = _trimmed(data, here, found.start())
            prelude = data[low:high]
            inside = all(name.startswith(_NESTING) for name in opened)
            if inside and prelude and not prelude.startswith(b"@"):
                yield low, high
            opened.append(prelude if prelude.startswith(b"@") else b"rule")
            here = found.end()
        elif word == b"}":
            if opened:
                opened.pop()
            here = found.end()


def scope_splices(data: bytes, start: int, end: int, mark: bytes) -> list[Splice] | int:
    """(start, end, new bytes) that hold each selector to the elements with an attribute.

    The attribute goes before the pseudo of the last compound that lies in the scope. Gives an offset
    instead where a selector is not understood.
    """
    found: list[Splice] = []
    for low, high in preludes(data, start, end):
        for first, last in _selectors(data, low, high):
            here = _spliced(data, first, last, mark)
            if here is None:
                return first
            found += here
    return found


def _spliced(data: bytes, low: int, high: int, mark: bytes) -> list[Splice] | None:
    """The splices of one selector, None where it is not understood."""
    text = data[low:high]
    outside = _OUTSIDE.match(text)
    if outside is not None:
        if not text.endswith(b")") or _OUTSIDE.search(text, outside.end()) or _BELOW.search(text):
            return None
        return [(low, low + outside.end(), b""), (high - 1, high, b"")]
    below = _BELOW.search(text)
    if below is None:
        return None if _OUTSIDE.search(text) else [(next(_places(data, low, high)),) * 2 + (mark,)]
    if _BELOW.search(text, below.end()) or _OUTSIDE.search(text):
        return None
    cut = low + below.start()
    before = data[low:cut].rstrip()
    if before.count(b"(") != before.count(b")"):
        return None
    place = next(_places(data, low, low + len(before))) if before else low
    splices = [(place, place, mark), (low + len(before), low + below.end(), b" ")]
    if below[1]:
        close = _closing(data, low + below.end(), high)
        if close is None:
            return None
        splices.append((close, close + 1, b""))
    return splices


def _closing(data: bytes, low: int, high: int) -> int | None:
    """Where the bracket that was opened before `low` is closed."""
    depth = 1
    for found in _LEXEME.finditer(data, low, high):
        depth += {b"(": 1, b")": -1}.get(found.group(), 0)
        if not depth:
            return found.start()
    return None


def _selectors(data: bytes, low: int, high: int) -> Iterator[tuple[int, int]]:
    """(start, end) of the selectors of a list, without the space around them."""
    depth, here = 0, low
    for found in _LEXEME.finditer(data, low, high):
        word = found.group()
        depth += (word in (b"(", b"[")) - (word in (b")", b"]"))
        if word == b"," and not depth:
            yield _trimmed(data, here, found.start())
            here = found.end()
    yield _trimmed(data, here, high)


def _places(data: bytes, low: int, high: int) -> Iterator[int]:
    depth, place, pseudo = 0, low, False
    here = low
    for found in _LEXEME.finditer(data, low, high):
        word = found.group()
        if word.startswith((b"/*",)):
            continue
        if depth == 0 and not pseudo and found.start() > here:
            place = found.start()
        here = found.end()
        if word in (b"(", b"["):
            depth += 1
        elif word in (b")", b"]"):
            depth -= 1
            if depth == 0 and not pseudo:
                place = found.end()
        elif depth == 0 and word == b",":
            yield place
            place, pseudo = found.end(), False
        elif depth == 0 and word.startswith(b":"):
            pseudo = True
        elif depth == 0 and (word.isspace() or word.strip() in (b">", b"+", b"~")):
            pseudo = False
    if depth == 0 and not pseudo and high > here:
        place = high
    yield place


def _trimmed(data: bytes, low: int, high: int) -> tuple[int, int]:
    space = re.compile(rb"(?:\s+|/\*.*?\*/)*", re.DOTALL).match(data, low, high)
    low = space.end() if space is not None else low
    while high > low and data[high - 1 : high].isspace():
        high -= 1
    return low, high
