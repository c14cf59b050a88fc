"""What each option of a component object becomes as statements, for both versions of the runtime."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  <div>{markup}<b @click="go(1)">{{{{ used }}}} {{{{ berth }}}}</b></div>
</template>

<script>
import load from './load';
import Tide from './Tide.vue';

export default {{
  props: {{ pier: String, limit: {{ type: Number, default: 3 }}, berth: Object }},
  data() {{
    return {{ used: 0, list: [] }};
  }},
  {options}
  methods: {{
    go(by) {{
      {body}
    }},
    {methods}
  }},
}};
</script>
"""


def carried(
    tmp_path: Path, options: str = "", body: str = "load();", markup: str = "", runtime: int = 3,
    methods: str = "",
) -> Result:  # fmt: skip
    path = tmp_path / "Berth.vue"
    text = FILE.format(options=options, body=body, markup=markup, methods=methods)
    path.write_text(text, "utf-8")
    return carry_file(Request(path, "Berth.vue", "single-file-flat", runtime=runtime))[0]


def text_of(result: Result) -> str:
    assert result.status == "clean", [(f.rule, f.message) for f in result.findings]
    return result.files[0].text


OPTIONS: list[tuple[str, str, str]] = [
    # (option, what version 3 gets, what version 2.7 gets where that is something else)
    ("created() { this.used = 1; },", "used.value = 1;", ""),
    ("created() { const n = 1; this.used = n; },", "{\n  const n = 1; used.value = n;\n}", ""),
    (
        "created() { if (!this.pier) return; this.used = 1; },",
        "function created() { if (!props.pier) return; used.value = 1; }\n\ncreated();",
        "",
    ),
    ("async created() { this.list = await load(); },", "async function created() {", ""),
    ("mounted() { this.go(); },", "onMounted(() => { go(); });", ""),
    ("async mounted() { await load(); },", "onMounted(async () => { await load(); });", ""),
    ("beforeMount() { load(); },", "onBeforeMount(() => { load(); });", ""),
    ("beforeUpdate() { load(); },", "onBeforeUpdate(() => { load(); });", ""),
    ("updated() { load(); },", "onUpdated(() => { load(); });", ""),
    ("activated() { load(); },", "onActivated(() => { load(); });", ""),
    ("deactivated() { load(); },", "onDeactivated(() => { load(); });", ""),
    ("beforeUnmount() { load(); },", "onBeforeUnmount(() => { load(); });", "const used"),
    ("unmounted() { load(); },", "onUnmounted(() => { load(); });", "const used"),
    ("errorCaptured(e) { load(e); },", "onErrorCaptured((e) => { load(e); });", ""),
    ("mounted: () => load(),", "onMounted(() => load());", ""),
    (
        "computed: { left() { return this.limit - this.used; } },",
        "const left = computed(() => { return props.limit - used.value; });",
        "",
    ),
    (
        "computed: { left: function () { return this.used; } },",
        "const left = computed(() => { return used.value; });",
        "",
    ),
    (
        "computed: { left: { get() { return this.used; }, set(v) { this.used = v; } } },",
        "const left = computed({\n  get: () => { return used.value; },\n"
        "  set: (v) => { used.value = v; },\n});",
        "",
    ),
    (
        "watch: { limit(now) { this.used = now; } },",
        "watch(() => props.limit, (now) => { used.value = now; });",
        "",
    ),
    (
        "watch: { limit: 'go' },",
        "watch(() => props.limit, go);",
        "",
    ),
    (
        "watch: { limit: { handler(n) { this.go(n); }, immediate: true } },",
        "watch(() => props.limit, (n) => { go(n); }, { immediate: true });",
        "",
    ),
    (
        "watch: { list() { this.go(); } },",
        "watch(list, () => { go(); });",
        "proxy.$watch(() => list.value, () => { go(); });",
    ),
    (
        "watch: { list: { handler: 'go', deep: true } },",
        "watch(list, go, { deep: true });",
        "",
    ),
    (
        "watch: { 'berth.name'(now) { this.go(now); } },",
        "watch(() => props.berth && props.berth.name, (now) => { go(now); });",
        "proxy.$watch(() => props.berth?.name, (now) => { go(now); });",
    ),
    (
        "watch: { limit: [function (n) { this.used = n; }, 'go'] },",
        "watch(() => props.limit, (n) => { used.value = n; });\n\nwatch(() => props.limit, go);",
        "",
    ),
    ("watch: { $route() { this.go(); } },", "watch(() => proxy.$route, ", "$watch(() => "),
    ("inject: ['dock'],", "const dock = inject('dock');", ""),
    (
        "inject: { dock: { from: 'quay', default: null } },",
        "const dock = inject('quay', null);",
        "",
    ),
    (
        "inject: { dock: { default: () => [] } },",
        "const dock = inject('dock', () => [], true);",
        "",
    ),
    ("provide: { a: 1 },", "provide('a', 1);", ""),
    ("provide() { return { pier: this.pier }; },", "provide('pier', props.pier);", ""),
    ("components: { Tide },", "const props", "defineProps({"),
    (
        "components: { 'tide-strip': Tide },",
        "defineOptions({\n  components: { 'tide-strip': Tide },\n});",
        "export default {\n  components: { 'tide-strip': Tide },\n};\n</script>",
    ),
    (
        "inheritAttrs: false,",
        "defineOptions({\n  inheritAttrs: false,\n});",
        "<script>\nexport default {\n  inheritAttrs: false,\n};\n</script>",
    ),
    (
        "name: 'Berth',",
        "defineOptions({ name: 'Berth' });",
        "<script>\nexport default {\n  name: 'Berth',\n};\n</script>",
    ),
    ("group: 'docks',", "const props", "const props"),
    (
        "group: { of: 'docks' },",
        "defineOptions({\n  group: { of: 'docks' },\n});",
        "export default {\n  group: { of: 'docks' },\n};",
    ),
    ("expose: ['go', 'used'],", "defineExpose({ used, go });", ""),
    ("emits: { gone: null },", "defineEmits({ gone: null });", ""),
]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("option", "three", "two"), OPTIONS)
def test_options_as_statements(
    option: str, three: str, two: str, runtime: int, tmp_path: Path
) -> None:
    wanted = two if two and runtime == 2 else three
    text = text_of(carried(tmp_path, option, "this.used += by; load(this.pier);", runtime=runtime))
    assert wanted in text
    assert "this." not in text
    assert text.startswith(FILE.format(options="", body="", markup="", methods="").split("\n\n")[0])


