"""Names a file takes from the runtime: which local name means the base class, a hook, a helper."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree

RUNTIME = "react"


@dataclass(frozen=True)
class RuntimeNames:
    """`named` maps an imported name to its local name; `whole` are default and namespace imports.

    `statement` is the import to edit: the first value import of the runtime, None if there is none.
    `required` are names for all of it that a call gives, in scripts that import nothing.
    """

    named: dict[str, str]
    whole: tuple[str, ...]
    statement: Node | None
    required: frozenset[str] = frozenset()

    def imported(self, node: Node, names: Names) -> str | None:
        """Return the framework's name for an identifier or a `React.x` path; None for anything else."""
        if node.type == "identifier":
            binding = names.meaning(node)
            if binding is None or binding.kind != "import":
                return None
            for original, local in self.named.items():
                if local == node.text:
                    return original
            return None
        if node.type == "member_expression":
            owner, part = node.children[0], node.child("property")
            if part is None or owner.type != "identifier" or owner.text not in self.whole:
                return None
            binding = names.meaning(owner)
            known = binding is not None and (
                binding.kind == "import"
                or (owner.text in self.required and binding.scope is names.module)
            )
            return part.text if known else None
        return None


def runtime_names(tree: Tree) -> RuntimeNames:
    """The imports of the runtime of a file, read once."""
    found = tree.remembered.get(RUNTIME)
    if not isinstance(found, RuntimeNames):
        found = tree.remembered[RUNTIME] = _read(tree)
    return found


def _read(tree: Tree) -> RuntimeNames:
    named: dict[str, str] = {}
    whole: list[str] = []
    statement: Node | None = None
    for node in tree.root.children:
        if node.type != "import_statement":
            continue
        source = node.child("source")
        if source is None or source.text[1:-1] != RUNTIME or node.has("type"):
            continue
        statement = statement or node
        for part in node.walk():
            if part.type == "import_specifier":
                name, alias = part.child("name"), part.child("alias")
                if name is not None:
                    named[name.text] = (alias or name).text
            elif part.type == "identifier" and part.parent is not None:
                if part.parent.type in ("import_clause", "namespace_import"):
                    whole.append(part.text)
    required = _required(tree)
    return RuntimeNames(named, (*whole, *required), statement, frozenset(required))


def _required(tree: Tree) -> list[str]:
    """The names at the top for all of the runtime: `const React = require('react')`, and the same as an
    import of annotated scripts."""
    if b"require(" not in tree.view:
        return []
    found = [
        clause.named_children[0].text
        for clause in tree.of("import_require_clause")
        if (source := clause.child("source")) is not None and source.text[1:-1] == RUNTIME
    ]
    return found + [
        name.text
        for statement in tree.root.children
        if statement.type == "lexical_declaration" and statement.has("const")
        for declarator in statement.named_children
        if (name := declarator.child("name")) is not None and name.type == "identifier"
        if (value := declarator.child("value")) is not None
        if re.fullmatch(rf"require\(['\"]{RUNTIME}['\"]\)", value.text)
    ]
