"""State given at once or by a name that a value chooses, watchers that are put off, instances provided."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  <form @submit="send">
    <input :value="label" @input="take('label', $event)" />
    <input :value="weight" @input="take('weight', $event)" />
  </form>
</template>

<script>
import throttle from './throttle';

let next = 1;

export default {
  name: 'CargoForm',
  props: { pier: { type: String, default: 'Skail' } },
  data() {
    return { label: this.pier, weight: 1, crates: [], number: next++ };
  },
  watch: {
    label: %s,
  },
  methods: {
    take(part, event) {
      %s
    },
    send() {
      %s
    },
  },
};
</script>
"""


def carried(
    folder: Path, *, watch: str = "'send'", take: str = "", send: str = "", runtime: int = 3
) -> Result:
    (folder / "package.json").write_text("{}")
    path = folder / "CargoForm.vue"
    path.write_text(FILE % (watch, take, send), "utf-8")
    return carry_file(Request(path, "CargoForm.vue", "single-file-flat", runtime=runtime))[0]


AT_ONCE = [
    (
        "Object.assign(this.$data, { weight: 1, crates: [this.pier] });",
        "  weight.value = 1;\n  crates.value = [props.pier];\n}",
    ),
    (
        "Object.assign(this.$data, this.$options.data.call(this));",
        "  label.value = props.pier;\n  weight.value = 1;\n  crates.value = [];\n"
        "  number.value = next++;\n}",
    ),
    (
        "if (this.pier) {\n        Object.assign(this.$data, { label: '', weight: this.weight + 1 });\n"
        "      }",
        "  if (props.pier) {\n    label.value = '';\n    weight.value = weight.value + 1;\n  }\n}",
    ),
    (
        "const vm = this;\n      setTimeout(function () { Object.assign(vm.$data, { weight: 2 }); });",
        "  setTimeout(function () { weight.value = 2; });\n}",
    ),
]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("old", "new"), AT_ONCE)
def test_state_given_at_once(old: str, new: str, runtime: int, tmp_path: Path) -> None:
    result = carried(tmp_path, send=old, runtime=runtime)
    assert result.status == "clean", result.findings
    assert f"function send() {{\n{new}" in result.files[0].text


# A value that would see what is written before it, a place for one statement only, what is not literal,
# names that mean something else, and a field that is not there.
NOT_AT_ONCE = [
    "Object.assign(this.$data, { weight: 2, crates: [this.weight] });",
    "Object.assign(this.$data, { weight: 2, crates: load(this) });",
    "if (this.pier) Object.assign(this.$data, { weight: 2, crates: [] });",
    "return Object.assign(this.$data, { weight: 2 });",
    "Object.assign(this.$data, this.crates[0]);",
    "const next = 4; Object.assign(this.$data, this.$options.data.call(this));",
    "Object.assign(this.$data, { stamp: 2 });",
    # The state of another instance, and of whatever calls a function.
    "const child = this.$refs.crate; Object.assign(child.$data, { weight: 2 });",
    "next.go(function () { Object.assign(this.$data, { weight: 2 }); });",
    "const weight = 2; Object.assign(this.$data, { weight });",
]


@pytest.mark.parametrize("code", NOT_AT_ONCE)
def test_state_given_in_another_way_is_refused(code: str, tmp_path: Path) -> None:
    result = carried(tmp_path, send=code)
    assert result.status == "refused" and result.findings[0].line >= 18, result.findings


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("this['weight'] = 2;", "  weight.value = 2;"),
        ("this['weight']++;", "  weight.value++;"),
        ("throttle(this['pier'], this['label']);", "  throttle(props.pier, label.value);"),
    ],
)
def test_a_member_named_by_a_word(old: str, new: str, tmp_path: Path) -> None:
    assert new in carried(tmp_path, send=old).files[0].text


@pytest.mark.parametrize("runtime", [2, 3])
def test_a_field_that_a_value_chooses(runtime: int, tmp_path: Path) -> None:
    result = carried(tmp_path, take="this[part] = event.target.value;", runtime=runtime)
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert "const fields = { label, weight };" in text
    assert "  fields[part].value = event.target.value;" in text


CHOSEN_BY_OTHERS = [
    ("this[event.target.name] = 1;", ""),
    ("this[part] = 1;", "setTimeout(this.take, 20);"),
    ("this[part] = 1;", "this.take(this.label);"),
    ("this[part] = 1;", "this.take('pier');"),
    ("delete this[part];", ""),
]


@pytest.mark.parametrize(("take", "send"), CHOSEN_BY_OTHERS)
def test_a_field_that_may_be_anything_is_refused(take: str, send: str, tmp_path: Path) -> None:
    assert carried(tmp_path, take=take, send=send).status == "refused"


PUT_OFF = [
    "throttle(function (now) { this.weight = now; }, 200)",
    "{ handler: throttle(function (now) { this.weight = now; }, 200) }",
]


@pytest.mark.parametrize("watch", PUT_OFF)
def test_a_watcher_that_is_put_off_stays_one_for_all_instances(watch: str, tmp_path: Path) -> None:
    result = carried(tmp_path, watch=watch)
    assert result.status == "clean", result.findings
    module, setup = result.files[0].text.split("<script setup>")
    assert "const labelLater = throttle((run) => run(), 200);" in module
    assert "watch(label, (now) => labelLater(() => { weight.value = now; }));" in setup


def test_a_watcher_made_by_another_call_is_refused(tmp_path: Path) -> None:
    result = carried(tmp_path, watch="once(function (now) { this.weight = now; })")
    assert (result.status, result.findings[0].rule) == ("refused", "method-made-once")


def test_the_program_proves_them(run: Any, tmp_path: Path) -> None:
    (tmp_path / "throttle.js").write_text(
        "export default (run, wait) => {\n  let timer;\n  return function (...values) {\n"
        "    clearTimeout(timer);\n    timer = setTimeout(() => run.apply(this, values), wait);\n  };\n};\n"
    )
    carried(
        tmp_path,
        watch=PUT_OFF[0],
        take="this[part] = event.target.value;",
        send="Object.assign(this.$data, { label: '', weight: 1 });",
    )
    done = run(
        "carry", "CargoForm.vue", "--to", "single-file-flat", "--verify", "--budget", "3", "--json"
    )
    result = json.loads(done.stdout)["results"][0]
    assert result["verification"]["verdict"] == "same", done.stdout[-1500:]


HELD = """<script>
export default {
  data() {
    return { ships: [], head: null };
  },
  watch: {
    'ships.length'(now) { this.$emit('count', now); },
    'head.name'(now) { this.$emit('head', now); },
  },
  methods: {
    leave(ship) { this.ships = this.ships.filter((other) => other !== ship); },
    take(ship) { this.head = ship; },
  },
};
</script>
<template><p @click="take(leave(1))">{{ ships }}</p></template>
"""


def test_a_path_is_followed_as_far_as_there_may_be_nothing(tmp_path: Path) -> None:
    (tmp_path / "Quay.vue").write_text(HELD)
    text = (
        carry_file(Request(tmp_path / "Quay.vue", "Quay.vue", "single-file-flat"))[0].files[0].text
    )
    assert "watch(() => ships.value.length, (now) =>" in text
    assert "watch(() => head.value && head.value.name, (now) =>" in text
