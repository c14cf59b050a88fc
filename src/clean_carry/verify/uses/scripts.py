"""The project's own uses of a component: the parents it needs, its content, its props.

An option renders nothing outside a list, and a list does nothing without options. Where a file of the
project uses the component inside another one, or with others inside it, trials can do so too.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.verify.search.values.shape import literal_of
from clean_carry.verify.uses.model import (
    MOST_CONTENTS,
    MOST_USES,
    Parents,
    Uses,
    distance,
    meant_by,
    note_value,
)
from clean_carry.verify.uses.values import NAMED, is_called_back, is_constant, value_text

# A project is looked through up to this many files.
MOST_FILES = 600
_ENDINGS = frozenset({".js", ".jsx", ".tsx"})
# Files that mark the top folder of a project.
_ROOTS = ("package.json", "clean-carry.toml", ".git")


def parents_of(component: str, file: Path) -> Parents | None:
    """The parents of the first use found of a component inside another one; None where there is none."""
    for element, use in _uses(component, file):
        found = _around(element, use, file)
        if found is not None:
            return found
    return None


def uses_of(component: str, file: Path) -> Uses:
    """The content and the inputs a component has in the project's files."""
    imports: dict[str, str] = {}
    contents: dict[str, None] = {}
    inputs: dict[str, list[Any]] = {}
    for number, (opening, use) in enumerate(_uses(component, file)):
        if number >= MOST_USES:
            break
        for name, value in _constants(opening):
            note_value(inputs, name, value)
        for name, value in _told_by(opening):
            note_value(inputs, name, value)
        element = opening.parent
        if (
            element is None
            or opening.type != "jsx_opening_element"
            or len(contents) >= MOST_CONTENTS
        ):
            continue
        made = _Content(use)
        text = "".join(made.of(part) for part in element.named_children[1:-1])
        if made.imports and all(imports.get(n, line) == line for n, line in made.imports.items()):
            imports.update(made.imports)
            contents.setdefault(text.strip())
    place = file.with_name("content-of-the-trial.jsx")
    if not contents:
        return Uses(place, inputs=inputs)
    functions = "".join(f"  () => (<>{text}</>).props.children,\n" for text in contents)
    text = "\n".join(imports.values()) + f"\nexport default [\n{functions}];\n"
    return Uses(place, text, len(contents), inputs)


@dataclass(frozen=True)
class _File:
    """A file of the project that uses the component."""

    names: Names
    workspace: Workspace


def _uses(component: str, file: Path) -> Iterator[tuple[Node, _File]]:
    """(opening element, file) of every use of a component in other files, the nearest first."""
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
        use = _File(Names(tree), Workspace(path))
        for element in tree.of("jsx_opening_element", "jsx_self_closing_element"):
            name = element.child("name")
            if name is not None and name.text == component:
                yield element, use


def _told_by(opening: Node) -> Iterator[tuple[str, Any]]:
    """The constants that tell content apart, for the attribute that means one of them."""
    names = [
        part.named_children[0].text for part in opening.children if part.type == "jsx_attribute"
    ]
    element = opening.parent
    for part in element.named_children[1:-1] if element is not None else ():
        inner = part.child("open_tag") or part
        for name, value in _constants(inner) if part.type.startswith("jsx_") else ():
            meant = meant_by(name, names)
            if meant and value is not True:
                yield meant, value


def _constants(opening: Node) -> Iterator[tuple[str, Any]]:
    """The attributes of a use whose value is a constant."""
    for attribute in opening.children:
        if attribute.type != "jsx_attribute":
            continue
        parts = attribute.named_children
        if len(parts) == 1:
            yield parts[0].text, True
            continue
        inner = parts[1].named_children[0] if parts[1].type == "jsx_expression" else parts[1]
        known, value = literal_of(inner)
        if known and value is not None:
            yield parts[0].text, value


