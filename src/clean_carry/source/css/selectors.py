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
# What another scoping dialect writes in selectors; its meaning is not ours to guess.
FOREIGN = (b":deep", b"::v-deep", b">>>", b"/deep/", b":slotted", b":global", b"v-bind(", b"&")


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


def scope_places(data: bytes, start: int, end: int) -> list[int]:
    """Where, in each selector, a scoping attribute goes: before the pseudo of the last compound."""
    return [place for low, high in preludes(data, start, end) for place in _places(data, low, high)]


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
