"""The crossings there are: for each pair of syntaxes, how a file is read, fitted and written.

A crossing is imported when it is first asked for: no command needs them all.
"""

from __future__ import annotations

from collections.abc import Callable
from pkgutil import resolve_name

from clean_carry.component.ledger import Ledger
from clean_carry.crossing.outcome import Excluded, Outcome
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace

Attempt = Callable[[SourceText, Ledger, Workspace, int, Excluded], Outcome]

# The module and the function of each.
PAIRS: dict[tuple[str, str], str] = {
    ("jsx-class", "jsx-function"): "clean_carry.crossing.jsx:carry_class_file",
    (
        "single-file-object",
        "single-file-flat",
    ): "clean_carry.crossing.single_file:carry_object_file",
    (
        "single-file-object",
        "jsx-function",
    ): "clean_carry.crossing.single_file_to_jsx:carry_object_to_function",
    ("directive", "controller-component"): "clean_carry.crossing.directive:carry_directive_file",
}

# What is written into a file from others before it is read, by the syntax it is in.
_WHOLE = {"jsx-class": "clean_carry.syntaxes.jsx_class.read_in:with_bases"}


def attempt(origin: str, target: str) -> Attempt | None:
    """How a file of one syntax is carried to another; None where nothing does."""
    place = PAIRS.get((origin, target))
    found: Attempt | None = resolve_name(place) if place is not None else None
    return found


def whole(origin: str, source: SourceText, workspace: Workspace) -> SourceText:
    """A file with what is written into it from others before it is read."""
    if origin not in _WHOLE:
        return source
    found: SourceText = resolve_name(_WHOLE[origin])(source, workspace)
    return found
