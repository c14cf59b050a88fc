"""The blocks of a page."""

from __future__ import annotations

import html

from clean_carry.crossing.lift.block import Block
from clean_carry.source.html.page import PageNode, read_page
from clean_carry.source.text import SourceText

_PASSED_OVER = frozenset({"script", "style", "template", "link", "meta", "noscript"})


def page_blocks(source: SourceText) -> Block:
    """The body of a page as a block; scripts, styles and white space between elements are passed over."""
    return _block(read_page(source).body, source, None)


def _block(node: PageNode, source: SourceText, parent: Block | None) -> Block:
    attributes = {
        one.name.lower(): None if one.value is None else html.unescape(source.slice(*one.value))
        for one in reversed(node.attributes)
    }
    made = Block(node.tag, attributes=attributes, parent=parent, source=source, node=node)
    for child in node.children:
        if child.kind == "element" and child.tag not in _PASSED_OVER:
            made.children.append(_block(child, source, made))
        elif child.kind == "text":
            text = html.unescape(source.slice(child.start, child.end))
            if text.strip():
                made.children.append(
                    Block("", text=text, parent=made, source=source, node=child)
                )
    return made
