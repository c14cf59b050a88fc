"""Directives, as a survey sees them."""

from __future__ import annotations

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.syntaxes.scoped_template.census import census as registered


def census(parsed: Parsed) -> list[Sighting]:
    """The directives that a script registers."""
    return registered(parsed, "directive", "directive", "scope")
