"""Content that a directive is made for: those that require its controller, as elements inside of it."""

from __future__ import annotations

import re
from dataclasses import replace
from functools import lru_cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.importers import files_of, project_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.definition import Definition
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.meaning import define_any
from clean_carry.syntaxes.scoped_template.registrations import Registrations, text_of
from clean_carry.verify.search.values.shape import Shape

_WORDS = ("Holm", "Ayre")
_BINDING = re.compile(r"\s*([@&=<])[*?]*\s*([$\w]*)\s*$")
# Attributes that identify an element among others, and the inputs around it that choose one.
_NUMBERED = frozenset({"index", "position"})
_CHOSEN = frozenset({"active", "selected", "current", "activeIndex", "selectedIndex"})
# The number of kinds of related content that are tried.
MOST_KIN = 3


def kin_of(name: str, registrations: Registrations, file: Path) -> list[list[Any]]:
    """Contents in the neutral form: for each directive that requires `name` around it, two of them, and all
    together."""
    known = [d for d in _defined(registrations) if _requires(d, name)]
    root = project_of(file)
    if root is not None:
        names = {definition.name for definition in known}
        known += [d for d in _elsewhere(root, name, file) if d.name not in names]
    contents = [[_element(d, at) for at in range(len(_WORDS))] for d in known[:MOST_KIN]]
    if len(contents) > 1:
        contents.append([part for content in contents for part in content])
    return contents


def number_chosen(shapes: dict[str, Shape], contents: list[list[Any]]) -> None:
    """Return the number that selects one part of the content, if its content is numbered."""
    parts = [part for content in contents for part in content]
    if any(_NUMBERED & part.get("attributes", {}).keys() for part in parts):
        for name in _CHOSEN & shapes.keys():
            if not shapes[name].kinds:
                shapes[name] = replace(shapes[name], kinds={"number"}, literals=[0, 1])


def named_content(slots: Node | None) -> list[list[Any]]:
    """Content for slots that take elements by their names (`{ title: 'cardTitle', rest: '?cardRest' }`).

    First all of them, then those alone that must be there.
    """
    if slots is None or slots.type != "object":
        return []
    pairs = [pair.child("value") for pair in slots.named_children if pair.type == "pair"]
    names = [name for value in pairs if value is not None and (name := text_of(value))]
    every = [
        (
            name.startswith("?"),
            {"tag": dashed(name.strip("?")), "content": [f"some {name.strip('?')}"]},
        )
        for name in names
    ]
    must = [element for optional, element in every if not optional]
    contents = [[element for _, element in every], must]
    return [content for content in contents if content][: 1 if len(must) == len(every) else 2]


# Methods that look elements up by a selector, and the selectors that name elements plainly.
_LOOKS_UP = frozenset({"querySelector", "querySelectorAll", "find", "children", "closest", "is"})
_COMPOUND = re.compile(
    r"([a-zA-Z][\w-]*)?((?:\.[\w-]+)*)(?:\[([\w-]+)(?:=[\"']?([^\"'\]]*)[\"']?)?\])?$"
)


def asked_content(tree: Tree) -> list[list[Any]]:
    """Content that has the elements code looks for inside of its own: `querySelectorAll('li > a')`."""
    found: list[dict[str, Any]] = []
    for call in tree.of("call_expression"):
        function, given = call.child("function"), call.child("arguments")
        asked = function.child("property") if function is not None else None
        texts = given.named_children if given is not None else []
        text = text_of(texts[0]) if texts else None
        if asked is not None and asked.text in _LOOKS_UP and text:
            element = _selected(text)
            if element is not None and element not in found:
                found.append(element)
    return [list(found)] if found else []


def _selected(selector: str) -> dict[str, Any] | None:
    """An element that a selector of tags, classes and attributes names, inside of those around it."""
    inner: dict[str, Any] | None = None
    for part in reversed(re.split(r"\s*>\s*|\s+", selector.strip())):
        compound = _COMPOUND.match(part)
        if compound is None or not part:
            return None
        tag, classes, name, value = compound.groups()
        attributes = {"class": classes[1:].replace(".", " ")} if classes else {}
        if name:
            attributes[name] = value or ""
        content: list[Any] = ["Sker"] if inner is None else [inner]
        inner = {"tag": (tag or "div").lower(), "attributes": attributes, "content": content}
    return inner


def _defined(registrations: Registrations) -> list[Definition]:
    listed = [*registrations.of("directive"), *registrations.of("component")]
    return [define_any(registration, registrations.names) for registration in listed]


def _requires(definition: Definition, name: str) -> bool:
    value = definition.value("require")
    texts = [text_of(node) for node in (value.walk() if value is not None else ())]
    return any(text is not None and "^" in text and text.strip("?^") == name for text in texts)


@lru_cache(maxsize=256)
def _elsewhere(root: Path, name: str, file: Path) -> tuple[Definition, ...]:
    asked = re.compile(rf"""['"]\??\^+\??{re.escape(name)}['"]""")
    found: list[Definition] = []
    for path, text in files_of(root, ".js"):
        if path != file and ".component." not in path.name and asked.search(text):
            try:
                tree = Tree(SourceText(str(path), text.encode()))
            except InputError:
                continue
            found += [d for d in _defined(Registrations(tree, Names(tree))) if _requires(d, name)]
    return tuple(found)


def _element(definition: Definition, at: int) -> dict[str, Any]:
    """One of them: texts where it takes texts, places that can be written where it binds values, and its
    own number for what is called so."""
    word = _WORDS[at]
    tag = dashed(definition.name)
    attributes: dict[str, str] = {}
    if definition.registration.kind == "directive" and "E" not in definition.restrict:
        attributes[tag] = ""
    for option in ("scope", "bindToController", "bindings"):
        node = definition.value(option)
        for pair in node.named_children if node is not None and node.type == "object" else []:
            key, text = pair.child("key"), text_of(pair.child("value"))
            found = _BINDING.match(text) if text is not None else None
            if key is None or found is None or found.group(1) == "&":
                continue
            attribute = found.group(2) or text_of(key) or key.text
            if attribute in _NUMBERED:
                value = str(at)
            else:
                value = word if found.group(1) == "@" else f"kin.{attribute}{word}"
            attributes[dashed(attribute)] = value
    return {"tag": tag, "attributes": attributes, "content": [f"in {word}"]}
