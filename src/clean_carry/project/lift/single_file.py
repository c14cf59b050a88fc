"""Blocks of pages as single files: the component of a group, its uses, and the page that holds them."""

from __future__ import annotations

import html
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.code import code_of, is_code
from clean_carry.crossing.lift.props import Looped, Plan, Prop, text_ends
from clean_carry.project.lift.composed import Composed, is_spaced
from clean_carry.project.lift.literals import WIDE, indented, literal, name_of
from clean_carry.source.html.display import BLOCKS, SPACE
from clean_carry.source.html.page import PageNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.markup.edits import MarkupEdits

# Lists of data stand in tags up to this length.
_SHORT = 60
# A space at the end of an element in a line, which compilers of templates would drop.
_SPACE = "{{ ' ' }}"


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
            rows = "".join(f"  {name_of(one.name)}: {declared(one)},\n" for one in self.plan.props)
            script += f"defineProps({{\n{rows}}});\n"
        inner = indented(Template(self.plan).text(self.part), "  ")
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
                given.append(f':{dashed(prop.name)}="{text}"')
            elif value is not None:
                given.append(passed(prop, value))
        return tag(self.name, [one for one in given if one], indent)

    def use_each(self, item: str, loop: list[str], indent: str) -> str:
        """The tag that stands for a row of copies: its data are the fields of `item`."""
        given = [f':{dashed(one.name)}="{item}.{one.name}"' for one in self.plan.props]
        if len(given) > 3:
            given = [f'v-bind="{item}"']
        return tag(self.name, [*loop, *given], indent)

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


class Template(Composed):
    """Composes the template of a component from the markup of a page."""

    def edits_of(self, source: SourceText) -> MarkupEdits:
        """See `Composed`."""
        return MarkupEdits(source)

    def attribute(self, name: str, code: str) -> str:
        """See `Composed`."""
        return f':{name}="{quoted(code)}"'

    def optional(self, child: Part, place: Place, markup: Any, node: PageNode) -> str:
        """A part under its condition, with the space before it where that shows without the part."""
        head = f'v-if="{quoted(self.plan.conditions[id(child)])}"'
        here = child.blocks.get(place)
        first = node.children[0] if node.children else None
        if here is None or first is None or first.kind != "text" or node.tag in BLOCKS:
            return self.text(child, place, head)
        if markup.data[first.start : first.end].strip() or first.end != here.node.start:
            return self.text(child, place, head)
        markup.instead[id(first)] = ""
        return f"<template {head}>{_SPACE}{self.text(child, place)}</template>"

    def shown(self, child: Part, place: Place) -> str | None:
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
            return f"{{{{ {flag} ? '{quoted(shown)}' : '' }}}}"
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

    def repeated(self, child: Part, place: Place) -> str:
        """A list; white space between items that stand in a line is kept."""
        loop: Looped = self.plan.lists[id(child)]
        assert child.item is not None
        inner = type(self)(loop.plan)
        run = child.runs.get(place)
        at = (*place, 0) if run else None
        spaced = is_spaced(child)
        index = "" if loop.key and not spaced else "index"
        names = f"({loop.name}, {index})" if index else loop.name
        head = f'v-for="{names} in {quoted(loop.items)}" :key="{loop.key or index}"'
        if not spaced:
            return inner.text(child.item, at, head)
        return (
            f"<template {head}>{{{{ {index} ? ' ' : '' }}}}{inner.text(child.item, at)}</template>"
        )


# -- spelling ----------------------------------------------------------------------------


def tag(name: str, given: list[str], indent: str) -> str:
    """A tag without content, over several lines where it is long."""
    one_line = f"<{' '.join([name, *given])} />"
    if len(indent) + len(one_line) <= WIDE or len(given) < 2:
        return one_line
    lines = "".join(f"\n{indent}  {one}" for one in given)
    return f"<{name}{lines}\n{indent}/>"


def passed(prop: Prop, value: Any) -> str:
    """The attribute that gives a prop its value; "" where leaving it out says the same."""
    name = dashed(prop.name)
    if isinstance(value, bool):
        return name if value else ""
    if is_code(value):
        return f':{name}="{quoted(code_of(value))}"'
    if isinstance(value, str):
        return f'{name}="{quoted(str(value), raw=True)}"'
    return f':{name}="{literal(value)}"'


def dashed(name: str) -> str:
    """A prop's name as a template writes it."""
    return re.sub(r"(?<=[a-z0-9])([A-Z])", lambda found: f"-{found[1].lower()}", name)


def quoted(code: str, *, raw: bool = False) -> str:
    """Text within the double quotes of an attribute."""
    return (
        code.replace("&", "&amp;").replace('"', "&quot;")
        if raw or "&" in code
        else code.replace('"', "&quot;")
    )


def declared(prop: Prop) -> str:
    """The declaration of a prop; null stands for any type."""
    type_ = "null" if prop.type == "Any" else prop.type
    return f"{{ type: {type_}, required: true }}" if prop.required else type_
