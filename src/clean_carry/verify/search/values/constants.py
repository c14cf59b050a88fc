"""Constants that values are compared with: of the file, of an object of it, or imported."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.workspace import Workspace
from clean_carry.verify.search.values.shape import literal_of

# Through so many names and files a constant is followed.
MOST_STEPS = 6
_WRAPPED = frozenset("parenthesized_expression as_expression satisfies_expression".split())
Value = tuple[Node, Tree]


class Constants:
    """The values of constant names in one or several trees of a file."""

    def __init__(self, trees: list[Tree]) -> None:
        self._trees = trees

    def literal(self, node: Node) -> tuple[bool, Any]:
        """(whether it is known, its value) of a literal, or of a name or member that means one."""
        known, value = literal_of(node)
        if known or node.type not in ("identifier", "member_expression"):
            return known, value
        meant = self._meant(node)
        return literal_of(meant) if meant is not None else (False, None)

    def parts(self, node: Node) -> list[Any]:
        """The literals of a list, or of a name or member that means one."""
        meant = node if node.type == "array" else self._meant(node)
        if meant is None or meant.type != "array":
            return []
        found = [self.literal(part) for part in meant.named_children]
        return [value for known, value in found if known and value is not None]

    def _meant(self, node: Node) -> Node | None:
        for tree in self._trees:
            value = self._value(node, tree, 0)
            if value is not None:
                return value[0]
        return None

    def _value(self, node: Node, tree: Tree, steps: int) -> Value | None:
        """The node that says what a name, a member or an expression means, and its tree."""
        while node.type in _WRAPPED or _is_frozen(node):
            inner = node.child("arguments") or node
            node = inner.named_children[0]
        if steps > MOST_STEPS:
            return None
        if node.type == "identifier":
            return self._named(node.text, tree, steps + 1)
        if node.type != "member_expression":
            return node, tree
        whole, part = node.child("object"), node.child("property")
        if whole is None or part is None or whole.type not in ("identifier", "member_expression"):
            return None
        return self._part(whole, part.text, tree, steps + 1)

    def _named(self, name: str, tree: Tree, steps: int) -> Value | None:
        for declarator in tree.of("variable_declarator"):
            held, value = declarator.child("name"), declarator.child("value")
            if held is not None and held.text == name and value is not None:
                top = _is_top(declarator)
                return self._value(value, tree, steps) if top else None
        for node in tree.of("enum_declaration"):
            held = node.child("name")
            if held is not None and held.text == name:
                return node, tree
        for source, exported in imports_of(tree, name):
            other = self._file(tree, source)
            if other is not None and exported:
                return self._exported(other, exported, steps)
        return None

    def _part(self, whole: Node, part: str, tree: Tree, steps: int) -> Value | None:
        for source, exported in imports_of(tree, whole.text):
            other = self._file(tree, source)
            if other is not None and not exported:
                return self._exported(other, part, steps)
        holder = self._value(whole, tree, steps)
        if holder is None:
            return None
        node, owner = holder
        body = node.child("body") if node.type == "enum_declaration" else node
        for pair in body.named_children if body is not None else ():
            key, value = pair.child("key") or pair.child("name"), pair.child("value")
            if key is not None and value is not None and property_name(key) == part:
                return self._value(value, owner, steps)
        # `X.PART = value`, after `const X = {}`.
        name = node.parent.child("name") if node.parent is not None else None
        for assigned in owner.of("assignment_expression") if name is not None else ():
            left, right = assigned.child("left"), assigned.child("right")
            if name is not None and left is not None and left.text == f"{name.text}.{part}":
                return self._value(right, owner, steps) if right is not None else None
        return None

    def _exported(self, tree: Tree, name: str, steps: int) -> Value | None:
        if steps > MOST_STEPS:
            return None
        for statement in tree.of("export_statement"):
            value = statement.child("value")
            if name == "default" and value is not None and statement.has("default"):
                return self._value(value, tree, steps)
            source = statement.child("source")
            other = self._file(tree, source.text[1:-1]) if source is not None else None
            for specifier in (n for n in statement.walk() if n.type == "export_specifier"):
                own = specifier.child("name")
                shown = specifier.child("alias") or own
                if own is None or shown is None or shown.text != name:
                    continue
                if source is None:
                    return self._named(own.text, tree, steps)
                return self._exported(other, own.text, steps + 1) if other is not None else None
        return self._named(name, tree, steps) if name != "default" else None

    def _file(self, tree: Tree, source: str) -> Tree | None:
        workspace = Workspace(Path(tree.source.path).resolve())
        path = workspace.resolve(source)
        return workspace.tree(path) if path is not None else None


def _is_frozen(node: Node) -> bool:
    callee = node.child("function") if node.type == "call_expression" else None
    arguments = node.child("arguments") if callee is not None else None
    return (
        callee is not None
        and callee.text == "Object.freeze"
        and arguments is not None
        and len(arguments.named_children) == 1
    )


def _is_top(declarator: Node) -> bool:
    """Whether it is a constant of the module."""
    statement = declarator.parent
    above = statement.parent if statement is not None else None
    if statement is None or above is None or not statement.has("const"):
        return False
    return above.type in ("program", "export_statement")


def imports_of(tree: Tree, name: str) -> Iterator[tuple[str, str]]:
    """(file, name there) of what is imported as `name`; no name for all a file exports."""
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        clause = next((c for c in statement.children if c.type == "import_clause"), None)
        if source is None or clause is None:
            continue
        for part in clause.named_children:
            if part.type == "identifier" and part.text == name:
                yield source.text[1:-1], "default"
            elif part.type == "namespace_import" and part.named_children[0].text == name:
                yield source.text[1:-1], ""
            elif part.type == "named_imports":
                for specifier in part.named_children:
                    own = specifier.child("name")
                    local = specifier.child("alias") or own
                    if own is not None and local is not None and local.text == name:
                        yield source.text[1:-1], own.text
