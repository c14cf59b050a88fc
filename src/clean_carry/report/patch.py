"""A unified diff that the version control system applies: files made, changed and deleted."""

from __future__ import annotations

import difflib
import os
import re
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

_NO_NEWLINE = b"\\ No newline at end of file\n"
# Names with such characters are quoted as in C.
_QUOTED = re.compile(r'[\x00-\x1f"\\\x7f]')
_ESCAPES = {"\n": "\\n", "\t": "\\t", '"': '\\"', "\\": "\\\\"}


@dataclass(frozen=True)
class Change:
    """A file's bytes before (None: there is no file) and after (None: it is deleted)."""

    path: Path
    before: bytes | None
    after: bytes | None


def patch(changes: Sequence[Change]) -> bytes:
    """The diff. Paths are relative to the top of the checkout the files are in, else to the folder
    the program runs in; lines end as the files' own do."""
    out: list[bytes] = []
    for change in changes:
        if change.before == change.after:
            continue
        path = _relative(change.path)
        named = [_name(f"{side}/{path}") for side in ("a", "b")]
        out.append(b"diff --git " + b" ".join(named) + b"\n")
        if change.before is None:
            out.append(b"new file mode 100644\n")
            named[0] = b"/dev/null"
        if change.after is None:
            out.append(b"deleted file mode 100644\n")
            named[1] = b"/dev/null"
        if change.before is None and not change.after:
            continue
        # A name with a space ends with a tab, so that nothing behind it counts.
        ends = [b"\t\n" if b" " in name else b"\n" for name in named]
        out += [b"--- " + named[0] + ends[0], b"+++ " + named[1] + ends[1]]
        out += _hunks(_lines(change.before or b""), _lines(change.after or b""))
    return b"".join(out)


def _lines(data: bytes) -> list[bytes]:
    parts = data.split(b"\n")
    lines = [part + b"\n" for part in parts[:-1]]
    return [*lines, parts[-1]] if parts[-1] else lines


def _hunks(old: list[bytes], new: list[bytes]) -> list[bytes]:
    # The sequence matcher wants text: every byte is a letter of its own.
    ours, theirs = ([line.decode("latin-1") for line in side] for side in (old, new))
    hunks = list(difflib.unified_diff(ours, theirs))[2:]
    found = []
    for line in hunks:
        data = line.encode("latin-1")
        found.append(data if data.endswith(b"\n") else data + b"\n" + _NO_NEWLINE)
    return found


def _relative(path: Path) -> str:
    whole = path.resolve()
    top = next((up for up in whole.parents if (up / ".git").exists()), Path.cwd())
    return Path(os.path.relpath(whole, top.resolve())).as_posix()


def _name(path: str) -> bytes:
    if not _QUOTED.search(path):
        return path.encode()
    quoted = _QUOTED.sub(lambda m: _ESCAPES.get(m[0]) or f"\\{ord(m[0]):03o}", path)
    return f'"{quoted}"'.encode()
