"""Mixins of a component: read in their files, as far as names go.

A mixin stays an option. Its inputs are inputs of the component; what else it brings is asked of the
instance. Members of the component that it reads are exposed there.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.options.functions import parts_of, returned
from clean_carry.syntaxes.single_file.options.instance_reads import (
    asked_in,
    data_names,
    handed_in,
    is_indexed,
    is_lent,
    is_of_prototype,
    lent_to,
    words_of,
)

DEPTH = 8


@dataclass
class Mixed:
    """The names a mixin brings by kind, those it asks the instance for, and the hooks it has.

    `derived` are those of `members` it derives, `written` those of `asked` it writes, `first` those it
    reads before the state exists. A mixin that `hands_on` the instance lets other code read it; a mixin
    that `lends` it, or reads unknown names of it, may read anything. `data_as` are the names under which it
    passes on the state, `trees` the files it stands in.
    """

    props: set[str] = field(default_factory=set)
    members: set[str] = field(default_factory=set)
    derived: set[str] = field(default_factory=set)
    asked: set[str] = field(default_factory=set)
    written: set[str] = field(default_factory=set)
    first: set[str] = field(default_factory=set)
    hooks: set[str] = field(default_factory=set)
    data_as: set[str] = field(default_factory=set)
    trees: dict[Path, Tree] = field(default_factory=dict)
    hands_on: bool = False
    lends: bool = False

    def add(self, other: Mixed) -> None:
        """Take in what another one brings."""
        self.props |= other.props
        self.members |= other.members
        self.derived |= other.derived
        self.asked |= other.asked
        self.written |= other.written
        self.first |= other.first
        self.hooks |= other.hooks
        self.data_as |= other.data_as
        self.trees |= other.trees
        self.hands_on = self.hands_on or other.hands_on
        self.lends = self.lends or other.lends


class NotFollowed(Exception):
    """A mixin whose object is not found: what was looked for."""


@dataclass
class Follower:
    """Follows what is mixed in through the files of a project.

    `hooks` are the names of hooks, `later` the options set on an object after it was made.
    """

    workspace: Workspace
    hooks: frozenset[str]
    later: dict[int, list[tuple[str | None, Node, Node]]] = field(default_factory=dict)

    def mixed(self, node: Node, tree: Tree, file: Path, depth: int = 0) -> Mixed:
        """Return the members that an expression of a `mixins` or `extends` option brings. Raises
        `NotFollowed`."""
        literal, there, where = self.object_of(node, tree, file, depth)
        found = Mixed(trees={where: there})
        if literal.type == "array":
            for item in literal.named_children:
                found.add(self.mixed(item, there, where, depth + 1))
            return found
        later = self.later.get(id(literal), [])
        for option, part, value in [*parts_of(literal), *later]:
            if option in ("mixins", "extends"):
                for item in value.named_children if value.type == "array" else [value]:
                    found.add(self.mixed(item, there, where, depth + 1))
            elif option == "props":
                found.props |= set(_names(value))
            elif option == "data":
                given = returned(value)
                if given is None or given.type != "object":
                    raise NotFollowed(f"data in {where.name}")
                found.members |= set(_names(given))
            elif option in ("computed", "methods", "inject"):
                found.members |= set(_names(value))
                found.derived |= set(_names(value)) if option == "computed" else set()
            elif option == "watch":
                found.asked |= {name.split(".")[0] for name in _names(value)}
            elif option in self.hooks or option in ("beforeCreate", "serverPrefetch"):
                found.hooks.add(option or "")
                if option == "beforeCreate":
                    found.first |= asked_in(value)[0]
            elif option is None or option in ("setup", "render"):
                raise NotFollowed(f"{part.text.split(chr(10))[0][:40]} in {where.name}")
        for node in (literal, *(value for _, _, value in later)):
            self._ask(node, there, where, found, depth + 1)
        return found

    def _ask(self, node: Node, tree: Tree, file: Path, found: Mixed, depth: int) -> None:
        """Note what code asks the instance for, and whether it hands it on; what it is lent to is
        looked through as well."""
        asked, written = asked_in(node)
        found.asked |= asked
        found.written |= written
        for this in handed_in(node):
            lent = lent_to(this)
            if lent and is_of_prototype(tree, lent):
                continue
            if is_indexed(this):
                words = words_of(this, file)
                found.lends = found.lends or words is None
                found.asked |= words or set()
            elif not is_lent(this):
                found.hands_on = True
            elif not lent or depth > DEPTH:
                found.lends = True
            else:
                try:
                    function, there, where = self._named(lent, tree, file, depth + 1, function=True)
                except NotFollowed:
                    found.lends = True
                    continue
                self._ask(function, there, where, found, depth + 1)
        found.data_as |= data_names(node).keys()

    def object_of(self, node: Node, tree: Tree, file: Path, depth: int) -> tuple[Node, Tree, Path]:
        """The literal an expression gives, with the tree and the file it stands in."""
        if depth > DEPTH:
            raise NotFollowed("mixins that mix in each other")
        match node.type:
            case "object" | "array":
                return node, tree, file
            case "call_expression":
                return self._called(node, tree, file, depth)
            case "as_expression" | "satisfies_expression" | "parenthesized_expression":
                return self.object_of(node.named_children[0], tree, file, depth)
            case "identifier":
                return self._named(node.text, tree, file, depth + 1)
        raise NotFollowed(node.text[:40])

    def _called(self, node: Node, tree: Tree, file: Path, depth: int) -> tuple[Node, Tree, Path]:
        callee, given = node.child("function"), node.child("arguments")
        name = callee.text if callee is not None else ""
        if name in ("defineComponent", "Vue.extend") and given is not None:
            return self.object_of(given.named_children[0], tree, file, depth + 1)
        if callee is None or callee.type != "identifier":
            raise NotFollowed(node.text[:40])
        function, there, where = self._named(name, tree, file, depth + 1, function=True)
        value = returned(function)
        if value is None:
            raise NotFollowed(name)
        return self.object_of(value, there, where, depth + 1)

    def _named(
        self, name: str, tree: Tree, file: Path, depth: int, function: bool = False
    ) -> tuple[Node, Tree, Path]:
        """Return the declaration or import behind a name of a module."""
        for node in tree.of("variable_declarator"):
            declared, value = node.child("name"), node.child("value")
            if declared is not None and declared.text == name and value is not None:
                if function and value.is_function:
                    return value, tree, file
                found = self.object_of(value, tree, file, depth + 1)
                self.later[id(found[0])] = _set_later(tree, name)
                return found
        for node in tree.of("function_declaration"):
            declared = node.child("name")
            if function and declared is not None and declared.text == name:
                return node, tree, file
        for statement in tree.of("import_statement"):
            source = statement.child("source")
            for exported in _imported(statement, name):
                path = self.workspace.resolve(source.text[1:-1], file) if source else None
                if path is None:
                    raise NotFollowed(name)
                return self._exported(exported, path, depth + 1, function)
        raise NotFollowed(name)

    def _exported(
        self, name: str, file: Path, depth: int, function: bool
    ) -> tuple[Node, Tree, Path]:
        tree = self.workspace.tree(file)
        if tree is None or depth > DEPTH:
            raise NotFollowed(file.name)
        for statement in tree.of("export_statement"):
            source = statement.child("source")
            clauses = [n for n in statement.named_children if n.type == "export_clause"]
            for node in (item for clause in clauses for item in clause.named_children):
                if node.type == "export_specifier":
                    first, alias = node.child("name"), node.child("alias")
                    if first is None or (alias or first).text != name:
                        continue
                    if source is None:
                        return self._named(first.text, tree, file, depth + 1, function)
                    path = self.workspace.resolve(source.text[1:-1], file)
                    if path is None:
                        raise NotFollowed(file.name)
                    return self._exported(first.text, path, depth + 1, function)
            value = statement.child("value") or statement.child("declaration")
            if name == "default" and statement.has("default") and value is not None:
                if function and value.is_function:
                    return value, tree, file
                if function and value.type == "identifier":
                    return self._named(value.text, tree, file, depth + 1, function)
                return self.object_of(value, tree, file, depth + 1)
        if name != "default":
            return self._named(name, tree, file, depth + 1, function)
        raise NotFollowed(f"{name} of {file.name}")


def _set_later(tree: Tree, name: str) -> list[tuple[str | None, Node, Node]]:
    """The options set on an object after it was made, as if they stood in it. Raises `NotFollowed`."""
    found: list[tuple[str | None, Node, Node]] = []
    for node in tree.of("assignment_expression"):
        left, right = node.child("left"), node.child("right")
        target = left.child("object") if left is not None else None
        if left is None or right is None or target is None:
            continue
        if target.text == name:
            found.append((property_name(left.child("property") or left), left, right))
        elif target.text.startswith(f"{name}."):
            raise NotFollowed(f"{name}, which is changed later")
    if any(n.text.startswith(f"Object.assign({name},") for n in tree.of("call_expression")):
        raise NotFollowed(f"{name}, which is changed later")
    return found


def _imported(statement: Node, name: str) -> Iterator[str]:
    """Under what name a module exports what a statement imports as `name`."""
    for node in statement.walk():
        if node.type == "import_specifier":
            first, alias = node.child("name"), node.child("alias")
            if first is not None and (alias or first).text == name:
                yield first.text
        elif node.type == "identifier" and node.text == name and node.parent is not None:
            if node.parent.type == "import_clause":
                yield "default"


def _names(value: Node) -> Iterator[str]:
    if value.type not in ("object", "array"):
        raise NotFollowed(value.text[:40])
    for item in value.named_children:
        key = item if item.type == "string" else item.child("key") or item.child("name")
        name = property_name(key if key is not None else item)
        if name is None:
            raise NotFollowed(item.text[:40])
        yield name
