"""Single files whose code is called with the instance, names it in the template, or is made once."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  <p @click="go()">{{ used }}%s</p>
</template>

<script>
import { debounce } from './later';
import { load } from './load';

export default {
  %s
  props: { pier: { type: String, default: 'Skail' } },
  data() {
    return { used: 0, head: null };
  },
  methods: {
    go() {
      %s
    },%s
  },
};
</script>
"""


def carried(
    folder: Path,
    code: str = "load();",
    drawn: str = "",
    option: str = "",
    method: str = "",
    runtime: int = 3,
) -> Result:
    path = folder / "Berth.vue"
    path.write_text(FILE % (drawn, option, code, method), "utf-8")
    return carry_file(Request(path, "Berth.vue", "single-file-flat", runtime=runtime))[0]


CALLBACKS = [
    ("this.$nextTick(function () { this.used++; });", "nextTick(function () { used.value++; });"),
    ("[1].map(function (n) { return n + this.used; }, this);", "[1].map(function (n) { return n + used.value; });"),
    ("load(function () { this.used = 1; }.bind(this));", "load(function () { used.value = 1; });"),
    ("const vm = this; [1].forEach(function () { this.used = 2; }, vm);", "[1].forEach(function () { used.value = 2; });"),
    ("this.$watch('used', function (now) { load(now, this.pier); });", "proxy.$watch(() => used.value, function (now) { load(now, props.pier); });"),
    ("this.$watch(() => this.used, function () { load(this.used); });", "proxy.$watch(() => used.value, function () { load(used.value); });"),
]  # fmt: skip


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("old", "new"), CALLBACKS)
def test_what_is_called_with_the_instance(old: str, new: str, runtime: int, tmp_path: Path) -> None:
    result = carried(tmp_path, old, runtime=runtime)
    assert result.status == "clean", result.findings
    assert new in result.files[0].text
    assert "this" not in result.files[0].text


@pytest.mark.parametrize(
    "code", ["load(function () { this.used = 1; });", "load(function () { return this; });"]
)
def test_what_is_called_by_somebody_else_keeps_its_own_this(code: str, tmp_path: Path) -> None:
    assert code in carried(tmp_path, code).files[0].text


# A helper's result goes somewhere, and may be called with the instance.
NOT_KNOWN = [
    "return load(function () { this.used = 1; });",
    "const late = function () { this.go(); }; load(late);",
    "load({ run() { return this.pier; } });",
    "this.$on('tide', debounce(function () { this.used = 1; }));",
]


@pytest.mark.parametrize("code", NOT_KNOWN)
def test_a_function_of_which_nobody_sees_the_caller_is_refused(code: str, tmp_path: Path) -> None:
    result = carried(tmp_path, code, runtime=2)
    assert (result.status, result.findings[0].rule) == ("refused", "this-not-known")


KNOWN = [
    "return load({ used: 1, run() { return this.used; } });",
    "return load(function () { return this.width; });",
    "load.addEventListener('tap', function () { load(this.used); });",
    "const late = [1].map(function () { return this.used; }); load(late);",
]


@pytest.mark.parametrize("code", KNOWN)
def test_a_function_whose_this_is_another_stays(code: str, tmp_path: Path) -> None:
    result = carried(tmp_path, code, runtime=2)
    assert result.status == "clean" and code in result.files[0].text, result.findings


DRAWN = [
    (" {{ this.used }} {{ $data.used }}", " {{ used }} {{ used }}"),
    ('<b @click="this.used++">{{ this.pier }}</b>', '<b @click="used++">{{ pier }}</b>'),
    (
        ' <i v-for="n in 3" :key="n">{{ this.used + n }}</i>',
        ' <i v-for="n in 3" :key="n">{{ used + n }}</i>',
    ),
    (" {{ $props.pier }}", " {{ $props.pier }}"),
]


@pytest.mark.parametrize(("old", "new"), DRAWN)
def test_a_template_that_names_the_instance(old: str, new: str, tmp_path: Path) -> None:
    result = carried(tmp_path, drawn=old)
    assert result.status == "clean", result.findings
    assert f"{{{{ used }}}}{new}</p>" in result.files[0].text


def test_a_template_that_means_the_member_where_a_loop_has_the_name(tmp_path: Path) -> None:
    result = carried(tmp_path, drawn='<i v-for="used in 3" :key="used">{{ this.used }}</i>')
    assert (result.status, result.findings[0].rule) == ("refused", "names-meet")


def test_a_debounced_method_stays_one_for_all_instances(tmp_path: Path) -> None:
    method = "\n    send: debounce(function (v) { this.used = v; }, 300),"
    text = carried(tmp_path, "this.send(1);", method=method).files[0].text
    module, setup = text.split("<script setup>")
    assert "const sendLater = debounce((run) => run(), 300);" in module
    assert "sendLater(() => { used.value = v; });" in setup and "send(1);" in setup


MADE = [
    ("once(function () { this.used = 1; })", "import { once } from './once';"),
    ("debounce(load, 3)", ""),
    ("debounce(function () { load(arguments); }, 3)", ""),
]


