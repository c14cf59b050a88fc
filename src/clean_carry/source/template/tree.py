"""Template markup as a tree: case kept, every byte in exactly one node, nothing corrected.

The rules are those of the HTML tokenizer (HTML §13.2.5) with two differences that template
languages make: `{{ … }}` is an interpolation, and any element may close itself with `/>`.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.component.errors import InputError
from clean_carry.source.text import SourceText

# HTML §13.1.2: elements that have no content and no end tag.
VOID = frozenset("area base br col embed hr img input link meta param source track wbr".split())
# HTML §13.1.2.4: elements whose end tag may be left out before one of these.
_ENDS = {
    "li": ("li",),
    "p": ("p", "div", "ul", "ol", "table", "form"),
    "dt": ("dt", "dd"),
    "dd": ("dt", "dd"),
    "option": ("option", "optgroup"),
    "tr": ("tr", "tbody"),
    "td": ("td", "th", "tr"),
    "th": ("td", "th", "tr"),
}
_RAW = frozenset(["script", "style", "textarea"])
_TAG = re.compile(rb"<(/?)([A-Za-z][^\s/>\"'<=]*)")
_NAME = re.compile(rb"[^\s\"'<>/=][^\s=>/\"']*")
_EQUALS = re.compile(rb"\s*=\s*")
_BARE = re.compile(rb"[^\s>\"']+")
_STOP = re.compile(rb"<(?=[A-Za-z/!?])|\{\{")
_SPACE = re.compile(rb"\s*")


@dataclass(frozen=True)
class TemplateAttribute:
    """One attribute. `value` is (start, end) between the quotes, None where only the name stands."""

    name: str
    start: int
    end: int
    name_end: int
    value: tuple[int, int] | None


@dataclass
class TemplateNode:
    """`kind` is element, text, interpolation, comment, raw or declaration.

    `inner` is (start, end) of what stands inside: between the tags, between the braces, between the
    marks of a comment. `closed_itself` says that an element ended with `/>`.
    """

    kind: str
    start: int
    end: int
    inner: tuple[int, int]
    tag: str = ""
    attributes: list[TemplateAttribute] = field(default_factory=list)
    children: list[TemplateNode] = field(default_factory=list)
    closed_itself: bool = False

    def attribute(self, name: str) -> TemplateAttribute | None:
        """The attribute of this very name."""
        return next((a for a in self.attributes if a.name == name), None)

    def walk(self) -> Iterator[TemplateNode]:
        """This node and all below it, in source order."""
        yield self
        for child in self.children:
            yield from child.walk()


class _Reader:
    def __init__(self, source: SourceText, end: int, raw_at_top: bool, loose: bool = False) -> None:
        self.source, self.data, self.end = source, source.data, end
        self.raw_at_top, self.loose = raw_at_top, loose
        self.open: list[str] = []

    def fail(self, what: str, at: int) -> InputError:
        place = self.source.place(at)
        return InputError(what, file=place.file, line=place.line, column=place.column)

    def content(self, at: int, parent: str, depth: int) -> tuple[list[TemplateNode], int, int]:
        """Nodes from `at` to the end tag of `parent`: (nodes, start of the end tag, after it)."""
        nodes: list[TemplateNode] = []
        text_from = at

        def text(upto: int) -> None:
            if upto > text_from:
                nodes.append(TemplateNode("text", text_from, upto, (text_from, upto)))

        while True:
            found = _STOP.search(self.data, at, self.end)
            if found is None:
                if parent and not self.loose:
                    raise self.fail(f"<{parent}> is never closed", text_from)
                text(self.end)
                return nodes, self.end, self.end
            start = found.start()
            opening = _TAG.match(self.data, start, self.end)
            closed = self._closed(opening, start, parent) if opening is not None else None
            if closed is not None and closed[1]:
                text(start)
                return nodes, start, closed[0]
            node = self._node(opening, start, depth) if closed is None else None
            if closed is not None:
                node = TemplateNode("declaration", start, closed[0], (start, closed[0]))
            at = start + 1
            if node is not None:
                text(start)
                nodes.append(node)
                at = text_from = node.end

    def _closed(self, tag: re.Match[bytes], start: int, parent: str) -> tuple[int, bool] | None:
        """Where one goes on behind an end tag, and whether it ends `parent`; None for a start tag that ends
        nothing. Of markup that is written loosely an end tag may close nothing."""
        name = tag.group(2).decode()
        if not tag.group(1):
            ends = self.loose and name.lower() in _ENDS.get(parent, ())
            return (start, True) if ends else None
        close = self.data.find(b">", tag.end(), self.end)
        if self.loose and close >= 0 and name.lower() != parent.lower():
            return (start, True) if name.lower() in self.open else (close + 1, False)
        if close < 0 or (name != parent and not self.loose):
            raise self.fail(f"</{name}> closes nothing", start)
        return close + 1, True

    def _node(self, opening: re.Match[bytes] | None, start: int, depth: int) -> TemplateNode | None:
        """The node that begins at `start`; None where none does."""
        data = self.data
        if data.startswith(b"{{", start):
            close = self._interpolation_end(start + 2)
            if close < 0:
                return None
            return TemplateNode("interpolation", start, close + 2, (start + 2, close))
        if data.startswith(b"<!--", start):
            close = data.find(b"-->", start + 4, self.end)
            close = self.end if close < 0 else close
            return TemplateNode("comment", start, min(close + 3, self.end), (start + 4, close))
        if data[start + 1 : start + 2] in (b"!", b"?"):
            close = data.find(b">", start, self.end)
            close = self.end - 1 if close < 0 else close
            return TemplateNode("declaration", start, close + 1, (start, close + 1))
        return self._element(opening, depth) if opening is not None else None

    def _interpolation_end(self, at: int) -> int:
        """Where `}}` closes, strings passed over; -1 where it never does."""
        data, here = self.data, at
        while here < self.end:
            byte = data[here : here + 1]
            if data.startswith(b"}}", here):
                return here
            if byte in (b"'", b'"', b"`"):
                close = data.find(byte, here + 1, self.end)
                if close < 0:
                    return data.find(b"}}", at, self.end)
                here = close
            here += 1
        return -1

    def _element(self, opening: re.Match[bytes], depth: int) -> TemplateNode:
        data, name = self.data, opening.group(2).decode()
        at, attributes = opening.end(), list[TemplateAttribute]()
        while True:
            space = _SPACE.match(data, at, self.end)
            at = space.end() if space is not None else at
            if at >= self.end:
                raise self.fail(f"<{name} is never ended", opening.start())
            if data[at : at + 1] == b">":
                at += 1
                break
            if data.startswith(b"/>", at):
                end = at + 2
                return TemplateNode(
                    "element", opening.start(), end, (end, end), name, attributes, [], True
                )
            if data[at : at + 1] == b"/":
                at += 1
                continue
            attribute = _attribute(data, at, self.end)
            if attribute is None:
                raise self.fail(f"<{name} holds what is no attribute", at)
            attributes.append(attribute)
            at = attribute.end
        if name in VOID:  # a component may be called Col or Input
            return TemplateNode("element", opening.start(), at, (at, at), name, attributes)
        if name in _RAW or (depth == 0 and self.raw_at_top and not _is_markup(name, attributes)):
            close = re.compile(
                rb"</" + re.escape(opening.group(2)) + rb"\s*>", re.IGNORECASE
            ).search(data, at, self.end)
            if close is None:
                raise self.fail(f"<{name}> is never closed", opening.start())
            empty = depth > 0 and close.start() == at
            inside = [] if empty else [TemplateNode("raw", at, close.start(), (at, close.start()))]
            return TemplateNode(
                "element",
                opening.start(),
                close.end(),
                (at, close.start()),
                name,
                attributes,
                inside,
            )
        self.open.append(name.lower())
        children, inner_end, end = self.content(at, name, depth + 1)
        self.open.pop()
        return TemplateNode(
            "element", opening.start(), end, (at, inner_end), name, attributes, children
        )


def _attribute(data: bytes, at: int, end: int) -> TemplateAttribute | None:
    found = _NAME.match(data, at, end)
    if found is None:
        return None
    name, name_end = found.group().decode(), found.end()
    equals = _EQUALS.match(data, name_end, end)
    if equals is None:
        return TemplateAttribute(name, at, name_end, name_end, None)
    start = equals.end()
    quote = data[start : start + 1]
    if quote in (b'"', b"'"):
        close = data.find(quote, start + 1, end)
        if close < 0:
            return None
        return TemplateAttribute(name, at, close + 1, name_end, (start + 1, close))
    bare = _BARE.match(data, start, end)
    if bare is None:
        return None
    return TemplateAttribute(name, at, bare.end(), name_end, (start, bare.end()))


def read_attributes(data: bytes, at: int) -> tuple[list[TemplateAttribute], int, bool]:
    """The attributes of a start tag behind its name, the end of the tag, and whether it closes itself.

    Read as a page is: a character that begins no attribute is passed over.
    """
    found: list[TemplateAttribute] = []
    known: set[str] = set()
    while at < len(data):
        if data[at : at + 1] == b">":
            return found, at + 1, False
        if data.startswith(b"/>", at):
            return found, at + 2, True
        one = _attribute(data, at, len(data)) if data[at : at + 1].strip(b" \t\n\f\r/") else None
        if one is None:
            at += 1
            continue
        if one.name.lower() not in known:
            known.add(one.name.lower())
            found.append(one)
        at = one.end
    return found, len(data), False


def _is_markup(name: str, attributes: list[TemplateAttribute]) -> bool:
    return name == "template" and not any(a.name == "lang" for a in attributes)


def read_markup(
    source: SourceText, start: int, end: int, *, loose: bool = False
) -> list[TemplateNode]:
    """The nodes of a stretch of template markup. Raises `InputError` for what is not balanced.

    `loose` reads as a page does: an end tag may be left out, and one that ends nothing is passed over.
    """
    return _Reader(source, end, False, loose).content(start, "", 0)[0]


def read_blocks(source: SourceText) -> list[TemplateNode]:
    """The top-level blocks of a single file; only a template without `lang` is read inside."""
    return _Reader(source, len(source.data), True).content(0, "", 0)[0]
