"""Values a module makes that must exist once: contexts, stores, symbols, weak maps, event targets.

A copy of such a module makes a second one, and whoever asks the first for what the second was given gets
nothing.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import last_name

# Functions that make one by the trade's habit of naming them; elements and references are no such thing.
_MAKER = re.compile(r"^(create|configure|make|define)[A-Z]")
_NO_MAKERS = frozenset({"createElement", "createRef", "createFactory", "defineComponent"})
_WRAPPED = frozenset({"as_expression", "satisfies_expression", "parenthesized_expression"})


@dataclass(frozen=True)
class MadeOnce:
    """One such value: its name, the statement that declares it, and the name it is exported under ("" for
    none).

    `inline` says that the declaration itself is exported; `users` are the statements of the file that use
    it.
    """

    name: str
    statement: Node
    exported: str
    inline: bool
    users: tuple[Node, ...]


def made_once(tree: Tree, names: Names) -> list[MadeOnce]:
    """The values of a module's top that must exist once, in source order."""
    found: list[MadeOnce] = []
    exports = _exported_names(tree)
    for statement in tree.root.named_children:
        inner = (
            statement.child("declaration") if statement.type == "export_statement" else statement
        )
        if inner is None or inner.type not in ("lexical_declaration", "variable_declaration"):
            continue
        if len(inner.named_children) != 1 or inner.has("let"):
            continue
        name, value = (inner.named_children[0].child(part) for part in ("name", "value"))
        if name is None or value is None or name.type != "identifier" or not _is_maker(value):
            continue
        binding = names.module.names.get(name.text)
        references = binding.references if binding is not None else []
        users = {id(top): top for ref in references if (top := _top(ref, tree)) is not statement}
        inline = inner is not statement
        exported = name.text if inline else exports.get(name.text, "")
        found.append(MadeOnce(name.text, statement, exported, inline, tuple(users.values())))
    return found


def _is_maker(value: Node) -> bool:
    while value.type in _WRAPPED:
        value = value.named_children[0]
    if value.type == "new_expression":
        return True
    if value.type != "call_expression":
        return False
    name = last_name(value.child("function"))
    return name == "Symbol" or (bool(_MAKER.match(name)) and name not in _NO_MAKERS)


def _top(node: Node, tree: Tree) -> Node:
    """The statement at the top of the module that holds a node."""
    return next((up for up in (node, *node.up()) if up.parent is tree.root), node)


def _exported_names(tree: Tree) -> dict[str, str]:
    """Return the names in the export clauses of a module: the local name and the exported name."""
    found: dict[str, str] = {}
    for statement in tree.of("export_statement"):
        value = statement.child("value")
        if statement.has("default") and value is not None and value.type == "identifier":
            found[value.text] = "default"
        if statement.child("source") is not None:
            continue
        for clause in statement.children:
            for part in clause.named_children if clause.type == "export_clause" else ():
                local = part.child("name")
                if local is not None:
                    found[local.text] = (part.child("alias") or local).text
    return found
