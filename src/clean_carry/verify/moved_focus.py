"""Elements of a list that change places: which of them a runtime takes out of the page is up to it."""

from __future__ import annotations

import json
import re
from typing import Any

_STEP = re.compile(r"^([^\[]+)\[(\d+)\]$")
Tree = list[Any]


def stands_among_moved(before: Tree, now: Tree, place: str) -> bool:
    """Whether elements around a place, written like `ul[1]/li[2]`, have changed places since `before`."""
    for part in place.split("/"):
        if _moved(before, now):
            return True
        found = _STEP.match(part)
        if found is None:
            return False
        before, now = _inside(before, *found.groups()), _inside(now, *found.groups())
    return False


def _inside(nodes: Tree, tag: str, number: str) -> Tree:
    """Yield the nodes inside of an element, which is identified by its tag and its number among
    those."""
    alike = [node for node in nodes if isinstance(node, list) and node[0] == tag]
    return alike[int(number) - 1][3] if int(number) <= len(alike) else []


def _moved(before: Tree, now: Tree) -> bool:
    """Whether nodes that were there before stand in another order, or look alike, which tells nothing."""
    old = [json.dumps(node) for node in before if isinstance(node, list)]
    new = [json.dumps(node) for node in now if isinstance(node, list)]
    if len(set(new)) < len(new):
        return True
    # An element whose content changed as well is recognised by the text it begins with.
    return _in_another_order(old, new) or _in_another_order(_begun(before), _begun(now))


def _in_another_order(old: list[str], new: list[str]) -> bool:
    common = set(old) & set(new)
    return [one for one in old if one in common] != [one for one in new if one in common]


def _begun(nodes: Tree) -> list[str]:
    """The elements by their tags and the text each begins with; none where two begin alike."""
    found = []
    for node in nodes:
        if isinstance(node, list):
            first = next((child for child in node[3] if isinstance(child, str)), "")
            found.append(f"{node[0]} {first}")
    return found if len(set(found)) == len(found) else []
