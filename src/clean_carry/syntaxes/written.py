"""The result of a writer: new files in pieces, each with the ledger that they must balance."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.component.fragment import Fragment, copy, render, settle
from clean_carry.component.interface import InterfaceMap
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal
from clean_carry.component.replacements import Replacements
from clean_carry.component.result import NewFile
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText

# A note of a writer: rule, detail, offset in the file that was read.
Note = tuple[str, str, int]


def _nothing_fixed(start: int, end: int) -> list[tuple[int, int]]:
    return []


def _as_it_is(text: str) -> str:
    return text


@dataclass(frozen=True)
class NewText:
    """A file to be written.

    `unit` is one level of its indentation, `fixed` gives byte ranges whose white space is content, `finish`
    goes over the whole text. `edits` are what was changed of a file of the project that others may change
    as well. A file that is not `shown` is part of the ledger alone.
    """

    path: str
    fragment: Fragment
    source: SourceText
    ledger: Ledger
    unit: str = ""
    fixed: Callable[[int, int], list[tuple[int, int]]] = _nothing_fixed
    finish: Callable[[str], str] = _as_it_is
    edits: Replacements | None = None

    def file(self) -> NewFile:
        """The bytes to be written."""
        text = self.finish(render(self.fragment, self.source.slice, self.unit, self.fixed))
        if self.edits is None:
            return NewFile(self.path, text, self.source.encode(text))
        edits = tuple((a, b, new.encode()) for a, b, new in self.edits.as_edits())
        return NewFile(self.path, text, self.source.encode(text), self.source.data, edits)


@dataclass(frozen=True)
class Written:
    """The files a writer made of the components `carried`; those `refused` are not in them.

    `interfaces` and `notes` go by where a component starts. The first file is the one the components are
    in. The entries of files of one ledger are checked together.
    """

    files: tuple[NewText, ...]
    carried: tuple[Component, ...]
    refused: tuple[Refusal, ...]
    interfaces: dict[int, InterfaceMap] = field(default_factory=dict)
    notes: dict[int, list[Note]] = field(default_factory=dict)

    def settle(self) -> None:
        """Settle and close every ledger; raises `UnsettledEntry` where one does not balance."""
        ledgers = {id(new.ledger): new.ledger for new in self.files}
        for key, ledger in ledgers.items():
            own = (new.fragment.pieces for new in self.files if id(new.ledger) == key)
            settle(Fragment(piece for pieces in own for piece in pieces), ledger)

    def new_files(self) -> tuple[NewFile, ...]:
        """The files to write; none where nothing was carried. One without text is not written."""
        made = [new.file() for new in self.files] if self.carried else []
        return tuple(file for number, file in enumerate(made) if file.text or not number)


def unchanged(source: SourceText, ledger: Ledger, refused: tuple[Refusal, ...]) -> Written:
    """Nothing is carried: all of the file is kept."""
    for entry in ledger.entries:
        entry.outcome, entry.rule = "kept", ""
    whole = copy(source.span(0, len(source.data)))
    return Written((NewText(source.path, whole, source, ledger),), (), refused)


def beside(path: str, suffix: str, ending: str = "") -> str:
    """The stated rule for a file beside the old one: the target's suffix before the ending."""
    folder, slash, name = path.replace("\\", "/").rpartition("/")
    _, dot, old = name.rpartition(".")
    return f"{folder}{slash}{stem_of(name)}.{suffix}{dot}{ending or old}"


def stem_of(name: str) -> str:
    """The name of a file without its ending, and without the suffix of an old form."""
    stem = name.rpartition(".")[0]
    for own in (".class", ".object", ".blade"):
        stem = stem.removesuffix(own)
    return stem


def orphaned_comments(fragment: Fragment, ledger: Ledger, span: Span) -> list[Span]:
    """The comments of a component that are not among what was copied: their surroundings went away."""
    copied = sorted((p.span.start, p.span.end) for p in fragment.pieces if p.span is not None)
    starts = [start for start, _ in copied]
    found: list[Span] = []
    for entry in ledger.entries:
        if entry.notion != "comment" or not span.holds(entry.span):
            continue
        at = bisect_right(starts, entry.span.start) - 1
        if at < 0 or copied[at][1] < entry.span.end:
            found.append(entry.span)
    return found
