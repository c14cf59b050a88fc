"""What other files say of a component's inputs: children it hands them on to, statics it spreads in."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.single_file_children import (
    camel,
    drawn_files,
    handed_on,
    name_of,
    pascal,
)
from clean_carry.verify.search.inputs.statics import parts_of, static_objects
from clean_carry.verify.search.values.shape import Shape

BERTH = """<template>
  <div>
    <pier-mark :max-height="height" :label="ship.name" v-model="depth" :at="2" />
    <Berth :inner="rows" />
    <component :is="part" />
    <p :title="height">{{ height }}</p>
  </div>
</template>

<script>
import PierMark from './PierMark.vue';
import tools from './tools';
export default { name: 'berth', components: { PierMark } };
</script>
"""


def single_file(folder: Path, text: str = BERTH) -> SourceText:
    path = folder / "Berth.vue"
    path.write_text(text)
    (folder / "PierMark.vue").write_text("<template><i /></template>")
    return SourceText(str(path), text.encode())


def test_what_is_handed_on_to_children(tmp_path: Path) -> None:
    source = single_file(tmp_path)
    template = next(block for block in read_blocks(source) if block.tag == "template")
    asked: list[tuple[str, int]] = []

    def read(path: Path, depth: int) -> Inputs:
        asked.append((path.name, depth))
        found = Inputs()
        found.shapes = {
            "maxHeight": Shape({"number"}),
            "label": Shape({"string"}),
            "modelValue": Shape({"date"}),
        }
        return found

    found = handed_on(source, template, read, 0)
    assert [(n, s if isinstance(s, str) else s.kinds) for n, s in found] == [
        ("height", {"number"}),
        ("name", {"string"}),
        ("depth", {"date"}),
        ("rows", "inner"),
        ("part", {"tag"}),
    ]
    assert asked == [("PierMark.vue", 1)]
    names = [n for n, _ in handed_on(source, template, read, 3)]
    assert names == ["rows", "part"]


def test_the_files_a_script_draws(tmp_path: Path) -> None:
    found = drawn_files(single_file(tmp_path))
    assert found == {"PierMark": (tmp_path / "PierMark.vue").resolve()}


CALLED = [
    ("Berth.vue", "<script>export default { name: 'tide-strip' };</script>", "TideStrip"),
    ("berth-row.vue", "<script>export default {};</script>", "BerthRow"),
    ("pier/src/main.vue", "<template><p name: 'no' /></template>", "Pier"),
    ("index.vue", "", "Main"),
]


@pytest.mark.parametrize(("path", "text", "name"), CALLED)
def test_the_name_of_a_single_file(path: str, text: str, name: str) -> None:
    assert name_of(Path(path), text) == name


def test_spelling() -> None:
    assert pascal("tab-pane_one") == "TabPaneOne"
    assert camel("max-height") == "maxHeight"


FORMS = [
    "class Berth { static propTypes = { tide: T.string }; }",
    "class Berth {}\nBerth.propTypes = { tide: T.string };",
    "const types = { tide: T.string };\nfunction Berth() {}\nBerth.propTypes = types;",
    "const types = ({ tide: T.string } as any);\nclass Berth { static propTypes = types; }",
    "class Berth {}\nfunction Other() {}\nOther.propTypes = { no: 1 };\nBerth.propTypes = { tide: 2 };",
]


@pytest.mark.parametrize("text", FORMS)
def test_static_objects(text: str) -> None:
    tree = Tree(SourceText("Berth.tsx", f"{text}\n".encode()))
    ((name, value),) = static_objects(tree, "Berth", ("propTypes",))
    assert name == "propTypes"
    assert [key for key, _, _ in parts_of(value, tree)] == ["tide"]


def test_static_objects_that_are_made_elsewhere_are_not_known() -> None:
    text = "class Berth {}\nBerth.propTypes = made();\nBerth.defaultProps = unknown;\n"
    tree = Tree(SourceText("Berth.jsx", text.encode()))
    assert static_objects(tree, "Berth", ("propTypes", "defaultProps")) == []


def test_what_is_spread_in_from_other_files(tmp_path: Path) -> None:
    (tmp_path / "shared.js").write_text(
        "export const common = { port: 1, pier: 2 };\nconst deep = { depth: 3 };\n"
        "export default class Base {}\nBase.propTypes = { ...common, ...deep, wind: 4 };\n"
    )
    (tmp_path / "Berth.jsx").write_text(
        "import Base, { common } from './shared';\nimport gone from './gone';\nconst own = { tide: 5 };\n"
        "class Berth {}\nBerth.propTypes = { ...own, ...common, ...Base.propTypes, ...gone, last: 6 };\n"
    )
    path = tmp_path / "Berth.jsx"
    tree = Tree(SourceText.read(path))
    ((_, value),) = static_objects(tree, "Berth", ("propTypes",))
    found = [
        (key, given.text, Path(owner.source.path).name)
        for key, given, owner in parts_of(value, tree)
    ]
    assert found == [
        ("tide", "5", "Berth.jsx"),
        ("port", "1", "shared.js"),
        ("pier", "2", "shared.js"),
        ("port", "1", "shared.js"),
        ("pier", "2", "shared.js"),
        ("depth", "3", "shared.js"),
        ("wind", "4", "shared.js"),
        ("last", "6", "Berth.jsx"),
    ]
