"""What is mixed in is followed through its files, kept where it can be, and refused by name where not."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  <div :title="label">{{{{ used }}}} {{{{ named }}}}</div>
</template>

<script>
import keys from './keys';

export default {{
  {mix},
  data() {{
    return {{ used: 0 }};
  }},
  {options}
  methods: {{
    go() {{
      {body}
    }},
  }},
}};
</script>
"""
KEYS = "export default {{ props: {{ label: String }}, methods: {{ named() {{ {body} }} }}, {options} }};"


def carried(
    folder: Path, keys: str, mix: str = "mixins: [keys]", options: str = "", body: str = ""
) -> Result:
    (folder / "keys.js").write_text(keys)
    path = folder / "Berth.vue"
    path.write_text(FILE.format(mix=mix, options=options, body=body), "utf-8")
    aliases = (("@/", f"{folder.as_posix()}/"), ("pier-keys", f"{folder.as_posix()}/other.js"))
    request = Request(path, "Berth.vue", "single-file-flat", runtime=3, aliases=aliases)
    return carry_file(request)[0]


def keys(body: str = "", options: str = "") -> str:
    return KEYS.format(body=body, options=options)


def test_a_mixin_stays_an_option_and_its_members_are_asked_of_the_instance(tmp_path: Path) -> None:
    result = carried(tmp_path, keys(), body="this.named(this.label);")
    assert result.status == "clean"
    text = result.files[0].text
    assert "defineOptions({\n  mixins: [keys],\n});" in text
    assert "const props = defineProps({});" in text
    assert "proxy.named(props.label);" in text


FOLLOWED = [
    "const it = {keys};\nexport default it;",
    "import { it } from './other';\nexport default it;",
    "export { it as default } from './other';",
    "import Vue from 'vue';\nexport default Vue.extend({keys});",
    "import it from '@/other';\nexport default it;",
    "import it from 'pier-keys';\nexport default it;",
    "const make = () => ({keys});\nexport default make();",
    "export default { mixins: [{keys}] };",
]


@pytest.mark.parametrize("form", FOLLOWED)
def test_forms_that_are_followed(form: str, tmp_path: Path) -> None:
    literal = keys().removeprefix("export default ").removesuffix(";")
    (tmp_path / "other.js").write_text(f"export const it = {literal};\nexport default it;\n")
    result = carried(tmp_path, form.replace("{keys}", literal), body="this.named();")
    assert result.status == "clean", [(f.rule, f.message) for f in result.findings]
    assert "proxy.named();" in result.files[0].text


REFUSED = [
    (keys("", "data() { return { used: 0 }; },"), "", "", "mixin-needs-member"),
    (keys("", "beforeCreate() { send(this.used); },"), "", "", "mixin-needs-member"),
    (keys("send({ own: this.$data });"), "", "send(own.used);", "mixin-needs-member"),
    (keys("send(this.$data);"), "", "", "mixin-needs-member"),
    (keys(), "", "delete this[name];", "instance-escapes"),
    (keys(), "", "Object.assign(this, { used: 1 });", "instance-escapes"),
    (keys(), "", "send({ ...this });", "instance-escapes"),
    (keys(), "", "assign(this, { used: 1 });", "instance-escapes"),
    (keys(), "", "assign(this, { ...pier });", "instance-escapes"),
    (keys("", "...other,"), "", "", "mixin-not-followed"),
    (keys("", "setup() {},"), "", "", "mixin-not-followed"),
    ("export default make();", "", "", "mixin-not-followed"),
    ("export default other;", "", "", "mixin-not-followed"),
    (keys("", "data() { return { at: 0 }; },"), "watch: { at() {} },", "", "mixin-too-early"),
    (keys("", "mounted() {},"), "mounted() { this.named(); },", "", "mixin-order"),
]


@pytest.mark.parametrize(("mixin", "options", "body", "rule"), REFUSED)
def test_what_cannot_stay_is_refused(
    mixin: str, options: str, body: str, rule: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, mixin, "mixins: [keys]", options, body)
    assert (result.status, result.findings[0].rule) == ("refused", rule)


def test_the_same_hook_on_both_sides_is_noted(tmp_path: Path) -> None:
    result = carried(tmp_path, keys("", "mounted() {},"), options="mounted() { go(); },")
    assert result.status == "clean"
    assert "mixin-hook-later" in {finding.rule for finding in result.findings}


def test_a_field_both_use_stays_on_the_instance(tmp_path: Path) -> None:
    result = carried(tmp_path, keys("return this.box;"), body="this.box = 1;")
    assert "proxy.box = 1;" in result.files[0].text


def test_on_the_older_runtime_a_mixin_has_a_script_with_its_import(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"dependencies": {"vue": "2.7.16"}}')
    (tmp_path / "keys.js").write_text(keys())
    path = tmp_path / "Berth.vue"
    path.write_text(FILE.format(mix="mixins: [keys]", options="", body=""))
    text = carry_file(Request(path, "Berth.vue", "single-file-flat"))[0].files[0].text
    first, second = text.split("</script>")[:2]
    assert "import keys from './keys';\n\nexport default {\n  mixins: [keys],\n};" in first
    assert "keys" not in second


