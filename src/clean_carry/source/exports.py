"""The meaning of a module's name, followed through the files of a project."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace

# Through so many files a name is followed.
_MOST_STEPS = 8
_NAMED = frozenset(
    {
        "class_declaration", "abstract_class_declaration", "function_declaration",
        "generator_function_declaration", "interface_declaration", "type_alias_declaration",
        "enum_declaration", "class",
    }
)  # fmt: skip


@dataclass(frozen=True)
class Declared:
    """A declaration (of a class, function or type) or the value of a variable, and where it stands."""

    node: Node
    tree: Tree
    file: Path


@dataclass(frozen=True)
class Imported:
    """An imported name: the request, and the export (`*` for the whole module)."""

    request: str
    name: str


def imported(tree: Tree, name: str) -> Imported | None:
    """Return the import behind a name of a file."""
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        if source is None or name not in statement.text:
            continue
        for node in statement.walk():
            above = node.parent.type if node.parent is not None else ""
            if node.type == "import_specifier":
                first = node.child("name")
                if first is not None and (node.child("alias") or first).text == name:
                    return Imported(source.text[1:-1], first.text)
            elif node.type == "identifier" and node.text == name:
                if above == "import_clause":
                    return Imported(source.text[1:-1], "default")
                if above == "namespace_import":
                    return Imported(source.text[1:-1], "*")
    return None


def declared(
    name: str, tree: Tree, file: Path, workspace: Workspace, steps: int = 0
) -> Declared | None:
    """Return the declaration of a name at the top of a module; None if it belongs to a package or
    is not found."""
    for node in tree.root.named_children:
        inner = node.child("declaration") if node.type == "export_statement" else node
        for found, value in _declarations(inner) if inner is not None else ():
            if found == name:
                return Declared(value, tree, file)
    known = imported(tree, name)
    path = workspace.resolve(known.request, file) if known is not None else None
    if known is None or path is None or known.name == "*" or steps > _MOST_STEPS:
        return None
    return exported(known.name, path, workspace, steps + 1)


def exported(name: str, file: Path, workspace: Workspace, steps: int = 0) -> Declared | None:
    """Return the export of a module under a name."""
    tree = workspace.tree(file)
    if tree is None or steps > _MOST_STEPS:
        return None
    data = tree.source.data
    if name.encode() not in data and b"*" not in data:
        return None
    statements = [s for s in tree.of("export_statement") if s.parent is tree.root]
    for statement in statements:
        named = _in_braces(statement, name)
        if named is not None:
            return _behind(statement, named, tree, file, workspace, steps)
        value = statement.child("value") or statement.child("declaration")
        if value is None:
            continue
        if not statement.has("default"):
            found = next((inner for own, inner in _declarations(value) if own == name), None)
            if found is not None:
                return Declared(found, tree, file)
        elif name == "default" and value.type == "identifier":
            return declared(value.text, tree, file, workspace, steps + 1)
        elif name == "default":
            return Declared(value, tree, file)
    for statement in statements if name != "default" else ():
        source = statement.child("source")
        path = workspace.resolve(source.text[1:-1], file) if source is not None else None
        if path is None or not statement.has("*"):
            continue
        found_there = exported(name, path, workspace, steps + 1)
        if found_there is not None:
            return found_there
    return None


def _in_braces(statement: Node, name: str) -> Node | None:
    """Return the export under a name by `export { one as name }`, with or without a source."""
    for clause in statement.children:
        for node in clause.named_children if clause.type == "export_clause" else ():
            first = node.child("name") if node.type == "export_specifier" else None
            if first is not None and (node.child("alias") or first).text == name:
                return first
    return None


def _behind(
    statement: Node, named: Node, tree: Tree, file: Path, workspace: Workspace, steps: int
) -> Declared | None:
    """Return the declaration behind a name that is exported in braces."""
    source = statement.child("source")
    if source is None:
        return declared(named.text, tree, file, workspace, steps + 1)
    path = workspace.resolve(source.text[1:-1], file)
    # Without braces it is the default of the other module.
    wanted = named.text if "{" in statement.text else "default"
    return exported(wanted, path, workspace, steps + 1) if path is not None else None


def package_export(name: str, of: str, file: Path, workspace: Workspace) -> Declared | None:
    """Return the export of an installed package, as a module or by `exports`; None if it is not
    installed or not found."""
    path = workspace.package(name, file)
    if path is None:
        return None
    found = exported(of, path, workspace)
    return found if found is not None else _assigned(of, path, workspace)


def _assigned(name: str, file: Path, workspace: Workspace) -> Declared | None:
    """Return the value that a script assigns to `exports.name`, or to `module.exports` for the
    default export."""
    tree = workspace.tree(file)
    targets = {f"exports.{name}", f"module.exports.{name}"}
    if name in ("default", "*"):
        targets.add("module.exports")
    for node in tree.of("assignment_expression") if tree is not None else ():
        left, value = node.child("left"), node.child("right")
        if left is None or value is None or left.text not in targets or tree is None:
            continue
        if value.type == "identifier":
            return declared(value.text, tree, file, workspace)
        if value.is_function:
            return Declared(value, tree, file)
    return None


def _declarations(node: Node) -> Iterator[tuple[str, Node]]:
    """The names a statement declares, each with what it declares."""
    if node.type in _NAMED:
        name = node.child("name")
        if name is not None:
            yield name.text, node
    elif node.type in ("lexical_declaration", "variable_declaration"):
        for declarator in node.named_children:
            name, value = declarator.child("name"), declarator.child("value")
            if name is not None and name.type == "identifier":
                yield name.text, value or declarator
