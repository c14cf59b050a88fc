"""Directives that cannot become components: attribute behaviours, and options without a
counterpart.

A component stands alone: an element with a template of its own and a scope that inherits nothing. A
directive that works on the user's element, compiles it, or is used as an attribute has no other form.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from clean_carry.source.importers import files_of, pages_of, project_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.syntaxes.scoped_template.definition import Definition, link_functions, returned
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.registrations import parameters_of
from clean_carry.syntaxes.scoped_template.templates import Template


@dataclass(frozen=True)
class Reason:
    """Why a directive stays one: a rule, a detail, and where."""

    rule: str
    detail: str
    at: int


@dataclass(frozen=True)
class Asked:
    """The input of the rules."""

    definition: Definition
    templates: list[Template]
    names: Names


def _at(definition: Definition, option: str) -> int:
    found = definition.options.get(option)
    return found.whole.start if found is not None else definition.registration.at


def _no_markup(asked: Asked) -> Reason | None:
    """Nothing of its own is shown: it is a behaviour of an element the user wrote."""
    definition = asked.definition
    if "template" in definition.options or "templateUrl" in definition.options:
        return None
    return Reason("stays-behaviour", "", definition.registration.at)


def _whole_element(asked: Asked) -> Reason | None:
    if asked.definition.text("transclude") == "element":
        return Reason("stays-element", "", _at(asked.definition, "transclude"))
    return None


def _terminal(asked: Asked) -> Reason | None:
    if asked.definition.true("terminal"):
        return Reason("stays-terminal", "", _at(asked.definition, "terminal"))
    return None


def _nothing_shown(asked: Asked) -> Reason | None:
    """An empty template that replaces: the element is taken away."""
    if asked.definition.text("template") == "" and asked.definition.true("replace"):
        return Reason("stays-taken-away", "", _at(asked.definition, "template"))
    return None


def _compiling(asked: Asked) -> Reason | None:
    """It changes what is about to be compiled. A `compile` that only gives a link function does not."""
    value = asked.definition.value("compile")
    if value is None:
        return None
    body = value.child("body") if value.is_function else None
    statements = body.named_children if body is not None else []
    if value.is_function and len(statements) == 1 and returned(value)[0] is not None:
        return None
    return Reason("stays-compile", "", _at(asked.definition, "compile"))


# Calls that remove an element from the page, or replace it.
_TAKES_AWAY = frozenset({"remove", "replaceWith", "detach"})


def _taken_away(asked: Asked) -> Reason | None:
    """The link function takes its own element away, at once or later."""
    for _, function in link_functions(asked.definition):
        taken = parameters_of(function)
        if len(taken) < 2:
            continue
        for ref, binding in asked.names.references_in(function):
            if binding is None or binding.node is not taken[1] or ref.field != "object":
                continue
            member = ref.parent
            called = member.child("property") if member is not None else None
            if (
                called is not None
                and called.text in _TAKES_AWAY
                and member is not None
                and member.field == "function"
            ):
                return Reason("stays-taken-away", called.text, ref.start)
    return None


def made_by_code(definition: Definition, tree: Tree, file: Path) -> bool:
    """Whether code makes its element as text, in its script or another one, and no template uses it.

    Only asked of one that shares its scope: what it needs could not be bound there.
    """
    name = re.escape(dashed(definition.name))
    use = re.compile(rf"<[^<>]*(?<![\w-])(?:data-|x-)?{name}(?![\w-])")
    if not any(use.search(node.text) for node in tree.of("string", "template_string")):
        root = project_of(file)
        scripts = files_of(root, ".js") if root is not None else ()
        if not any(path != file and use.search(text) for path, text in scripts):
            return False
    root = project_of(file)
    return root is None or not any(use.search(text) for _, text in pages_of(root))


_RULES: tuple[Callable[[Asked], Reason | None], ...] = (
    _whole_element,
    _terminal,
    _nothing_shown,
    _no_markup,
    _compiling,
    _taken_away,
)


def why_it_stays(definition: Definition, templates: list[Template], names: Names) -> Reason | None:
    """The first reason for which a directive can only be a directive; None where it can be a component."""
    asked = Asked(definition, templates, names)
    return next((reason for rule in _RULES if (reason := rule(asked)) is not None), None)
