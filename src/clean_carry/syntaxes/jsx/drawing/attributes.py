"""Attributes of JSX as attributes of the neutral markup, by the names a page has for them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from clean_carry.component.code import (
    Code,
    Member,
    MethodValue,
    Read,
    RestInputs,
    RootElement,
    WholeRead,
)
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Form,
    Handler,
    Key,
    RawHtml,
    Reference,
    Spread,
    StaticAttribute,
    StyleMap,
    inputs_handed_on,
)
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx.attributes import BOOLEAN
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds, Known, kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import Locals, bare, parameters_of
from clean_carry.syntaxes.jsx.drawing.names import UNITLESS, event_of, html_name
from clean_carry.syntaxes.uses import Uses

# Attributes that only the runtime reads.
_FOR_RUNTIME = frozenset({"suppressContentEditableWarning", "suppressHydrationWarning"})
_STARTING = {"defaultValue": "value", "defaultChecked": "checked"}


@dataclass
class Attributes:
    """Reads the attributes of one component's elements. `notes` are what is to be known of them,
    `forwarded` is the parameter that holds a parent's reference."""

    uses: Uses
    locals: Locals
    known: Known
    unshown: frozenset[str] = frozenset()
    forwarded: str = ""
    notes: list[tuple[str, str, int]] = field(default_factory=list)
    drawn_comments: set[int] = field(default_factory=set)

    def note(self, rule: str, detail: str, at: int) -> None:
        """Note something to be known."""
        self.notes.append((rule, detail, at))

    def read(self, opening: Node, tag: str, *, component: bool = False) -> tuple[Attribute, ...]:
        """The attributes of a tag."""
        found: list[Attribute] = []
        kind = _type_of(opening)
        for part in opening.children:
            if part.type == "jsx_attribute":
                read = self._component(part) if component else self._element(part, tag, kind)
                if read is not None:
                    found.append(read)
            elif part.type == "jsx_expression":
                inner = part.named_children[0] if part.named_children else part
                given = inner.named_children[0] if inner.type == "spread_element" else inner
                entry = self.uses.ledger.claim("spread", self.uses.span(part))
                code = _whole(self._code(given))
                found += self._asked(code, opening, found)
                code = _replaced(code, opening, part)
                found.append(Spread(code if component else self._shown(code), entry))
            elif part.type == "type_arguments":
                self._refuse("a tag with types", part)
        return tuple(found)

    def _asked(self, code: Code, opening: Node, before: list[Attribute]) -> Iterator[Attribute]:
        """Return a prop that is both passed on and read by name: an attribute of its own, unless
        another one overrides it."""
        rest = inputs_handed_on(Spread(code, -1))
        own = {part.children[0].text: part.start for part in opening.children if part.children}
        for name in self.locals.asked.get(rest.named, ()) if rest is not None else ():
            if own.get(name, -1) > code.span.start:
                continue
            html = html_name(name)
            if any(getattr(one, "name", "") == html for one in before):
                self._refuse(f"{name}, which is given and handed on", opening)
            read = Read(code.span, -1, False, Member("prop", name))
            yield BoundAttribute(html, Code(code.span, (read,)), "", -1)

    def _shown(self, code: Code) -> Code:
        """Return the props that are passed on, without those that an HTML element does not show."""
        rest = inputs_handed_on(Spread(code, -1))
        if rest is None:
            return code
        named = (*rest.named, *(name for name in sorted(self.unshown) if name not in rest.named))
        return replace(code, operations=(replace(rest, named=named),))

    def _refuse(self, detail: str, node: Node) -> None:
        self.uses.refuse("markup-in-code", detail, node.start)

    def _code(self, node: Node) -> Code:
        return self.uses.code(self.uses.span(node))

    def _parts(self, attribute: Node) -> tuple[str, Node | None, int]:
        """The name, the value (None: it is only there), and the entry of an attribute."""
        name = attribute.children[0].text
        value = attribute.children[-1] if len(attribute.children) > 1 else None
        if value is not None and value.type == "jsx_expression":
            inner = value.named_children
            value = bare(inner[0]) if inner else value
        notion = "handler" if _is_event(name) else "attribute"
        return name, value, self.uses.ledger.claim(notion, self.uses.span(attribute))

    def _element(self, attribute: Node, tag: str, kind: str) -> Attribute | None:
        name, value, entry = self._parts(attribute)
        if ":" in name and not name.startswith(("xlink:", "xml:")):
            self._refuse(name, attribute)
        if self._is_forwarded(name, value, entry):
            return None
        special = self._special(name, value, entry, attribute)
        if special is not None:
            return special
        if _is_event(name):
            return self._handler(name, value, entry, tag, kind, attribute)
        if name in _FOR_RUNTIME:
            self.uses.ledger.settle(entry, "carried", "attribute")
            return None
        html = html_name(_STARTING.get(name, name))
        if name in _STARTING and (
            (value is not None and value.type not in ("string", "true"))
            or (tag != "input" and value is not None)
        ):
            self._refuse(f"{name} by code", attribute)
        if name == "autoFocus":
            self._refuse("autoFocus", attribute)
        if value is None:
            present = html.lower() in BOOLEAN or html in ("checked",)
            return StaticAttribute(html, None, entry) if present else self._true(html, entry)
        if value.type == "string":
            return self._literal(html, value, entry)
        if value.type == "true" and (html.lower() in BOOLEAN or html == "checked"):
            return StaticAttribute(html, None, entry)
        return BoundAttribute(html, self._code(value), self._form(value), entry)

    def _true(self, name: str, entry: int) -> Attribute:
        """A name that only stands there is `true` for JSX."""
        return BoundAttribute(name, Code(self.uses.tree.source.span(0, 0)), "boolean", entry)

    def _literal(self, name: str, value: Node, entry: int) -> Attribute:
        inner = self.uses.tree.source.span(value.start + 1, value.end - 1)
        if '"' in value.text[1:-1] and "'" in value.text[1:-1]:
            self._refuse("an attribute with both quotes", value)
        self.uses.ledger.claim("text", inner, "kept")
        return StaticAttribute(name, inner, entry)

    def _component(self, attribute: Node) -> Attribute | None:
        name, value, entry = self._parts(attribute)
        if self._is_forwarded(name, value, entry):
            return None
        if name == "key" or name == "ref":
            return self._special(name, value, entry, attribute)
        if value is not None and value.type.startswith("jsx_"):
            self._refuse(f"markup given as {name}", attribute)
            return None
        if _is_event(name) and value is not None and value.type != "string":
            return self._listening(name[2:3].lower() + name[3:], value, entry, ())
        if value is None:
            return self._true(name, entry)
        if value.type == "string":
            return self._literal(name, value, entry)
        return BoundAttribute(name, self._code(value), self._form(value), entry)

    def _is_forwarded(self, name: str, value: Node | None, entry: int) -> bool:
        """Whether an attribute gives a parent's reference on: there the parent gets the component."""
        if name != "ref" or value is None or not self.forwarded or value.text != self.forwarded:
            return False
        self.note("reference-forwarded", "", value.start)
        self.uses.ledger.settle(entry, "carried", "reference-forwarded")
        return True

    def _special(
        self, name: str, value: Node | None, entry: int, attribute: Node
    ) -> Attribute | None:
        """Read an attribute with a special meaning."""
        if value is None:
            return None
        match name:
            case "key":
                return Key(self._quoted(value), entry)
            case "ref":
                return self._reference(value, entry)
            case "style":
                return self._style(value, entry)
            case "dangerouslySetInnerHTML":
                parts = value.named_children if value.type == "object" else []
                inner = parts[0].child("value") if len(parts) == 1 else None
                if inner is None or property_name(parts[0].child("key") or parts[0]) != "__html":
                    self._refuse(name, attribute)
                    return None
                return RawHtml(self._code(inner), entry)
            case "children":
                self._refuse("children given as an attribute", attribute)
        return None

    def _quoted(self, value: Node) -> Code:
        if value.type == "string":
            self.uses.ledger.claim("text", self.uses.span(value), "kept")
        return self._code(value)

    def _reference(self, value: Node, entry: int) -> Attribute:
        if value.type == "string":
            around = self.uses.span(value.parent or value)
            return Reference(value.text[1:-1], self.uses.code(around, kept=False), entry)
        code = self._code(value)
        member = getattr(code.operations[0], "member", None) if len(code.operations) == 1 else None
        first = code.operations[0] if code.operations else None
        if isinstance(first, RootElement) and first.mark:
            return Reference(first.name, code, entry)
        whole = bool(code.operations) and code.operations[0].span == code.span
        if whole and member is not None and member.kind == "element":
            return Reference(member.name, code, entry)
        return Reference("", code, entry)

    def _style(self, value: Node, entry: int) -> Attribute:
        """Styles; a bare number means pixels for JSX, and nothing for a page."""
        if value.type != "object":
            kinds = kinds_of(value, self.known)
            if kinds is None or "text" not in kinds:
                self.note("style-numbers", value.text[:40], value.start)
            return BoundAttribute("style", self._code(value), "", entry)
        items: list[tuple[str, Code, bool]] = []
        plain = True
        for part in value.named_children:
            key, given = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if part.type != "pair" or name is None or given is None:
                plain = False
                self.note("style-numbers", part.text[:40], part.start)
                continue
            kinds = kinds_of(given, self.known)
            number = kinds is not None and "number" in kinds and not name.startswith("--")
            pixels = number and name not in UNITLESS
            if pixels and kinds != frozenset({"number"}):
                self._refuse(f"{name}, which may be a number or text", given)
            if kinds is None and name not in UNITLESS:
                self.note("style-numbers", f"{name}: {given.text[:40]}", given.start)
            items.append((name, given, pixels))  # type: ignore[arg-type]
        if not plain or not any(pixels for _, _, pixels in items):
            return BoundAttribute("style", self._code(value), "", entry)
        made = tuple((name, self._code(given), pixels) for name, given, pixels in items)  # type: ignore[arg-type]
        return StyleMap(made, entry)

    # -- listeners ------------------------------------------------------------------------------

    def _handler(
        self, name: str, value: Node | None, entry: int, tag: str, kind: str, attribute: Node
    ) -> Attribute | None:
        if value is None or value.type == "string":
            self._refuse(name, attribute)
            return None
        modifiers: tuple[str, ...] = ()
        if name.endswith("Capture") and name not in ("onGotPointerCapture", "onLostPointerCapture"):
            name, modifiers = name.removesuffix("Capture"), ("capture",)
        return self._listening(event_of(name, tag, kind), value, entry, modifiers)

    def _listening(
        self, event: str, value: Node, entry: int, modifiers: tuple[str, ...]
    ) -> Attribute:
        if value.is_function and value.type == "arrow_function" and not parameters_of(value):
            body = value.child("body")
            assert body is not None
            if body.type == "statement_block":
                one = body.named_children
                if len(one) == 1 and one[0].type == "expression_statement":
                    inner = one[0].named_children[0]
                    if not _waits(inner):
                        return Handler(event, self._code(inner), entry, False, modifiers)
            elif not value.has("async"):
                return Handler(event, self._code(bare(body)), entry, False, modifiers)
        code = self._code(value)
        first = code.operations[0] if len(code.operations) == 1 else None
        if isinstance(first, MethodValue) and first.bound and first.span == code.span:
            return Handler(event, code, entry, False, modifiers)
        return Handler(event, code, entry, True, modifiers)

    def _form(self, node: Node) -> Form:
        kinds: Kinds | None = kinds_of(node, self.known)
        if kinds is None:
            return ""
        if kinds <= {"text", "number", "nothing"}:
            return "text"
        return "boolean" if kinds == frozenset({"boolean"}) else ""


