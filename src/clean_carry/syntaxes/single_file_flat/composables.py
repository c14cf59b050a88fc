"""Calls of the project's shared code (composables), written into the script before it is carried on to
another family.

A composable is a function whose statements could stand in the script that calls it: its parameters stand
for what they are given, and what it returns gets the names the script takes. A composable that cannot be
inlined stays a call: the writer of the other family refuses it and says so.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property
from pathlib import Path

from clean_carry.source.exports import Declared, Imported, declared
from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.needed_names import Brought, NotReadIn, import_lines
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.runtime_import import RUNTIME
from clean_carry.syntaxes.single_file_flat.statements.scripts import FlatBlocks, flat_blocks

_LITERALS = ("string", "number", "true", "false", "null")
# Calls that return props.
_PROPS = ("defineProps", "withDefaults")
# Values that are never undefined, so that a default does not come into it.
_GIVEN = (*_LITERALS, "template_string", "arrow_function", "function_expression", "array", "object")
# So often what was written in is looked through for calls of its own.
_ROUNDS = 4


def with_composables(source: SourceText, workspace: Workspace) -> SourceText:
    """The file with the composables it calls written in, as far as they are found and can be."""
    for _ in range(_ROUNDS):
        blocks = flat_blocks(source)
        if blocks.refused:
            return source
        inlining = _Inlining(source, blocks, workspace)
        edits = list(inlining.edits())
        if not edits:
            return source
        merged = MergedText(source, edits)
        for at, words in inlining.taken:
            merged.taken[merged.moved(at)] = words
        source = merged
    return source


@dataclass(frozen=True)
class _Shared:
    """A function whose statements are written into a script."""

    node: Node
    tree: Tree
    file: Path
    name: str

    @cached_property
    def names(self) -> Names:
        """The names of its file."""
        return Names(self.tree)


@dataclass
class _Inlining:
    """One script, and what it calls; `taken` are the offsets of calls with the words for what each was."""

    source: SourceText
    blocks: FlatBlocks
    workspace: Workspace
    needs: dict[str, Imported] = field(default_factory=dict)
    constants: dict[str, str] = field(default_factory=dict)
    given: set[str] = field(default_factory=set)
    taken: list[tuple[int, str]] = field(default_factory=list)

    def edits(self) -> Iterator[Edit]:
        """Yield the edits of the file."""
        written: list[Node] = []
        for statement in self.blocks.of(self.blocks.setup):
            call = _call_of(statement)
            callee = call.child("function") if call is not None else None
            if call is None or callee is None or not callee.text.startswith("use"):
                continue
            found = declared(callee.text, self.blocks.tree, self.workspace.file, self.workspace)
            if found is None or self._is_own(found):
                continue
            before = dict(self.needs), dict(self.constants), set(self.given)
            try:
                text = self._text(statement, call, found, callee.text)
            except NotReadIn:
                self.needs, self.constants, self.given = before
                continue
            written.append(call)
            self.taken.append((statement.start, callee.text))
            place = found.tree.source.place(found.node.start)
            yield Edit(statement.start, statement.end, text, place)
        if written:
            yield from self._imports(written)

    def _is_own(self, found: Declared) -> bool:
        return found.file == self.workspace.file

    # -- one call -----------------------------------------------------------------------------------

    def _text(self, statement: Node, call: Node, found: Declared, name: str) -> str:
        """The statements a call stands for. Raises `NotReadIn`."""
        function, base = found.node, _Shared(found.node, found.tree, found.file, name)
        body = function.child("body")
        typed = any(one.name == "lang" for one in self.blocks.setup.attributes)
        if found.file.suffix in (".ts", ".tsx") and not typed:
            raise NotReadIn("which is written with types")
        if not function.is_function or body is None or body.type != "statement_block":
            raise NotReadIn("which is no function with statements")
        if function.has("async") or function.has("*"):
            raise NotReadIn("which waits")
        statements = body.named_children
        result = (
            statements[-1] if statements and statements[-1].type == "return_statement" else None
        )
        run = statements[:-1] if result is not None else statements
        if any(_leaves(node, function) for node in run) or not run:
            raise NotReadIn("which returns early")
        if any(n.text == "arguments" or n.type == "this" for n in function.walk()):
            raise NotReadIn("which asks for its arguments")
        renamed = _Renamed(base, self._free)
        lines = list(self._parameters(call, function, renamed))
        more = self._results(statement, result, renamed)
        self._bring(base, run + ([result] if result is not None else []), statement)
        self.given.update(renamed.others(name))
        body_text = renamed.text(run[0], run[-1], self.source.indent_at(statement.start))
        more_lines = [f"const {local} = {renamed.of(value)}" for local, value in more]
        return "\n".join([*lines, body_text, *more_lines])

    def _free(self, name: str) -> bool:
        """Whether nothing in the file is called so yet."""
        word = re.compile(rb"(?<![\w$.])" + re.escape(name.encode()) + rb"(?![\w$])")
        return name not in self.given and word.search(self.source.data) is None

    def _parameters(self, call: Node, function: Node, renamed: _Renamed) -> Iterator[str]:
        """Yield statements for the parameters: the argument itself, or a constant that holds it."""
        parameters, arguments = function.child("parameters"), call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if any(one.type == "spread_element" for one in given):
            raise NotReadIn("which is given what is spread")
        scope = renamed.scope
        for at, parameter in enumerate(parameters.named_children if parameters is not None else []):
            pattern = parameter.child("pattern") or parameter
            default = parameter.child("value")
            binding = scope.get(pattern.text) if pattern.type == "identifier" else None
            value = given[at] if at < len(given) else default
            if binding is None:
                raise NotReadIn("which takes a parameter apart")
            if value is None:
                renamed.say(binding, "undefined")
            elif default is not None and value is not default and value.type not in _GIVEN:
                raise NotReadIn("which has a default for what may be undefined")
            elif not binding.written and (value.type in _LITERALS or self._is_constant(value)):
                renamed.say(binding, value.text)
            else:
                name = self._chosen(pattern.text, renamed.base.name)
                renamed.say(binding, name)
                yield f"{'let' if binding.written else 'const'} {name} = {value.text}"

    def _is_constant(self, value: Node) -> bool:
        """Whether an argument is a name that keeps its value; a prop taken apart changes with the prop."""
        binding = self.blocks.names.meaning(value) if value.type == "identifier" else None
        if binding is None or binding.written:
            return False
        made = next((up for up in binding.node.up() if up.type == "variable_declarator"), None)
        right = made.child("value") if made is not None else None
        return right is None or not right.text.startswith(_PROPS)

    def _chosen(self, name: str, composable: str) -> str:
        wish = name if self._free(name) else _apart(name, composable)
        if not self._free(wish):
            raise NotReadIn(f"which uses {name}, which is something else here")
        self.given.add(wish)
        return wish

    def _results(
        self, statement: Node, result: Node | None, renamed: _Renamed
    ) -> list[tuple[str, Node]]:
        """Give what is returned the names the script takes it by; (name, value) of what has none there."""
        wanted = _wanted(statement)
        value = result.named_children[0] if result is not None and result.named_children else None
        if isinstance(wanted, str):
            if value is None or value.type != "identifier":
                raise NotReadIn("whose result is taken whole")
            return self._named({"": wanted}, {"": value}, renamed)
        if wanted and (value is None or value.type != "object"):
            raise NotReadIn("which returns no plain object")
        offered = {}
        for name, part, inner in (
            parts_of(value) if value is not None and value.type == "object" else ()
        ):
            if name is None or part.type not in ("pair", "shorthand_property_identifier"):
                raise NotReadIn("which returns more than names")
            offered[name] = inner
        return self._named(wanted, offered, renamed)

    def _named(
        self, wanted: dict[str, str], offered: dict[str, Node], renamed: _Renamed
    ) -> list[tuple[str, Node]]:
        more = []
        for name, local in wanted.items():
            if name not in offered:
                raise NotReadIn(f"which returns no {name}")
            value = offered[name]
            plain = value.type in ("identifier", "shorthand_property_identifier")
            binding = renamed.scope.get(value.text) if plain else None
            self.given.add(local)
            if binding is not None and not renamed.is_said(binding):
                renamed.say(binding, local)
            else:
                more.append((local, value))
        return more

    def _bring(self, base: _Shared, nodes: list[Node], statement: Node) -> None:
        """Bring the names of their module that the statements need."""
        brought = Brought(
            statement, self.blocks.tree, self.blocks.names, self.workspace.file, self.workspace,
            base, RUNTIME,
        )  # fmt: skip
        brought.needs, brought.constants = self.needs, self.constants
        module = base.names.module
        for node in nodes:
            for ref, binding in base.names.references_in(node):
                if binding is None or binding.scope is not module:
                    continue
                if binding.node.start >= node.start and binding.node.end <= node.end:
                    continue
                if brought.bring(ref.text) != ref.text:
                    raise NotReadIn(f"which uses {ref.text}, which is something else here")

    # -- the module -----------------------------------------------------------------------------------

    def _imports(self, calls: list[Node]) -> Iterator[Edit]:
        """Yield the new imports, in the place of imports that are no longer used."""
        statements = [n for n in self.blocks.of(self.blocks.setup) if n.type == "import_statement"]
        called = {child.start for call in calls if (child := call.child("function")) is not None}
        gone = [node for node in statements if self._is_unused(node, called)]
        kept = [node for node in statements if node not in gone]
        for node in kept:
            yield from self._joined(node)
        lines = import_lines(self.needs, statements)
        if self.constants:
            lines += "\n\n" + "\n".join(self.constants.values())
        for node in gone:
            line = self.source.statement_line(node.start, node.end)
            yield Edit(line.start, line.end, "")
        if not lines:
            return
        at = self.blocks.setup.inner[0]
        if kept:
            at = self.source.statement_line(kept[-1].start, kept[-1].end).end
        elif self.source.data[at : at + 1] == b"\n":
            at += 1
        yield Edit(at, at, f"{lines.strip()}\n")

    def _joined(self, statement: Node) -> Iterator[Edit]:
        """Yield names for an import statement of the same module that exists already."""
        group = next((n for n in statement.walk() if n.type == "named_imports"), None)
        source = statement.child("source")
        if group is None or not group.named_children or source is None or statement.has("type"):
            return
        request, last = source.text[1:-1], group.named_children[-1].end
        for local, what in list(self.needs.items()):
            if what.request == request and what.name not in ("default", "*"):
                text = local if local == what.name else f"{what.name} as {local}"
                yield Edit(last, last, f", {text}")
                del self.needs[local]

    def _is_unused(self, statement: Node, called: set[int]) -> bool:
        """Whether only removed calls used the names of an import statement."""
        found = []
        for binding in self.blocks.names.module.names.values():
            if statement.start <= binding.node.start < statement.end:
                refs = [
                    r for r in binding.references if not statement.start <= r.start < statement.end
                ]
                found.append(bool(refs) and all(ref.start in called for ref in refs))
        return bool(found) and all(found)


class _Renamed:
    """The names of one composable at their new place."""

    def __init__(self, base: _Shared, free) -> None:  # type: ignore[no-untyped-def]
        self.base, self._free = base, free
        scope = base.names.inner_scope(base.node)
        self.scope: dict[str, Binding] = dict(scope.names) if scope is not None else {}
        self._texts: dict[int, str] = {}

    def say(self, binding: Binding, text: str) -> None:
        """Call a name `text` from now on."""
        self._texts[id(binding)] = text

    def is_said(self, binding: Binding) -> bool:
        """Whether a name is called otherwise already."""
        return id(binding) in self._texts

    def others(self, composable: str) -> set[str]:
        """Rename what means something else in the script; return the names declared at the new place.
        Raises `NotReadIn`."""
        inner = {
            binding.name
            for node in self.base.node.walk()
            for _, binding in self.base.names.references_in(node)
            if binding is not None and binding not in self.scope.values()
        }
        for text in self._texts.values():
            if text in inner:
                raise NotReadIn(f"which has a {text} of its own inside")
        names: set[str] = set()
        for name, binding in self.scope.items():
            if self.is_said(binding):
                continue
            new = name if self._free(name) else _apart(name, composable)
            if not self._free(new):
                raise NotReadIn(f"which uses {name}, which is something else here")
            self.say(binding, new)
            names.add(new)
        return names

    def text(self, first: Node, last: Node, indent: str) -> str:
        """The text from one statement to another, in a script's own indentation."""
        tree = self.base.tree
        old = tree.source.indent_at(first.start)
        text = self._spelled(first.start, last.end)
        lines = text.split("\n")
        return "\n".join([lines[0], *(_indented(one, old, indent) for one in lines[1:])])

    def of(self, value: Node) -> str:
        """The text of one value."""
        return self._spelled(value.start, value.end)

    def _spelled(self, start: int, end: int) -> str:
        result, here, source = "", start, self.base.tree.source
        for ref, binding in self._refs(start, end):
            text = self._texts.get(id(binding))
            if text is None or ref.start < here:
                continue
            short = ref.type.startswith("shorthand_property_identifier")
            head = f"{ref.text}: " if short and text != ref.text else ""
            result += source.slice(here, ref.start) + head + text
            here = ref.end
        return result + source.slice(here, end)

    def _refs(self, start: int, end: int) -> list[tuple[Node, Binding]]:
        found = [
            (ref, binding)
            for binding in self.scope.values()
            for ref in (*binding.references, binding.node)
        ]
        inside = [(ref, binding) for ref, binding in found if start <= ref.start < end]
        return sorted(inside, key=lambda one: (one[0].start, -one[0].end))


