"""Markup of the neutral component as JSX."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from html import unescape

from clean_carry.component.code import Code, Read
from clean_carry.component.fragment import Fragment, breaks, copy, joined, length, new, settled
from clean_carry.component.markup import (
    Branch,
    Condition,
    Content,
    Element,
    Expression,
    Form,
    Group,
    Key,
    Loop,
    Markup,
    MarkupComment,
    Portal,
    RawHtml,
    SlotOutlet,
    Text,
)
from clean_carry.source.template.tree import VOID
from clean_carry.syntaxes.condensed import as_rendered
from clean_carry.syntaxes.jsx_function.from_markup.attributes import Attributes
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.lists import is_list
from clean_carry.syntaxes.unsaid import Unsaid

# HTML §15 (rendering): elements at whose edges white space is not seen.
_CALL = re.compile(r"^([\w$]+)\(.*\)$", re.DOTALL)
# ECMA-262 §22.1.3, §21.1.3, §23.1.3: what always gives text.
_TEXT = re.compile(
    r"\.(?:toFixed|toString|join|trim|toUpperCase|toLowerCase|padStart|padEnd|replace|charAt)\([^()]*\)$"
)
_RETURNED = re.compile(r"(?:\breturn\s+|=>\s*(?!\s*\{))(\S)")
_PATH = re.compile(r"^[\w$.\s]*$")
_OPERATOR = re.compile(r"[?|&]")
_BLOCKS = frozenset(
    "address article aside blockquote body dd details dialog div dl dt fieldset figcaption figure footer "
    "form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main nav ol option p section summary table "
    "tbody td tfoot th thead tr ul".split()
)
_OWN_SPACE = frozenset({"pre", "textarea", "listing"})
# Elements that hold elements alone: white space between these is none.
_NO_TEXT = frozenset("table thead tbody tfoot tr ul ol dl select optgroup".split())


@dataclass
class MarkupWriter:
    """Writes the markup of one component; raises `Unsaid` for markup that would render differently.

    `roots` are the elements that take what the parent passes on, `tag_of` gives the name of a component.
    `notes` are what is to be known.
    """

    speller: Speller
    unit: str
    width: int
    mark: str
    roots: tuple[Element, ...]
    tag_of: Callable[[str, int], str]
    notes: list[tuple[str, str, int]] = field(default_factory=list)
    # Names that hold the tags code gives, and that code.
    tags: list[tuple[str, Fragment]] = field(default_factory=list)
    repeated: int = 0

    def __post_init__(self) -> None:
        self.attributes = Attributes(self.speller, self.mark, self.notes)

    def drawn(self, roots: tuple[Markup, ...], depth: int) -> Fragment:
        """Return the result of the function, as an expression."""
        nodes = self._plain(roots, edge=True)
        if not nodes:
            return new("null")
        if len(nodes) == 1 and not isinstance(nodes[0], Text):
            return self._value(nodes[0], depth)
        return self._fragment(nodes, depth)

    def _fragment(self, nodes: list[Markup], depth: int, key: Fragment | None = None) -> Fragment:
        line = f"\n{self.unit * depth}"
        name = f"{self.speller.hook('Fragment')} " if key is not None else ""
        head = new(f"<{name}") + (key or Fragment()) + new(">")
        if any(_is_inline(node) for node in nodes):
            return head + self._inline(nodes, depth) + new(f"</{name.strip()}>")
        return head + self._lines(nodes, depth + 1) + new(f"{line}</{name.strip()}>")

    # -- layout ---------------------------------------------------------------------------------

    def _plain(self, nodes: tuple[Markup, ...], *, edge: bool) -> list[Markup]:
        """Return the nodes as the template's compiler renders them, with white space condensed (its
        reference, `whitespace: 'condense'`); at an `edge` invisible ones are left out."""
        flat: list[Markup] = []
        for node in nodes:
            if isinstance(node, Group):
                self.settled += settled(node.entry, "markup-to-jsx")
                flat += self._plain(node.children, edge=False)
            else:
                flat.append(node)

        def settle(entry: int) -> None:
            self.settled += settled(entry, "text-to-jsx")

        return as_rendered(flat, self.speller.source, settle, edge=edge, block=_is_block)

    settled: Fragment = field(default_factory=Fragment)

    def _lines(self, nodes: list[Markup], depth: int) -> Fragment:
        line = f"\n{self.unit * depth}"
        return joined((new(line) + self._child(node, depth) for node in nodes), "")

    def _inline(self, nodes: list[Markup], depth: int) -> Fragment:
        return joined((self._child(node, depth) for node in nodes), "")

    def _child(self, node: Markup, depth: int) -> Fragment:
        """A node among the children of an element."""
        match node:
            case Element():
                return self._element(node, depth)
            case Text(drawn=drawn):
                return self._text(drawn or "")
            case MarkupComment():
                text = self.speller.source.slice(node.inner.start, node.inner.end)
                body = copy(node.inner) if "*/" not in text else new(text.replace("*/", "* /"))
                return new("{/*", node.entry, "comment-in-jsx") + body + new("*/}")
            case Expression():
                shown = self._shown(node.code, node.form)
                return new("{", node.entry, "interpolation") + shown + new("}")
        return new("{") + self._value(node, depth) + new("}")

    def _text(self, drawn: str) -> Fragment:
        if any(sign in drawn for sign in "{}<>"):
            # In a string of code nothing decodes character references.
            quoted = unescape(drawn).replace("\\", "\\\\").replace("'", "\\'")
            return new(f"{{'{quoted}'}}")
        return new(drawn)

    def _shown(self, code: Code, form: Form) -> Fragment:
        if form == "boolean":
            return new("String(") + self.speller.code(code) + new(")")
        first = code.operations[0] if code.operations else None
        if form == "" and first is not None and first.span == code.span:
            # A member that may hold anything: the template's runtime writes lists and objects as text.
            self.speller.helper("shown")
            return new("shown(") + self.speller.code(code) + new(")")
        if form == "":
            text = self.speller.source.slice(code.span.start, code.span.end)
            if not _PATH.match(text) and not self._gives_text(text):
                # One of several values, or what a function gives.
                self.speller.helper("shown")
                return new("shown(") + self.speller.code(code) + new(")")
            self.notes.append(("shown-as-it-is", text[:40], code.span.start))
        return self.speller.code(code)

    def _gives_text(self, text: str) -> bool:
        """Whether a function is called that gives text each time."""
        if _TEXT.search(text):
            return True
        called = _CALL.match(text)
        methods = {one.name: one for one in self.speller.times.component.methods()}
        method = methods.get(called[1]) if called is not None else None
        if method is None:
            return False
        given = _RETURNED.findall(self.speller.source.slice(*method.text.span[:2]))
        return bool(given) and all(first in "'\"`" for first in given)

    # -- nodes as expressions -------------------------------------------------------------------

    def _value(self, node: Markup, depth: int, key: Key | None = None) -> Fragment:
        """A node as an expression; `key` is what its list knows it by."""
        match node:
            case Element():
                return self._element(node, depth)
            case Condition():
                return self._condition(node, depth, key)
            case Loop():
                return self._loop(node, depth)
            case SlotOutlet():
                return self._slot(node, depth)
            case Portal():
                return self._portal(node, depth)
            case Expression():
                return settled(node.entry, "interpolation") + self._shown(node.code, node.form)
            case Text(drawn=drawn):
                quoted = (drawn or "").replace("\\", "\\\\").replace("'", "\\'")
                return new(f"'{quoted}'")
            case Content():
                raise Unsaid("markup-unread", "content of a slot here", node.span.start)
        raise Unsaid("markup-unread", type(node).__name__, 0)

    def _several(self, nodes: list[Markup], depth: int) -> Fragment:
        """Nodes as one expression, in parentheses where they take several lines."""
        if not nodes:
            return new("null")
        if len(nodes) == 1:
            made = self._value(nodes[0], depth + 1)
        else:
            made = self._fragment(nodes, depth + 1)
        if not breaks(made, self.speller.source.slice):
            return made
        if len(nodes) == 1 and isinstance(nodes[0], Condition | Loop):
            return made
        return new(f"(\n{self.unit * (depth + 1)}") + made + new(f"\n{self.unit * depth})")

    def _condition(self, node: Condition, depth: int, key: Key | None = None) -> Fragment:
        arms = node.branches
        first = arms[0]
        if len(arms) == 1 and first.form == "boolean":
            nodes = self._arm(first, key)
            drawn = self._several(nodes, depth)
            if len(nodes) == 1 and self._binds_loosely(nodes[0]):
                drawn = new("(") + drawn + new(")")
            return self._test(first) + new(" && ") + drawn
        result = Fragment()
        told_apart = key is None and self._alike(arms)
        for number, arm in enumerate(arms):
            nodes = self._arm(arm, key)
            if told_apart and nodes:
                # Another element takes the place, as each branch of a template has one of its own.
                word = "if" if number == 0 else "else" if arm.test is None else f"else-{number}"
                nodes = [_told(nodes[0], word), *nodes[1:]]
            drawn = self._several(nodes, depth)
            if arm.test is None:
                return result + settled(arm.entry, "condition") + drawn
            result += self._test(arm) + new(" ? ") + drawn + new(" : ")
        return result + new("null")

    def _binds_loosely(self, node: Markup) -> bool:
        """Whether a node is written as an expression that `&&` would take apart."""
        match node:
            case Condition(branches=(first, *others)):
                return bool(others) or first.form != "boolean"
            case SlotOutlet(fallback=fallback):
                return bool(fallback)
            case Expression(code=code):
                text = self.speller.source.slice(code.span.start, code.span.end)
                return any(sign in text for sign in ("?", "||", ",", "=>"))
        return False

    def _alike(self, arms: tuple[Branch, ...]) -> bool:
        """Whether two branches begin with the same element, which would be kept between them."""
        tags = []
        for arm in arms:
            first = next((one for one in self._plain(arm.children, edge=True)), None)
            tags.append(first.tag if isinstance(first, Element) else "")
        real = [tag for tag in tags if tag]
        return len(real) != len(set(real))

    def _arm(self, arm: Branch, key: Key | None) -> list[Markup]:
        nodes = self._plain(arm.children, edge=False)
        if key is not None:
            nodes = [_keyed(node, key) for node in nodes]
        return nodes

    def _test(self, arm: Branch) -> Fragment:
        assert arm.test is not None
        text = self.speller.source.slice(arm.test.span.start, arm.test.span.end)
        spelt = self.speller.code(arm.test)
        if any(sign in text for sign in ("?", "||", ",", "=>", "&&")):
            spelt = new("(") + spelt + new(")")
        return settled(arm.entry, "condition") + spelt

    def _loop(self, node: Loop, depth: int) -> Fragment:
        names = self.speller.code(node.item)
        if node.index is not None:
            names += new(", ") + self.speller.code(node.index)
        self.repeated += 1
        self.attributes.in_list = True
        body = self._each(node, depth)
        self.repeated -= 1
        self.attributes.in_list = self.repeated > 0
        head = new("", node.entry, "list")
        speller = self.speller
        counted = speller.source.slice(*node.items.span[:2]).isdigit()
        if counted or is_list(
            node.items, speller.times.component, speller.source, speller.containers
        ):
            each = "?.map((" if self._may_miss(node) else ".map(("
            head += self._items(node) + new(each) + names + new(") => ")
        else:
            speller.helper("each")
            head += new("each(") + self.speller.code(node.items) + new(", (") + names + new(") => ")
        if breaks(body, self.speller.source.slice):
            line, deeper = f"\n{self.unit * depth}", f"\n{self.unit * (depth + 1)}"
            return head + new(f"({deeper}") + body + new(f"{line}))")
        return head + body + new(")")

    def _may_miss(self, node: Loop) -> bool:
        """Whether a list is a prop that may be missing: a template renders nothing then."""
        first = node.items.operations[0] if node.items.operations else None
        if not isinstance(first, Read) or first.span != node.items.span:
            return False
        props = {one.name: one for one in self.speller.times.component.inputs.props}
        prop = props.get(first.member.name) if first.member.kind == "prop" else None
        return prop is not None and prop.default is None

    def _each(self, node: Loop, depth: int) -> Fragment:
        """Return the markup for each item of a list."""
        nodes = self._plain(node.children, edge=False)
        key = _key_of(nodes)
        if len(nodes) == 1 and not _is_template(nodes[0]):
            return self._value(nodes[0], depth + 1)
        inner = nodes
        if len(nodes) == 1 and isinstance(nodes[0], Element):
            inner = self._plain(nodes[0].children, edge=False)
            self.settled += settled(nodes[0].entry, "element")
        said = self.attributes.key(key) if key is not None else None
        return self._fragment(inner, depth + 1, said if said is not None else Fragment())

    def _items(self, node: Loop) -> Fragment:
        text = self.speller.source.slice(node.items.span.start, node.items.span.end)
        spelt = self.speller.code(node.items)
        if text.isdigit():
            return new("Array.from({ length: ") + spelt + new(" }, (_, at) => at + 1)")
        plain = text.replace(".", "").replace("_", "").replace("$", "").isalnum()
        return spelt if plain or text.endswith((")", "]")) else new("(") + spelt + new(")")

    def _portal(self, node: Portal, depth: int) -> Fragment:
        """Return content that renders elsewhere in the page."""
        if node.target is not None:
            # It may be a selector as well as an element.
            raise Unsaid("markup-unread", "<teleport> to what code gives", node.span.start)
        made = self.speller.page_function("createPortal")
        self.notes.append(("portal-bubbles", "", node.span.start))
        quote = self.speller.quote
        target = f"document.querySelector({quote}{node.selector}{quote})"
        if node.selector == "body":
            target = "document.body"
        else:
            self.notes.append(("portal-target", node.selector, node.span.start))
        drawn = self._several(self._plain(node.children, edge=True), depth)
        return new(f"{made}(", node.entry, "portal") + drawn + new(f", {target})")

    def _slot(self, node: SlotOutlet, depth: int) -> Fragment:
        name = self.speller.names.slot(node.name)
        head = settled(node.entry, "slot-to-input")
        nodes = self._plain(node.fallback, edge=True)
        if node.given:
            parts = []
            for key, code, entry in node.given:
                text = self.speller.source.slice(code.span.start, code.span.end)
                spelt = self.speller.code(code)
                member = getattr(code.operations[0], "member", None) if code.operations else None
                same = text == key and (member is None or self.speller.names.of(member) == key)
                parts.append(
                    settled(entry, "slot-value") + (spelt if same else new(f"{key}: ") + spelt)
                )
            call = head + new(f"{name}?.({{ ") + joined(parts, ", ") + new(" })")
        else:
            call = head + new(name)
        if not nodes:
            return call
        other = self._several(nodes, depth)
        shown = self.shown_text(other)
        if not shown.startswith(("<", "(\n", "shown(")) and _OPERATOR.search(shown):
            other = new("(") + other + new(")")
        return call + new(" ?? ") + other

    def shown_text(self, fragment: Fragment) -> str:
        """The text of a fragment as it will be written."""
        source = self.speller.source
        return "".join(
            source.slice(piece.span.start, piece.span.end) if piece.span is not None else piece.text
            for piece in fragment.pieces
        )

    # -- elements -------------------------------------------------------------------------------

    def _element(self, node: Element, depth: int) -> Fragment:
        if node.tag == "template":
            key = next((one for one in node.attributes if isinstance(one, Key)), None)
            self.settled += settled(node.entry, "element")
            said = self.attributes.key(key) if key is not None else None
            return self._fragment(self._plain(node.children, edge=False), depth, said)
        tag = node.tag
        if node.chosen is not None:
            tag = self._named_tag(node, node.chosen)
        if node.component:
            tag = self.tag_of(node.tag, node.span.start)
        root = any(node.span == one.span for one in self.roots)
        given = self.attributes.written(node, depth, root=root)
        if node.branch:
            given.insert(0, new(f'key="{node.branch}"'))
        if node.component:
            given += self._contents(node, depth)
        head = new(f"<{tag}", node.entry, "element")
        flat = head + joined((new(" ") + one for one in given), "")
        line = f"\n{self.unit * depth}"
        close = ">"
        if length(flat) + len(line) > self.width or breaks(flat, self.speller.source.slice):
            if len(given) > 1:
                flat = head + joined((new(f"{line}{self.unit}") + one for one in given), "")
                close = f"{line}>"
        children = tuple(c for c in node.children if not isinstance(c, Content) or _plain_one(c))
        nodes = self._plain(_unwrapped(children), edge=node.component or tag in _BLOCKS | _NO_TEXT)
        raw = any(isinstance(one, RawHtml) for one in node.attributes)
        if not nodes or raw:
            empty = tag in VOID or node.component or node.closed_itself
            if empty or raw:
                return flat + new(f"{line}/>" if close != ">" else " />")
            return flat + new(f"{close}</{tag}>")
        if tag in _OWN_SPACE and not (len(nodes) == 1 and isinstance(nodes[0], Expression)):
            raise Unsaid("markup-unread", f"<{tag}>, which keeps its white space", node.span.start)
        if any(_is_inline(one) for one in nodes):
            return flat + new(close) + self._inline(nodes, depth) + new(f"</{tag}>")
        return flat + new(close) + self._lines(nodes, depth + 1) + new(f"{line}</{tag}>")

    def _named_tag(self, node: Element, chosen: Code) -> str:
        """The name of a tag that code gives: one for all drawings, so nothing a list gives may tell it."""
        if self.repeated:
            raise Unsaid("markup-unread", "<component> in a list", node.span.start)
        if not node.one_of:
            shown = self.speller.source.slice(chosen.span.start, chosen.span.end)
            self.notes.append(("tag-by-text", shown[:40], chosen.span.start))
        name = self.speller.names.choose("Tag", "ChosenTag")
        with self.speller.mode(drawing=True):
            self.tags.append((name, self.speller.code(chosen)))
        return name

    def _content(self, content: Content, depth: int) -> Fragment:
        """Content as a value, or as a function of what its slot gives."""
        drawn = self._several(self._plain(content.children, edge=True), depth)
        if content.parameters is None:
            return drawn
        return new("(") + self.speller.code(content.parameters) + new(") => ") + drawn

    def _contents(self, node: Element, depth: int) -> list[Fragment]:
        """Content of named slots, as inputs."""
        found = []
        for child in node.children:
            if isinstance(child, Content) and child.name:
                found.append(
                    new(f"{_camel(child.name)}={{", child.entry, "content-to-input")
                    + self._content(child, depth)
                    + new("}")
                )
            elif isinstance(child, Content) and child.parameters is not None:
                head = new("children={", child.entry, "content-to-input")
                found.append(head + self._content(child, depth) + new("}"))
        return found


def _plain_one(content: Content) -> bool:
    """Whether content stands between the tags of its component."""
    return not content.name and content.parameters is None


def _camel(name: str) -> str:
    head, *rest = name.split("-")
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def _unwrapped(nodes: tuple[Markup, ...]) -> tuple[Markup, ...]:
    """The nodes, those of content for the default slot in its place."""
    found: list[Markup] = []
    for node in nodes:
        found += (
            [Group(node.children, node.span, node.entry)] if isinstance(node, Content) else [node]
        )
    return tuple(found)


def _is_inline(node: Markup) -> bool:
    return isinstance(node, Text | Expression)


def _is_block(node: Markup) -> bool:
    """Whether white space beside a node is not seen."""
    return isinstance(node, Element) and not node.component and node.tag in _BLOCKS


def _is_template(node: Markup) -> bool:
    return isinstance(node, Element) and node.tag == "template"


def _key_of(nodes: list[Markup]) -> Key | None:
    for node in nodes:
        if isinstance(node, Element):
            found = next((one for one in node.attributes if isinstance(one, Key)), None)
            if found is not None:
                return found
    return None


def _told(node: Markup, word: str) -> Markup:
    """An element with a key of its own among its branches."""
    if not isinstance(node, Element) or any(isinstance(one, Key) for one in node.attributes):
        return node
    return replace(node, branch=word)


def _keyed(node: Markup, key: Key) -> Markup:
    return replace(node, attributes=(key, *node.attributes)) if isinstance(node, Element) else node
