"""Mutants of styles: one place of a component's stylesheet, or one class of its markup, changed.

Rules that name a class the component's own text does not hold are left alone: they style nothing of it.
A stylesheet is read by its braces alone, so that those of preprocessors are read too.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

Edit = tuple[int, int, str]
OTHER_COLOUR = "#b5179e"
_COLOUR = re.compile(
    r"#[0-9a-fA-F]{3,8}\b|\b(?:rgb|hsl)a?\([^)]*\)"
    r"|\b(?:white|black|red|green|blue|gray|grey|teal|maroon|navy|orange|silver|transparent)\b"
)
# CSS 2.1 appendix F and the modules after it: properties whose value children take over.
INHERITED = frozenset(
    (
        "color cursor direction font font-family font-size font-style font-variant font-weight "
        "font-variant-numeric letter-spacing line-height list-style list-style-type text-align "
        "text-indent text-transform visibility white-space word-spacing word-break overflow-wrap"
    ).split()
)
_STATE = re.compile(
    r":(?:hover|focus|focus-visible|focus-within|active|disabled|checked|first-child|last-child|nth-child)"
)
_COMMENT = re.compile(r"/\*.*?\*/|(?<!:)//[^\n]*", re.DOTALL)
_CLASS = re.compile(r"\.(-?[A-Za-z_][\w-]*)")
_DECLARATION = re.compile(r"(?P<name>[\w-]+)\s*:\s*(?P<value>[^;{}]+);?")


@dataclass
class Block:
    """A block of braces: its prelude, where it begins and ends, and the blocks inside."""

    prelude: str
    start: int
    open: int
    end: int = 0
    blocks: list[Block] = field(default_factory=list)

    @property
    def is_rule(self) -> bool:
        """Whether it styles something: not `@media` and its like, nor what belongs to a preprocessor."""
        return not self.prelude.startswith(("@", "%", "from", "to")) and "#{" not in self.prelude


def read(sheet: str) -> list[Block]:
    """The blocks of a stylesheet. Comments are blanked first, so that places stay."""
    text = _COMMENT.sub(lambda m: re.sub(r"[^\n]", " ", m[0]), sheet)
    top: list[Block] = []
    stack: list[Block] = []
    begin = 0
    for at, letter in enumerate(text):
        if letter == "{" and text[at - 1 : at] != "#":
            lead = text[begin:at]
            start = begin + len(lead) - len(lead.lstrip())
            block = Block(lead.strip(), start, at)
            (stack[-1].blocks if stack else top).append(block)
            stack.append(block)
            begin = at + 1
        elif letter == "}" and stack:
            stack.pop().end = at + 1
            begin = at + 1
        elif letter == ";":
            begin = at + 1
    return top


def walk(blocks: list[Block]) -> Iterator[Block]:
    """Every block, the outer ones first."""
    for block in blocks:
        yield block
        yield from walk(block.blocks)


def own(sheet: str, block: Block) -> list[tuple[int, int, str, str]]:
    """(start, end, name, value) of the declarations that stand in a block itself."""
    inner = [(b.start, b.end) for b in block.blocks]
    return [
        (block.open + 1 + m.start(), block.open + 1 + m.end(), m["name"], m["value"])
        for m in _DECLARATION.finditer(sheet[block.open + 1 : block.end - 1])
        if not any(low <= block.open + 1 + m.start() < high for low, high in inner)
        and not m["name"].startswith(("--", "$"))
    ]


def rules(sheet: str, used: Callable[[str], bool]) -> list[Block]:
    """The rules that may style something of the component."""
    return [
        b
        for b in walk(read(sheet))
        if b.is_rule and all(used(name) for name in _CLASS.findall(b.prelude))
    ]


def changed_colour(sheet: str, used: Callable[[str], bool]) -> Iterator[Edit]:
    """A colour is another."""
    for block in rules(sheet, used):
        for start, end, _, _ in own(sheet, block):
            for found in _COLOUR.finditer(sheet, start, end):
                yield found.start(), found.end(), OTHER_COLOUR


def lost_inherited_property(sheet: str, used: Callable[[str], bool]) -> Iterator[Edit]:
    """A property that children take over is not set."""
    for block in rules(sheet, used):
        for start, end, name, _ in own(sheet, block):
            if name in INHERITED:
                yield start, end, ""


def dropped_state_rule(sheet: str, used: Callable[[str], bool]) -> Iterator[Edit]:
    """A rule for a state or a place among others is gone."""
    for block in rules(sheet, used):
        if _STATE.search(block.prelude):
            yield block.start, block.end, ""


def lost_media_query(sheet: str, used: Callable[[str], bool]) -> Iterator[Edit]:
    """What holds in some media only is gone."""
    kept = {id(block) for block in rules(sheet, used)}
    for block in walk(read(sheet)):
        inside = [b for b in walk(block.blocks) if id(b) in kept]
        if block.prelude.startswith("@media") and inside:
            yield block.start, block.end, ""


def swapped_rules(sheet: str, used: Callable[[str], bool]) -> Iterator[Edit]:
    """Two rules of one weight that set the same property of one kind of element change places."""
    found = rules(sheet, used)
    for at, first in enumerate(found):
        for second in found[at + 1 :]:
            if second.start < first.end or _weight(first.prelude) != _weight(second.prelude):
                continue
            values = {name: value.strip() for _, _, name, value in own(sheet, first)}
            differing = any(
                values.get(name, value.strip()) != value.strip()
                for _, _, name, value in own(sheet, second)
            )
            if differing and _last(first.prelude) == _last(second.prelude):
                texts = sheet[first.start : first.end], sheet[second.start : second.end]
                between = sheet[first.end : second.start]
                yield first.start, second.end, texts[1] + between + texts[0]


def _weight(selector: str) -> tuple[int, int]:
    classes = len(re.findall(r"\.[\w-]|\[|(?<!:):(?!:)", selector))
    return classes, len(re.findall(r"(?<![\w.#:\[-])[a-z][\w-]*", selector))


def _last(selector: str) -> str:
    return re.split(r"[\s>+~]+", selector.strip())[-1]


SHEET_OPERATORS: dict[str, Callable[[str, Callable[[str], bool]], Iterator[Edit]]] = {
    "changed_colour": changed_colour,
    "lost_inherited_property": lost_inherited_property,
    "dropped_state_rule": dropped_state_rule,
    "lost_media_query": lost_media_query,
    "swapped_rules": swapped_rules,
}


def lost_classes(text: str, sheet: str) -> Iterator[Edit]:
    """A class that the stylesheet names is not on its element."""
    named = set(_CLASS.findall(sheet))
    for attribute in re.finditer(r"(?<![:\w-])class(?:Name)?=\"([^\"]*)\"", text):
        start = attribute.start(1)
        for word in re.finditer(r"[\w-]+", attribute[1]):
            if word[0] in named:
                yield start + word.start(), start + word.end(), ""


_SCOPED = re.compile(r"<style\b[^>]*?(\s+scoped)(?=[\s>])")


def leaking_scopes(text: str) -> Iterator[Edit]:
    """The styles of a single file are not held to it."""
    for found in _SCOPED.finditer(text):
        yield found.start(1), found.end(1), ""


_BLOCK = re.compile(r"<style\b[^>]*>\n?(.*?)</style>", re.DOTALL)


def blocks_of(text: str) -> Iterator[tuple[int, str]]:
    """(where it begins, stylesheet) of each style of a single file."""
    for found in _BLOCK.finditer(text):
        yield found.start(1), found[1]


def uses(text: str) -> Callable[[str], bool]:
    """Whether a component's text, its styles left out, holds a class's name."""
    rest = _BLOCK.sub("", text)
    return lambda name: re.search(rf"(?<![\w-]){re.escape(name)}(?![\w-])", rest) is not None
