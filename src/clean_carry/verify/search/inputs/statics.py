"""Static objects of a component: declared inputs and defaults, through the files they come from."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.workspace import Workspace

# How many files declared inputs are followed through.
MOST_SPREAD = 3


def static_objects(tree: Tree, component: str, wanted: tuple[str, ...]) -> list[tuple[str, Node]]:
    """(name, object literal) of static members: in the class, or assigned after it."""
    found: list[tuple[str, Node]] = []
    for node in tree.of("assignment_expression"):
        left, right = node.child("left"), node.child("right")
        if left is None or right is None or left.type != "member_expression":
            continue
        part = left.child("property")
        if part is None or part.text not in wanted:
            continue
        owners = tree.of("class_declaration", "function_declaration")
        if left.children[0].text != component and len(owners) > 1:
            continue
        value = _resolved(tree, right)
        if value is not None:
            found.append((part.text, value))
    for node in tree.of("public_field_definition"):
        name, given = node.child("name"), node.child("value")
        if name is not None and given is not None and name.text in wanted and node.has("static"):
            value = _resolved(tree, given)
            if value is not None:
                found.append((name.text, value))
    return found


def parts_of(value: Node, tree: Tree, depth: int = 0) -> Iterator[tuple[str, Node, Tree]]:
    """(name, value, its file) of the parts of an object, with what is spread in from other files."""
    for part in value.named_children:
        key, given = part.child("key"), part.child("value")
        shown = property_name(key) if key is not None else None
        if shown is not None and given is not None:
            yield shown, given, tree
        elif part.type == "spread_element" and depth < MOST_SPREAD:
            for spread, owner in _spread(part.named_children[0], tree):
                yield from parts_of(spread, owner, depth + 1)


def _spread(node: Node, tree: Tree) -> Iterator[tuple[Node, Tree]]:
    """The objects `...X.propTypes` or `...propTypes` may mean."""
    own = node.type == "member_expression"
    base = node.children[0] if own else node
    statement = next((s for s in tree.of("import_statement") if _gives(s, base.text)), None)
    if statement is None:
        found = _resolved(tree, node)
        if found is not None:
            yield found, tree
        return
    source = statement.child("source")
    workspace = Workspace(Path(tree.source.path).resolve())
    path = workspace.resolve(source.text[1:-1]) if source is not None else None
    other = workspace.tree(path) if path is not None else None
    if other is None:
        return
    if own:
        wanted = node.named_children[-1].text
        for _, value in static_objects(other, base.text, (wanted,)):
            yield value, other
        for assigned in other.of("assignment_expression"):
            left, right = assigned.child("left"), assigned.child("right")
            named = right is not None and right.type == "identifier"
            if not named or right is None or left is None:
                continue
            if left.text == f"{base.text}.{wanted}" and _resolved(other, right) is None:
                yield from _spread(right, other)
    else:
        for declarator in other.of("variable_declarator"):
            name, made = declarator.child("name"), declarator.child("value")
            if name is not None and made is not None and name.text == base.text:
                if made.type == "object":
                    yield made, other


def _gives(statement: Node, name: str) -> bool:
    return any(n.type == "identifier" and n.text == name for n in statement.walk())


def _resolved(tree: Tree, node: Node, steps: int = 0) -> Node | None:
    while node.type in ("as_expression", "satisfies_expression", "parenthesized_expression"):
        node = node.named_children[0]
    if node.type == "identifier" and steps <= MOST_SPREAD:
        for declarator in tree.of("variable_declarator"):
            name, value = declarator.child("name"), declarator.child("value")
            if name is not None and value is not None and name.text == node.text:
                return _resolved(tree, value, steps + 1)
    return node if node.type == "object" else None
