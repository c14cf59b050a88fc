"""The edits that make markup of a page the markup of a template that renders the same.

The bytes stay where they are, but for what a template reads otherwise: end tags that HTML implies, white
space that compilers of templates drop and a page shows, and text that looks like an interpolation.
"""

from __future__ import annotations

import re

from clean_carry.source.html.display import BLOCKS, KEEP_SPACE
from clean_carry.source.html.page import PageNode
from clean_carry.source.merged import Edit
from clean_carry.source.template.tree import VOID
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.markup.around import is_loaded
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# Attributes and elements that a template reads in a way of its own.
_DIRECTIVE = re.compile(r"v-|[:@#]|(?:key|ref|ref_for|ref_key|is|slot|slot-scope|inline-template)$")
_TEMPLATE_TAGS = frozenset(
    (
        "slot template component keep-alive keepalive transition transition-group teleport suspense "
        "router-view router-link"
    ).split()
)
_HANDLER = re.compile(r"on[a-z]+$")
# A line break between two elements becomes a space if the joined line has at most so many bytes.
_LONGEST = 108


class MarkupEdits:
    """Collects the edits of one page. `instead` are texts for nodes that something else takes the place of,
    `attributes` those for attributes, by their numbers in Python; `left` is what is not carried: rule,
    detail, offset."""

    def __init__(self, source: SourceText) -> None:
        self.source, self.data = source, source.data
        self.edits: list[Edit] = []
        self.instead: dict[int, str] = {}
        self.attributes: dict[int, str] = {}
        self.left: list[tuple[str, str, int]] = []

    def children(self, parent: PageNode, inner: tuple[int, int]) -> None:
        """Edit the content of an element; what no node covers is a stray tag and goes."""
        at = inner[0]
        nodes = [node for node in parent.children if node.start < inner[1] or node.implied]
        for number, node in enumerate(nodes):
            if node.start > at:
                self._drop(at, node.start)
            self.node(
                node, parent, self._beside(nodes[:number][::-1]), self._beside(nodes[number + 1 :])
            )
            at = max(at, node.end)
        if at < inner[1]:
            self._drop(at, inner[1])

    def _beside(self, nodes: list[PageNode]) -> PageNode | None:
        """The nearest node that is shown: scripts, comments and white space around them are passed over."""
        for node in nodes:
            blank = node.kind == "text" and not self.data[node.start : node.end].strip()
            if node.kind in ("element", "text") and not is_aside(node) and not blank:
                return node
        return None

    def _drop(self, start: int, end: int) -> None:
        self.edits.append(Edit(start, end, ""))

    def node(
        self, node: PageNode, parent: PageNode, before: PageNode | None, after: PageNode | None
    ) -> None:
        """Edit a node between its neighbours that are shown."""
        instead = self.instead.get(id(node))
        if instead is not None:
            self.edits.append(Edit(node.start, node.end, instead))
        elif node.kind == "text":
            self._text(node, parent, before, after)
        elif node.kind == "comment" or is_aside(node):
            if node.kind != "comment":
                self._drop(node.start, node.end)
        elif node.kind == "element":
            self.element(node)

    def element(self, node: PageNode) -> None:
        """Edit an element and what is in it. Raises `NotAFile` for what no template can say."""
        if node.tag in _TEMPLATE_TAGS:
            raise NotAFile("template-language", f"<{node.tag}>", node.start)
        if self.data[node.start : node.start + 2] == b"</":
            # An end tag that ends nothing, of which a browser makes an element all the same.
            whole = f"<{node.tag}>" if node.tag in VOID else f"<{node.tag}></{node.tag}>"
            self.edits.append(Edit(node.start, node.end, whole))
            return
        self._attributes(node)
        if node.implied:
            self.edits.append(Edit(node.start, node.start, f"<{node.tag}>"))
            self.children(node, (node.start, node.end))
            self.edits.append(Edit(node.end, node.end, f"</{node.tag}>"))
            return
        written = self.source.slice(node.start + 1, node.start + 1 + len(node.tag.encode()))
        if written != node.tag:
            self.edits.append(
                Edit(node.start + 1, node.start + 1 + len(written.encode()), node.tag)
            )
        if node.tag in VOID and not node.foreign:
            return
        open_end = node.inner[0]
        if self.data[open_end - 2 : open_end] == b"/>":
            # A page takes it for an open tag, but in drawings.
            if not node.foreign:
                self.edits.append(Edit(open_end - 2, open_end, ">"))
            elif node.inner[0] == node.end:
                return
        self.children(node, node.inner)
        closing = self.source.slice(node.inner[1], node.end)
        if not closing:
            # Where an author would have written it: behind the content, before the line break.
            end = node.inner[0] + len(self.data[node.inner[0] : node.end].rstrip())
            self.edits.append(Edit(end, end, f"</{node.tag}>"))
        elif closing != f"</{node.tag}>":
            self.edits.append(Edit(node.inner[1], node.end, f"</{node.tag}>"))

    def _attributes(self, node: PageNode) -> None:
        """Names in lower case, without what a browser passes over, such as the second of a name."""
        for one in node.attributes:
            name = one.name.lower()
            instead = self.attributes.get(id(one))
            if instead is not None:
                self.edits.append(Edit(one.start, one.end, instead))
                continue
            if _HANDLER.match(name) and one.value is not None:
                shown = self.source.slice(one.start, one.end)
                self.left.append(("inline-handler", shown, one.start))
                before = self.data[: one.start]
                self.edits.append(Edit(len(before.rstrip()), one.end, ""))
                continue
            if _DIRECTIVE.match(name):
                raise NotAFile("template-language", f"the attribute {one.name}", one.start)
            if name != one.name and not node.foreign:
                self.edits.append(Edit(one.start, one.start + len(one.name.encode()), name))
        if node.implied:
            return
        begins = [one.start for one in node.attributes] + [node.inner[0] - 1]
        ends = [node.start + 1 + len(node.tag.encode())] + [one.end for one in node.attributes]
        for end, begin in zip(ends, begins, strict=True):
            passed_over = self.data[end:begin].rstrip(b" \t\n\f\r/")
            if passed_over:
                self._drop(end, end + len(passed_over))

    def _text(
        self, node: PageNode, parent: PageNode, before: PageNode | None, after: PageNode | None
    ) -> None:
        if parent.tag in ("script", "style"):
            return
        text = self.source.slice(node.start, node.end)
        if parent.tag not in KEEP_SPACE and not text.strip(" \t\n\f\r"):
            shown = self._is_shown(before), self._is_shown(after)
            if "\n" in text and all(shown):
                self._keep_space(node)
            elif (
                (any(shown) or (before is None and after is None))
                and None in (before, after)
                and parent.tag not in BLOCKS
                and not parent.foreign
            ):
                # At either end of an element in a line a compiler drops it, and a page shows it.
                self.edits.append(Edit(node.start, node.end, "{{ ' ' }}"))
            return
        for found in re.finditer(r"\{\{", text):
            start = node.start + len(text[: found.start()].encode())
            self.edits.append(Edit(start, start + 2, "{{ '{{' }}"))

    def _keep_space(self, node: PageNode) -> None:
        """A compiler drops a line break between elements; a page shows a space there."""
        start = self.data.rfind(b"\n", 0, node.start) + 1
        end = self.data.find(b"\n", node.end)
        joined = node.start - start + (end if end >= 0 else len(self.data)) - node.end
        if joined < _LONGEST:
            self.edits.append(Edit(node.start, node.end, " "))
        else:
            self.edits.append(Edit(node.start, node.start, "{{ ' ' }}"))

    def _is_shown(self, node: PageNode | None) -> bool:
        """Whether white space beside a node shows: it stands in a line with its neighbours."""
        return node is not None and (node.kind == "text" or node.tag not in BLOCKS)


def is_aside(node: PageNode) -> bool:
    """Whether a node is no part of what a template renders."""
    return is_loaded(node) or (node.kind == "element" and node.tag == "style")
