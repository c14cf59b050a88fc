"""Mutants of a template: one place of its markup changed, by operators like those on code."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.component.errors import InputError
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_blocks
from clean_carry.source.text import SourceText

# What is no plain attribute: it says whether, how often or where something is drawn.
_SHAPING = (
    "v-for",
    "v-if",
    "v-else-if",
    "v-else",
    "v-slot",
    "#",
    "slot",
    "key",
    ":key",
    "ref",
    "is",
)
_CONDITIONS = ("v-if", "v-else-if", "v-show")
_LOOP = re.compile(r"^([\s\S]*?\s(?:in|of)\s+)([\s\S]+?)\s*$")


def template_mutants(source: SourceText) -> Iterator[tuple[str, int, int, str]]:
    """(operator, start, end, new text) of every mutant of the template of a single file."""
    try:
        blocks = read_blocks(source)
    except InputError:
        return
    for block in blocks:
        if block.kind == "element" and block.tag == "template":
            for child in block.children:
                for node in child.walk():
                    yield from _of_node(source, node)


def _of_node(source: SourceText, node: TemplateNode) -> Iterator[tuple[str, int, int, str]]:
    if node.kind == "text" and re.search(r"[^\W\d_]{2}", source.slice(*node.inner)):
        text = source.slice(node.start, node.end)
        yield "change_shown_text", node.start, node.end, re.sub(r"\S.*\S", "other words", text)
    elif node.kind == "interpolation":
        yield "drop_what_is_shown", node.start, node.end, ""
    elif node.tag == "slot":
        yield "drop_a_slot", node.start, node.end, ""
    for attribute in node.attributes:
        yield from _of_attribute(source, attribute)


def _of_attribute(
    source: SourceText, attribute: TemplateAttribute
) -> Iterator[tuple[str, int, int, str]]:
    name = attribute.name
    if not name.startswith(_SHAPING):
        yield "drop_an_attribute", attribute.start, attribute.end, ""
    if attribute.value is None:
        return
    start, end = attribute.value
    text = source.slice(start, end)
    if name in _CONDITIONS:
        yield "negate_a_condition", start, end, f"!({text})"
    elif name == "class" and text.split():
        yield "lose_a_class", start, start + len(text.split()[0].encode()), "other"
    elif name.startswith(("@click", "v-on:click")):
        at = attribute.start + name.index("click")
        yield "swap_handlers", at, at + len("click"), "dblclick"
    elif name == "v-for":
        found = _LOOP.match(text)
        if found is not None and not found[2].strip().isdigit():
            yield "loop_off_by_one", start, end, f"{found[1]}({found[2]}).slice(1)"
