"""Blocks of pages as single files: the component of a group, its uses, and the page that holds them."""

from __future__ import annotations

import html
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.props import Looped, Plan, Prop, text_ends
from clean_carry.source.html.display import BLOCKS, SPACE
from clean_carry.source.html.page import PageNode
from clean_carry.source.merged import Edit
from clean_carry.syntaxes.markup.edits import MarkupEdits

# Lines of data and of tags are broken from this length on.
_WIDE = 100
# Lists of data stand in tags up to this length.
_SHORT = 60
# Elements whose line breaks show.
# A space at the end of an element in a line, which compilers of templates would drop.
_SPACE = "{{ ' ' }}"
_AS_WRITTEN = re.compile(r"<(?:pre|textarea)\b")


@dataclass(frozen=True)
class Lifted:
    """A component that was lifted: its name, the plan of its props, and its template."""

    name: str
    plan: Plan
    part: Part

    def text(self, styles: str = "", *, scoped: bool = True, passes_on: bool = True) -> str:
        """The component as a single file. Raises `NotAFile` where no template says what its markup does.

        `passes_on` says whether it takes attributes that it does not declare.
        """
        script = "" if passes_on else "defineOptions({ inheritAttrs: false });\n"
        if self.plan.props:
            rows = "".join(f"  {_name(one.name)}: {_declared(one)},\n" for one in self.plan.props)
            script += f"defineProps({{\n{rows}}});\n"
        inner = _indented(_Template(self.plan).text(self.part), "  ")
        head = f"<script setup>\n{script}</script>\n\n" if script else ""
        mark = " scoped" if scoped else ""
        tail = f"\n<style{mark}>\n{styles}\n</style>\n" if styles else ""
        return f"{head}<template>\n{inner}\n</template>\n{tail}"

    def use(self, place: Place, indent: str, held: Callable[[str, Any], str]) -> str:
        """The tag that stands for a copy; `indent` is that of its line. `held` keeps a long list of data
        under a name like the one given, and returns that."""
        given = []
        for prop in self.plan.props:
            value = prop.values.get(place)
            if value is not None and prop.type == "Array":
                text = literal(value)
                if len(text) > _SHORT or "&" in text or '"' in text:
                    text = held(prop.name, value)
                given.append(f':{_dashed(prop.name)}="{text}"')
            elif value is not None:
                given.append(_passed(prop, value))
        return _tag(self.name, [one for one in given if one], indent)

    def use_each(self, item: str, loop: list[str], indent: str) -> str:
        """The tag that stands for a row of copies: its data are the fields of `item`."""
        given = [f':{_dashed(one.name)}="{item}.{one.name}"' for one in self.plan.props]
        if len(given) > 3:
            given = [f'v-bind="{item}"']
        return _tag(self.name, [*loop, *given], indent)

    def row(self, place: Place) -> dict[str, Any]:
        """The data of a copy."""
        return {one.name: one.values[place] for one in self.plan.props if place in one.values}

    def key(self, places: Iterable[Place]) -> str:
        """The prop that tells some copies apart; "" where none does."""
        rows = [self.row(place) for place in places]
        for one in self.plan.props:
            values = [row.get(one.name) for row in rows]
            if one.type == "String" and all(values) and len(set(values)) == len(values):
                return one.name
        return ""


