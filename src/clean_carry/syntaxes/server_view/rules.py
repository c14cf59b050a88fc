"""The findings about views of a server."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.rules import load_rules

RULES = load_rules(Path(__file__).with_suffix(".toml"))
