"""The declarations of a class in its static members."""

from __future__ import annotations

import re

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx_class.recognise import Candidate

_IS_FUNCTION = re.compile(r"\bfunc\b")


def own_statics(candidate: Candidate, members: list[tuple[Node, str, str]]) -> set[str]:
    """The statics that the component has under its name as well; defaults may go elsewhere.

    A class that something is made of is asked itself, whatever its name means.
    """
    if candidate.binding is None or candidate.decorators:
        return set()
    return {name for _, notion, name in members if notion in ("static-method", "static-value")}


def declared_functions(
    candidate: Candidate, members: list[tuple[Node, str, str]]
) -> frozenset[str]:
    """The inputs that the class declares to be functions, inside of it or after it."""
    found = [
        m.child("value")
        for m, notion, name in members
        if name == "propTypes" and notion == "static-value"
    ]
    for statement in candidate.siblings:
        given = statement.named_children[0] if statement.type == "expression_statement" else None
        left = given.child("left") if given is not None else None
        if given is not None and left is not None and left.text == f"{candidate.name}.propTypes":
            found.append(given.child("right"))
    return frozenset(
        name
        for literal in found
        for pair in (literal.named_children if literal is not None else ())
        if pair.type == "pair" and (key := pair.child("key")) is not None
        if (name := property_name(key)) is not None and _IS_FUNCTION.search(pair.text)
    )
