"""Written text in pieces: copied from a span, or new by a rule on behalf of a ledger entry.

A writer can emit nothing else, so that the ledger can be closed against what was written.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import NamedTuple

from clean_carry.component.code import Operation
from clean_carry.component.ledger import Ledger, Outcome
from clean_carry.component.spans import Span


class Piece(NamedTuple):
    """Copied text (`span`), or new `text` for `entry` by `rule`. `shift` is in indentation levels."""

    span: Span | None = None
    text: str = ""
    entry: int = -1
    rule: str = ""
    outcome: Outcome = "carried"
    shift: int = 0


class Fragment:
    """A sequence of pieces; `+` joins two."""

    __slots__ = ("pieces",)

    def __init__(self, pieces: Iterable[Piece] = ()) -> None:
        self.pieces = tuple(pieces)

    def __add__(self, other: Fragment) -> Fragment:
        return Fragment(self.pieces + other.pieces)

    def __bool__(self) -> bool:
        return bool(self.pieces)

    def shifted(self, levels: int) -> Fragment:
        """The same text, this many indentation levels deeper (or less deep)."""
        if levels == 0:
            return self
        return Fragment(piece._replace(shift=piece.shift + levels) for piece in self.pieces)


def copy(span: Span) -> Fragment:
    """Text copied from the source."""
    return Fragment([Piece(span=span)]) if span.end > span.start else Fragment()


def new(text: str, entry: int = -1, rule: str = "") -> Fragment:
    """New text, written by a rule for an entry (or for the whole component: no entry)."""
    return Fragment([Piece(text=text, entry=entry, rule=rule)])


def dropped(entry: int, rule: str) -> Fragment:
    """Nothing, because a rule on the closed list says so."""
    return Fragment([Piece(entry=entry, rule=rule, outcome="dropped")])


def settled(entry: int, rule: str, outcome: Outcome = "carried") -> Fragment:
    """Nothing here: the entry's meaning is written elsewhere by this rule."""
    return Fragment([Piece(entry=entry, rule=rule, outcome=outcome)])


def left(text: str, entry: int, rule: str) -> Fragment:
    """A marked place left to a person."""
    return Fragment([Piece(text=text, entry=entry, rule=rule, outcome="left")])


def joined(parts: Iterable[Fragment], between: str) -> Fragment:
    """Fragments with the same new text between each two."""
    pieces: list[Piece] = []
    for number, part in enumerate(parts):
        if number:
            pieces.append(Piece(text=between))
        pieces.extend(part.pieces)
    return Fragment(pieces)


def with_comments(
    line: Fragment, comments: Iterable[Span], shift: Callable[[int], int], newline: str
) -> Fragment:
    """Put the comments of a statement back: those before it above, those behind its last part behind it.

    `shift` gives the change of indentation, in levels, for a comment that starts at a byte offset.
    """
    above, behind = Fragment(), Fragment()
    starts = [piece.span.start for piece in line.pieces if piece.span is not None]
    for comment in comments:
        if starts and comment.start > max(starts):
            behind += new(" ") + copy(comment)
        else:
            above += copy(comment).shifted(shift(comment.start)) + new(newline)
    return above + line + behind


def length(fragment: Fragment) -> int:
    """How many characters (bytes, of what is copied) a fragment has."""
    return sum(
        len(p.text) if p.span is None else p.span.end - p.span.start for p in fragment.pieces
    )


def breaks(fragment: Fragment, slice_: Callable[[int, int], str]) -> bool:
    """Whether a fragment stands on more than one line."""
    return any(
        "\n" in (p.text if p.span is None else slice_(p.span.start, p.span.end))
        for p in fragment.pieces
    )


def between(
    span: Span, operations: Iterable[Operation], spell: Callable[[Operation], Fragment]
) -> Fragment:
    """Verbatim text of a span with the operations in it spelled."""
    result = Fragment()
    here = span.start
    for operation in operations:
        result += copy(span._replace(start=here, end=operation.span.start)) + spell(operation)
        here = operation.span.end
    return result + copy(span._replace(start=here))


def render(
    fragment: Fragment,
    slice_of: Callable[[int, int], str],
    unit: str,
    fixed: Callable[[int, int], list[tuple[int, int]]],
) -> str:
    """The text of a fragment.

    `unit` is one level of indentation; `fixed` gives the byte ranges within a span whose white
    space is content (template literals, multi-line strings) and is never shifted.
    """
    out: list[str] = []
    for piece in fragment.pieces:
        if piece.span is None and not piece.text:
            continue
        if piece.span is None:
            out.append(_shift(piece.text, piece.shift, unit))
            continue
        start, end, _ = piece.span
        if piece.shift == 0:
            out.append(slice_of(start, end))
            continue
        # A copied line may begin where another one was taken out.
        opens = bool(out) and out[-1].endswith("\n")
        for low, high in fixed(start, end):
            low, high = max(low, start), min(high, end)
            out.append(_shift(slice_of(start, low), piece.shift, unit, opens))
            out.append(slice_of(low, high))
            start, opens = high, False
        out.append(_shift(slice_of(start, end), piece.shift, unit, opens))
    return "".join(out)


def _shift(text: str, levels: int, unit: str, opens: bool = False) -> str:
    """Text with its lines moved; the first one as well where it `opens` a line."""
    if opens and levels:
        return _shift(f"\n{text}", levels, unit)[1:]
    if levels == 0 or "\n" not in text:
        return text
    head, *lines = text.split("\n")
    moved = [head]
    for number, line in enumerate(lines):
        last = number == len(lines) - 1
        if levels > 0:
            moved.append(unit * levels + line if line.strip() or last else line)
        else:
            for _ in range(-levels):
                if line.startswith(unit):
                    line = line[len(unit) :]
                elif line[:1] == "\t":
                    line = line[1:]
                else:
                    line = line[min(len(unit), len(line) - len(line.lstrip(" "))) :]
            moved.append(line)
    return "\n".join(moved)


def settle(fragment: Fragment, ledger: Ledger) -> None:
    """Settle every entry the fragment speaks for, and close the ledger against its copies.

    Raises `UnsettledEntry` where the ledger does not balance.
    """
    copied: list[tuple[int, int]] = []
    for piece in fragment.pieces:
        if piece.span is not None and piece.span.file == ledger.file:
            copied.append((piece.span.start, piece.span.end))
        if piece.entry >= 0:
            ledger.settle(piece.entry, piece.outcome, piece.rule)
    ledger.close(copied)
