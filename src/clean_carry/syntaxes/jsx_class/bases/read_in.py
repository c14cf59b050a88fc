"""Members that a class inherits from a small base of the project, inlined before it is read.

The subclass then extends what the base extends. Its own members stand as they are; a call of the base's
member is the base's statements.
"""

from __future__ import annotations

import os
import re
from pathlib import Path

from clean_carry.source.exports import Imported
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.needed_names import NotReadIn
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME, runtime_names
from clean_carry.syntaxes.jsx_class.bases.base_class import (
    Base,
    Mentions,
    base_of,
    mentions,
    parts_of,
)
from clean_carry.syntaxes.jsx_class.bases.base_imports import imports_with
from clean_carry.syntaxes.jsx_class.bases.heritage import (
    BASES,
    CLASSES,
    draws,
    heritage,
)
from clean_carry.syntaxes.jsx_class.bases.inline_base import Heir

_DEPTH = 4
# Written to begin with a plain word: that is looked for ten times as fast.
_EXTENDS = re.compile(rb"class\b[^{};]*?\bextends\s+([\w$]+)")
_RUNTIME_IMPORT = re.compile(rb"import(?<![\w$]import)\b([^;'\"]*?)\bfrom\s*['\"]react['\"]")


def with_bases(source: SourceText, workspace: Workspace) -> SourceText:
    """The file with what its classes inherit from bases of the project written into them.

    A class whose base cannot be read in stays as it is: the reader refuses it and says why.
    """
    known = b" ".join(_RUNTIME_IMPORT.findall(source.data))
    words = set(re.findall(rb"[\w$]+", known))
    if all(name in words for name in _EXTENDS.findall(source.data)):
        return source
    return _merged(Tree(source), workspace.file, workspace)


def why_not(node: Node, tree: Tree, names: Names, workspace: Workspace) -> str:
    """Why what a class inherits was not written into it."""
    try:
        _heir(node, tree, names, workspace.file, workspace).edits()
    except NotReadIn as reason:
        return str(reason)
    return "which brings a name that another base brings as well"


def _merged(
    tree: Tree, file: Path, workspace: Workspace, depth: int = 0, below: Mentions | None = None
) -> SourceText:
    edits: list[Edit] = []
    read: list[Heir] = []
    wanted: dict[str, Imported] = {}
    constants: dict[str, str] = {}
    runtime, names = runtime_names(tree), Names(tree)
    for node in tree.of(*CLASSES):
        base = heritage(node)
        if base is None or runtime.imported(base, names) in BASES or not (depth or draws(node)):
            continue
        try:
            heir = _heir(node, tree, names, file, workspace, depth, below)
            own = heir.edits()
        except NotReadIn:
            continue
        if not _agree(heir.names_and_texts, {**wanted, **constants}):
            continue
        edits += own
        wanted |= heir.needs
        constants |= heir.constants
        read.append(heir)
    if not read:
        return tree.source
    nodes = [heir.node for heir in read]
    edits += imports_with(nodes, wanted, list(constants.values()), tree, names, file)
    merged = MergedText(tree.source, edits)
    for heir in read:
        where = os.path.relpath(heir.base.file, file.parent).replace(os.sep, "/")
        merged.taken[merged.moved(heir.node.start)] = f"{heir.base.name}, {where}"
    return merged


def _agree(one: dict[str, object], other: dict[str, object]) -> bool:
    """Whether names that two subclasses bring into a file mean the same."""
    return all(other.get(name, what) == what for name, what in one.items())


def _heir(
    node: Node,
    tree: Tree,
    names: Names,
    file: Path,
    workspace: Workspace,
    depth: int = 0,
    below: Mentions | None = None,
) -> Heir:
    """A class with its base, and what that inherits itself. Raises `NotReadIn`."""
    value = heritage(node)
    assert value is not None
    base = _whole(base_of(value, tree, file, workspace), workspace, depth, _of(node, below))
    return Heir(node, tree, names, file, workspace, base, RUNTIME, below)


def _of(node: Node, below: Mentions | None) -> Mentions:
    """Return the members that a class has and reads, and those of its subclasses."""
    found = mentions(node)
    found.names |= {part.name for part in parts_of(node)}
    if below is not None:
        found.names |= below.names
        found.base |= below.base
        found.anything = found.anything or below.anything
    return found


def _whole(base: Base, workspace: Workspace, depth: int, below: Mentions) -> Base:
    """The base with what it inherits itself. Raises `NotReadIn`."""
    value = heritage(base.node)
    if value is None:
        raise NotReadIn("which extends nothing")
    if base.runtime.imported(value, base.names) in BASES:
        return base
    if depth >= _DEPTH:
        raise NotReadIn("whose bases go too deep")
    tree = Tree(_merged(base.tree, base.file, workspace, depth + 1, below))
    for node in tree.of(*CLASSES):
        name = node.child("name")
        if name is not None and name.text == base.name:
            whole = Base(node, tree, base.file, base.name)
            inner = heritage(node)
            if inner is not None and whole.runtime.imported(inner, whole.names) in BASES:
                return whole
    raise NotReadIn(f"which extends {value.text[:40]}")
