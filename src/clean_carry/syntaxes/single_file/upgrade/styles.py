"""Classes of transitions are called otherwise (migration guide, "Transition Class Change")."""

from __future__ import annotations

import re

from clean_carry.syntaxes.single_file.blocks import FileBlocks
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

_WORDS = {
    "enter-class": "enter-from-class",
    "leave-class": "leave-from-class",
}
_TRANSITIONS = ("transition", "transition-group", "Transition", "TransitionGroup")


def upgrade_styles(changes: Changes, blocks: FileBlocks) -> None:
    """Rename the classes that begin a transition, in its attributes and in the file's styles."""
    names: set[str] = set()
    for node in blocks.template.walk() if blocks.template is not None else ():
        if node.tag not in _TRANSITIONS:
            continue
        given = node.attribute("name")
        names.add(changes.source.slice(*given.value) if given and given.value else "v")
        if node.attribute(":name") is not None or node.attribute("v-bind:name") is not None:
            changes.note("transition-renamed", "a name by code", node.start)
        for attribute in node.attributes:
            plain = attribute.name.lstrip(":")
            if plain in _WORDS:
                at = attribute.start + len(attribute.name) - len(plain)
                changes.put(at, attribute.name_end, _WORDS[plain])
        if node.tag == "transition-group" and node.attribute("tag") is None:
            # Up to version 2 a group rendered an element around its own.
            changes.put(
                node.start + len(f"<{node.tag}"), node.start + len(f"<{node.tag}"), ' tag="span"'
            )
    for name in names:
        begins = re.compile(rf"\.{re.escape(name)}-(?:enter|leave)(?![\w-])".encode())
        for style in blocks.styles:
            for found in begins.finditer(changes.source.data, *style.inner):
                changes.put(found.end(), found.end(), "-from")
