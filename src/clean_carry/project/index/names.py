"""The spellings under which markup and code name one component."""

from __future__ import annotations

import re
from functools import cache

_HUMP = re.compile(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])")


@cache
def dashed(name: str) -> str:
    """`TideStrip` and `tideStrip` as `tide-strip`."""
    return _HUMP.sub("-", name).lower()


@cache
def spellings(name: str) -> tuple[str, ...]:
    """A name as it may stand in markup: with dashes, and with humps."""
    plain = dashed(name)
    head, *rest = plain.split("-")
    camel = head + "".join(part[:1].upper() + part[1:] for part in rest)
    return tuple(dict.fromkeys((name, plain, camel, camel[:1].upper() + camel[1:])))
