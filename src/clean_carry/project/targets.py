"""The one syntax that a syntax is carried to inside of its family, where there is only one."""

from __future__ import annotations

from collections.abc import Iterable

from clean_carry.syntaxes.registry import crossings, declared, is_across, known


def usual_targets(origins: Iterable[str]) -> list[str]:
    """The syntaxes of their own families that files in some syntaxes are carried to, each once."""
    found: dict[str, None] = {}
    for origin in origins:
        for start, target in crossings():
            if (
                start == origin
                and known(target)
                and not is_across(declared(origin), declared(target))
            ):
                found[target] = None
    return list(found)
