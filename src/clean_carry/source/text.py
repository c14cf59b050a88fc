"""Source files as bytes: encoding, line endings, places."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable
from itertools import accumulate
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.component.spans import Place, Span

BOM = b"\xef\xbb\xbf"
# A line longer than this is generated code, not something a person wrote or will review.
LONGEST_LINE = 200_000

# Every byte but the end of a line.
_BLANK = bytes(10 if byte == 10 else 32 for byte in range(256))


def require_file(path: Path, shown: str) -> None:
    """Raise `InputError` for what is there and no file: reading a pipe or a device may never end."""
    if path.exists() and not path.is_file():
        raise InputError("is a pipe or a device, and no file", file=shown)


class SourceText:
    """One source file. `data` is UTF-8 without byte order mark.

    Where all line endings are CRLF they are LF in `data`; `encode` puts mark and endings back.
    """

    def __init__(self, path: str, data: bytes) -> None:
        self.path = path
        self.bom = data.startswith(BOM)
        if self.bom:
            data = data[len(BOM) :]
        lines = data.count(b"\n")
        self.crlf = lines > 0 and data.count(b"\r\n") == lines
        self.data = data.replace(b"\r\n", b"\n") if self.crlf else data
        self._starts: list[int] | None = None
        self._plain = False

    @classmethod
    def read(cls, path: Path, shown: str = "") -> SourceText:
        """Read a file; raises `InputError` for what is not UTF-8 source text."""
        name = shown or str(path)
        if path.is_dir():
            raise InputError("is a folder", advice="Name the files in it", file=name)
        require_file(path, name)
        try:
            data = path.read_bytes()
        except FileNotFoundError:
            raise InputError("there is no such file", file=name) from None
        except OSError as error:
            raise InputError(f"cannot be read ({error.strerror})", file=name) from None
        return cls.checked(name, data)

    @classmethod
    def checked(cls, name: str, data: bytes) -> SourceText:
        """Check bytes for being source text; raises `InputError` if they are not."""
        if not data.strip():
            raise InputError("is empty", file=name)
        if b"\0" in data:
            raise InputError("is not text (it holds NUL bytes)", file=name)
        try:
            data.decode("utf-8")
        except UnicodeDecodeError as error:
            line = data.count(b"\n", 0, error.start) + 1
            raise InputError(
                "is not UTF-8", advice="Save it as UTF-8", file=name, line=line, column=1
            ) from None
        lines = data.split(b"\n") if len(data) > LONGEST_LINE else ()
        for number, line_text in enumerate(lines, 1):
            if len(line_text) > LONGEST_LINE:
                raise InputError(
                    f"has a line of {len(line_text):,} bytes",
                    advice="Generated files are not carried; carry what they were made from",
                    file=name,
                    line=number,
                    column=1,
                )
        return cls(name, data)

    def encode(self, text: str) -> bytes:
        """Bytes for a file that replaces this one: same mark, same line endings."""
        data = text.encode("utf-8")
        if self.crlf:
            data = data.replace(b"\n", b"\r\n")
        return BOM + data if self.bom else data

    def slice(self, start: int, end: int) -> str:
        """The text between two byte offsets."""
        return self.data[start:end].decode("utf-8")

    def blanked(self, kept: Iterable[tuple[int, int]] = ()) -> bytearray:
        """The bytes with everything blank but line ends and the ranges kept: offsets stay the same."""
        view = bytearray(self.data.translate(_BLANK))
        for start, end in kept:
            view[start:end] = self.data[start:end]
        return view

    def span(self, start: int, end: int) -> Span:
        """A span of this file."""
        return Span(start, end, self.path)

    def place(self, offset: int) -> Place:
        """Line and column of a byte offset."""
        starts = self._line_starts()
        line = bisect_right(starts, offset)
        start = starts[line - 1]
        if self._plain:
            return Place(self.path, line, max(0, offset - start) + 1)
        return Place(self.path, line, len(self.slice(start, max(start, offset))) + 1)

    def line_of(self, offset: int) -> int:
        """The line of a byte offset, counted from 1."""
        return bisect_right(self._line_starts(), offset)

    def _line_starts(self) -> list[int]:
        if self._starts is None:
            sizes = (len(line) + 1 for line in self.data.split(b"\n"))
            self._starts = list(accumulate(sizes, initial=0))[:-1]
            self._plain = self.data.isascii()
        return self._starts

    def statement_line(self, start: int, end: int) -> Span:
        """A statement with its indentation, the line end after it and one blank line before."""
        data = self.data
        line = self.line_start(start)
        if not data[line:start].strip():
            start = line
        while end < len(data) and data[end : end + 1] in (b" ", b"\t", b";"):
            end += 1
        if data[end : end + 1] == b"\n":
            end += 1
            if data[:start].endswith(b"\n\n") and data[end : end + 1] == b"\n":
                end += 1
        return self.span(start, end)

    def line_start(self, offset: int) -> int:
        """Offset of the first byte of the line that holds `offset`."""
        return self.data.rfind(b"\n", 0, offset) + 1

    def indent_at(self, offset: int) -> str:
        """White space at the start of the line that holds `offset`."""
        start = self.line_start(offset)
        end = start
        while end < len(self.data) and self.data[end] in b" \t":
            end += 1
        return self.slice(start, end)
