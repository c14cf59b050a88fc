"""The inputs, slots and events of a component in a single file, in either form."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.verify.search.inputs import Inputs, merged, note_default
from clean_carry.verify.search.replies import reply_of
from clean_carry.verify.search.shapes import Shape, Shapes
from clean_carry.verify.search.single_file_shapes import SingleFileShapes


def single_file_inputs(source: SourceText) -> Inputs:
    """What both blocks of a file say. Raises `InputError` for code that cannot be parsed."""
    blocks = [node for node in read_blocks(source) if node.kind == "element"]
    scripts = [b for b in blocks if b.tag == "script"]
    template = next((b for b in blocks if b.tag == "template"), None)
    trees = [Tree(source, bytes(source.blanked([script.inner]))) for script in scripts]
    markup: Tree | None = None
    found = Inputs(exports=["default"])
    found.passes_on = True
    if template is not None:
        markup = read_code(source, template).tree
        found.slots = _slots(source, template)
    shapes = SingleFileShapes(trees, markup)
    for tree in [*trees, *([markup] if markup is not None else [])]:
        found.events += [name for name in _sent(tree) if name not in found.events]
    for tree in trees:
        found.reply = found.reply or reply_of(tree, shapes)
        _options(tree, shapes, found)
    return found


def _sent(tree: Tree) -> Iterator[str]:
    """The events that code sends by name, declared or not."""
    for call in tree.of("call_expression"):
        callee, given = call.child("function"), call.child("arguments")
        part = callee.child("property") if callee is not None else None
        name = (part or callee).text if callee is not None else ""
        first = given.named_children[:1] if given is not None else []
        if name in ("$emit", "emit") and first and first[0].type == "string":
            yield property_name(first[0]) or ""


def _slots(source: SourceText, template: TemplateNode) -> list[str]:
    names: dict[str, None] = {}
    for node in template.walk():
        if node.tag == "slot":
            named = node.attribute("name")
            value = named.value if named is not None else None
            names.setdefault(source.slice(*value) if value is not None else "default")
    return list(names)


def _options(tree: Tree, shapes: Shapes, found: Inputs) -> None:
    for key, value in _declarations(tree):
        if key in ("emits", "defineEmits"):
            for item in value.named_children:
                name = property_name(item.child("key") or item)
                if name is not None and name not in found.events:
                    found.events.append(name)
            continue
        for item in value.named_children:
            name = property_name(item.child("key") or item)
            if name is None:
                continue
            declared = _declared_option(item)
            used = shapes.of(name) if name in shapes else Shape()
            found.shapes[name] = merged(declared, used) if declared is not None else used


def _declarations(tree: Tree) -> list[tuple[str, Node]]:
    """(option, list or object) of declared inputs and events, in either form."""
    found: list[tuple[str, Node]] = []
    for node in tree.of("pair"):
        key, value = node.child("key"), node.child("value")
        if key is not None and value is not None and key.text in ("props", "emits"):
            if value.type in ("object", "array"):
                found.append((key.text, value))
    for node in tree.of("call_expression"):
        callee, given = node.child("function"), node.child("arguments")
        if (
            callee is not None
            and given is not None
            and callee.text in ("defineProps", "defineEmits")
        ):
            found += [
                (callee.text, v) for v in given.named_children if v.type in ("object", "array")
            ]
    return found


def _declared_option(item: Node) -> Shape | None:
    """The declared type and default of one input of a single file."""
    value = item.child("value")
    if value is None:
        return None
    parts = {"type": value} if value.type != "object" else {}
    for part in value.named_children if value.type == "object" else ():
        key, given = part.child("key"), part.child("value")
        if key is not None and given is not None:
            parts[key.text] = given
    shape = Shape(declared=True)
    kinds = parts.get("type")
    for name in kinds.walk() if kinds is not None else ():
        if name.type == "identifier":
            shape.kinds.add(name.text.lower())
    if not shape.kinds:
        shape.declared = False
    if "default" in parts:
        note_default(shape, parts["default"])
    shape.required = "required" in parts and parts["required"].text == "true"
    return shape
