"""A component file that uses the components that were lifted out of it."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from clean_carry.crossing.lift.align import Place
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.code import is_open
from clean_carry.crossing.lift.groups import Group
from clean_carry.crossing.lift.wording import plural
from clean_carry.project.lift.composed import applied
from clean_carry.project.lift.inside.as_jsx import jsx_passed, jsx_use
from clean_carry.project.lift.inside.component_file import ComponentFile
from clean_carry.project.lift.inside.registered import registration
from clean_carry.project.lift.literals import data_list, literal
from clean_carry.project.lift.page import (
    ROW,
    around_of,
    camel_of,
    free_name,
    rows_of,
    unit_of,
)
from clean_carry.project.lift.single_file import Lifted, dashed, passed, quoted, tag
from clean_carry.source.merged import Edit

# Lists of data stand in tags up to this length.
_SHORT = 60


class FileUses:
    """Collects the changes of one file. `used` are the components it uses now."""

    def __init__(self, file: ComponentFile, into: Path) -> None:
        self.file, self.into = file, into
        self.source = file.source
        self.used: list[str] = []
        self.data: list[str] = []
        self.edits: list[Edit] = []
        self.taken = set(file.names.module.names)
        self.jsx = file.syntax == "jsx-function"

    def put(self, made: Lifted, group: Group) -> None:
        """Put the component in the places of a group's copies in this file."""
        self.used.append(made.name)
        places: dict[int, Place] = {id(one): (at,) for at, one in enumerate(group.copies)}
        mine = [one for one in group.copies if one.source is self.source]
        for row in rows_of(mine):
            if len(row) >= ROW and self._is_data(made, row, places):
                self._loop(made, row, places)
                continue
            for one in row:
                text = self._use(made, one, places[id(one)])
                self.edits.append(Edit(one.node.start, one.node.end, text))

    # -- one by one ----------------------------------------------------------------------

    def _use(self, made: Lifted, one: Block, place: Place) -> str:
        given = [self.source.slice(*stretch) for stretch in one.node.around]
        for prop in made.plan.props:
            value = prop.values.get(place)
            if value is None:
                continue
            if isinstance(value, list):
                given.append(self._list(made, prop.name, value))
            else:
                given.append(jsx_passed(prop, value) if self.jsx else passed(prop, value))
        return self._tag(made.name, given, self.source.indent_at(one.node.start))

    def _list(self, made: Lifted, name: str, value: Any) -> str:
        text = literal(value, self.source.indent_at(0))
        if len(text) > _SHORT and not _holds_open(value) and self._keeps_data:
            name_of = free_name(f"{camel_of(made.name)}{name[:1].upper()}{name[1:]}", self.taken)
            self.data.append(f"const {name_of} = {literal(value)}{self.file.style.semicolon}\n")
            text = name_of
        return f"{name}={{{text}}}" if self.jsx else f':{dashed(name)}="{quoted(text)}"'

    @property
    def _keeps_data(self) -> bool:
        """Whether markup of the file sees constants of its script."""
        return self.file.syntax != "single-file-object"

    def _tag(self, name: str, given: list[str], indent: str) -> str:
        parts = [one for one in given if one]
        if self.jsx:
            return jsx_use(name, parts, indent, self.file.style.unit)
        return tag(name, parts, indent)

    # -- rows ----------------------------------------------------------------------------

    def _is_data(self, made: Lifted, row: list[Block], places: dict[int, Place]) -> bool:
        """Whether the copies of a row are data: nothing in them belongs to the component around."""
        unit = unit_of(row)
        if not self._keeps_data or any(one.node.around for one in row):
            return False
        if any(around_of(one, n).conditional for one in row for n in range(1, unit + 1)):
            return False
        return not any(_holds_open(made.row(places[id(one)])) for one in row)

    def _loop(self, made: Lifted, row: list[Block], places: dict[int, Place]) -> None:
        list_name = free_name(plural(camel_of(made.name)), self.taken)
        rows = [made.row(places[id(one)]) for one in row]
        text = data_list(list_name, rows)
        end = self.file.style.semicolon
        self.data.append(text if end else text.replace("];\n", "]\n"))
        item = camel_of(made.name)
        key = made.key(places[id(one)] for one in row)
        unit = unit_of(row)
        outer = [around_of(one, unit) for one in row]
        first = row[0]
        names, said = (item, f"{item}.{key}") if key else (f"{item}, index", "index")
        indent = self.source.indent_at(first.node.start)
        if self.jsx:
            loop = [f"key={{{said}}}"]
            fields = [one.name for one in made.plan.props]
            spread = [f"{name}={{{item}.{name}}}" for name in fields]
            given = spread if len(fields) <= 3 else [f"{{...{item}}}"]
        else:
            names = f"({names})" if "," in names else names
            loop = [f'v-for="{names} in {list_name}"', f':key="{said}"']
            given = [f':{dashed(one.name)}="{item}.{one.name}"' for one in made.plan.props]
            given = given if len(given) <= 3 else [f'v-bind="{item}"']
        use = self._tag(made.name, [*(loop if unit == 0 else []), *given], indent)
        whole = use
        if unit:
            block = outer[0]
            at = block.node.start + 1 + len(block.node.tag.encode())
            edits = [
                Edit(at, at, f" {' '.join(loop)}"),
                Edit(first.node.start, first.node.end, use),
            ]
            whole = applied(block, edits)
        if self.jsx:
            whole = self._mapped(
                list_name, names, whole, self.source.indent_at(outer[0].node.start)
            )
        self.edits.append(Edit(outer[0].node.start, outer[-1].node.end, whole))

    def _mapped(self, list_name: str, names: str, text: str, indent: str) -> str:
        unit = self.file.style.unit
        inner = text.replace("\n", f"\n{unit}")
        return f"{{{list_name}.map(({names}) => (\n{indent}{unit}{inner}\n{indent}))}}"

    # -- the file ------------------------------------------------------------------------

    def text(self) -> str:
        """The file with the components in their places, and what their use needs in its script."""
        edits = [*self.edits, *(Edit(a, b, "") for a, b in dict.fromkeys(self.file.dropped))]
        edits += self._script()
        data, parts, here = self.source.data, list[str](), 0
        for edit in sorted(edits, key=lambda one: (one.start, one.end)):
            parts += [data[here : edit.start].decode(), edit.text]
            here = max(here, edit.end)
        return "".join([*parts, data[here:].decode()])

    def _script(self) -> list[Edit]:
        style = self.file.style
        ending = "" if self.jsx else self.file.path.suffix
        lead = self._lead()
        lines = "".join(
            f"import {name} from {style.quote}{lead}{name}{ending}{style.quote}{style.semicolon}\n"
            for name in self.used
        )
        data = "".join(f"\n{one}" for one in self.data)
        statements = self.file.tree.of("import_statement")
        if statements:
            end = statements[-1].end
            edits = [Edit(end, end, "\n" + (lines + data).rstrip("\n"))]
        elif self.file.script is not None:
            start = self.file.script.inner[0]
            rest = self.source.slice(*self.file.script.inner).strip()
            edits = [Edit(start, start, f"\n{lines}{data}".rstrip("\n") + ("\n" if rest else ""))]
        elif self.jsx:
            directive = next(iter(self.file.tree.root.named_children), None)
            is_first = directive is not None and directive.text[:1] in "'\""
            at = directive.end if directive is not None and is_first else 0
            edits = [Edit(at, at, f"\n{lines}{data}\n" if at else f"{lines}{data}\n")]
        else:
            edits = [Edit(0, 0, f"<script setup>\n{lines}{data}</script>\n\n")]
        if self.file.syntax == "single-file-object":
            edits.append(registration(self.file, self.used))
        return edits

    def _lead(self) -> str:
        here, there = self.file.path.parent.resolve(), self.into.resolve()
        for up, base in enumerate([here, *here.parents]):
            if there.is_relative_to(base):
                below = there.relative_to(base).as_posix()
                return ("../" * up or "./") + (f"{below}/" if below != "." else "")
        return "./"


def _holds_open(value: Any) -> bool:
    match value:
        case dict():
            return any(map(_holds_open, value.values()))
        case list():
            return any(map(_holds_open, value))
    return is_open(value)
