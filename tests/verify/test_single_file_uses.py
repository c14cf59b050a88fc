"""Kin, uses and parents of single files: what goes into a component, and what it goes into."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.verify.search.inputs.single_file_children import name_of
from clean_carry.verify.uses.related_single_files import kin_around, kin_inside
from clean_carry.verify.uses.single_files import parents_of, uses_of

DRAWN = (
    "<template><i><slot /></i></template>\n<script>\nexport default {{ {options} }};\n</script>\n"
)


def project(folder: Path, files: dict[str, str], version: str = "") -> None:
    """A project of single files: {path: options, or the whole text}."""
    needs = {"dependencies": {"vue": version}} if version else {}
    (folder / "package.json").write_text(json.dumps({"name": "ferries", **needs}))
    for name, text in files.items():
        path = folder / f"{name}.vue"
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text if "<" in text else DRAWN.format(options=text))


NAMES: list[tuple[str, str, str]] = [
    ("pier/Pier.vue", "<script>export default { name: 'g-pier' }</script>", "GPier"),
    ("pier/PierTab.vue", "<script>export default {}</script>", "PierTab"),
    ("pier/src/main.vue", "<script>export default {}</script>", "Pier"),
    ("tide-strip/index.vue", "<template>name: 'no'</template><script setup></script>", "TideStrip"),
]


@pytest.mark.parametrize(("path", "text", "name"), NAMES)
def test_the_name_of_a_component(path: str, text: str, name: str) -> None:
    assert name_of(Path(path), text) == name


ASKS = "name: 'Piers', computed: {{ all() {{ return this.$slots.default.filter((n) => n.type.name === '{0}') }} }}"
INSIDE: list[tuple[str, dict[str, str], str, str]] = [
    # (what is told, files, who is asked, who belongs inside)
    ("asked by name", {"Piers": ASKS.format("Pier"), "other/Pier": "name: 'Pier'"}, "Piers", "Pier"),
    ("asked in kebab case", {"A": ASKS.format("my-pier"), "B": "name: 'my-pier'"}, "A", "MyPier"),
    (
        "it looks for what it stands in",
        {
            "Piers": "name: 'Piers'",
            "x/Pier": "mounted() { let parent = this.$parent; while (parent.$options.name !== 'Piers') parent = parent.$parent; }",
        },
        "Piers",
        "Pier",
    ),
    (
        "what it stands in does not stand in it",
        {
            "Pier": "computed: { is() { return this.$parent.$options.name === 'Piers' && this.$slots.default; }, "
            "other() { const words = ['a', 'long', 'list', 'of', 'words', 'between', 'them']; return this.kind === 'Piers'; } }",
            "x/Piers": "name: 'Piers'",
        },
        "Pier",
        "",
    ),
    ("a plain word is no component", {"A": ASKS.format("tide"), "B": "name: 'tide'"}, "A", ""),
    (
        "asked by its tag",
        {"Tabs": "mounted() { this.$children.filter((c) => c.$vnode.tag.indexOf('tabpanel') !== -1) }", "x/TabPanel": ""},
        "Tabs",
        "TabPanel",
    ),
    (
        "asked by an input it declares",
        {
            "Table": "mounted() { this.$children.filter((c) => c.$options._propKeys.indexOf('columnKey') > -1) }",
            "x/Column": "props: { columnKey: null }",
            "x/Row": "props: { rowKey: null }",
        },
        "Table",
        "Column",
    ),
    (
        "provided and injected",
        {"A": "name: 'Deck', provide() { return { deck: this } }", "x/B": "inject: ['deck']"},
        "A",
        "B",
    ),
    ("another key", {"A": "provide() { return { deck: this } }", "B": "inject: ['mast']"}, "A", ""),
    ("the plural", {"Tabs": "provide: {}", "Tab": ""}, "Tabs", "Tab"),
    ("an item", {"Menu": "", "MenuItem": ""}, "Menu", "MenuItem"),
    ("a part, without interest", {"Menu": "", "MenuLine": ""}, "Menu", ""),
    ("a part", {"Menu": "mounted() { this.$children }", "MenuLine": ""}, "Menu", "MenuLine"),
    ("what holds it", {"Menu": "mounted() { this.$children }", "MenuGroup": ""}, "Menu", ""),
    ("far away", {"Menu": "", "x/MenuItem": ""}, "Menu", ""),
    (
        "drawn by itself",
        {"Menu": "<template><MenuItem /></template><script>import MenuItem from './MenuItem.vue';</script>", "MenuItem": ""},
        "Menu",
        "",
    ),
    ("nothing drawn", {"Menu": "", "MenuItem": "<script>export default {}</script>"}, "Menu", ""),
]  # fmt: skip


@pytest.mark.parametrize(
    ("files", "who", "inside"), [row[1:] for row in INSIDE], ids=[row[0] for row in INSIDE]
)
def test_what_belongs_inside(files: dict[str, str], who: str, inside: str, tmp_path: Path) -> None:
    project(tmp_path, files)
    assert " ".join(kin.name for kin in kin_inside(tmp_path / f"{who}.vue")) == inside


def test_what_a_component_belongs_into(tmp_path: Path) -> None:
    above = "mounted() { let up = this.$parent; while (up.$options.name !== 'PierGroup') up = up.$parent }"
    project(tmp_path, {"Pier": above, "PierGroup": "name: 'PierGroup'", "Menu": "", "MenuItem": ""})
    assert [kin.name for kin in kin_around(tmp_path / "Pier.vue")] == ["PierGroup"]
    assert [kin.name for kin in kin_around(tmp_path / "MenuItem.vue")] == ["Menu"]
    assert kin_around(tmp_path / "Menu.vue") == []
    assert kin_inside(tmp_path / "Pier.vue") == []


PAGE = """<template>
  <main>
    <pier-list :max="3" title="Piers" open :other="later" @go="go">
      <pier-entry v-for="p in piers" :name="p.name" :busy="p.disabled" :other="p" :depth="4.5" :day="day" :on-go="go()" :at="[1, 2]">Pier {{ p.name }}</pier-entry>
      <p v-if="late" class="note">late <b>now</b></p>
      <p v-else>in time</p>
      <unknown-thing><em>kept</em></unknown-thing>
    </pier-list>
    <pier-list><template #foot><pier-entry /></template></pier-list>
  </main>
