"""The role of a file in a project: source, a test or a story."""

from __future__ import annotations

import re
from functools import cache
from typing import Literal

Role = Literal["source", "test", "story"]
_TEST = re.compile(r"(?:^|/)(?:__tests__|__mocks__|tests?|spec|e2e)/|[._-](?:test|spec)\.\w+$")
_STORY = re.compile(r"\.stor(?:y|ies)\.\w+$|(?:^|/)stories/")


@cache
def role_of(inside: str) -> Role:
    """The role of a file, by its path inside the project."""
    if _TEST.search(inside):
        return "test"
    return "story" if _STORY.search(inside) else "source"