class _Template:
    def __init__(self, plan: Plan) -> None:
        self.plan = plan

    def text(self, part: Part, place: Place | None = None, extra: str = "") -> str:
        """The markup of a part as a template's; `extra` are attributes that its tag gets."""
        if place is None or place not in part.blocks:
            base = part.base
            place = next(at for at, block in part.blocks.items() if block is base)
        block = part.blocks[place]
        markup = MarkupEdits(block.source)
        self._fill(markup, part, place)
        markup.element(block.node)
        edits = markup.edits
        if extra:
            at = block.node.start + 1 + len(block.node.tag.encode())
            edits.append(Edit(at, at, f" {extra}"))
        return applied(block, edits)

    def _fill(self, markup: MarkupEdits, part: Part, place: Place) -> None:
        """Put what differs in the places of an element and of what is in it."""
        node = part.blocks[place].node
        for name, code in self.plan.attributes.get(id(part), ()):
            written = f':{name}="{_quoted(code)}"'
            one = next((a for a in node.attributes if _is_named(a.name, name, node)), None)
            if one is not None:
                markup.attributes[id(one)] = written
            else:
                at = node.start + 1 + len(node.tag.encode())
                markup.edits.append(Edit(at, at, f" {written}"))
        last: PageNode | None = None
        for child in part.children:
            here = child.blocks.get(place)
            if child.item is not None and id(child) not in self.plan.lists:
                last = child.runs[place][-1].node
                continue
            if child.item is not None:
                text = self._list(child, place)
                run = child.runs.get(place, [])
                for one in run[1:]:
                    markup.instead[id(one.node)] = ""
                _drop_between(markup, node, run)
            elif not child.tag:
                shown = self._text(child, place)
                if shown is None and here is not None:
                    last = here.node
                    continue
                text = shown or ""
            elif child.optional:
                text = self._optional(child, place, markup, node)
            else:
                self._fill(markup, child, place)
                last = child.blocks[place].node
                continue
            if here is not None:
                markup.instead[id(here.node)] = text
                last = child.runs[place][-1].node if child.item is not None else here.node
            else:
                self._insert(markup, node, last, child, text)

    def _optional(self, child: Part, place: Place, markup: MarkupEdits, node: PageNode) -> str:
        """A part under its condition, with the space before it where that shows without the part."""
        head = f'v-if="{_quoted(self.plan.conditions[id(child)])}"'
        here = child.blocks.get(place)
        first = node.children[0] if node.children else None
        if here is None or first is None or first.kind != "text" or node.tag in BLOCKS:
            return self.text(child, place, head)
        if markup.data[first.start : first.end].strip() or first.end != here.node.start:
            return self.text(child, place, head)
        markup.instead[id(first)] = ""
        return f"<template {head}>{_SPACE}{self.text(child, place)}</template>"

    def _insert(
        self, markup: MarkupEdits, node: PageNode, last: PageNode | None, child: Part, text: str
    ) -> None:
        """Add a part that the copied text lacks, behind the one before it, with the space before it."""
        at = last.end if last is not None else node.inner[0]
        block = child.base
        data = block.source.data
        start = block.node.start
        space = data[len(data[:start].rstrip(b" \t\n\r")) : start].decode()
        if "\n" in space:
            lines = markup.data[:at].rpartition(b"\n")[2]
            own = lines[: len(lines) - len(lines.lstrip())].decode()
            space = f"\n{own}" if last is not None else f"\n{own}  "
        markup.edits.append(Edit(at, at, space + text))

    def _text(self, child: Part, place: Place) -> str | None:
        """The text, or None where it is the same in all copies."""
        code = self.plan.texts.get(id(child))
        block = child.blocks.get(place) or child.base
        raw = block.source.slice(block.node.start, block.node.end)
        flag = self.plan.conditions.get(id(child))
        if code is None:
            if flag is None:
                return None
            shown = html.unescape(raw).replace("\\", "\\\\").replace("'", "\\'")
            shown = re.sub(r"\s+", " ", shown)
            return f"{{{{ {flag} ? '{_quoted(shown)}' : '' }}}}"
        ends = text_ends(child)
        if ends is None:
            return f"{{{{ {code} }}}}"
        lead = raw[: len(raw) - len(raw.lstrip(SPACE))]
        tail = raw[len(raw.rstrip(SPACE)) :]
        before, behind = (
            space if shown is None else (space or " ") if shown else ""
            for shown, space in zip(ends, (lead, tail), strict=True)
        )
        parent = block.parent
        assert parent is not None
        inline = parent.tag not in BLOCKS
        if ends[0] and parent.children[0] is block:
            before = _SPACE if inline else " "
        if ends[1] and parent.children[-1] is block:
            # In a block a part that stands behind it in other copies brings the space with it.
            behind = _SPACE if inline else ""
        return f"{before}{{{{ {code} }}}}{behind}"

    def _list(self, child: Part, place: Place) -> str:
        loop: Looped = self.plan.lists[id(child)]
        assert child.item is not None
        inner = _Template(loop.plan)
        run = child.runs.get(place)
        at = (*place, 0) if run else None
        spaced = _is_spaced(child)
        index = "" if loop.key and not spaced else "index"
        names = f"({loop.name}, {index})" if index else loop.name
        head = f'v-for="{names} in {_quoted(loop.items)}" :key="{loop.key or index}"'
        if not spaced:
            return inner.text(child.item, at, head)
        return (
            f"<template {head}>{{{{ {index} ? ' ' : '' }}}}{inner.text(child.item, at)}</template>"
        )


def applied(block: Block, edits: list[Edit]) -> str:
    """The text of a block after edits within it."""
    node = block.node
    parts, here = [], node.start
    for edit in sorted(edits, key=lambda one: (one.start, one.end)):
        parts += [block.source.slice(here, edit.start), edit.text]
        here = max(here, edit.end)
    return "".join([*parts, block.source.slice(here, node.end)])


