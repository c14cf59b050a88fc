"""A script of the JSX family that was read."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.syntaxes.contract import ScriptFile


@dataclass
class JsxFile(ScriptFile):
    """A script in which components return markup."""
