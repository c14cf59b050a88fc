"""Where a type of another file of the project is declared."""

from __future__ import annotations

from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace

_DECLARING = (
    "interface_declaration",
    "type_alias_declaration",
    "enum_declaration",
    "class_declaration",
)
# How many files a type is followed through.
_MOST = 6


def type_of(
    name: str, tree: Tree, file: Path, workspace: Workspace, steps: int = 0
) -> tuple[Node, Tree, Path] | None:
    """The declaration of a type by the name a file knows it by, with the tree and the file it stands in."""
    own = _declared(name, tree)
    if own is not None:
        return own, tree, file
    if steps > _MOST:
        return None
    for statement in tree.root.children:
        source = statement.child("source")
        if source is None or statement.type not in ("import_statement", "export_statement"):
            continue
        for outer, inner in _names(statement):
            if outer not in (name, "*"):
                continue
            path = workspace.resolve(source.text[1:-1], file)
            other = workspace.tree(path) if path is not None else None
            if path is None or other is None:
                continue
            found = type_of(name if inner == "*" else inner, other, path, workspace, steps + 1)
            if found is not None:
                return found
    return None


def _declared(name: str, tree: Tree) -> Node | None:
    for node in tree.of(*_DECLARING):
        own = node.child("name")
        if own is not None and own.text == name:
            return node
    return None


def _names(statement: Node) -> list[tuple[str, str]]:
    """The names a statement brings: here, there; all of them as `*`."""
    found = []
    for part in statement.walk():
        if part.type in ("import_specifier", "export_specifier"):
            name, alias = part.child("name"), part.child("alias")
            if name is not None:
                found.append(((alias or name).text, name.text))
    if statement.type == "export_statement" and statement.has("*"):
        found.append(("*", "*"))
    return found
