"""The inputs, slots and events of a component in a single file, in either form."""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.project.settings import settings_for
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.syntaxes.single_file.hooks import HOOKS
from clean_carry.syntaxes.single_file.options.mixins import Follower, NotFollowed
from clean_carry.verify.passed_handlers import callable_by_children, handed_in_template
from clean_carry.verify.search.inputs.inputs import Inputs, merged, note_default
from clean_carry.verify.search.inputs.methods import given_to
from clean_carry.verify.search.inputs.signals import signals_of
from clean_carry.verify.search.inputs.single_file_children import handed_on
from clean_carry.verify.search.inputs.single_file_shapes import SingleFileShapes
from clean_carry.verify.search.inputs.statement_inputs import note_declared
from clean_carry.verify.search.values.functions import functions_of, parameters_of
from clean_carry.verify.search.values.replies import reply_of
from clean_carry.verify.search.values.shape import Shape, literal_of
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.types import declared_type
from clean_carry.verify.uses.model import AROUND

# A value that an ancestor provides under a key is given like an input of this name.
PROVIDED = "$provided."


def single_file_inputs(source: SourceText, depth: int = 0) -> Inputs:
    """Read the props of a single file, of its mixins, and of the files it passes props on to,
    `depth` of which lie above. Raises `InputError` for code that cannot be parsed."""
    blocks = [node for node in read_blocks(source) if node.kind == "element"]
    scripts = [b for b in blocks if b.tag == "script"]
    template = next((b for b in blocks if b.tag == "template"), None)
    trees = [Tree(source, bytes(source.blanked([script.inner]))) for script in scripts]
    markup = [] if template is None else [read_code(source, template).tree]
    found = Inputs(exports=["default"])
    found.passes_on = True
    passed: list[tuple[str, Shape | str]] = []
    if template is not None:
        found.slots = _slots(source, template)
        passed = handed_on(source, template, _inputs_of, depth)
        if _moves_when_hidden(template):
            found.shapes[AROUND + "shown"] = Shape({"boolean"}, declared=True)
    mixed = _mixed_in(trees, Path(source.path))
    shapes = SingleFileShapes([*trees, *mixed], markup[0] if markup else None, passed)
    for name in _spread(source, template) if template is not None else ():
        shapes.of(name).kinds.add("object")
        shapes.of(name).fields.setdefault("title", Shape({"string"}))
    found.closed = any(script.attribute("setup") is not None for script in scripts)
    _note_functions(source, template, trees, markup, shapes, found)
    for tree in [*trees, *markup]:
        found.events += [name for name in _sent(tree) if name not in found.events]
    for tree in [*trees, *mixed]:
        found.reply = found.reply or reply_of(tree, shapes)
        _options(tree, shapes, found)
        note_declared(tree, shapes, found)
    _note_undeclared([*trees, *mixed, *markup], shapes, found)
    _drop_elements([*trees, *mixed], found)
    found.events = [as_listener(name) if name in found.shapes else name for name in found.events]
    return found


def _note_functions(
    source: SourceText,
    template: TemplateNode | None,
    trees: list[Tree],
    markup: list[Tree],
    shapes: SingleFileShapes,
    found: Inputs,
) -> None:
    """Note the functions that a parent, a child or an emitter can call, with shapes of their arguments."""
    functions = functions_of(trees)
    given_out = _exposed(trees) if found.closed else _unused(trees, markup[0] if markup else None)
    found.methods = {n: given_to(functions[n], shapes) for n in given_out if n in functions}
    if template is not None:
        handed = handed_in_template(source, template, functions)
        found.handed = callable_by_children(handed, lambda function: given_to(function, shapes))
    for tree in trees:
        found.signals += signals_of(tree, functions, lambda function: given_to(function, shapes))


