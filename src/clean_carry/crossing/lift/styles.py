"""The rules of a page's style elements that reach the copies of a group and nothing else."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

import cssselect2
import tinycss2

from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.selectors import Selectable

# States that a page does not show at rest; a rule for one reaches what the rest of its selector matches.
_STATES = re.compile(
    r"(?<!:):(?:hover|focus(?:-visible|-within)?|active|visited|link|target)(?![\w-])"
)


@dataclass(frozen=True)
class StyleRule:
    """A rule of a style element: its stretch of the page, what it sets, and the blocks that it reaches.

    `specificity` is the highest of its selectors'; `within` says that it names nothing around a copy.
    """

    start: int
    end: int
    sets: frozenset[str]
    specificity: tuple[int, int, int]
    reaches: frozenset[int]
    selectors: tuple[str, ...]


def style_rules(text: str, offset: int, page: Selectable) -> list[StyleRule]:
    """The rules of a stylesheet that are plain or in media queries; `offset` is where its text begins."""
    nodes = tinycss2.parse_stylesheet(text, skip_comments=False, skip_whitespace=False)
    starts = _line_starts(text)
    found: list[StyleRule] = []
    ends = [_at(node, starts) for node in nodes[1:]] + [len(text)]
    for node, end in zip(nodes, ends, strict=True):
        start = _at(node, starts)
        rules = list(_plain(node))
        if not rules or any(one is None for one in rules):
            continue
        reaches: set[int] = set()
        sets: set[str] = set()
        selectors: list[str] = []
        most = (0, 0, 0)
        for rule in rules:
            text_of = _STATES.sub("", tinycss2.serialize(rule.prelude)).strip()
            try:
                compiled = cssselect2.compile_selector_list(text_of)
            except cssselect2.SelectorError:
                break
            selectors.append(text_of)
            sets |= set(_properties(rule.content))
            for one in compiled:
                most = max(most, one.specificity)
                reaches |= {at for at, element in page.elements.items() if one.test(element)}
        else:
            begin = offset + len(text[:start].encode())
            stop = offset + len(text[:end].encode())
            found.append(
                StyleRule(begin, stop, frozenset(sets), most, frozenset(reaches), tuple(selectors))
            )
    return found


def moved_rules(rules: list[StyleRule], copies: Iterable[Block]) -> list[StyleRule]:
    """The rules that can move with a component: they reach its copies alone, and win or lose as before.

    A rule of a component is stronger than before (by the mark that scopes it, or by its place), so one that
    loses against a rule that stays, stays too. So does one that a copy alone would not match: it names
    something around it.
    """
    alone = [(Selectable(copy), {id(one) for one in copy.walk()}) for copy in copies]
    moved = [rule for rule in rules if rule.reaches and _is_own(rule, alone)]
    staying = [rule for rule in rules if rule not in moved]
    while True:
        losing = [rule for rule in moved if any(_loses(rule, other, rules) for other in staying)]
        if not losing:
            return moved
        staying += losing
        moved = [rule for rule in moved if rule not in losing]


def _is_own(rule: StyleRule, copies: list[tuple[Selectable, set[int]]]) -> bool:
    """Whether a rule reaches the same blocks where each copy stands alone, and no others of the page."""
    held: set[int] = set()
    for alone, inside in copies:
        found = {id(one) for text in rule.selectors for one in alone.all(text)}
        if found != rule.reaches & inside:
            return False
        held |= found
    return held == rule.reaches


def _loses(rule: StyleRule, other: StyleRule, order: list[StyleRule]) -> bool:
    if not rule.reaches & other.reaches or not _overlap(rule.sets, other.sets):
        return False
    if rule.specificity != other.specificity:
        return rule.specificity < other.specificity
    return order.index(rule) < order.index(other)


def _overlap(first: frozenset[str], second: frozenset[str]) -> bool:
    """Whether rules set the same property, or one the shorthand of another's."""
    return any(
        a == b or a.startswith(f"{b}-") or b.startswith(f"{a}-") for a in first for b in second
    )


def _plain(node: Any) -> Iterator[Any]:
    """The plain rules of a node; None for what is more than that."""
    if node.type == "qualified-rule":
        yield node
    elif node.type == "at-rule" and node.lower_at_keyword in ("media", "supports"):
        content = node.content or []
        for one in tinycss2.parse_rule_list(content, skip_comments=True, skip_whitespace=True):
            yield one if one.type == "qualified-rule" else None
    elif node.type not in ("whitespace", "comment"):
        yield None


def _properties(content: Any) -> Iterator[str]:
    for one in tinycss2.parse_declaration_list(content, skip_comments=True, skip_whitespace=True):
        if one.type == "declaration":
            yield one.lower_name


def _line_starts(text: str) -> list[int]:
    starts = [0]
    for at, sign in enumerate(text):
        if sign == "\n":
            starts.append(at + 1)
    return starts


def _at(node: Any, starts: list[int]) -> int:
    line: int = starts[node.source_line - 1]
    column: int = node.source_column
    return line + column - 1
