"""A script whose directives become components, and the templates that change with them."""

from __future__ import annotations

import os
import posixpath
from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.component.fragment import Fragment, new
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Elsewhere, Prop, Refusal
from clean_carry.component.replacements import Replacements
from clean_carry.component.spans import Span
from clean_carry.source.javascript.script_style import ScriptStyle, fixed_ranges, script_style
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Excluded, Fitted
from clean_carry.syntaxes.controller_component.controller_arguments import Sharing, Style
from clean_carry.syntaxes.controller_component.names import name_members
from clean_carry.syntaxes.controller_component.one_way import OneWay
from clean_carry.syntaxes.controller_component.outside_scope_reads import (
    asked_in_tests,
    reached_scope,
)
from clean_carry.syntaxes.controller_component.preflight import preflight
from clean_carry.syntaxes.controller_component.syntax import SYNTAX
from clean_carry.syntaxes.controller_component.template import template_edits
from clean_carry.syntaxes.controller_component.uses import uses_in_code, uses_in_templates
from clean_carry.syntaxes.controller_component.write import ComponentWriter
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.scoped_template.model import Directive, DirectiveFile, NotRead
from clean_carry.syntaxes.scoped_template.templates import Template
from clean_carry.syntaxes.written import NewText, Note, Written, beside, unchanged


@dataclass
class OtherFile:
    """A file beside the script: a template, or another script that caches templates."""

    source: SourceText
    ledger: Ledger
    edits: Replacements
    path: Path
    url: str

    def fragment(self) -> Fragment:
        """The file's new text."""
        return self.edits.text(0, len(self.source.data))


def _shown(path: Path, file: Path, shown: str) -> str:
    """The path of another file as one is shown that is named as `shown`."""
    inside = os.path.relpath(path.resolve(), file.resolve().parent)
    return posixpath.normpath(posixpath.join(posixpath.dirname(shown), Path(inside).as_posix()))


def write_file(fitted: Fitted) -> Written:
    """Write the directives of a file that can be as components: `X.component.js` for `X.js`."""
    return _Script(fitted).written()


class _Script:
    """A script whose directives become components, and the templates that change with them."""

    def __init__(self, fitted: Fitted) -> None:
        self.file: DirectiveFile = fitted.file
        self.source, self.ledger, self.workspace = self.file.source, fitted.ledger, fitted.workspace
        self.style = script_style(self.file.tree, fitted.workspace.file)
        self.refused = list(self.file.refusals)
        self.chosen = self._chosen(fitted.excluded)
        self.edits = Replacements(self.source.path, fitted.ledger)
        self.others: dict[Path, OtherFile] = {}
        self.notes: dict[int, list[Note]] = {}

    def _chosen(self, excluded: Excluded) -> list[Directive]:
        """Return the directives to carry; report why the others are not."""
        chosen: list[Directive] = []
        for directive in self.file.directives:
            at = directive.definition.registration.at
            if at in excluded:
                self.refused.append(Refusal(directive.name, *excluded[at]))
                continue
            reason = _outside(self.workspace.file, self.source, directive)
            reason = reason or _tried(self.file, directive, self.style, self.workspace.one_way)
            if reason is None:
                chosen.append(directive)
            else:
                self.refused.append(reason)
        self.refused += _shared(chosen, self.file)
        lost = {refusal.name for refusal in self.refused}
        return [directive for directive in chosen if directive.name not in lost]

    def written(self) -> Written:
        """The script, and a new template beside each that changed."""
        file, edits, ledger = self.file, self.edits, self.ledger
        one_way = self.workspace.one_way
        writers = [_writer(file, d, edits, self.style, ledger, one_way) for d in self.chosen]
        for writer in writers:
            _templates(writer.directive, writer, edits, self.others, ledger)
            writer.spell()
        carried = [self._assembled(writer) for writer in writers]
        _claim_comments(file, ledger, carried)
        if not carried:
            return unchanged(self.source, ledger, tuple(self.refused))
        source = self.source
        script = NewText(
            beside(source.path, SYNTAX.suffix), edits.text(0, len(source.data)), source, ledger,
            self.style.unit, fixed_ranges(file.tree),
        )  # fmt: skip
        return Written(
            (script, *(self._other(other) for other in self.others.values())),
            tuple(carried),
            tuple(self.refused),
            {c.span.start: _interface(w.directive) for c, w in zip(carried, writers, strict=True)},
            self.notes,
        )

    def _assembled(self, writer: ComponentWriter) -> Component:
        """Put a component together where its directive stood, and change the templates that use it."""
        directive, file = writer.directive, self.workspace.file
        writer.assemble()
        told = _uses(directive, file, self.others, writer, self.chosen)
        members = {*directive.scope.members(), *directive.bindings}
        tests = asked_in_tests(file, directive.name, members)
        told = [*told, *(("test-asks-scope", *place) for place in tests)]
        at = directive.definition.registration.at
        read = next(c for c in self.file.components if c.span.start == at)
        component = replace(
            read, facts=replace(read.facts, elsewhere=tuple(Elsewhere(*one) for one in told))
        )
        if writer.outer:
            props = tuple(Prop(name, kind="<") for name in writer.outer)
            inputs = replace(component.inputs, props=(*component.inputs.props, *props))
            component = replace(component, inputs=inputs)
            writer.notes.append(("names-bound", ", ".join(writer.outer), at))
        checked = preflight(directive, writer.outer, self.workspace.prefix)
        self.notes[at] = [*writer.notes, *_notes(directive), *checked]
        return component

    def _other(self, other: OtherFile) -> NewText:
        path = _shown(other.path, self.workspace.file, self.source.path)
        return NewText(
            beside(path, SYNTAX.suffix), other.fragment(), other.source, other.ledger,
            edits=other.edits,
        )  # fmt: skip


