"""The arguments of a component's methods when a parent calls them through a ref."""

from __future__ import annotations

import re
from typing import Any

from clean_carry.source.javascript.tree import Node
from clean_carry.verify.search.values.functions import parameters_of
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.values import typical

# Parameters that get an event of the page, by their name.
_EVENT = re.compile(r"^(\$?e|evt?|event|\w*Event)$")


def given_to(function: Node | None, shapes: Shapes) -> list[Any]:
    """A plausible value for each parameter without a default, up to the first that has one."""
    given: list[Any] = []
    for parameter in parameters_of(function) if function is not None else ():
        above = parameter.parent
        if parameter.type != "identifier" or (above is not None and above.child("value")):
            break
        name = parameter.text
        made = {"$": "event"} if _EVENT.match(name) else typical(name, shapes.of(name))
        given.append(made)
    return given
