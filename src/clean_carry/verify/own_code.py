"""Which lines of a script are a component's own: what is mounted, and what of the file it uses."""

from __future__ import annotations

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText

_DECLARES = ("lexical_declaration", "variable_declaration")


def own_code(text: str, path: str, exported: str) -> tuple[tuple[int, int], ...]:
    """The lines (first, last) of the statements an export needs, by the names they use.

    None where all statements do, or where the export is not found.
    """
    source = SourceText(path, text.encode())
    try:
        tree = Tree(source)
    except InputError:
        return ()
    names = Names(tree)
    statements = tree.root.named_children
    declared = {name: statement for statement in statements for name in _declared(statement)}
    first = _export(statements, declared, exported)
    if first is None:
        return ()
    needed: list[Node] = []
    queue = [first]
    while queue:
        statement = queue.pop()
        if statement in needed:
            continue
        needed.append(statement)
        for ref, binding in names.references_in(statement):
            if binding is not None and binding.scope is names.module and ref.text in declared:
                queue.append(declared[ref.text])
        # A member that is set later on a needed object belongs to it.
        queue += [s for s in statements if s not in needed and _is_about(s, needed)]
    makes = [s for s in statements if s.type != "import_statement"]
    if all(statement in needed for statement in makes):
        return ()
    places = [(source.place(s.start).line, source.place(s.end).line) for s in needed]
    return tuple(sorted(places))


def _declared(statement: Node) -> list[str]:
    inner = statement.child("declaration") if statement.type == "export_statement" else statement
    if inner is None:
        return []
    holders = inner.named_children if inner.type in _DECLARES else [inner]
    found = [holder.child("name") for holder in holders]
    return [name.text for name in found if name is not None and name.type.endswith("identifier")]


def _export(statements: list[Node], declared: dict[str, Node], exported: str) -> Node | None:
    """The statement that makes what is exported."""
    if exported not in ("", "default"):
        return declared.get(exported)
    for statement in statements:
        if statement.type == "export_statement" and statement.has("default"):
            value = statement.child("value")
            if value is not None and value.type == "identifier":
                return declared.get(value.text, statement)
            return statement
    return None


def _is_about(statement: Node, needed: list[Node]) -> bool:
    """Whether a statement sets a member of what a needed one declares: `Berth.defaultProps = …`."""
    if statement.type == "export_statement":
        value = statement.child("value")
        return value is not None and value.text in {n for s in needed for n in _declared(s)}
    inner = statement.named_children[0] if statement.type == "expression_statement" else None
    left = inner.child("left") if inner is not None else None
    if left is None or left.type != "member_expression":
        return False
    return left.children[0].text in {name for s in needed for name in _declared(s)}


__all__ = ["own_code"]
