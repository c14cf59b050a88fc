"""Single files in the flat form, read: what statements become in an object, and what is refused by name."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FUNCTIONS = (
    "computed, inject, nextTick, onBeforeUnmount, onErrorCaptured, onMounted, onUnmounted, provide, "
    "reactive, readonly, ref, shallowRef, toRef, toRefs, useAttrs, useSlots, useTemplateRef, "
    "watch, watchEffect"
)
HEAD = f"import {{ {FUNCTIONS} }} from 'vue';\n"
PROPS = "const props = defineProps({ pier: String, rows: { type: Array, default: () => [] } });\n"


def carried(
    folder: Path,
    script: str,
    template: str = "<p>{{ pier }}</p>",
    *,
    lang: str = "",
    runtime: int = 3,
) -> Result:
    old = folder / "Pier.vue"
    kind = f' lang="{lang}"' if lang else ""
    text = (
        f"<script setup{kind}>\n{HEAD}{script}</script>\n\n<template>\n  {template}\n</template>\n"
    )
    old.write_text(text, "utf-8")
    request = Request(old, old.name, "single-file-object", "single-file-flat", runtime=runtime)
    return carry_file(request)[0]


# What statements become: (script, template, pieces of the new file).
WRITTEN = {
    "a ref": ("const n = ref(0);\n", '<b @click="n++">{{ n }}</b>', ["data() {", "n: 0,"]),
    "a ref without a value": ("const n = ref();\n", "<b>{{ n }}</b>", ["n: undefined,"]),
    "a reactive object": (
        "const form = reactive({ name: '' });\nconst clear = () => { form.name = ''; };\n",
        '<b @click="clear">{{ form.name }}</b>',
        ["form: { name: '' },", "this.form.name = '';"],
    ),
    "a first value that needs another": (
        "const a = ref(1);\nconst b = ref(a.value + 1);\n",
        "<b>{{ a + b }}</b>",
        ["const a = 1;", "b: a + 1,"],
    ),
    "a computed value": (
        PROPS + "const long = computed(() => props.pier.length);\n",
        "<b>{{ long }}</b>",
        ["computed: {", "long() {", "return this.pier.length;"],
    ),
    "a computed value that is written": (
        "const n = ref(1);\n"
        "const twice = computed({ get: () => n.value * 2, set(v) { n.value = v / 2; } });\n",
        '<input v-model="twice">',
        ["twice: {", "get() {", "set(v) { this.n = v / 2; },"],
    ),
    "a watcher of a ref": (
        "const n = ref(0);\nwatch(n, (now) => { log(now); });\n",
        "<b>{{ n }}</b>",
        ["watch: {", "n(now) { log(now); },"],
    ),
    "a watcher of an input, at once": (
        PROPS + "watch(() => props.pier, () => log(), { immediate: true });\n",
        "<b>{{ pier }}</b>",
        ["pier: {", "handler() {", "immediate: true,"],
    ),
    "a watcher of a path": (
        PROPS + "watch(() => props.rows.length, () => { log(); });\n",
        "<b>{{ pier }}</b>",
        ["'rows.length'() { log(); },"],
    ),
    "a watcher of an object": (
        "const form = reactive({ a: 1 });\nwatch(form, () => { log(); });\n",
        "<b>{{ form.a }}</b>",
        ["deep: true,"],
    ),
    "a watcher of several sources stays a call": (
        PROPS + "const n = ref(0);\nwatch([n, () => props.pier], ([a]) => { log(a); });\n",
        "<b>{{ n }}</b>",
        ["created() {", "watch([() => this.n, () => this.pier], ([a]) => { log(a); });"],
    ),
    "an effect stays a call": (
        "const n = ref(0);\nwatchEffect(() => { document.title = n.value; });\n",
        "<b>{{ n }}</b>",
        ["created() {", "watchEffect(() => { document.title = this.n; });"],
    ),
    "a function": (
        "const n = ref(0);\nfunction add(by = 1) {\n  n.value += by;\n}\n",
        '<b @click="add(2)">{{ n }}</b>',
        ["methods: {", "add(by = 1) {\n      this.n += by;"],
    ),
    "a function with functions inside": (
        "const n = ref(0);\nfunction add() {\n  list.each(function () { n.value++; });\n}\n",
        '<b @click="add">{{ n }}</b>',
        ["const self = this;", "self.n++;"],
    ),
    "a function that needs nothing of it": (
        PROPS + "function shout(text) { return text.toUpperCase(); }\n"
        "const loud = computed(() => shout(props.pier));\n",
        "<b>{{ loud }}</b>",
        [
            "function shout(text) { return text.toUpperCase(); }\n\nexport default {",
            "return shout(this.pier);",
        ],
    ),
    "a plain variable": (
        "let timer = null;\nonMounted(() => { timer = start(); });\n",
        "<b>x</b>",
        ["this.timer = null;", "mounted() { this.timer = start(); },"],
    ),
    "several hooks of one moment": (
        "onMounted(() => first());\nonMounted(() => {\n  second();\n});\n",
        "<b>x</b>",
        ["mounted() {\n    first();\n    second();\n  },"],
    ),
    "events and their checks": (
        "const emit = defineEmits({ go: null });\n",
        "<b @click=\"emit('go')\">x</b>",
        ["emits: { go: null },", "@click=\"$emit('go')\""],
    ),
    "inputs taken apart with defaults": (
        "const { pier = 'Holm', rows } = defineProps({ pier: String, rows: Array });\n"
        "const all = computed(() => [pier, ...rows]);\n",
        "<b>{{ all }}</b>",
        ["pier: { type: String, default: 'Holm' },", "return [this.pier, ...this.rows];"],
    ),
    "inputs under other names": (
        PROPS + "const { pier } = toRefs(props);\nconst list = toRef(props, 'rows');\n"
        "const n = computed(() => pier.value + list.value.length);\n",
        "<b>{{ n }} {{ list.length }}</b>",
        ["return this.pier + this.rows.length;", "{{ rows.length }}"],
    ),
    "an input the template asks for by its holder": (
        "const props = defineProps({ class: String, row: String, rows: Array });\n",
        '<b v-for="row in rows" :class="props.class">{{ row }} {{ props.row }} {{ props.rows.length }}</b>',
        [':class="$props.class"', "{{ $props.row }}", "{{ rows.length }}"],
    ),
    "a value bound both ways": (
        "const seats = defineModel('seats', { type: Number });\n"
        "const more = () => { seats.value += 1; };\n",
        '<b @click="more">{{ seats }}</b>',
        [
            "seats: { type: Number },",
            "emits: ['update:seats'],",
            "useModel(props, 'seats')",
            "this.seats += 1;",
        ],
    ),
    "what is exposed": (
        "const n = ref(0);\nfunction clear() { n.value = 0; }\ndefineExpose({ clear });\n",
        "<b>{{ n }}</b>",
        ["expose: ['clear'],"],
    ),
    "what is provided and injected": (
        "const n = ref(0);\nconst lang = inject('lang', 'en');\nconst say = inject('say', () => {});\n"
        "provide('n', n);\nprovide('lang', lang);\n",
        "<b>{{ n }} {{ say(lang) }}</b>",
        [
            "lang: { default: 'en' },",
            "say: { default: () => () => {} },",
            "n: toRef(this, 'n'),",
            "lang: this.lang,",
        ],
    ),
    "a template ref": (
        "const box = ref(null);\nonMounted(() => { box.value.focus(); });\n",
        '<input ref="box">',
        ["this.$refs.box.focus();"],
    ),
    "template refs in a list": (
        PROPS
        + "const rowsDrawn = ref([]);\nconst last = () => { rowsDrawn.value.at(-1).focus(); };\n",
        '<input v-for="row in rows" ref="rowsDrawn" :key="row" @blur="last">',
        ["(this.$refs.rowsDrawn || []).at(-1).focus();"],
    ),
    "attributes and slots": (
        "const attrs = useAttrs();\nconst slots = useSlots();\nconst has = computed(() => !!slots.head);\n",
        '<b v-bind="attrs">{{ has }}</b>',
        ["return !!this.$slots.head;", 'v-bind="$attrs"'],
    ),
    "options beside the statements": (
        "defineOptions({ name: 'QuayPier', inheritAttrs: false });\n",
        "<b>x</b>",
        ["name: 'QuayPier',", "inheritAttrs: false,"],
    ),
    "a composable stays a call": (
        "import { useTide } from './tide.js';\n"
        + PROPS
        + "const spot = toRef(props, 'pier');\nconst { level, ask } = useTide(spot);\n",
        '<b @click="ask">{{ level }}</b>',
        ["setup(props) {", "const { level, ask } = useTide(spot);", "return { level, ask };"],
    ),
    "a composable that is given a ref": (
        "import { useTide } from './tide.js';\nconst spot = ref('Holm');\nconst level = useTide(spot);\n"
        "const move = () => { spot.value = 'Skail'; };\n",
        '<b @click="move">{{ level }}</b>',
        ["const spot = ref('Holm');", "return { spot, level };", "this.spot = 'Skail';"],
    ),
    "a child": (
        "import BerthRow from './BerthRow.vue';\n",
        '<berth-row :rows="1" />',
        ["components: { BerthRow },"],
    ),
    "a function of the module in the template": (
        "import { shout } from './shout.js';\n",
        "<b>{{ shout('x') }}</b>",
        ["methods: {\n    shout,"],
    ),
    "a directive of its own": (
        "const vFocus = { mounted: (el) => el.focus() };\n",
        "<input v-focus>",
        ["directives: { focus: vFocus },"],
    ),
}


@pytest.mark.parametrize("case", WRITTEN)
def test_what_is_written(case: str, tmp_path: Path) -> None:
    script, template, pieces = WRITTEN[case]
    result = carried(tmp_path, script, template)
    assert result.status == "clean", result.findings
    for piece in pieces:
        assert piece in result.files[0].text, result.files[0].text
    assert "<script setup" not in result.files[0].text


def test_types_become_declared_inputs_and_events(tmp_path: Path) -> None:
    script = (
        "type Row = { id: number };\nconst props = withDefaults(\n"
        "  defineProps<{ pier: string; rows?: Row[]; kind?: 'low' | 'high' }>(),\n"
        "  { rows: () => [] },\n);\n"
        "const emit = defineEmits<{ go: [id: number]; (e: 'gone'): void }>();\n"
        "const picked = ref<Row | null>(null);\n"
    )
    written = carried(tmp_path, script, "<b>{{ picked }}</b>", lang="ts").files[0].text
    assert "pier: { type: String, required: true }," in written
    assert "rows: { type: Array as PropType<Row[]>, default: () => [] }," in written
    assert "kind: String as PropType<'low' | 'high'>," in written
    assert "emits: ['go', 'gone']," in written
    assert "picked: null as Row | null," in written
    assert "export default defineComponent({" in written


def test_types_of_other_files_are_followed(tmp_path: Path) -> None:
    (tmp_path / "deep.ts").write_text("export type Side = 'port' | 'starboard';\n", "utf-8")
    (tmp_path / "base.ts").write_text(
        "import type { Side } from './deep';\n"
        "export interface BerthProps { pier: string; side?: Side; spots?: number[] }\n",
        "utf-8",
    )
    script = (
        "import type { BerthProps } from './base';\n"
        "withDefaults(defineProps<BerthProps>(), { spots: () => [] });\n"
    )
    written = carried(tmp_path, script, "<b>{{ pier }}</b>", lang="ts").files[0].text
    assert "pier: { type: String, required: true }," in written
    assert "side: String as PropType<BerthProps['side']>," in written
    assert "spots: { type: Array as PropType<BerthProps['spots']>, default: () => [] }," in written


def test_two_scripts_become_one(tmp_path: Path) -> None:
    old = tmp_path / "Pier.vue"
    old.write_text(
        "<script>\nlet made = 0;\nexport default { name: 'QuayPier' };\n</script>\n\n"
        "<script setup>\nconst number = ++made;\n</script>\n\n"
        "<template>\n  <b>{{ number }}</b>\n</template>\n",
        "utf-8",
    )
    written = carry_file(Request(old, old.name, "single-file-object"))[0].files[0].text
    assert written.count("<script") == 1
    assert (
        "let made = 0;\n\nexport default {\n  name: 'QuayPier'," in written
        and "number: ++made," in written
    )


def test_the_older_runtime(tmp_path: Path) -> None:
    script = "const n = ref(0);\nconst emit = defineEmits(['go']);\n"
    script += "onBeforeUnmount(() => { emit('go'); });\n"
    written = carried(tmp_path, script, "<b>{{ n }}</b>", runtime=2).files[0].text
    assert "beforeDestroy() { this.$emit('go'); }," in written and "emits" not in written


# What is refused, and the rule that says why.
REFUSED = {
    "a wait at the top": ("const n = ref(await load());\n", "<b>{{ n }}</b>", "awaits-at-top"),
    "a class": ("class Tally {}\n", "<b>x</b>", "unread-statement"),
    "an export": ("export const a = 1;\n", "<b>x</b>", "unread-statement"),
    "a shallow value changed inside": (
        "const plan = shallowRef({ rows: [] });\nconst add = () => plan.value.rows.push(1);\n",
        '<b @click="add">{{ plan.rows }}</b>',
        "shallow-changed",
    ),
    "a template ref that is handed on": (
        "const box = ref(null);\nonMounted(() => { track(box); });\n",
        '<input ref="box">',
        "reference-kept",
    ),
    "a template ref that is followed": (
        "const box = ref(null);\nconst wide = computed(() => box.value?.offsetWidth);\n",
        '<input ref="box" :title="wide">',
        "reference-followed",
    ),
    "what is exposed under another name": (
        "function clear() { log(); }\ndefineExpose({ reset: clear });\n",
        "<b>x</b>",
        "exposed-otherwise",
    ),
    "a type from elsewhere": (
        "import type { P } from './p';\ndefineProps<P>();\n",
        "<b>x</b>",
        "type-not-followed",
    ),
    "a name the runtime keeps for itself": (
        "const _rows = ref([]);\n",
        "<b>{{ _rows }}</b>",
        "name-not-open",
    ),
    "state from a derived value": (
        PROPS + "const long = computed(() => props.pier.length);\nconst n = ref(long.value);\n",
        "<b>{{ n }}</b>",
        "state-from-derived",
    ),
    "hooks that cannot be one": (
        "onMounted(async () => { await load(); });\nonMounted(() => { log(); });\n",
        "<b>x</b>",
        "hooks-meet",
    ),
    "a composable that is given what only the component has": (
        "import { useTide } from './tide.js';\n"
        "const emit = defineEmits(['go']);\nconst t = useTide(emit);\n",
        "<b>{{ t }}</b>",
        "shared-call-takes",
    ),
    "a component as a value": (
        "import BerthRow from './BerthRow.vue';\n",
        '<component :is="BerthRow" />',
        "component-by-value",
    ),
    "a function and an input of one name": (
        "defineProps({ open: Boolean });\nfunction open() {}\n",
        '<b @click="open()">x</b>',
        "names-meet",
    ),
}


@pytest.mark.parametrize("case", REFUSED)
def test_what_is_refused(case: str, tmp_path: Path) -> None:
    script, template, rule = REFUSED[case]
    result = carried(
        tmp_path, script, template, lang="ts" if "type" in script.split("\n")[0] else ""
    )
    assert result.status == "refused", result.files[0].text
    assert [finding.rule for finding in result.findings] == [rule]


UNKNOWN = (
    "const a = customRef(make);",
    "someMacro();",
    "if (props.pier) { log(); }",
    "const [b] = pair();",
)


@pytest.mark.parametrize("unknown", UNKNOWN)
def test_an_unknown_statement_is_never_lost(unknown: str, tmp_path: Path) -> None:
    result = carried(
        tmp_path, f"{PROPS}{unknown}\nconst n = ref(0);\n", "<b>{{ n }} {{ pier }}</b>"
    )
    if result.status == "clean":
        words = unknown.replace("props.", "this.")
        assert words in result.files[0].text, result.files[0].text
