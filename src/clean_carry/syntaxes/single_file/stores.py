"""The helpers of two store packages (their declared types): those of the application's one store, with a
namespace or without, and those whose first argument is the function that gives a store.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from clean_carry.source.javascript.tree import Node, Tree

Taken = Literal["state", "getters", "dispatch", "commit", "own", "written", "call"]
# (package, helper): what it takes of a store.
HELPERS: dict[tuple[str, str], Taken] = {
    ("vuex", "mapState"): "state",
    ("vuex", "mapGetters"): "getters",
    ("vuex", "mapActions"): "dispatch",
    ("vuex", "mapMutations"): "commit",
    ("pinia", "mapState"): "own",
    ("pinia", "mapGetters"): "own",
    ("pinia", "mapWritableState"): "written",
    ("pinia", "mapActions"): "call",
}
PACKAGES = frozenset(package for package, _ in HELPERS)


def imported_helpers(tree: Tree) -> Iterator[tuple[Node, str, Taken | None]]:
    """(specifier, local name, what it takes) of what a file imports by name from a store package."""
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        package = source.text[1:-1] if source is not None else ""
        for node in statement.walk() if package in PACKAGES else ():
            name = node.child("name") if node.type == "import_specifier" else None
            if name is not None:
                local = node.child("alias") or name
                yield node, local.text, HELPERS.get((package, name.text))
