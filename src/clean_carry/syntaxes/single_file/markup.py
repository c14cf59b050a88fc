"""A template as neutral markup. What has no row here refuses the component."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.code import Code
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Branch,
    ClassList,
    Condition,
    Element,
    Expression,
    Form,
    Handler,
    Markup,
    MarkupComment,
    SlotOutlet,
    StaticAttribute,
    Text,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_identifier, property_name
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.syntaxes.single_file.expressions import TemplateCode, is_handler
from clean_carry.syntaxes.single_file.members import Members, add_use
from clean_carry.syntaxes.single_file.values import form_of
from clean_carry.syntaxes.uses import Uses

_BRANCHES = ("v-if", "v-else-if", "v-else")
# Names every template may use without declaring them (the runtime's own list of allowed globals).
GLOBALS = frozenset(
    "Infinity undefined NaN isFinite isNaN parseFloat parseInt Math Number Date Array Object Boolean "
    "String RegExp Map Set JSON Intl BigInt Error Symbol".split()
)


@dataclass
class TemplateReader:
    """Reads one template. `forms` are what members always hold, where that is known."""

    uses: Uses
    code: TemplateCode
    forms: dict[str, Form] = field(default_factory=dict)

    def claim(self, notion: str, start: int, end: int) -> int:
        """Claim a construct of the template."""
        return self.uses.ledger.claim(notion, self.span(start, end))

    def span(self, start: int, end: int) -> Span:
        """A span of the file."""
        return self.uses.tree.source.span(start, end)

    def collect(self, members: Members) -> None:
        """One operation for every use of a member."""
        for name, refs in self.code.names.free.items():
            for ref in refs:
                root = next((up for up in ref.up() if up.parent is self.code.tree.root), ref)
                if add_use(self.uses, ref, name, members, root) or name in GLOBALS:
                    continue
                self.uses.refuse("unknown-use", name, ref.start)
        self.uses.sort()

    def nodes(self, given: list[TemplateNode]) -> tuple[Markup, ...]:
        """Markup of sibling nodes; branches that belong together become one condition."""
        found: list[Markup] = []
        arms: list[Branch] = []
        pending: list[Markup] = []
        arms_start = 0

        def close() -> None:
            if arms:
                span = self.span(arms_start, _end(arms[-1]))
                found.append(Condition(tuple(arms), span))
            found.extend(pending)
            arms.clear()
            pending.clear()

        for node in given:
            if node.kind == "element":
                branch = next((a for a in node.attributes if a.name in _BRANCHES), None)
                if branch is None:
                    close()
                    found.append(self._element(node))
                    continue
                if branch.name == "v-if":
                    close()
                    arms_start = node.start
                elif not arms:
                    what = f"{branch.name} that follows no condition"
                    self.uses.refuse("markup-unread", what, branch.start)
                else:
                    # A comment between two arms stands before both.
                    if any(isinstance(p, MarkupComment) for p in pending):
                        found.extend(pending[isinstance(pending[0], Text) :])
                    pending.clear()
                arms.append(self._branch(node, branch))
            elif node.kind == "text" and arms and not _has_text(self, node):
                pending.append(self._text(node))
            elif node.kind == "comment" and arms:
                pending.append(self._other(node))
            else:
                close()
                found.append(self._other(node))
        close()
        return tuple(found)

    def _other(self, node: TemplateNode) -> Markup:
        start, end = node.inner
        match node.kind:
            case "text":
                return self._text(node)
            case "interpolation":
                entry = self.claim("interpolation", node.start, node.end)
                return Expression(self._value(start), self._form(start), entry)
            case "comment":
                entry = self.claim("comment", node.start, node.end)
                return MarkupComment(self.span(node.start, node.end), self.span(start, end), entry)
        self.uses.refuse("markup-unread", node.kind, node.start)
        return self._text(node)

    def _text(self, node: TemplateNode) -> Text:
        return Text(
            self.span(node.start, node.end),
            self.uses.ledger.claim("text", self.span(node.start, node.end), "kept"),
        )

    def _value(self, at: int) -> Code:
        node = self.code.values.get(at)
        if node is None:
            self.uses.refuse("markup-unread", "an expression that is empty or several", at)
            return Code(self.span(at, at))
        return self.uses.code(self.uses.span(node))

    def _form(self, at: int) -> Form:
        return form_of(self.code.values.get(at), self.forms, bare=True)

    def _branch(self, node: TemplateNode, attribute: TemplateAttribute) -> Branch:
        element = self._element(node, skip=attribute)
        entry = self.claim("condition", attribute.start, attribute.end)
        at = attribute.value[0] if attribute.value is not None else -1
        test = self._value(at) if attribute.value is not None else None
        if not isinstance(element, Element):
            self.uses.refuse("markup-unread", f"{attribute.name} on <{node.tag}>", node.start)
            element = Element(node.tag, (), (), self.span(node.start, node.end), -1)
        return Branch(test, self._form(at), (element,), entry)

    def _element(self, node: TemplateNode, skip: TemplateAttribute | None = None) -> Markup:
        if node.tag == "slot":
            return self._slot(node)
        if not node.tag.islower() or "-" in node.tag or node.tag in ("template", "component"):
            self.uses.refuse("markup-unread", f"<{node.tag}>", node.start)
        entry = self.claim("element", node.start, node.end)
        attributes: list[Attribute] = []
        for attribute in node.attributes:
            if attribute is not skip:
                found = self._attribute(attribute)
                if found is not None:
                    attributes.append(found)
        children = self.nodes(node.children)
        span = self.span(node.start, node.end)
        return Element(node.tag, tuple(attributes), children, span, entry, node.closed_itself)

    def _slot(self, node: TemplateNode) -> SlotOutlet:
        entry = self.claim("slot", node.start, node.end)
        name = ""
        for attribute in node.attributes:
            if attribute.name == "name" and attribute.value is not None:
                name = self.uses.tree.source.slice(*attribute.value)
            else:
                self.uses.refuse("markup-unread", f"<slot {attribute.name}>", attribute.start)
        children = self.nodes(node.children)
        return SlotOutlet(name, children, self.span(node.start, node.end), entry)

    def _attribute(self, attribute: TemplateAttribute) -> Attribute | None:
        entry = self.claim("attribute", attribute.start, attribute.end)
        name, value = attribute.name, attribute.value
        if is_handler(attribute):
            event = name.partition(":")[2] if name.startswith("v-on:") else name[1:]
            return self._handler(attribute, event, entry)
        if name.startswith((":", "v-bind:")):
            bound = name.partition(":")[2]
            node = self.code.values.get(value[0]) if value is not None else None
            if not is_identifier(bound.replace("-", "_")) or value is None or node is None:
                self.uses.refuse("markup-unread", name, attribute.start)
                return None
            if bound == "class":
                return self._classes(node, attribute, entry)
            if bound in ("style", "key", "ref", "is"):
                self.uses.refuse("markup-unread", name, attribute.start)
            return BoundAttribute(bound, self._value(value[0]), self._form(value[0]), entry)
        if name.startswith(("v-", "#")) or name in ("ref", "key", "is"):
            self.uses.refuse("markup-unread", name, attribute.start)
            return None
        return StaticAttribute(name, self.span(*value) if value is not None else None, entry)

    def _handler(self, attribute: TemplateAttribute, event: str, entry: int) -> Attribute | None:
        at = attribute.value[0] if attribute.value is not None else -1
        statements = self.code.handlers.get(at, ())
        if not event.isalpha() or len(statements) != 1:
            self.uses.refuse("markup-unread", attribute.name, attribute.start)
            return None
        node = statements[0]
        if node.type not in ("expression_statement", "parenthesized_expression"):
            self.uses.refuse("markup-unread", f"{attribute.name} with a statement", node.start)
            return None
        while node.type in ("expression_statement", "parenthesized_expression"):
            node = node.named_children[0]
        if node.is_function or node.type in ("identifier", "member_expression"):
            self.uses.refuse("markup-unread", f"{attribute.name} naming a function", node.start)
            return None
        return Handler(event, self.uses.code(self.uses.span(node)), entry)

    def _classes(self, node: Node, attribute: TemplateAttribute, entry: int) -> Attribute | None:
        if node.type != "object":
            self.uses.refuse("markup-unread", "a class that is no object", attribute.start)
            return None
        items: list[tuple[str, Code, Form]] = []
        for part in node.named_children:
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if part.type != "pair" or name is None or value is None:
                self.uses.refuse("markup-unread", part.text[:40], part.start)
                continue
            form = form_of(value, self.forms, bare=True)
            items.append((name, self.uses.code(self.uses.span(value)), form))
        return ClassList(tuple(items), entry)


def _end(arm: Branch) -> int:
    """Where the element of an arm of a template ends."""
    element = arm.children[0]
    assert isinstance(element, Element)
    return element.span.end


def _has_text(reader: TemplateReader, node: TemplateNode) -> bool:
    return bool(reader.uses.tree.source.data[node.start : node.end].strip())
