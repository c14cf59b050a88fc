"""The neutral component stays small, and nothing in it goes unread.

`docs/model.md` lists which writer reads what; made anew by `python tests/component/test_fields.py`.
"""

from __future__ import annotations

import ast
from dataclasses import fields, is_dataclass
from functools import cache
from pathlib import Path

from clean_carry.component import model

HOME = Path(model.__file__).parents[1]
PAGE = Path(__file__).parents[2] / "docs" / "model.md"
MOST_FIELDS = 14
# What holds the parts of a component, by the field of it.
PARTS = {
    "place": model.Place,
    "inputs": model.Inputs,
    "outward": model.Outward,
    "view": model.View,
    "language": model.Language,
    "facts": model.Facts,
    "foreign": model.Foreign,
}
# Who reads a component: writers by their folders, and what goes for all of them.
READERS = {
    "jsx-function": ("syntaxes/jsx_function",),
    "single-file-flat": ("syntaxes/single_file_flat",),
    "single-file-object": ("syntaxes/single_file_object",),
    "controller-component": ("syntaxes/controller_component",),
    "every crossing": ("crossing", "component"),
}
HEAD = """# What writers read of a component

Made by `python tests/component/test_fields.py`; a test keeps it true. Rows are the parts of the neutral
component (`component/model.py`), columns the writers, and what goes for every crossing.

"""


@cache
def reads(folders: tuple[str, ...]) -> set[str]:
    """The parts that code of these folders reads, as `part.field`."""
    found: set[str] = set()
    for folder in folders:
        for path in (HOME / folder).rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text("utf-8"))):
                if isinstance(node, ast.Attribute):
                    whole = node.value
                    name = getattr(whole, "attr", getattr(whole, "id", ""))
                    found.add(f"{name}.{node.attr}")
    return found


def table() -> str:
    """The page: a row for each field, a mark for each reader."""
    known = {name: reads(folders) for name, folders in READERS.items()}
    lines = ["| part | " + " | ".join(known) + " |", "|---" * (len(known) + 1) + "|"]
    for part, kind in PARTS.items():
        for one in fields(kind):
            name = f"{part}.{one.name}"
            marks = ["×" if name in found else "" for found in known.values()]
            lines.append(f"| `{name}` | " + " | ".join(marks) + " |")
    return HEAD + "\n".join(lines) + "\n"


def test_a_component_has_few_fields() -> None:
    names = [one.name for one in fields(model.Component)]
    assert len(names) <= MOST_FIELDS, names
    assert all(is_dataclass(kind) for kind in PARTS.values())


def test_every_field_is_read() -> None:
    unread = [line.split("`")[1] for line in table().splitlines() if line.startswith("| `")]
    unread = [
        name for name in unread if not any(name in reads(folders) for folders in READERS.values())
    ]
    assert unread == []


def test_the_page_says_who_reads_what() -> None:
    assert PAGE.read_text("utf-8") == table(), f"python {Path(__file__).name} makes it anew"


if __name__ == "__main__":
    PAGE.write_text(table(), "utf-8")
