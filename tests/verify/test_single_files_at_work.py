"""Single files in the renderer: what the application provides, methods called, lines that were reached."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from clean_carry.project.settings import settings_for
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.uses.model import Uses
from clean_carry.verify.worker_pool import Bench, Side

FORM = """<template>
{markup}
</template>

<script>
export default {{
  name: 'Berth',
  props: {{ open: Boolean }},
  data() {{ return {{ at: 1 }}; }},
  methods: {{
    show(event) {{ this.at = event.type; return this; }},
    {methods}
  }}
}};
</script>
"""


def side_of(folder: Path, version: int, markup: str, methods: str = "") -> Side:
    place = folder / "Berth.vue"
    text = FORM.format(markup=markup, methods=methods)
    return Side(
        place, text, RUNTIMES[f"vue-{version}"], exported="default", settings=settings_for(place)
    )


def tried(bench: Bench, side: Side, **request: Any) -> list[dict[str, Any]]:
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "default", {"inputs": {}, **request})
    points: list[dict[str, Any]] = answer["points"]
    return points


def text_of(part: Any) -> str:
    """The text of a part of a tree: text, an element, or a list of parts."""
    if not isinstance(part, list):
        return part or ""
    inside = part[3] if len(part) == 4 and isinstance(part[1], dict) else part
    return "".join(text_of(one) for one in inside)


PROVIDED: list[tuple[str, str]] = [
    ("<p>{{ $t('pier.one') }}</p>", "pier.one"),
    ("<p>{{ $route.path }}</p>", "#holm"),
    ("<p>{{ $store.getters.tide === undefined }}</p>", "true"),
    ("<p><router-link to='/pier'>Pier</router-link></p>", "Pier"),
    ("<p><router-link to='/pier' custom v-slot='{ href }'><i>{{ href }}</i></router-link></p>", "/pier"),
    ("<p><router-link to='#holm' v-slot='{ isActive }'><i>{{ isActive }}</i></router-link></p>", "true"),
]  # fmt: skip


@pytest.mark.parametrize("version", [2, 3])
def test_a_child_is_found_beside_its_styles(version: int, tmp_path: Path, bench: Bench) -> None:
    (tmp_path / "Pier.vue").write_text("<template><i>a child</i></template>")
    (tmp_path / "Pier.css").write_text("i { color: red }")
    side = side_of(tmp_path, version, "<p><pier /></p>")
    text = side.text.replace("<script>\n", "<script>\nimport Pier from './Pier';\n")
    text = text.replace("name: 'Berth',", "name: 'Berth', components: { Pier },")
    assert text_of(tried(bench, replace(side, text=text))[0]["tree"]) == "a child"


@pytest.mark.parametrize("version", [2, 3])
@pytest.mark.parametrize(("markup", "text"), PROVIDED)
def test_what_an_application_provides(
    markup: str, text: str, version: int, tmp_path: Path, bench: Bench
) -> None:
    first = tried(bench, side_of(tmp_path, version, markup))[0]
    assert first["errors"] == []
    assert text_of(first["tree"][0]) == text


@pytest.mark.parametrize("version", [2, 3])
def test_calls_of_what_is_provided_are_recorded(version: int, tmp_path: Path, bench: Bench) -> None:
    markup = """<div>
  <button @click="$router.push('/tide')">go</button>
  <router-link to="/pier">Pier</router-link>
  <em @click="$store.dispatch('moor', 2)">moor</em>
