"""Edits of files: collected, then applied to each file at once."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.source.text import SourceText


@dataclass(frozen=True)
class Left:
    """A use that is left to a person: its place, what it is, and what to do."""

    file: str
    line: int
    what: str
    advice: str

    def as_json(self) -> dict[str, object]:
        """The JSON shape: {"file", "line", "what", "advice"}."""
        return vars(self)


@dataclass
class Plan:
    """A change of several files. `files` are their new texts by path, None for those that go; `old` are the
    texts of before, None for new files; `left` are the uses that stay as they are."""

    files: dict[Path, str | None] = field(default_factory=dict)
    old: dict[Path, str | None] = field(default_factory=dict)
    left: list[Left] = field(default_factory=list)

    def put(self, path: Path, text: str | None) -> None:
        """Give a file a new text; None takes it away."""
        if path not in self.old:
            source = SourceText.read(path) if path.is_file() else None
            self.old[path] = source.slice(0, len(source.data)) if source is not None else None
        self.files[path] = text

    def data(self) -> dict[Path, bytes | None]:
        """The bytes to write: with the line endings and the mark of the file of before."""
        found: dict[Path, bytes | None] = {}
        for path, text in self.files.items():
            if text is None:
                found[path] = None
            elif self.old[path] is not None:
                found[path] = SourceText.read(path).encode(text)
            else:
                found[path] = text.encode()
        return found


class Edits:
    """Replacements in files, by byte offsets of their texts."""

    def __init__(self) -> None:
        self._edits: dict[str, dict[tuple[int, int], str]] = defaultdict(dict)

    def replace(self, file: str, start: int, end: int, text: str) -> None:
        """Write `text` in place of a stretch; the same stretch is replaced once."""
        self._edits[file][start, end] = text

    def apply(self, plan: Plan) -> None:
        """Put the edited files into a plan."""
        for file, edits in self._edits.items():
            path = Path(file)
            source = SourceText.read(path)
            data = bytearray(source.data)
            for (start, end), text in sorted(edits.items(), reverse=True):
                data[start:end] = text.encode()
            plan.put(path, data.decode())
