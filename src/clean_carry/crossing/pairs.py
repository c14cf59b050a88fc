"""The crossings there are: for each pair of syntaxes, how a file is read, fitted and written."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Protocol

from clean_carry.component.interface import Interface
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal
from clean_carry.component.result import NewFile
from clean_carry.crossing.jsx import carry_class_file
from clean_carry.source.text import SourceText

Excluded = dict[int, tuple[str, str, int]]


class Outcome(Protocol):
    """What an attempt gave: the components carried and refused, and how to finish."""

    carried: tuple[Component, ...]
    refused: tuple[Refusal, ...]

    def settle(self, ledger: Ledger) -> None:
        """Settle and close the ledger; raises `UnsettledEntry` where it does not balance."""

    def files(self, source: SourceText) -> tuple[NewFile, ...]:
        """The files made."""

    def interface(self, component: Component) -> Interface:
        """The interface map of one component."""

    def notes(self, component: Component) -> list[tuple[str, str, int]]:
        """Findings beyond what was left: (rule, detail, offset)."""


Attempt = Callable[[SourceText, Ledger, Path, int, Excluded], Outcome]

PAIRS: dict[tuple[str, str], Attempt] = {
    ("jsx-class", "jsx-function"): carry_class_file,
}
