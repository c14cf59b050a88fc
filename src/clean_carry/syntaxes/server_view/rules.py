"""The findings about views of a server."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.rules import load_rules
from clean_carry.syntaxes.single_file.rules import RULES as OF_SINGLE_FILES

RULES = OF_SINGLE_FILES | load_rules(Path(__file__).with_suffix(".toml"))