def _is_named(written: str, name: str, node: PageNode) -> bool:
    """Whether an attribute has a name; in drawings the case counts."""
    return (written if node.foreign else written.lower()) == name


def _is_spaced(part: Part) -> bool:
    """Whether white space between the items of a list shows: they stand in a line."""
    assert part.item is not None
    if part.item.tag in BLOCKS:
        return False
    for run in part.runs.values():
        for one, other in pairwise(run):
            between: bytes = one.source.data[one.node.end : other.node.start]
            if not between.strip(b" \t\n\r"):
                return bool(between)
    return False


def _drop_between(markup: MarkupEdits, parent: PageNode, run: list[Block]) -> None:
    """White space and comments between the items of a list go."""
    if len(run) < 2:
        return
    start, end = run[0].node.end, run[-1].node.start
    for node in parent.children:
        if node.kind != "element" and start <= node.start and node.end <= end:
            markup.instead[id(node)] = ""


def drop_row(markup: MarkupEdits, parent: PageNode, row: list[PageNode]) -> None:
    """All but the first of some siblings go, with the white space between them."""
    for node in row[1:]:
        markup.instead[id(node)] = ""
    for node in parent.children:
        if node.kind != "element" and row[0].end <= node.start and node.end <= row[-1].start:
            markup.instead[id(node)] = ""


# -- spelling ----------------------------------------------------------------------------


def _tag(name: str, given: list[str], indent: str) -> str:
    one_line = f"<{' '.join([name, *given])} />"
    if len(indent) + len(one_line) <= _WIDE or len(given) < 2:
        return one_line
    lines = "".join(f"\n{indent}  {one}" for one in given)
    return f"<{name}{lines}\n{indent}/>"


def _passed(prop: Prop, value: Any) -> str:
    name = _dashed(prop.name)
    if prop.type == "Boolean":
        return name if value else ""
    if prop.type == "String":
        return f'{name}="{_quoted(str(value), raw=True)}"'
    return f':{name}="{literal(value)}"'


def _dashed(name: str) -> str:
    return re.sub(r"(?<=[a-z0-9])([A-Z])", lambda found: f"-{found[1].lower()}", name)


def _quoted(code: str, *, raw: bool = False) -> str:
    """Text within the double quotes of an attribute."""
    return (
        code.replace("&", "&amp;").replace('"', "&quot;")
        if raw or "&" in code
        else code.replace('"', "&quot;")
    )


def _name(name: str) -> str:
    return name if name.isidentifier() else f"'{name}'"


def _declared(prop: Prop) -> str:
    return f"{{ type: {prop.type}, required: true }}" if prop.required else prop.type


def literal(value: Any, indent: str = "") -> str:
    """A value as JavaScript writes it; objects and lists over lines where they are long."""
    match value:
        case bool():
            return "true" if value else "false"
        case int():
            return str(value)
        case str():
            plain = value.replace("\\", "\\\\").replace("'", "\\'").replace("\n", "\\n")
            return f"'{plain}'"
        case dict():
            pairs = [(_name(key), one) for key, one in value.items()]
            short = "{ " + ", ".join(f"{key}: {literal(one)}" for key, one in pairs) + " }"
            if len(indent) + len(short) <= _WIDE or not pairs:
                return short if pairs else "{}"
            inner = f"{indent}  "
            rows = "".join(f"{inner}{key}: {literal(one, inner)},\n" for key, one in pairs)
            return f"{{\n{rows}{indent}}}"
    short = "[" + ", ".join(literal(one) for one in value) + "]"
    if len(indent) + len(short) <= _WIDE:
        return short
    inner = f"{indent}  "
    return "[\n" + "".join(f"{inner}{literal(one, inner)},\n" for one in value) + f"{indent}]"


def data_list(name: str, rows: Sequence[Mapping[str, Any]]) -> str:
    """The statement that declares the data of a row of copies."""
    lines = "".join(f"  {literal(dict(row), '  ')},\n" for row in rows)
    return f"const {name} = [\n{lines}];\n"


def _indented(text: str, indent: str) -> str:
    """A text whose first line stands at `indent`, and the others as they stood to its last one."""
    lines = text.split("\n")
    if _AS_WRITTEN.search(text) or len(lines) == 1:
        return indent + text
    own = min((len(line) - len(line.lstrip()) for line in lines[1:] if line.strip()), default=0)
    moved = [f"{indent}{line[own:]}" if line.strip() else "" for line in lines[1:]]
    return "\n".join([indent + lines[0], *moved])
