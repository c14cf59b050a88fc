"""Flow syntax that the grammar does not know, replaced by filler of equal length.

The grammar reads TypeScript's types. Most of Flow's are written alike; the rest is filled so that what
stands around it can be read, in three steps of which the first that does is taken: single marks anywhere,
parts of declared types, and whole declared types. Text is always sliced from the original.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

# The variance of a field, a question mark before a parenthesis or for an argument without a name, an opaque
# type, a predicate, an imported type of a value, no type arguments, any type: all of them things that
# JavaScript never writes.
_ANNOTATIONS = (
    (re.compile(rb"(?<=[{|,;\n])\s*([+-])(?=\w+\??\s*:)"), b" "),
    (re.compile(rb"(?<=[:|(,<=])\s*(\?)(?=\s*\()"), b" "),
    (re.compile(rb"(?<=[(,])\s*(\?)(?=\s*[\w{$'\"])"), b" "),
    (re.compile(rb"\b(opaque)(?=\s+type\b)"), b" "),
    (re.compile(rb"(%checks)\b"), b" "),
    (re.compile(rb"\bimport\s+(typeof)\b"), b"type  "),
    (re.compile(rb"(?<=\w)(<>)"), b" "),
    (re.compile(rb"<(\*)>"), b"_"),
)
# In a declared type: the fields of another one, any type.
_IN_TYPES = (
    (re.compile(rb"(\.\.\.\s*[$\w.]+(?:<[^<>]*(?:<[^<>]*>)?[^<>]*>)?\s*,?)"), b" "),
    (re.compile(rb"[<,]\s*(\*)(?=\s*[>,])"), b"_"),
)
_BOUND = re.compile(rb"(?<=[<,])\s*[+-]?\w+\s*(:\s*[^=,<>]+?)\s*(?=[=,>])")
# A function of one argument without parentheses: `string => Node`.
_ONE_ARGUMENT = re.compile(rb"(?<![\w$.)\]}>])(?:\s|^)([$\w.]{2,})(?=\s*=>)")
_DECLARED = re.compile(rb"^[ \t]*(?:export[ \t]+)?(?:declare[ \t]+)?type[ \t]+[$\w]+", re.MULTILINE)
_OPENING, _CLOSING = b"([{<", b")]}>"
# Behind these, and before those, a type goes on in the next line.
_GOES_ON_AFTER, _GOES_ON_BEFORE = b"=|&:?>,", b"|&=?:."


def with_marks_filled(data: bytes) -> bytes:
    """The text with single marks filled that stand for themselves."""
    filled = bytearray(data)
    _fill(filled, _ANNOTATIONS, 0, len(data))
    return bytes(filled)


def with_types_mended(data: bytes) -> bytes:
    """The text with those parts of declared types filled that the grammar does not know."""
    filled = bytearray(with_marks_filled(data))
    for start, begin, end in _declared_types(data):
        _fill(filled, ((_BOUND, b" "),), start, begin)
        _fill(filled, _IN_TYPES, begin, end)
        _fill_arguments(filled, begin, end)
        for found in _ONE_ARGUMENT.finditer(bytes(filled[begin:end])):
            size = found.end(1) - found.start(1)
            filled[begin + found.start(1) : begin + found.end(1)] = b"(" + b" " * (size - 2) + b")"
    return bytes(filled)


def without_types(data: bytes) -> bytes:
    """The text with all that declared types say filled: each of them may be anything."""
    filled = bytearray(with_marks_filled(data))
    for start, begin, end in _declared_types(data):
        _fill(filled, ((_BOUND, b" "),), start, begin)
        for at in range(begin, end):
            if filled[at] not in b"\r\n":
                filled[at : at + 1] = b" "
        room = re.search(rb" {3}", bytes(filled[begin:end]))
        if room is not None:
            filled[begin + room.start() : begin + room.end()] = b"any"
    return bytes(filled)


def _fill(
    filled: bytearray, rows: tuple[tuple[re.Pattern[bytes], bytes], ...], low: int, high: int
) -> None:
    for pattern, filler in rows:
        for found in pattern.finditer(bytes(filled[low:high])):
            text = found.group(1)
            size = len(text)
            kept = bytes(c if c in b"\r\n" else 32 for c in text)
            filled[low + found.start(1) : low + found.end(1)] = (
                kept if filler == b" " else (filler * size)[:size]
            )


def _fill_arguments(filled: bytearray, low: int, high: int) -> None:
    """Empty the parentheses of functions: arguments may be patterns or types without a name."""
    at = low
    while at < high:
        if filled[at : at + 1] == b"(":
            end = _closing(filled, at, high)
            if end < high and re.match(rb"\)\s*=>", bytes(filled[end : end + 40])):
                for inside in range(at + 1, end):
                    if filled[inside] not in b"\r\n":
                        filled[inside : inside + 1] = b" "
                at = end
        at += 1


def _closing(data: bytearray, at: int, high: int) -> int:
    """Where what opens at a place closes; `high` where it does not."""
    depth = 0
    for here, char in _code(data, at, high):
        if char in _OPENING:
            depth += 1
        elif char in _CLOSING:
            depth -= 1
            if depth == 0:
                return here
    return high


def _declared_types(data: bytes) -> Iterator[tuple[int, int, int]]:
    """(end of the name, start and end of what is said) of the types a file declares."""
    for found in _DECLARED.finditer(data):
        begin = _assigned(data, found.end())
        if begin >= 0:
            yield found.end(), begin, _end_of_type(data, begin)


def _assigned(data: bytes, at: int) -> int:
    """Behind the sign that gives a type, past its parameters; -1 where there is none."""
    depth = 0
    for here, char in _code(data, at, min(len(data), at + 2000)):
        depth += (char in _OPENING) - (char in _CLOSING)
        if char == b"=" and depth == 0:
            return here + 1
        if char == b";" and depth <= 1:
            return -1
    return -1


def _end_of_type(data: bytes, begin: int) -> int:
    depth, last = 0, b"="
    for here, char in _code(data, begin, len(data)):
        if char == b";" and depth == 0:
            return here
        if char == b"\n":
            if depth == 0 and last not in _GOES_ON_AFTER and not _goes_on(data, here):
                return here
            continue
        depth += (char in _OPENING) - (char in _CLOSING)
        if depth < 0:
            return here
        if not char.isspace():
            last = char
    return len(data)


def _goes_on(data: bytes, at: int) -> bool:
    for _, char in _code(data, at, len(data)):
        if not char.isspace():
            return char in _GOES_ON_BEFORE
    return False


def _code(data: bytes | bytearray, low: int, high: int) -> Iterator[tuple[int, bytes]]:
    """Each character that stands in no comment and no string, with its place; arrows left out."""
    at = low
    while at < high:
        two, char = bytes(data[at : at + 2]), bytes(data[at : at + 1])
        if two in (b"//", b"/*"):
            ends = data.find(b"\n" if two == b"//" else b"*/", at + 2)
            at = high if ends < 0 else ends + (0 if two == b"//" else 2)
            continue
        if char in (b"'", b'"', b"`"):
            ends = data.find(char, at + 1)
            at = high if ends < 0 else ends + 1
            yield at - 1, char
            continue
        if two == b"=>":
            yield at + 1, b"="
            at += 2
            continue
        yield at, char
        at += 1
