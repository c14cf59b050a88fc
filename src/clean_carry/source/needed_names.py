"""The names of another module that code written into a file needs: imported, or written there too."""

from __future__ import annotations

import os
from dataclasses import dataclass, field
from pathlib import Path
from typing import Protocol

from clean_carry.source.exports import Imported, declared, imported
from clean_carry.source.javascript.read_only_values import holders, looks
from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.workspace import Workspace


class NotReadIn(Exception):
    """Code of another file that is not written into one: why, as it follows “it extends X”."""


class Base(Protocol):
    """Code that is written into another file: where it stands, and what it is called there."""

    @property
    def node(self) -> Node:
        """The code."""

    @property
    def tree(self) -> Tree:
        """Its file's tree."""

    @property
    def file(self) -> Path:
        """Its file."""

    @property
    def name(self) -> str:
        """Its name, "" where it has none."""

    @property
    def names(self) -> Names:
        """The names of its file."""


@dataclass
class Brought:
    """Code of a file, and the base that is written into it: the names that come along.

    `needs` are local names with what each is imported as, `constants` local names with their declarations.
    An import from the `runtime` is one thing only under one name.
    """

    node: Node
    tree: Tree
    names: Names
    file: Path
    workspace: Workspace
    base: Base
    runtime: str
    needs: dict[str, Imported] = field(init=False, default_factory=dict)
    constants: dict[str, str] = field(init=False, default_factory=dict)

    @property
    def names_and_texts(self) -> dict[str, object]:
        """Return everything that is brought along, by its name in the subclass's file."""
        return {**self.needs, **self.constants}

    def bring(self, name: str) -> str:
        """Return the name, in the subclass's file, of a name of the base's module. Raises
        `NotReadIn`."""
        if name == self.base.name:
            raise NotReadIn("which names itself")
        known = imported(self.base.tree, name)
        if known is not None:
            request = known.request
            if request.startswith("."):
                target = os.path.normpath(self.base.file.parent / request)
                request = _request(os.path.relpath(target, self.file.parent))
            return self.need(name, Imported(request, known.name))
        given_out = self._given_out(name)
        if given_out is not None:
            return self.need(name, given_out)
        constant = self._constant(name)
        if constant is None:
            raise NotReadIn(f"which uses {name}, which its file keeps to itself")
        if self._taken(name):
            raise NotReadIn(f"which uses {name}, which is something else here")
        self.constants[name] = constant
        return name

    def need(self, name: str, wanted: Imported) -> str:
        """Import something, under its own name where that is free. Raises `NotReadIn`."""
        if self.needs.get(name) == wanted:
            return name
        if not self._taken(name):
            self.needs[name] = wanted
            return name
        own = imported(self.tree, name)
        one = own is not None and wanted.request != self.runtime and self._is_one(name)
        if own == wanted or one:
            return name
        other = f"Base{name}" if name[:1].isupper() else f"base{name[:1].upper()}{name[1:]}"
        if other.encode() in self.tree.source.data:
            raise NotReadIn(f"which uses {name}, which is something else here")
        self.needs[other] = wanted
        return other

    def _taken(self, name: str) -> bool:
        """Whether a name is taken in the subclass's file: by a declaration, or by a global."""
        return self.names.scope_at(self.node).find(name) is not None or name in self.names.free

    def _given_out(self, name: str) -> Imported | None:
        """Return an exported declaration of the base's own file."""
        for statement in self.base.tree.of("export_statement"):
            if statement.has("default") or statement.child("source") is not None:
                continue
            inner = statement.child("declaration")
            found = [inner.child("name")] if inner is not None else []
            for declarator in inner.named_children if inner is not None else ():
                found.append(declarator.child("name"))
            if any(node is not None and node.text == name for node in found):
                path = os.path.relpath(self.base.file.with_suffix(""), self.file.parent)
                return Imported(_request(path), name)
        return None

    def _constant(self, name: str) -> str | None:
        """Return the declaration of a literal that nothing in the base's file changes or passes on."""
        binding = self.base.names.module.names.get(name)
        declarator = binding.node.parent if binding is not None else None
        statement = declarator.parent if declarator is not None else None
        value = declarator.child("value") if declarator is not None else None
        if binding is None or declarator is None or statement is None or value is None:
            return None
        if not statement.has("const") or len(statement.named_children) != 1:
            return None
        text = statement.text
        found = holders(value)
        if "\n" in text or found is None or len(found) > 1:
            return None
        if found and not all(map(self._only_looked_at, binding.references)):
            return None
        return text

    def _only_looked_at(self, ref: Node) -> bool:
        """Whether a use of a list or an object of plain values neither changes it nor hands it on."""
        parent = ref.parent
        target = parent.child("left") if parent is not None and ref.field == "right" else None
        if target is None or parent is None or parent.type != "assignment_expression":
            return looks(ref)
        # A field of the base alone, which is only looked at as well.
        part = target.child("property") if target.type == "member_expression" else None
        if part is None or target.children[0].type != "this":
            return False
        if part.text.encode() in self.tree.source.data:
            return False
        same = [n for n in self.base.node.walk() if n.text == target.text and n.type == target.type]
        return all(is_write(node) or looks(node) for node in same)

    def _is_one(self, name: str) -> bool:
        """Whether a name means one declaration in both files."""
        ours = declared(name, self.tree, self.file, self.workspace)
        theirs = declared(name, self.base.tree, self.base.file, self.workspace)
        if ours is None or theirs is None:
            return False
        return (ours.file, ours.node.start) == (theirs.file, theirs.node.start)


def _request(path: str) -> str:
    path = path.replace(os.sep, "/").removesuffix("/index")
    return path if path.startswith(".") else f"./{path}"


def import_lines(wanted: dict[str, Imported], statements: list[Node]) -> str:
    """The statements that import what is wanted, in the file's own quotes."""
    quote, semicolon = "'", ";"
    for statement in statements[-1:]:
        source = statement.child("source")
        quote = source.text[0] if source is not None else quote
        semicolon = ";" if statement.text.endswith(";") else ""
    by_request: dict[str, list[str]] = {}
    lines: list[str] = []
    for local, what in wanted.items():
        if what.name == "default":
            lines.append(f"import {local} from {quote}{what.request}{quote}{semicolon}")
        elif what.name == "*":
            lines.append(f"import * as {local} from {quote}{what.request}{quote}{semicolon}")
        else:
            word = local if local == what.name else f"{what.name} as {local}"
            by_request.setdefault(what.request, []).append(word)
    for request, words in by_request.items():
        names = ", ".join(words)
        lines.append(f"import {{ {names} }} from {quote}{request}{quote}{semicolon}")
    return "\n".join(lines)
