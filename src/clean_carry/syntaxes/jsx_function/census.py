"""Functions that return markup, as a survey sees them: by their form, without being read."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.counts import names_in, props_in, sighting
from clean_carry.syntaxes.jsx.drawing.locals import parameters_of
from clean_carry.syntaxes.jsx.runtime_names import runtime_names
from clean_carry.syntaxes.jsx_function.reading.recognise import candidates

_CALLS = {
    "state": re.compile(r"\buse(?:State|Reducer)\b"),
    "derived": re.compile(r"\buseMemo\b"),
    "effects": re.compile(r"\buse(?:Layout|Insertion)?Effect\b"),
}


def census(parsed: Parsed) -> list[Sighting]:
    """The functions at the top of a script that return markup."""
    tree, names = parsed.tree, parsed.names
    if tree is None or names is None:
        return []
    found = []
    for one in candidates(tree, names, runtime_names(tree), bare=True):
        text = one.node.text
        counts = {kind: len(calls.findall(text)) for kind, calls in _CALLS.items()}
        local = one.binding.name if one.binding is not None else ""
        props = props_in(text) | _taken(one.node)
        found.append(sighting(parsed, one.statement, "jsx-function", local, counts, props))
    return found


def _taken(function: Node) -> set[str]:
    """The props that the signature takes apart."""
    first = next(iter(parameters_of(function)), None)
    if first is None:
        return set()
    pattern = first.child("pattern") or first
    return names_in(pattern.text[1:-1]) if pattern.type == "object_pattern" else set()
