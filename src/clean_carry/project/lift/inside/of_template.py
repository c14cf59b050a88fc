"""The blocks of a template: elements with their attributes and bindings, texts and interpolations."""

from __future__ import annotations

import html
import re
from collections.abc import Callable

from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.code import CLOSED, OPEN
from clean_carry.project.lift.inside.spot import Spot
from clean_carry.source.html.display import KEEP_SPACE, SPACE
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.text import SourceText

# Directives for when and how often an element stands; they stay with the tag in its place.
_STRUCTURE = re.compile(r"(?:v-(?:if|else-if|else|for|show)|:?key)$")
_BOUND = re.compile(r"(?:v-bind)?:([a-z][\w-]*)$")

Names = Callable[[str, int], bool]


def template_blocks(node: TemplateNode, source: SourceText, is_open: Names) -> Block:
    """The content of a template as a block. `is_open` says whether code, at its offset, names anything."""
    return _Reader(source, is_open).block(node, None)


class _Reader:
    def __init__(self, source: SourceText, is_open: Names) -> None:
        self.source, self.is_open = source, is_open

    def block(self, node: TemplateNode, parent: Block | None) -> Block:
        page = Spot("element", node.start, node.end, node.tag, node.inner, foreign=True)
        made = Block(node.tag, parent=parent, source=self.source, node=page)
        for one in node.attributes:
            self._attribute(one, made)
        if node.tag in ("slot", "component", "template"):
            made.stays = f"<{node.tag}>"
        self._children(node, made, page)
        return made

    def _children(self, node: TemplateNode, made: Block, page: Spot) -> None:
        spaced = False
        for child in node.children:
            if child.kind == "element":
                made.children.append(self.block(child, made))
                page.children.append(made.children[-1].node)
            elif child.kind == "comment":
                continue
            else:
                text = self.source.slice(child.start, child.end)
                if child.kind == "interpolation":
                    text = self._code(*child.inner)
                elif child.kind == "text" and not text.strip(SPACE):
                    # White space with a line break between elements is dropped.
                    spaced = "\n" not in text
                    continue
                elif child.kind == "text" and node.tag not in KEEP_SPACE:
                    text = html.unescape(text)
                else:
                    made.stays = "text that is kept as it is written"
                spot = Spot("text", child.start, child.end)
                page.children.append(spot)
                made.children.append(
                    Block("", text=text, parent=made, source=self.source, node=spot)
                )
            made.children[-1].space_before, spaced = spaced, False
        if made.children:
            made.children[-1].space_behind = spaced

    def _code(self, start: int, end: int) -> str:
        text = self.source.slice(start, end).strip()
        return (OPEN if self.is_open(text, start) else CLOSED) + text

    def _attribute(self, one: TemplateAttribute, made: Block) -> None:
        value = None if one.value is None else html.unescape(self.source.slice(*one.value))
        bound = _BOUND.match(one.name)
        name = bound[1] if bound is not None else one.name
        if _STRUCTURE.match(one.name):
            made.node.around.append((one.start, one.end))
            made.conditional = True
            return
        if re.match(r"[@#:]|v-", one.name) and (bound is None or one.value is None):
            made.stays = f"`{one.name}`, which belongs to the component around it"
            return
        if name == "ref" or name in made.attributes:
            made.stays = f"`{one.name}`, which belongs to the component around it"
            return
        if bound is not None and one.value is not None:
            value = self._code(*one.value)
        made.attributes[name] = value
        spot = TemplateAttribute(name, one.start, one.end, one.name_end, one.value)
        made.node.attributes.append(spot)
