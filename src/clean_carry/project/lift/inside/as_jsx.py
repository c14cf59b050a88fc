"""A component lifted out of JSX: a function."""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.code import code_of, is_code
from clean_carry.crossing.lift.props import Looped, Plan, Prop
from clean_carry.project.lift.composed import Composed, is_spaced
from clean_carry.project.lift.inside.of_jsx import HTML_NAMES
from clean_carry.project.lift.inside.parts import shown_part
from clean_carry.project.lift.inside.spot import SpotEdits
from clean_carry.project.lift.literals import WIDE, literal
from clean_carry.source.html.page import PageNode
from clean_carry.source.javascript.script_style import ScriptStyle
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_WRITTEN = {name: written for written, name in HTML_NAMES.items()}
_TYPES = {
    "String": "string",
    "Boolean": "boolean",
    "Number": "number",
    "Array": "any[]",
    "Any": "any",
}


class Drawing(Composed):
    """Composes the markup of a function from a stretch of JSX."""

    def __init__(self, plan: Plan, unit: str) -> None:
        super().__init__(plan)
        self.unit = unit

    def edits_of(self, source: SourceText) -> SpotEdits:
        """See `Composed`."""
        return SpotEdits(source)

    def attribute(self, name: str, code: str) -> str:
        """See `Composed`."""
        return f"{_WRITTEN.get(name, name)}={{{code}}}"

    def optional(self, child: Part, place: Place, markup: Any, node: PageNode) -> str:
        """See `Composed`."""
        flag = self.plan.conditions[id(child)]
        return f"{{{flag} && {self._framed(child, self.text(child, place), place)}}}"

    def shown(self, child: Part, place: Place) -> str | None:
        """See `Composed`."""

        def braces(code: str) -> str:
            return f"{{{code}}}"

        return shown_part(self.plan, child, place, braces, lambda flag, text: f"{flag} && {text}")

    def repeated(self, child: Part, place: Place) -> str:
        """See `Composed`."""
        loop: Looped = self.plan.lists[id(child)]
        assert child.item is not None
        if is_spaced(child):
            raise NotAFile("template-language", "white space between items", child.base.node.start)
        run = child.runs.get(place)
        at = (*place, 0) if run else None
        names = loop.name if loop.key else f"{loop.name}, index"
        source = loop.items
        if not loop.plan.props and loop.key == loop.name and not loop.plan.texts:
            source, names = f"Array.from({{ length: {loop.items} }})", "_, index"
        key = f"key={{{'index' if 'index' in names else loop.key}}}"
        text = Drawing(loop.plan, self.unit).text(child.item, at, key)
        return f"{{{source}.map(({names}) => {self._framed(child, text, place)})}}"

    def _framed(self, child: Part, text: str, place: Place) -> str:
        """Markup within code: in parentheses and on lines of its own where it has several lines."""
        if "\n" not in text:
            return text
        block = child.blocks.get(place) or child.base
        indent = block.source.indent_at(block.node.start)
        inner = text.replace("\n", f"\n{self.unit}")
        return f"(\n{indent}{self.unit}{inner}\n{indent})"


def jsx_component(
    name: str, plan: Plan, part: Part, imports: str, style: ScriptStyle, *, typed: bool
) -> str:
    """The text of a file with one function that renders the markup."""
    unit, end = style.unit, style.semicolon
    text = reindented(Drawing(plan, unit).text(part), unit * 2)
    names = ", ".join(one.name for one in plan.props)
    if len(names) > WIDE - len(name) - 36:
        names = "".join(f"\n{unit}{one.name}," for one in plan.props) + "\n"
    else:
        names = f" {names} "
    lead = f"{imports}\n" if imports else ""
    given = f"{{{names}}}" if plan.props else ""
    if typed and plan.props:
        rows = "".join(
            f"{unit}{one.name}{'' if one.required else '?'}: {_TYPES[one.type]}{end or ';'}\n"
            for one in plan.props
        )
        lead += f"interface {name}Props {{\n{rows}}}\n\n"
        given += f": {name}Props"
    if "\n" in text:
        body = f"return (\n{unit * 2}{text}\n{unit}){end}"
    else:
        body = f"return {text}{end}"
    return f"{lead}export default function {name}({given}) {{\n{unit}{body}\n}}\n"


def reindented(text: str, indent: str) -> str:
    """Markup whose first line stands at `indent`: the other lines keep their distance to the last one."""
    lines = text.split("\n")
    own = min((len(line) - len(line.lstrip()) for line in lines[1:] if line.strip()), default=0)
    moved = [f"{indent}{line[own:]}" if line.strip() else "" for line in lines[1:]]
    return "\n".join([lines[0], *moved])


def jsx_use(name: str, given: Iterable[str], indent: str, unit: str) -> str:
    """The element that stands for a copy; over several lines where it is long."""
    parts = [one for one in given if one]
    one_line = f"<{' '.join([name, *parts])} />"
    if len(indent) + len(one_line) <= WIDE or len(parts) < 2:
        return one_line
    return f"<{name}{''.join(f'{chr(10)}{indent}{unit}{one}' for one in parts)}\n{indent}/>"


def jsx_passed(prop: Prop, value: Any) -> str:
    """The attribute that gives a prop its value; "" where leaving it out says the same."""
    if isinstance(value, bool):
        return prop.name if value else ""
    if is_code(value):
        return f"{prop.name}={{{code_of(value)}}}"
    if isinstance(value, str) and not re.search(r'["\\\n{}&]', value):
        return f'{prop.name}="{value}"'
    return f"{prop.name}={{{literal(value)}}}"
