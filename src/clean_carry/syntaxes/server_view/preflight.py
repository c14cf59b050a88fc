"""Checks of a view that was written, with its class: whether the engine will find all that they name."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping

from clean_carry.source.expressions.model import Unsayable
from clean_carry.source.expressions.types import Type
from clean_carry.source.php.tree import PhpNode, expression_in, parsed
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import marks_of
from clean_carry.source.view.tree import Block, Part, Tag, Unfolded, read_view

# Classes that the language has, and names that stand for the class itself.
_KNOWN = frozenset({"self", "static", "parent", "Throwable"})
_NAMING = frozenset(
    {"scoped_call_expression", "class_constant_access_expression", "object_creation_expression"}
)
_RENDERED = re.compile(r"return view\('(?:components|livewire)\.([\w.-]+)'\);\n    \}\n\}\n$")


def faults(class_text: str, name: str, view_name: str) -> Iterator[str]:
    """The faults of a class: its name, the view that it renders, and names that it does not import."""
    begin = class_text.find("\n")
    try:
        root = parsed(class_text[begin:].encode(), begin)
    except Unsayable:
        yield f"{name}.php cannot be read"
        return
    classes = [one.part("name").text for one in root.walk() if one.type == "class_declaration"]
    if classes != [name]:
        yield f"{name}.php holds the class {', '.join(classes)}"
    rendered = _RENDERED.search(class_text)
    if rendered is None or rendered[1] != view_name:
        yield f"the class does not render {view_name}"
    imported = {
        one.text.rpartition("\\")[2] for one in root.walk() if one.type == "namespace_use_clause"
    }
    for one in sorted(set(_classes(root)) - imported - _KNOWN):
        yield f"the class uses {one} without importing it"


def _classes(root: PhpNode) -> Iterator[str]:
    """The names of classes that code uses."""
    for one in root.walk():
        name = None
        if one.type in _NAMING:
            name = one.named[0]
        elif one.type in ("named_type", "base_clause", "attribute"):
            name = one.named[0] if one.named else None
        if name is not None and name.type == "name":
            yield name.text


def faults_of_view(view: str, *, raw: int, one_root: bool) -> Iterator[str]:
    """The faults of a view: blocks that do not fit its markup, echoes of HTML that were none, many roots.

    `raw` is how much HTML the old template showed."""
    source = SourceText("view", view.encode())
    try:
        tree = read_view(source)
    except Unfolded as reason:
        yield f"the view is not balanced: {reason.what}"
        return
    for one in marks_of(source.data):
        code = source.data[slice(*one.given)] if one.given is not None else b""
        try:
            if one.kind in ("echo", "raw") or one.name in ("if", "elseif", "class", "js"):
                expression_in(code, 0)
            elif one.name in ("foreach", "for"):
                parsed(one.name.encode() + b"(" + code + b"){}", 0)
        except Unsayable:
            yield f"the code `{code.decode()[:40]}` cannot be read"
    if sum(one.kind == "raw" for one in marks_of(source.data)) > raw:
        yield "the view shows HTML that was escaped before"
    if one_root and len(list(_shown(tree.parts, source))) != 1:
        yield "the view has several roots"


def _shown(parts: list[Part], source: SourceText) -> Iterator[Part]:
    for part in parts:
        text = source.slice(part.start, part.end)
        if isinstance(part, Tag | Block) or (
            text.strip() and not text.startswith(("{{--", "@php"))
        ):
            yield part


def sent(members: Mapping[str, Type], texts: str) -> Iterator[str]:
    """Public members, and fields of their records, that are sent to the browser and that nothing reads."""
    for name, type_ in members.items():
        bound = rf"wire:model[\w.]*=\"{name}\"|\$(?:set|toggle)\('{name}'"
        if not re.search(rf"\$(?:this->)?{name}\b|{bound}", texts):
            yield f"${name}"
            continue
        record = type_.item if type_.kind == "list" and type_.item is not None else type_
        for field_, _ in record.fields or () if record.kind == "record" else ():
            if not re.search(rf"\['{re.escape(field_)}'\]", texts):
                yield f"{field_} of ${name}"