BODIES: list[tuple[str, str]] = [
    ("this.used++;", "used.value++;"),
    ("--this.used;", "--used.value;"),
    ("[this.used] = [by];", "[used.value] = [by];"),
    ("this.$emit('gone', by);", "emit('gone', by);"),
    ("this.$emit(`to-${by}`);", "emit(`to-${by}`);"),
    ("this.$nextTick(() => this.go(by));", "nextTick(() => go(by));"),
    ("load(this.$attrs.id);", "load(attrs.id);"),
    ("load(this.$el, this.$parent);", "load(proxy.$el, proxy.$parent);"),
    ("this.timer = load(); load(this.timer);", "timer = load(); load(timer);"),
    ("const self = this; load(self.used);", "load(used.value);"),
    ("const { used, pier: at } = this;", "const currentUsed = used.value, at = props.pier;"),
    ("load(this.go.bind(this));", "load((...args) => go(...args));"),
    ("if (by === this) load();", "if (by === proxy) load();"),
    ("load(() => this.used);", "load(() => used.value);"),
    ("load(function () { return this.used; });", "load(function () { return this.used; });"),
    ("load(this.unknown);", "load(proxy.unknown);"),
    ("const used = this.used; load({ used });", "= used.value; load({ used: currentUsed });"),
    ("this.$refs.box.focus();", "box.value.focus();"),
    ("this.$refs.other.focus();", "proxy.$refs.other.focus();"),
    ("load(this.$refs);", "load(proxy.$refs);"),
    ("load(this.$refs.box !== undefined);", "load(proxy.$refs.box !== undefined);"),
    ("load(null === (this.$refs.box));", "load(null === (proxy.$refs.box));"),
    ("load(typeof this.$refs.box);", "load(typeof proxy.$refs.box);"),
    ("load(this.$refs.box == null);", "load(box.value == null);"),
    ("load(this.$refs.box === event.target);", "load(box.value === event.target);"),
]  # fmt: skip


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("old", "new"), BODIES)
def test_bodies_by_name(old: str, new: str, runtime: int, tmp_path: Path) -> None:
    markup = "<i ref='box'/>" if "$refs.box" in old else ""
    # What 2.7 gives a script is a copy that tells nobody of an attribute that was not there.
    new = new.replace("(attrs.", "(proxy.$attrs.") if runtime == 2 else new
    assert new in text_of(carried(tmp_path, "", old, markup, runtime))


