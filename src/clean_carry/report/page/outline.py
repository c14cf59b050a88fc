"""A normalised tree as lines of markup, with the lines that differ marked."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from typing import Any

from clean_carry.verify.normalise import Tree

# Facts about an element follow its place: `@class`, ` color`, `:hover color`, ` (form state)`.
_BEHIND = re.compile(r"[@ :].*", re.DOTALL)
# Longer texts and values are shortened in the middle of nothing.
MOST = 120


@dataclass(frozen=True)
class OutlineLine:
    """One line: its depth, its text, and whether it differs."""

    depth: int
    text: str
    marked: bool


def element_of(place: str) -> str:
    """Return the place of the element or text with a difference: `/div[1]/p[2]`."""
    return _BEHIND.sub("", place)


def outline(tree: Tree, places: frozenset[str]) -> list[OutlineLine]:
    """The lines of a tree; `places` are those of marked elements and texts."""
    lines: list[OutlineLine] = []
    _into(lines, tree, "", 0, places)
    return lines


def _into(
    lines: list[OutlineLine], tree: Tree, place: str, depth: int, places: frozenset[str]
) -> None:
    counts: Counter[str] = Counter()
    for node in tree:
        if node is None:
            continue
        name = "text" if isinstance(node, str) else node[0]
        counts[name] += 1
        here = f"{place}/{name}[{counts[name]}]"
        marked = here in places or (not place and "/" in places)
        if isinstance(node, str):
            if node.strip():
                lines.append(OutlineLine(depth, _cut(node.strip()), marked))
            continue
        text = f"<{name}{_attributes(node)}>"
        inner = [child for child in node[3] if child is not None]
        if len(inner) == 1 and isinstance(inner[0], str) and len(inner[0]) <= MOST:
            marked = marked or f"{here}/text[1]" in places
            lines.append(OutlineLine(depth, f"{text}{inner[0].strip()}</{name}>", marked))
            continue
        lines.append(OutlineLine(depth, text if inner else f"{text}</{name}>", marked))
        _into(lines, node[3], here, depth + 1, places)


def _attributes(node: list[Any]) -> str:
    shown = "".join(
        f" {key}" if value == "" else f' {key}="{_cut(str(value))}"'
        for key, value in node[1].items()
    )
    state = node[2]
    if isinstance(state, dict):
        shown += "".join(f" ·{key}={_cut(str(value))}" for key, value in sorted(state.items()))
    return shown


def _cut(text: str) -> str:
    text = " ".join(text.split())
    return text if len(text) <= MOST else text[: MOST - 1] + "…"


def node_at(tree: Tree, place: str) -> list[Any] | None:
    """The element at a place; for the place of a text the element around it."""
    found: list[Any] | None = None
    level = tree
    for part in place.strip("/").split("/"):
        name, _, number = part.rstrip("]").partition("[")
        same = [node for node in level if isinstance(node, list) and node[0] == name]
        if name == "text" or not number.isdigit() or int(number) > len(same):
            break
        found = same[int(number) - 1]
        level = found[3]
    return found