</template>
<script>
import PierList from './PierList.vue';
import PierEntry from './parts/PierEntry.vue';

export default { components: { PierList, PierEntry } };
</script>
"""


def test_content_of_uses(tmp_path: Path) -> None:
    entry = "props: { name: String, busy: Boolean, day: Date, onGo: Function }"
    project(tmp_path, {"Page": PAGE, "PierList": "", "parts/PierEntry": entry})
    found = uses_of(tmp_path / "PierList.vue")
    assert found.inputs == {"max": [3], "title": ["Piers"], "open": [True]}
    assert found.count == 1
    entry = json.dumps(str(tmp_path.resolve() / "parts/PierEntry.vue"))
    assert f"import Part1 from {entry};" in found.text
    made = (
        'make(Part1, { "name": "name Holm", "busy": true, "depth": 4.5, "day": new Date(1704200000000), '
        '"onGo": () => {}, "at": [1, 2] }, '
        '{ "default": () => ["Pier", "p.name"] })'
    )
    assert f"{made}, {made}" in found.text
    assert 'make("p", { "class": "note" }, { "default": () => ["late", make("b",' in found.text
    assert "in time" not in found.text and 'make("em", {  }' in found.text


def test_content_of_kin(tmp_path: Path) -> None:
    tab = "props: { title: String, at: { type: Number, required: true }, note: Object, open: Boolean }"
    project(tmp_path, {"Tabs": "provide: {}", "Tab": tab})
    found = uses_of(tmp_path / "Tabs.vue")
    assert found.count == 2
    assert '{ title: "title Holm", at: 3 }, { default: () => ["Tab 1"] })' in found.text
    assert '{ title: "title Holm", at: 3, open: true }' in found.text
    assert 'title: "title Skail", at: 4 }' in found.text
    assert uses_of(tmp_path / "Tab.vue").count == 0


def test_inputs_that_are_elements_of_a_component(tmp_path: Path) -> None:
    lane = "props: { name: String, frozen: Boolean, hidden: Boolean, align: { type: String, default: 'left' }, other: String }"
    cell = (
        "<template><td>{{ lane.children && lane.children.foot }}{{ lane.props.name }}</td></template>\n<script>\n"
        "export default {\n  props: { lane: { type: Object }, lanes: Array, word: String },\n  computed: {\n"
        "    at() { return ask(this.lane, 'align') === 'right' && ask(this.lane, 'frozen') && ask(this.lane, 'hidden'); },\n"
        "    all() { return this.lanes; },\n  },\n};\n</script>\n"
    )
    project(tmp_path, {"Lane": lane, "Cell": cell})
    found = uses_of(tmp_path / "Cell.vue")
    assert found.count == 0 and set(found.elements) == {"lane", "lanes"}
    drawn = [{"$": "drawn", "use": number} for number in range(1, 11)]
    assert found.elements["lane"] == drawn[:5]
    assert found.elements["lanes"][:2] == [drawn[5:7], drawn[5:10]]
    # With all flags but the one that takes it away first, each of them alone at last.
    first = 'make(Part1, { "align": "right", "frozen": true }, { "foot": () => ["foot"] })'
    assert first in found.text and '{ "align": "right" }, {  })' in found.text
    assert '"hidden": true }, { "foot"' in found.text and '"other"' not in found.text
    # One that asks for what an instance has is given instances.
    asking = "{{ lane.$slots.foot }}{{ lane.name }}"
    instance = cell.replace(
        "{{ lane.children && lane.children.foot }}{{ lane.props.name }}", asking
    )
    project(tmp_path, {"Cell": instance})
    found = uses_of(tmp_path / "Cell.vue")
    assert found.elements["lane"][0] == {"$": "drawn", "use": 1, "instance": True}
    assert first in found.text
    # A component that asks for something else is given plain things.
    plain = cell.replace("lane.props.name", "lane.depth")
    project(tmp_path, {"Cell": plain})
    assert "lane" not in uses_of(tmp_path / "Cell.vue").elements


def test_parents_of_uses_and_of_kin(tmp_path: Path) -> None:
    project(
        tmp_path,
        {"Page": PAGE, "PierList": "", "parts/PierEntry": "", "Tabs": "provide: {}", "Tab": ""},
    )
    entry = parents_of(tmp_path / "parts/PierEntry.vue")
    assert entry is not None and entry.shown == "PierList"
    assert '[[Part1, { "max": 3, "title": "Piers", "open": true }]]' in entry.text
    tab = parents_of(tmp_path / "Tab.vue")
    assert tab is not None and tab.shown == "Tabs"
    assert parents_of(tmp_path / "PierList.vue") is None


def test_no_project_tells_nothing(tmp_path: Path) -> None:
    path = tmp_path / "Pier.vue"
    path.write_text(DRAWN.format(options="name: 'Pier'"))
    assert uses_of(path).count == 0 and parents_of(path) is None


SHORE = """<template>
  <nav><button v-for="tab in tabs" :class="{ on: tab === at }" @click="at = tab">{{ tab.title }}</button><slot /></nav>
