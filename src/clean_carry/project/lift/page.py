"""One page on its way: its blocks, the styles that leave it, and the page that uses the new components."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Any

from clean_carry.component.findings import Finding
from clean_carry.component.spans import Place
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.groups import Group
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.crossing.lift.selectors import Selectable
from clean_carry.crossing.lift.styles import StyleRule, moved_rules, style_rules
from clean_carry.crossing.lift.wording import camel, plural
from clean_carry.project.lift.composed import drop_row
from clean_carry.project.lift.literals import data_list, literal
from clean_carry.project.lift.single_file import Lifted
from clean_carry.source.html.display import BLOCKS
from clean_carry.source.html.page import Page, PageNode, read_page
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.markup.as_single_file import Written, page_as_single_file
from clean_carry.syntaxes.markup.edits import MarkupEdits
from clean_carry.syntaxes.markup.rules import RULES
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# So many copies in a row become a loop over a list of data.
ROW = 3


@dataclass
class PageLift:
    """A page that was read."""

    path: Path
    source: SourceText
    page: Page
    root: Block
    selectable: Selectable
    rules: list[StyleRule]
    dropped: list[tuple[int, int]] = field(default_factory=list)

    @classmethod
    def read(cls, path: Path) -> PageLift:
        """Read a page. Raises `InputError`."""
        source = SourceText.read(path)
        page = read_page(source)
        root = page_blocks(source, page)
        selectable = Selectable(root)
        rules: list[StyleRule] = []
        for node in page.html.walk():
            if node.tag == "style" and node.attribute("media") is None and node.children:
                rules += style_rules(source.slice(*node.inner), node.inner[0], selectable)
        return cls(path, source, page, root, selectable, rules)

    @property
    def roots(self) -> list[Block]:
        """Where groups are looked for: the body."""
        return [self.root]

    def take_styles(self, copies: list[Block]) -> str:
        """The rules that move with a component; they leave the page."""
        own = [one for one in copies if one.source is self.source]
        found = []
        for rule in moved_rules(self.rules, own) if own else ():
            stretch = self._lines(rule.start, rule.end)
            if stretch not in self.dropped:
                self.dropped.append(stretch)
            found.append(self.source.slice(rule.start, rule.end).strip())
        return "\n".join(found)

    def _lines(self, start: int, end: int) -> tuple[int, int]:
        """A stretch with the rest of its lines, where nothing else stands in them."""
        data = self.source.data
        before = data.rfind(b"\n", 0, start) + 1
        behind = data.find(b"\n", end)
        if behind >= 0 and not data[before:start].strip() and not data[end:behind].strip():
            return before, behind + 1
        return start, end

    def refusal(self) -> Finding | None:
        """Why the page cannot be a component; None where it can."""
        try:
            page_as_single_file(self.source, Workspace(self.path), self.page, None)
        except NotAFile as reason:
            return self._finding(reason.rule, reason.detail, self.source.place(reason.at))
        return None

    def _finding(self, rule: str, detail: str, place: Place) -> Finding:
        return Finding.of(RULES[rule], place.file, place.line, place.column, detail)

    def text(self, used: list[tuple[Lifted, Group]], *, setup: bool) -> tuple[str, list[Finding]]:
        """The page as a single file that uses the components, with findings. Raises `NotAFile`.

        `setup` says that data stand among the statements of the component, and not in front of it.
        """
        markup = MarkupEdits(self.source)
        taken: set[str] = set()
        data: list[str] = []
        for made, group in used:
            places = {id(one): (at,) for at, one in enumerate(group.copies)}
            mine = [one for one in group.copies if one.source is self.source]
            for row in rows_of(mine):
                if len(row) >= ROW:
                    name = plural(camel_of(made.name))
                    name = free_name(name, taken)
                    rows = [made.row(places[id(one)]) for one in row]
                    data.append(data_list(name, rows))
                    self._loop(markup, made, row, name, made.key(places[id(one)] for one in row))
                else:
                    for one in row:
                        indent = self._indent(one.node)
                        held = partial(_held, data, taken, made.name)
                        markup.instead[id(one.node)] = made.use(places[id(one)], indent, held)
        imports = "".join(f"import {made.name} from './{made.name}.vue';\n" for made, _ in used)
        lists = "\n".join(data)
        if setup:
            lead = "\n".join(part for part in (imports, lists) if part)
            lead = f"<script setup>\n{lead}</script>\n"
        else:
            lead = f"<script>\n{lists}</script>\n\n" if lists else ""
            lead += f"<script setup>\n{imports}</script>\n"
        workspace = Workspace(self.path)
        written = Written(markup, lead, self.dropped)
        text = page_as_single_file(self.source, workspace, self.page, written)
        notes = [self._finding(rule, detail, text.place(at)) for rule, detail, at in text.noted]
        copies = [one for _, group in used for one in group.copies if one.source is self.source]
        for part in (part for one in copies for part in one.walk() if part.tag):
            for one in part.node.attributes:
                if re.match(r"on[a-z]+$", one.name.lower()) and one.value is not None:
                    shown = self.source.slice(one.start, one.end)
                    place = self.source.place(one.start)
                    notes.append(self._finding("inline-handler", shown, place))
        return text.data.decode(), notes

    def _loop(
        self, markup: MarkupEdits, made: Lifted, row: list[Block], name: str, key: str
    ) -> None:
        """One tag for a row of copies, or for what stands around each of them."""
        first = row[0]
        item = camel_of(made.name)
        names, said = (item, f"{item}.{key}") if key else (f"({item}, index)", "index")
        loop = [f'v-for="{names} in {name}"', f':key="{said}"']
        unit = unit_of(row)
        nodes = [around_of(one, unit).node for one in row]
        parent = around_of(first, unit).parent
        assert parent is not None
        indent = self._indent(first.node)
        markup.instead[id(first.node)] = made.use_each(item, loop if unit == 0 else [], indent)
        if unit:
            at = nodes[0].start + 1 + len(nodes[0].tag.encode())
            markup.edits.append(Edit(at, at, f" {' '.join(loop)}"))
        drop_row(markup, parent.node, nodes)

    def _indent(self, node: PageNode) -> str:
        line = self.source.data[: node.start].rpartition(b"\n")[2].decode("utf-8", "replace")
        return line[: len(line) - len(line.lstrip())]


def _held(data: list[str], taken: set[str], component: str, prop: str, value: Any) -> str:
    """Keep a list of data, and return the name it has."""
    name = free_name(f"{camel_of(component)}{prop[:1].upper()}{prop[1:]}", taken)
    data.append(f"const {name} = {literal(value)};\n")
    return name


def free_name(name: str, taken: set[str]) -> str:
    """A name that is not taken; it is taken from then on."""
    wishes = (name, *(f"{name}{n}" for n in range(2, 10_000)))
    found = next(one for one in wishes if one not in taken)
    taken.add(found)
    return found


def camel_of(name: str) -> str:
    """A component's name as a variable has it: `islandCard`."""
    return camel(name) if name.isupper() else name[:1].lower() + name[1:]


