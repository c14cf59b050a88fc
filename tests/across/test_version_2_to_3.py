"""Single files of version 2 of their runtime, carried to version 3: the same, each in its own."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest

import clean_carry
from conftest import Run

DEMO = Path(clean_carry.__file__).parent / "demo" / "gullmoor" / "passenger-older"
PACKAGE = '{ "dependencies": { "vue": "^2.7.0" } }'
FILE = """<template>
  <div>{markup}</div>
</template>

<script>
export default {{
  name: 'PierCard',
  props: {{ pier: String, busy: Boolean }},
  data() {{
    return {{ lines: [], count: 0 }};
  }},
  {options}
}};
</script>
"""


def carried(run: Run, folder: Path, markup: str, options: str = "", style: str = "") -> dict:  # type: ignore[type-arg]
    """The first result of carrying a file with this markup and these options to version 3."""
    (folder / "package.json").write_text(PACKAGE, "utf-8")
    text = FILE.format(markup=markup, options=options) + style
    (folder / "PierCard.vue").write_text(text, "utf-8")
    done = run("carry", "PierCard.vue", "--to", "single-file-flat", "--runtime", "3", "--json")
    found: dict = json.loads(done.stdout)["results"][0]  # type: ignore[type-arg]
    return found


@pytest.mark.slow
@pytest.mark.parametrize("name", ["WeatherStrip", "CargoDeclaration", "CrossingSheet"])
def test_the_demo_is_the_same_in_both_versions(name: str, run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO, tmp_path / "pages")
    done = run(
        "carry", f"pages/{name}.vue", "--to", "single-file-flat", "--runtime", "3", "--verify", "--json",
    )  # fmt: skip
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    found = result["verification"]
    assert found["verdict"] == "same", found["trials"][0]["differences"][:3]


# Markup, options, what is written.
WRITTEN = {
    "a filter is a function that is called": (
        "{{ pier | short | padded(3) }}",
        "filters: { short: (text) => text.slice(0, 3), padded(text, by) { return text.padEnd(by); } },",
        ["{{ padded(short(pier), 3) }}", "function padded(text, by)", "short = (text) => text.slice(0, 3)"],
    ),
    "an input that is bound both ways": (
        '<pier-map :zoom.sync="count" />', "", ['<pier-map v-model:zoom="count" />'],
    ),
    "a component's value is bound by the names it had": (
        '<pier-map v-model="count" />', "", [':value="count" @input="count = $event"'],
    ),
    "a parent's listeners are attributes": (
        '<a v-bind="$attrs" v-on="$listeners">x</a>', "inheritAttrs: false,", ['<a v-bind="$attrs">x</a>'],
    ),
    "a listener of the root's own": ('<pier-map @click.native="count++" />', "", ['@click="count++"']),
    "a number of a key": ('<input @keyup.13="count++">', "", ['@keyup.enter="count++"']),
    "content of slots": (
        '<pier-map><b slot="title" slot-scope="{ at }">{{ at }}</b></pier-map>', "",
        ['<template v-slot:title="{ at }"><b>{{ at }}</b></template>'],
    ),
    "a condition of a row": (
        '<b v-for="line in lines" v-if="line.on" :key="line.id">x</b>', "",
        ['<template v-for="line in lines" :key="line.id"><b v-if="line.on">x</b></template>'],
    ),
    "keys stand at the template of a list": (
        '<template v-for="line in lines"><b :key="line.id">x</b></template>', "",
        ['<template v-for="line in lines" :key="line.id"><b>x</b></template>'],
    ),
    "false takes an attribute away": ('<b :aria-busy="busy">x</b>', "", [':aria-busy="busy || undefined"']),
    "an object of attributes never wins": (
        '<b title="x" v-bind="lines">x</b>', "", ['<b v-bind="lines" title="x">'],
    ),
    "space between elements is seen": ("<b>1</b>\n    <b>2</b>", "", ["<b>1</b> <b>2</b>"]),
    "moments are called otherwise": (
        "x", "beforeDestroy() { this.$emit('gone'); },", ["onBeforeUnmount(() => {", "defineEmits(['gone'])"],
    ),
    "a list that changes in place is watched inside": (
        '<b @click="lines.push(1)">x</b>', "watch: { lines() { this.count += 1; } },", ["deep: 1"],
    ),
    "what the runtime set": (
        '<b @click="$set(lines, 0, count)">x</b>', "", ['@click="lines[0] = count"'],
    ),
}  # fmt: skip


@pytest.mark.parametrize("case", WRITTEN)
def test_what_is_written(case: str, run: Run, tmp_path: Path) -> None:
    markup, options, lines = WRITTEN[case]
    found = carried(run, tmp_path, markup, options)
    assert found["status"] == "clean", found["findings"]
    for line in lines:
        assert line in found["files"][0]["text"], found["files"][0]["text"]


def test_the_classes_of_transitions(run: Run, tmp_path: Path) -> None:
    style = "\n<style>\n.fade-enter, .fade-enter-active, .fade-leave-to { opacity: 0 }\n</style>\n"
    found = carried(
        run, tmp_path, '<transition name="fade"><b v-if="busy">x</b></transition>', "", style
    )
    assert ".fade-enter-from, .fade-enter-active, .fade-leave-to {" in found["files"][0]["text"]


REFUSED = {
    "a filter that is registered elsewhere": ("{{ pier | local }}", "", "the filter local"),
    "a bus": ("x", "created() { this.$on('a', this.go); }, methods: { go() {} },", "this.$on"),
    "children": ("x", "mounted() { this.count = this.$children.length; },", "this.$children"),
    "a list in a slot": (
        '<pier-map><b v-for="l in lines" slot="a">x</b></pier-map>',
        "",
        "a list in a slot",
    ),
}


@pytest.mark.parametrize("case", REFUSED)
def test_what_version_3_has_no_form_for(case: str, run: Run, tmp_path: Path) -> None:
    markup, options, words = REFUSED[case]
    found = carried(run, tmp_path, markup, options)
    assert found["status"] == "refused"
    first = found["findings"][0]
    assert first["rule"] == "removed-from-runtime"
    assert words in first["message"]
    assert first["line"] in (2, 12)


def test_a_mixin_with_older_hooks_is_written_in(run: Run, tmp_path: Path) -> None:
    (tmp_path / "timing.js").write_text(
        "export default { beforeDestroy() { clearTimeout(this.timer); } };\n", "utf-8"
    )
    (tmp_path / "calm.js").write_text("export default { created() { this.on = 1; } };\n", "utf-8")
    text = FILE.format(markup="x", options="mixins: [timing],").replace(
        "export default", "import timing from './timing';\n\nexport default"
    )
    (tmp_path / "package.json").write_text(PACKAGE, "utf-8")
    (tmp_path / "PierCard.vue").write_text(text, "utf-8")
    (tmp_path / "Calm.vue").write_text(text.replace("timing", "calm"), "utf-8")
    texts = []
    for name in ("PierCard.vue", "Calm.vue"):
        done = run("carry", name, "--to", "single-file-flat", "--runtime", "3", "--json")
        texts.append(json.loads(done.stdout)["results"][0]["files"][0]["text"])
    assert "onBeforeUnmount" in texts[0]
    assert "mixins" not in texts[0]
    assert "mixins: [calm]" in texts[1]


def test_files_of_version_3_stay_as_they_are(run: Run, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{ "dependencies": { "vue": "^3.4.0" } }', "utf-8")
    text = FILE.format(markup='<b title="x" v-bind="lines" :aria-busy="busy">x</b>', options="")
    (tmp_path / "PierCard.vue").write_text(text, "utf-8")
    done = run("carry", "PierCard.vue", "--to", "single-file-flat", "--runtime", "3", "--json")
    written = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert '<b title="x" v-bind="lines" :aria-busy="busy">x</b>' in written


def test_files_in_the_flat_form_are_not_carried_again(run: Run, tmp_path: Path) -> None:
    page = "<template><p>{{ name }}</p></template>\n\n"
    made = "<script>\nexport default {\n  data: () => ({ name: 'Pier' }),\n};\n</script>\n"
    setup = "\n<script setup>\nconst name = 'Pier';\n</script>\n"
    module = "<script>\nexport default { inheritAttrs: false };\n</script>\n"
    (tmp_path / "src").mkdir()
    (tmp_path / "src" / "Pier.vue").write_text(page + made, "utf-8")
    (tmp_path / "src" / "Pier.flat.vue").write_text(page + module + setup, "utf-8")
    done = run("carry", "src", "--to", "single-file-flat", "--json")
    assert [one["component"] for one in json.loads(done.stdout)["results"]] == ["Pier"]
