"""A page as the single file that renders the same: its body as the template, its styles as a block.

The body's bytes stay where they are, but for what a template reads otherwise: end tags that HTML implies,
white space that compilers of templates drop and a page shows, and text that looks like an interpolation.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.component.spans import Place
from clean_carry.source.html.display import BLOCKS, KEEP_SPACE
from clean_carry.source.html.page import Page, PageNode, read_page
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.template.tree import VOID
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.markup.around import Around, is_css, is_loaded, value_of
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# Attributes and elements that a template reads in a way of its own.
_DIRECTIVE = re.compile(r"v-|[:@#]|(?:key|ref|ref_for|ref_key|is|slot|slot-scope|inline-template)$")
_TEMPLATE_TAGS = frozenset(
    (
        "slot template component keep-alive keepalive transition transition-group teleport suspense "
        "router-view router-link"
    ).split()
)
# Rules that stand at the start of a stylesheet, so never in a media query (CSS Cascade 5, §2).
_AT_START = re.compile(r"@(?:import|charset|namespace)\b", re.IGNORECASE)
_HANDLER = re.compile(r"on[a-z]+$")
# A line break between two elements becomes a space if the joined line has at most so many bytes.
_LONGEST = 108


class PageText(MergedText):
    """A page as a single file; findings about what is not in it have offsets behind its end."""

    def __init__(self, source: SourceText, edits: list[Edit]) -> None:
        super().__init__(source, edits)
        self._elsewhere: dict[int, Place] = {}

    def note(self, rule: str, detail: str, place: Place) -> None:
        """Add a finding about a place of the page that is not carried."""
        offset = len(self.data) + 1 + len(self._elsewhere)
        self._elsewhere[offset] = place
        self.noted.append((rule, detail, offset))

    def place(self, offset: int) -> Place:
        """Line and column in the page."""
        return self._elsewhere.get(offset) or super().place(offset)


def as_single_file(source: SourceText, workspace: Workspace) -> PageText:
    """The single file. Raises `NotAFile`."""
    page = read_page(source)
    made = _Page(source, page).made()
    notes = Around(source, page, workspace).notes()
    for rule, detail, at in sorted(notes, key=lambda note: note[2]):
        made.note(rule, detail, source.place(at))
    return made


class _Page:
    def __init__(self, source: SourceText, page: Page) -> None:
        self.source, self.page = source, page
        self.data = source.data
        self.edits: list[Edit] = []

    def made(self) -> PageText:
        """The file after all edits, with its findings."""
        if self.page.repaired:
            at = self.page.repaired[0]
            raise NotAFile("markup-repaired", self._near(at), at)
        body = self.page.body
        inner = self._inner(body)
        shown = [node for node in body.children if not self._is_aside(node)]
        if not any(node.kind == "element" for node in shown):
            raise NotAFile("template-not-text", "a page without markup", inner[0])
        self._children(body, inner)
        head = "<template>\n" if self.data[inner[0] : inner[0] + 1] != b"\n" else "<template>"
        styles = "".join(self._style(node) for node in self._all_styles())
        tail = f"</template>\n\n<script>\nexport default {{}};\n</script>\n{styles}"
        # Blank lines at the end, as scripts leave them, go.
        inner = (inner[0], self._end(body, inner))
        self.edits = [edit for edit in self.edits if edit.end <= inner[1]]
        tail = "\n" + tail
        self.edits.append(Edit(0, inner[0], head))
        self.edits.append(Edit(inner[1], len(self.data), tail))
        return PageText(self.source, self.edits)

    def _inner(self, body: PageNode) -> tuple[int, int]:
        """The stretch of the body's content."""
        start = body.inner[0]
        ends = [node.end for node in body.children]
        end = body.inner[1] if body.inner[1] > start else max([start, *ends])
        return start, end

    def _end(self, body: PageNode, inner: tuple[int, int]) -> int:
        """Where the last node ends that is shown."""
        ends = [inner[0]]
        for node in body.children:
            text = self.data[node.start : node.end].rstrip()
            if text and not self._is_aside(node) and node.start < inner[1]:
                ends.append(node.start + len(text))
        return max(ends)

    def _near(self, at: int) -> str:
        return self.source.slice(at, min(len(self.data), at + 30)).split("\n")[0]

    def _is_aside(self, node: PageNode) -> bool:
        return is_loaded(node) or (node.kind == "element" and node.tag == "style")

    # -- styles --------------------------------------------------------------------------

    def _all_styles(self) -> Iterator[PageNode]:
        for node in self.page.html.walk():
            if node.kind == "element" and node.tag == "style" and node.children:
                if is_css(node, self.source):
                    yield node

    def _style(self, node: PageNode) -> str:
        text = _dedented(self.source.slice(*node.inner).strip("\n"))
        media = value_of(node, "media", self.source).strip()
        if media and media.lower() != "all":
            found = _AT_START.search(text)
            if found is not None:
                raise NotAFile("style-media", found[0], node.start)
            lines = (f"  {line}" if line else "" for line in text.split("\n"))
            text = "\n".join((f"@media {media} {{", *lines, "}"))
        return f"\n<style>\n{text}\n</style>\n"

    # -- the markup ----------------------------------------------------------------------

    def _children(self, parent: PageNode, inner: tuple[int, int]) -> None:
        """Edit the content of an element; what no node covers is a stray tag and goes."""
        at = inner[0]
        nodes = [node for node in parent.children if node.start < inner[1] or node.implied]
        for number, node in enumerate(nodes):
            if node.start > at:
                self._drop(at, node.start)
            self._node(
                node, parent, self._beside(nodes[:number][::-1]), self._beside(nodes[number + 1 :])
            )
            at = max(at, node.end)
        if at < inner[1]:
            self._drop(at, inner[1])

    def _beside(self, nodes: list[PageNode]) -> PageNode | None:
        """The nearest node that is shown: scripts, comments and white space around them are passed over."""
        for node in nodes:
            blank = node.kind == "text" and not self.data[node.start : node.end].strip()
            if node.kind in ("element", "text") and not self._is_aside(node) and not blank:
                return node
        return None

    def _drop(self, start: int, end: int) -> None:
        self.edits.append(Edit(start, end, ""))

    def _node(
        self, node: PageNode, parent: PageNode, before: PageNode | None, after: PageNode | None
    ) -> None:
        if node.kind == "text":
            self._text(node, parent, before, after)
        elif node.kind == "comment" or self._is_aside(node):
            if node.kind != "comment":
                self._drop(node.start, node.end)
        elif node.kind == "element":
            self._element(node)

    def _element(self, node: PageNode) -> None:
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
            self._children(node, (node.start, node.end))
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
        self._children(node, node.inner)
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
            if _HANDLER.match(name) and one.value is not None:
                raise NotAFile("inline-handler", one.name, one.start)
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
                any(shown)
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


def _dedented(text: str) -> str:
    lines = text.split("\n")
    least = min((len(line) - len(line.lstrip()) for line in lines if line.strip()), default=0)
    return "\n".join(line[least:].rstrip() for line in lines).strip("\n")
