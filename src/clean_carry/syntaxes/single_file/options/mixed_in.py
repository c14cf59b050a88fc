"""Mixins of a component, inlined into its object before it is read for another family.

A mixin's own mixins come before it, and it comes before the component: hooks and watchers of all of them
run in that order, of other members the last one wins (the runtime's reference, "Options: Composition").
A mixin that cannot be written in stays as it is: the writer refuses it and says so.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from functools import cached_property
from pathlib import Path

from clean_carry.source.exports import Imported
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.needed_names import Brought, NotReadIn, import_lines
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.hooks import HOOKS, ROUTE_HOOKS
from clean_carry.syntaxes.single_file.options.exported import parsed_script
from clean_carry.syntaxes.single_file.options.functions import (
    instance_parameter,
    only_returns,
    parts_of,
    returned,
)
from clean_carry.syntaxes.single_file.options.mixins import Follower, NotFollowed

_RUNTIME = "vue"
_MIXING = ("mixins", "extends")
# Options that hold members by name; of these, all of one name run.
_RECORDS = ("props", "computed", "methods", "watch", "inject", "components", "filters")
_ALL_RUN = ("watch",)
_HOOKS = frozenset(HOOKS | ROUTE_HOOKS)
_DEPTH = 6


@dataclass(frozen=True)
class _Mixin:
    """An object that is mixed in, where it stands; it is a base of what is written into a file."""

    node: Node
    tree: Tree
    file: Path
    name: str = ""

    @cached_property
    def names(self) -> Names:
        """The names of its file."""
        return Names(self.tree)


def with_mixins(
    source: SourceText, workspace: Workspace, asked: Callable[[str], bool] | None = None
) -> SourceText:
    """The file with what its component mixes in written into its object, as far as that is found.

    Where one is `asked`, only if that says of what something mixed in says that it must be.
    """
    if b"mixins" not in source.data and b"extends" not in source.data:
        return source
    script = parsed_script(source, workspace)
    if script is None or script.exported is None:
        return source
    literal = script.exported.literal
    typed = any(one.name == "lang" for one in script.block.attributes)
    try:
        merging = _Merging(script.tree, script.names, literal, workspace, typed, asked)
        edits = list(merging.edits())
    except (NotReadIn, NotFollowed):
        return source
    if not edits:
        return source
    merged = MergedText(source, edits)
    mixing = [part for name, part, _ in parts_of(literal) if name in _MIXING]
    merged.taken[merged.moved(literal.start)] = mixing[0].text.partition("\n")[0]
    return merged


@dataclass
class _Merging:
    """One component and what it mixes in; raises `NotReadIn`, `NotFollowed`."""

    tree: Tree
    names: Names
    literal: Node
    workspace: Workspace
    typed: bool
    asked: Callable[[str], bool] | None = None
    needs: dict[str, Imported] = field(default_factory=dict)
    constants: dict[str, str] = field(default_factory=dict)

    def edits(self) -> Iterator[Edit]:
        """Yield the edits of the file."""
        parts = parts_of(self.literal)
        mixing = [part for part in parts if part[0] in _MIXING]
        if not mixing:
            return
        follower = Follower(self.workspace, _HOOKS)
        mixins = list(self._mixins(self.literal, self.tree, self.workspace.file, follower, 0))
        if any(follower.later.get(id(one.node)) for one in mixins):
            raise NotReadIn("which is changed later")
        if self.asked is not None and not any(self.asked(one.node.text) for one in mixins):
            return
        own = {name: value for name, _, value in parts if name is not None}
        gathered: dict[str, dict[str, tuple[_Mixin, Node]]] = {}
        hooks: list[tuple[_Mixin, Node]] = []
        for mixin in mixins:
            for name, part, value in parts_of(mixin.node):
                self._take(mixin, name, part, value, gathered, hooks)
        for _, part, _ in mixing:
            yield self._without(part)
            yield from self._unused(part)
        yield from self._options(own, gathered, hooks)
        if self.needs or self.constants:
            yield self._imports()

    def _mixins(
        self, literal: Node, tree: Tree, file: Path, follower: Follower, depth: int
    ) -> Iterator[_Mixin]:
        """The objects mixed into one, in the order they run."""
        if depth > _DEPTH:
            raise NotReadIn("whose mixins go too deep")
        parts = [(name, value) for name, _, value in parts_of(literal) if name in _MIXING]
        for _, value in sorted(parts, key=lambda part: part[0] != "extends"):
            for item in value.named_children if value.type == "array" else [value]:
                found, there, where = follower.object_of(item, tree, file, depth)
                if found.type != "object":
                    raise NotReadIn("which is a list")
                if where.suffix in (".ts", ".tsx") and not self.typed:
                    raise NotReadIn("which is written with types")
                yield from self._mixins(found, there, where, follower, depth + 1)
                yield _Mixin(found, there, where)

    def _take(
        self,
        mixin: _Mixin,
        name: str | None,
        part: Node,
        value: Node,
        gathered: dict[str, dict[str, tuple[_Mixin, Node]]],
        hooks: list[tuple[_Mixin, Node]],
    ) -> None:
        """One option of a mixin."""
        if name in _MIXING or name == "name":
            return
        if name in _HOOKS:
            hooks.append((mixin, part))
        elif name == "data":
            given = returned(value)
            if given is None or given.type != "object" or not only_returns(value):
                raise NotReadIn("whose data is no plain object")
            if instance_parameter(value) is not None:
                raise NotReadIn("whose data takes the instance")
            self._named(mixin, "data", given, gathered)
        elif name in _RECORDS and value.type in ("object", "array"):
            self._named(mixin, name or "", value, gathered)
        elif name == "emits" and value.type == "array":
            self._named(mixin, "emits", value, gathered)
        elif name in (None, "setup", "render", "template", "beforeCreate", "provide", *_RECORDS):
            raise NotReadIn(f"with {part.text[:20]}")
        else:
            gathered.setdefault("", {})[name or ""] = mixin, part

    def _named(
        self,
        mixin: _Mixin,
        option: str,
        value: Node,
        gathered: dict[str, dict[str, tuple[_Mixin, Node]]],
    ) -> None:
        """The members of one option, each under its name."""
        found = gathered.setdefault(option, {})
        if value.type == "array":
            for item in value.named_children:
                found[item.text.strip("'\"`")] = mixin, item
            return
        for name, part, _ in parts_of(value):
            if name is None:
                raise NotReadIn(f"with {part.text[:20]}")
            key = f"{name} {len(found)}" if option in _ALL_RUN else name
            found[key] = mixin, part

    # -- text -----------------------------------------------------------------------------------

    def _options(
        self,
        own: dict[str, Node],
        gathered: dict[str, dict[str, tuple[_Mixin, Node]]],
        hooks: list[tuple[_Mixin, Node]],
    ) -> Iterator[Edit]:
        first = self.literal.start + 1
        indent = self._indent(self.literal) + "  "
        rest = gathered.pop("", {})
        whole = [part for name, part in rest.items() if name not in own]
        for mixin, part in (*whole, *hooks):
            yield self._edit(first, f"\n{indent}{self._text(mixin, part, indent)},", mixin, part)
        for option, members in gathered.items():
            value = own.get(option)
            if value is None:
                yield from self._option(first, indent, option, members)
                continue
            holder = returned(value) if option == "data" else value
            if holder is None or holder.type not in ("object", "array"):
                raise NotReadIn(f"beside {option} that is no plain object")
            had = {name for name, _, _ in parts_of(holder)} if holder.type == "object" else set()
            if holder.type == "array":
                had = {item.text.strip("'\"`") for item in holder.named_children}
            inner = self._indent(holder) + "  "
            for name, (mixin, part) in members.items():
                if name in had:
                    continue
                text = self._member(mixin, part, holder.type == "array", inner)
                line = "\n" in holder.text or "\n" in text
                before = f"\n{inner}" if line else " "
                yield self._edit(holder.start + 1, f"{before}{text},", mixin, part)

    def _option(
        self, at: int, indent: str, option: str, members: dict[str, tuple[_Mixin, Node]]
    ) -> Iterator[Edit]:
        """An option the component does not have itself."""
        listed = option == "emits"
        inner = indent + "  "
        opening, closing = ("[", "]") if listed else ("{", "}")
        head = f"{option}() {{ return {{" if option == "data" else f"{option}: {opening}"
        tail = "}; }," if option == "data" else f"{closing},"
        mixin, part = next(iter(members.values()))
        yield self._edit(at, f"\n{indent}{head}", mixin, part)
        for mixin, part in members.values():
            text = self._member(mixin, part, listed, inner)
            yield self._edit(at, f"\n{inner}{text},", mixin, part)
        yield self._edit(at, f"\n{indent}{tail}", mixin, part)

    def _member(self, mixin: _Mixin, part: Node, listed: bool, indent: str) -> str:
        """A member as its new neighbours are written: by name alone, or with what it is."""
        text = self._text(mixin, part, indent)
        by_name = part.type == "string"
        if by_name and not listed:
            return f"{text}: {{}}"
        if listed and not by_name:
            raise NotReadIn("whose inputs are declared in another way")
        return text

    def _text(self, mixin: _Mixin, part: Node, indent: str) -> str:
        """The text of a part at its new place; what it needs of its module comes along."""
        if mixin.file != self.workspace.file:
            brought = Brought(
                self.literal, self.tree, self.names, self.workspace.file, self.workspace, mixin,
                _RUNTIME,
            )  # fmt: skip
            brought.needs, brought.constants = self.needs, self.constants
            module = mixin.names.module
            for ref, binding in mixin.names.references_in(part):
                if binding is not None and binding.scope is module:
                    if brought.bring(ref.text) != ref.text:
                        raise NotReadIn(f"which uses {ref.text}, which is something else here")
        old = mixin.tree.source.indent_at(part.start)
        lines = part.text.split("\n")
        return "\n".join([lines[0], *(indent + one.removeprefix(old) for one in lines[1:])])

    def _edit(self, at: int, text: str, mixin: _Mixin, part: Node) -> Edit:
        return Edit(at, at, text, mixin.tree.source.place(part.start))

    def _indent(self, node: Node) -> str:
        return self.tree.source.indent_at(node.start)

    def _without(self, part: Node) -> Edit:
        """The object without the option that mixes in."""
        data, end = self.tree.source.data, part.end
        if data[end : end + 1] == b",":
            end += 1
        return Edit(part.start, end, "")

    def _unused(self, part: Node) -> Iterator[Edit]:
        """Yield the statements of the module that only the option uses."""
        done: set[int] = set()
        for ref, binding in self.names.references_in(part):
            if binding is None or binding.scope is not self.names.module:
                continue
            statement = next(up for up in binding.node.up() if up.parent is self.tree.root)
            others = [one for one in binding.references if not part.start <= one.start < part.end]
            several = statement.type != "import_statement" or "{" in statement.text
            if others or statement.start in done or (several and "," in _declared(statement)):
                continue
            if binding.node.text != ref.text:
                continue
            done.add(statement.start)
            line = self.tree.source.statement_line(statement.start, statement.end)
            yield Edit(line.start, line.end, "")

    def _imports(self) -> Edit:
        statements = self.tree.of("import_statement")
        lines = import_lines(self.needs, statements)
        if self.constants:
            lines += "\n\n" + "\n".join(self.constants.values())
        if statements:
            line = self.tree.source.statement_line(statements[-1].start, statements[-1].end)
            return Edit(line.end, line.end, f"{lines.strip()}\n")
        first = self.tree.root.named_children[0]
        return Edit(first.start, first.start, f"{lines.strip()}\n\n")


def _declared(statement: Node) -> str:
    """Return the declaration or import of a statement, as text."""
    if statement.type == "import_statement":
        return statement.text.partition(" from ")[0]
    return ",".join(one.text[:1] for one in statement.named_children)
