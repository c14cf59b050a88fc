"""A view as the single file that shows the same: its template, its inputs as props, values it computes."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path as FilePath

from clean_carry.component.spans import Place
from clean_carry.source.expressions.model import Constant, Unsayable
from clean_carry.source.expressions.types import ANY, TEXT, Type
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.php.tree import PhpNode, expression_in, parsed
from clean_carry.source.php.uses import Path, Uses
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import Mark, marks_of
from clean_carry.source.view.tree import Unfolded, ViewTree, read_view
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.server_view.reading.class_file import (
    ViewClass,
    class_beside,
    read_class,
    refined,
)
from clean_carry.syntaxes.server_view.reading.names import ERRORS, TEXTS, Input, Names
from clean_carry.syntaxes.server_view.reading.nesting import repaired
from clean_carry.syntaxes.server_view.reading.script import assumed, script_of
from clean_carry.syntaxes.server_view.reading.template import TemplateReading
from clean_carry.syntaxes.single_file.pieces import trimmed
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# Directives that put a view together with other templates.
_LAYOUT = frozenset(
    (
        "extends extendsFirst section yield show stop overwrite append parent stack push prepend once "
        "include includeIf includeWhen includeUnless includeFirst each component componentFirst slot "
        "hasSection sectionMissing aware"
    ).split()
)
# How often types are looked for: a list's items are known once the list is.
_ROUNDS = 6


@dataclass(frozen=True)
class WholeView:
    """A view that was read: the single file, the types of its inputs, and those that it counts to.
    `objects` are paths of values whose members are read as an object's."""

    merged: MergedText
    types: dict[str, Type]
    counts: frozenset[str]
    objects: frozenset[Path]


def as_single_file(source: SourceText, workspace: Workspace) -> MergedText:
    """The single file. Raises `NotAFile`."""
    return whole_view(source, workspace).merged


def whole_view(source: SourceText, workspace: Workspace) -> WholeView:
    """The same, with what is known of its inputs. Raises `NotAFile`."""
    _refuse_layout(source)
    try:
        tree = read_view(source)
    except Unfolded as reason:
        raise NotAFile("view-unread", reason.what, reason.at) from None
    moved = repaired(tree.parts, source)
    if moved is not None:
        raise NotAFile("view-markup-moved", *moved)
    own = _class_of(FilePath(workspace.file))
    return _View(source, tree, own, workspace).merged()


def _class_of(view: FilePath) -> ViewClass | None:
    """The class of a view; None for one without. Raises `NotAFile`."""
    path = class_beside(view)
    if path is None:
        return None
    try:
        return read_class(path.read_bytes())
    except Unsayable as reason:
        raise NotAFile("view-unread", f"{reason.what} ({path.name})", 0) from None


def _refuse_layout(source: SourceText) -> None:
    for mark in marks_of(source.data):
        if mark.kind == "directive" and mark.name in _LAYOUT:
            text = source.slice(mark.start, mark.end).split("\n")[0][:60]
            raise NotAFile("view-of-parts", text, mark.start)