</div>"""
    steps = [
        {"press": {"role": "button", "name": "go"}},
        {"press": {"tag": "a"}},
        {"press": {"tag": "em"}},
    ]
    points = tried(bench, side_of(tmp_path, version, markup), steps=steps)
    assert [point["calls"] for point in points[1:]] == [
        [["router.push", "/tide"]],
        [["router.push", "/pier"]],
        [["store.dispatch", "moor", 2]],
    ]


@pytest.mark.parametrize("version", [2, 3])
def test_what_a_project_installs_itself(version: int, tmp_path: Path, bench: Bench) -> None:
    (tmp_path / "clean-carry.toml").write_text('setup = "trial-setup.js"\n')
    shared = "application.config.globalProperties" if version == 3 else "application.prototype"
    (tmp_path / "trial-setup.js").write_text(
        f"export const install = (application) => {{ {shared}.$tide = () => 'low'; }};\n"
    )
    first = tried(bench, side_of(tmp_path, version, "<p>{{ $tide() }}</p>"))[0]
    assert first["errors"] == [] and text_of(first["tree"][0]) == "low"


@pytest.mark.parametrize("version", [2, 3])
def test_a_method_is_called_by_a_reference(version: int, tmp_path: Path, bench: Bench) -> None:
    steps = [{"call": {"method": "show", "given": [{"$": "event"}]}}, {"call": {"method": "none"}}]
    points = tried(bench, side_of(tmp_path, version, "<p>{{ at }}</p>"), steps=steps, held=True)
    assert text_of(points[1]["tree"][0]) == "click"
    # An instance is shown as one, not by its parts.
    assert points[1]["calls"] == [["result of show", {"$": "component"}]]
    assert points[2]["missing"] == {"method": "none"}


FLAT = """<script setup>
import { ref } from 'vue';

const at = ref(1);

function turn(by) {
  if (by > 3) {
    at.value = 0;
  }
}
</script>

<template>
  <button @click="turn(at)">{{ at > 1 ? 'far' : 'near' }}</button>
