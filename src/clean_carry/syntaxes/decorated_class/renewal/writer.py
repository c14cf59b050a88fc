"""Writes a decorated class in the newer notation: its script, and its template where that is a file."""

from __future__ import annotations

import re
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.component.fragment import Fragment, new
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal
from clean_carry.source.javascript.script_style import script_style
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.decorated_class.markup_of import TemplateText, template_of, written_names
from clean_carry.syntaxes.decorated_class.members import Members, read_members
from clean_carry.syntaxes.decorated_class.recognise import Decorated, decorated_in, property_of
from clean_carry.syntaxes.decorated_class.renewal.alone import (
    Needed,
    StaysDeclared,
    needed_alone,
)
from clean_carry.syntaxes.decorated_class.renewal.code import class_edits, host_edits
from clean_carry.syntaxes.decorated_class.renewal.imports import (
    alone_edits,
    import_edits,
    needed_of_template,
)
from clean_carry.syntaxes.decorated_class.renewal.names import Renewed, renewed_in
from clean_carry.syntaxes.decorated_class.renewal.template import TemplateRenewal
from clean_carry.syntaxes.decorated_class.scope import declaring
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.piped_expressions import Unread
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.syntaxes.written import NewText, Note, Written, beside, unchanged


def write_renewed(fitted: Fitted) -> Written:
    """Write the class of a file in the newer notation; one that cannot be written is refused."""
    file = fitted.file
    refused = list(file.refusals)
    for component in file.components:
        excluded = fitted.excluded.get(component.span.start)
        if excluded is not None:
            refused.append(Refusal(component.name, *excluded))
            continue
        try:
            return _Renewal(fitted, component).written(tuple(refused))
        except NotAFile as reason:
            refused.append(Refusal(component.name, reason.rule, reason.detail, reason.at))
    return unchanged(file.source, fitted.ledger, tuple(refused))


