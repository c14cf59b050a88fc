"""The names of the flat form: what was apart on the instance meets in one scope here.

A name stays as its author wrote it unless it would hide, or be hidden by, another. A local that hides a
member its function uses is renamed; a member that meets an import or the world is.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.code import Builtin, FieldUse, Member
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import (
    Derived,
    Injected,
    InstanceField,
    Method,
    Reaction,
    Reducer,
)
from clean_carry.component.model import Component
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.naming import Edits
from clean_carry.syntaxes.single_file.names import ELEMENTS, camel, pascal

# Names under which a script gets parts of the runtime, and other names where those are taken.
HELPERS = {
    "props": "ownProps",
    "emit": "emitEvent",
    "slots": "ownSlots",
    "attrs": "ownAttrs",
    "proxy": "ownProxy",
    "created": "whenCreated",
}


@dataclass
class FlatNames:
    """Names chosen: of members and of helpers, and new text where a local or a name of the template
    is renamed."""

    edits: Edits
    members: dict[Member, str] = field(default_factory=dict)
    helpers: dict[str, str] = field(default_factory=dict)
    taken: set[str] = field(default_factory=set)

    def of(self, member: Member) -> str:
        """The name of a member."""
        return self.members.get(member, member.name)

    def helper(self, name: str) -> str:
        """The local name of a helper, or of something imported from the runtime."""
        if name not in self.helpers:
            wish = name
            if name in self.taken:
                other = HELPERS.get(name, f"use{pascal(name)}")
                wish = other if other not in self.taken else f"{other}Here"
            self.helpers[name] = wish
            self.taken.add(wish)
        return self.helpers[name]


class NamesMeet(Exception):
    """Two names that cannot stand in one scope: the name, and where."""

    def __init__(self, name: str, at: int) -> None:
        super().__init__(name)
        self.name, self.at = name, at


def name_members(
    component: Component, reserved_words: frozenset[str], ledger: Ledger, runtime: int
) -> FlatNames:
    """Choose the names of everything that stands at the top of the script.

    While it tells what went wrong, version 3 lets nobody write on the instance what is named like
    something in the script: what others write is named apart there. Raises `NamesMeet` where a name
    the template uses would mean something else.
    """
    chosen = FlatNames(Edits(ledger))
    props = (
        {prop.name for prop in component.inputs.props}
        | component.foreign.mixed_props
        | component.foreign.mixed
    )
    props |= {name for name, _ in component.foreign.open_names}
    in_scope = {m.name for m in component.methods() if m.prefix == "module"}
    module = component.facts.module_names
    world = component.facts.reserved - in_scope
    chosen.taken |= reserved_words | module | world | props
    chosen.taken |= component.foreign.opened.written if runtime >= 3 else set()
    for tag in component.view.tags - ELEMENTS:
        # A tag means what the script calls so.
        chosen.taken |= {tag, camel(tag), pascal(tag)}
    for name in component.foreign.prelude_names:
        if name in chosen.taken - props:
            raise NamesMeet(name, component.span.start)
        chosen.taken.add(name)
    own = list(_members(component))
    # A variable named like a reference to an element would be set to that element.
    known = {member.name for member in own if member.kind == "element"}
    chosen.taken |= {name for name, _ in component.view.element_names} - known
    by_name = any(name == "$refs" for name, _, _, _ in component.view.names) or any(
        isinstance(operation, Builtin) and operation.name == "$refs"
        for _, operation in component.operations()
    )
    for member in own:
        if member.kind == "method" and member.name in in_scope:
            chosen.members[member] = member.name
            continue
        if member.kind == "element" and member.name in props:
            # It is asked of the instance, under the name others may know it by.
            continue
        name = next(n for n in _wishes(member) if n not in chosen.taken and is_identifier(n))
        if (
            member.kind == "element"
            and name != member.name
            and (by_name or component.foreign.mixed)
        ):
            raise NamesMeet(member.name, component.span.start)
        chosen.members[member] = name
        chosen.taken.add(name)
    return chosen


def free_imports(chosen: FlatNames, component: Component, names: Names) -> None:
    """Rename imports that an input is named like: a template would take the import for it.

    Raises `NamesMeet` where the name is no import.
    """
    props = (
        {prop.name for prop in component.inputs.props}
        | component.foreign.mixed_props
        | component.foreign.mixed
    )
    used = {name for name, _, _, _ in component.view.names}
    for name in sorted(props & used & component.facts.module_names):
        binding = names.module.names[name]
        handed_on = any(
            r.parent and r.parent.type == "export_specifier" for r in binding.references
        )
        if binding.kind != "import" or handed_on:
            raise NamesMeet(name, component.span.start)
        other = f"{name}Imported"
        chosen.taken.add(other)
        source, above = names.tree.source, binding.node.parent
        if above is not None and above.type == "import_specifier" and above.child("alias") is None:
            span = source.span(binding.node.start, binding.node.end)
            chosen.edits.add(span, f"{name} as {other}")
        else:
            chosen.edits.add(source.span(binding.node.start, binding.node.end), other)
        for node in binding.references:
            short = node.type.startswith("shorthand_property_identifier")
            text = f"{name}: {other}" if short else other
            chosen.edits.add(source.span(node.start, node.end), text)


def _members(component: Component) -> Iterator[Member]:
    given = {name for name, _ in component.view.element_names}
    for name in dict.fromkeys(_referred(component)):
        if name in given:
            yield Member("element", name)
    for state in component.state.fields or () if component.state is not None else ():
        yield Member("state", state.name)
    for part in component.members:
        match part:
            case Derived(name=name):
                yield Member("derived", name)
            case Method(name=name) if not name.endswith("="):
                yield Member("method", name)
            case Reducer(dispatch=name):
                yield Member("method", name)
            case Injected(name=name):
                yield Member("injected", name)
            case InstanceField(name=name, element=element):
                yield Member("element" if element else "field", name)
    for name in component.foreign.plain_fields:
        yield Member("field", name)


def _referred(component: Component) -> Iterator[str]:
    for owner, operation in component.operations():
        if owner != "drawing" and isinstance(operation, FieldUse):
            if operation.member.kind == "element":
                yield operation.member.name


def _wishes(member: Member) -> Iterator[str]:
    name = camel(member.name.lstrip("_")) if member.kind in ("element", "field") else member.name
    yield name
    cap = name[:1].upper() + name[1:]
    other = {
        "element": f"{name}Ref",
        "method": f"own{cap}",
        "injected": f"given{cap}",
    }.get(member.kind, f"{name}Value")
    yield other
    number = 2
    while True:
        yield f"{other}{number}"
        number += 1


def rename(chosen: FlatNames, component: Component) -> None:
    """New text in the template for members that got another name; what names the instance goes."""
    for span in component.view.holders:
        chosen.edits.add(span, "", "template-by-name")
    for member, name in chosen.members.items():
        if name == member.name:
            continue
        if member.kind == "element":
            for given, span in component.view.element_names:
                if given == member.name:
                    chosen.edits.add(span, name)
        elif member.kind != "field":
            for given, span, _, short in component.view.names:
                if given == member.name:
                    chosen.edits.add(span, f"{given}: {name}" if short else name)


def type_watchers(chosen: FlatNames, component: Component, source: SourceText) -> None:
    """Add types to watchers' parameters: any type in the object form, that of the source in the
    flat form."""
    for part in component.members:
        spans = part.handler.untyped if isinstance(part, Reaction) and part.handler else ()
        for span in spans:
            text, entry, rule = chosen.edits.texts.pop(span, ("", -1, ""))
            chosen.edits.add(
                span, f"{text or source.slice(span.start, span.end)}: any", "typed-any"
            )
            if entry >= 0:
                chosen.edits.ledger.settle(entry, "carried", rule)
