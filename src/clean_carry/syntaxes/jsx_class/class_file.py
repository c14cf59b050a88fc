"""A parsed file with what every class of it shares."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from clean_carry.component.ledger import Ledger
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.keepers import Keepers
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames


@dataclass
class ClassFile:
    """A parsed file with what every class of it shares."""

    tree: Tree
    names: Names
    runtime: RuntimeNames
    ledger: Ledger
    workspace: Workspace
    keeping: frozenset[int] = frozenset()
    neutral: bool = False

    @cached_property
    def keepers(self) -> Keepers:
        """Return the props that the rendered components keep."""
        return Keepers(self.tree, self.names, self.workspace)
