"""The kinds of findings: what is wrong, why it matters and what to do.

Each syntax keeps its rules in a TOML file of its own, one table a rule.
"""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

RuleLevel = Literal["note", "warning", "error"]


@dataclass(frozen=True)
class Rule:
    """One kind of finding. `message` says what is wrong, with `{}` for the name or the code it is about;
    `before` is source that causes it, `after` how that can be written instead ("" if nothing can)."""

    name: str
    level: RuleLevel
    topic: str
    message: str
    advice: str
    before: str
    after: str = ""

    @property
    def title(self) -> str:
        """The message without the name of any one place."""
        return self.message.replace("{}", "…")

    def about(self, detail: str) -> str:
        """Return the message about one place; `detail` is a name or a piece of code, or "" if there is
        none."""
        if "{}" in self.message:
            return self.message.replace("{}", detail or "this", 1)
        return f"{self.message} ({detail})" if detail else self.message


def load_rules(file: Path) -> dict[str, Rule]:
    """Read the rules of a TOML file, by name and in its order. Raises `TypeError` for an unknown key."""
    tables = tomllib.loads(file.read_text("utf-8"))
    return {name: Rule(name, **fields) for name, fields in tables.items()}
