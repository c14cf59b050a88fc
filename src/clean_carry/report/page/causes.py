"""The source lines behind a difference: those that write the element, or make the call, in
question.

Neither runtime reports which line rendered an element. The lines are found by what they have in common with
it: its name, classes, attributes and texts.
"""

from __future__ import annotations

import re
from typing import Any

from clean_carry.report.page.outline import element_of, node_at
from clean_carry.verify.compare import Difference
from clean_carry.verify.normalise import Tree

MOST = 3
# A line must have so much in common: a name alone is too little where others fit better.
LEAST = 2
_COMMENT = re.compile(r"\s*(//|/?\*|<!--|\{/\*)")
_WORD = re.compile(r"[\w-]{3,}")


def behind(difference: Difference, tree: Tree, lines: list[str]) -> list[int]:
    """The numbers (from 0) of the likeliest lines, at most `MOST`; none where nothing fits."""
    place = element_of(difference.place)
    attribute = difference.place.partition("@")[2].split(" ")[0]
    if place.strip("/"):
        node = node_at(tree, place)
        tokens = _tokens(node, attribute) if node is not None else []
    else:
        tokens = [(re.compile(rf"\b{re.escape(name)}\b"), 3) for name in _called(difference)]
    scores = [0 if _COMMENT.match(line) else _score(line, tokens) for line in lines]
    best = max(scores, default=0)
    found = [at for at, score in enumerate(scores) if score == best]
    # Where many lines fit alike none of them says anything.
    return found if best >= LEAST and len(found) <= MOST else []


def _score(line: str, tokens: list[tuple[re.Pattern[str], int]]) -> int:
    return sum(weight for pattern, weight in tokens if pattern.search(line))


def _tokens(node: list[Any], attribute: str) -> list[tuple[re.Pattern[str], int]]:
    found = [(rf"<{re.escape(node[0])}(?![\w-])", 2)]
    for key, value in node[1].items():
        if key == "class":
            found.append((r"\bclass", 1))
            found += [(rf"(?<![\w-]){re.escape(word)}(?![\w-])", 3) for word in str(value).split()]
            continue
        found.append((rf"\b{re.escape(key)}\b", 1))
        if _WORD.fullmatch(str(value)):
            found.append((rf"(?<![\w-]){re.escape(str(value))}(?![\w-])", 2))
    if attribute:
        spelled = {"class": "class(Name)?", "for": "(htmlF|f)or"}.get(
            attribute, re.escape(attribute)
        )
        found.append((rf"\b{spelled}\b", 2))
    for child in node[3]:
        if isinstance(child, str):
            found += [(re.escape(word), 2) for word in _WORD.findall(child)[:4]]
    return [(re.compile(pattern), weight) for pattern, weight in found]


def _called(difference: Difference) -> list[str]:
    """The names of the functions whose calls differ."""
    names = []
    for calls in (difference.old, difference.new):
        for call in calls if isinstance(calls, list) else ():
            if isinstance(call, list) and call and isinstance(call[0], str):
                names.append(call[0].removesuffix(" (new)"))
    return list(dict.fromkeys(names))[:4]
