"""One file, parsed once for all that look for facts in it."""

from __future__ import annotations

from functools import cached_property

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks, read_markup
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import filled, marks_of

SCRIPTS = (".js", ".jsx", ".ts", ".tsx", ".mjs", ".cjs")
SINGLE_FILES = (".vue",)
PAGES = (".html", ".htm")
VIEWS = (".blade.php",)


class Parsed:
    """A file with what its ending says it holds: a script, blocks of a single file, markup, or a view.

    Everything is parsed on first use; each part raises `InputError` where it cannot be read.
    """

    def __init__(self, source: SourceText) -> None:
        self.source = source
        ending = source.path[source.path.rfind(".") :].lower()
        self.is_script = ending in SCRIPTS
        self.is_single_file = ending in SINGLE_FILES
        self.is_page = ending in PAGES
        self.is_view = source.path.lower().endswith(VIEWS)

    @cached_property
    def blocks(self) -> list[TemplateNode]:
        """The blocks of a single file."""
        return read_blocks(self.source) if self.is_single_file else []

    @cached_property
    def tree(self) -> Tree | None:
        """The script; of a single file all of its script blocks. None for markup."""
        if self.is_script:
            return Tree(self.source)
        if not self.is_single_file:
            return None
        scripts = [block.inner for block in self.blocks if block.tag == "script"]
        return Tree(self.source, bytes(self.source.blanked(scripts)))

    @cached_property
    def names(self) -> Names | None:
        """The names of the script."""
        return Names(self.tree) if self.tree is not None else None

    @cached_property
    def markup(self) -> list[TemplateNode]:
        """The nodes of a page or view, or of the template block of a single file."""
        if self.is_page:
            return read_markup(self.source, 0, len(self.source.data), loose=True)
        if self.is_view:
            plain = filled(self.source.data, marks_of(self.source.data))
            return read_markup(SourceText(self.source.path, plain), 0, len(plain), loose=True)
        templates = [block for block in self.blocks if block.tag == "template"]
        return [node for block in templates for node in block.children]

    def line(self, offset: int) -> int:
        """The line of an offset."""
        return self.source.line_of(offset)

    def release(self) -> None:
        """Take the tree apart."""
        tree = self.__dict__.get("tree")
        if tree is not None:
            tree.release()
