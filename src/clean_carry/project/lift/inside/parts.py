"""Texts of a lifted component: what is shown where the copies have different texts."""

from __future__ import annotations

from collections.abc import Callable

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.code import is_code
from clean_carry.crossing.lift.props import Plan, text_ends
from clean_carry.project.lift.literals import literal
from clean_carry.source.html.display import SPACE


def shown_part(
    plan: Plan,
    child: Part,
    place: Place,
    braces: Callable[[str], str],
    under: Callable[[str, str], str],
) -> str | None:
    """The text of a part with the white space around it, or None where all copies have the same.

    `braces` shows code, `under` is the code of a text under a flag.
    """
    code = plan.texts.get(id(child))
    flag = plan.conditions.get(id(child))
    block = child.blocks.get(place) or child.base
    if code is None:
        if flag is None:
            return None
        return braces(under(flag, literal(block.text)))
    raw = block.source.slice(block.node.start, block.node.end)
    if text_ends(child) is None or is_code(block.text) or raw.startswith("{"):
        return braces(code)
    lead = raw[: len(raw) - len(raw.lstrip(SPACE))]
    tail = raw[len(raw.rstrip(SPACE)) :]
    return f"{lead}{braces(code)}{tail}"
