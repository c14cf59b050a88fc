"""A template as neutral markup. A construct without a row here is noted as unread: only the family
copies it."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from clean_carry.component.code import Code, Filtered, Respelled
from clean_carry.component.markup import (
    Branch,
    Condition,
    Content,
    Element,
    Expression,
    Form,
    Group,
    Loop,
    Markup,
    MarkupComment,
    Portal,
    SlotOutlet,
    Text,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.syntaxes.single_file.attributes import AttributeReader
from clean_carry.syntaxes.single_file.changes import note_change
from clean_carry.syntaxes.single_file.expressions import TemplateCode
from clean_carry.syntaxes.single_file.members import Members, add_use
from clean_carry.syntaxes.single_file.values import form_of
from clean_carry.syntaxes.uses import Build, Raw, Uses

_BRANCHES = ("v-if", "v-else-if", "v-else")
# Elements of the runtime that do more than hold what is in them.
_OWN = frozenset("transition transition-group keep-alive teleport suspense".split())
# An entity: HTML reads it as one character before the expression is read.
_ENTITY = re.compile(r"&(?:[a-zA-Z]+|#\d+|#[xX][\da-fA-F]+);")
# Names every template may use without declaring them (the runtime's list of allowed globals).
GLOBALS = frozenset(
    "Infinity undefined NaN isFinite isNaN parseFloat parseInt Math Number Date Array Object Boolean "
    "String RegExp Map Set JSON Intl BigInt Error Symbol".split()
)


@dataclass
class TemplateReader:
    """Reads one template. `forms` are what members always hold, where that is known; in `version` 2 a list
    goes before a condition at one element, later the other way round."""

    uses: Uses
    code: TemplateCode
    forms: dict[str, Form] = field(default_factory=dict)
    version: int = 3
    # The fields behind what is bound both ways, by where that stands.
    rows: Mapping[int, frozenset[str]] = field(default_factory=dict)
    neutral: bool = False
    # Inputs that are text, where no component of one's own could be meant by them.
    tag_names: frozenset[str] = frozenset()

    def __post_init__(self) -> None:
        self.attributes = AttributeReader(self)

    def claim(self, notion: str, start: int, end: int) -> int:
        """Claim a construct of the template."""
        return self.uses.ledger.claim(notion, self.span(start, end))

    def span(self, start: int, end: int) -> Span:
        """A span of the file."""
        return self.uses.tree.source.span(start, end)

    def refuse(self, detail: str, at: int) -> None:
        """Note what only the family copies."""
        self.uses.refuse("markup-unread", detail, at)

    def collect(self, members: Members, changes: Sequence[tuple[Node, str]] = ()) -> None:
        """One operation for every use of a member; names the template gives itself are none. `changes` are
        those in place: the place, the field of state."""
        for used in self.code.used:
            ref, name = used.node, used.node.text
            if used.through is not None:
                holder = self.span(used.through.start, ref.start)
                self.uses.raws.append(Raw(holder, "holder", _gone(holder)))
            root = next((up for up in ref.up() if up.parent is self.code.tree.root), ref)
            if add_use(self.uses, ref, name, members, root) or name in GLOBALS:
                continue
            self.uses.refuse("unknown-use", name, ref.start)
        for ref, name in changes:
            note_change(self.uses, ref, name)
        self.uses.sort()

    # -- nodes ----------------------------------------------------------------------------------

    def nodes(self, given: list[TemplateNode]) -> tuple[Markup, ...]:
        """Markup of sibling nodes; branches that belong together become one condition."""
        found: list[Markup] = []
        arms: list[Branch] = []
        pending: list[Markup] = []
        where = [0, 0]

        def close() -> None:
            if arms:
                found.append(Condition(tuple(arms), self.span(*where)))
            found.extend(pending)
            arms.clear()
            pending.clear()

        for node in given:
            branch = self._branch_of(node)
            if branch is not None:
                if branch.name == "v-if":
                    close()
                    where[0] = node.start
                elif not arms:
                    self.refuse(f"{branch.name} that follows no condition", branch.start)
                else:
                    # A comment between two arms stands before both.
                    if any(isinstance(p, MarkupComment) for p in pending):
                        found.extend(pending[isinstance(pending[0], Text) :])
                    pending.clear()
                arms.append(self._branch(node, branch))
                where[1] = node.end
            elif node.kind == "text" and arms and not _has_text(self, node):
                pending.append(self._text(node))
            elif node.kind == "comment" and arms:
                pending.append(self._other(node))
            else:
                close()
                found.append(self._repeated(node) if node.kind == "element" else self._other(node))
        close()
        if self.version < 3:
            found = [self._spaced(found, at) for at in range(len(found))]
        return tuple(found)

    def _spaced(self, nodes: list[Markup], at: int) -> Markup:
        """Return a node; a line break between two elements is a space up to version 2 (its compiler
        keeps white space by default)."""
        node, around = nodes[at], nodes[at - 1 : at] + nodes[at + 1 : at + 2]
        if not isinstance(node, Text) or len(around) < 2 or node.drawn is not None:
            return node
        raw = self.uses.tree.source.slice(node.span.start, node.span.end)
        seen = not any(isinstance(one, Text | Expression | MarkupComment) for one in around)
        return replace(node, drawn=" ") if seen and not raw.strip() else node

    def _branch_of(self, node: TemplateNode) -> TemplateAttribute | None:
        """The attribute that makes a node an arm of a condition; not one inside of a list."""
        if node.kind != "element":
            return None
        found = next((a for a in node.attributes if a.name in _BRANCHES), None)
        inside = self.version < 3 and node.attribute("v-for") is not None
        return None if inside else found

    def _other(self, node: TemplateNode) -> Markup:
        start, end = node.inner
        match node.kind:
            case "text":
                return self._text(node)
            case "interpolation":
                entry = self.claim("interpolation", node.start, node.end)
                return Expression(self.value(start), self.form(start), entry)
            case "comment":
                entry = self.claim("comment", node.start, node.end)
                return MarkupComment(self.span(node.start, node.end), self.span(start, end), entry)
        self.refuse("text in a textarea" if node.kind == "raw" else node.kind, node.start)
        return self._text(node)

    def _text(self, node: TemplateNode) -> Text:
        return Text(
            self.span(node.start, node.end),
            self.uses.ledger.claim("text", self.span(node.start, node.end), "kept"),
        )

    def value(self, at: int) -> Code:
        """The code of an expression that starts at an offset."""
        node = self.code.values.get(at)
        if node is None:
            self.refuse("an expression that is empty or several", at)
            return Code(self.span(at, at))
        if _ENTITY.search(node.text):
            self.refuse("an entity in an expression", at)
        found = self._filtered(node) if self.neutral else None
        return found or self.uses.code(self.uses.span(node))

    def _filtered(self, node: Node) -> Code | None:
        """A value behind the filters of the older runtime; None where there are none."""
        right, left = node.child("right"), node.child("left")
        if node.type != "binary_expression" or not node.has("|") or right is None or left is None:
            return None
        called = right.child("function") if right.type == "call_expression" else right
        if called is None or called.text not in self.code.filters:
            return None
        span = self.uses.span(node)
        entry = self.uses.ledger.claim("filter", span)
        value = self._filtered(left) or self.uses.code(self.uses.span(left))
        given = right.child("arguments") if right.type == "call_expression" else None
        others = [
            self.uses.code(self.uses.span(one)) for one in (given.named_children if given else ())
        ]
        return Code(span, (Filtered(span, entry, False, called.text, value, tuple(others)),))

    def form(self, at: int) -> Form:
        """Return the form of an expression's value."""
        return form_of(self.code.values.get(at), self.forms, bare=True)

    def _branch(self, node: TemplateNode, attribute: TemplateAttribute) -> Branch:
        loop = node.attribute("v-for")
        if loop is not None and self._asks_for_row(loop, attribute):
            # From version 3 on a condition comes before the list beside it (its migration guide).
            self.refuse(
                "a condition beside v-for that asks for what the list gives", attribute.start
            )
        drawn = self._repeated(node, (attribute,))
        entry = self.claim("condition", attribute.start, attribute.end)
        at = attribute.value[0] if attribute.value is not None else -1
        test = self.value(at) if attribute.value is not None else None
        return Branch(test, self.form(at), (drawn,), entry)

    def _asks_for_row(self, loop: TemplateAttribute, condition: TemplateAttribute) -> bool:
        """Whether the code of a condition names what a list beside it gives."""
        function = self.code.loops.get(loop.value[0]) if loop.value is not None else None
        test = self.code.values.get(condition.value[0]) if condition.value is not None else None
        body = function.child("body") if function is not None else None
        if function is None or test is None or body is None:
            return False
        given = {part.text for part in function.walk() if part.start < body.start}
        return any(part.type == "identifier" and part.text in given for part in test.walk())

    def _repeated(self, node: TemplateNode, skip: tuple[TemplateAttribute, ...] = ()) -> Markup:
        """A node, once for each of a list where it says so."""
        loop = node.attribute("v-for")
        if loop is None:
            return self._element(node, skip)
        entry = self.claim("list", loop.start, loop.end)
        function = self.code.loops.get(loop.value[0]) if loop.value is not None else None
        body = function.child("body") if function is not None else None
        parameters = function.child("parameters") if function is not None else None
        given = parameters.named_children if parameters is not None else []
        if body is None or not given or len(given) > 2:
            self.refuse("v-for of this form", loop.start)
            return self._element(node, (*skip, loop))
        names = []
        for part in given:
            span = self.uses.span(part.child("pattern") or part)
            self.uses.ledger.claim("code", span, "kept")
            names.append(Code(span))
        items = self.uses.code(self.uses.span(body))
        asked = next((a for a in node.attributes if a.name in _BRANCHES), None)
        if self.version < 3 and asked is not None:
            drawn: Markup = Condition(
                (self._branch_within(node, asked, (*skip, loop)),), self.span(node.start, node.end)
            )
        else:
            drawn = self._element(node, (*skip, loop))
        index = names[1] if len(names) > 1 else None
        return Loop(items, names[0], index, (drawn,), self.span(node.start, node.end), entry)

    def _branch_within(
        self, node: TemplateNode, asked: TemplateAttribute, skip: tuple[TemplateAttribute, ...]
    ) -> Branch:
        if asked.name != "v-if" or asked.value is None:
            self.refuse(f"{asked.name} beside v-for", asked.start)
        drawn = self._element(node, (*skip, asked))
        entry = self.claim("condition", asked.start, asked.end)
        at = asked.value[0] if asked.value is not None else -1
        return Branch(self.value(at), self.form(at), (drawn,), entry)

    # -- elements -------------------------------------------------------------------------------

    def _element(self, node: TemplateNode, skip: tuple[TemplateAttribute, ...] = ()) -> Markup:
        if node.tag == "slot":
            return self._slot(node, skip)
        if node.tag == "template":
            return self._template(node, skip)
        plain = node.tag.replace("-", "").lower()
        if plain == "teleport" and self.neutral:
            return self._portal(node, skip)
        if node.tag in _OWN or plain in {own.replace("-", "") for own in _OWN}:
            self.refuse(f"<{node.tag}>", node.start)
        if node.attribute("v-pre") is not None or node.attribute("v-once") is not None:
            self.refuse("v-pre or v-once", node.start)
        entry = self.claim("element", node.start, node.end)
        tag = self._named(node) if self.neutral else ""
        if tag:
            skip = (*skip, next(one for one in node.attributes if one.name == "is"))
        tag = tag or node.tag
        component = tag == "component" or "-" in tag or not tag.islower()
        tags: tuple[str, ...] = ()
        chosen, is_ = None, node.attribute(":is") or node.attribute("v-bind:is")
        if node.tag == "component" and is_ is not None and is_.value is not None:
            chosen, skip = self.value(is_.value[0]), (*skip, is_)
            given = self.code.values.get(is_.value[0])
            tags = _tags(given)
            if not tags and not (given is not None and given.text in self.tag_names):
                self.refuse("<component> of what may be a component", node.start)
        elif node.tag == "component":
            self.refuse("<component>", node.start)
        text = node.attribute("v-text")
        if text is None or text.value is None or component or node.children:
            text = None
        else:
            skip = (*skip, text)
        attributes = self.attributes.read(node, skip, component=component and chosen is None)
        children = self.nodes(node.children) if text is None else (self._given_text(text),)
        span = self.span(node.start, node.end)
        return Element(
            tag, attributes, children, span, entry, node.closed_itself and text is None,
            component and chosen is None, chosen, tags,
        )  # fmt: skip

    def _given_text(self, attribute: TemplateAttribute) -> Expression:
        """Return the text of `v-text` as a shown expression (the reference, "Built-in Directives")."""
        assert attribute.value is not None
        entry = self.claim("interpolation", attribute.start, attribute.end)
        return Expression(self.value(attribute.value[0]), self.form(attribute.value[0]), entry)

    def _named(self, node: TemplateNode) -> str:
        """The component that an element of the page is named to be: `<tr is="berth-row">`."""
        named = node.attribute("is")
        if named is None or named.value is None:
            return ""
        self.uses.ledger.claim(
            "attribute", self.span(named.start, named.end), "carried", "element-to-component"
        )
        return self.uses.tree.source.slice(*named.value).removeprefix("vue:")

    def _portal(self, node: TemplateNode, skip: tuple[TemplateAttribute, ...]) -> Portal:
        """Return content that renders elsewhere in the page."""
        entry = self.claim("portal", node.start, node.end)
        selector, target = "", None
        for attribute in node.attributes:
            if attribute in skip:
                continue
            place = self.span(attribute.start, attribute.end)
            self.uses.ledger.claim("attribute", place, "carried", "portal")
            if attribute.name == "to" and attribute.value is not None:
                selector = self.uses.tree.source.slice(*attribute.value)
            elif attribute.name in (":to", "v-bind:to") and attribute.value is not None:
                target = self.value(attribute.value[0])
            else:
                self.refuse(f"<{node.tag} {attribute.name}>", attribute.start)
        span = self.span(node.start, node.end)
        return Portal(self.nodes(node.children), target, selector, span, entry)

    def _template(self, node: TemplateNode, skip: tuple[TemplateAttribute, ...]) -> Markup:
        entry = self.claim("element", node.start, node.end)
        span = self.span(node.start, node.end)
        slot = next((a for a in node.attributes if a.name.startswith(("v-slot", "#"))), None)
        others = [a for a in node.attributes if a not in (*skip, slot)]
        key = [a for a in others if a.name in (":key", "v-bind:key", "key")]
        keyed = slot is None and bool(key) and key[0].value is not None and key[0].name != "key"
        for attribute in others:
            if attribute not in key:
                self.refuse(f"<template {attribute.name}>", attribute.start)
            if not keyed or attribute is not key[0]:
                self.claim("attribute", attribute.start, attribute.end)
        if slot is not None:
            place = self.span(slot.start, slot.end)
            self.uses.ledger.claim("attribute", place, "carried", "content-to-input")
            name = slot.name.removeprefix("v-slot").removeprefix("#").removeprefix(":")
            if "[" in name or (slot.value is not None and not self.neutral):
                self.refuse(f"content that takes what {slot.name} gives", slot.start)
            given = self._parameters(slot) if slot.value is not None and self.neutral else None
            return Content(
                "" if name == "default" else name, given, self.nodes(node.children), span, entry
            )
        if keyed and key[0].value is not None:
            made = self.attributes.key(key[0], self.value(key[0].value[0]))
            return Element("template", (made,), self.nodes(node.children), span, entry)
        return Group(self.nodes(node.children), span, entry)

    def _parameters(self, slot: TemplateAttribute) -> Code:
        """Return the slot's values that content takes, as the parameter of a function."""
        assert slot.value is not None
        span = self.span(*slot.value)
        self.uses.ledger.claim("code", span, "kept")
        return Code(span)

    def _slot(self, node: TemplateNode, skip: tuple[TemplateAttribute, ...]) -> SlotOutlet:
        entry = self.claim("slot", node.start, node.end)
        name = ""
        given: list[tuple[str, Code, int]] = []
        for attribute in node.attributes:
            if attribute in skip:
                continue
            if attribute.name == "name" and attribute.value is not None:
                name = self.uses.tree.source.slice(*attribute.value)
                continue
            bound = attribute.name.partition(":")[2] if ":" in attribute.name else ""
            if attribute.name.startswith((":", "v-bind:")) and attribute.value is not None:
                if bound in ("key", "name") or not bound.replace("-", "_").isidentifier():
                    self.refuse(f"<slot {attribute.name}>", attribute.start)
                key = self.claim("attribute", attribute.start, attribute.end)
                given.append((_camel(bound), self.value(attribute.value[0]), key))
            else:
                self.refuse(f"<slot {attribute.name}>", attribute.start)
        children = self.nodes(node.children)
        if name == "default":
            name = ""
        return SlotOutlet(name, children, self.span(node.start, node.end), entry, tuple(given))


def _tags(node: Node | None) -> tuple[str, ...]:
    """The tags of the page that an expression can only give."""
    if node is None:
        return ()
    if node.type == "parenthesized_expression":
        return _tags(node.named_children[0])
    if node.type == "ternary_expression":
        found = [_tags(arm) for arm in node.named_children[1:]]
        return tuple(tag for tags in found for tag in tags) if all(found) else ()
    text = node.text[1:-1] if node.type == "string" else ""
    return (text,) if text.isalnum() and text.islower() else ()


def _gone(span: Span) -> Build:
    return lambda entry: Respelled(span, entry, False, "", "template-by-name")


def _camel(name: str) -> str:
    head, *rest = name.split("-")
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def _has_text(reader: TemplateReader, node: TemplateNode) -> bool:
    return bool(reader.uses.tree.source.data[node.start : node.end].strip())
