"""Which child components may notice that a function passed to them is a new one.

A child is known not to notice when its file is in the project and holds nothing that compares
inputs: no memoised or pure component, no update hook, no effect or memo. Every other child may.
"""

from __future__ import annotations

import re

from clean_carry.source.exports import declared, imported
from clean_carry.source.javascript.scope import Names, is_component_name
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace

_COMPARING = (
    "PureComponent",
    "memo",
    "shouldComponentUpdate",
    "componentDidUpdate",
    "componentWillReceiveProps",
    "componentWillUpdate",
    "getDerivedStateFromProps",
    "useEffect",
    "useLayoutEffect",
    "useMemo",
    "useCallback",
    "reselect",
)


# Hooks that a class runs on every render, whatever its props are.
_REACTS = ("componentWillReceiveProps", "componentDidUpdate", "componentWillUpdate")
_PASSES_ON = re.compile(r"export\b[^;]*?\bfrom\b")
_CLASSES = ("class_declaration", "class", "abstract_class_declaration")


def draws_reacting(tree: Tree, drawing: Node, workspace: Workspace) -> bool:
    """Whether markup holds a class of the project that reacts to each re-render."""
    names = {
        name.text
        for element in tree.of("jsx_opening_element", "jsx_self_closing_element")
        if drawing.start <= element.start < drawing.end
        if (name := element.child("name")) is not None and is_component_name(name.text)
    }
    return any(_reacts(name, tree, workspace) for name in sorted(names))


def _reacts(name: str, tree: Tree, workspace: Workspace) -> bool:
    known = imported(tree, name)
    path = workspace.resolve(known.request) if known is not None else None
    if known is not None:
        text = workspace.text(path) if path is not None else ""
        # Facts found without parsing; a file that only re-exports others gives none.
        if not _PASSES_ON.search(text) and not any(word in text for word in _REACTS):
            return False
    found = declared(name, tree, workspace.file, workspace)
    body = found.node.child("body") if found is not None and found.node.type in _CLASSES else None
    for member in body.named_children if body is not None else ():
        key = member.child("name")
        if key is not None and key.text.removeprefix("UNSAFE_") in _REACTS:
            return True
    return False


def sensitive_children(tree: Tree, names: Names, workspace: Workspace) -> frozenset[str]:
    """The tag names used in this file whose component may compare what it is given."""
    found: set[str] = set()
    for element in tree.of("jsx_opening_element", "jsx_self_closing_element"):
        name = element.child("name")
        if name is None or not is_component_name(name.text) or name.text in found:
            continue
        if not _plain_child(name, tree, names, workspace):
            found.add(name.text)
    return frozenset(found)


def _plain_child(name: Node, tree: Tree, names: Names, workspace: Workspace) -> bool:
    if name.type != "identifier":
        return name.text.endswith(("Fragment", "Provider"))
    binding = names.meaning(name)
    if binding is None:
        return False
    if binding.kind in ("function", "class"):
        statement = next((up for up in binding.node.up() if up.parent is tree.root), None)
        return statement is not None and not _compares(statement.text)
    if binding.kind != "import":
        return False
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    source = statement.child("source") if statement is not None else None
    if source is None:
        return False
    path = workspace.resolve(source.text[1:-1])
    if path is None:
        return False
    text = workspace.text(path)
    # A file that only passes on what others define says nothing about the component.
    return "export * from" not in text and not _compares(text)


def _compares(text: str) -> bool:
    return any(word in text for word in _COMPARING)
