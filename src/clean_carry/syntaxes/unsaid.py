"""How a writer gives up on a construct that its syntax has no words for."""

from __future__ import annotations


class Unsaid(Exception):
    """Something that cannot be written in a syntax: the rule, its detail, and the offset it points at."""

    def __init__(self, rule: str, detail: str, at: int) -> None:
        super().__init__(rule)
        self.rule, self.detail, self.at = rule, detail, at
