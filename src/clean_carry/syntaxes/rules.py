"""The findings there are: those of every crossing, and those of each syntax."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from clean_carry.component.rules import Rule, load_rules
from clean_carry.syntaxes.across import RULES as ACROSS
from clean_carry.syntaxes.contract import Syntax
from clean_carry.syntaxes.registry import every_syntax

_OF_EVERY = load_rules(Path(__file__).with_name("every.toml")) | ACROSS


def rules_of(*syntaxes: Syntax) -> dict[str, Rule]:
    """Return the rules that apply where components are carried between these syntaxes."""
    found = dict(_OF_EVERY)
    for syntax in syntaxes:
        found |= syntax.load_rules()
    return found


@cache
def every_rule() -> dict[str, Rule]:
    """Return every rule of every syntax, by name."""
    return rules_of(*every_syntax())
