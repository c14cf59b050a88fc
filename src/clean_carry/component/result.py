"""The result of carrying a component: status, files, ledger, interface, findings."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal, NamedTuple

from clean_carry.component.findings import Finding
from clean_carry.component.interface import InterfaceMap

OUTCOMES = ("kept", "carried", "dropped", "left")
Status = Literal["clean", "left", "refused"]


@dataclass(frozen=True)
class NewFile:
    """A file the crossing made. `data` are its bytes, `text` its text without byte order mark.

    `edits` are what was changed of `base`, the bytes of another file of the project: (start, end, new
    bytes). Several crossings may change the same one, each in its own places.
    """

    path: str
    text: str
    data: bytes
    base: bytes = b""
    edits: tuple[tuple[int, int, bytes], ...] = ()

    def with_edits(self, more: tuple[tuple[int, int, bytes], ...]) -> NewFile:
        """The same file with what other crossings changed of its base."""
        merged = tuple(sorted({*self.edits, *more}))
        out, here = bytearray(), 0
        for start, end, new in merged:
            out += self.base[here:start] + new
            here = end
        data = bytes(out + self.base[here:])
        return NewFile(self.path, data.decode("utf-8", "replace"), data, self.base, merged)


class LedgerEntry(NamedTuple):
    """One entry of the ledger as a report shows it."""

    notion: str
    line: int
    column: int
    outcome: str
    rule: str


@dataclass(frozen=True)
class Result:
    """One component's crossing; `digest` is that of the bytes it was carried from (SHA-256)."""

    source: str
    component: str
    origin: str
    target: str
    status: Status
    files: tuple[NewFile, ...] = ()
    counts: dict[str, int] = field(default_factory=lambda: dict.fromkeys(OUTCOMES, 0))
    entries: tuple[LedgerEntry, ...] = ()
    interface: InterfaceMap = field(default_factory=InterfaceMap)
    findings: tuple[Finding, ...] = ()
    digest: str = ""

    def as_json(self) -> dict[str, Any]:
        """The JSON shape of `carry --json`."""
        return {
            "source": self.source,
            "component": self.component,
            "from": self.origin,
            "to": self.target,
            "status": self.status,
            "files": [{"path": f.path, "text": f.text} for f in self.files],
            "ledger": {
                **self.counts,
                "entries": [entry._asdict() for entry in self.entries],
            },
            "interface": self.interface.as_json(),
            "findings": [finding.as_json() for finding in self.findings],
        }
