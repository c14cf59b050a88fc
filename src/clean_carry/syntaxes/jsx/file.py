"""A script of the JSX family that was read."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import Names
from clean_carry.syntaxes.contract import ScriptFile


@dataclass
class JsxFile(ScriptFile):
    """A script with the meaning of its names."""

    names: Names = field(kw_only=True)
