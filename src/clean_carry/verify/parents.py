"""The parents a component needs, taken from the project's own uses of it.

An option draws nothing outside a list, a tab nothing outside a tab set. Where a file of the project
uses the component inside another one, trials can do so too.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import takewhile
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace

# A project is looked through up to this many files.
MOST_FILES = 600
_ENDINGS = frozenset({".js", ".jsx", ".tsx"})
# What tells the top folder of a project.
_ROOTS = ("package.json", "clean-carry.toml", ".git")
_CONSTANT = frozenset("string number true false null unary_expression template_string".split())


@dataclass(frozen=True)
class Parents:
    """A module whose default export wraps its children in the parents found.

    `place` is where it would stand, `text` what it says, `shown` the parents from the outside in.
    """

    place: Path
    text: str
    shown: str


def parents_of(component: str, file: Path) -> Parents | None:
    """The parents of the first use found of a component inside another one; None where there is none."""
    for path in _files(file):
        try:
            text = path.read_text("utf-8")
        except (OSError, UnicodeDecodeError):
            continue
        if f"<{component}" not in text:
            continue
        try:
            tree = Tree(SourceText(str(path), text.encode()))
        except InputError:
            continue
        for element in tree.of("jsx_opening_element", "jsx_self_closing_element"):
            name = element.child("name")
            if name is not None and name.text == component:
                found = _around(element, tree, path, file)
                if found is not None:
                    return found
    return None


def _files(file: Path) -> Iterator[Path]:
    """The files of the project, those nearest to the component first; only its folder outside of one."""
    root = next(
        (up for up in file.parents if any((up / name).exists() for name in _ROOTS)), file.parent
    )
    found: list[Path] = []
    for folder, folders, names in os.walk(root):
        folders[:] = sorted(f for f in folders if f != "node_modules" and not f.startswith("."))
        paths = (Path(folder) / name for name in sorted(names))
        found += [path for path in paths if path.suffix in _ENDINGS and path != file]
        if len(found) > MOST_FILES:
            break
    yield from sorted(found, key=lambda path: _distance(path, file))


def _distance(path: Path, file: Path) -> int:
    """Steps from folder to folder between two files."""
    one, other = path.parent.parts, file.parent.parts
    shared = sum(
        1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(one, other, strict=False))
    )
    return len(one) + len(other) - 2 * shared


def _around(element: Node, tree: Tree, path: Path, file: Path) -> Parents | None:
    names = Names(tree)
    workspace = Workspace(path)
    imports: list[str] = []
    opened: list[str] = []
    for above in element.up():
        if above.is_function or above.type == "jsx_attribute":
            break
        if above.type != "jsx_element" or above is element.parent:
            continue
        opening = above.children[0]
        name = opening.child("name")
        if name is None or name.text[:1].islower() or name.text.endswith("Fragment"):
            continue
        line = _import(name, names, workspace, path)
        if line is None:
            return None
        if line not in imports:
            imports.append(line)
        opened.insert(0, f"{name.text}{_attributes(opening)}")
    if not opened:
        return None
    start = "".join(f"<{tag}>" for tag in opened)
    end = "".join(f"</{tag.split(' ')[0]}>" for tag in reversed(opened))
    text = "import React from 'react';\n" + "\n".join(imports)
    text += f"\nexport default ({{ children }}) => {start}{{children}}{end};\n"
    shown = " > ".join(tag.split(" ")[0] for tag in opened)
    return Parents(file.with_name("parents-of-the-trial.jsx"), text, shown)


def _import(name: Node, names: Names, workspace: Workspace, path: Path) -> str | None:
    """The import that gives a parent, from wherever the trial's module stands."""
    base = name.text.split(".")[0]
    binding = names.module.names.get(base)
    if binding is None or binding.kind != "import":
        return None
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    source = statement.child("source") if statement is not None else None
    clause = next((up for up in binding.node.up() if up.type == "import_clause"), None)
    if source is None or clause is None:
        return None
    request = source.text[1:-1]
    if request.startswith("."):
        found = workspace.resolve(request)
        if found is None:
            return None
        request = str(found.resolve())
    above = binding.node.parent
    if above is not None and above.type == "namespace_import":
        return f"import * as {base} from '{request}';"
    if above is not None and above.type == "import_specifier":
        return f"import {{ {above.text} }} from '{request}';"
    return f"import {base} from '{request}';"


def _attributes(opening: Node) -> str:
    """The attributes of a use: constants as they are, objects with functions for what is not known."""
    out = ""
    for attribute in opening.children:
        if attribute.type != "jsx_attribute":
            continue
        parts = attribute.named_children
        if len(parts) == 1 or parts[1].type == "string":
            out += f" {attribute.text}"
            continue
        inner = parts[1].named_children[0] if parts[1].named_children else None
        if inner is not None:
            out += f" {parts[0].text}={{{_value(inner)}}}"
    return out


def _value(node: Node) -> str:
    if node.type in _CONSTANT:
        return node.text
    if node.type == "object":
        fields = []
        for part in node.named_children:
            key, value = part.child("key"), part.child("value")
            if part.type == "pair" and key is not None and value is not None:
                fields.append(f"{key.text}: {_value(value)}")
            elif part.type == "shorthand_property_identifier":
                fields.append(f"{part.text}: () => {{}}")
        return f"{{ {', '.join(fields)} }}"
    if node.type == "array":
        return f"[{', '.join(_value(item) for item in node.named_children)}]"
    return "() => {}"