def _note_undeclared(trees: list[Tree], shapes: SingleFileShapes, found: Inputs) -> None:
    """Note the slots, attributes and provided values that the code uses without declaring them."""
    for tree in trees:
        found.slots += [name for name in _asked_slots(tree) if name not in found.slots]
        for name in _asked_of_attributes(tree):
            if name not in found.events:
                found.shapes.setdefault(name, shapes.of(name))
        for key, name in _injected(tree):
            found.shapes.setdefault(PROVIDED + key, shapes.of(name))


def _drop_elements(trees: list[Tree], found: Inputs) -> None:
    """Drop the inputs that take an element: no trial has one to pass, the component uses its own."""
    for name in {name for tree in trees for name in _elements_given(tree)}:
        if name in found.shapes and found.shapes[name].kinds <= {"object", "sized", "boolean"}:
            del found.shapes[name]


def as_listener(event: str) -> str:
    """The name a listener is given by where an input has the event's name: `refresh` as `onRefresh`."""
    return f"on{event[:1].upper()}{event[1:]}"


def _elements_given(tree: Tree) -> Iterator[str]:
    """The names that an element of the component stands in for: `this.anchor || this.$refs.anchor`."""
    for node in tree.of("binary_expression"):
        left, right = node.child("left"), node.child("right")
        if left is None or right is None or not (node.has("||") or node.has("??")):
            continue
        if not right.text.startswith("this.$refs."):
            continue
        operands = [left]
        while operands and operands[-1].type == "binary_expression":
            operands += operands.pop().named_children
        for operand in operands:
            part = operand.child("property") if operand.type == "member_expression" else None
            if part is not None and operand.text == f"this.{part.text}":
                yield part.text


def _moves_when_hidden(template: TemplateNode) -> bool:
    """Whether the whole template moves in and out under the control of its parent."""
    roots = [node for node in template.children if node.kind == "element"]
    inside = [n for root in roots for n in root.children if n.kind == "element"]
    if len(roots) != 1 or roots[0].tag.lower() != "transition" or len(inside) != 1:
        return False
    return not any(
        a.name in ("v-if", "v-show", "v-for") for a in (*roots[0].attributes, *inside[0].attributes)
    )


def _inputs_of(path: Path, depth: int) -> Inputs:
    try:
        return _read(path, path.stat().st_mtime_ns, depth)
    except (InputError, OSError):
        return Inputs()


@lru_cache(maxsize=256)
def _read(path: Path, _changed: int, depth: int) -> Inputs:
    return single_file_inputs(SourceText.read(path), depth)


def _exposed(trees: list[Tree]) -> list[str]:
    """The names a script of top-level statements gives out."""
    found: list[str] = []
    for tree in trees:
        for call in tree.of("call_expression"):
            callee, given = call.child("function"), call.child("arguments")
            if callee is None or given is None or callee.text != "defineExpose":
                continue
            for part in given.named_children[:1]:
                keys = [item.child("key") or item for item in part.named_children]
                found += [name for key in keys if (name := property_name(key)) is not None]
    return found


def _is_sent(word: Node) -> bool:
    """Whether a word is the name of an event that is sent."""
    call = word.parent.parent if word.parent is not None else None
    callee = call.child("function") if call is not None else None
    return callee is not None and callee.text.endswith("$emit")


def _unused(trees: list[Tree], markup: Tree | None) -> list[str]:
    """The methods of an object that nothing inside uses, in its script or its template."""
    used: set[str] = set()
    for tree in [*trees, *([markup] if markup is not None else [])]:
        used.update(node.text for node in tree.of("identifier", "shorthand_property_identifier"))
        # Members read from a part of something, such as an element or a child, are not its own.
        used.update(
            node.named_children[-1].text
            for node in tree.of("member_expression")
            if node.children[0].type != "member_expression"
        )
        used.update(node.text[1:-1] for node in tree.of("string") if not _is_sent(node))
    found: list[str] = []
    for tree in trees:
        for pair in tree.of("pair"):
            key, value = pair.child("key"), pair.child("value")
            if key is None or value is None or key.text != "methods" or value.type != "object":
                continue
            keys = [item.child("name") or item.child("key") for item in value.named_children]
            names = [property_name(key) for key in keys if key is not None]
            found += [n for n in names if n and n not in used and not n.startswith("_")]
    return found