def test_a_method_in_the_place_of_a_mixins_stays_one_where_it_asks_for_nothing(
    tmp_path: Path,
) -> None:
    given = keys("", "methods: { go() {} },").replace("methods: { named() {  } }, ", "")
    result = carried(tmp_path, given, options="created() { done(); },", body="done();")
    assert result.status == "clean"
    text = result.files[0].text
    assert "  methods: {\n    go() {\n      done();\n    },\n  },\n" in text
    assert "function go" not in text


USED = "used: { get: () => used.value },"
SET = """used: {{
    get: () => {0}.value,
    set(value) {{
      {0}.value = value;
    }},
  }},"""
GO = "go: { get: () => go },"
OPENED = [
    (keys("this.go();"), "", [GO]),
    (keys("return this.used;"), "", [USED]),
    (keys("const own = this; send(own.used);"), "", [USED]),
    (keys("", "watch: { used() {} },"), "", [USED]),
    (keys("this.used = 1;"), "", [SET.format("usedValue")]),
    (keys("tell.call(this);") + "\nfunction tell() { this.go(); }", "", [GO]),
    (keys("send(this);") + "\nfunction send(berth) { berth.go(); }", "", [GO]),
    (keys("send(this.named);") + "\nfunction send(berth) { berth.go(); }", "", []),
    (keys("return this[named];"), "", [GO, SET.format("usedValue")]),
    (keys("return this['used'];"), "", [USED]),
    (keys(), "send(this); pier.used;", [USED]),
    (keys(), "send.call(this);", [GO, SET.format("usedValue")]),
    (keys(), "send({ berth: this }); const { used } = pier;", [USED]),
    (keys(), "return [this].map(({ used }) => used);", [USED]),
    (keys(), "return this === berth;", []),
    (keys(), "send(this['used']);", []),
    (keys("", "provide() { return { berth: this }; },"), "pier.used;", [USED]),
]


@pytest.mark.parametrize(("mixin", "body", "lines"), OPENED)
def test_what_others_ask_the_instance_for_is_opened_on_it(
    mixin: str, body: str, lines: list[str], tmp_path: Path
) -> None:
    result = carried(tmp_path, mixin, body=body)
    assert result.status == "clean", [(f.rule, f.message) for f in result.findings]
    text = result.files[0].text
    assert [line for line in lines if line not in text] == [], text
    assert text.count("get: () =>") == len(lines), text
    assert ("members-opened" in {f.rule for f in result.findings}) == bool(lines)


@pytest.mark.parametrize(
    ("told", "listed"),
    [
        ("{ data: berth.$data }", True),
        ("Object.keys(berth.$options.computed)", True),
        ("{ ...berth.$props }", False),
        ("berth.$data.used", False),
    ],
)
def test_what_lists_the_members_is_told_of(told: str, listed: bool, tmp_path: Path) -> None:
    mixin = keys("return told(this);") + f"\nfunction told(berth) {{ return {told}; }}"
    result = carried(tmp_path, mixin)
    assert result.status == "clean"
    found = [f.line for f in result.findings if f.rule == "members-listed"]
    # It points at what the component mixes in.
    assert found == ([9] if listed else [])


def test_a_name_given_by_a_parameter_is_looked_up_where_the_project_calls(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    (tmp_path / "Pier.vue").write_text("<script>this.named('used')</script>")
    mixin = KEYS.format(body="return this[key];", options="").replace("named() {", "named(key) {")
    text = carried(tmp_path, mixin).files[0].text
    assert USED in text
    assert "go: {" not in text


def test_a_call_of_the_making_that_needs_a_mixin_is_made_before_the_first_drawing(
    tmp_path: Path,
) -> None:
    result = carried(tmp_path, keys(), options="created() { this.named(this); },")
    assert result.status == "clean"
    assert "made-at-start" in {f.rule for f in result.findings}
    text = result.files[0].text
    assert "onBeforeMount(() => {" in text
    assert "proxy.named(proxy);" in text


def test_it_is_made_before_what_is_done_then_anyway(tmp_path: Path) -> None:
    hooks = "beforeMount() { second(); }, created() { this.named(); first(); },"
    text = carried(tmp_path, keys(), options=hooks).files[0].text
    assert text.index("first();") < text.index("second();")


def test_the_provided_instance_is_provided_with_what_is_asked_of_it(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    child = "inject: ['dock'], mounted() { this.dock.$emit(this.dock.used) }"
    (tmp_path / "Pier.vue").write_text(f"<script>export default {{ {child} }}</script>")
    result = carried(tmp_path, keys(), options="provide() { return { dock: this }; },")
    assert result.status == "clean"
    text = result.files[0].text
    assert "provide('dock', proxy);" in text
    assert USED in text
    assert "go: {" not in text


@pytest.mark.parametrize("asks", [True, False])
def test_state_a_mixin_asks_for_when_it_is_made_is_written_after_that(
    asks: bool, tmp_path: Path
) -> None:
    mixin = keys("", f"created() {{ send({'this.used' if asks else '1'}); }},")
    result = carried(tmp_path, mixin, options="created() { this.used = 1; },")
    rules = {finding.rule for finding in result.findings}
    assert ("made-at-start" in rules, "mixin-hook-later" in rules) == (asks, not asks)
    assert ("onBeforeMount(() => {" in result.files[0].text) == asks
