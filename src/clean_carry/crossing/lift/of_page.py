"""The blocks of a page."""

from __future__ import annotations

import html

from clean_carry.crossing.lift.block import Block
from clean_carry.source.html.display import SPACE
from clean_carry.source.html.page import Page, PageNode, read_page
from clean_carry.source.text import SourceText

_PASSED_OVER = frozenset({"script", "style", "template", "link", "meta", "noscript"})


def page_blocks(source: SourceText, page: Page | None = None) -> Block:
    """The body of a page as a block; scripts, styles and white space between elements are passed over."""
    return _block((page or read_page(source)).body, source, None)


def _block(node: PageNode, source: SourceText, parent: Block | None) -> Block:
    attributes: dict[str, str | None] = {}
    for one in node.attributes:
        value = None if one.value is None else html.unescape(source.slice(*one.value))
        attributes.setdefault(one.name if node.foreign else one.name.lower(), value)
    made = Block(node.tag, attributes=attributes, parent=parent, source=source, node=node)
    spaced = False
    for child in node.children:
        if child.kind == "element" and child.tag not in _PASSED_OVER:
            made.children.append(_block(child, source, made))
        elif child.kind == "text":
            text = html.unescape(source.slice(child.start, child.end))
            if not text.strip(SPACE):
                spaced = True
                continue
            made.children.append(Block("", text=text, parent=made, source=source, node=child))
        else:
            continue
        made.children[-1].space_before, spaced = spaced, False
    if made.children:
        made.children[-1].space_behind = spaced
    return made
