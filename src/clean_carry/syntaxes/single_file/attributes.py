"""Attributes of a template as attributes of the neutral markup."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from clean_carry.component.code import Changed, Code
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    ClassList,
    Form,
    Handler,
    Key,
    RawHtml,
    Reference,
    Shown,
    Spread,
    StaticAttribute,
    TwoWay,
)
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.syntaxes.single_file.expressions import is_handler
from clean_carry.syntaxes.single_file.values import form_of

if TYPE_CHECKING:
    from clean_carry.syntaxes.single_file.markup import TemplateReader


@dataclass
class AttributeReader:
    """Reads the attributes of one template's elements."""

    reader: TemplateReader

    def read(
        self, node: TemplateNode, skip: tuple[TemplateAttribute, ...], *, component: bool
    ) -> tuple[Attribute, ...]:
        """The attributes of an element."""
        found: list[Attribute] = []
        for attribute in node.attributes:
            if attribute in skip:
                continue
            read = self._attribute(attribute, node, component=component)
            if read is not None:
                found.append(read)
        return tuple(found)

    def key(self, attribute: TemplateAttribute, code: Code) -> Key:
        """Return the key of a list's element."""
        return Key(code, self.reader.claim("key", attribute.start, attribute.end))

    def _attribute(
        self, attribute: TemplateAttribute, node: TemplateNode, *, component: bool
    ) -> Attribute | None:
        reader = self.reader
        entry = reader.claim("attribute", attribute.start, attribute.end)
        name, value = attribute.name, attribute.value
        if is_handler(attribute):
            event = name.partition(":")[2] if name.startswith("v-on:") else name[1:]
            return self._handler(attribute, event, entry)
        if name.startswith((":", "v-bind:")):
            return self._bound(attribute, name.partition(":")[2], entry)
        at = value[0] if value is not None else -1
        match name.partition(".")[0].partition(":")[0]:
            case "v-bind" if value is not None:
                return Spread(reader.value(at), entry)
            case "v-on" if value is not None and reader.neutral and _all_listeners(reader, at):
                return Spread(reader.value(at), entry)
            case "v-show" if value is not None:
                return Shown(reader.value(at), entry)
            case "v-html" if value is not None:
                return RawHtml(reader.value(at), entry)
            case "v-model" if value is not None:
                plain, *modifiers = name.split(".")
                kind = _type_of(reader, node)
                bound = reader.code.values.get(at)
                rows = reader.rows.get(bound.start, frozenset()) if bound is not None else ()
                return TwoWay(
                    reader.value(at), entry, plain.partition(":")[2], kind, tuple(modifiers),
                    tuple(sorted(rows)),
                )  # fmt: skip
            case "ref" if value is not None:
                return Reference(reader.uses.tree.source.slice(*value), None, entry)
            case "key" | "is":
                reader.refuse(name, attribute.start)
        # `scope` is a slot's on a template alone; elsewhere it is an attribute of HTML.
        slots = ("slot", "slot-scope", *(("scope",) if node.tag == "template" else ()))
        if name.startswith(("v-", "#")) or name in slots:
            reader.refuse(name, attribute.start)
            return None
        return StaticAttribute(name, reader.span(*value) if value is not None else None, entry)

    def _bound(self, attribute: TemplateAttribute, bound: str, entry: int) -> Attribute | None:
        reader, value = self.reader, attribute.value
        node = reader.code.values.get(value[0]) if value is not None else None
        if bound == "checked.prop":
            # It is set as a property with and without the modifier.
            bound = "checked"
        plain = bound.replace("-", "_").replace(":", "_").isidentifier()
        if not plain or value is None or node is None:
            reader.refuse(attribute.name, attribute.start)
            return None
        match bound:
            case "class" if node.type == "object":
                return self._classes(node, entry)
            case "key":
                return Key(reader.value(value[0]), entry)
            case "ref" | "is":
                reader.refuse(attribute.name, attribute.start)
        # Up to version 2 false takes any attribute away (the migration guide, "Attribute coercion").
        may_go = reader.version < 3
        return BoundAttribute(bound, reader.value(value[0]), reader.form(value[0]), entry, may_go)

    def _handler(self, attribute: TemplateAttribute, event: str, entry: int) -> Attribute | None:
        reader = self.reader
        event, *modifiers = event.split(".")
        at = attribute.value[0] if attribute.value is not None else -1
        statements = reader.code.handlers.get(at, ())
        if not event or not event.replace("-", "").replace(":", "").isalnum():
            reader.refuse(attribute.name, attribute.start)
            return None
        if not statements:
            if attribute.value is not None and modifiers:
                reader.refuse(attribute.name, attribute.start)
            code = Code(reader.span(attribute.end, attribute.end))
            return Handler(event, code, entry, False, tuple(modifiers))
        node = statements[0]
        plain = ("expression_statement", "parenthesized_expression")
        if len(statements) > 1 or node.type not in plain:
            span = reader.span(statements[0].start, statements[-1].end)
            return Handler(
                event, reader.uses.code(span, closing=True), entry, False, tuple(modifiers), True
            )
        while node.type in plain and node.named_children:
            node = node.named_children[0]
        function = node.is_function or node.type in ("identifier", "member_expression")
        code = reader.uses.code(reader.uses.span(node), closing=True)
        states = node.type == "sequence_expression"
        states = states or any(isinstance(one, Changed) for one in code.operations)
        return Handler(event, code, entry, function, tuple(modifiers), states)

    def _classes(self, node: Node, entry: int) -> Attribute | None:
        reader = self.reader
        items: list[tuple[str, Code, Form]] = []
        for part in node.named_children:
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if part.type == "shorthand_property_identifier":
                name, value = part.text, part
            if name is None or value is None:
                reader.refuse(part.text[:40], part.start)
                continue
            form = form_of(value, reader.forms, bare=True)
            items.append((name, _by_itself(reader.uses.code(reader.uses.span(value))), form))
        return ClassList(tuple(items), entry)


def _by_itself(code: Code) -> Code:
    """The code of a name that was the short form of an entry of an object: it stands for a value now."""
    plain = [
        replace(one, shorthand="") if hasattr(one, "shorthand") else one  # type: ignore[call-arg]
        for one in code.operations
    ]
    return replace(code, operations=tuple(plain))


def _all_listeners(reader: TemplateReader, at: int) -> bool:
    """Whether a value is what a parent listens with."""
    node = reader.code.values.get(at)
    return node is not None and node.text == "$listeners"


def _type_of(reader: TemplateReader, node: TemplateNode) -> str:
    """Return the type of an input, "?" for a computed one; `select`, `textarea` and components have
    their tags."""
    if node.attribute(":type") is not None:
        return "?"
    kind = node.attribute("type")
    text = reader.uses.tree.source.slice(*kind.value) if kind and kind.value else ""
    multiple = node.tag == "select" and node.attribute("multiple") is not None
    return "multiple" if multiple else text