REFUSED: list[tuple[str, str, str, str]] = [
    ("data() { return { dock: new Dock(this) }; },", "", "", "instance-escapes"),
    ("created() { throw new Error(); },", "", "", "made-throws"),
    ("computed: { ...load },", "", "", "unknown-option"),
    ("computed: { left() { return arguments; } },", "", "", "unknown-option"),
    ("watch: { unknown() {} },", "", "", "unknown-option"),
    ("mixins: [load],", "", "", "mixin-not-followed"),
    ("setup() {},", "", "", "unknown-option"),
    ("", "this.$watch('used', load); this.$data.used = 1;", "", "unknown-use"),
    ("", "const { ...all } = this;", "", "instance-escapes"),
    ("", "", "<i v-model='limit'/>", "input-written"),
    ("", "", "<i>{{ load }}</i>", "unknown-use"),
]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("option", "body", "markup", "rule"), REFUSED)
def test_what_cannot_be_a_statement_is_refused_by_name(
    option: str, body: str, markup: str, rule: str, runtime: int, tmp_path: Path
) -> None:
    result = carried(tmp_path, option, body or "load();", markup, runtime)
    assert (result.status, result.findings[0].rule) == ("refused", rule)


def test_state_that_reads_state_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(options="", body="", markup="", methods="").replace(
        "list: []", "list: this.used"
    )
    path.write_text(text)
    result = carry_file(Request(path, "Berth.vue", "single-file-flat"))[0]
    assert (result.status, result.findings[0].rule) == ("refused", "state-reads-state")


