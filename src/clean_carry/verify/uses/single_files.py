"""Uses of a component in the project's single files: its parents, content and props.

Content becomes a script of calls `make(tag or component, inputs, slots)`, which the adapter of either
runtime version gives. Unknown parts of a template are left out, conditions hold, lists have two entries.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.importers import importers_of, project_of
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.inputs.single_file_children import (
    camel,
    drawn_files,
    name_of,
    pascal,
)
from clean_carry.verify.search.values.shape import Shape, literal_of
from clean_carry.verify.search.values.values import is_function, typical
from clean_carry.verify.uses.element_props import drawn_inputs
from clean_carry.verify.uses.model import (
    MOST_CONTENTS,
    MOST_USES,
    Parents,
    Uses,
    distance,
    note_value,
)
from clean_carry.verify.uses.related_single_files import (
    Member,
    component_called,
    kin_around,
    kin_inside,
    single_files,
)
from clean_carry.verify.uses.values import NAMED, is_constant, value_text

_PLACE = "content-of-the-trial.js"
# Inputs that tell the components of one list apart, or that show.
_TELLING = frozenset("header label title name value index id field text".split())
_NOT_GIVEN = frozenset("key ref slot slot-scope is scope".split())
_NATIVE = re.compile(r"[a-z][a-z0-9]*")


def uses_of(file: Path) -> Uses:
    """Return the content and props of a component in the project's templates, otherwise content of
    related components."""
    file = file.resolve()
    script = _Script()
    contents: dict[str, None] = {}
    inputs: dict[str, list[Any]] = {}
    for number, use in enumerate(_uses(file)):
        if number >= MOST_USES:
            break
        for name, value in use.constants():
            note_value(inputs, name, value)
        if len(contents) < MOST_CONTENTS and use.element.children:
            made = _Content(use.source, use.path, script)
            slots = made.slots(use.element)
            if set(slots) == {"default"} and made.components:
                contents.setdefault(slots["default"])
    for text in _kin_contents(file, script) if not contents else ():
        contents.setdefault(text)
    drawn, elements = _drawn_contents(file, script, len(contents))
    place = file.with_name(_PLACE)
    if not contents and not drawn:
        return Uses(place, inputs=inputs)
    functions = "".join(f"  (make) => [{text}],\n" for text in (*contents, *drawn))
    text = f"{script.imports()}export default [\n{functions}];\n"
    return Uses(place, text, len(contents), inputs, elements)


def parents_of(file: Path) -> Parents | None:
    """Return the parents of a component in the project's templates, otherwise the nearest related
    one."""
    file = file.resolve()
    script = _Script()
    for use in _uses(file):
        made = _Content(use.source, use.path, script)
        around = [
            (path, made.inputs(node, path))
            for node in use.above
            if (path := made.component(node.tag)) is not None and path != file
        ]
        if around:
            return _parents(file, script, around)
    for member in kin_around(file)[:1]:
        return _parents(file, script, [(member.path, _inputs_text(member.path))])
    return None


def _parents(file: Path, script: _Script, around: list[tuple[Path, str]]) -> Parents:
    parts = ", ".join(f"[{script.name(path)}, {inputs}]" for path, inputs in around)
    text = f"{script.imports()}export default {{ around: [{parts}] }};\n"
    shown = " > ".join(name_of(path, path.read_text("utf-8", "replace")) for path, _ in around)
    return Parents(
        file.with_name("parents-of-the-trial.js"), text, shown, _asked_for(file, around[-1][0])
    )


def _asked_for(file: Path, parent: Path) -> dict[str, Shape]:
    """The inputs of a parent whose names stand in a component, with the words it compares them with, and
    its model: it may behave by them."""
    text = file.read_text("utf-8", "replace")
    words = set(re.findall(r"[\w$]+", text))
    found: dict[str, Shape] = {}
    known = read_inputs(parent.read_text("utf-8", "replace"), str(parent)).shapes
    for name, shape in known.items():
        if (name in words or name in _MODELS) and not is_function(name, shape):
            found[name] = replace(shape, literals=list(shape.literals))
            for compared in re.findall(
                rf"\.{re.escape(name)}\s*[=!]==?\s*['\"]([^'\"\n]+)['\"]", text
            ):
                found[name].note(compared)
    return found


# The value that a parent gets as its model.
_MODELS = ("modelValue", "value")


@dataclass
class _Script:
    """The imports of a module that is written."""

    names: dict[Path, str] = field(default_factory=dict)

    def name(self, path: Path) -> str:
        """The local name of a component."""
        return self.names.setdefault(path, f"Part{len(self.names) + 1}")

    def imports(self) -> str:
        """The statements at the top."""
        lines = (
            f"import {name} from {json.dumps(str(path))};\n" for path, name in self.names.items()
        )
        return "".join(lines)


@dataclass(frozen=True)
class _Use:
    """A use of the component in a template; `above` are the elements around it, from the outside in."""

    source: SourceText
    path: Path
    element: TemplateNode
    above: tuple[TemplateNode, ...]

    def constants(self) -> Iterator[tuple[str, Any]]:
        """The attributes whose value is a constant."""
        for name, text, bound in _attributes(self.source, self.element):
            if not bound:
                yield camel(name), text if text is not None else True
                continue
            node = _expression(text or "")
            known, value = literal_of(node) if node is not None else (False, None)
            if known and value is not None:
                yield camel(name), value


def _uses(file: Path) -> Iterator[_Use]:
    root = project_of(file)
    if root is None:
        return
    own = name_of(file, file.read_text("utf-8", "replace") if file.is_file() else "")
    locally = {i.path: i.default_names(file) for i in importers_of(file)}
    paths = [(path, text) for path, text in single_files(root) if path != file]
    for path, text in sorted(paths, key=lambda pair: distance(pair[0], file)):
        tags = {form for name in {own, *locally.get(path, ())} for form in (name, kebab(name))}
        if not any(f"<{tag}" in text for tag in tags):
            continue
        with suppress(InputError):
            source = SourceText(str(path), text.encode())
            for block in read_blocks(source):
                if block.tag == "template":
                    for element, above in _elements(block, ()):
                        if element.tag in tags:
                            yield _Use(source, path, element, above)


def _elements(
    node: TemplateNode, above: tuple[TemplateNode, ...]
) -> Iterator[tuple[TemplateNode, tuple[TemplateNode, ...]]]:
    for child in node.children:
        if child.kind == "element":
            yield child, above
            yield from _elements(child, (*above, child))


class _Content:
    """The content of a use as calls; `components` counts those of the project in it."""

    def __init__(self, source: SourceText, path: Path, script: _Script) -> None:
        self.source, self.path, self.script = source, path, script
        self.components = 0
        self._imported = drawn_files(source)

    def component(self, tag: str) -> Path | None:
        """The file of what a tag means here; None for elements of the page and what is not known."""
        local = self._imported.get(tag) or self._imported.get(pascal(tag))
        if local is not None:
            return local
        return None if _NATIVE.fullmatch(tag) else component_called(tag, self.path)

    def slots(self, element: TemplateNode) -> dict[str, str]:
        """{slot: parts} of what stands inside an element."""
        found: dict[str, list[str]] = {}
        for child in element.children:
            name = _slot_of(self.source, child)
            inside = child.children if child.tag == "template" else [child]
            parts = [text for part in inside if (text := self.of(part))]
            found.setdefault(name, []).extend(parts)
        return {name: ", ".join(parts) for name, parts in found.items() if parts}

    def of(self, node: TemplateNode) -> str:
        """Return one part of the content; empty if nothing of it is rendered."""
        if node.kind in ("text", "interpolation"):
            text = self.source.slice(*node.inner).strip()
            return json.dumps(text) if text else ""
        if node.kind != "element" or node.attribute("v-else") or node.attribute("v-else-if"):
            return ""
        path = self.component(node.tag)
        slots = self.slots(node)
        if path is None and not (
            _NATIVE.fullmatch(node.tag) and node.tag not in ("slot", "template")
        ):
            return slots.get("default", "")
        self.components += path is not None
        tag = self.script.name(path) if path is not None else json.dumps(node.tag)
        given = ", ".join(f"{json.dumps(name)}: () => [{parts}]" for name, parts in slots.items())
        text = f"make({tag}, {self.inputs(node, path)}, {{ {given} }})"
        return f"{text}, {text}" if node.attribute("v-for") else text

    def inputs(self, node: TemplateNode, path: Path | None) -> str:
        """The attributes of an element, or of the component in a file, as an object.

        An expression that is no constant is what the component's own code says of the input.
        """
        shapes = _shapes_of(path) if path is not None else {}
        parts: dict[str, str] = {}
        for name, text, bound in _attributes(self.source, node):
            key = camel(name) if path is not None else name
            if not bound:
                plain = "true" if path is not None else '""'
                parts[key] = json.dumps(text) if text is not None else plain
                continue
            expression = _expression(text or "")
            if expression is None or (expression.type in NAMED and key not in shapes):
                continue
            if is_constant(expression) or key not in shapes:
                parts.setdefault(key, value_text(expression))
            else:
                parts.setdefault(key, _given(key, shapes[key], 0))
        return f"{{ {', '.join(f'{json.dumps(key)}: {value}' for key, value in parts.items())} }}"


def _slot_of(source: SourceText, node: TemplateNode) -> str:
    for attribute in node.attributes:
        for start in ("v-slot:", "#"):
            if attribute.name.startswith(start):
                return attribute.name[len(start) :]
        if attribute.name == "slot" and attribute.value is not None:
            return source.slice(*attribute.value)
    return "default"


def _attributes(source: SourceText, node: TemplateNode) -> Iterator[tuple[str, str | None, bool]]:
    """(name, text, whether it is an expression) of the attributes that give a value."""
    for attribute in node.attributes:
        name, bound = attribute.name, False
        for start in ("v-bind:", ":"):
            if name.startswith(start):
                name, bound = name[len(start) :].split(".")[0], True
        if name.startswith(("v-", "@", "#", "[")) or name in _NOT_GIVEN:
            continue
        yield name, source.slice(*attribute.value) if attribute.value is not None else None, bound


def _expression(text: str) -> Node | None:
    try:
        tree = Tree(SourceText("expression", f"({text})".encode()))
    except InputError:
        return None
    first = tree.of("parenthesized_expression")[:1]
    return first[0].named_children[0] if first and first[0].named_children else None


def _kin_contents(file: Path, script: _Script) -> list[str]:
    """Return contents of related components: two of each, one of all, two of which one has its
    flags set."""
    kin = kin_inside(file)
    contents = [f"{_made(one, script, 0)}, {_made(one, script, 1)}" for one in kin]
    contents[1:1] = [
        f"{_made(one, script, 0, flags=True)}, {_made(one, script, 1)}" for one in kin[:1]
    ]
    if len(kin) > 1:
        contents.insert(1, ", ".join(_made(one, script, at) for at, one in enumerate(kin)))
    return contents


def _drawn_contents(
    file: Path, script: _Script, before: int
) -> tuple[list[str], dict[str, list[Any]]]:
    """Return functions that make the elements for props, and the values of those props."""
    made: list[str] = []
    given_as: dict[str, list[Any]] = {}
    text = file.read_text("utf-8", "replace") if file.is_file() else ""
    for drawn in drawn_inputs(file, text, _shapes_of(file), _shapes_of):
        numbers = []
        for salt, one in enumerate(drawn.elements):
            given = ", ".join(
                f"{json.dumps(n)}: {'true' if s.kinds == {'boolean'} else _given(n, s, salt)}"
                for n, s in one.inputs
            )
            slots = ", ".join(f"{json.dumps(n)}: () => [{json.dumps(n)}]" for n in one.slots)
            made.append(f"make({script.name(one.path)}, {{ {given} }}, {{ {slots} }})")
            numbers.append(before + len(made))
        given_as[drawn.name] = drawn.values(numbers)
    return made, given_as


def _made(member: Member, script: _Script, salt: int, *, flags: bool = False) -> str:
    inside = f"default: () => [{json.dumps(f'{member.name} {salt + 1}')}]"
    inputs = _inputs_text(member.path, salt, flags=flags)
    return f"make({script.name(member.path)}, {inputs}, {{ {inside} }})"


def _inputs_text(path: Path, salt: int = 0, *, flags: bool = False) -> str:
    """Return the props that a component needs or is identified by, and with `flags` those it
    declares."""
    parts = [
        f"{name}: {_given(name, shape, salt)}"
        for name, shape in _shapes_of(path).items()
        if name.isidentifier()
        and (shape.required or _tells(name, shape) or (flags and shape.kinds == {"boolean"}))
    ]
    return f"{{ {', '.join(parts)} }}"


def _given(name: str, shape: Shape, salt: int) -> str:
    return "() => {}" if is_function(name, shape) else _text(typical(name, shape, salt))


def _text(value: Any) -> str:
    """A neutral value as an expression of a script."""
    match value:
        case {"$": "function"}:
            return "() => {}"
        case {"$": "date", "time": time}:
            return f"new Date({time})"
        case {"$": _}:
            return "undefined"
        case dict():
            return f"{{ {', '.join(f'{json.dumps(k)}: {_text(v)}' for k, v in value.items())} }}"
        case list():
            return f"[{', '.join(map(_text, value))}]"
    return json.dumps(value)


def _shapes_of(path: Path) -> dict[str, Shape]:
    try:
        return read_inputs(path.read_text("utf-8"), str(path)).shapes
    except (OSError, UnicodeDecodeError):
        return {}


def _tells(name: str, shape: Shape) -> bool:
    return shape.declared and name in _TELLING and not shape.kinds & {"array", "object", "function"}


def kebab(name: str) -> str:
    """`TabPane` as `tab-pane`."""
    return re.sub(r"(?<!^)(?=[A-Z])", "-", name).lower()