def _whole(code: Code) -> Code:
    """Code that is all of the inputs, as the inputs of which none is named."""
    first = code.operations[0] if len(code.operations) == 1 else None
    if not isinstance(first, WholeRead) or first.source != "props" or first.span != code.span:
        return code
    rest = RestInputs(first.span, first.entry, first.deferred, ())
    return replace(code, operations=(rest,))


def _replaced(code: Code, opening: Node, spread: Node) -> Code:
    """Yield props that are passed on, with the attributes behind them that override them."""
    rest = inputs_handed_on(Spread(code, -1))
    if rest is None:
        return code
    later = (one for one in opening.children if one.start > spread.start)
    names = frozenset(one.children[0].text for one in later if one.type == "jsx_attribute")
    return replace(code, operations=(replace(rest, replaced=names),))


def _waits(node: Node) -> bool:
    return any(below.type == "await_expression" for below in node.walk())


def _is_event(name: str) -> bool:
    return name.startswith("on") and name[2:3].isupper()


def _type_of(opening: Node) -> str:
    """The type attribute of an input, where it is literal."""
    for part in opening.named_children:
        if part.type == "jsx_attribute" and part.children[0].text == "type":
            value = part.children[-1]
            return value.text[1:-1] if value.type == "string" else "?"
    return ""