@pytest.mark.parametrize(("call", "more"), MADE)
def test_what_else_is_made_once_is_refused(call: str, more: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "this.send();", method=f"\n    send: {call},")
    assert (result.status, result.findings[0].rule) == ("refused", "method-made-once")


REFUSED = [
    ("", "this.$once('hook:unmounted', load);", "removed-from-runtime"),
    ("", "this.$set(this.head, 'a', 1);", "removed-from-runtime"),
]


@pytest.mark.parametrize(("option", "code", "rule"), REFUSED)
def test_what_version_three_does_not_have(
    option: str, code: str, rule: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, code, option=option)
    assert (result.status, result.findings[0].rule) == ("refused", rule)
    assert carried(tmp_path, code, option=option, runtime=2).status == "clean"


def test_an_instance_provided_for_whoever_asks(tmp_path: Path) -> None:
    result = carried(tmp_path, option="provide() { return { dock: this }; },")
    assert result.status == "clean"
    assert "instance-provided-unknown" in {finding.rule for finding in result.findings}
    given = (
        "provide('dock', reactive({\n  go,\n  head,\n  pier: toRef(props, 'pier'),\n  used,\n}));"
    )
    assert given in result.files[0].text


@pytest.mark.parametrize(
    ("hook", "runtime"), [("beforeDestroy", 3), ("destroyed", 3), ("unmounted", 2)]
)
def test_a_hook_the_version_does_not_know_never_ran(
    hook: str, runtime: int, tmp_path: Path
) -> None:
    result = carried(tmp_path, option=f"{hook}() {{ load(this.used); }},", runtime=runtime)
    assert result.status == "clean"
    assert "load(used.value)" not in result.files[0].text
    assert "hook-never-ran" in {f.rule for f in result.findings}


def test_the_instance_as_a_parameter(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    path.write_text(
        "<template><p>{{ a }} {{ b }}</p></template>\n<script>\nexport default {\n  props: { n: Number },\n"
        "  data: (vm) => ({ a: vm.n }),\n  computed: { b: (vm) => vm.a + vm.n },\n};\n</script>\n"
    )
    (result,) = carry_file(Request(path, "Berth.vue", "single-file-flat", runtime=3))
    assert "const a = ref(props.n);" in result.files[0].text
    assert "computed(() => a.value + props.n)" in result.files[0].text


@pytest.mark.parametrize(
    "use",
    [
        "this.$children.forEach((child, n) => { child.used = n; });",
        "for (const child of this.$children) child.used = 1;",
        "this.$refs.berths.map(function (berth) { return berth.used; });",
    ],
)
def test_data_that_a_parent_writes_is_open(use: str, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "Pier.vue").write_text(
        f"<script>\nexport default {{ mounted() {{ {use} }} }};\n</script>\n"
    )
    text = carried(tmp_path, runtime=2).files[0].text
    assert "defineExpose({ used });" in text


def test_a_style_that_takes_a_member_is_written_with_its_name(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    path.write_text(
        "<template><p>{{ load }}</p></template>\n<script>\nimport { load } from './load';\n"
        "export default { data() { return { load: load(), sea: 'teal' }; } };\n</script>\n"
        "<style>p { color: v-bind(sea); width: v-bind('load'); }</style>\n"
    )
    (result,) = carry_file(Request(path, "Berth.vue", "single-file-flat", runtime=3))
    assert result.status == "clean", result.findings
    assert "v-bind(sea)" in result.files[0].text
    assert "v-bind('loadValue')" in result.files[0].text


def test_comments_stay_with_what_they_are_about(tmp_path: Path) -> None:
    option = "computed: {\n    // doubles\n    twice() { return this.used * 2; }, // after twice\n  }, // all derived"
    text = carried(tmp_path, option=option).files[0].text
    assert (
        "// doubles\nconst twice = computed(() => { return used.value * 2; }); // after twice"
        in text
    )


def test_a_watcher_of_the_making_is_the_runtime_s_function(tmp_path: Path) -> None:
    code = """import { defineComponent } from 'vue';

const marks = new Map();
export default defineComponent({
  data() {
    return { level: 1 };
  },
  created() {
    this.stop = this.$watch('level', (now) => marks.set('level', now));
    this.$watch(() => this.level * 2, function (now) {
      if (now > 9) this.stop();
    });
    this.$watch((vm) => vm.level, (now) => marks.set('vm', now));
  },
  methods: {
    follow() {
      return this.$watch(() => this.level, () => this.stop());
    },
  },
});
"""
    path = tmp_path / "Berth.vue"
    path.write_text(
        f"<template><p>{{{{ level }}}}</p></template>\n<script>\n{code}</script>\n", "utf-8"
    )
    found = carry_file(Request(path, "Berth.vue", "single-file-flat", runtime=3))[0]
    text = found.files[0].text
    assert text.count("= watch(() => level.value, (now)") == 1
    assert "\nwatch(() => level.value * 2, function (now) {" in text
    assert "proxy.$watch((vm) => vm.level" in text
    assert "return proxy.$watch(() => level.value" in text
    assert "<script>\nconst marks" in text