</template>
"""


@pytest.mark.parametrize("version", [2, 3])
@pytest.mark.parametrize("flat", [True, False])
def test_branches_are_told_by_the_lines_of_the_file(
    version: int, flat: bool, tmp_path: Path, bench: Bench
) -> None:
    side = side_of(
        tmp_path, version, '<button @click="turn">{{ at > 1 ? "far" : "near" }}</button>',
        "turn(by) {\n      if (by > 3) {\n        this.at = 0;\n      }\n    },",
    )  # fmt: skip
    text = FLAT if flat else side.text
    side = Side(side.place, text, side.runtime, exported="default", settings=side.settings)
    lines = text.split("\n")
    found = {
        counter["kind"]: lines[counter["line"] - 1].strip() if counter["line"] else ""
        for counter in bench.build(side).counters or ()
        if counter["id"].startswith("b")
    }
    # What the compiler writes around a listener is no branch of the file.
    assert set(found) == {"if", "cond-expr"}
    assert found["if"] == "if (by > 3) {"
    assert ("far" in found["cond-expr"]) == (version == 3)


def test_a_method_given_out_is_tried(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text(
        json.dumps({"name": "ferries", "dependencies": {"vue": "3.5.45"}})
    )
    text = FORM.format(
        markup="<p v-if='open || at > 1'>{{ at }}</p>", methods="hide() { this.at = 0; }"
    )
    (tmp_path / "Berth.vue").write_text(text.replace("return this; ", "return this.at; "))
    carried = run("carry", "Berth.vue", "--to", "single-file-flat", "--write")
    assert carried.returncode == 0 and "methods-given-out" in carried.stdout
    new = tmp_path / "Berth.flat.vue"
    assert "defineExpose({ show, hide });" in new.read_text()
    call = ("verify", "Berth.vue", "Berth.flat.vue", "--budget", "2", "--json")
    assert json.loads(run(*call).stdout)["verdict"] == "same"
    new.write_text(new.read_text().replace("at.value = 0", "at.value = -1"))
    assert json.loads(run(*call).stdout)["verdict"] == "differs"


GIVEN: list[tuple[str, str]] = [
    ("<p><b v-if='$slots.foot'><slot name='foot' /></b></p>", "some foot"),
    ("<p><slot name='foot' /></p>", "some foot"),
    ("<p><slot name='foot' :tide='2' /></p>", "some foottide: 2"),
    ("<p><b v-if='$slots.head'>head</b>none</p>", "none"),
]


@pytest.mark.parametrize("version", [2, 3])
@pytest.mark.parametrize(("markup", "text"), GIVEN)
def test_content_is_where_code_looks_for_it(
    markup: str, text: str, version: int, tmp_path: Path, bench: Bench
) -> None:
    slots = {"foot": [{"tag": "em", "content": ["some foot"]}]}
    first = tried(bench, side_of(tmp_path, version, markup), slots=slots)[0]
    assert first["errors"] == [] and text_of(first["tree"][0]) == text


WHOLE = """<template><ul><slot /></ul></template>
<script>
export default { name: 'Piers', provide() { return { piers: this }; }, methods: { word() { return 'of Piers'; } } };
</script>
"""


@pytest.mark.parametrize("version", [2, 3])
def test_parents_and_content_of_uses_are_drawn(version: int, tmp_path: Path, bench: Bench) -> None:
    (tmp_path / "Piers.vue").write_text(WHOLE)
    around = tmp_path / "parents-of-the-trial.js"
    module = "import Part1 from './Piers.vue';\nexport default { around: [[Part1, { class: 'all' }]] };\n"
    side = side_of(tmp_path, version, "<li><slot />{{ $parent.word() }}</li>")
    uses = Uses(
        tmp_path / "content-of-the-trial.js",
        "import Part1 from './Piers.vue';\n"
        "export default [(make) => ['a ', make('b', { title: 'x' }, { default: () => ['bold'] }),\n"
        "  make(Part1, {}, { default: () => [' in'] })]];\n",
        1,
    )
    side = replace(side, around=around, extra=((around, module),), uses=uses)
    first = tried(bench, side, slots={"default": [{"use": 1}]})[0]
    assert first["errors"] == []
    (tag, attributes, _, inside), *_ = first["tree"]
    assert tag == "ul" and attributes == {"class": "all"}
    assert text_of(inside) == "a bold inof Piers"


@pytest.mark.parametrize(
    ("version", "name"), [(2, "Berth.vue"), (3, "Berth.vue"), (0, "Berth.jsx")]
)
@pytest.mark.parametrize("flat", [True, False])
def test_a_guard_of_the_author_is_a_branch(
    version: int, name: str, flat: bool, tmp_path: Path, bench: Bench
) -> None:
    guard = "call(of, ...args) {\n      of && of(...args);\n    },"
    text = FORM.format(markup="<p>{{ at }}</p>", methods=guard)
    if flat:
        text = FLAT.replace("function turn", f"function {guard[:-1]}\n\nfunction turn")
    if not version:
        text = (
            "export const call = (of, ...args) => of && of(...args);\nexport default () => null;\n"
        )
    runtime = RUNTIMES[f"vue-{version}" if version else "react-18"]
    side = Side(tmp_path / name, text, runtime, exported="default")
    kinds = [c["kind"] for c in bench.build(side).counters or () if c["id"].startswith("b")]
    assert kinds.count("binary-expr") == 2


MOVES = """<template>
  <transition name="slide" @after-enter="told('shown')" @after-leave="told('hidden')"><p>Berth</p></transition>
</template>

<script>
export default { name: 'Berth', methods: { told(what) { this.$emit('moved', what); } } };
</script>
"""


@pytest.mark.parametrize("version", [2, 3])
def test_a_parent_hides_and_shows_it(version: int, tmp_path: Path, bench: Bench) -> None:
    place = tmp_path / "Berth.vue"
    side = Side(
        place, MOVES, RUNTIMES[f"vue-{version}"], exported="default", settings=settings_for(place)
    )
    turn = [{"change": {"inputs": {"$around.shown": shown}}} for shown in (False, True)]
    steps = [turn[0], {"pass": 100}, turn[1], {"pass": 100}]
    points = tried(
        bench, side, inputs={"$around.shown": True}, functions={"moved": {}}, steps=steps
    )
    calls = [call[:2] for point in points for call in point["calls"]]
    assert calls == [["moved", "hidden"], ["moved", "shown"]]
