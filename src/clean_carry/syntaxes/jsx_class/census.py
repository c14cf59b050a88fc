"""Classes that render, as a survey sees them: by their form, without being read."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx.counts import props_in, sighting
from clean_carry.syntaxes.jsx.runtime_names import runtime_names
from clean_carry.syntaxes.jsx_class.bases.heritage import CLASSES, is_component

_HOOKS = re.compile(r"(?:UNSAFE_)?component(?:Did|Will)\w+|getSnapshotBeforeUpdate")
_STATE = re.compile(r"\bstate\??\.(\w+)")


def census(parsed: Parsed) -> list[Sighting]:
    """The classes of a script that extend the runtime's base, or render."""
    tree, names = parsed.tree, parsed.names
    if tree is None or names is None:
        return []
    runtime = runtime_names(tree)
    found = []
    for node in tree.of(*CLASSES):
        if not is_component(node, runtime, names):
            continue
        text = node.text
        counts = {
            "state": len(set(_STATE.findall(text))),
            "effects": sum(_HOOKS.fullmatch(name) is not None for name in _members(node)),
        }
        found.append(sighting(parsed, node, "jsx-class", _own(node), counts, props_in(text)))
    return sorted(found, key=lambda one: one.start)


def _own(node: Node) -> str:
    """The name of a class in its file; "" where it has none."""
    name, holder = node.child("name"), node.parent
    if name is None and holder is not None and holder.type == "variable_declarator":
        name = holder.child("name")
    return name.text if name is not None else ""


def _members(node: Node) -> list[str]:
    body = node.child("body")
    members = body.named_children if body is not None else []
    return [property_name(name) or "" for one in members if (name := one.child("name")) is not None]
