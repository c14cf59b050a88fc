"""Directives and components that a script registers, as a survey sees them."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.registrations import Registrations, registers

# Options of a definition that no other framework registers components with.
_OWN = re.compile(r"\b(?:bindings|controller|templateUrl|transclude|restrict|link|scope)\b")
_WATCHES = re.compile(r"\$(?:watch\w*|on)\(|\$(?:onInit|onChanges|onDestroy|postLink|doCheck)\b")


def census(parsed: Parsed, kind: str, syntax: str, options: str) -> list[Sighting]:
    """The registrations of a `kind`; `options` is the option that lists their props."""
    if parsed.tree is None or parsed.names is None or not registers(parsed.source.data):
        return []
    found = []
    for one in Registrations(parsed.tree, parsed.names).of(kind):
        text = one.value.text
        if b"angular" not in parsed.source.data and not _OWN.search(text):
            continue
        bindings = _bindings(one.value if one.function is None else one.function, options)
        counts = {
            "props": sum(not value.startswith("&") for value in bindings),
            "events": sum(value.startswith("&") for value in bindings),
            "effects": len(_WATCHES.findall(text)),
            "slots": text.count("ng-transclude"),
        }
        start, end = one.at, one.call.end
        first, last = parsed.line(start), parsed.line(end - 1)
        found.append(
            Sighting(
                one.name, syntax, start, end, first, last - first + 1, tags=(dashed(one.name),),
                counts={key: value for key, value in counts.items() if value},
            )
        )  # fmt: skip
    return found


def _bindings(value: Node, option: str) -> list[str]:
    for pair in value.walk():
        key, table = (
            (pair.child("key"), pair.child("value")) if pair.type == "pair" else (None,) * 2
        )
        if key is not None and table is not None and property_name(key) == option:
            if table.type == "object":
                values = [part.child("value") for part in table.named_children]
                return [one.text[1:-1] for one in values if one is not None]
    return []