def _mixed_in(trees: list[Tree], file: Path) -> list[Tree]:
    """The trees of what the component mixes in or extends, as far as it is found."""
    follower = Follower(Workspace(file, settings_for(file).aliases), frozenset(HOOKS))
    found: dict[Path, Tree] = {}
    for tree in trees:
        for pair in tree.of("pair"):
            key, value = pair.child("key"), pair.child("value")
            if key is None or value is None or key.text not in ("mixins", "extends"):
                continue
            for item in value.named_children if value.type == "array" else [value]:
                with suppress(NotFollowed):
                    found |= follower.mixed(item, tree, file).trees
    return [tree for path, tree in found.items() if path != file]


def _listed(validator: Node) -> Iterator[Any]:
    """The literals of the list that a validator looks its value up in, where that is all it does."""
    body, taken = validator.child("body"), list(parameters_of(validator))
    given = [n for n in body.walk() if n.type == "return_statement"] if body is not None else []
    if body is None or len(taken) != 1 or len(given) > 1:
        return
    calls = [n for n in body.walk() if n.type == "call_expression"]
    callee, arguments = (
        (calls[0].child(f) for f in ("function", "arguments")) if len(calls) == 1 else (None, None)
    )
    part = callee.child("property") if callee is not None else None
    source = callee.child("object") if callee is not None else None
    if part is None or source is None or part.text not in ("indexOf", "includes"):
        return
    if arguments is None or [n.text for n in arguments.named_children] != [taken[0].text]:
        return
    for item in source.named_children if source.type == "array" else ():
        known, literal = literal_of(item)
        if known:
            yield literal


def _compared(validator: Node) -> Iterator[Any]:
    """The literals that a validator compares with, or has in lists."""
    body = validator.child("body")
    for node in body.walk() if body is not None else ():
        if node.type in ("binary_expression", "array"):
            for item in node.named_children:
                known, literal = literal_of(item)
                if known and isinstance(literal, str | int | float):
                    yield literal


def _asked_of_attributes(tree: Tree) -> Iterator[str]:
    """Yield the attributes that the component itself reads: undeclared props."""
    for node in tree.of("member_expression"):
        owner, part = node.child("object"), node.child("property")
        if owner is not None and part is not None and part.type == "property_identifier":
            if owner.text in ("attrs", "$attrs") or owner.text.endswith(".$attrs"):
                yield part.text


def _asked_slots(tree: Tree) -> Iterator[str]:
    """Yield the slots that code itself reads."""
    for node in tree.of("member_expression"):
        owner, part = node.child("object"), node.child("property")
        if owner is not None and part is not None and part.type == "property_identifier":
            if owner.text == "slots" or owner.text.endswith(("$slots", "$scopedSlots")):
                yield part.text


def _injected(tree: Tree) -> Iterator[tuple[str, str]]:
    """(key, local name) of what ancestors provide, where the key is a word."""
    for pair in tree.of("pair"):
        key, value = pair.child("key"), pair.child("value")
        if key is None or value is None or key.text != "inject":
            continue
        for item in value.named_children if value.type in ("array", "object") else ():
            name = property_name(item.child("key") or item)
            given = item.child("value")
            source = given
            for part in given.named_children if given is not None else ():
                inner = part.child("key")
                if inner is not None and inner.text == "from":
                    source = part.child("value")
            if source is not None and source.type == "string":
                yield property_name(source) or "", name or ""
            elif name and (source is None or source.type == "object"):
                yield name, name
    for call in tree.of("call_expression"):
        callee, arguments = call.child("function"), call.child("arguments")
        first = arguments.named_children[:1] if arguments is not None else []
        local = call.parent.child("name") if call.parent is not None else None
        if callee is not None and callee.text == "inject" and first and local is not None:
            if first[0].type == "string":
                yield property_name(first[0]) or "", local.text