</template>
<script>
export default {
  name: 'Shores',
  data() { return { tabs: [], at: null }; },
  methods: {
    add(tab) { this.tabs.push(tab); this.at = this.at || tab; },
    take(tab) { this.tabs.splice(this.tabs.indexOf(tab), 1); }
  }
};
</script>
"""
TAB = """<template><p v-show="title !== 'x'">{{ title }} <slot /></p></template>
<script>
export default {
  name: 'Shore',
  props: { title: String },
  created() { this.$parent.add(this); },
  beforeDestroy() { this.$parent.take(this); }
};
</script>
"""


@pytest.mark.parametrize("version", [2, 3])
def test_a_part_is_tried_in_its_whole_and_a_whole_with_parts(  # type: ignore[no-untyped-def]
    run, tmp_path: Path, version: int
) -> None:
    runtime = "2.7.16" if version == 2 else "3.5.45"
    (tmp_path / "package.json").write_text(
        json.dumps({"name": "ferries", "dependencies": {"vue": runtime}})
    )
    (tmp_path / "Shores.vue").write_text(SHORE)
    part = TAB if version == 2 else TAB.replace("beforeDestroy", "beforeUnmount")
    (tmp_path / "Shore.vue").write_text(part)
    for name in ("Shores", "Shore"):
        assert run("carry", f"{name}.vue", "--to", "single-file-flat", "--write").returncode == 0
    call = ("verify", "Shore.vue", "Shore.flat.vue", "--budget", "2", "--json")
    found = json.loads(run(*call).stdout)
    assert found["verdict"] == "same" and found["around"] == "Shores"
    whole = ("verify", "Shores.vue", "Shores.flat.vue", "--budget", "2", "--json")
    found = json.loads(run(*whole).stdout)
    assert found["verdict"] == "same" and found["reach"]["old"]["unreached"] == []
    new = tmp_path / "Shores.flat.vue"
    new.write_text(new.read_text().replace("tab === at", "tab !== at"))
    assert json.loads(run(*whole).stdout)["verdict"] == "differs"


DECK = """<template><div :class="{ wide }"><slot /></div></template>
<script>
export default {
  name: 'Deck',
  props: { wide: Boolean, many: Boolean, kind: String },
  mounted() { this.count = this.$children; }
};
</script>
"""
SEAT = """<template><p @click="pick">{{ deck.many && deck.kind === 'upper' ? 'MANY' : 'one' }} {{ at }}</p></template>
<script>
export default {
  name: 'DeckSeat',
  data() { return { at: 0, deck: this.$parent }; },
  created() { if (this.$parent.$options.name !== 'Deck') throw new Error('a seat stands on a deck'); },
  methods: { pick() { this.at += 1; } }
};
</script>
"""


SET_UP = {
    "2.7.16": "export default { render(h) { return h('div', this.$slots.default); } };\n",
    "3.5.45": "import { h } from 'vue';\nexport default { render() { return h('div', this.$slots.default()); } };\n",
}


def test_the_inputs_of_the_whole_that_a_part_asks_for(tmp_path: Path) -> None:
    project(tmp_path, {"Deck": DECK, "DeckSeat": SEAT})
    found = parents_of(tmp_path / "DeckSeat.vue")
    assert found is not None and list(found.inputs) == ["many", "kind"]


@pytest.mark.parametrize("version", ["2.7.16", "3.5.45"])
def test_a_part_is_tried_by_what_its_whole_is_given(  # type: ignore[no-untyped-def]
    run, tmp_path: Path, version: str
) -> None:
    project(
        tmp_path, {"Deck": DECK, "DeckSeat": SEAT, "Other": SEAT.replace("MANY", "many")}, version
    )
    done = run(
        "verify", "DeckSeat.vue", "Other.vue", "--budget", "6", "--json", "--save", "found.yaml"
    )
    found = json.loads(done.stdout)
    assert (found["verdict"], found["around"]) == ("differs", "Deck")
    saved = (tmp_path / "found.yaml").read_text()
    assert "$around.many: true" in saved and "$around.kind: upper" in saved
    # A set-up module stands around the parents; it is not given what they are.
    (tmp_path / "clean-carry.toml").write_text('setup = "setup.js"\n')
    (tmp_path / "setup.js").write_text(SET_UP[version])
    done = run("verify", "DeckSeat.vue", "Other.vue", "--budget", "6", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


PANEL = """<template><section><slot name="head"><b class="title" v-if="head">{{ head }}</b></slot></section></template>
<script>
export default { props: { head: String } };
</script>
"""


@pytest.mark.parametrize("version", ["2.7.16", "3.5.45"])
def test_what_stands_in_the_place_of_content_is_tried_with_the_input_of_its_name(  # type: ignore[no-untyped-def]
    run, tmp_path: Path, version: str
) -> None:
    project(
        tmp_path,
        {"Panel": PANEL, "Other": PANEL.replace('class="title"', 'class="titel"')},
        version,
    )
    found = json.loads(run("verify", "Panel.vue", "Other.vue", "--budget", "3", "--json").stdout)
    assert found["verdict"] == "differs"


QUAY = """<template><div><slot></slot></div></template>
<script>
export const QUAY = Symbol('quay');
export default {
  name: 'Quay',
  provide() { return { [QUAY]: this }; },
  data() { return { _isQuay: true, depth: 4 }; }
};
</script>
"""
BOLLARD = """<template><p v-if="!off">{{ words() }}</p></template>
<script>
import { QUAY } from './Quay.vue';
export default {
  name: 'Bollard',
  inject: { quay: { from: QUAY, default: undefined } },
  props: { off: Boolean, at: Number },
  methods: { words() { return this.quay.depth > 3 ? 'DEEP' : 'low'; } }
};
</script>
"""
MARKED = """<template><i>{{ at }}</i></template>
<script>
export default {
  name: 'Bollard',
  props: { at: Number },
  created() { if (!this.$parent.$data._isQuay) throw new Error('a bollard stands on a quay'); }
};
</script>
"""


@pytest.mark.parametrize("text", [BOLLARD, MARKED])
def test_a_whole_is_known_by_a_constant_or_a_mark(tmp_path: Path, text: str) -> None:
    project(tmp_path, {"Quay": QUAY, "Bollard": text})
    assert [kin.name for kin in kin_around(tmp_path / "Bollard.vue")] == ["Quay"]


@pytest.mark.parametrize("version", ["2.7.16", "3.5.45"])
def test_a_part_that_mostly_fails_alone_is_tried_in_its_whole(  # type: ignore[no-untyped-def]
    run, tmp_path: Path, version: str
) -> None:
    # Alone it draws only while it is off.
    project(tmp_path, {"Quay": QUAY, "Bollard": BOLLARD, "Other": BOLLARD.replace("DEEP", "deep")})
    done = run("verify", "Bollard.vue", "Other.vue", "--budget", "3", "--json")
    found = json.loads(done.stdout)
    assert (found["verdict"], found["around"]) == ("differs", "Quay")
