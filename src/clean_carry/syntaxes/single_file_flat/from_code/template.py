"""Markup of the neutral component as a template."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from clean_carry.component.code import Code, Member, MethodCall, MethodValue, Read
from clean_carry.component.fragment import Fragment, breaks, copy, joined, length, new, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    Branch,
    ClassList,
    Condition,
    Element,
    Expression,
    Group,
    Handler,
    Key,
    Loop,
    Markup,
    MarkupComment,
    Portal,
    RawHtml,
    Reference,
    SlotOutlet,
    Spread,
    StaticAttribute,
    StyleMap,
    Text,
    inputs_handed_on,
    walk,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.single_file_flat.from_code.controlled import rendered_again, takes_all
from clean_carry.syntaxes.single_file_flat.from_code.spelling import CodeSpeller
from clean_carry.syntaxes.single_file_flat.from_code.spread_attributes import (
    handed_together,
    together_at,
)
from clean_carry.syntaxes.single_file_flat.from_code.two_way import Field, field_of
from clean_carry.syntaxes.single_file_flat.from_code.two_way import written as two_way
from clean_carry.syntaxes.unsaid import Unsaid

# Attributes that are properties of some elements alone, and these (HTML, "Attributes").
_OF_FIELDS = frozenset({"disabled", "readonly", "required", "multiple", "checked", "selected"})
_TYPED_INTO = frozenset({"input", "textarea", "select"})
_FIELDS = frozenset("button input select textarea option optgroup fieldset link".split())
# Directives at an element beside its own attributes: conditions and lists.
Outer = tuple[Fragment, ...]


@dataclass
class TemplateWriter:
    """Writes the markup of one component; raises `Unsaid` for what a template cannot say."""

    speller: CodeSpeller
    unit: str
    width: int

    def write(self, roots: tuple[Markup, ...]) -> Fragment:
        """The template block."""
        with self.speller.in_template():
            inner = self._lines(self._plain(roots), 1)
        return new("<template>") + inner + new("\n</template>\n")

    # -- layout ---------------------------------------------------------------------------------

    def _plain(self, nodes: tuple[Markup, ...]) -> list[Markup]:
        """The nodes, those of groups in the place of these; text that touches becomes one."""
        found: list[Markup] = []
        for node in nodes:
            parts: list[Markup] = [node]
            if isinstance(node, Group):
                parts = self._plain(node.children)
                self.settled += settled(node.entry, "markup-to-template")
            for part in parts:
                last = found[-1] if found else None
                if isinstance(part, Text) and isinstance(last, Text):
                    found[-1] = replace(last, drawn=(last.drawn or "") + (part.drawn or ""))
                    self.settled += settled(part.entry, "text-in-template")
                elif not isinstance(part, Text) or part.drawn:
                    found.append(part)
                else:
                    self.settled += settled(part.entry, "text-in-template")
        return found

    def __post_init__(self) -> None:
        self.settled = Fragment()
        self.tight = False
        # Code of listeners that a binding says by itself.
        self.replaced: list[Span] = []

    def _lines(self, nodes: list[Markup], depth: int) -> Fragment:
        """Return nodes on a line each; on one line where white space between them would be visible."""
        line = f"\n{self.unit * depth}"
        if not nodes:
            return Fragment()
        before, self.tight = self.tight, False
        result = self._by_lines(nodes, depth, line)
        self.tight = before
        return result

    def _by_lines(self, nodes: list[Markup], depth: int, line: str) -> Fragment:
        if any(_is_inline(node) for node in nodes):
            return new(line) + self._inline(nodes, depth)
        return joined((new(line) + self._node(node, depth) for node in nodes), "")

    def _inline(self, nodes: list[Markup], depth: int) -> Fragment:
        """Nodes with no white space between them but their own."""
        before, self.tight = self.tight, True
        result = self._beside(nodes, depth)
        self.tight = before
        return result

    def _beside(self, nodes: list[Markup], depth: int) -> Fragment:
        result = Fragment()
        for at, node in enumerate(nodes):
            if isinstance(node, Text):
                edge = at in (0, len(nodes) - 1)
                result += self._text(node, edge=edge)
            else:
                result += self._node(node, depth)
        return result

    def _text(self, node: Text, *, edge: bool) -> Fragment:
        drawn = node.drawn or ""
        alone = edge and not drawn.strip(" \t\n")
        if alone or "  " in drawn or "\n" in drawn or "\t" in drawn:
            if "'" in drawn or "&" in drawn:
                raise Unsaid(
                    "markup-in-code", "white space that a template would not keep", node.span.start
                )
            return new(f"{{{{ '{drawn}' }}}}", node.entry, "text-in-template")
        return new(drawn, node.entry, "text-in-template")

    def _node(self, node: Markup, depth: int, outer: Outer = ()) -> Fragment:
        match node:
            case Element():
                return self._element(node, depth, outer)
            case Condition():
                return self._condition(node, depth, outer)
            case Loop():
                return self._loop(node, depth, outer)
            case SlotOutlet():
                return self._slot(node, depth, outer)
            case Portal():
                return self._portal(node, depth, outer)
            case Expression():
                code = self._code(node.code, depth)
                return new("{{ ", node.entry, "interpolation") + code + new(" }}")
            case MarkupComment():
                return (
                    new("<!--", node.entry, "comment-in-template") + copy(node.inner) + new("-->")
                )
            case Text():
                return self._text(node, edge=False)
        raise Unsaid("markup-in-code", type(node).__name__, 0)

    def _wrapped(self, nodes: list[Markup], depth: int, outer: Outer) -> Fragment:
        """Nodes under what is said of them: at the one element, or at a template around them."""
        if len(nodes) == 1 and isinstance(nodes[0], Element):
            return self._element(nodes[0], depth, outer)
        keys = [key for key in map(_key_of, nodes) if key is not None]
        if keys and any(_is_list(part) for part in outer):
            nodes = [_without_key(node) for node in nodes]
            self.settled += joined((settled(key.entry, "key") for key in keys[1:]), "")
            outer = (*outer, self._attribute(keys[0], "", depth))
        head = new("<template") + joined((new(" ") + part for part in outer), "") + new(">")
        if any(_is_inline(node) for node in nodes):
            return head + self._inline(nodes, depth) + new("</template>")
        return head + self._lines(nodes, depth + 1) + new(f"\n{self.unit * depth}</template>")

    # -- nodes ----------------------------------------------------------------------------------

    def _condition(self, node: Condition, depth: int, outer: Outer) -> Fragment:
        if outer:
            return self._wrapped([node], depth, outer)
        parts: list[Fragment] = []
        for number, arm in enumerate(node.branches):
            said = self._test(arm, number, depth)
            nodes = self._plain(arm.children)
            parts.append(self._wrapped(nodes, depth, (said,)))
        return joined(parts, "" if self.tight else f"\n{self.unit * depth}")

    def _test(self, arm: Branch, number: int, depth: int) -> Fragment:
        if arm.test is None:
            return new("v-else", arm.entry, "condition")
        word = "v-if" if number == 0 else "v-else-if"
        code = self._code(arm.test, depth)
        if arm.negated:
            code = self._negated(code)
        return self._quoted(new(f"{word}=", arm.entry, "condition"), code)

    def _negated(self, code: Fragment) -> Fragment:
        text = self._shown(code)
        simple = is_identifier(text.replace(".", "_").replace("()", ""))
        return new("!") + code if simple else new("!(") + code + new(")")

    def _loop(self, node: Loop, depth: int, outer: Outer) -> Fragment:
        if outer:
            return self._wrapped([node], depth, outer)
        item = self._code(node.item, depth)
        if node.index is not None:
            item = new("(") + item + new(", ") + self._code(node.index, depth) + new(")")
        items = self._code(node.items, depth)
        said = self._quoted(new("v-for=", node.entry, "list"), item + new(" in ") + items)
        return self._wrapped(self._plain(node.children), depth, (said,))

    def _portal(self, node: Portal, depth: int, outer: Outer) -> Fragment:
        """Return content that renders elsewhere in the page; version 3 has an element for it."""
        if self.speller.version < 3:
            raise Unsaid("markup-in-code", "createPortal", node.span.start)
        to = new(f'to="{node.selector}"')
        if node.target is not None:
            to = self._quoted(new(":to="), self._code(node.target, depth))
        head = new("<Teleport ", node.entry, "portal")
        head += joined((part + new(" ") for part in outer), "") + to + new(">")
        nodes = self._plain(node.children)
        if any(_is_inline(one) for one in nodes):
            return head + self._inline(nodes, depth) + new("</Teleport>")
        return head + self._lines(nodes, depth + 1) + new(f"\n{self.unit * depth}</Teleport>")

    def _slot(self, node: SlotOutlet, depth: int, outer: Outer) -> Fragment:
        head = new("<slot", node.entry, "slot") + joined((new(" ") + part for part in outer), "")
        if node.name:
            head += new(f' name="{node.name}"')
        nodes = self._plain(node.fallback)
        if not nodes:
            return head + new(" />")
        if any(_is_inline(one) for one in nodes):
            return head + new(">") + self._inline(nodes, depth) + new("</slot>")
        return (
            head + new(">") + self._lines(nodes, depth + 1) + new(f"\n{self.unit * depth}</slot>")
        )

    def _element(self, node: Element, depth: int, outer: Outer) -> Fragment:
        tag = "component" if node.chosen is not None else node.tag
        said = list(outer)
        if node.chosen is not None:
            said.append(self._quoted(new(":is="), self._code(node.chosen, depth)))
        field = field_of(node, self.speller.source)
        held = self._held_back(node) if field is None else None
        said += [
            self._handed_on(one, depth)
            if isinstance(one, list)
            else self._attribute(one, tag, depth)
            if one is not held
            else self._handler(one, depth, again=True)
            for one in handed_together(node.attributes)
            if field is None or one not in (field.shown, field.written)
        ]
        if field is not None:
            # The first, as what the element is for.
            said.insert(len(outer), self._two_way(field))
        head = new(f"<{tag}", node.entry, "element")
        flat = head + joined((new(" ") + one for one in said), "")
        line = f"\n{self.unit * depth}"
        broken = length(flat) + len(line) > self.width or breaks(flat, self.speller.source.slice)
        if broken and len(said) > 1:
            flat = head + joined((new(f"{line}{self.unit}") + one for one in said), "")
            close = f"{line}>"
        else:
            close = ">"
        nodes = self._plain(node.children)
        raw = any(isinstance(one, RawHtml) for one in node.attributes)
        if not nodes and (tag in VOID or node.component or node.chosen is not None):
            return flat + new(f"{line}/>" if close != ">" else " />")
        if not nodes or raw:
            return flat + new(f"{close}</{tag}>")
        if tag in ("pre", "textarea", "listing"):
            if any(isinstance(one, Text) and "\n" in (one.drawn or "") for one in nodes):
                raise Unsaid(
                    "markup-in-code", f"<{tag}>, which keeps its white space", node.span.start
                )
        if any(_is_inline(one) for one in nodes):
            return flat + new(close) + self._inline(nodes, depth) + new(f"</{tag}>")
        return flat + new(close) + self._lines(nodes, depth + 1) + new(f"{line}</{tag}>")

    def _held_back(self, node: Element) -> Handler | None:
        """The listener of a field whose value is its state's alone, where it may not take what is typed:
        the field must show the value again then."""
        if node.tag not in _TYPED_INTO or node.component or node.chosen is not None:
            return None
        if not any(isinstance(a, BoundAttribute) and a.name == "value" for a in node.attributes):
            return None
        for one in node.attributes:
            if isinstance(one, Handler) and one.event in ("input", "change"):
                return one if not takes_all(one, self.speller) else None
        return None

    def _two_way(self, field: Field) -> Fragment:
        """Return a field's value and its listener as one binding."""
        member = field.shown.code.operations[0].member  # type: ignore[attr-defined]
        self.replaced.append(field.written.code.span)
        return two_way(field, self.speller.value(member))

    # -- attributes -----------------------------------------------------------------------------

    def _attribute(self, attribute: Attribute, tag: str, depth: int) -> Fragment:
        match attribute:
            case StaticAttribute(name=name, value=None, entry=entry):
                return new(name, entry, "attribute")
            case StaticAttribute(name=name, value=value, entry=entry) if value is not None:
                raw = self.speller.source.slice(value.start, value.end)
                quote = "'" if '"' in raw else '"'
                return new(f"{name}={quote}", entry, "attribute") + copy(value) + new(quote)
            case BoundAttribute(name=name, code=code, entry=entry):
                if code.span.start == code.span.end:
                    plain = not tag[:1].isupper()
                    return new(f'{name}="true"' if plain else f':{name}="true"', entry, "attribute")
                spelt = self._code(code, depth)
                if name in _OF_FIELDS and tag not in _FIELDS and not tag[:1].isupper():
                    # False is written as a word on an element that has no such property.
                    shown = self._shown(spelt)
                    simple = is_identifier(shown.replace(".", "_"))
                    spelt = (spelt if simple else new("(") + spelt + new(")")) + new(
                        " || undefined"
                    )
                return self._quoted(new(f":{name}=", entry, "bound-attribute"), spelt)
            case Handler():
                return self._handler(attribute, depth)
            case Key(code=code, entry=entry):
                return self._quoted(new(":key=", entry, "key"), self._code(code, depth))
            case Reference():
                return self._reference(attribute, depth)
            case Spread(code=code, entry=entry):
                return self._quoted(new("v-bind=", entry, "spread"), self._code(code, depth))
            case RawHtml(code=code, entry=entry):
                return self._quoted(new("v-html=", entry, "raw-html"), self._code(code, depth))
            case StyleMap():
                return self._styles(attribute, depth)
            case ClassList():
                raise Unsaid("markup-in-code", "classes by condition", 0)
        raise Unsaid("markup-in-code", type(attribute).__name__, 0)

    def _reference(self, reference: Reference, depth: int) -> Fragment:
        """Return a ref by its name, or a function that gets the element."""
        member, code, entry = reference.member, reference.code, reference.entry
        if code is None:
            raise Unsaid("not-in-target", f"a reference by name, {member}", 0)
        if member:
            own = code.operations[0].entry
            inner = settled(own, "element-reference") if own != entry else Fragment()
            name = self.speller.value(Member("element", member))
            return new(f'ref="{name}"', entry, "element-reference") + inner
        first = code.operations[0] if code.operations else None
        if isinstance(first, MethodValue) and first.span == code.span:
            # The runtime calls it at every rendering; it was called for another element alone.
            once = self.speller.telling(self.speller.names.of(first.member))
            said = settled(first.entry, "element-reference")
            return new(f':ref="{once}"', entry, "element-reference") + said
        if isinstance(first, Read) and first.span == code.span and first.member.kind == "prop":
            # A parent's reference, a function or an object, gets the element when it is added and removed.
            if self._repeats(reference):
                raise Unsaid("reference-passed", first.member.name, code.span.start)
            name = self.speller.handing(first.member.name)
            said = settled(first.entry, "element-reference")
            return new(f':ref="{name}"', entry, "element-reference") + said
        return self._quoted(new(":ref=", entry, "element-reference"), self._code(code, depth))

    def _repeats(self, reference: Reference) -> bool:
        """Whether the element of a reference is one of a list."""
        component = self.speller.component
        markup = component.view.markup if component is not None else ()
        return any(
            reference in one.attributes
            for loop in walk(markup)
            if isinstance(loop, Loop)
            for one in walk(loop.children)
            if isinstance(one, Element)
        )

    def _handed_on(self, together: list[Attribute], depth: int) -> Fragment:
        """Return one object of all props passed on and the attributes they override, or the props
        alone."""
        parts = []
        entry = -1
        for one in together:
            match one:
                case Spread(code=code, entry=entry):
                    given = self._code(code, depth)
                    text = self._shown(given)
                    if text.startswith("{ ") and inputs_handed_on(one) is not None:
                        first = given.pieces[0]
                        parts.append(new(text[2:-2], first.entry, first.rule))
                    else:
                        parts.append(new("...", entry, "spread") + given)
                case Handler(event=event, code=code, function=True, modifiers=()):
                    key = f"on{event[:1].upper()}{event[1:]}"
                    given = self._code(code, depth)
                    name = "" if self._shown(given) == key else f"{key}: "
                    parts.append(new(name, one.entry, "handler") + given)
                case StyleMap():
                    inside = self._style_object(one, depth)
                    parts.append(new("style: ", one.entry, "style-map") + inside)
                case BoundAttribute(name=name, code=code):
                    head = new(f"{name}: ", one.entry, "bound-attribute")
                    parts.append(head + self._code(code, depth))
                case StaticAttribute(name=name, value=value) if value is not None:
                    if "'" in self.speller.source.slice(value.start, value.end):
                        raise Unsaid("markup-in-code", "an attribute with a quote", value.start)
                    head = new(f"{name}: '", one.entry, "attribute")
                    parts.append(head + copy(value) + new("'"))
                case _:
                    name = getattr(one, "event", type(one).__name__)
                    raise Unsaid("handed-on-joined", name, together_at(together))
        inside = new("{ ") + joined(parts, ", ") + new(" }")
        return self._quoted(new("v-bind=", entry, "spread"), inside)

    def _styles(self, attribute: StyleMap, depth: int) -> Fragment:
        return self._quoted(
            new(":style=", attribute.entry, "style-map"), self._style_object(attribute, depth)
        )

    def _style_object(self, attribute: StyleMap, depth: int) -> Fragment:
        parts = []
        for name, code, pixels in attribute.items:
            key = name if is_identifier(name) else f"'{name}'"
            value = self._code(code, depth)
            if pixels:
                text = self._shown(value)
                simple = is_identifier(text.replace(".", "_"))
                if text.replace(".", "").isdigit():
                    value = new("'") + value + new("px'")
                else:
                    value = value if simple else new("(") + value + new(")")
                    value += new(" + 'px'")
            parts.append(new(f"{key}: ") + value)
        return new("{ ") + joined(parts, ", ") + new(" }")

    def _handler(self, handler: Handler, depth: int, *, again: bool = False) -> Fragment:
        """A listener; one that runs `again` has the component rendered again behind it."""
        event = ".".join((handler.event, *handler.modifiers))
        own = handler.code.operations
        alone = not handler.function and len(own) == 1 and own[0].span == handler.code.span
        with self.speller.as_statements(alone):
            code = self._code(handler.code, depth)
        text = self._shown(code)
        called = is_identifier(text.replace(".", "_"))
        function = (
            text.startswith(("(", "async", "function")) or "=>" in text.partition("\n")[0][:60]
        )
        if (
            handler.function
            and own
            and isinstance(own[0], MethodCall)
            and self._gives_function(own[0])
        ):
            return self._quoted(new(f"@{event}=", handler.entry, "handler"), code + new("($event)"))
        if handler.function and not called and not function:
            if handler.modifiers:
                raise Unsaid("markup-in-code", f"@{event} by a condition", handler.code.span.start)
            key = handler.event if is_identifier(handler.event) else f"'{handler.event}'"
            inside = new(f"{{ {key}: ") + code + new(" || undefined }")
            return self._quoted(new("v-on=", handler.entry, "handler"), inside)
        if not handler.function and called and "(" not in text:
            # A name alone would be called.
            code = new("() => ") + code
        if again:
            code = rendered_again(
                code, text, self.speller.source, called=handler.function and called
            )
        return self._quoted(new(f"@{event}=", handler.entry, "handler"), code)

    # -- text -----------------------------------------------------------------------------------

    def _code(self, code: Code, depth: int) -> Fragment:
        """Code in a template, at the depth it stands at there."""
        here = self.speller.source.indent_at(code.span.start).replace("\t", self.unit)
        levels = depth - len(here) // max(1, len(self.unit))
        return self.speller.code(code).shifted(levels)

    def _shown(self, fragment: Fragment) -> str:
        return "".join(
            piece.text if piece.span is None else self.speller.source.slice(*piece.span[:2])
            for piece in fragment.pieces
        )

    def _gives_function(self, call: MethodCall) -> bool:
        """Whether an own method is seen to give a function."""
        for method in (
            self.speller.component.methods() if self.speller.component is not None else ()
        ):
            if method.name == call.member.name:
                text = self.speller.source.slice(*method.text.span[:2])
                return (
                    re.search(
                        r"(=>|return)\s*(\(?async\s*)?(\([\w\s,]*\)\s*=>|\w+\s*=>|function)", text
                    )
                    is not None
                )
        return False

    def _quoted(self, head: Fragment, value: Fragment) -> Fragment:
        text = self._shown(value)
        quote = "'" if '"' in text else '"'
        if quote in text:
            raise Unsaid("markup-in-code", f"both quotes in {text[:40]}", _at(value))
        return head + new(quote) + value + new(quote)


