"""JavaScript, TypeScript and JSX as a light tree of nodes with byte offsets.

The grammar is tree-sitter's `tsx` for all four file kinds, so there is one node vocabulary. Its misleading
readings are corrected here and nowhere else.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from functools import cached_property

import tree_sitter
import tree_sitter_typescript
from tree_sitter import Language, Parser, TreeCursor

from clean_carry.component.errors import InputError
from clean_carry.source.javascript import flow
from clean_carry.source.text import SourceText

_LANGUAGE = Language(tree_sitter_typescript.language_tsx())
# Names of the grammar by their numbers: comparing a node's number is faster than comparing its name.
_KINDS = tuple(
    (_LANGUAGE.node_kind_for_id(number) or "ERROR", _LANGUAGE.node_kind_is_named(number))
    for number in range(_LANGUAGE.node_kind_count)
)
_FIELDS = (None, *(_LANGUAGE.field_name_for_id(n + 1) for n in range(_LANGUAGE.field_count)))
_FUNCTIONS = frozenset(
    {
        "function_declaration",
        "function_expression",
        "generator_function",
        "generator_function_declaration",
        "arrow_function",
        "method_definition",
    }
)

_TAGS = frozenset({"jsx_opening_element", "jsx_self_closing_element"})

# The children of what has none.
_LEAF: list[Node] = []


class Node:
    """One node. `start` and `end` are byte offsets; `field` is its role in its parent."""

    __slots__ = ("children", "end", "field", "named", "parent", "start", "text_of", "type")

    type: str
    start: int
    end: int
    named: bool
    field: str | None
    children: list[Node]
    parent: Node | None
    text_of: SourceText

    @property
    def text(self) -> str:
        """The source text of this node."""
        return self.text_of.slice(self.start, self.end)

    @property
    def named_children(self) -> list[Node]:
        """Children that are more than punctuation; comments left out."""
        return [c for c in self.children if c.named and c.type != "comment"]

    def child(self, field: str) -> Node | None:
        """The first child with this role."""
        for c in self.children:
            if c.field == field:
                return c
        return None

    def has(self, token: str) -> bool:
        """Whether a direct child is this token or node type."""
        return any(c.type == token for c in self.children)

    def walk(self) -> Iterator[Node]:
        """This node and all below it, in source order."""
        stack = [self]
        while stack:
            node = stack.pop()
            yield node
            stack.extend(reversed(node.children))

    def up(self) -> Iterator[Node]:
        """The nodes above this one, nearest first."""
        node = self.parent
        while node is not None:
            yield node
            node = node.parent

    @property
    def is_function(self) -> bool:
        """Whether this node opens a function of any form."""
        return self.type in _FUNCTIONS

    def __repr__(self) -> str:
        return f"<{self.type} {self.start}-{self.end}>"


class Tree:
    """A parsed file: root node, comments in order, and nodes by type.

    `view` is what is parsed where that is not the whole file: bytes of the same length in which
    everything that is no code is blank. Text is always sliced from the file. `broken` leaves out what
    is below nodes that stand on one line, tags excepted: enough where only line breaks matter.
    """

    def __init__(self, source: SourceText, view: bytes | None = None, broken: bool = False) -> None:
        self.source = source
        self._broken = broken
        self.view = source.data if view is None else view
        self.comments: list[Node] = []
        self.by_type: dict[str, list[Node]] = {}
        self._inner: list[list[Node]] = []
        self._ending: list[Callable[[], None]] = []
        # Names in what was filled so that the rest can be read: nobody sees what they mean.
        self.unseen: frozenset[str] = frozenset()
        # Results that readers keep for this file, by the reader.
        self.remembered: dict[str, object] = {}
        self.root = self._build()

    def _build(self) -> Node:
        data = self.view
        raw = Parser(_LANGUAGE).parse(data)
        if raw.root_node.has_error:
            raw, filled = _repaired(data, self.source)
            self.unseen = _filled_names(data, filled)
        root = self._convert(raw.walk())
        root.start, root.end = 0, len(data)
        return root

    @property
    def typed(self) -> bool:
        """Whether the file has type annotations: by its ending, or because its first comment says so."""
        return self.annotated or self.source.path.endswith((".ts", ".tsx"))

    @cached_property
    def annotated(self) -> bool:
        """Whether a script says by its first comment that it is annotated with Flow types."""
        first = next((n.start for n in self.root.children if n.type != "comment"), 0)
        return any(c.start < first and "@flow" in c.text for c in self.comments)

    def _convert(self, cursor: TreeCursor) -> Node:
        source, by_type, comments = self.source, self.by_type, self.comments
        data, whole, leaf = source.data, not self._broken, _LEAF
        find = data.find
        new, kinds, fields = Node.__new__, _KINDS, _FIELDS
        down, along, up = cursor.goto_first_child, cursor.goto_next_sibling, cursor.goto_parent
        inner = self._inner.append
        parent: Node | None = None
        siblings: list[Node] = []
        while True:
            raw = cursor.node
            assert raw is not None
            kind, named = kinds[raw.kind_id]
            # Made here and nowhere else: a call for each node would cost a tenth of reading a file.
            node = new(Node)
            node.type, node.named = kind, named
            node.start, node.end = start, end = raw.start_byte, raw.end_byte
            node.field = fields[cursor.field_id or 0]
            node.text_of, node.children, node.parent = source, leaf, parent
            siblings.append(node)
            if named:
                if kind in by_type:
                    by_type[kind].append(node)
                else:
                    by_type[kind] = [node]
            if (whole or kind in _TAGS or find(b"\n", start, end) >= 0) and down():
                node.children = siblings = []
                inner(siblings)
                parent = node
                continue
            if kind == "comment":
                comments.append(node)
            elif kind == "identifier" and data[start:end] == b"this":
                # In a JSX tag the grammar calls it a name.
                by_type["identifier"].pop()
                node.type = "this"
                by_type.setdefault("this", []).append(node)
            while not along():
                if parent is None or not up():
                    return _root(node)
                if siblings[-1].type == "comment":
                    _trim(parent)
                parent = parent.parent
                if parent is None:
                    return _root(node)
                siblings = parent.children

    def at_end(self, release: Callable[[], None]) -> None:
        """Register a callback that releases objects in a reference cycle with this tree."""
        self._ending.append(release)

    def release(self) -> None:
        """Take the nodes apart: as they point at each other, only a collection would let them go."""
        for release in self._ending:
            release()
        self._ending.clear()
        for children in self._inner:
            children.clear()
        self.by_type = {}
        self.remembered.clear()

    def of(self, *kinds: str) -> list[Node]:
        """All nodes of these types, in source order within each type."""
        found: list[Node] = []
        for kind in kinds:
            found += self.by_type.get(kind, ())
        return found


def _root(node: Node) -> Node:
    while node.parent is not None:
        node = node.parent
    return node


def _trim(node: Node) -> None:
    """End a node at its last token: without a semicolon the grammar swallows the comments after."""
    if node.type in ("program", "comment"):
        return
    for child in reversed(node.children):
        if child.type != "comment":
            node.end = min(node.end, child.end)
            return


def _errors(root: tree_sitter.Node) -> list[tuple[int, int]]:
    found: list[tuple[int, int]] = []
    stack = [root]
    while stack:
        node = stack.pop()
        if node.is_error or node.is_missing:
            found.append((node.start_byte, node.end_byte))
        if node.has_error:
            stack.extend(node.children)
    return sorted(found)


# `@(…)` at the start of a line, up to the end of that line.
_DECORATOR = re.compile(rb"^[ \t]*@(\([^\n'\"`]*\))[ \t]*$", re.MULTILINE)


# A field of a class that is called like a modifier, without a semicolon behind it.
_NO_MODIFIER = re.compile(rb"^[ \t]*(accessor)(?=[ \t]*[?!]?[ \t]*:)", re.MULTILINE)

# `export x from './x'`: the default of another module under a name, of a proposal that was used for years.
_DEFAULT_ON = re.compile(rb"^export( )[\w$]+( )from\b", re.MULTILINE)


def _with_rare_filled(data: bytes) -> bytearray:
    """The text with a default passed on under a name, decorators in parentheses, and fields called like a
    modifier filled."""
    filled = bytearray(data)
    for found in _DEFAULT_ON.finditer(data):
        for group, brace in ((1, b"{"), (2, b"}")):
            filled[found.start(group) : found.end(group)] = brace
    for found in _DECORATOR.finditer(data):
        filled[found.start(1) : found.end(1)] = b"_" * (found.end(1) - found.start(1))
    for found in _NO_MODIFIER.finditer(data):
        filled[found.start(1) : found.start(1) + 1] = b"_"
    return filled


_NAME = re.compile(rb"[\w$]+")


def _filled_names(data: bytes, filled: bytes) -> frozenset[str]:
    return frozenset(
        found.group().decode()
        for found in _NAME.finditer(data)
        if filled[found.start() : found.end()] != found.group()
    )


def _repaired(data: bytes, source: SourceText) -> tuple[tree_sitter.Tree, bytes]:
    """Parse again with the constructs the grammar trips over replaced by filler of equal length.

    Known ones: a bare `&` in JSX text, a default passed on under a name (`export x from`), a decorator in
    parentheses, which becomes a name, and some of Flow's annotations. Text is always sliced from the
    original. Gives what was parsed as well.
    """
    flow_types = b"@flow" in data[:2000]
    ways = (flow.with_marks_filled, flow.with_types_mended, flow.without_types)
    parser = Parser(_LANGUAGE)
    for way in ways if flow_types else (bytes,):
        filled = _with_rare_filled(way(data))
        raw = parser.parse(bytes(filled))
        if not raw.root_node.has_error:
            return raw, bytes(filled)
    for _ in range(40):
        changed = False
        for start, end in _errors(raw.root_node):
            at = filled.find(b"&", start, max(end, start + 1))
            if at >= 0 and filled[at + 1 : at + 2] != b"&":
                filled[at : at + 1] = b"_"
                changed = True
                break
        if not changed:
            break
        raw = parser.parse(bytes(filled))
        if not raw.root_node.has_error:
            return raw, bytes(filled)
    start, _ = _errors(raw.root_node)[0]
    place = source.place(start)
    advice = (
        "Not all of Flow's annotations are read: write what stands here in another way, or strip it"
        if flow_types
        else "Mend the syntax here first"
    )
    raise InputError(
        "cannot be read as JavaScript or TypeScript",
        advice=advice,
        file=place.file,
        line=place.line,
        column=place.column,
    )
