"""Code as the value of a copy: what stands in braces or in a bound attribute, and not in quotes.

Values of copies are texts; code is a text behind a mark that no source file holds. `OPEN` code names what
belongs to the component around the copy, so that it is given as a prop also where all copies have it;
`CLOSED` code names nothing.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Any

OPEN, CLOSED = "\0", "\1"
_LAST_NAME = re.compile(r"(?:^|[.\s!])([A-Za-z_$][\w$]*)$")


def is_code(value: Any) -> bool:
    """Whether a value is code."""
    return isinstance(value, str) and value[:1] in (OPEN, CLOSED) and value != ""


def is_open(value: Any) -> bool:
    """Whether a value is code that names what belongs to the component around."""
    return isinstance(value, str) and value[:1] == OPEN


def code_of(value: str) -> str:
    """The code itself."""
    return value[1:]


def named_alike(values: Iterable[Any]) -> str:
    """The name that all code ends with: `port` of `first.port` and `second.port`; "" where none does."""
    found = {
        match[1] if (match := _LAST_NAME.search(code_of(value))) is not None else ""
        for value in values
        if is_code(value)
    }
    return found.pop() if len(found) == 1 else ""
