"""Components that a script registers by an object with bindings, controller and template."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.scoped_template.definition import Definition
from clean_carry.syntaxes.scoped_template.meaning import define_any
from clean_carry.syntaxes.scoped_template.registrations import (
    Registration,
    Registrations,
    text_of,
)
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_BINDING = re.compile(r"\s*([@&<=])(\*?)(\??)\s*([\w$]*)\s*$")
_OPTIONS = frozenset(
    "bindings controller controllerAs template templateUrl transclude require".split()
)


@dataclass(frozen=True)
class Bound:
    """A binding: its name in the controller, the name of its attribute, and how it is bound."""

    name: str
    public: str
    mode: str
    optional: bool
    node: Node


@dataclass
class Found:
    """A component of a script: its registration, its definition, its bindings, and its slots by name."""

    registration: Registration
    definition: Definition
    bindings: list[Bound]
    slots: dict[str, str]
    alias: str


def components_in(tree: Tree, names: Names) -> list[Registration]:
    """The registrations of components whose object has none of another framework's options."""
    return [
        one
        for one in Registrations(tree, names).of("component")
        if one.value.type == "object" and _is_own(one.value)
    ]


def _is_own(literal: Node) -> bool:
    names = {
        key.text.strip("'\"")
        for part in literal.named_children
        if (key := part.child("key") or part.child("name")) is not None
    }
    return bool(names & {"bindings", "controller", "transclude", "require", "templateUrl"})


def found_of(registration: Registration, names: Names) -> Found:
    """The component of a registration. Raises `NotAFile` for options that are not read."""
    definition = define_any(registration, names)
    definition.names = names
    for name, option in definition.options.items():
        if name not in _OPTIONS:
            raise NotAFile("controller-option", name, option.whole.start)
    required = definition.value("require")
    if required is not None and required.named_children:
        raise NotAFile("controller-required", required.text[:60], required.start)
    return Found(
        registration,
        definition,
        list(_bindings(definition)),
        _slots(definition),
        definition.text("controllerAs") or "$ctrl",
    )


def _bindings(definition: Definition) -> list[Bound]:
    table, found = definition.value("bindings"), []
    for pair in table.named_children if table is not None else ():
        key, value = pair.child("key"), pair.child("value")
        text = text_of(value)
        read = _BINDING.match(text) if text is not None else None
        if key is None or read is None or read[2]:
            raise NotAFile("controller-option", pair.text[:40], pair.start)
        name = text_of(key) or key.text
        if read[1] == "=":
            raise NotAFile("binding-both-ways", name, pair.start)
        found.append(Bound(name, read[4] or name, read[1], bool(read[3]), pair))
    return found


def _slots(definition: Definition) -> dict[str, str]:
    """The slots by the name their place in the template has, with the element that brings content."""
    value = definition.value("transclude")
    if value is None or not definition.true("transclude"):
        return {}
    if value.type != "object":
        return {"": ""}
    found = {"": ""}
    for pair in value.named_children:
        key, held = pair.child("key"), text_of(pair.child("value"))
        if key is None or held is None:
            raise NotAFile("controller-option", pair.text[:40], pair.start)
        found[text_of(key) or key.text] = held.lstrip("?")
    return found


def event_of(name: str) -> str:
    """The event for a binding of an expression: `onPick` is `pick`."""
    if name[:2] == "on" and name[2:3].isupper():
        return name[2].lower() + name[3:]
    return name
