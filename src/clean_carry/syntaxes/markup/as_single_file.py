"""A page as the single file that renders the same: its body as the template, its styles as a block.

The body's bytes stay where they are, but for what a template reads otherwise: end tags that HTML implies,
white space that compilers of templates drop and a page shows, and text that looks like an interpolation.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.spans import Place
from clean_carry.source.html.page import Page, PageNode, read_page
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.markup.around import Around, is_css, value_of
from clean_carry.syntaxes.markup.edits import MarkupEdits, is_aside
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# Rules that stand at the start of a stylesheet, so never in a media query (CSS Cascade 5, §2).
_AT_START = re.compile(r"@(?:import|charset|namespace)\b", re.IGNORECASE)


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


@dataclass
class Written:
    """Parts of a single file beside the content of the page: edits of its markup, the scripts in front of
    the template, and parts of its style elements that go, as stretches of the page."""

    markup: MarkupEdits
    lead: str = ""
    dropped: list[tuple[int, int]] = field(default_factory=list)


def as_single_file(source: SourceText, workspace: Workspace) -> PageText:
    """The single file. Raises `NotAFile`."""
    return page_as_single_file(source, workspace, read_page(source), None)


def page_as_single_file(
    source: SourceText, workspace: Workspace, page: Page, written: Written | None
) -> PageText:
    """The single file of a page that was read, with what else is to be written. Raises `NotAFile`."""
    markup = written.markup if written is not None else MarkupEdits(source)
    made = _Page(source, page).made(written, markup)
    notes = [*Around(source, page, workspace).notes(), *markup.left]
    for rule, detail, at in sorted(notes, key=lambda note: note[2]):
        made.note(rule, detail, source.place(at))
    return made


class _Page:
    def __init__(self, source: SourceText, page: Page) -> None:
        self.source, self.page = source, page
        self.data = source.data

    def made(self, written: Written | None, markup: MarkupEdits) -> PageText:
        """The file after all edits, with its findings."""
        dropped = written.dropped if written is not None else []
        if self.page.repaired:
            at = self.page.repaired[0]
            raise NotAFile("markup-repaired", self._near(at), at)
        body = self.page.body
        inner = self._inner(body)
        shown = [node for node in body.children if not is_aside(node)]
        if not any(node.kind == "element" for node in shown):
            raise NotAFile("template-not-text", "a page without markup", inner[0])
        markup.children(body, inner)
        head = "<template>\n" if self.data[inner[0] : inner[0] + 1] != b"\n" else "<template>"
        styles = "".join(self._style(node, dropped) for node in self._all_styles())
        script = "\n<script>\nexport default {};\n</script>\n" if written is None else ""
        head = f"{written.lead}\n{head}" if written is not None and written.lead else head
        tail = f"</template>\n{script}{styles}"
        # Blank lines at the end, as scripts leave them, go.
        inner = (inner[0], self._end(body, inner))
        edits = [edit for edit in markup.edits if edit.end <= inner[1]]
        tail = "\n" + tail
        edits.append(Edit(0, inner[0], head))
        edits.append(Edit(inner[1], len(self.data), tail))
        return PageText(self.source, edits)

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
            if text and not is_aside(node) and node.start < inner[1]:
                ends.append(node.start + len(text))
        return max(ends)

    def _near(self, at: int) -> str:
        return self.source.slice(at, min(len(self.data), at + 30)).split("\n")[0]

    # -- styles --------------------------------------------------------------------------

    def _all_styles(self) -> Iterator[PageNode]:
        for node in self.page.html.walk():
            if node.kind == "element" and node.tag == "style" and node.children:
                if is_css(node, self.source):
                    yield node

    def _style(self, node: PageNode, dropped: list[tuple[int, int]]) -> str:
        parts, at = [], node.inner[0]
        for start, end in sorted(one for one in dropped if node.inner[0] <= one[0] < node.inner[1]):
            parts.append(self.source.slice(at, start))
            at = end
        text = _dedented("".join([*parts, self.source.slice(at, node.inner[1])]).strip("\n"))
        if not text:
            return ""
        media = value_of(node, "media", self.source).strip()
        if media and media.lower() != "all":
            found = _AT_START.search(text)
            if found is not None:
                raise NotAFile("style-media", found[0], node.start)
            lines = (f"  {line}" if line else "" for line in text.split("\n"))
            text = "\n".join((f"@media {media} {{", *lines, "}"))
        return f"\n<style>\n{text}\n</style>\n"


def _dedented(text: str) -> str:
    lines = text.split("\n")
    least = min((len(line) - len(line.lstrip()) for line in lines if line.strip()), default=0)
    return "\n".join(line[least:].rstrip() for line in lines).strip("\n")