class _Content:
    """The content of one use, with what is not known left out; `imports` are lines by local name."""

    def __init__(self, use: _File) -> None:
        self.use = use
        self.imports: dict[str, str] = {}

    def of(self, node: Node) -> str:
        """The text of one part of the content."""
        match node.type:
            case "jsx_text" | "string" | "html_character_reference":
                return node.text
            case "jsx_self_closing_element" | "jsx_element":
                return self._element(node)
            case "jsx_expression":
                inner = node.named_children[0] if node.named_children else None
                if inner is None:
                    return ""
                return node.text if is_constant(inner) else self._drawn(inner)
        return ""

    def _element(self, node: Node) -> str:
        opening = node if node.type == "jsx_self_closing_element" else node.children[0]
        name = opening.child("name")
        inside = "".join(self.of(part) for part in node.named_children[1:-1])
        if name is None:
            return f"<>{inside}</>"
        if not name.text[:1].islower():
            line = _import(name, self.use)
            if line is None:
                return inside if node.type == "jsx_element" else ""
            self.imports[name.text.split(".")[0]] = line
        tag = f"{name.text}{_attributes(opening, self.use)}"
        return f"<{tag} />" if opening is node else f"<{tag}>{inside}</{name.text}>"

    def _drawn(self, node: Node) -> str:
        """Return the output of an expression as if its conditions held; a list is rendered twice."""
        match node.type:
            case "parenthesized_expression":
                return self._drawn(node.named_children[0])
            case "binary_expression" | "ternary_expression":
                arms = [node.child(name) for name in ("right", "consequence", "alternative")]
                return next((d for arm in arms if arm is not None and (d := self._drawn(arm))), "")
            case "call_expression":
                arguments = node.child("arguments")
                given = arguments.named_children if arguments is not None else []
                one = self._drawn(given[0]) if given and given[0].is_function else ""
                # A list is one child, which is a list.
                return f"{{[{one}, {one}]}}" if one.startswith("<") else ""
            case "arrow_function" | "function_expression":
                inner = next((n for n in node.walk() if n.type == "return_statement"), None)
                body = node.child("body")
                if body is not None and body.type != "statement_block":
                    return self._drawn(body)
                given = inner.named_children if inner is not None else []
                return self._drawn(given[0]) if given else ""
            case "identifier":
                value = _meant(node, self.use)
                return self._drawn(value) if value is not None else ""
            case "jsx_self_closing_element" | "jsx_element":
                return self._element(node)
        return ""


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
    yield from sorted(found, key=lambda path: distance(path, file))


def _around(element: Node, use: _File, file: Path) -> Parents | None:
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
        line = _import(name, use)
        if line is None:
            return None
        if line not in imports:
            imports.append(line)
        opened.insert(0, f"{name.text}{_attributes(opening, use)}")
    if not opened:
        return None
    start = "".join(f"<{tag}>" for tag in opened)
    end = "".join(f"</{tag.split(' ')[0]}>" for tag in reversed(opened))
    text = "import React from 'react';\n" + "\n".join(imports)
    text += f"\nexport default ({{ children }}) => {start}{{children}}{end};\n"
    shown = " > ".join(tag.split(" ")[0] for tag in opened)
    return Parents(file.with_name("parents-of-the-trial.jsx"), text, shown)


def _import(name: Node, use: _File) -> str | None:
    """The import that gives a parent, from wherever the trial's module stands."""
    base = name.text.split(".")[0]
    binding = use.names.module.names.get(base)
    if binding is None or binding.kind != "import":
        return None
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    source = statement.child("source") if statement is not None else None
    clause = next((up for up in binding.node.up() if up.type == "import_clause"), None)
    if source is None or clause is None:
        return None
    request = source.text[1:-1]
    if request.startswith("."):
        found = use.workspace.resolve(request)
        if found is None:
            return None
        request = str(found.resolve())
    above = binding.node.parent
    if above is not None and above.type == "namespace_import":
        return f"import * as {base} from '{request}';"
    if above is not None and above.type == "import_specifier":
        return f"import {{ {above.text} }} from '{request}';"
    return f"import {base} from '{request}';"


def _attributes(opening: Node, use: _File) -> str:
    """The attributes of a use: constants as they are, and something of the likely kind for the rest."""
    out = ""
    for attribute in opening.children:
        if attribute.type != "jsx_attribute":
            continue
        parts = attribute.named_children
        name = parts[0].text
        if name in ("key", "ref"):
            continue
        if len(parts) == 1 or parts[1].type == "string":
            out += f" {attribute.text}"
            continue
        inner = parts[1].named_children[0] if parts[1].named_children else None
        if inner is not None:
            inner = (_meant(inner, use) if inner.type == "identifier" else None) or inner
            plain = inner.type in NAMED and not is_called_back(name)
            out += f' {name}="{name}"' if plain else f" {name}={{{value_text(inner)}}}"
    return out


def _meant(name: Node, use: _File) -> Node | None:
    """Return the declaration behind a name of the file; None for parameters and imports."""
    binding = use.names.meaning(name)
    made = binding.node.parent if binding is not None and not binding.written else None
    return made.child("value") if made is not None and made.type == "variable_declarator" else None