class _Renewal:
    def __init__(self, fitted: Fitted, component: Component) -> None:
        self.fitted, self.component = fitted, component
        self.tree, self.source = fitted.file.tree, fitted.file.source
        self.parts: frozenset[str] = fitted.file.renewing
        self.notes: list[Note] = []
        self.one: Decorated = next(
            one for one in decorated_in(self.tree) if one.name == component.name
        )

    def written(self, refused: tuple[Refusal, ...]) -> Written:
        """The new script and template, with the interface and notes. Raises `NotAFile`."""
        members = read_members(self.one, keeps=True)
        markup = template_of(self.one, self.source, self.fitted.workspace.file)
        renewed, template = self._renewed(members, markup)
        script = self._script(members, renewed, template, markup)
        files: list[NewText] = []
        if markup.inside:
            script += template.edits
        elif template.edits:
            files.append(self._template_file(markup, template.edits))
            script.append(self._named_file(files[0]))
        notes = [*renewed.stays, *self.notes]
        for rule, detail, at in template.stays:
            notes.append((rule, detail, at if markup.inside else self.one.options.start))
        ledger = self.fitted.ledger
        for entry in ledger.entries:
            if entry.outcome == "open":
                entry.outcome, entry.rule = "carried", "newer-notation"
        for edit in script:
            key = ledger.claim("notation", self.source.span(edit.start, edit.end))
            ledger.settle(key, "carried", "newer-notation")
        path = beside(self.source.path, SYNTAX.suffix)
        first = NewText(path, _whole(self.source, script), self.source, ledger)
        start = self.component.span.start
        interfaces = {start: self._interface(members)}
        return Written((first, *files), (self.component,), refused, interfaces, {start: notes})

    def _renewed(self, members: Members, markup: TemplateText) -> tuple[Renewed, TemplateRenewal]:
        """The members that change, and the edits of the template. Raises `NotAFile`."""
        try:
            renewed = renewed_in(self.one, members, self.tree, set(written_names(markup)))
            self._restrict(renewed)
            blocks = "blocks" in self.parts
            template = TemplateRenewal(markup.source, set(renewed.called), self._unit, blocks)
            template.run(markup.start, markup.end)
        except Unread as reason:
            at = reason.at if markup.inside else self.one.options.start
            raise NotAFile("template-unread", reason.what, at) from None
        except InputError as error:
            raise NotAFile("template-unread", str(error), self.one.options.start) from None
        return renewed, template

    def _restrict(self, renewed: Renewed) -> None:
        """Leave members as they are if their notation is not to be renewed."""
        if "inputs" not in self.parts:
            renewed.inputs.clear()
        if "outputs" not in self.parts:
            renewed.outputs.clear()
        if "queries" not in self.parts:
            renewed.queries.clear()
        if "injection" not in self.parts:
            renewed.services.clear()

    def _script(
        self,
        members: Members,
        renewed: Renewed,
        template: TemplateRenewal,
        markup: TemplateText,
    ) -> list[Edit]:
        """The edits of the class and of its imports."""
        text = _applied(markup.source, markup.start, markup.end, template.edits)
        edits = list(class_edits(self.one, renewed, self.tree))
        try:
            edits += host_edits(members, template)
        except Unread as reason:
            raise NotAFile("template-unread", reason.what, self.one.options.start) from None
        # The decorator's list of imports is written anew: what stands in it uses nothing.
        listed = property_of(self.one.options, "imports")
        blank = [Edit(listed.start, listed.end, "[]")] if listed is not None else []
        code = "".join(
            _applied(self.source, node.start, node.end, [*edits, *blank])
            for node in self.tree.root.children
            if node.type != "import_statement"
        )
        used = {
            name
            for name in ("input", "output", "inject", "viewChild")
            if re.search(rf"(?<![\w$.]){name}(?:\.required)?[<(]", code)
        }
        needed = needed_of_template(text, template.directives)
        alone = "imports" in self.parts
        more = self._needed_alone(markup) if alone else None
        if more is not None:
            found = alone_edits(self.one, self.tree, used, code, needed, more)
        else:
            found = import_edits(self.one, self.tree, used, code, needed, listed_too=alone)
        return [*edits, *found]

    def _needed_alone(self, markup: TemplateText) -> list[Needed] | None:
        """The imports of a declared class that is to stand alone; None where it does, or cannot yet."""
        try:
            if not self.fitted.workspace.beside and declaring(
                self.one.name, self.fitted.workspace.file, self.fitted.workspace
            ):
                raise StaysDeclared("its module declares it; `switch` changes that for a new file")
            return needed_alone(self.one, self.tree, self.fitted.workspace, markup)
        except StaysDeclared as reason:
            at = self.one.options.start
            self.notes.append(("class-stays-declared", reason.why, at))
            return None

    @property
    def _unit(self) -> str:
        return script_style(self.tree, self.fitted.workspace.file).unit

    def _interface(self, members: Members) -> InterfaceMap:
        inputs = [(one.public, one.public) for one in members.inputs]
        events = [(one.public, one.public) for one in members.outputs]
        return interface_of(inputs, events)

    def _template_file(self, markup: TemplateText, edits: list[Edit]) -> NewText:
        ledger = Ledger(markup.source.path, markup.source.data, SYNTAX.drops)
        entry = ledger.claim("template", markup.source.span(0, len(markup.source.data)))
        ledger.entries[entry].outcome = "carried"
        ledger.entries[entry].rule = "newer-notation"
        shown = Path(self.source.path).with_name(Path(markup.source.path).name).as_posix()
        path = beside(shown, SYNTAX.suffix)
        return NewText(path, _whole(markup.source, edits), markup.source, ledger)

    def _named_file(self, file: NewText) -> Edit:
        """The request of the template, which stands beside the old one."""
        for pair in self.one.options.named_children:
            key, value = pair.child("key"), pair.child("value")
            if key is not None and value is not None and key.text == "templateUrl":
                old = value.text[1:-1]
                folder = old.rpartition("/")[0]
                name = Path(file.path).name
                text = f"{value.text[0]}{folder}/{name}{value.text[0]}"
                return Edit(value.start, value.end, text)
        raise AssertionError(file.path)


def _whole(source: SourceText, edits: list[Edit]) -> Fragment:
    return new(_applied(source, 0, len(source.data), edits))


def _applied(source: SourceText, start: int, end: int, edits: list[Edit]) -> str:
    parts, here = [], start
    for edit in sorted(edits, key=lambda one: (one.start, one.end)):
        if edit.start < here or edit.end > end:
            continue
        parts += [source.slice(here, edit.start), edit.text]
        here = edit.end
    return "".join([*parts, source.slice(here, end)])