def _sent(tree: Tree) -> Iterator[str]:
    """The events that code sends by name, declared or not."""
    for call in tree.of("call_expression"):
        callee, given = call.child("function"), call.child("arguments")
        part = callee.child("property") if callee is not None else None
        name = (part or callee).text if callee is not None else ""
        first = given.named_children[:1] if given is not None else []
        if name in ("$emit", "emit") and first and first[0].type == "string":
            yield property_name(first[0]) or ""


def _spread(source: SourceText, template: TemplateNode) -> Iterator[str]:
    """The names whose values are spread over elements as attributes."""
    for node in template.walk():
        spread = node.attribute("v-bind") if node.kind == "element" else None
        text = source.slice(*spread.value) if spread is not None and spread.value else ""
        if re.fullmatch(r"[A-Za-z_]\w*", text):
            yield text


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
            declared = _declared_option(item, tree)
            used = shapes.of(name) if name in shapes else Shape()
            found.shapes[name] = merged(declared, used) if declared is not None else used


def _is_anothers(option: Node, tree: Tree) -> bool:
    """Whether an option is one of a component that a file keeps to itself, for its own template."""
    for above in option.up():
        if above.type == "pair" and (key := above.child("key")) is not None:
            if key.text == "components":
                return True
        if above.type == "variable_declarator":
            name = above.child("name")
            return name is not None and not _leaves(name.text, tree)
    return False


# Tokens that may stand between a name and the call that exposes it or mixes it in.
_BETWEEN = ("arguments", "call_expression", "as_expression", "parenthesized_expression", "array")


def _leaves(name: str, tree: Tree) -> bool:
    """Whether a name is given out by its file, or mixed in there."""
    for node in tree.of("identifier"):
        if node.text != name or node.parent is None:
            continue
        above = node.parent
        while above.type in _BETWEEN and above.parent is not None:
            above = above.parent
        key = above.child("key") if above.type == "pair" else None
        if above.type in ("export_statement", "export_specifier"):
            return True
        if key is not None and key.text in ("mixins", "extends"):
            return True
    return False


def _declarations(tree: Tree) -> list[tuple[str, Node]]:
    """(option, list or object) of declared inputs and events, in either form."""
    found: list[tuple[str, Node]] = []
    for node in tree.of("pair"):
        key, value = node.child("key"), node.child("value")
        if key is not None and value is not None and key.text in ("props", "emits"):
            if value.type in ("object", "array") and not _is_anothers(node, tree):
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


def _cast_to(kinds: Node | None, tree: Tree) -> Shape:
    """The shape of `Array as PropType<Sailing[]>`; of no kind where a class stands alone."""
    given = (
        kinds.named_children[-1] if kinds is not None and kinds.type == "as_expression" else None
    )
    types = given.child("type_arguments") if given is not None else None
    if given is None or types is None or not given.text.startswith("PropType"):
        return Shape(declared=True)
    return declared_type(types.named_children[0], tree)


def _declared_option(item: Node, tree: Tree) -> Shape | None:
    """The declared type and default of one input of a single file."""
    value = item.child("value")
    if value is None:
        return None
    parts = {"type": value} if value.type != "object" else {}
    for part in value.named_children if value.type == "object" else ():
        key, given = part.child("key"), part.child("value")
        if key is not None and given is not None:
            parts[key.text] = given
    kinds = parts.get("type")
    shape = _cast_to(kinds, tree)
    for name in kinds.walk() if kinds is not None and not shape.kinds else ():
        if name.type == "identifier":
            shape.kinds.add(name.text.lower())
    if not shape.kinds:
        shape.declared = False
    if "default" in parts:
        note_default(shape, parts["default"])
    if "validator" in parts:
        shape.literals = list(_listed(parts["validator"]))
        shape.listed = bool(shape.literals)
        shape.literals = shape.literals or list(dict.fromkeys(_compared(parts["validator"])))
    shape.required = "required" in parts and parts["required"].text == "true"
    return shape
