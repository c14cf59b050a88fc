"""A file of which some notations are to be renewed."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.syntaxes.contract import ScriptFile


@dataclass
class RenewedFile(ScriptFile):
    """A script whose class gets the newer form of the notations in `renewing`."""

    renewing: frozenset[str] = field(kw_only=True)
