"""What every syntax declares about itself."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Syntax:
    """One way to write a component.

    `endings` are file endings it is written in; `suffix` stands before the ending of a new file
    written beside the old one; `batches_from` is the runtime's major version that batches all writes.
    """

    id: str
    summary: str
    endings: tuple[str, ...]
    runtime: str
    reads: bool
    writes: bool
    suffix: str
    one_scope: bool = False
    several_roots: bool = False
    two_way: bool = False
    named_slots: bool = False
    scoped_styles: bool = False
    error_capture: bool = False
    open_members: bool = False
