"""A page as the tree of the HTML standard, with the stretch of source of each node.

The rules are those of tree construction (HTML §13.2.6), as far as pages need them: implied `html`, `head`,
`body`, `tbody`, `tr` and `colgroup`, end tags that may be left out, elements that close each other, and
content that a table pushes out in front of it. Where the standard would clone formatting elements they are
closed instead, and the place is noted in `repaired`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal

from clean_carry.source.template.tree import VOID, TemplateAttribute, read_attributes
from clean_carry.source.text import SourceText

Kind = Literal["element", "text", "comment", "doctype"]
_TAG = re.compile(rb"<(/?)([A-Za-z][^\s/>]*)")
_RAW = frozenset("script style xmp iframe noembed noframes".split())
_ESCAPABLE_RAW = frozenset({"textarea", "title"})
_HEAD = frozenset(
    "base basefont bgsound link meta title noframes style script template noscript".split()
)
# Start tags that end an open paragraph (§13.2.6.4.7).
_ENDS_P = frozenset(
    (
        "address article aside blockquote center details dialog dir div dl fieldset figcaption figure "
        "footer header hgroup main menu nav ol p search section summary ul pre listing form table hr "
        "h1 h2 h3 h4 h5 h6 plaintext xmp li dd dt"
    ).split()
)
_HEADINGS = frozenset({"h1", "h2", "h3", "h4", "h5", "h6"})
# Elements that bound a search for an open element.
_SCOPE = frozenset(
    "applet caption html table td th marquee object template foreignObject desc".split()
)
_LIST_SCOPE = _SCOPE | {"ol", "ul"}
_BUTTON_SCOPE = _SCOPE | {"button"}
_SPECIAL = frozenset(
    (
        "address applet area article aside base basefont bgsound blockquote body br button caption "
        "center col colgroup dd details dir div dl dt embed fieldset figcaption figure footer form "
        "frame frameset h1 h2 h3 h4 h5 h6 head header hgroup hr html iframe img input keygen li link "
        "listing main marquee menu meta nav noembed noframes noscript object ol p param plaintext pre "
        "script search section select source style summary table tbody td template textarea tfoot th "
        "thead title tr track ul wbr xmp"
    ).split()
)
# Elements that a browser turns into others: `image` into a picture, `frameset` into a page without body.
_REPLACED = frozenset({"image", "frameset", "frame"})
_FORMATTING = frozenset("a b big code em font i nobr s small strike strong tt u".split())
_SECTIONS = frozenset({"tbody", "thead", "tfoot"})
_CELLS = frozenset({"td", "th"})
_TABLE = frozenset({"table", *_SECTIONS, "tr"})
_IMPLIED_ENDS = frozenset("dd dt li optgroup option p rb rp rt rtc".split())
_FOREIGN = frozenset({"svg", "math"})
_SPACE = b" \t\n\f\r"


@dataclass
class PageNode:
    """A node. `tag` is in lower case but in foreign content; `inner` is the stretch between the tags. An
    `implied` element has no tag of its own, and stands empty where it begins."""

    kind: Kind
    start: int
    end: int
    tag: str = ""
    inner: tuple[int, int] = (0, 0)
    attributes: list[TemplateAttribute] = field(default_factory=list)
    children: list[PageNode] = field(default_factory=list)
    implied: bool = False
    foreign: bool = False

    def walk(self) -> Iterator[PageNode]:
        """This node and all below it, in tree order."""
        yield self
        for child in self.children:
            yield from child.walk()

    def attribute(self, name: str) -> TemplateAttribute | None:
        """The first attribute of a name; names are compared as HTML does."""
        return next((one for one in self.attributes if one.name.lower() == name), None)


@dataclass
class Page:
    """A page: its `html` element, what stands beside it, and places that needed repair."""

    html: PageNode
    beside: list[PageNode]
    repaired: list[int]

    @property
    def body(self) -> PageNode:
        """The body element."""
        return next(one for one in self.html.children if one.tag == "body")


def read_page(source: SourceText) -> Page:
    """Read a whole page, or a fragment of one: what is missing around it is implied."""
    return _Builder(source).page()


class _Builder:
    def __init__(self, source: SourceText) -> None:
        self.data = source.data
        self.html = PageNode("element", 0, 0, "html", implied=True)
        self.head = PageNode("element", 0, 0, "head", implied=True)
        self.body: PageNode | None = None
        self.html.children.append(self.head)
        self.open: list[PageNode] = [self.html, self.head]
        self.beside: list[PageNode] = []
        self.repaired: list[int] = []
        self.seen_head = False

    # -- tokens ---------------------------------------------------------------------------

    def page(self) -> Page:
        """Build the tree."""
        data, at = self.data, 0
        while at < len(data):
            if data.startswith(b"<!--", at):
                at = self._comment(at)
                continue
            found = _TAG.match(data, at)
            if found is not None:
                at = self._tag(found)
                continue
            if data[at : at + 2] in (b"<!", b"<?", b"</"):
                close = data.find(b">", at)
                close = len(data) if close < 0 else close + 1
                kind: Kind = "doctype" if data[at : at + 9].lower() == b"<!doctype" else "comment"
                self._beside(PageNode(kind, at, close))
                at = close
                continue
            end = data.find(b"<", at + 1)
            end = len(data) if end < 0 else end
            self._text(at, end)
            at = end
        if self.body is None:
            self._begin_body(len(data))
        self._close_all(len(data))
        return Page(self.html, self.beside, self.repaired)

    def _comment(self, at: int) -> int:
        close = self.data.find(b"-->", at + 4)
        end = len(self.data) if close < 0 else close + 3
        node = PageNode("comment", at, end, inner=(at + 4, max(at + 4, end - 3)))
        if self.body is None and not self.seen_head:
            self._beside(node)
        else:
            self._add(node)
        return end

    def _beside(self, node: PageNode) -> None:
        if self.body is None:
            self.beside.append(node)
        elif node.kind == "comment":
            self._add(node)

    def _tag(self, found: re.Match[bytes]) -> int:
        name = found[2].decode("utf-8", "replace")
        if found[1]:
            close = self.data.find(b">", found.end())
            end = len(self.data) if close < 0 else close + 1
            self._end_tag(name.lower(), found.start(), end)
            return end
        attributes, end, closed = read_attributes(self.data, found.end())
        return self._start_tag(name, attributes, (found.start(), end), closed)

    # -- start tags -----------------------------------------------------------------------

    def _start_tag(
        self, name: str, attributes: list[TemplateAttribute], span: tuple[int, int], closed: bool
    ) -> int:
        start, end = span
        tag = name.lower()
        foreign = (
            any(one.tag in _FOREIGN for one in self.open) and self.open[-1].tag != "foreignObject"
        )
        if foreign or tag in _FOREIGN:
            node = PageNode("element", start, end, name, (end, end), attributes, foreign=True)
            self._body_for(start)
            self._add(node)
            if not closed:
                self.open.append(node)
            return end
        if tag in ("html", "head", "body"):
            return self._outer(tag, attributes, span)
        if self.body is None and tag not in _HEAD:
            self._begin_body(start)
        elif self.body is None:
            self.seen_head = True
        self._make_room(tag, start)
        node = PageNode("element", start, end, tag, (end, end), attributes)
        self._add(node)
        if tag in _REPLACED:
            self.repaired.append(start)
        if tag in VOID or tag in ("image", "keygen", "frame"):
            return end
        if tag in _RAW or tag in _ESCAPABLE_RAW:
            return self._raw(node, end)
        self.open.append(node)
        return end

    def _outer(self, tag: str, attributes: list[TemplateAttribute], span: tuple[int, int]) -> int:
        start, end = span
        if tag == "html":
            node = self.html
        elif tag == "head":
            node, self.seen_head = self.head, True
            if self.body is not None:
                return end
        else:
            if self.body is None:
                self._begin_body(start)
            assert self.body is not None
            node = self.body
        if node.implied and not (tag == "body" and node.children):
            node.start, node.end, node.inner, node.implied = start, end, (end, end), False
        known = {one.name.lower() for one in node.attributes}
        node.attributes += [one for one in attributes if one.name.lower() not in known]
        return end

    def _begin_body(self, at: int) -> None:
        self._close_to(self.head, at)
        self.open = [self.html]
        self.body = PageNode("element", at, at, "body", (at, at), implied=True)
        self.html.children.append(self.body)
        self.open.append(self.body)

    def _body_for(self, at: int) -> None:
        if self.body is None:
            self._begin_body(at)

    def _make_room(self, tag: str, at: int) -> None:
        """Close and open what the standard closes and opens before a start tag."""
        if self.body is None:
            return
        if tag in _ENDS_P and self._in_scope({"p"}, _BUTTON_SCOPE):
            self._pop_to({"p"}, at)
        if tag in _HEADINGS and self.open[-1].tag in _HEADINGS:
            self._pop(at)
        if tag == "li":
            self._close_item({"li"}, at)
        elif tag in ("dd", "dt"):
            self._close_item({"dd", "dt"}, at)
        elif tag == "option" and self.open[-1].tag == "option":
            self._pop(at)
        elif tag == "optgroup":
            self._pop_while({"option", "optgroup"}, at)
        elif tag == "button" and self._in_scope({"button"}, _SCOPE):
            self._pop_to({"button"}, at)
        elif tag == "a" and any(one.tag == "a" for one in self._since_scope()):
            self.repaired.append(at)
            self._pop_to({"a"}, at)
        self._in_table(tag, at)

    def _close_item(self, tags: set[str], at: int) -> None:
        for node in reversed(self.open):
            if node.tag in tags:
                self._pop_to(tags, at)
                return
            if node.tag in _SPECIAL and node.tag not in ("address", "div", "p"):
                return

    def _in_table(self, tag: str, at: int) -> None:
        here = self._table()
        if here is None:
            return
        if tag in ("caption", "colgroup", *_SECTIONS):
            self._pop_until({"table"}, at)
        elif tag == "col":
            self._pop_until({"table", "colgroup"}, at)
            if self.open[-1].tag == "table":
                self._imply("colgroup", at)
        elif tag == "tr":
            self._pop_until({"table", *_SECTIONS}, at)
            if self.open[-1].tag == "table":
                self._imply("tbody", at)
        elif tag in _CELLS:
            self._pop_until({"table", *_SECTIONS, "tr"}, at)
            if self.open[-1].tag == "table":
                self._imply("tbody", at)
            if self.open[-1].tag in _SECTIONS:
                self._imply("tr", at)

    def _table(self) -> PageNode | None:
        """The table around, if a start tag would stand in it and not in a cell or caption of it."""
        for node in reversed(self.open):
            if node.tag == "table":
                return node
            if node.tag in ("html", "template", "body"):
                return None
        return None

    def _imply(self, tag: str, at: int) -> None:
        node = PageNode("element", at, at, tag, (at, at), implied=True)
        self.open[-1].children.append(node)
        self.open.append(node)

    def _raw(self, node: PageNode, at: int) -> int:
        close = re.compile(rb"</" + node.tag.encode() + rb"[\s/>]", re.IGNORECASE).search(
            self.data, at
        )
        inner_end = close.start() if close is not None else len(self.data)
        if inner_end > at:
            node.children.append(PageNode("text", at, inner_end))
        node.inner = (at, inner_end)
        end = self.data.find(b">", inner_end) + 1 if close is not None else len(self.data)
        node.end = end
        return end

    # -- end tags -------------------------------------------------------------------------

    def _end_tag(self, tag: str, start: int, end: int) -> None:
        if tag == "head":
            if self.body is None:
                self.head.inner, self.head.end = (self.head.inner[0], start), end
                self.seen_head = True
            return
        if tag in ("body", "html"):
            if self.body is None:
                self._begin_body(start)
            node = self.body if tag == "body" else self.html
            assert node is not None
            node.inner, node.end = (node.inner[0], start), end
            return
        if tag == "br":
            self._body_for(start)
            self._add(PageNode("element", start, end, "br", (end, end)))
            return
        if tag == "p" and not self._in_scope({"p"}, _BUTTON_SCOPE):
            self._body_for(start)
            self._add(PageNode("element", start, end, "p", (start, start)))
            return
        scope = _LIST_SCOPE if tag == "li" else _SCOPE
        if tag in _TABLE or tag in ("caption", "td", "th"):
            scope = frozenset({"html", "table", "template"}) - {tag}
        tags = set(_HEADINGS) if tag in _HEADINGS else {tag}
        for node in reversed(self.open):
            if node.tag.lower() in tags and (not node.foreign or node.tag.lower() == tag):
                self._end(node, start, end)
                return
            if node.tag in scope or (node.tag in _SPECIAL and tag not in _SPECIAL):
                if tag in _FORMATTING:
                    self.repaired.append(start)
                return

    def _end(self, node: PageNode, start: int, end: int) -> None:
        if any(one.tag in _FORMATTING for one in self.open[self.open.index(node) + 1 :]):
            self.repaired.append(start)
        while self.open[-1] is not node:
            self._pop(start)
        node.inner, node.end = (node.inner[0], start), end
        self.open.pop()

    # -- the stack ------------------------------------------------------------------------

    def _pop(self, at: int) -> None:
        """Close the innermost element where its end tag was left out."""
        node = self.open.pop()
        node.inner, node.end = (node.inner[0], at), at

    def _pop_to(self, tags: set[str], at: int) -> None:
        while self.open[-1].tag not in tags:
            self._pop(at)
        self._pop(at)

    def _pop_until(self, tags: set[str], at: int) -> None:
        while self.open[-1].tag not in {*tags, "html", "body"}:
            self._pop(at)

    def _pop_while(self, tags: set[str], at: int) -> None:
        while self.open[-1].tag in tags:
            self._pop(at)

    def _close_to(self, node: PageNode, at: int) -> None:
        while self.open and self.open[-1] is not node and len(self.open) > 1:
            self._pop(at)

    def _close_all(self, at: int) -> None:
        while self.open:
            node = self.open.pop()
            if node.end <= node.inner[0] or node.end < node.start:
                node.inner, node.end = (node.inner[0], at), at

    def _since_scope(self) -> Iterator[PageNode]:
        for node in reversed(self.open):
            if node.tag in _SCOPE:
                return
            yield node

    def _in_scope(self, tags: set[str], scope: frozenset[str]) -> bool:
        for node in reversed(self.open):
            if node.tag in tags:
                return True
            if node.tag in scope:
                return False
        return False

    # -- content --------------------------------------------------------------------------

    def _text(self, start: int, end: int) -> None:
        blank = not self.data[start:end].strip(_SPACE)
        if self.body is None:
            if blank:
                if self.seen_head and self.open[-1] is self.head:
                    self._add(PageNode("text", start, end))
                return
            lead = len(self.data[start:end]) - len(self.data[start:end].lstrip(_SPACE))
            start += lead
            self._begin_body(start)
        self._add(PageNode("text", start, end), blank=blank)

    def _add(self, node: PageNode, *, blank: bool = False) -> None:
        parent = self.open[-1]
        pushed = node.kind == "text" and not blank
        pushed = pushed or (
            node.kind == "element"
            and node.tag
            not in (
                *_SECTIONS,
                *_CELLS,
                "tr",
                "caption",
                "colgroup",
                "col",
                "script",
                "style",
                "template",
                "input",
                "form",
            )
        )
        if parent.tag in _TABLE and pushed and not node.foreign:
            # Foster parenting: it stands in front of the table.
            table = next(one for one in reversed(self.open) if one.tag == "table")
            above = self.open[self.open.index(table) - 1]
            above.children.insert(above.children.index(table), node)
            self.repaired.append(node.start)
            return
        last = parent.children[-1] if parent.children else None
        if (
            node.kind == "text"
            and last is not None
            and last.kind == "text"
            and last.end == node.start
        ):
            last.end = node.end
            return
        parent.children.append(node)
