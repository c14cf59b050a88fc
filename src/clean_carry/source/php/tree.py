"""PHP as nodes with byte offsets of the file that the code stands in."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import tree_sitter_php
from tree_sitter import Language, Parser
from tree_sitter import Node as Raw

from clean_carry.source.expressions.model import Unsayable

_LANGUAGE = Language(tree_sitter_php.language_php_only())
_RETURN = b"return "


@dataclass(frozen=True)
class PhpNode:
    """A node of the grammar; `base` is where the parsed bytes begin in the file."""

    raw: Raw
    base: int

    @property
    def type(self) -> str:
        """The name of the node in the grammar."""
        return self.raw.type

    @property
    def text(self) -> str:
        """The source text."""
        return (self.raw.text or b"").decode("utf-8", "replace")

    @property
    def start(self) -> int:
        """The offset of its first byte."""
        return self.base + self.raw.start_byte

    @property
    def end(self) -> int:
        """The offset behind its last byte."""
        return self.base + self.raw.end_byte

    @property
    def named(self) -> list[PhpNode]:
        """Children that are more than punctuation; comments left out."""
        inner = self.raw.named_children
        return [PhpNode(one, self.base) for one in inner if one.type != "comment"]

    def child(self, field: str) -> PhpNode | None:
        """The child of this role."""
        found = self.raw.child_by_field_name(field)
        return PhpNode(found, self.base) if found is not None else None

    def part(self, field: str) -> PhpNode:
        """The child of this role, which there is. Raises `Unsayable`."""
        found = self.child(field)
        if found is None:
            raise Unsayable(f"`{self.text[:40]}`", self.start)
        return found

    def walk(self) -> Iterator[PhpNode]:
        """This node and all below it."""
        yield self
        for one in self.named:
            yield from one.walk()


def parsed(data: bytes, base: int) -> PhpNode:
    """The root of a stretch of statements. Raises `Unsayable` for what cannot be read."""
    root = Parser(_LANGUAGE).parse(data).root_node
    if root.has_error:
        raise Unsayable("code that cannot be read as PHP", base)
    return PhpNode(root, base)


def expression_in(data: bytes, base: int) -> PhpNode:
    """The node of one expression. Raises `Unsayable`."""
    root = parsed(_RETURN + data + b"\n;", base - len(_RETURN))
    statements = [one for one in root.named if one.type != "empty_statement"]
    if len(statements) != 1 or statements[0].type != "return_statement" or not statements[0].named:
        raise Unsayable(f"`{data.decode('utf-8', 'replace').strip()[:40]}`", base)
    return statements[0].named[0]