def _outside(file: Path, source: SourceText, directive: Directive) -> Refusal | None:
    """Report uses in the project's other code and templates that a component cannot serve."""
    at = directive.definition.registration.at
    members = {*directive.scope.members(), *directive.bindings}
    reached = reached_scope(file, source, directive.name, members)
    if reached is not None:
        detail, place = reached
        return Refusal(directive.name, "scope-reached", detail, place if place >= 0 else at)
    if "E" in directive.definition.restrict:
        return None
    uses = list(uses_in_templates(file, directive.name))
    if not uses:
        return Refusal(directive.name, "attribute-box", dashed(directive.name), at)
    return None


def _writer(
    file: DirectiveFile,
    directive: Directive,
    edits: Replacements,
    style: ScriptStyle,
    ledger: Ledger,
    one_way: bool,
) -> ComponentWriter:
    declare = "const" if file.tree.of("lexical_declaration") else "var"
    name = directive.definition.registration.call.child("arguments")
    quote = name.named_children[0].text[:1] if name is not None else style.quote
    own = Style(
        style.unit, quote if quote in "'\"" else style.quote, declare, style.semicolon, _space(file)
    )
    writer = ComponentWriter(file, directive, edits, own, ledger, _sharing(directive, file))
    if one_way:
        writer.one_way = OneWay(writer, edits)
    return writer


def _space(file: DirectiveFile) -> str:
    """Return the space that most functions of a file have between the word and their parameters."""
    data = file.source.data
    return " " if data.count(b"function (") > data.count(b"function(") else ""


def _tried(
    file: DirectiveFile, directive: Directive, style: ScriptStyle, one_way: bool
) -> Refusal | None:
    """Write it once into nothing: what cannot be carried says so before anything else is decided."""
    scratch = Ledger(file.source.path, file.source.data, SYNTAX.drops)
    edits = Replacements(file.source.path, scratch)
    try:
        writer = _writer(file, directive, edits, style, scratch, one_way)
        _templates(directive, writer, edits, {}, scratch)
        writer.spell()
        writer.assemble()
    except NotRead as reason:
        return Refusal(directive.name, reason.rule, reason.detail, reason.at)
    return None


def _sharing(directive: Directive, file: DirectiveFile) -> Sharing | None:
    """Return the directive that shares its controller, None if it has it alone."""
    name = directive.controller.name
    if directive.controller.form == "closed" and name:
        return Sharing(directive.bindings, False)
    if directive.controller.form != "registered" or len(file.controllers.get(name, ())) < 2:
        return None
    others = [d for d in file.directives if d.controller.name == name]
    bindings = {key: binding for other in others for key, binding in other.bindings.items()}
    return Sharing(bindings, others[0] is directive)


def _shared(chosen: list[Directive], file: DirectiveFile) -> list[Refusal]:
    """Directives that share a controller are carried together, with the same names, or not at all."""
    found: list[Refusal] = []
    names = {directive.name for directive in chosen}
    for directive in chosen:
        sharing = file.controllers.get(directive.controller.name, [])
        if directive.controller.form != "registered" or len(sharing) < 2:
            continue
        others = [d for d in file.directives if d.name in sharing]
        renamed = [name_members(d).renamed for d in others if d.name in names]
        if not names.issuperset(sharing) or any(one != renamed[0] for one in renamed):
            at = directive.definition.options["controller"].whole.start
            found.append(
                Refusal(directive.name, "controller-shared", directive.controller.name, at)
            )
    return found


