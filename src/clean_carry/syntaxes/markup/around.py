"""The parts of a page that stay with it when its body becomes a component."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.source.html.page import Page, PageNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace

# Elements of a page that show nothing themselves; the title of an SVG image does show.
_LOADED = frozenset({"script", "link", "meta", "base", "title"})
Note = tuple[str, str, int]
_STYLESHEET = re.compile(r"\bstylesheet\b", re.IGNORECASE)


class Around:
    """Finds what stays with a page; `workspace` reads its scripts."""

    def __init__(self, source: SourceText, page: Page, workspace: Workspace) -> None:
        self.source, self.page, self.workspace = source, page, workspace
        self.names = list(dict.fromkeys(self._names()))

    def notes(self) -> Iterator[Note]:
        """A finding about each script and stylesheet, and one about all the rest."""
        staying = list(self._staying())
        if staying:
            names = list(dict.fromkeys(name for name, _ in staying))
            yield "page-around", ", ".join(names), staying[0][1]
        for node in self.page.html.walk():
            if node.kind != "element":
                continue
            if node.tag == "script":
                yield self._script(node)
            elif self._is_stylesheet(node):
                yield "page-stylesheet", self._value(node, "href"), node.start
        for node in (self.page.html, self.page.body):
            for one in node.attributes:
                code = self.source.slice(*one.value) if one.value is not None else ""
                if one.name.lower().startswith("on") and (touched := self._touched(code)):
                    yield "page-script-touches", touched, one.start

    def _staying(self) -> Iterator[tuple[str, int]]:
        """Yield the other parts that stay, such as the head, with their offsets."""
        for node in (self.page.html, self.page.body):
            if node.attributes:
                shown = " ".join(self.source.slice(one.start, one.end) for one in node.attributes)
                yield f"<{node.tag} {shown}>", node.start
        for node in self.page.html.walk():
            if self._stays(node):
                yield f"<{node.tag}>", node.start
        head = next(one for one in self.page.html.children if one.tag == "head")
        for node in head.children:
            if node.tag in ("noscript", "template"):
                yield f"<{node.tag}>", node.start
        for node in (*self.page.beside, *self.page.html.children, *head.children):
            if node.kind == "comment":
                yield "a comment outside of the body", node.start

    def _stays(self, node: PageNode) -> bool:
        if node.tag == "style":
            return not is_css(node, self.source)
        return is_loaded(node) and node.tag != "script" and not self._is_stylesheet(node)

    def _is_stylesheet(self, node: PageNode) -> bool:
        return node.tag == "link" and bool(_STYLESHEET.search(self._value(node, "rel")))

    def _value(self, node: PageNode, name: str) -> str:
        return value_of(node, name, self.source)

    # -- scripts -------------------------------------------------------------------------

    def _script(self, node: PageNode) -> Note:
        place = self._value(node, "src")
        if not place:
            code: str | None = self.source.slice(*node.inner)
        else:
            file = (
                self.workspace.resolve(f"./{place.partition('?')[0]}") if _is_own(place) else None
            )
            code = self.workspace.text(file) if file is not None else None
        touched = self._touched(code or "")
        if touched:
            shown = f"{touched} in {place}" if place else touched
            return "page-script-touches", shown, node.start
        if code is None:
            return (
                "page-script",
                f"{place}, not read: see whether it looks up ids or classes",
                node.start,
            )
        return "page-script", place or "in the page", node.start

    def _touched(self, code: str) -> str:
        return next((name for name in self.names if _looks_up(code, name)), "")

    def _names(self) -> Iterator[str]:
        """The ids and classes of the markup, as selectors and lookups name them."""
        for node in self.page.body.walk():
            for name, mark in (("id", "#"), ("class", ".")):
                for word in self._value(node, name).split():
                    yield mark + word


def is_loaded(node: PageNode) -> bool:
    """Whether a node shows nothing itself: a script, a link, or data about the page."""
    return node.kind == "element" and node.tag in _LOADED and not node.foreign


def is_css(node: PageNode, source: SourceText) -> bool:
    """Whether a browser reads a style element (HTML §4.2.6, "The style element": its type)."""
    return value_of(node, "type", source).strip().lower() in ("", "text/css")


def value_of(node: PageNode, name: str, source: SourceText) -> str:
    """The value of an attribute as it is written; "" where there is none."""
    one = node.attribute(name)
    return source.slice(*one.value) if one is not None and one.value is not None else ""


def _is_own(place: str) -> bool:
    """Whether the place of a script is one beside the page, and not of a host or of the host's root."""
    return not place.startswith("/") and ":" not in place.partition("/")[0]


def _looks_up(code: str, name: str) -> bool:
    """Whether code finds elements by an id or a class: as a selector, or by a method of the page."""
    word = re.escape(name[1:])
    selector = rf"""['"`][^'"`\n]*{re.escape(name)}(?![\w-])"""
    method = rf"""(?:ElementById|ElementsByClassName)\(\s*['"`]{word}['"`]"""
    return re.search(selector, code) is not None or re.search(method, code) is not None
