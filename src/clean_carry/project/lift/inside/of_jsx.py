"""The blocks of JSX: elements with their attributes, texts, and code in braces."""

from __future__ import annotations

import html
import re
from collections.abc import Callable, Iterator

from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.code import CLOSED, OPEN
from clean_carry.project.lift.inside.spot import Spot
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateAttribute
from clean_carry.source.text import SourceText

_ELEMENTS = frozenset({"jsx_element", "jsx_self_closing_element", "jsx_fragment"})
_TEXTS = frozenset({"jsx_text", "html_character_reference"})
# Attributes by the names that HTML has for them.
HTML_NAMES = {"className": "class", "htmlFor": "for"}

Names = Callable[[str, int], bool]


def jsx_blocks(tree: Tree, is_open: Names) -> list[Block]:
    """The outermost elements of a file. `is_open` says whether code, at its offset, names anything."""
    reader = _Reader(tree.source, is_open)
    return [reader.element(node, None) for node in _outermost(tree.root)]


def _outermost(node: Node) -> Iterator[Node]:
    for child in node.children:
        if child.type in _ELEMENTS:
            yield child
        else:
            yield from _outermost(child)


class _Reader:
    def __init__(self, source: SourceText, is_open: Names) -> None:
        self.source, self.is_open = source, is_open

    def element(self, node: Node, parent: Block | None) -> Block:
        opening = node.child("open_tag") or node
        closing = node.child("close_tag")
        name = opening.child("name")
        tag = name.text if name is not None else "<>"
        inner = (opening.end, closing.start) if closing is not None else (node.end, node.end)
        spot = Spot("element", node.start, node.end, tag, inner, foreign=True)
        made = Block(tag, parent=parent, source=self.source, node=spot)
        made.conditional = name is None
        if opening.child("type_arguments") is not None:
            made.stays = "a tag with types"
        for one in opening.children:
            if one.field == "attribute":
                self._attribute(one, made)
        if closing is not None:
            self._children([c for c in node.children if c not in (opening, closing)], made)
        return made

    # -- content -------------------------------------------------------------------------

    def _children(self, nodes: list[Node], made: Block) -> None:
        at = 0
        while at < len(nodes):
            node, first = nodes[at], at
            at += 1
            if node.type in _TEXTS:
                while at < len(nodes) and nodes[at].type in _TEXTS:
                    at += 1
                stretch = node.start, nodes[at - 1].end
                text = shown(self.source.slice(*stretch))
                if text:
                    self._text(text, stretch, made)
            elif node.type in _ELEMENTS:
                self._add(self.element(node, made), made)
            elif node.type == "jsx_expression":
                self._braces(node, made)
            else:
                made.stays = "what is not read"
            assert at > first

    def _braces(self, node: Node, made: Block) -> None:
        inner = node.named_children
        if not inner:
            return
        value = inner[0]
        if value.type == "spread_element":
            made.stays = "children that are spread"
        elif value.type == "string":
            self._text(_string(value), (node.start, node.end), made)
        elif any(one.type in _ELEMENTS for one in value.walk()):
            block = Block("{}", parent=made, source=self.source, conditional=True)
            block.node = Spot("element", node.start, node.end, "{}", (node.start, node.end))
            for one in _outermost(node):
                self._add(self.element(one, block), block)
            self._add(block, made)
        else:
            self._text(self._code(value), (node.start, node.end), made)

    def _text(self, text: str, stretch: tuple[int, int], made: Block) -> None:
        spot = Spot("text", *stretch)
        self._add(Block("", text=text, parent=made, source=self.source, node=spot), made)

    def _add(self, block: Block, made: Block) -> None:
        made.children.append(block)
        made.node.children.append(block.node)

    def _code(self, node: Node) -> str:
        text = node.text
        return (OPEN if self.is_open(text, node.start) else CLOSED) + text

    # -- attributes ----------------------------------------------------------------------

    def _attribute(self, node: Node, made: Block) -> None:
        if node.type != "jsx_attribute":
            made.stays = f"`{node.text}`, which belongs to the component around it"
            return
        written = node.children[0].text
        if written == "key":
            made.node.around.append((node.start, node.end))
            made.conditional = True
            return
        if written == "ref" or written in made.attributes:
            made.stays = f"`{written}`, which belongs to the component around it"
            return
        name = HTML_NAMES.get(written, written)
        last = node.children[-1]
        value: str | None = None
        stretch: tuple[int, int] | None = None
        if last.type == "string":
            value = html.unescape(last.text[1:-1])
            stretch = last.start + 1, last.end - 1
        elif last.type == "jsx_expression" and last.named_children:
            code = last.named_children[0]
            if any(one.type in _ELEMENTS for one in code.walk()):
                made.stays = f"elements that are given as `{written}`"
            value = _string(code) if code.type == "string" else self._code(code)
            stretch = last.start, last.end
        made.attributes[name] = value
        made.node.attributes.append(
            TemplateAttribute(name, node.start, node.end, node.children[0].end, stretch)
        )


def shown(raw: str) -> str:
    """The text that JSX makes of what stands between tags: lines are trimmed, empty ones dropped."""
    lines = raw.replace("\t", " ").split("\n")
    last = len(lines) - 1
    kept = []
    for number, line in enumerate(lines):
        text = line if number == 0 else line.lstrip(" ")
        text = text if number == last else text.rstrip(" ")
        if text:
            kept.append(text)
    return html.unescape(" ".join(kept))


def _string(node: Node) -> str:
    text = node.text[1:-1]
    return re.sub(r"\\(.)", lambda found: {"n": "\n", "t": "\t"}.get(found[1], found[1]), text)