def _at(fragment: Fragment) -> int:
    return next((piece.span.start for piece in fragment.pieces if piece.span is not None), 0)


def _is_inline(node: Markup) -> bool:
    """Whether white space beside a node would be visible."""
    return isinstance(node, Text | Expression)


def _is_list(part: Fragment) -> bool:
    return bool(part.pieces) and part.pieces[0].text.startswith("v-for")


def _keys(node: Markup) -> Iterator[Key]:
    match node:
        case Element(attributes=attributes):
            yield from (one for one in attributes if isinstance(one, Key))
        case Condition(branches=branches):
            for arm in branches:
                for child in arm.children:
                    yield from _keys(child)
        case Group(children=children):
            for child in children:
                yield from _keys(child)


def _key_of(node: Markup) -> Key | None:
    return next(_keys(node), None)


def _without_key(node: Markup) -> Markup:
    match node:
        case Element(attributes=attributes):
            return replace(node, attributes=tuple(a for a in attributes if not isinstance(a, Key)))
        case Condition(branches=branches):
            arms = tuple(
                replace(arm, children=tuple(_without_key(child) for child in arm.children))
                for arm in branches
            )
            return replace(node, branches=arms)
        case Group(children=children):
            return replace(node, children=tuple(_without_key(child) for child in children))
    return node