def _indented(line: str, old: str, new: str) -> str:
    return new + line.removeprefix(old) if line.strip() else line


def _call_of(statement: Node) -> Node | None:
    """Return the call of a statement, whether or not its result is used."""
    inner = statement.named_children[0] if len(statement.named_children) == 1 else None
    if inner is not None and statement.type == "lexical_declaration" and statement.has("const"):
        inner = inner.child("value")
    elif statement.type != "expression_statement":
        return None
    if inner is None or inner.type != "call_expression":
        return None
    callee = inner.child("function")
    return inner if callee is not None and callee.type == "identifier" else None


def _wanted(statement: Node) -> dict[str, str] | str:
    """The names a script takes of what is returned, with its own; one name where it takes it whole."""
    if statement.type == "expression_statement":
        return {}
    pattern = statement.named_children[0].child("name")
    if pattern is None or pattern.type == "identifier":
        return pattern.text if pattern is not None else ""
    if pattern.type != "object_pattern":
        raise NotReadIn("whose result is taken apart otherwise")
    found = {}
    for part in pattern.named_children:
        key, value = part.child("key"), part.child("value")
        if part.type == "shorthand_property_identifier_pattern":
            found[part.text] = part.text
        elif key is not None and value is not None and value.type == "identifier":
            found[key.text] = value.text
        else:
            raise NotReadIn("whose result is taken apart otherwise")
    return found


def _leaves(node: Node, function: Node) -> bool:
    """Whether a statement returns from a function, or waits in it."""
    for inner in node.walk():
        if inner.type in ("return_statement", "await_expression"):
            if next((up for up in inner.up() if up.is_function), None) is function:
                return True
    return False


def _apart(name: str, composable: str) -> str:
    """Another name for what a composable calls `name`: `sortingColumn` for `column` of `useSorting`."""
    rest = composable.removeprefix("use")
    return f"{rest[:1].lower()}{rest[1:]}{name[:1].upper()}{name[1:]}"