@dataclass
class _View:
    source: SourceText
    tree: ViewTree
    own: ViewClass | None
    workspace: Workspace
    # The types of other views' inputs, by their files.
    known: dict[FilePath, dict[str, Type]] = field(default_factory=dict)

    def merged(self) -> WholeView:
        """The new text, with the places that its parts come from."""
        uses = Uses()
        for _ in range(_ROUNDS):
            self._read(uses, final=False)
            if not uses.next_round():
                break
        try:
            names, template = self._read(uses, final=True)
            script = script_of(names, template.children, passes_on=template.passes_on)
        except Unsayable as reason:
            rule = "server-call" if "of the server" in reason.what else "view-unread"
            raise NotAFile(
                rule,
                reason.what.removesuffix(", a function of the server").removesuffix(
                    ", a call of the server"
                ),
                max(0, min(reason.at, len(self.source.data) - 1)),
            ) from None
        text = "".join(one for one, _ in template.pieces)
        if not text.strip():
            raise NotAFile("view-unread", "a view that shows nothing", 0)
        if text.strip().startswith("{{") and "<" not in text:
            raise NotAFile("view-unread", "a view without markup", 0)
        unit = _unit(self.source)
        script = re.sub(r"(?m)^(?:  )+", lambda lead: unit * (len(lead[0]) // 2), script)
        body = _indented(trimmed(template.pieces), unit)
        pieces = [(f"<template>\n{unit}", 0), *body, ("\n</template>\n\n", 0)]
        edits = [Edit(0, 0, part, self._place(at)) for part, at in pieces if part]
        edits.append(Edit(0, 0, script, self._place(0)))
        made = MergedText(self.source, [*edits, Edit(0, len(self.source.data), "", None)])
        start = made.data.find(b"export default")
        told = assumed(names)
        if told:
            made.noted.append(("types-by-use", ", ".join(told), start))
        for rule, detail, _ in dict.fromkeys(names.reader.notes):
            made.noted.append((rule, detail, start))
        if names.reads_errors:
            made.noted.append(("errors-become-input", ERRORS, start))
        if names.reads_texts:
            made.noted.append(("texts-become-input", TEXTS, start))
        types = {name: uses.type_of((name,), one.type) for name, one in names.inputs.items()}
        if names.reads_errors:
            types[ERRORS] = Type("record", item=TEXT)
        if names.reads_texts:
            types[TEXTS] = Type("record", item=TEXT)
        counts = frozenset(name for name in types if "count" in uses.kinds.get((name,), ()))
        return WholeView(made, types, counts, frozenset(uses.objects))

    def _place(self, at: int) -> Place:
        return self.source.place(max(0, min(at, len(self.source.data) - 1)))

    def _read(self, uses: Uses, *, final: bool) -> tuple[Names, TemplateReading]:
        names = Names(uses, {}, strict=False)
        failed = _raise if final else _pass_over
        try:
            self._declared(names)
            self._code(names)
        except Unsayable as reason:
            failed(reason)
        view = FilePath(self.workspace.file)
        within, types = self.tree.within, self._types_of
        template = TemplateReading(self.source, names, within, failed, view, types)
        for name in [*names.computed]:
            try:
                names.value(name, _NO_NODE)
            except Unsayable as reason:
                failed(reason)
        template.write(self.tree.parts)
        return names, template

    def _types_of(self, child: FilePath) -> dict[str, Type]:
        """The types of the inputs of a used view; none if that view cannot be read."""
        if child not in self.known:
            self.known[child] = {}
            try:
                source = SourceText(child.as_posix(), child.read_bytes())
                view = _View(
                    source, read_view(source), _class_of(child), Workspace(child), self.known
                )
                self.known[child] = view.merged().types
            except (NotAFile, Unfolded, OSError):
                pass
        return self.known[child]

    # -- what the view is given ----------------------------------------------------------

    def _declared(self, names: Names) -> None:
        if self.own is not None:
            names.inputs.update(
                {
                    name: Input(one.name, one.type, one.default)
                    for name, one in self.own.inputs.items()
                }
            )
            names.strict = True
            for name, node in self.own.values.items():
                names.computed[name] = partial(names.reader.read, node)
        for mark in self.tree.marks:
            if mark.kind == "directive" and mark.name == "props" and mark.given is not None:
                names.strict = True
                self._props(
                    expression_in(self.source.data[slice(*mark.given)], mark.given[0]), names
                )

    def _props(self, node: PhpNode, names: Names) -> None:
        """The inputs of `@props`: names, and names with their defaults."""
        if node.type != "array_creation_expression":
            raise names.reader.unsaid(node)
        for one in node.named:
            key = names.reader.read(one.named[0])
            if not isinstance(key, Constant) or not isinstance(key.value, str):
                raise names.reader.unsaid(one)
            if len(one.named) == 1:
                names.inputs[key.value] = Input(key.value)
                continue
            default = names.reader.read(one.named[1])
            names.inputs[key.value] = Input(key.value, refined(ANY, default), default)

    def _code(self, names: Names) -> None:
        """Values that code of the view sets, before any markup."""
        shown = next(
            (
                part.start
                for part in self.tree.parts
                if not isinstance(part, Mark) and self._shows(part.start, part.end)
            ),
            1 << 60,
        )
        for mark in self.tree.marks:
            is_code = mark.kind == "code" or (mark.kind == "directive" and mark.name == "php")
            if not is_code or mark.given is None:
                continue
            root = parsed(self.source.data[slice(*mark.given)] + b"\n;", mark.given[0])
            for one in root.named:
                self._statement(one, mark, shown, names)

    def _shows(self, start: int, end: int) -> bool:
        text = self.source.slice(start, end)
        return bool(text.strip()) and not re.fullmatch(r"\s*<!--.*-->\s*", text, re.DOTALL)

    def _statement(self, node: PhpNode, mark: Mark, shown: int, names: Names) -> None:
        if node.type in ("namespace_use_declaration", "empty_statement"):
            return
        inner = node.named[0] if node.type == "expression_statement" and node.named else node
        if inner.type != "assignment_expression" or mark.start > shown:
            raise names.reader.unsaid(node)
        left, right = inner.part("left"), inner.part("right")
        name = left.text[1:]
        if left.type != "variable_name" or name in names.computed or name in names.inputs:
            raise names.reader.unsaid(node, ", a value that is set again")
        names.computed[name] = partial(names.reader.read, right)


def _raise(reason: Unsayable) -> None:
    raise reason


def _pass_over(reason: Unsayable) -> None:
    return


_NO_NODE = expression_in(b"null", 0)


def _unit(source: SourceText) -> str:
    """The indentation of a template: that of its first line that has one."""
    found = re.search(rb"\n([ \t]+)\S", source.data)
    return found[1].decode() if found is not None and len(found[1]) <= 4 else "  "


def _indented(pieces: list[tuple[str, int]], unit: str) -> list[tuple[str, int]]:
    """A template one level to the right, but for its first line."""
    return [(re.sub(r"\n(?=[^\n])", f"\n{unit}", text), at) for text, at in _at_breaks(pieces)]


def _at_breaks(pieces: list[tuple[str, int]]) -> list[tuple[str, int]]:
    """Pieces joined at line breaks, so that each line is indented as a whole."""
    found: list[tuple[str, int]] = []
    for text, at in pieces:
        if found and found[-1][0].endswith("\n") and not text.startswith("\n"):
            found[-1] = (found[-1][0] + text, found[-1][1])
        else:
            found.append((text, at))
    return found
