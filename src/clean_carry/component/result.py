"""What carrying a component gave: status, files, ledger, interface, findings."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from clean_carry.component.findings import Finding
from clean_carry.component.interface import Interface

Status = Literal["clean", "left", "refused"]


@dataclass(frozen=True)
class NewFile:
    """A file the crossing made. `data` are its bytes, `text` its text without byte order mark."""

    path: str
    text: str
    data: bytes


@dataclass(frozen=True)
class LedgerEntry:
    """One entry of the ledger as a report shows it."""

    notion: str
    line: int
    column: int
    outcome: str
    rule: str


@dataclass(frozen=True)
class Result:
    """One component's crossing."""

    source: str
    component: str
    origin: str
    target: str
    status: Status
    files: tuple[NewFile, ...]
    counts: dict[str, int]
    entries: tuple[LedgerEntry, ...]
    interface: Interface
    findings: tuple[Finding, ...] = field(default=())

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
                "entries": [vars(entry) for entry in self.entries],
            },
            "interface": self.interface.as_json(),
            "findings": [finding.as_json() for finding in self.findings],
        }
