"""Imports of a file from scripts of the project that are written for version 2 themselves."""

from __future__ import annotations

import re
from collections.abc import Mapping
from pathlib import Path

from clean_carry.source.exports import imported
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

# Hooks of directives (migration guide, "Custom Directives").
_HOOKS = {
    "bind": "beforeMount", "inserted": "mounted", "componentUpdated": "updated", "unbind": "unmounted",
}  # fmt: skip
_HOOKED = re.compile(r"\b(?:bind|inserted|componentUpdated|unbind)\s*(?:\(|:\s*(?:function|\())")
_DRAWN = re.compile(r"\bfunctional\s*:\s*true|\brender\s*(?::\s*(?:function\s*)?)?\(\s*\w")


def check_imported(
    changes: Changes, tree: Tree, options: Mapping[str, Node], workspace: Workspace
) -> None:
    """Rename the hooks of directives; refuse what other scripts must be changed for first."""
    for option, asks in (("directives", _HOOKED), ("components", _DRAWN)):
        value = options.get(option)
        for name, part, given in parts_of(value) if value is not None else ():
            if given.type == "object":
                _renamed(changes, given, option)
                continue
            path = _script(given.text if given is not part else name or "", tree, workspace)
            if path is not None and asks.search(path.read_text("utf-8", "replace")):
                changes.refuse("removed-from-runtime", f"{given.text}, in {path.name}", part.start)


def _renamed(changes: Changes, directive: Node, option: str) -> None:
    for hook, part, _ in parts_of(directive) if option == "directives" else ():
        key = part.child("name") or part.child("key")
        if hook in _HOOKS and key is not None:
            changes.put(key.start, key.end, _HOOKS[hook])
        elif hook == "update":
            changes.refuse("removed-from-runtime", "the hook update of a directive", part.start)


def _script(name: str, tree: Tree, workspace: Workspace) -> Path | None:
    """The script of the project that a name is imported from."""
    known = imported(tree, name)
    path = workspace.resolve(known.request, workspace.file) if known is not None else None
    plain = path is not None and path.suffix in (".js", ".ts", ".mjs") and path.is_file()
    return path if plain and "node_modules" not in str(path) else None
