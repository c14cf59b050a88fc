"""Imports that go with the form they served: a store's helpers, what only gives options back."""

from __future__ import annotations

from clean_carry.component.members import Derived, Method, Stored
from clean_carry.component.model import Component
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.single_file.stores import PACKAGES, imported_helpers
from clean_carry.syntaxes.single_file_flat.names import FlatNames

_RULE = "import-served"


def _stored(component: Component) -> list[Stored]:
    return [
        part.stored
        for part in component.members
        if isinstance(part, Derived | Method) and part.stored is not None
    ]


def asks_application(component: Component) -> bool:
    """Whether a component takes anything of the application's store by a helper."""
    return any(not one.store for one in _stored(component))


def drop_store_helpers(
    chosen: FlatNames, component: Component, tree: Tree, names: Names, runtime: int
) -> None:
    """Take away the helpers that only the component used; on version 3 the application's store comes by a
    function of the same package."""
    if not _stored(component):
        return
    helpers = {
        node.start
        for node, local, taken in imported_helpers(tree)
        if taken is not None and _only_in(names, local, component)
    }
    asked = runtime >= 3 and asks_application(component)
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        package = source.text[1:-1] if source is not None else ""
        listed = next((n for n in statement.walk() if n.type == "named_imports"), None)
        if package not in PACKAGES or listed is None:
            continue
        stay = [n.text for n in listed.named_children if n.start not in helpers]
        if asked and package == "vuex" and "useStore" not in stay:
            stay.append("useStore")
        if stay != [n.text for n in listed.named_children]:
            _write(chosen, tree, statement, listed, stay)


def drop_import(chosen: FlatNames, tree: Tree, names: Names, local: str) -> None:
    """Take away the import of a name that is used once, where it is all its statement imports."""
    binding = names.module.names.get(local)
    if binding is None or binding.kind != "import" or len(binding.references) != 1:
        return
    for statement in tree.of("import_statement"):
        imported = [n for n in statement.walk() if n.type in ("identifier", "import_specifier")]
        if statement.start <= binding.node.start < statement.end and len(imported) == 1:
            span = tree.source.statement_line(statement.start, statement.end)
            chosen.edits.add(span, "", _RULE)


def _only_in(names: Names, local: str, component: Component) -> bool:
    binding = names.module.names.get(local)
    refs = binding.references if binding is not None else []
    return all(component.span.start <= ref.start < component.span.end for ref in refs)


def _write(chosen: FlatNames, tree: Tree, statement: Node, listed: Node, stay: list[str]) -> None:
    source = tree.source
    others = listed.parent is not None and len(listed.parent.named_children) > 1
    if stay or others:
        chosen.edits.add(source.span(listed.start, listed.end), f"{{ {', '.join(stay)} }}", _RULE)
    else:
        chosen.edits.add(source.statement_line(statement.start, statement.end), "", _RULE)