def rows_of(copies: list[Block]) -> list[list[Block]]:
    """Copies by the rows they stand in: next to each other, or each in a wrapper that is the same."""
    rows: list[list[Block]] = []
    for one in copies:
        if rows and _follows(rows[-1], one):
            rows[-1].append(one)
        else:
            rows.append([one])
    return rows


def _follows(row: list[Block], one: Block) -> bool:
    for unit in (0, 1, 2):
        before, here = around_of(row[-1], unit), around_of(one, unit)
        first = around_of(row[0], unit)
        if _is_next(before, here) and (unit == 0 or _same_tag(first, here)):
            return len(row) == 1 or unit_of(row) == unit
        outer = before.parent
        if outer is None or len(outer.children) > 1:
            return False
    return False


def unit_of(row: list[Block]) -> int:
    """How many wrappers of each copy are repeated with it."""
    for unit in (0, 1, 2):
        if around_of(row[0], unit).parent is around_of(row[1], unit).parent:
            return unit
    return 0


def around_of(block: Block, steps: int) -> Block:
    """The block so many steps outside of one."""
    for _ in range(steps):
        block = block.parent or block
    return block


def _is_next(before: Block, here: Block) -> bool:
    parent = before.parent
    if parent is None or parent is not here.parent:
        return False
    at = next(n for n, one in enumerate(parent.children) if one is before)
    if at + 1 >= len(parent.children) or parent.children[at + 1] is not here:
        return False
    between: bytes = before.source.data[before.node.end : here.node.start]
    return not between.strip() and (before.tag in BLOCKS or not between)


def _same_tag(first: Block, here: Block) -> bool:
    return first.tag == here.tag and first.attributes == here.attributes
