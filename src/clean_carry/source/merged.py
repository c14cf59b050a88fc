"""A file with text of other files written into it, and where each part of it comes from."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable
from dataclasses import dataclass

from clean_carry.component.spans import Place
from clean_carry.source.text import SourceText


@dataclass(frozen=True)
class Edit:
    """`text` in place of what stands from `start` to `end`; `origin` is where it was taken from."""

    start: int
    end: int
    text: str
    origin: Place | None = None


class MergedText(SourceText):
    """A source file after edits that do not overlap. Its places are those of the files people have.

    Inlined code keeps the place it was taken from, or the place of the code it replaces.
    `taken` are offsets of the new text with the words for what was written in there, `refused` and `noted`
    findings of who changed it: rule, detail, offset of the new text.
    """

    def __init__(self, source: SourceText, edits: Iterable[Edit]) -> None:
        ordered = sorted(edits, key=lambda edit: (edit.start, edit.end))
        parts: list[bytes] = []
        # Where a part begins here and in the old file; the place of one that is not of the old file.
        self._parts: list[tuple[int, int, Place | None]] = []
        self._old = source
        self.taken: dict[int, str] = {}
        before = source.taken if isinstance(source, MergedText) else {}
        here = size = 0
        for edit in ordered:
            self._parts.append((size, here, None))
            parts.append(source.data[here : edit.start])
            size += len(parts[-1])
            if edit.text:
                self._parts.append((size, edit.start, edit.origin or source.place(edit.start)))
                parts.append(edit.text.encode("utf-8"))
                size += len(parts[-1])
            here = edit.end
        self._parts.append((size, here, None))
        parts.append(source.data[here:])
        super().__init__(source.path, b"".join(parts))
        self.bom, self.crlf = source.bom, source.crlf
        self._begins = [begin for begin, _, _ in self._parts]
        self.taken |= {self.moved(at): words for at, words in before.items()}
        self.refused = self._findings(source, "refused")
        self.noted = self._findings(source, "noted")

    def _findings(self, source: SourceText, kind: str) -> list[tuple[str, str, int]]:
        """The findings of an old text, where they are now."""
        found: list[tuple[str, str, int]] = getattr(source, kind, [])
        return [(rule, detail, self.moved(at)) for rule, detail, at in found]

    def place(self, offset: int) -> Place:
        """Line and column in the file the text at an offset comes from."""
        begin, old, place = self._parts[bisect_right(self._begins, offset) - 1]
        return place or self._old.place(old + offset - begin)

    def moved(self, offset: int) -> int:
        """Where what stood at an offset of the old file stands now."""
        begin, old, _ = next(
            part for part in reversed(self._parts) if part[1] <= offset and part[2] is None
        )
        return begin + offset - old
