"""Elements: content of slots, lists with conditions, keys of lists, white space between elements."""

from __future__ import annotations

import re

from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.expressions import TemplateCode, is_handler
from clean_carry.syntaxes.single_file.upgrade.attributes import (
    bind_value,
    bound_both_ways,
    is_component,
    name_arguments,
)
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

_KEYS = (":key", "v-bind:key", "key")
# HTML §15 (rendering): white space beside these is not seen.
_BLOCKS = frozenset(
    "address article aside blockquote body dd details dialog div dl dt fieldset figcaption figure footer "
    "form h1 h2 h3 h4 h5 h6 header hgroup hr legend li main nav ol p pre section summary table tbody td "
    "tfoot th thead tr ul option optgroup select colgroup col caption".split()
)


def upgrade_nodes(changes: Changes, template: TemplateNode, code: TemplateCode) -> None:
    """Go through the elements of a template."""
    for node in template.walk():
        if node.kind != "element":
            continue
        if node is template and node.attribute("functional") is not None:
            changes.refuse("removed-from-runtime", "<template functional>", node.start)
        if node is not template:
            _slot(changes, node)
            _list(changes, node, code)
        _spaces(changes, node.children)


def newer_slots(
    changes: Changes, template: TemplateNode, workspace: Workspace, version: int
) -> None:
    """Content of slots, values bound both ways, and listeners alone."""
    for node in template.walk():
        if node.kind != "element" or node is template:
            continue
        for attribute in node.attributes:
            if is_handler(attribute):
                name_arguments(changes, attribute)
        if version >= 3:
            continue
        _slot(changes, node)
        for attribute in node.attributes:
            bound_both_ways(changes, attribute)
            if attribute.name.startswith("v-model") and is_component(node.tag):
                bind_value(changes, node, attribute, workspace)
            if ".native" in attribute.name and is_component(node.tag):
                name = attribute.name.replace(".native", "")
                changes.put(attribute.start, attribute.name_end, name)


# -- slots ----------------------------------------------------------------------------------------


def _slot(changes: Changes, node: TemplateNode) -> None:
    """`slot` and `slot-scope` are one attribute of a template now (guide, "Slots Unification")."""
    slot, scope = node.attribute("slot"), node.attribute("slot-scope") or node.attribute("scope")
    if node.attribute(":slot") is not None:
        changes.refuse("removed-from-runtime", "a slot by code", node.start)
    if scope is not None and scope.name == "scope" and node.tag != "template":
        scope = None
    if slot is None and scope is None:
        return
    name = changes.source.slice(*slot.value) if slot is not None and slot.value else "default"
    given = changes.source.slice(*scope.value) if scope is not None and scope.value else ""
    head = f"v-slot:{name}" if name != "default" or slot is not None else "v-slot"
    head += f'="{given}"' if given else ""
    if node.tag == "template":
        first, *others = [one for one in (slot, scope) if one is not None]
        changes.put(first.start, first.end, head)
        for one in others:
            _without(changes, one)
        return
    loop = node.attribute("v-for")
    if loop is not None:
        changes.refuse("removed-from-runtime", "a list in a slot", node.start)
        return
    condition = next(
        (one for one in node.attributes if one.name in ("v-if", "v-else", "v-else-if")), None
    )
    if condition is not None and condition.name != "v-if":
        changes.refuse("removed-from-runtime", "a slot that another condition decides", node.start)
        return
    said = ""
    for attribute in (slot, scope, condition):
        if attribute is None:
            continue
        if attribute is condition:
            said = changes.source.slice(attribute.start, attribute.end) + " "
        _without(changes, attribute)
    changes.put(node.start, node.start, f"<template {said}{head}>")
    changes.put(node.end, node.end, "</template>")


def _without(changes: Changes, attribute: TemplateAttribute) -> None:
    start, data = attribute.start, changes.source.data
    while data[start - 1 : start].isspace():
        start -= 1
    changes.put(start, attribute.end, "")


# -- lists ----------------------------------------------------------------------------------------


def _list(changes: Changes, node: TemplateNode, code: TemplateCode) -> None:
    loop = node.attribute("v-for")
    if loop is None:
        return
    if node.tag == "template":
        _keyed_template(changes, node, loop)
    condition = node.attribute("v-if")
    if condition is None or not _asks_for_row(loop, condition, code):
        return
    if node.tag == "template":
        changes.refuse("removed-from-runtime", "v-if beside v-for of a template", node.start)
        return
    # The condition comes first now (migration guide, "v-if vs. v-for Precedence").
    key = next((one for one in node.attributes if one.name in _KEYS), None)
    said = [changes.source.slice(one.start, one.end) for one in (loop, key) if one is not None]
    for one in (loop, key):
        if one is not None:
            _without(changes, one)
    changes.put(node.start, node.start, f"<template {' '.join(said)}>")
    changes.put(node.end, node.end, "</template>")


def _asks_for_row(
    loop: TemplateAttribute, condition: TemplateAttribute, code: TemplateCode
) -> bool:
    function = code.loops.get(loop.value[0]) if loop.value is not None else None
    test = code.values.get(condition.value[0]) if condition.value is not None else None
    body = function.child("body") if function is not None else None
    if function is None or test is None or body is None:
        return False
    given = {part.text for part in function.walk() if part.start < body.start}
    return any(part.type == "identifier" and part.text in given for part in test.walk())


def _keyed_template(changes: Changes, node: TemplateNode, loop: TemplateAttribute) -> None:
    """The key of a list stands at its template now (migration guide, "With <template v-for>")."""
    if any(one.name in _KEYS for one in node.attributes):
        return
    keys = [
        one
        for child in node.children
        if child.kind == "element"
        for one in child.attributes
        if one.name in _KEYS
    ]
    if not keys:
        return
    text = changes.source.slice(keys[0].start, keys[0].end)
    changes.put(loop.end, loop.end, f" {text}")
    for one in keys:
        _without(changes, one)


# -- white space ----------------------------------------------------------------------------------


def _spaces(changes: Changes, nodes: list[TemplateNode]) -> None:
    """A line break between two elements was a space that is seen, and is none now (the compiler's option
    `whitespace`)."""
    data = changes.source.data
    for at, node in enumerate(nodes):
        if node.kind != "text" or not 0 < at < len(nodes) - 1:
            continue
        raw = data[node.start : node.end]
        if raw.strip() or b"\n" not in raw:
            continue
        if all(map(_is_seen, (nodes[at - 1], nodes[at + 1]))):
            changes.put(node.start, node.end, " ")


def _is_seen(node: TemplateNode) -> bool:
    """Whether white space beside a node is seen."""
    plain = node.kind == "element" and node.tag not in _BLOCKS
    return plain and not re.match(r"template|slot|transition|component|keep-alive", node.tag)
