"""docs/crossings.md: what becomes of each notion on each crossing, found out by carrying a probe of it.

python benchmarks/crossings.py           writes the page
python benchmarks/crossings.py --check   exits with 1 where it is not up to date
"""

from __future__ import annotations

import json
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from matrix import NAMES
from matrix import PAGE as MATRIX
from notion_probes import PROBES, Probe

PAGE = Path(__file__).parent.parent / "docs" / "crossings.md"
HEAD = """# What becomes of what

Made by `python benchmarks/crossings.py`, which carries a small component for each row; a test makes it
again and compares. `clean-carry explain RULE` says more of a rule.

✓ carried, with the notes it comes with; · refused, with the rule that says why; – no probe in that syntax.
Children are taken for carried (`--assume-carried`). A script that registers its component always gets the
note `registered-by-name`, and a file whose members are closed `members-closed`: they are left out.
"""


_EVERYWHERE = ("members-closed", "mixin-read-in", "registered-by-name")


@dataclass(frozen=True)
class Crossing:
    """One column: from a syntax to another one, of versions of its runtime (0: the usual one)."""

    title: str
    origin: str
    target: str
    version: int = 0
    to_version: int = 0


CROSSINGS = (
    Crossing("`jsx-class` → `jsx-function`", "jsx-class", "jsx-function"),
    Crossing("`jsx-class` → `single-file-flat`", "jsx-class", "single-file-flat"),
    Crossing("`single-file-object` → `single-file-flat`", "single-file-object", "single-file-flat"),
    Crossing("the same, version 2 → 3", "single-file-object", "single-file-flat", 2, 3),
    Crossing("`single-file-object` → `jsx-function`", "single-file-object", "jsx-function"),
    Crossing("`registered-object` → `single-file-flat`", "registered-object", "single-file-flat"),
    Crossing("`single-file-object` → `decorated-class`", "single-file-object", "decorated-class"),
)


def text_of(probe: Probe, origin: str) -> tuple[str, str] | None:
    """The name and the text of a probe's file; None where the syntax has no such notion."""
    if origin == "jsx-class":
        return ("Pier.jsx", _class(probe)) if probe.body is not None else None
    if probe.markup is None:
        return None
    head = "".join(f"{line}\n" for line in probe.head.split("\n") if _of_object(line))
    markup = f"<div>{probe.markup}</div>"
    if origin == "registered-object":
        options = probe.options or "data() { return {}; },"
        text = f"  template: `{markup}`,\n  {options}\n"
        return "pier-card.js", f"{head}app.component('pier-card', {{\n{text}}});\n"
    lang = ' lang="ts"' if probe.typed else ""
    script = f"{head}export default {{\n  name: 'PierCard',\n  {probe.options}\n}};\n"
    blocks = f"<template>\n  {markup}\n</template>\n\n<script{lang}>\n{script}</script>\n"
    return "PierCard.vue", blocks + probe.style


def _class(probe: Probe) -> str:
    lines = ["import React from 'react';", *probe.head.split("\n"), ""]
    head = "\n".join(line for line in lines if ".vue" not in line)
    form = f"class Pier extends React.Component {{\n{probe.body}\n}}\n"
    if probe.wrapped:
        return f"{head}{form}export default connect(Pier);\n"
    return f"{head}export default {form}"


def _of_object(line: str) -> bool:
    """Whether a line before a component belongs to an object."""
    return bool(line) and ("import" not in line or ".vue" in line)


def carried(probe: Probe, crossing: Crossing, folder: Path) -> Result | None:
    """What carrying a probe gives."""
    made = text_of(probe, crossing.origin)
    if made is None:
        return None
    name, text = made
    package = f'{{ "dependencies": {{ "vue": "^{crossing.version}.7.0" }} }}'
    (folder / "package.json").write_text(package if crossing.version else "{}", "utf-8")
    place = folder / name
    place.write_text(text, "utf-8")
    request = Request(
        place,
        name,
        crossing.target,
        crossing.origin,
        crossing.to_version or None,
        assume_carried=True,
    )
    return carry_file(request)[0]


def cell(probe: Probe, crossing: Crossing, folder: Path) -> str:
    """What a cell says."""
    try:
        result = carried(probe, crossing, folder)
    except CarryError as error:
        return f"· {error.message}"
    if result is None:
        return "–"
    rules = list(dict.fromkeys(found.rule for found in result.findings))
    shown = " ".join(f"`{rule}`" for rule in rules if rule not in _EVERYWHERE)
    if result.status == "refused":
        return f"· {shown}"
    sign = "✓" if result.status == "clean" else "left"
    return f"{sign} {shown}".strip()


def page() -> Iterator[str]:
    """The page, line by line."""
    yield HEAD
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for title, probes in PROBES:
            yield f"\n## {title}\n"
            yield "| notion | " + " | ".join(one.title for one in CROSSINGS) + " |"
            yield "|---" * (len(CROSSINGS) + 1) + "|"
            for probe in probes:
                cells = [cell(probe, one, folder) for one in CROSSINGS]
                yield f"| {probe.name} | " + " | ".join(cells) + " |"


def matrix() -> Iterator[str]:
    """The six components, every way, as `benchmarks/matrix.py` found them."""
    found = json.loads(MATRIX.read_text("utf-8"))
    ways = list(next(iter(found.values())))
    yield "\n## Six components, every way\n"
    yield "Made by `python benchmarks/matrix.py`: each is carried, and rendered in the runtimes of both"
    yield "sides; behind the arrow, the same for the new text carried back to where it came from.\n"
    yield "| from → to | " + " | ".join(NAMES[name] for name in found) + " |"
    yield "|---" * (len(found) + 1) + "|"
    for one in ways:
        cells = [found[name][one] for name in found]
        shown = [c["there"] + (f" ↩ {c['back']}" if "back" in c else "") for c in cells]
        yield f"| {one} | " + " | ".join(shown) + " |"


def main() -> int:
    """Write the page, or check it."""
    text = "\n".join([*page(), *matrix()]) + "\n"
    if "--check" in sys.argv:
        return int(not PAGE.exists() or PAGE.read_text("utf-8") != text)
    PAGE.write_text(text, "utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
