"""Insert an unknown construct wherever one is legal: a clean output still has it.

The places come from the everyday components: statements, class members, options of a definition, and
attributes and children of template elements. An insertion may be refused or left; it may not vanish from a
clean output, unless a rule on the closed list drops it (a constant option that nobody reads).
"""

from __future__ import annotations

import random
from collections.abc import Iterator
from pathlib import Path

import pytest

from clean_carry.component.errors import CarryError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText

EVERYDAY = Path(__file__).parents[1] / "everyday"
MARK = "zqx"
# Insertions per component, drawn by a fixed seed.
EACH = 10
STATEMENT = f"{MARK}(1); "
MEMBER = f"{MARK}() {{ return 1; }}\n  "
OPTIONS = (f"{MARK}: {MARK}(1), ", f"{MARK}() {{ return 1; }}, ", f"...{MARK}(), ")
ATTRIBUTES = (f' {MARK}="1"', f' v-{MARK}="1"', f' @{MARK}="{MARK}()"', f' :{MARK}="1"')
CHILDREN = (f"<{MARK}-part></{MARK}-part>", f"{{{{ {MARK} }}}}", f"<!-- {MARK} -->")
TARGETS = {
    "classes": ("jsx-function",),
    "single_files": ("single-file-flat", "jsx-function"),
    "single_files_older": ("single-file-flat",),
    "directives": ("controller-component",),
}
# Components of an older version have hooks the newer one never runs.
RUNTIMES = {"single_files_older": 2}
FILES = [
    (folder, path.name)
    for folder in TARGETS
    for path in sorted((EVERYDAY / folder).iterdir())
    if path.suffix in (".jsx", ".tsx", ".vue", ".js")
]


def places_in_script(tree: Tree, low: int, high: int) -> Iterator[tuple[int, str]]:
    """Where statements, class members and options of a definition may stand."""
    for node in tree.root.walk():
        if not low <= node.start < high:
            continue
        parts = node.named_children
        if node.type == "statement_block" and node.parent is not None and node.parent.is_function:
            yield from ((part.start, STATEMENT) for part in parts if part.type != "comment")
        elif node.type == "class_body":
            yield from ((part.start, MEMBER) for part in parts if part.type != "comment")
        elif node.type == "object" and _is_definition(node):
            yield from ((part.start, text) for part in parts[:4] for text in OPTIONS)


def _is_definition(node: Node) -> bool:
    """Whether an object defines a component: exported, given to a function, or returned by a factory."""
    parent = node.parent
    return parent is not None and parent.type in ("export_statement", "return_statement")


def places_in_template(source: SourceText, template: TemplateNode) -> Iterator[tuple[int, str]]:
    """Behind the names of start tags, and at the beginnings of what elements hold."""
    for node in template.walk():
        if node.kind != "element" or node is template:
            continue
        behind = node.start + 1 + len(node.tag.encode())
        yield from ((behind, text) for text in ATTRIBUTES)
        if node.inner[0] < node.inner[1] and node.tag not in ("script", "style", "textarea"):
            yield from ((node.inner[0], text) for text in CHILDREN)


def places(source: SourceText) -> list[tuple[int, str]]:
    """All insertions that are legal in a file."""
    if not source.path.endswith(".vue"):
        return list(places_in_script(Tree(source), 0, len(source.data)))
    found: list[tuple[int, str]] = []
    for block in read_blocks(source):
        if block.tag == "script":
            tree = Tree(source, bytes(source.blanked([block.inner])))
            found += places_in_script(tree, *block.inner)
        elif block.tag == "template":
            found += places_in_template(source, block)
    return found


@pytest.mark.parametrize(("folder", "name"), FILES)
def test_an_insertion_is_kept_left_or_refused(folder: str, name: str, tmp_path: Path) -> None:
    path = EVERYDAY / folder / name
    source = SourceText.read(path)
    legal = places(source)
    chosen = random.Random(name).sample(legal, min(EACH, len(legal)))
    assert chosen
    copy = tmp_path / name
    lost = []
    for at, text in chosen:
        data = source.data[:at] + text.encode() + source.data[at:]
        copy.write_bytes(data)
        for target in TARGETS[folder]:
            try:
                results = carry_file(Request(copy, name, target, runtime=RUNTIMES.get(folder)))
            except CarryError:
                continue
            clean = [result for result in results if result.status == "clean"]
            kept = any(MARK in file.text.lower() for result in results for file in result.files)
            if clean and len(clean) == len(results) and not kept:
                line = data[:at].count(b"\n") + 1
                lost.append(f"{target}: {name}:{line}: {text.strip()}")
    assert lost == []