def test_code_of_the_module_keeps_a_script_of_its_own(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(options="name: 'Berth',", body="load(next);", markup="", methods="")
    path.write_text(text.replace("export default", "let next = 0; // counts all\n\nexport default"))
    for runtime, options in ((2, "export default {\n  name: 'Berth',\n};\n"), (3, "")):
        request = Request(path, "Berth.vue", "single-file-flat", runtime=runtime)
        found = text_of(carry_file(request)[0])
        first, second = found.split("</script>")[:2]
        assert "let next = 0; // counts all\n" in first
        assert options in first
        assert "import Tide from './Tide.vue';" in first
        assert second.startswith("\n\n<script setup>\nimport { ref } from 'vue';\n\n")
        assert "load(next);" in second


def test_names_of_imports_and_inputs_are_kept_apart_in_the_template(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(options="", body="pier(this.pier);", markup="{{ pier }}", methods="")
    path.write_text(text.replace("import load", "import { pier } from './pier';\nimport load"))
    found = text_of(carry_file(Request(path, "Berth.vue", "single-file-flat"))[0])
    assert "import { pier as pierImported } from './pier';" in found
    assert "pierImported(props.pier);" in found


def test_a_member_named_like_an_import_is_renamed_in_the_template_too(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(
        options="", body="this.load();", markup="<i @click='load({ used })'/>", methods=""
    )
    path.write_text(text.replace("  methods: {", "  methods: {\n    load() { load(); },"))
    found = text_of(carry_file(Request(path, "Berth.vue", "single-file-flat"))[0])
    assert "function ownLoad() { load(); }" in found
    assert "@click='ownLoad({ used })'" in found


def test_what_parents_reach_is_given_out(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text("{}")
    (tmp_path / "Quay.vue").write_text(
        "<template><berth ref='b'/></template>\n<script>\nexport default { mounted() {\n"
        "  this.$refs.b.go(1); const b = this.$refs.b;\n b.used; } };\n</script>\n"
    )
    found = text_of(carried(tmp_path))
    assert "defineExpose({ used, go });" in found


@pytest.mark.parametrize("body", ["this.$refs.used.focus();", "load();"])
def test_a_member_named_like_an_element_is_renamed(body: str, tmp_path: Path) -> None:
    found = text_of(carried(tmp_path, "", body, "<i ref='used'/>"))
    assert "const usedValue = ref(0);" in found
    assert "{{ usedValue }}" in found and "<i ref='used'/>" in found
    assert ("used.value.focus();" in found) == ("focus" in body)


def test_what_is_anything_is_anything_in_a_typed_script(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    body = "this.timer = 1; this.$refs.box.focus();"
    text = FILE.format(options="", body=body, markup="<i ref='box'/>", methods="")
    path.write_text(text.replace("<script>", '<script lang="ts">'))
    found = text_of(carry_file(Request(path, "Berth.vue", "single-file-flat"))[0])
    assert "const box = ref<any>(null);" in found
    assert "let timer: any;" in found


IMPORTS: list[tuple[str, str, str, str]] = [
    # (import, around the object, what the script of statements begins with, or the module's)
    (
        "import { defineComponent } from 'vue';",
        "defineComponent({})",
        "import { ref } from 'vue';",
        "",
    ),
    (
        "import { defineComponent, h } from 'vue';",
        "defineComponent({})",
        "import { h, ref } from 'vue';",
        "",
    ),
    (
        "import {\n  defineComponent,\n  h,\n} from 'vue';",
        "defineComponent({})",
        "import {\n  h,\n  ref,\n} from 'vue';",
        "",
    ),
    ("import Vue from 'vue';", "Vue.extend({})", "import { ref } from 'vue';", ""),
    ("import { ref as box } from 'vue';", "{}", "import { ref as box } from 'vue';", "box(0)"),
    ("import * as Runtime from 'vue';", "{}", "import { ref } from 'vue';\nimport * as", ""),
    ("import type { PropType } from 'vue';", "{}", "import { ref } from 'vue';\nimport type", ""),
]


@pytest.mark.parametrize(("line", "around", "wanted", "also"), IMPORTS)
def test_one_import_of_the_runtime(
    line: str, around: str, wanted: str, also: str, tmp_path: Path
) -> None:
    text = FILE.format(options="", body="load();", markup="", methods="")
    head, _, rest = text.partition("export default {")
    body, _, end = rest.rpartition("};")
    before, after = around.split("{}")
    path = tmp_path / "Berth.vue"
    head = head.replace("<script>\n", f'<script lang="ts">\n{line}\n')
    path.write_text(f"{head}export default {before}{{{body}}}{after};{end}")
    found = text_of(carry_file(Request(path, "Berth.vue", "single-file-flat"))[0])
    assert f'<script setup lang="ts">\n{wanted}' in found
    assert also in found
    assert "defineComponent" not in found and "Vue.extend" not in found


CHILDREN: list[tuple[str, str]] = [
    ("inject: ['dock'], created() { this.dock.go(this.dock.used, this.dock.limit); }", "go limit used"),
    ("inject: { at: 'dock' }, computed: { a() { return (this.at || {}).used; } }", "used"),
    ("inject: { at: { from: 'dock' } }, methods: { b() { if (this.at) this.at.go(); } }", "go"),
    ("inject: ['dock'], created() { send(this.dock); }", ""),
    ("inject: ['dock'], created() { this.dock.$emit('a'); }", ""),
    ("inject: ['dock'], created() { this.dock.later(); }", ""),
    ("inject: ['dock'], setup() { inject<Dock>('dock').go(); }", ""),
]  # fmt: skip


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("child", "asked"), CHILDREN)
def test_the_instance_is_provided_as_what_descendants_ask_for(
    child: str, asked: str, runtime: int, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text("{}")
    (tmp_path / "Bollard.vue").write_text(f"<script>\nexport default {{ {child} }};\n</script>\n")
    result = carried(tmp_path, "provide() { return { dock: this }; },", runtime=runtime)
    if not asked:
        assert "provide('dock', proxy);" in text_of(result)
        opened = "defineExpose({ go });" if runtime == 2 else "go: { get: () => go },"
        assert (opened in text_of(result)) == ("go()" in child)
        return
    parts = ["limit: toRef(props, 'limit')" if name == "limit" else name for name in asked.split()]
    lines = "".join(f"  {part},\n" for part in parts)
    assert f"provide('dock', reactive({{\n{lines}}}));" in text_of(result)
    assert "instance-provided" in {finding.rule for finding in result.findings}


def test_a_reference_named_like_an_input_is_asked_of_the_instance(tmp_path: Path) -> None:
    found = text_of(carried(tmp_path, "", "this.$refs.pier.focus();", "<i ref='pier'/>"))
    assert "proxy.$refs.pier.focus();" in found and "<i ref='pier'/>" in found


def test_long_lists_are_broken_at_the_width_of_the_file(tmp_path: Path) -> None:
    sent = " ".join(f"this.$emit('a-rather-long-event-{number}');" for number in range(6))
    found = text_of(carried(tmp_path, "", sent))
    assert "const emit = defineEmits([\n  'a-rather-long-event-0',\n" in found
    assert "  'a-rather-long-event-5',\n]);" in found


@pytest.mark.parametrize(("runtime", "also"), [(2, ""), (3, ", limit: toRef(props, 'limit')")])
def test_what_children_ask_their_parent_for_is_given_out(
    runtime: int, also: str, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text("{}")
    (tmp_path / "Bollard.vue").write_text(
        "<script>\nexport default { computed: { quay() { return this.$parent; } },\n"
        "  methods: { a() { return this.quay.limit + this.quay.used; } } };\n</script>\n"
    )
    found = text_of(carried(tmp_path, markup="<slot/>", runtime=runtime))
    assert f"defineExpose({{ used{also} }});" in found


@pytest.mark.parametrize("runtime", [2, 3])
def test_what_an_option_names_stays_in_the_module(runtime: int, tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(options="directives: { moor },", body="load();", markup="", methods="")
    path.write_text(
        text.replace("export default", "const moor = (el) => el.focus();\n\nexport default")
    )
    request = Request(path, "Berth.vue", "single-file-flat", runtime=runtime)
    first, second = text_of(carry_file(request)[0]).split("</script>")[:2]
    assert "const moor = (el) => el.focus();" in first and "const moor" not in second
    assert "directives: { moor }," in (first if runtime == 2 else second)


def test_events_stay_undeclared_where_listeners_are_passed_on(tmp_path: Path) -> None:
    plain = text_of(carried(tmp_path, "", "this.$emit('gone');"))
    assert "const emit = defineEmits(['gone']);" in plain
    markup = '<i v-bind="$attrs"/>'
    found = text_of(carried(tmp_path, "", "this.$emit('gone');", markup))
    assert "const { emit } = getCurrentInstance();" in found and "defineEmits" not in found


@pytest.mark.parametrize(
    ("body", "markup", "call"),
    [
        ("this.used = 2;", "", "watch("),
        ("this.used += 2;", "", "watch("),
        ("this.used = by;", "", "proxy.$watch("),
        ("load();", '<i v-model="used"/>', "proxy.$watch("),
        ("load();", '<i @click="used = []"/>', "proxy.$watch("),
    ],
)
def test_a_watcher_of_what_may_be_an_object_stays_the_runtimes_own(
    body: str, markup: str, call: str, tmp_path: Path
) -> None:
    found = text_of(carried(tmp_path, "watch: { used() { load(); } },", body, markup, 2))
    assert f"\n{call}{'used' if call == 'watch(' else '() => used.value'}, " in found


def test_an_import_that_is_handed_on_is_not_renamed(tmp_path: Path) -> None:
    path = tmp_path / "Berth.vue"
    text = FILE.format(options="", body="pier(this.pier);", markup="{{ pier }}", methods="")
    line = "import { pier } from './pier';\nexport { pier };\nimport load"
    path.write_text(text.replace("import load", line))
    result = carry_file(Request(path, "Berth.vue", "single-file-flat"))[0]
    assert (result.status, result.findings[0].rule) == ("refused", "names-meet")


TAGS = [
    ("transition", '<transition :name="transition"><i/></transition>', True),
    ("quay", "<quay>{{ quay }}</quay>", True),
    ("keepAlive", "<keep-alive><i/></keep-alive>{{ keepAlive }}", True),
    ("label", "<label>{{ label }}</label>", False),
    ("filter", "<svg><filter/></svg>{{ filter }}", False),
]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("name", "markup", "renamed"), TAGS)
def test_a_member_named_like_a_tag_that_may_be_a_component_gets_another_name(
    name: str, markup: str, renamed: bool, runtime: int, tmp_path: Path
) -> None:
    options = f"computed: {{ {name}() {{ return this.used; }} }},"
    found = text_of(carried(tmp_path, options, "", markup, runtime))
    wanted = f"{name}Value" if renamed else name
    assert f"const {wanted} = computed(" in found
    assert f"{wanted} }}}}" in found or f'"{wanted}"' in found


GIVEN_OUT: list[tuple[str, str, str]] = [
    # (other methods, markup, what is exposed)
    ("show() { this.used = 1; },", "", "defineExpose({ show });"),
    ("show() { this.used = 1; },", "<i @click='show'/>", ""),
    ("show() { this.used = 1; },", "<i :x='() => show()'/>", ""),
    ("show() { this.used = 1; }, other() { this.show(); },", "", "defineExpose({ other });"),
    ("show() { this.show(); },", "", "defineExpose({ show });"),
    ("_show() { this.used = 1; },", "", ""),
    ("show() {}, late() { setTimeout(this.show); },", "<i @click='late()'/>", ""),
]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize(("methods", "markup", "exposed"), GIVEN_OUT)
def test_methods_nothing_inside_uses_are_given_out(
    methods: str, markup: str, exposed: str, runtime: int, tmp_path: Path
) -> None:
    result = carried(tmp_path, "", "", markup, runtime, methods)
    found = text_of(result)
    assert exposed in found and ("defineExpose" in found) == bool(exposed)
    assert ("methods-given-out" in [f.rule for f in result.findings]) == bool(exposed)


@pytest.mark.parametrize("runtime", [2, 3])
def test_methods_watchers_name_are_used(runtime: int, tmp_path: Path) -> None:
    options = (
        "watch: { pier: 'show', limit: { handler: 'other' }, used: ['more', { handler: 'most' }] },"
    )
    methods = "show() {}, other() {}, more() {}, most() {}, free() {},"
    found = text_of(carried(tmp_path, options, "", "", runtime, methods))
    assert "defineExpose({ free });" in found


MADE = """<script>
import { parsed } from './parsed';
export default {
  props: { shade: [String, Object], kind: { type: Object, default: () => ({}) }, n: Number },
  DATA
};
</script>
<template><p>{{ first }}</p></template>
"""


@pytest.mark.parametrize(
    ("made", "noted"),
    [
        ("data() { return { first: parsed(this.shade) }; }", True),
        ("data() { const a = parsed.of(this.shade, 1); return { first: a }; }", True),
        ("data() { return { first: parsed(1, this.shade) }; }", True),
        ("data() { return { first: this.shade.length }; }", True),
        ("data() { return { first: this.kind.length }; }", True),
        ("data() { return { first: this.n.toFixed(1) }; }", True),
        ("data() { return { first: this.n + 1 }; }", False),
        ("data() { return { first: parsed.all[parsed.key].name }; }", True),
        ("data() { return { first: parsed.all.find(parsed).name }; }", True),
        ("data() { return { first: parsed.all.find(parsed) }; }", False),
        ("data() { return { first: String(this.shade) }; }", False),
        ("data() { return { first: Array.isArray(this.shade) }; }", False),
        ("data() { return { first: parsed(this.kind) }; }", False),
        ("data() { return { first: parsed(this.n) }; }", False),
        ("computed: { first() { return parsed(this.shade); } }", False),
    ],
)
def test_what_may_fail_while_the_component_is_made_is_noted(
    made: str, noted: bool, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"dependencies": {"vue": "2.7.16"}}')
    (tmp_path / "Berth.vue").write_text(MADE.replace("DATA", made))
    (result,) = carry_file(Request(tmp_path / "Berth.vue", "Berth.vue", "single-file-flat"))
    assert result.status == "clean"
    assert ("made-may-throw" in [f.rule for f in result.findings]) == noted
