"""The crossing within the single-file family: object form to flat form."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.code import Assign, Emit, MethodCall, MethodValue, Operation, Read
from clean_carry.component.fragment import Fragment, copy, joined, new, render, settle
from clean_carry.component.interface import Interface
from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import Markup, SlotOutlet, children_of
from clean_carry.component.model import Component, Refusal
from clean_carry.component.result import NewFile
from clean_carry.component.spans import Span
from clean_carry.crossing.naming import RESERVED
from clean_carry.crossing.outcome import (
    Excluded,
    beside,
    fixed_ranges,
    orphaned_comments,
    script_style,
)
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX
from clean_carry.syntaxes.single_file_flat.write import FlatWriter
from clean_carry.syntaxes.single_file_object.read import ObjectFile, read

RUNTIME = "vue"


@dataclass
class FlatOutcome:
    """A single file whose object became statements."""

    tree: Tree
    fragment: Fragment
    unit: str
    carried: tuple[Component, ...]
    refused: tuple[Refusal, ...]

    def settle(self, ledger: Ledger) -> None:
        """Settle and close the ledger."""
        settle(self.fragment, ledger)

    def files(self, source: SourceText) -> tuple[NewFile, ...]:
        """The one file: `X.flat.vue` for `X.vue`."""
        if not self.carried:
            return ()
        text = render(self.fragment, source.slice, self.unit, fixed_ranges(self.tree))
        path = beside(source.path, SYNTAX.suffix)
        return (NewFile(path, text, source.encode(text)),)

    def interface(self, component: Component) -> Interface:
        """Everything keeps its name."""
        return Interface(
            tuple((prop.name, prop.name) for prop in component.props),
            tuple((event, event) for event in component.events),
            tuple((name, name) for name in slot_names(component.markup)),
        )

    def notes(self, component: Component) -> list[tuple[str, str, int]]:
        """The instance is no longer open: members that a parent could reach by reference."""
        names = [m.name for m in component.methods()]
        if not names:
            return []
        return [("members-closed", ", ".join(names), component.span.start)]


def slot_names(markup: tuple[Markup, ...]) -> list[str]:
    """The names of the slots a template has, in source order, each once."""
    found: dict[str, None] = {}
    for node in markup:
        if isinstance(node, SlotOutlet):
            found.setdefault(node.name)
        found.update(dict.fromkeys(slot_names(children_of(node))))
    return list(found)


def carry_object_file(
    source: SourceText, ledger: Ledger, path: Path, runtime: int, excluded: Excluded
) -> FlatOutcome:
    """Read the object of a file and write its statements; raises `InputError`."""
    file = read(source, ledger)
    component = file.module.components[0] if file.module.components else None
    refusal = file.module.refusals[0] if file.module.refusals else None
    if component is not None:
        refusal = _excluded(component, excluded) or _meeting_names(component)
    style = script_style(file.tree)
    if component is None or refusal is not None:
        refused = (refusal,) if refusal is not None else ()
        for entry in ledger.entries:
            entry.outcome, entry.rule = "kept", ""
        whole = copy(source.span(0, len(source.data)))
        return FlatOutcome(file.tree, whole, style.unit, (), refused)
    writer = FlatWriter(component, source, style.unit, style.semicolon)
    written = writer.write()
    fragment = _assembled(file, source, component, written, writer, style.quote)
    orphans = orphaned_comments(fragment, ledger, component.span)
    if orphans:
        handed_on = joined((copy(span) + new("\n") for span in orphans), "")
        fragment = _assembled(file, source, component, handed_on + written, writer, style.quote)
    _keep_template(ledger, file, component)
    return FlatOutcome(file.tree, fragment, style.unit, (component,), ())


def _excluded(component: Component, excluded: Excluded) -> Refusal | None:
    if component.span.start not in excluded:
        return None
    rule, detail, at = excluded[component.span.start]
    return Refusal(component.name, rule, detail, at)


def _assembled(
    file: ObjectFile,
    source: SourceText,
    component: Component,
    written: Fragment,
    writer: FlatWriter,
    quote: str,
) -> Fragment:
    script = file.script
    tag_end = script.start + len("<script")
    inner = script.inner[0]
    result = copy(source.span(0, tag_end)) + new(" setup") + copy(source.span(tag_end, inner))
    at = inner
    if writer.helpers:
        names = ", ".join(sorted(writer.helpers))
        line = f"import {{ {names} }} from {quote}{RUNTIME}{quote}{writer.semicolon}\n"
        if source.data[inner : inner + 1] == b"\n":
            at = inner + 1
            result += copy(source.span(inner, at))
        first = file.tree.root.named_children[0]
        if first.type != "import_statement":
            line += "\n" * (source.data[at : at + 1] != b"\n")
        result += new(line)
    end = component.span.end
    if source.data[end : end + 1] == b";":
        end += 1
    return (
        result
        + copy(source.span(at, component.span.start))
        + written
        + copy(source.span(end, len(source.data)))
    )


def _keep_template(ledger: Ledger, file: ObjectFile, component: Component) -> None:
    """The template, and the declarations copied whole, are kept with all in them."""
    whole = [*component.option_values.values()]
    if file.template is not None:
        whole.append(Span(file.template.start, file.template.end, ledger.file))
    for entry in ledger.entries:
        if entry.notion == "file" or any(span.holds(entry.span) for span in whole):
            entry.outcome = "kept"


def _meeting_names(component: Component) -> Refusal | None:
    """A name that would hide another in the one scope of the flat form."""
    named: dict[str, str] = {}
    fields = component.state.fields or () if component.state is not None else ()
    own = [d.name for d in component.derived] + [m.name for m in component.methods()]
    own += [f.name for f in fields]
    taken = RESERVED | component.module_names | {"props", "emit", "ref", "computed", "watch"}
    for name in own:
        if name in taken or name in named:
            return Refusal(component.name, "names-meet", name, component.span.start)
        named[name] = name
    if component.events and "emits" not in component.entries:
        return Refusal(component.name, "events-undeclared", "", component.span.start)
    for owner, operation in component.operations():
        if owner == "drawing":
            continue
        if isinstance(operation, Emit) and "emits" not in component.entries:
            return Refusal(
                component.name, "events-undeclared", operation.event, operation.span.start
            )
        spelled = _spelled(operation)
        if any(key == spelled for key, _ in component.locals_at.get(operation.entry, ())):
            return Refusal(component.name, "names-meet", spelled, operation.span.start)
    return None


def _spelled(operation: Operation) -> str:
    """The name an operation begins with in the flat form."""
    match operation:
        case Read(member=member):
            return "props" if member.kind == "prop" else member.name
        case Assign(member=member) | MethodCall(member=member) | MethodValue(member=member):
            return member.name
        case Emit():
            return "emit"
    return ""
