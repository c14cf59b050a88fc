"""A component file on its way: its blocks, what a component out of it needs, and the file that uses it."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from functools import cached_property
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.crossing.lift.align import Part
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.code import CLOSED, is_code
from clean_carry.crossing.lift.selectors import Selectable
from clean_carry.crossing.lift.styles import StyleRule, moved_rules, style_rules
from clean_carry.project.lift.inside.of_jsx import jsx_blocks
from clean_carry.project.lift.inside.of_template import template_blocks
from clean_carry.source.exports import Imported, imported
from clean_carry.source.html.page import PageNode
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.script_style import ScriptStyle, script_style
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.blocks import read_file
from clean_carry.syntaxes.single_file.markup import GLOBALS

JSX = (".jsx", ".tsx", ".js")
SINGLE_FILE = ".vue"
# Names in code that belong to no component.
_KNOWN = GLOBALS | {"window", "document", "console", "encodeURIComponent"}


@dataclass
class ComponentFile:
    """A file that was read. `syntax` is the one that its markup is written in; `roots` are its outermost
    elements, `rules` those of its scoped styles."""

    path: Path
    source: SourceText
    syntax: str
    tree: Tree
    names: Names
    roots: list[Block] = field(default_factory=list)
    rules: list[StyleRule] = field(default_factory=list)
    # Why no block of it can be lifted; "" where some can.
    unread: str = ""
    dropped: list[tuple[int, int]] = field(default_factory=list)
    script: TemplateNode | None = None
    styles: tuple[TemplateNode, ...] = ()

    @classmethod
    def read(cls, path: Path) -> ComponentFile:
        """Read a component file. Raises `InputError`."""
        source = SourceText.read(path)
        if path.suffix in JSX:
            tree = Tree(source)
            made = cls(path, source, "jsx-function", tree, Names(tree))
            made.roots = jsx_blocks(tree, made.is_open)
            return made
        blocks = read_file(source)
        if blocks.template is None or blocks.refusal is not None:
            raise InputError("holds no template that can be read", file=str(path))
        start, end = blocks.script.inner if blocks.script is not None else (0, 0)
        view = bytes(b if start <= at < end or b == 10 else 32 for at, b in enumerate(source.data))
        tree = Tree(source, view)
        flat = blocks.script is None or blocks.script.attribute("setup") is not None
        syntax = "single-file-flat" if flat else "single-file-object"
        made = cls(path, source, syntax, tree, Names(tree))
        made.script, made.styles = blocks.script, blocks.styles
        made.roots = [template_blocks(blocks.template, source, made.is_open)]
        for style in blocks.styles:
            if style.attribute("scoped") is None:
                continue
            text = source.slice(*style.inner)
            made.rules += style_rules(text, style.inner[0], made.selectable)
        return made

    @cached_property
    def selectable(self) -> Selectable:
        """The blocks by selectors."""
        body = Block("body", node=PageNode("element", 0, 0, "body"))
        body.children = list(self.roots)
        return Selectable(body)

    @cached_property
    def style(self) -> ScriptStyle:
        """How its script is written."""
        return script_style(self.tree, self.path)

    @property
    def lang(self) -> str:
        """The language of its script where it is not the plain one."""
        one = self.script.attribute("lang") if self.script is not None else None
        return self.source.slice(*one.value) if one is not None and one.value is not None else ""

    # -- names ---------------------------------------------------------------------------

    def is_open(self, code: str, _at: int) -> bool:
        """Whether code names what belongs to the component: more than globals and, where the markup sees
        them, imports."""
        free = free_names(code)
        return any(name in ("this", "?") or self.imported(name) is None for name in free)

    def imported(self, name: str) -> Imported | None:
        """The import of a name that the markup sees."""
        if self.syntax == "single-file-object":
            return None
        return imported(self.tree, name)

    def imports(self, names: set[str], folder: Path) -> tuple[str, set[str]]:
        """The statements that import some names in a file of a folder, and the names that none gives."""
        quote, end = self.style.quote, self.style.semicolon
        lines: dict[str, list[str]] = {}
        missing = set()
        for name in sorted(names):
            found = imported(self.tree, name)
            if found is None:
                missing.add(name)
                continue
            request = _from(found.request, self.path.parent, folder)
            lines.setdefault(request, []).append(_clause(name, found.name))
        text = ""
        for request, clauses in lines.items():
            plain = [one for one in clauses if not one.startswith("{")]
            named = [one[2:-2] for one in clauses if one.startswith("{")]
            for one in plain[1:]:
                text += f"import {one} from {quote}{request}{quote}{end}\n"
            both = plain[:1] + ([f"{{ {', '.join(named)} }}"] if named else [])
            text += f"import {', '.join(both)} from {quote}{request}{quote}{end}\n"
        return text, missing

    def template_needs(self, part: Part) -> set[str]:
        """The imported names that the markup of a part uses: components, and names in its code."""
        found: set[str] = set()
        for one in part.walk():
            for block in one.blocks.values():
                name = re.sub(r"(?:^|-)(\w)", lambda match: match[1].upper(), block.tag)
                if imported(self.tree, name) is not None:
                    found.add(name)
                for value in (block.text, *block.attributes.values()):
                    if value is not None and value[:1] == CLOSED:
                        found |= free_names(value[1:])
        return found

    # -- styles --------------------------------------------------------------------------

    def scoped_styles(self, copies: list[Block]) -> tuple[str, str]:
        """The rules of scoped styles that reach the copies, and why they cannot go along ("" where they
        can). Rules for nothing else leave the file; the others stand in both."""
        inside = {id(one) for copy in copies for one in copy.walk()} - {id(one) for one in copies}
        scoped = [one for one in self.styles if one.attribute("scoped") is not None]
        if not scoped:
            return "", ""
        if any(one.attribute("lang") is not None for one in scoped):
            return "", "its scoped styles are written in another language than CSS"
        bound = any(
            is_code(value)
            for copy in copies
            for one in copy.walk()
            for name, value in one.attributes.items()
            if name == "class"
        )
        if bound:
            return "", "its scoped styles may reach class names that code gives"
        own = [one for one in copies if one.source is self.source]
        moved = moved_rules(self.rules, own)
        found = []
        for rule in self.rules:
            if rule in moved:
                self.dropped.append(self._lines(rule.start, rule.end))
            elif not rule.reaches & inside:
                continue
            found.append(self.source.slice(rule.start, rule.end).strip())
        return "\n".join(found), ""

    def _lines(self, start: int, end: int) -> tuple[int, int]:
        data = self.source.data
        begin = len(data[:start].rstrip()) if data[:start].rstrip() else start
        return begin, max(begin, len(data[:end].rstrip()))


def drawn_names(text: str) -> set[str]:
    """The names that a file needs from other files."""
    return set(Names(Tree(SourceText("code.tsx", text.encode()))).free) - _KNOWN


def free_names(code: str) -> set[str]:
    """The names that an expression needs from around it; "?" where it cannot be read."""
    try:
        tree = Tree(SourceText("code.tsx", f"({code})".encode()))
        if any(node.type == "ERROR" for node in tree.root.walk()):
            return {"?"}
    except InputError:
        return {"?"}
    found = set(Names(tree).free) - _KNOWN
    if tree.of("this"):
        found.add("this")
    return {one for one in found if one[:1].isalpha() or one[:1] in "_$?"}


def _clause(name: str, export: str) -> str:
    if export == "default":
        return name
    if export == "*":
        return f"* as {name}"
    return f"{{ {name if export == name else f'{export} as {name}'} }}"


def _from(request: str, old: Path, new: Path) -> str:
    """A request as a file of another folder makes it."""
    if not request.startswith(".") or old.resolve() == new.resolve():
        return request
    target = (old / request).resolve()
    for up, base in enumerate([new.resolve(), *new.resolve().parents]):
        if target.is_relative_to(base):
            lead = "../" * up or "./"
            return re.sub(r"/$", "", lead + target.relative_to(base).as_posix())
    return request
