"""Rows of a list by the keys a template tells them apart by: no two alike.

Runtimes differ in rendering two rows with one key, and each warns of it in a development build.
"""

from __future__ import annotations

import re
from typing import Any

_KEYS = re.compile(r":key=\"([^\"]+)\"|\bkey=\{([^{}]+)\}")
_PATH = re.compile(r"^[\w$]+(?:\.[\w$]+)*$")


def keys_of(text: str) -> frozenset[str]:
    """Return the names of the parts that identify rows in a file; "" if a row itself is its key."""
    found = {first or second for first, second in _KEYS.findall(text)}
    plain = (one.strip() for one in found)
    return frozenset(
        one.rpartition(".")[2] if "." in one else "" for one in plain if _PATH.match(one)
    )


def told_apart(value: Any, keys: frozenset[str]) -> Any:
    """A value in which no two rows of a list have one key."""
    if isinstance(value, dict):
        return {name: told_apart(part, keys) for name, part in value.items()}
    if not isinstance(value, list):
        return value
    rows = [told_apart(row, keys) for row in value]
    for name in keys - {""}:
        seen: list[Any] = []
        for row in rows:
            if isinstance(row, dict) and name in row:
                row[name] = _another(row[name], seen)
    if "" in keys:
        plain: list[Any] = []
        rows = [row if isinstance(row, dict | list) else _another(row, plain) for row in rows]
    return rows


def _another(key: Any, seen: list[Any]) -> Any:
    """A key that was not seen yet; keys are compared as text."""
    # An object is no key: all read alike as text.
    made, number = ("key" if isinstance(key, dict | list) else key), 2
    while str(made) in seen:
        made = key + number if isinstance(key, int | float) else f"{key} {number}"
        number += 1
    seen.append(str(made))
    return made
