"""The inputs of a directive or a component that is registered by name: its bindings, the attributes it
reads, the value its element edits, the content it takes.

An attribute that is read as text is an input whose name begins with `@`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.definition import Definition, link_functions
from clean_carry.syntaxes.scoped_template.directives import KINDS, normalised
from clean_carry.syntaxes.scoped_template.markup import decoded, names_of
from clean_carry.syntaxes.scoped_template.meaning import define_any, is_plain, kind_in
from clean_carry.syntaxes.scoped_template.registrations import (
    Registration,
    Registrations,
    parameters_of,
    text_of,
)
from clean_carry.syntaxes.scoped_template.scope_uses import uses_of
from clean_carry.syntaxes.scoped_template.templates import Template, Templates
from clean_carry.verify.search.inputs.directive_attributes import (
    is_evaluated,
    note_constants,
    note_watched,
)
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.related_directives import (
    asked_content,
    kin_of,
    named_content,
    number_chosen,
)
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.uses.model import AROUND

_BINDING = re.compile(r"\s*([@&=<])[*?]*\s*([$\w]*)\s*$")
_LOOP = re.compile(
    r"\s*\(?([\w$]+)[^)]*?\)?\s+in\s+([^|]+?)(?:\s*\|[\s\S]*|\s+track\s+by[\s\S]*|\s+as\s[\s\S]*)?$"
)
# A filter, not one of the two bars of an alternative.
_FILTER = re.compile(r"(?<!\|)\|(?!\|)")
# Names by which code knows the value its element edits.
_MODEL = ("$viewValue", "$modelValue", "viewValue", "modelValue")
# Which elements of its content are there, by their numbers.
_PARTS = ("1 2 3 4 5 6", "2 3 4 5 6", "1 3 4 5 6", "1", "")
_PLAIN = frozenset({"templateUrl", "class", "style", "$attr", "id"})


def directive_inputs(source: SourceText, component: str) -> Inputs:
    """Read the inputs of one of the directives of a script. Raises `InputError` for what is no script."""
    tree = Tree(source)
    names = Names(tree)
    registrations = Registrations(tree, names)
    listed = [*registrations.of("directive"), *registrations.of("component")]
    found = Inputs(exports=[r.name for r in listed])
    only = listed[0] if len(listed) == 1 else None
    chosen = next((r for r in listed if r.name == component), only)
    if chosen is None:
        return found
    definition = define_any(chosen, names)
    controller = _controller(definition, registrations)
    templates, _ = Templates(tree, names, Path(source.path)).of(definition)
    own = Tree(source, _view(source, registrations, chosen, controller))
    shapes = Shapes([own, *(t for one in templates if (t := _template_tree(one)) is not None)])
    bound = dict(_bindings(definition))
    _note_bindings(found, shapes, bound, told=chosen.kind == "component")
    functions = [f for f in (definition.registration.function, controller) if f is not None]
    for name in _attributes(definition, registrations, names, controller):
        if name in bound or name in _PLAIN or name.startswith("$"):
            continue
        kind = kind_in(definition, name, definition.name)
        if kind == "value" or any(is_evaluated(tree, code, name) for code in functions):
            found.shapes.setdefault(name, shapes.of(name))
        else:
            text = Shape({"string"}, list(shapes.of(name).literals), declared=True)
            found.shapes.setdefault("@" + name, text)
    note_watched(found.shapes, functions)
    note_constants(found.shapes, registrations, functions)
    for name in _taken(definition, templates, names, controller):
        found.shapes.setdefault(name, shapes.of(name))
    if any(asked.strip("?^") == "ngModel" and "^^" not in asked for asked in _required(definition)):
        kinds = {kind for name in _MODEL if name in shapes for kind in shapes.of(name).kinds}
        found.shapes["ngModel"] = Shape(kinds or {"number", "string"})
    if any("^" in asked and "?" not in asked for asked in _required(definition)):
        found.shapes[AROUND + "rows"] = Shape({"number"}, [12, 0, 3])
        found.shapes[AROUND + "beside"] = Shape({"boolean"}, declared=True)
    if definition.true("transclude"):
        found.slots = ["default"]
        found.contents = [
            *named_content(definition.value("transclude")),
            *kin_of(component, registrations, Path(source.path)),
            *asked_content(own),
        ]
        if found.contents:
            number_chosen(found.shapes, found.contents)
            found.shapes[AROUND + "parts"] = Shape(
                {"string"}, list(_PARTS), declared=True, listed=True
            )
    return found


def _note_bindings(
    found: Inputs, shapes: Shapes, bound: dict[str, tuple[str, str]], *, told: bool
) -> None:
    """The inputs that are bound; where changes are `told`, not the functions that tell of them."""
    for attribute, (name, kind) in bound.items():
        if kind == "&" and told and _told_of(attribute) in bound:
            # It reports changes of a prop: the parent sets that prop.
            continue
        shape = shapes.of(name)
        if kind == "&":
            shape = Shape({"function"}, declared=True, result=shape.result)
        elif kind == "@":
            shape = Shape({"string"}, list(shape.literals), declared=True)
        found.shapes[attribute] = shape


def _told_of(event: str) -> str:
    """The prop whose new value an event reports: `seats` for `onSeatsChange`."""
    found = re.fullmatch(r"on([A-Z]\w*)Change", event)
    return found.group(1)[0].lower() + found.group(1)[1:] if found else ""


def _taken(
    definition: Definition, templates: list[Template], names: Names, controller: Node | None
) -> list[str]:
    """The names a directive takes from the scope around it, where its scope is not isolated."""
    if definition.isolated or definition.registration.kind != "directive":
        return []
    parameters = [p for _, fn in link_functions(definition) for p in parameters_of(fn)[:1]]
    members = uses_of(names, [p for p in parameters if p.type == "identifier"]).members()
    used = dict.fromkeys(name for name, written in members.items() if not written)
    for template in templates:
        try:
            found = names_of(template.source, lambda node, name: "text" if is_plain(name) else "")
        except InputError:
            continue
        alias = definition.text("controllerAs") or "$ctrl"
        used.update(
            dict.fromkeys(
                n.name
                for n in found.names
                if n.up <= n.level and n.name not in (alias, "this") and not n.name.startswith("$")
            )
        )
    return [name for name in used if not members.get(name)]


def _view(
    source: SourceText, registrations: Registrations, chosen: Registration, controller: Node | None
) -> bytes:
    """The script with the other directives and controllers blank."""
    ranges = [
        (r.at, r.call.end)
        for r in registrations.found
        if r is chosen
        or r.kind not in ("directive", "component", "controller")
        or (
            controller is not None
            and r.call.start <= controller.start < r.call.end
            and r.function is controller
        )
    ]
    view = source.blanked(ranges)
    ends = [end for _, end in ranges]
    for start, _ in ranges:
        # A branch that follows another in its chain stays in it.
        follows = any(end <= start and not source.data[end:start].strip() for end in ends)
        if start and not follows:
            view[start - 1 : start] = b"x"
    return bytes(view)


def _controller(definition: Definition, registrations: Registrations) -> Node | None:
    value = definition.value("controller")
    text = text_of(value)
    if text is not None:
        found = registrations.of("controller", text.split(" as ")[0].strip())
        return found[-1].function if found else None
    return registrations.followed(value)[0]


def _bindings(definition: Definition) -> Iterator[tuple[str, tuple[str, str]]]:
    for option in ("scope", "bindToController", "bindings"):
        node = definition.value(option)
        for pair in node.named_children if node is not None and node.type == "object" else []:
            key, text = pair.child("key"), text_of(pair.child("value"))
            match = _BINDING.match(text) if text is not None else None
            if key is not None and match is not None:
                name = text_of(key) or key.text
                yield match.group(2) or name, (name, match.group(1))


def _required(definition: Definition) -> Iterator[str]:
    value = definition.value("require")
    for node in value.walk() if value is not None else ():
        text = text_of(node)
        if text is not None:
            yield text


def _attributes(
    definition: Definition, registrations: Registrations, names: Names, controller: Node | None
) -> list[str]:
    """Return the names of the attributes that link functions and the controller read."""
    parameters = [p for _, fn in link_functions(definition) for p in parameters_of(fn)[2:3]]
    if controller is not None:
        parameters += _injected_attributes(registrations, controller)
    found: dict[str, None] = {}
    for parameter in parameters:
        binding = names.scope_at(parameter).find(parameter.text)
        references = binding.references if binding is not None else []
        members = [ref.parent for ref in references if ref.field == "object"]
        asked = [
            m.child("property") for m in members if m is not None and m.type == "member_expression"
        ]
        found.update(dict.fromkeys(name.text for name in asked if name is not None))
        observed = [_observed(ref) for ref in references]
        found.update(dict.fromkeys(name for name in observed if name))
    return list(found)


def _injected_attributes(registrations: Registrations, controller: Node) -> Iterator[Node]:
    """Yield the parameters of a controller that `$attrs` is injected as."""
    for registration in registrations.found:
        if registration.function is controller:
            for injection in registration.injections:
                if injection.name == "$attrs" and injection.parameter:
                    yield injection.parameter
    parameters = parameters_of(controller)
    yield from (parameter for parameter in parameters if parameter.text == "$attrs")
    array = controller.parent
    if array is not None and array.type == "array":
        listed = [text_of(node) for node in array.named_children]
        yield from (p for p, name in zip(parameters, listed, strict=False) if name == "$attrs")


def _observed(reference: Node) -> str | None:
    """Return the name in `attrs.$observe('name', …)`, None for any other use of the attributes."""
    member = reference.parent
    call = member.parent if member is not None else None
    if member is None or call is None or call.type != "call_expression":
        return None
    asked, given = member.child("property"), call.child("arguments")
    first = given.named_children[:1] if given is not None else []
    observes = asked is not None and asked.text == "$observe"
    return text_of(first[0]) if observes and first else None


def _template_tree(template: Template) -> Tree | None:
    """The expressions of a template as statements, for what their names are used as."""
    source = template.source
    lines: list[str] = []
    try:
        for node in read_markup(source, 0, len(source.data), loose=True):
            for inner in node.walk():
                lines += _statements(source, inner)
        return Tree(SourceText(source.path, "\n".join(["", *lines, ""]).encode()))
    except InputError:
        return None


def _statements(source: SourceText, node: TemplateNode) -> Iterator[str]:
    if node.kind == "interpolation":
        yield from _checked(decoded(source, *node.inner)[0])
    for attribute in node.attributes:
        if attribute.value is None:
            continue
        text = decoded(source, *attribute.value)[0]
        name = normalised(attribute.name).removesuffix("Start")
        if name == "ngRepeat":
            loop = _LOOP.match(text)
            if loop is not None:
                item, over = loop.groups()
                yield from _checked(f"{over.strip()}.map(({item}) => {item})")
        elif KINDS.get(name) in ("value", "statement", "target"):
            yield from _checked(text)
        else:
            for found in re.finditer(r"\{\{([\s\S]*?)\}\}", text):
                yield from _checked(found.group(1))


def _checked(text: str) -> Iterator[str]:
    """An expression as a statement, filters left out; none where it is no JavaScript then."""
    plain = _FILTER.split(text.replace("::", "", 1) if text.lstrip().startswith("::") else text)[
        0
    ].strip()
    if not plain:
        return
    line = f"{plain};" if ";" in plain else f"({plain});"
    try:
        Tree(SourceText("template", (line + "\n").encode()))
    except InputError:
        return
    yield line
