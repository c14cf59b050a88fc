"""Decorated classes, as a survey sees them."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.syntaxes.decorated_class.recognise import decorated_in


def census(parsed: Parsed) -> list[Sighting]:
    """The classes with a component decorator in a script."""
    found = []
    for one in decorated_in(parsed.tree) if parsed.is_script and parsed.tree is not None else ():
        text = one.node.text
        counts = {
            "props": len(re.findall(r"@Input\b|\binput(?:\.required)?[<(]|\bmodel[<(]", text)),
            "derived": len(re.findall(r"\bget \w+\(|\bcomputed[<(]", text)),
            "effects": len(re.findall(r"\beffect\(", text)),
            "events": len(re.findall(r"@Output\b|\boutput[<(]", text)),
        }
        start, end = one.statement.start, one.node.end
        first, last = parsed.line(start), parsed.line(end - 1)
        found.append(
            Sighting(
                one.name, "decorated-class", start, end, first, last - first + 1,
                exports=(one.name,), tags=(one.selector,) if one.selector else (),
                counts={key: value for key, value in counts.items() if value},
            )
        )  # fmt: skip
    return found
