"""Blocks by CSS selectors, and a selector for each block."""

from __future__ import annotations

from xml.etree import ElementTree

import cssselect2

from clean_carry.component.errors import InputError
from clean_carry.crossing.lift.block import Block


class Selectable:
    """The blocks below a root, to be found by selectors (Selectors Level 4, as far as one can be matched
    without a browser: states such as `:hover` match nothing)."""

    def __init__(self, root: Block) -> None:
        self.blocks: dict[ElementTree.Element, Block] = {}
        self.elements: dict[int, cssselect2.ElementWrapper] = {}
        html = ElementTree.Element("html")
        html.append(self._mirrored(root))
        self.top = cssselect2.ElementWrapper.from_html_root(html)
        for wrapper in self.top.iter_subtree():
            block = self.blocks.get(wrapper.etree_element)
            if block is not None:
                self.elements[id(block)] = wrapper

    def _mirrored(self, block: Block) -> ElementTree.Element:
        given = {name: value or "" for name, value in block.attributes.items()}
        made = ElementTree.Element(block.tag, given)
        self.blocks[made] = block
        made.extend(self._mirrored(one) for one in block.elements)
        return made

    def all(self, selector: str) -> list[Block]:
        """The blocks that a selector matches, in tree order. Raises `InputError` for what is none."""
        try:
            found = self.top.query_all(selector)
            return [
                self.blocks[one.etree_element] for one in found if one.etree_element in self.blocks
            ]
        except (cssselect2.SelectorError, ValueError) as error:
            raise InputError(
                f"is no selector: {error}",
                advice="Write one as in CSS, as .card > h3",
                file=selector,
            ) from None


def selector_of(block: Block) -> str:
    """A selector that matches this block alone: by its id, or by the places of what is around it."""
    parts: list[str] = []
    here: Block | None = block
    while here is not None and here.parent is not None:
        name = here.attributes.get("id")
        if name and name.replace("-", "").replace("_", "").isalnum() and not name[0].isdigit():
            parts.append(f"#{name}")
            return " > ".join(reversed(parts))
        alike = [one for one in here.parent.elements if one.tag == here.tag]
        at = f":nth-of-type({alike.index(here) + 1})" if len(alike) > 1 else ""
        parts.append(f"{here.tag}{at}")
        here = here.parent
    return " > ".join(reversed([*parts, "body"]))
