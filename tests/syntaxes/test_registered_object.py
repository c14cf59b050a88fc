"""Scripts that register a component by a name become single files and functions."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registered_object.as_single_file import as_single_file
from conftest import Run

BODY = """  props: { start: { type: Number, default: 3 } },
  template: %s,
  data: function () {
    return { taken: 0 };
  },
  computed: {
    left() {
      return this.start - this.taken;
    },
  },
  methods: {
    take(by) {
      this.taken += by;
      this.$emit('taken', this.taken);
    },
  },
"""
MARKUP = """`
    <div class="seats">
      <strong>{{ left }} of {{ start }}</strong>
      <button :disabled="!left" @click="take(1)">Take</button>
    </div>
  `"""
GLOBAL = f"""import Vue from 'vue';

// Counts the seats that are left.
Vue.component('seat-counter', {{
{BODY % MARKUP}}});
"""
SHORT = BODY % "'<b @click=\"take(1)\">{{ left }}</b>'"
PACKAGE = '{ "dependencies": { "vue": "^2.7.0" } }'


def carried(run: Run, folder: Path, text: str, to: str = "single-file-flat", *more: str) -> dict:  # type: ignore[type-arg]
    """The first result of carrying a script with this text."""
    (folder / "package.json").write_text(PACKAGE, "utf-8")
    (folder / "seat-counter.js").write_text(text, "utf-8")
    done = run("carry", "seat-counter.js", "--to", to, "--json", *more)
    found: dict = json.loads(done.stdout)["results"][0]  # type: ignore[type-arg]
    return found


@pytest.mark.slow
@pytest.mark.parametrize("target", ["single-file-flat", "jsx-function"])
def test_it_is_the_same_in_both_runtimes(target: str, run: Run, tmp_path: Path) -> None:
    found = carried(run, tmp_path, GLOBAL, target, "--verify", "--budget", "4")
    assert found["status"] == "clean", found["findings"]
    assert found["verification"]["verdict"] == "same", found["verification"]


def test_a_registered_object_becomes_a_single_file(run: Run, tmp_path: Path) -> None:
    found = carried(run, tmp_path, GLOBAL)
    file = found["files"][0]
    assert (found["from"], file["path"]) == ("registered-object", "seat-counter.flat.vue")
    text = file["text"]
    assert text.startswith("<script>\nexport default {\n  name: 'SeatCounter',\n};\n</script>\n")
    assert "<script setup>\nimport { computed, ref } from 'vue';\n" in text
    assert "// Counts the seats that are left.\n" in text
    assert '<template>\n  <div class="seats">\n    <strong>{{ left }}' in text
    assert "Vue" not in text.replace("'vue'", "")
    noted = {one["rule"]: one["line"] for one in found["findings"]}
    assert noted["registered-by-name"] == 4


JOINED = (
    "Vue.component('seat-counter', {\n" + BODY % "['<b>', '{{ left }}' + '</b>'].join('')" + "});\n"
)
CHILD = "Vue.component('seat-counter', {\n" + BODY % "'<seat-mark :left=\"left\" />'" + "});\n"
FORMS = {
    "an application": f"import {{ app }} from './main';\napp.component('seat-counter', {{\n{SHORT}}});\n",
    "the default export": f"export default {{\n{SHORT}}};\n",
    "both": f"import Vue from 'vue';\nexport default Vue.component('seat-counter', {{\n{SHORT}}});\n",
    "strings put together": JOINED,
    "a child registered for all": CHILD,
}


@pytest.mark.parametrize("form", FORMS)
def test_every_form_is_read(form: str, run: Run, tmp_path: Path) -> None:
    found = carried(run, tmp_path, FORMS[form])
    assert found["status"] == "clean", found["findings"]
    assert "<template>" in found["files"][0]["text"]


REFUSED = {
    "template-not-text": "Vue.component('seat-counter', {\n" + BODY % "'#seats'" + "});\n",
    "several-registered": f"Vue.component('a-b', {{\n{SHORT}}});\nVue.component('c-d', {{\n{SHORT}}});\n",
    "registered-elsewhere": f"const made = Vue.component('a-b', {{\n{SHORT}}});\n",
    "makes-application": (
        "import { createApp } from 'vue';\nconst app = createApp({});\n"
        f"app.component('a-b', {{\n{SHORT}}});\napp.mount('#app');\n"
    ),
}


@pytest.mark.parametrize("rule", REFUSED)
def test_what_is_no_single_file_is_refused(rule: str, run: Run, tmp_path: Path) -> None:
    found = carried(run, tmp_path, REFUSED[rule])
    assert (found["status"], found["findings"][0]["rule"]) == ("refused", rule)


def test_a_component_of_the_other_runtime_is_not_taken_for_one(run: Run, tmp_path: Path) -> None:
    text = (
        "angular.module('desk', []).component('seatCounter', {\n"
        "  bindings: { start: '<' },\n  template: '<b>{{ $ctrl.start }}</b>',\n});\n"
    )
    (tmp_path / "seat-counter.js").write_text(text, "utf-8")
    done = run("carry", "seat-counter.js", "--to", "single-file-flat", "--json")
    (result,) = json.loads(done.stdout)["results"]
    assert result["from"] == "controller-component"


def test_lines_of_the_script_stay_where_they_are() -> None:
    made = as_single_file(SourceText("seat-counter.js", GLOBAL.encode()), lead="")
    lines = made.data.decode().split("\n")
    assert lines[20].strip() == GLOBAL.split("\n")[20].strip() == "take(by) {"