def _templates(
    directive: Directive,
    writer: ComponentWriter,
    edits: Replacements,
    others: dict[Path, OtherFile],
    ledger: Ledger,
) -> None:
    """Spell the templates anew, each where it stands; one with a file of its own gets a new file."""
    at = directive.definition.registration.at
    for template, found in directive.templates:
        changes = list(template_edits(directive, template, found, writer.members, at))
        if writer.one_way is not None:
            changes += writer.one_way.in_template(template, found)
        if not changes:
            continue
        if template.file is None or str(template.file) == edits.file:
            for start, end, text, rule in changes:
                edits.spell(template.place(start), template.place(end), text, "template-name", rule)
            continue
        other = others.get(template.file)
        if other is None:
            source = template.source if not template.places else SourceText.read(template.file)
            own = Ledger(source.path, source.data, ledger.drops)
            other = OtherFile(
                source, own, Replacements(source.path, own), template.file, template.url
            )
            others[template.file] = other
            if not template.places:
                _new_url(template, edits)
        for start, end, text, rule in changes:
            other.edits.spell(
                template.place(start), template.place(end), text, "template-name", rule
            )


def _uses(
    directive: Directive,
    file: Path,
    others: dict[Path, OtherFile],
    writer: ComponentWriter,
    chosen: list[Directive],
) -> list[tuple[str, str, int]]:
    """Change the templates that use it: as an element, with what it took from their scope bound.

    Uses that cannot be rewritten are reported: rule, file, line.
    """
    told: list[tuple[str, str, int]] = []
    name, outer = directive.name, writer.outer
    events = writer.one_way.written if writer.one_way is not None else {}
    holders = {
        t.file: other.holder for other in chosen for t, _ in other.templates if t.file is not None
    }
    for use in uses_in_templates(file, name):
        bound, unbound = use.told(events)
        told += [("use-left", use.source.path, use.line)] * unbound
        if use.attribute is None and not outer and not bound:
            continue
        if not use.can_change:
            told.append(("use-left", use.source.path, use.line))
            continue
        other = others.get(use.path)
        if other is None:
            own = Ledger(use.source.path, use.source.data, SYNTAX.drops)
            other = OtherFile(use.source, own, Replacements(use.source.path, own), use.path, "")
            others[use.path] = other
        holder = f"{holders[use.path]}." if use.path in holders else ""
        taken = {n: f"{holder}{n}" for n in outer}
        for start, end, text in (*bound, *use.edits(name, taken)):
            if not other.edits.has(start, end):
                other.edits.spell(start, end, text, "use", "use-as-element")
    told += [("use-left", str(path), line) for path, line in uses_in_code(file, name)]
    return told


def _new_url(template: Template, edits: Replacements) -> None:
    """Return the definition's URL of the new template."""
    for literal in template.named:
        if literal.text_of.path != edits.file:
            at = template.named[0].start
            raise NotRead("template-unread", "its name stands in another file", at)
        stem, dot, _ = literal.text[1:-1].rpartition(".")
        at = literal.start + 1 + len((stem + dot).encode())
        edits.put(at, at, new(f"{SYNTAX.suffix}."))


def _interface(directive: Directive) -> InterfaceMap:
    bindings = directive.bindings.values()
    slots = dict.fromkeys(s for _, names in directive.templates for s in names.slots)
    return interface_of(
        tuple((b.attribute, b.attribute) for b in bindings if b.kind != "&"),
        tuple((b.attribute, b.attribute) for b in bindings if b.kind == "&"),
        tuple((name, name) for name in slots),
    )


def _notes(directive: Directive) -> list[tuple[str, str, int]]:
    """How its use changes."""
    definition = directive.definition
    at = definition.registration.at
    found = []
    if "E" not in definition.restrict:
        found.append(("used-as-element", f"<{dashed(definition.name)}>", at))
    if definition.true("replace"):
        found.append(("element-stays", f"<{dashed(definition.name)}>", at))
    return found


def _claim_comments(file: DirectiveFile, ledger: Ledger, carried: list[Component]) -> None:
    for comment in file.tree.comments:
        if any(c.span.start <= comment.start < c.span.end for c in carried):
            ledger.claim("comment", Span(comment.start, comment.end, file.source.path), "kept")
