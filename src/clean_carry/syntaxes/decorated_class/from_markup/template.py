"""Markup of the neutral component as a template of a decorated class, with blocks for what decides."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field, replace

from clean_carry.component.code import Code, Read
from clean_carry.component.fragment import Fragment, breaks, copy, joined, length, new, settled
from clean_carry.component.markup import (
    Branch,
    Condition,
    Content,
    Element,
    Expression,
    Group,
    Key,
    Loop,
    Markup,
    MarkupComment,
    RawHtml,
    SlotOutlet,
    Text,
)
from clean_carry.component.model import Component
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.condensed import as_rendered
from clean_carry.syntaxes.decorated_class.from_markup.attributes import Attributes
from clean_carry.syntaxes.decorated_class.from_markup.expressions import Expressions
from clean_carry.syntaxes.decorated_class.from_markup.spelling import Speller
from clean_carry.syntaxes.lists import is_list
from clean_carry.syntaxes.unsaid import Unsaid

_PATH = re.compile(r"[\w$]+(?:\??\.[\w$]+)+")
_OWN_SPACE = frozenset({"pre", "textarea", "listing"})
_SIGNS = str.maketrans({"@": "&#64;", "{": "&#123;", "}": "&#125;"})


@dataclass
class TemplateWriter:
    """Writes the template of one component; raises `Unsaid` for markup that would render differently.

    `tag_of` gives the tag of a child component, `notes` are what is to be known.
    """

    component: Component
    speller: Speller
    unit: str
    width: int
    tag_of: Callable[[str, int], str]
    notes: list[tuple[str, str, int]] = field(default_factory=list)
    settled: Fragment = field(default_factory=Fragment)

    def __post_init__(self) -> None:
        self.expressions = Expressions(self.speller)
        self.attributes = Attributes(self.component, self.expressions, self.notes)
        self.choices = 0

    def written(self, roots: tuple[Markup, ...]) -> Fragment:
        """The whole template."""
        nodes = self._plain(roots, edge=True)
        self.roots = [one for one in nodes if isinstance(one, Element)]
        return self._block(nodes, 0)

    # -- layout --------------------------------------------------------------------------------

    def _plain(self, nodes: tuple[Markup, ...], *, edge: bool) -> list[Markup]:
        """The nodes as the old template's compiler renders them; at an `edge` invisible ones are left
        out."""
        flat: list[Markup] = []
        for node in nodes:
            if isinstance(node, Group):
                self.settled += settled(node.entry, "markup-to-template")
                flat += node.children
            else:
                flat.append(node)

        def settle(entry: int) -> None:
            self.settled += settled(entry, "text-to-template")

        return as_rendered(flat, self.speller.source, settle, edge=edge)

    def _block(self, nodes: list[Markup], depth: int) -> Fragment:
        """Nodes on lines of their own, or beside each other where white space would show."""
        if any(isinstance(node, Text | Expression) for node in nodes):
            return self._beside(nodes, depth)
        line = f"\n{self.unit * depth}"
        return joined((self._node(node, depth) for node in nodes), line)

    def _beside(self, nodes: list[Markup], depth: int) -> Fragment:
        result = Fragment()
        for at, node in enumerate(nodes):
            if isinstance(node, Text):
                before, after = nodes[at - 1] if at else None, nodes[at + 1 : at + 2]
                if not (node.drawn or "").strip() and isinstance(before, Condition | Loop):
                    # The runtime's parser looks for more blocks behind one, and drops white space there.
                    result += new("{{ ' ' }}")
                    continue
                result += self._text(node, (*nodes[at - 1 : at], *after))
            else:
                result += self._node(node, depth)
        return result

    def _text(self, node: Text, around: tuple[Markup, ...]) -> Fragment:
        drawn = (node.drawn or "").translate(_SIGNS)
        if not drawn.strip() and not any(isinstance(one, Expression) for one in around):
            # White space alone goes, unless it is said to stay (the runtime's reference, `&ngsp;`).
            return new("&ngsp;")
        return new(drawn)

    # -- nodes ---------------------------------------------------------------------------------

    def _node(self, node: Markup, depth: int) -> Fragment:
        match node:
            case Element():
                return self._element(node, depth)
            case Condition():
                return self._condition(node, depth)
            case Loop():
                return self._loop(node, depth)
            case SlotOutlet():
                return self._slot(node, depth)
            case Expression():
                return self._expression(node)
            case MarkupComment():
                head = new("<!--", node.entry, "comment-in-template")
                return head + copy(node.inner) + new("-->")
            case Text():
                return self._text(node, ())
            case Content():
                head = new(f'<ng-container ngProjectAs="[{node.name}]">', node.entry, "content")
                nodes = self._plain(node.children, edge=True)
                return head + self._content(nodes, depth) + new("</ng-container>")
        raise Unsaid("markup-unread", type(node).__name__, getattr(node, "span", (0,))[0])

    def _expression(self, node: Expression) -> Fragment:
        value = self.expressions.value(node.code, "text")
        if self._is_object(node.code):
            value += new(" | json")
            self.speller.asked.add("JsonPipe")
        elif not node.form and not self._is_known(node.code):
            text = self.speller.source.slice(*node.code.span[:2])
            self.notes.append(("object-as-text", text[:40], node.code.span.start))
        return new("{{ ", node.entry, "interpolation") + value + new(" }}")

    def _is_known(self, code: Code) -> bool:
        """Whether a value is an input declared as text or a number, or text that the code builds."""
        first = code.operations[0] if code.operations else None
        if isinstance(first, Read) and first.span == code.span and first.member.kind == "prop":
            kinds = {one.name: one.kind for one in self.component.inputs.props}
            return kinds.get(first.member.name) in ("String", "Number", "Boolean")
        # A part of something else has any type.
        path = self.speller.source.slice(*code.span[:2]).strip()
        return _PATH.fullmatch(path) is None or path.endswith(".length")

    def _is_object(self, code: Code) -> bool:
        """Whether a value is always a list or an object: the old template shows such a value as JSON."""
        first = code.operations[0] if code.operations else None
        if not isinstance(first, Read) or first.span != code.span:
            return False
        if first.member.kind == "prop":
            kinds = {one.name: one.kind for one in self.component.inputs.props}
            return kinds.get(first.member.name, "").split(" ")[0] in ("Array", "Object")
        return self.speller.containers.get(first.member.name) in ("list", "object")

    def _inner(self, nodes: list[Markup], depth: int, *, tight: bool) -> Fragment:
        """The content of a block."""
        line, deeper = f"\n{self.unit * depth}", f"\n{self.unit * (depth + 1)}"
        shows = any(isinstance(node, Text | Expression) for node in nodes)
        if not nodes:
            return Fragment()
        if not shows and not tight:
            return new(deeper) + self._block(nodes, depth + 1) + new(line)
        inner = self._beside(nodes, depth + 1)
        if not shows:
            return inner
        # An element that is none keeps the white space of the block apart from that of the text.
        held = new("<ng-container>") + inner + new("</ng-container>")
        return held if tight else new(deeper) + held + new(line)

    tight = False

    def _condition(self, node: Condition, depth: int) -> Fragment:
        result = Fragment()
        for number, arm in enumerate(node.branches):
            nodes = self._plain(arm.children, edge=False)
            word = "@if" if not number else "@else" if arm.test is None else "@else if"
            head = new(f"{' ' if number else ''}{word} ", arm.entry, "condition")
            if arm.test is not None:
                head += new("(") + self._test(arm) + new(") ")
            result += head + new("{") + self._inner(nodes, depth, tight=self.tight) + new("}")
        return result

    def _test(self, arm: Branch) -> Fragment:
        assert arm.test is not None
        value = self.expressions.value(arm.test, "shows")
        if not arm.negated:
            return value
        simple = re.fullmatch(r"[\w$.]+(?:\(\))?", self.expressions.text_of(value))
        return new("!") + value if simple else new("!(") + value + new(")")

    def _loop(self, node: Loop, depth: int) -> Fragment:
        source = self.speller.source
        item = source.slice(*node.item.span[:2]).strip()
        index = source.slice(*node.index.span[:2]).strip() if node.index is not None else ""
        if not is_identifier(item) or "," in index:
            raise Unsaid("markup-unread", f"a list whose items are {item}", node.span.start)
        items = self._items(node)
        nodes = self._plain(node.children, edge=False)
        with self.expressions.within([item, *([index] if index else [])]):
            nodes, track = self._tracked(nodes)
            before, self.tight = self.tight, False
            inner = self._inner(nodes, depth, tight=before)
            self.tight = before
            track = track or new("$index")
            if node.index is not None and not self._is_list(node.items):
                return self._entries(node, items, track, inner, depth)
            head = new("@for (", node.entry, "list") + self.speller.code(node.item)
            head += new(" of ") + items + new("; track ") + track
            if node.index is not None:
                head += new("; let ") + self.speller.code(node.index) + new(" = $index")
        return head + new(") {") + inner + new("}")

    def _entries(
        self, node: Loop, items: Fragment, track: Fragment, inner: Fragment, depth: int
    ) -> Fragment:
        """A list whose second name may be the place in a list, or the key in an object."""
        assert node.index is not None
        helper, entry = self.speller.ask("entriesOf"), self.speller.names.choose("entry")
        self.expressions.used.add(helper)
        line = "" if self.tight else f"\n{self.unit * (depth + 1)}"
        text = self.expressions.text_of(track)
        item, index = (
            self.speller.source.slice(*code.span[:2]).strip() for code in (node.item, node.index)
        )
        key = f"{entry}[1]" if text in (index, "$index") else f"{entry}[0]"
        if text not in (index, "$index"):
            if not text.startswith(item):
                raise Unsaid("markup-unread", f"a list with the key {text}", node.span.start)
            key = f"{entry}[0]{text.removeprefix(item)}"
        head = new(f"@for ({entry} of {helper}(", node.entry, "list") + items
        for piece in track.pieces:
            if piece.span is not None:
                self.attributes.two_ways.replaced.append((piece.span.start, piece.span.end))
        silent = (p._replace(text="", span=None) for p in track.pieces if p.entry >= 0)
        head += Fragment(silent) + new(f"); track {key}) {{{line}")
        head += new("@let ") + self.speller.code(node.item) + new(f" = {entry}[0];{line}")
        head += new("@let ") + self.speller.code(node.index) + new(f" = {entry}[1];")
        return head + inner + new("}")

    def _is_list(self, code: Code) -> bool:
        text = self.speller.source.slice(*code.span[:2]).strip()
        if text.isdigit() or re.fullmatch(r"[\w$]+(?:\.[\w$]+)+", text):
            # A part of something is a list, or fails at once.
            return True
        first = code.operations[0] if code.operations else None
        if isinstance(first, Read) and first.span == code.span and first.member.kind == "prop":
            kinds = {one.name: one.kind for one in self.component.inputs.props}
            if kinds.get(first.member.name, "") == "":
                return True
        return is_list(code, self.component, self.speller.source, self.speller.containers)

    def _items(self, node: Loop) -> Fragment:
        code = node.items
        text = self.speller.source.slice(*code.span[:2]).strip()
        if text.isdigit():
            if int(text) > 24:
                raise Unsaid("markup-unread", f"a list of {text}", code.span.start)
            self.attributes.two_ways.replaced.append((code.span.start, code.span.end))
            return new(f"[{', '.join(str(n + 1) for n in range(int(text)))}]")
        value = self.expressions.value(code, "items")
        if not self._is_list(code):
            if node.index is not None:
                return value
            helper = self.speller.ask("listOf")
            self.expressions.used.add(helper)
            return new(f"{helper}(") + value + new(")")
        if not is_list(code, self.component, self.speller.source, self.speller.containers):
            self.notes.append(("listed-as-list", text[:40], code.span.start))
        return value

    def _tracked(self, nodes: list[Markup]) -> tuple[list[Markup], Fragment | None]:
        """The nodes of a list without their key, and what tells the items apart."""
        for at, node in enumerate(nodes):
            if not isinstance(node, Element):
                continue
            key = next((one for one in node.attributes if isinstance(one, Key)), None)
            if key is not None:
                rest = tuple(one for one in node.attributes if one is not key)
                value = self.expressions.value(key.code, "keyOf")
                track = settled(key.entry, "key") + value
                made = replace(node, attributes=rest)
                if node.tag == "template" and not rest:
                    self.settled += settled(node.entry, "element")
                    inner = self._plain(node.children, edge=False)
                    return [*nodes[:at], *inner, *nodes[at + 1 :]], track
                return [*nodes[:at], made, *nodes[at + 1 :]], track
        return nodes, None

    def _slot(self, node: SlotOutlet, depth: int) -> Fragment:
        if node.given:
            raise Unsaid("slot-gives-values", node.name or "default", node.span.start)
        name = f' select="[{node.name}]"' if node.name else ""
        head = new(f"<ng-content{name}", node.entry, "slot")
        nodes = self._plain(node.fallback, edge=True)
        if not nodes:
            return head + new(" />")
        return head + new(">") + self._content(nodes, depth) + new("</ng-content>")

    def _content(self, nodes: list[Markup], depth: int) -> Fragment:
        """The content between two tags."""
        if not nodes:
            return Fragment()
        if any(isinstance(node, Text | Expression) for node in nodes):
            before, self.tight = self.tight, True
            made = self._beside(nodes, depth)
            self.tight = before
            return made
        before, self.tight = self.tight, False
        made = self._block(nodes, depth + 1)
        self.tight = before
        return new(f"\n{self.unit * (depth + 1)}") + made + new(f"\n{self.unit * depth}")

    # -- elements ------------------------------------------------------------------------------

    def _element(self, node: Element, depth: int) -> Fragment:
        if node.chosen is not None:
            raise Unsaid("markup-unread", "a tag that code gives", node.span.start)
        tag = node.tag
        if tag == "template":
            tag = "ng-container"
        if node.component:
            tag = self.tag_of(node.tag, node.span.start)
        root = self.speller.root if len(self.roots) == 1 and node is self.roots[0] else ""
        choices = len(self.attributes.two_ways.choices)
        given = self.attributes.written(node, root)
        if tag == "option":
            given += [one for one in [self.attributes.two_ways.option(node)] if one.pieces]
        made = self._with_children(node, tag, given, depth)
        del self.attributes.two_ways.choices[choices:]
        return made

    def _with_children(
        self, node: Element, tag: str, given: list[Fragment], depth: int
    ) -> Fragment:
        head = new(f"<{tag}", node.entry, "element")
        real = [one for one in given if any(p.text or p.span for p in one.pieces)]
        head += joined((one for one in given if one not in real), "")
        flat = head + joined((new(" ") + one for one in real), "")
        line, close = f"\n{self.unit * depth}", ">"
        if length(flat) + len(line) > self.width or breaks(flat, self.speller.source.slice):
            if len(real) > 1:
                flat = head + joined((new(f"{line}{self.unit}") + one for one in real), "")
                close = f"{line}>"
        nodes = self._children(node)
        if tag in VOID:
            return flat + new(f"{line}/>" if close != ">" else " />")
        if not nodes or any(isinstance(one, RawHtml) for one in node.attributes):
            if node.component:
                return flat + new(f"{line}/>" if close != ">" else " />")
            return flat + new(f"{close}</{tag}>")
        if tag in _OWN_SPACE and not (len(nodes) == 1 and isinstance(nodes[0], Expression)):
            raise Unsaid("markup-unread", f"<{tag}>, which keeps its white space", node.span.start)
        return flat + new(close) + self._content(nodes, depth) + new(f"</{tag}>")

    def _children(self, node: Element) -> list[Markup]:
        """The nodes in an element; content of a child's slot is an element that is none."""
        found: list[Markup] = []
        for child in node.children:
            if not isinstance(child, Content):
                found.append(child)
                continue
            if child.parameters is not None:
                raise Unsaid("slot-gives-values", child.name or "default", child.span.start)
            if not child.name:
                found.append(Group(child.children, child.span, child.entry))
            else:
                found.append(child)
        return self._plain(tuple(found), edge=node.component)
