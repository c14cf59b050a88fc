"""The classes that a template may use: its decorator imports them, or a module around it gives them."""

from __future__ import annotations

import os
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.recognise import (
    Decorated,
    classes_with,
    property_of,
)

# Modules may import each other.
_DEEPEST = 8


@dataclass(frozen=True)
class Usable:
    """A class that a template may use: its name, and the file it stands in, None for one of a package."""

    name: str
    file: Path | None
    request: str


@dataclass(frozen=True)
class DeclaringModule:
    """A class that declares components, with its script."""

    name: str
    file: Path
    tree: Tree
    options: Node

    def listed(self, option: str) -> list[Node]:
        """The parts of one of its lists."""
        found = property_of(self.options, option)
        return found.named_children if found is not None and found.type == "array" else []

    @cached_property
    def declared(self) -> list[str]:
        """The names of the classes it declares."""
        return [one.text for one in self.listed("declarations")]


def requests_of(tree: Tree) -> dict[str, tuple[str, str]]:
    """The names that a script imports: the request, and the name there."""
    found = {}
    for statement in tree.of("import_statement"):
        request = statement.child("source")
        for one in statement.walk():
            if one.type == "import_specifier" and request is not None:
                name, alias = one.child("name"), one.child("alias")
                given = name.text if name is not None else one.text
                found[alias.text if alias is not None else given] = (request.text[1:-1], given)
    return found


def modules_around(file: Path, workspace: Workspace) -> Iterator[DeclaringModule]:
    """The modules in the folder of a file and in those above it, up to the project's."""
    for folder in (file.resolve().parent, *file.resolve().parent.parents):
        for path in _module_files(folder):
            tree = workspace.tree(path)
            if tree is not None:
                for one in classes_with(tree, "NgModule"):
                    yield DeclaringModule(one.name, path, tree, one.options)
        if (folder / "package.json").is_file():
            return


def _module_files(folder: Path) -> list[Path]:
    try:
        found = sorted(folder.iterdir())
    except OSError:
        return []
    return [path for path in found if path.name.endswith("module.ts")]


def declaring(name: str, file: Path, workspace: Workspace) -> list[DeclaringModule]:
    """The modules around a file that declare a class of it."""
    return [
        module
        for module in modules_around(file, workspace)
        if name in module.declared and _file_of(name, module, workspace) == file.resolve()
    ]


def _file_of(name: str, module: DeclaringModule, workspace: Workspace) -> Path | None:
    """Where a class that a module names stands."""
    request, _ = requests_of(module.tree).get(name, ("", ""))
    found = workspace.resolve(request, module.file) if request else module.file
    return found.resolve() if found is not None else None


def usable_in(one: Decorated, tree: Tree, workspace: Workspace) -> list[Usable]:
    """The classes that the template of a class may use."""
    modules = declaring(one.name, workspace.file, workspace)
    if modules:
        return [each for each in _given_by(modules[0], workspace) if each.name != one.name]
    listed = property_of(one.options, "imports")
    named = listed.named_children if listed is not None else []
    found: list[Usable] = []
    for each in named:
        found += _unfolded(each.text, tree, workspace.file, workspace, 0)
    return found


def _given_by(module: DeclaringModule, workspace: Workspace) -> list[Usable]:
    """The classes that the templates of a module's own classes may use."""
    found = [_usable(name, module.tree, module.file, workspace) for name in module.declared]
    for each in module.listed("imports"):
        found += _unfolded(each.text, module.tree, module.file, workspace, 0)
    return found


def _unfolded(
    name: str, tree: Tree, file: Path, workspace: Workspace, depth: int
) -> Iterator[Usable]:
    """A class that is imported; in the place of a module of the project, the classes it exports."""
    one = _usable(name, tree, file, workspace)
    inner = workspace.tree(one.file) if one.file is not None else None
    modules = classes_with(inner, "NgModule") if inner is not None else []
    module = next((each for each in modules if each.name == one.name), None)
    if module is None or inner is None or one.file is None or depth > _DEEPEST:
        yield one
        return
    given = DeclaringModule(module.name, one.file, inner, module.options)
    for each in given.listed("exports"):
        yield from _unfolded(each.text, inner, one.file, workspace, depth + 1)


def _usable(name: str, tree: Tree, file: Path, workspace: Workspace) -> Usable:
    request, given = requests_of(tree).get(name, ("", name))
    found = workspace.resolve(request, file) if request else file
    if found is None:
        return Usable(given, None, request)
    return Usable(given, found.resolve(), request)


def request_to(file: Path, origin: Path) -> str:
    """How a script imports another one of the project."""
    shown = Path(os.path.relpath(file.resolve(), origin.resolve().parent)).with_suffix("")
    text = shown.as_posix()
    return text if text.startswith(".") else f"./{text}"
