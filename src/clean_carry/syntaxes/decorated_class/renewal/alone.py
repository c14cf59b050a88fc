"""The imports that a class of a module needs to stand alone."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.template.tree import read_markup
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.declarations import stands_alone
from clean_carry.syntaxes.decorated_class.markup_of import TemplateText
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    classes_with,
    property_of,
    text_of,
)
from clean_carry.syntaxes.decorated_class.scope import (
    DeclaringModule,
    Usable,
    declaring,
    request_to,
    requests_of,
    usable_in,
)
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX

# Modules of the runtime that templates need, by attributes and tags that show it.
_BY_NAME = {
    "FormsModule": re.compile(r"\bngModel\b|<form\b|\bngForm\b"),
    "ReactiveFormsModule": re.compile(r"\bform(?:Group|Control|Array)(?:Name)?\b"),
    "RouterModule": re.compile(r"\brouterLink|<router-outlet\b"),
}
# Modules whose parts are imported one by one, or that no template needs.
_OF_RUNTIME = re.compile(r"@angular/(?:common|platform-browser|core)(?:/|$)")


class StaysDeclared(Exception):
    """Why a class cannot stand alone yet."""

    def __init__(self, why: str) -> None:
        super().__init__(why)
        self.why = why


@dataclass(frozen=True)
class Needed:
    """A class that the template needs, and where it is imported from."""

    name: str
    request: str


def needed_alone(
    one: Decorated, tree: Tree, workspace: Workspace, markup: TemplateText
) -> list[Needed] | None:
    """The classes that a declared class must import, those of the common package left out; None for one
    that no module declares. Raises `StaysDeclared`."""
    modules = declaring(one.name, workspace.file, workspace)
    if not modules:
        if not stands_alone(tree, one.name):
            raise StaysDeclared("the module that declares it was not found")
        return None
    if len(modules) > 1:
        named = " and ".join(each.name for each in modules)
        raise StaysDeclared(f"{named} declare it")
    text = markup.source.slice(markup.start, markup.end)
    tags, attributes = _used(markup)
    found: dict[str, Needed] = {}
    for each in usable_in(one, tree, workspace):
        if each.file is None:
            found |= {made.name: made for made in _of_package(each, text)}
        elif _is_used(each, workspace, text, tags, attributes):
            made = _of_project(each, modules[0], workspace)
            found[made.name] = made
    return list(found.values())


def _used(markup: TemplateText) -> tuple[set[str], set[str]]:
    """The tags of a template, and its attributes without the signs of bindings."""
    tags, attributes = set(), set()
    try:
        nodes = read_markup(markup.source, markup.start, markup.end)
    except InputError:
        return set(), set()
    for node in (inner for one in nodes for inner in one.walk()):
        tags.add(node.tag)
        attributes |= {one.name.strip("[]()*") for one in node.attributes}
    return tags, attributes


def _of_package(one: Usable, text: str) -> Iterator[Needed]:
    """A class of a package, where the template may need it."""
    shown = _BY_NAME.get(one.name)
    if shown is not None:
        if shown.search(text):
            yield Needed(one.name, one.request)
    elif not one.request:
        raise StaysDeclared(f"{one.name} is not imported by name")
    elif not _OF_RUNTIME.match(one.request):
        # Nothing here tells what it gives to templates, so it is kept.
        yield Needed(one.name, one.request)


def _is_used(
    one: Usable, workspace: Workspace, text: str, tags: set[str], attributes: set[str]
) -> bool:
    tree = workspace.tree(one.file) if one.file is not None else None
    if tree is None:
        raise StaysDeclared(f"{one.name} cannot be read")
    for kind in ("Component", "Directive", "Pipe"):
        for each in classes_with(tree, kind):
            if each.name != one.name:
                continue
            if kind == "Pipe":
                named = property_of(each.options, "name")
                name = text_of(named) if named is not None else None
                return bool(name and re.search(rf"\|\s*{re.escape(name)}\b", text))
            parts = re.findall(r"\[([\w-]+)[^\]]*\]|([a-z][\w-]*)", each.selector)
            return any((a and a in attributes) or (t and t in tags) for a, t in parts)
    raise StaysDeclared(f"{one.name} is no class for templates that can be read")


def _of_project(one: Usable, module: DeclaringModule, workspace: Workspace) -> Needed:
    """A class of the project: by itself where it stands alone, or will; else by a module with it."""
    assert one.file is not None
    tree = workspace.tree(one.file)
    request = request_to(one.file, workspace.file)
    if tree is not None and _alone_already(tree, one, workspace):
        return Needed(one.name, request)
    if workspace.is_carried(request):
        suffix = f".{SYNTAX.suffix}" if workspace.beside else ""
        return Needed(one.name, f"{request}{suffix}")
    for each in module.listed("imports"):
        asked, name = requests_of(module.tree).get(each.text, ("", ""))
        found = workspace.resolve(asked, module.file) if asked else None
        inner = workspace.tree(found) if found is not None else None
        for given in classes_with(inner, "NgModule") if inner is not None else ():
            exports = property_of(given.options, "exports")
            listed = exports.named_children if exports is not None else []
            if given.name == name and any(part.text == one.name for part in listed):
                assert found is not None
                return Needed(name, request_to(found, workspace.file))
    raise StaysDeclared(f"it uses {one.name}, which a module declares as well")


def _alone_already(tree: Tree, one: Usable, workspace: Workspace) -> bool:
    assert one.file is not None
    for kind in ("Component", "Directive", "Pipe"):
        for each in classes_with(tree, kind):
            if each.name == one.name:
                told = property_of(each.options, "standalone")
                if told is not None:
                    return told.text == "true"
                return not declaring(one.name, one.file, workspace)
    return False
