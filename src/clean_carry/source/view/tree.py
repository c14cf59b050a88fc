"""A view template as a tree: markup, marks, and blocks of directives that hold both."""

from __future__ import annotations

import re
from collections.abc import Callable, Generator, Iterable, Iterator
from dataclasses import dataclass, field, replace

from clean_carry.component.errors import InputError
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import FILLER, Mark, filled, marks_of

# The directives that open a block: what goes on with one, and what ends it.
BLOCKS: dict[str, tuple[frozenset[str], str]] = {
    "if": (frozenset({"elseif", "else"}), "endif"),
    "unless": (frozenset({"elseif", "else"}), "endunless"),
    "isset": (frozenset({"elseif", "else"}), "endisset"),
    "empty": (frozenset({"elseif", "else"}), "endempty"),
    "foreach": (frozenset(), "endforeach"),
    "forelse": (frozenset({"empty"}), "endforelse"),
    "for": (frozenset(), "endfor"),
    "switch": (frozenset({"case", "default"}), "endswitch"),
    "error": (frozenset({"else"}), "enderror"),
}


class Unfolded(Exception):
    """Markup and directives that are no tree: what, and where."""

    def __init__(self, what: str, at: int) -> None:
        super().__init__(what)
        self.what, self.at = what, at


@dataclass
class Arm:
    """A part of a block: the directive that begins it, and its content."""

    mark: Mark
    children: list[Part] = field(default_factory=list)


@dataclass
class Block:
    """A block: its arms, and where it ends."""

    arms: list[Arm]
    end: int = 0

    @property
    def start(self) -> int:
        """Where it begins."""
        return self.arms[0].mark.start

    @property
    def kind(self) -> str:
        """The directive that opens it."""
        return self.arms[0].mark.name


@dataclass
class Piece:
    """A stretch of plain text. `shown` is false for a line break that the engine drops."""

    start: int
    end: int
    shown: bool = True


@dataclass
class Tag:
    """An element: its node, what stands in its start tag in order, and its content."""

    node: TemplateNode
    given: list[Part]
    children: list[Part]

    @property
    def start(self) -> int:
        """Where it begins."""
        return self.node.start

    @property
    def end(self) -> int:
        """Where it ends."""
        return self.node.end


Part = Piece | Mark | Block | Tag | TemplateAttribute


@dataclass
class ViewTree:
    """A template that was read. `marks` are all its marks; `within` reads a stretch, as in an attribute."""

    parts: list[Part]
    marks: list[Mark]
    within: Callable[[int, int], list[Part]]


def read_view(source: SourceText) -> ViewTree:
    """The tree of a template. Raises `Unfolded`."""
    marks = marks_of(source.data)
    plain = SourceText(source.path, filled(source.data, marks))
    try:
        nodes = read_markup(plain, 0, len(source.data))
    except InputError as error:
        raise Unfolded(str(error), _offset(source, error)) from None
    reader = _Reader(plain.data, {one.start: one for one in marks})
    parts = reader.siblings(nodes)
    return ViewTree(parts, marks, lambda start, end: _folded(reader.within(start, end)))


def _offset(source: SourceText, error: InputError) -> int:
    lines = source.data.split(b"\n")
    before = sum(len(line) + 1 for line in lines[: max(0, (error.line or 1) - 1)])
    return min(before + max(0, (error.column or 1) - 1), len(source.data))


class _Reader:
    def __init__(self, data: bytes, marks: dict[int, Mark]) -> None:
        self.data, self.marks = data, marks

    def siblings(self, nodes: Iterable[TemplateNode]) -> list[Part]:
        """Nodes beside each other, with their blocks folded."""
        return _folded(self._flat(nodes))

    def _flat(self, nodes: Iterable[TemplateNode]) -> Iterator[Part]:
        for node in nodes:
            if node.kind in ("text", "raw", "interpolation"):
                yield from self.within(node.start, node.end)
            elif node.kind == "comment":
                if FILLER in self.data[node.start : node.end]:
                    raise Unfolded("a directive in a comment", node.start)
                yield Piece(node.start, node.end)
            elif node.kind == "element":
                if FILLER.decode() in node.tag:
                    raise Unfolded("a tag whose name is computed", node.start)
                yield Tag(node, _folded(self._given(node)), self.siblings(node.children))
            else:
                raise Unfolded("a whole page, or a tag that is no tag", node.start)

    def within(self, start: int, end: int) -> Iterator[Part]:
        """The texts and marks of a stretch."""
        at = start
        while at < end:
            mark = self.marks.get(at)
            if mark is not None:
                yield mark
                at = mark.end
                if mark.kind == "directive":
                    at = yield from self._break(at)
                continue
            filler = self.data.find(FILLER, at, end)
            stop = filler if filler >= 0 else end
            if filler > at and self.data[filler - 1 : filler] == b"<":
                raise Unfolded("a tag whose name is computed", filler - 1)
            yield Piece(at, stop)
            at = stop

    def _break(self, at: int) -> Generator[Part, None, int]:
        """The line break right behind a directive, which the language of the server drops, and its end.

        White space behind it shows as much as the break would; in front of a tag it is kept unseen.
        """
        found = _BREAK.match(self.data, at)
        if found is None:
            return at
        if self.data[found.end() : found.end() + 1] == b"<":
            yield Piece(at, found.end(), shown=False)
            return found.end()
        return at if self.data[found.end() : found.end() + 1].isspace() else found.end()

    def _given(self, node: TemplateNode) -> Iterator[Part]:
        """Attributes, and the marks between them."""
        sign = FILLER.decode()
        for one in node.attributes:
            bare = one.name.lstrip(sign)
            marks = len(one.name) - len(bare)
            if sign in bare or (one.value is not None and not bare):
                raise Unfolded("an attribute whose name is computed", one.start)
            yield from self.within(one.start, one.start + marks)
            if bare:
                yield replace(one, name=bare, start=one.start + marks)


_BREAK = re.compile(rb"\r?\n")


def _folded(parts: Iterable[Part]) -> list[Part]:
    """Parts with their blocks as trees. Raises `Unfolded`."""
    top: list[Part] = []
    open_: list[Block] = []
    for part in parts:
        name = part.name if isinstance(part, Mark) and part.kind == "directive" else ""
        inner = open_[-1] if open_ else None
        if inner is not None and isinstance(part, Mark) and name:
            goes_on, ends = BLOCKS[inner.kind]
            if name in goes_on and not (name == "empty" and part.given is not None):
                inner.arms.append(Arm(part))
                continue
            if name.lower() == ends:
                inner.end = part.end
                open_.pop()
                continue
        if isinstance(part, Mark) and name in BLOCKS and part.given is not None:
            block = Block([Arm(part)])
            (open_[-1].arms[-1].children if open_ else top).append(block)
            open_.append(block)
            continue
        if isinstance(part, Mark) and (
            name.startswith(("end", "else")) or name in ("case", "default")
        ):
            raise Unfolded(f"@{name}, which belongs to another element", part.start)
        (open_[-1].arms[-1].children if open_ else top).append(part)
    if open_:
        raise Unfolded(f"@{open_[-1].kind}, which ends in another element", open_[-1].start)
    return top
