"""What a single file, in either form, says of the inputs it takes and the events it sends."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.single_file_inputs import single_file_inputs
from clean_carry.verify.search.values.values import typical, variants

OBJECT = """<template>{markup}</template>
<script>
export default {{
  props: {{ items: Array, home: String, route: Object }},
  {options}
}};
</script>
"""
FLAT = """<template>{markup}</template>
<script>
export default {{ name: 'Berth' }};
</script>
<script setup>
const props = defineProps({{ items: Array, home: String, route: Object }});
{body}
</script>
"""


def inputs_of(text: str) -> Inputs:
    return single_file_inputs(SourceText("Berth.vue", text.encode()))


def item_fields(found: Inputs) -> set[str]:
    items = found.shapes["items"].items
    return set(items.fields) if items is not None else set()


ITEMS: list[tuple[str, str, str, str]] = [
    # (template, options of an object, statements, fields of an item)
    ("<i v-for='a in items'>{{ a.name }}</i>", "", "", "name"),
    ("<i v-for='(a, at) in items' :x='a.name + at' />", "", "", "name"),
    ("<i v-for='{ name, id } in items'>{{ name }}</i>", "", "", "id name"),
    (
        "<i v-for='a in lines'>{{ a.name }}</i>",
        "data() { return { lines: this.items.map((item) => ({ ...item })) }; },",
        "const lines = ref(props.items.map((item) => ({ ...item })));",
        "name",
    ),
    (
        "<i v-for='a in free'>{{ a.name }}</i>",
        "computed: { free() { return this.items.filter((item) => item.open); } },",
        "const free = computed(() => props.items.filter((item) => item.open));",
        "name open",
    ),
    (
        "<i v-for='a in free'>{{ a.name }}</i>",
        "computed: { free() { return this.items || []; } },",
        "const free = computed(() => {\n  return props.items || [];\n});",
        "name",
    ),
    (
        "",
        "methods: { go() { for (const one of this.items) load(one.price); } },",
        "function go() {\n  for (const one of props.items) load(one.price);\n}",
        "price",
    ),
]


@pytest.mark.parametrize(("markup", "options", "body", "fields"), ITEMS)
def test_fields_of_items(markup: str, options: str, body: str, fields: str) -> None:
    old = inputs_of(OBJECT.format(markup=markup, options=options))
    new = inputs_of(FLAT.format(markup=markup, body=body))
    assert item_fields(old) == item_fields(new) == set(fields.split())


def test_what_a_ref_holds_has_no_field_called_value() -> None:
    body = "const at = ref(props.route);\nload(at.value.name);"
    found = inputs_of(FLAT.format(markup="", body=body))
    assert set(found.shapes["route"].fields) == {"name"}


def test_what_is_spread_over_an_element_is_attributes() -> None:
    markup = '<p v-bind="more"><i v-bind="{ title: word }">{{ word }}</i></p>'
    found = inputs_of(OBJECT.format(markup=markup, options="props: ['more', 'word'],"))
    assert typical("more", found.shapes["more"]) == {"title": "title Holm"}
    assert typical("word", found.shapes["word"]) == "word Holm"


def test_compared_values_are_sometimes_equal() -> None:
    options = (
        "data() { return { from: this.home }; },\n"
        "computed: { free() { return this.items.filter((one) => one.pier === this.from); } },"
    )
    found = inputs_of(OBJECT.format(markup="", options=options))
    items = found.shapes["items"].items
    assert items is not None
    listed, home = typical("items", found.shapes["items"]), typical("home", found.shapes["home"])
    assert [one["pier"] == home for one in listed] == [True, False]


def test_events_are_found_where_they_are_sent() -> None:
    old = "methods: { go() { this.$emit('gone'); this.$emit(name); } },"
    markup = "<i @click=\"$emit('picked', 1)\" />"
    assert inputs_of(OBJECT.format(markup=markup, options=old)).events == ["gone", "picked"]
    body = "const emit = defineEmits(['gone']);\nemit('gone');\nemit('late');"
    assert sorted(inputs_of(FLAT.format(markup="", body=body)).events) == ["gone", "late"]


def test_slots_by_name() -> None:
    markup = "<slot /><p><slot name='foot' :a='1' /></p>"
    assert inputs_of(OBJECT.format(markup=markup, options="")).slots == ["default", "foot"]


FORMS = [
    "export default {{ mixins: [tide], props: {{ home: String }}, inject: ['dock'] }};",
    "export default {{ extends: tide, props: {{ home: String }}, inject: {{ at: 'dock' }} }};",
    "export default {{ mixins: [tide], props: {{ home: String }}, inject: {{ at: {{ from: 'dock' }} }} }};",
]


@pytest.mark.parametrize("form", FORMS)
@pytest.mark.parametrize("flat", [True, False])
def test_inputs_of_what_is_mixed_in_and_what_is_provided(
    form: str, flat: bool, tmp_path: Path
) -> None:
    (tmp_path / "tide.js").write_text(
        "export default { props: { level: Number, open: { type: Boolean } }, inject: ['clock'] };"
    )
    path = tmp_path / "Berth.vue"
    script = f"<script>\nimport tide from './tide';\n{form.format()}\n</script>\n"
    if flat:
        script = (
            "<script setup>\nimport tide from './tide';\ndefineOptions({ mixins: [tide] });\n"
            "defineProps({ home: String });\nconst at = inject('dock');\n</script>\n"
        )
    text = f"<template><i :title='$attrs.note'>{{{{ at.length }}}}</i></template>\n{script}"
    found = single_file_inputs(SourceText(str(path), text.encode()))
    assert {"home", "level", "open", "note", "$provided.dock", "$provided.clock"} <= set(
        found.shapes
    )
    assert found.shapes["level"].kinds == {"number"}
    assert found.shapes["open"].kinds == {"boolean"}


def test_a_mixin_that_is_not_found_is_passed_over() -> None:
    found = inputs_of(OBJECT.format(markup="", options="mixins: [elsewhere],"))
    assert set(found.shapes) == {"items", "home", "route"}


SLOTS_ASKED: list[tuple[str, str, str, list[str]]] = [
    ("<i v-if='$slots.foot'><slot name='foot' /></i>", "", "", ["foot"]),
    ("<b />", "mounted() { this.$slots.default() },", "slots.default();", ["default"]),
    ("<b />", "mounted() { this.$scopedSlots.head({}) },", "useSlots().head();", ["head"]),
]


@pytest.mark.parametrize(("markup", "options", "body", "slots"), SLOTS_ASKED)
def test_slots_that_code_asks_for(markup: str, options: str, body: str, slots: list[str]) -> None:
    assert inputs_of(OBJECT.format(markup=markup, options=options)).slots == slots
    if not body.startswith("use"):
        assert inputs_of(FLAT.format(markup=markup, body=body)).slots == slots


METHODS = """
  data() { return { open: false }; },
  watch: { home: 'look' },
  methods: {
    show(event) { this.open = true; },
    pick(at, by = 1) { return at * by; },
    used() {},
    look() {},
    again() { this.used(); },
    _own() {},
    drop: function (tide) { tide.forEach((t) => t.level); },
  },
"""


def test_methods_nothing_inside_uses_may_be_called() -> None:
    found = inputs_of(OBJECT.format(markup="<i @click='again' />", options=METHODS))
    assert list(found.methods) == ["show", "pick", "drop"] and not found.closed
    assert found.methods["show"] == [{"$": "event"}]
    assert found.methods["pick"] == [3]
    assert [sorted(t) for t in found.methods["drop"][0]] == [["level"], ["level"]]


def test_statements_give_out_what_they_say() -> None:
    body = "const a = ref(1);\nfunction show(e) {}\nfunction hide() {}\ndefineExpose({ a, show, gone: hide });"
    found = inputs_of(FLAT.format(markup="", body=body))
    assert found.methods == {"show": [{"$": "event"}]} and found.closed
    old = inputs_of(OBJECT.format(markup="", options="methods: { show() {}, hide() {} },"))
    assert list(old.join(found, {}).methods) == ["show"]
    assert list(old.join(old, {}).methods) == ["show", "hide"]


CHILD = """<template><i v-for='s in sailings' :title='s.home'>{{ s.level.toFixed(1) }}</i></template>
<script>
export default { name: 'Strip', props: { sailings: Array, at: Number, modelValue: { type: Boolean } } };
</script>
"""
HANDED: list[tuple[str, str, set[str]]] = [
    ("<Strip :sailings='items' />", "items", {"home", "level"}),
    ("<strip v-bind:sailings='items' />", "items", {"home", "level"}),
    ("<Strip :sailings='route.items' />", "items", {"home", "level"}),
    ("<Strip :sailings='items.filter(Boolean)' />", "items", set()),
    ("<Other :sailings='items' />", "items", set()),
]


@pytest.mark.parametrize(("markup", "name", "fields"), HANDED)
def test_a_child_tells_of_what_it_is_handed(
    markup: str, name: str, fields: set[str], tmp_path: Path
) -> None:
    (tmp_path / "Strip.vue").write_text(CHILD)
    text = OBJECT.format(markup=markup, options="").replace(
        "<script>", "<script>\nimport Strip from './Strip.vue';"
    )
    found = single_file_inputs(SourceText(str(tmp_path / "Berth.vue"), text.encode()))
    items = found.shapes[name].items
    assert (set(items.fields) if items is not None else set()) == fields


def test_a_model_is_told_too_and_a_tree_of_itself(tmp_path: Path) -> None:
    (tmp_path / "Strip.vue").write_text(CHILD)
    text = OBJECT.format(markup="<Strip v-model='home' /><i>{{ items }}</i>", options="")
    text = text.replace("<script>", "<script>\nimport Strip from './Strip';").replace(
        "home: String", "home: null"
    )
    found = single_file_inputs(SourceText(str(tmp_path / "Berth.vue"), text.encode()))
    assert "boolean" in found.shapes["home"].kinds
    tree = "<li>{{ route.title.trim() }}<Berth v-for='r in route.parts' :route='r' /></li>"
    found = inputs_of(OBJECT.format(markup=tree, options="name: 'Berth',"))
    parts = found.shapes["route"].fields["parts"].items
    assert parts is not None and {"title", "parts"} <= set(parts.fields)


def test_what_is_looked_up_by_a_word_is_a_field() -> None:
    options = "methods: { of(route, name) { return route[name]; }, title() { return this.of(this.route, 'title') + '!'; } },"
    found = inputs_of(
        OBJECT.format(markup="<i>{{ of(route, 'berths').length }}</i>", options=options)
    )
    assert {"title", "berths"} <= set(found.shapes["route"].fields)


HIDDEN = [
    ("<transition><p>{{ home }}</p></transition>", True),
    ("<Transition name='slide'><p><i v-if='home'/></p></Transition>", True),
    ("<transition><p v-if='home'>a</p></transition>", False),
    ("<transition><p v-show='home'>a</p></transition>", False),
    ("<p><transition><i>a</i></transition></p>", False),
]


@pytest.mark.parametrize(("markup", "there"), HIDDEN)
def test_what_moves_when_its_parent_hides_it(markup: str, there: bool) -> None:
    source = SourceText("Berth.vue", OBJECT.format(markup=markup, options="").encode())
    assert ("$around.shown" in single_file_inputs(source).shapes) is there


GIVEN_OUT = [
    ("open() { this.$refs.modal.open(); }", "<p ref='modal'/>", True),
    ("open() { this.$emit('open'); }", "<p/>", True),
    ("open() {}, go() { this.open(); }", "<p/>", False),
    ("open() {}", "<p @click='open'/>", False),
    ("open() {} }, watch: { home: 'open'", "<p/>", False),
]


@pytest.mark.parametrize(("methods", "markup", "there"), GIVEN_OUT)
def test_methods_that_only_a_reference_reaches(methods: str, markup: str, there: bool) -> None:
    text = OBJECT.format(markup=markup, options=f"methods: {{ {methods} }}")
    found = single_file_inputs(SourceText("Berth.vue", text.encode()))
    assert ("open" in found.methods) is there


JUDGED = """<template><p>{{ kind }} {{ value }}</p></template>
<script>
export default {{
  props: {{
    kind: {{ type: String, validator: {validator} }},
    value: Boolean
  }}
}};
</script>
"""


@pytest.mark.parametrize(
    "validator",
    [
        "value => ['fore', 'aft'].indexOf(value) > -1",
        "(value) => ['fore', 'aft'].includes(value)",
        "function (value) { return ['fore', 'aft'].indexOf(value) !== -1; }",
    ],
)
def test_a_validator_lists_the_values(validator: str) -> None:
    found = inputs_of(JUDGED.format(validator=validator)).shapes
    assert (found["kind"].literals, found["kind"].listed) == (["fore", "aft"], True)
    # What it calls the value it judges is no input of that name.
    assert found["value"].literals == []


def test_a_validator_that_does_more_lists_nothing() -> None:
    for validator, words in (
        ("v => v.length > 2", [2]),
        ("v => ['a'].includes(v) || words.includes(v)", ["a"]),
        ("v => v !== 'loud' && check(v, 'note')", ["loud"]),
    ):
        shape = inputs_of(JUDGED.format(validator=validator)).shapes["kind"]
        assert not shape.listed and shape.literals == words


def test_an_element_its_own_stands_in_for_is_never_given() -> None:
    text = """<template><p ref="anchor"></p></template>
<script>
export default {
  props: { anchor: {}, berth: {}, words: {} },
  mounted() { (this.held = this.held || this.anchor || this.$refs.anchor).focus(); this.berth.x(); }
};
</script>
"""
    assert set(inputs_of(text).shapes) == {"berth", "words"}


LISTED = """<template><p v-for="row in rows" :key="row.id">{{ path.some((p) => p.key === row.id) }}</p></template>
<script>
export default {
  props: { rows: Array, days: Array, free: [Array, Function], path: Object, open: Object, day: Number, keyName: [String, Function] },
  methods: {
    of(when) {
      const first = this.free[0];
      if (this.keyName === 'id' || when.getDate() === this.day) return first.getTime();
      for (let i = 0; i < this.days.length; i++) if (when.getDay() === this.days[i]) return i;
      return this.open[this.rowKey(when)].word || this.rows[1].berth.name;
    },
    rowKey(one) { return one.key; }
  }
};
</script>
"""


def test_parts_of_lists_and_what_dates_are_asked_for() -> None:
    found = inputs_of(LISTED).shapes
    items = {name: found[name].items for name in ("rows", "days", "free")}
    assert {name: items[name].kinds for name in ("days", "free")} == {  # type: ignore[union-attr]
        "days": {"number"},
        "free": {"date"},
    }
    assert "berth" in items["rows"].fields  # type: ignore[union-attr]
    # The typical dates are the second and third of a month, a Tuesday and a Wednesday.
    assert typical("days", found["days"]) == [2, 3]
    assert typical("day", found["day"]) == 2


def test_a_list_that_is_declared_an_object_and_what_is_kept_by_keys() -> None:
    found = inputs_of(LISTED).shapes
    assert found["path"].kinds == {"array"}
    assert typical("open", found["open"]) == {"id-1": {"word": True}}
    # A word it is compared with goes before what else it may be.
    assert typical("keyName", found["keyName"]) == "id"


WEEK = """<template><p>{{ week[6].getDay() }} {{ names[0] }} {{ longest[400] }}</p></template>
<script>
export default { props: { week: Array, names: Array, longest: Array, minDate: Date } };
</script>
"""


def test_a_list_is_as_long_as_what_is_asked_of_it_and_a_bound_lies_among_dates() -> None:
    found = inputs_of(WEEK).shapes
    lengths = {n: len(typical(n, found[n])) for n in ("week", "names", "longest")}
    assert lengths == {"week": 7, "names": 2, "longest": 12}
    days = [day["time"] for day in typical("week", found["week"])]
    bounds = [
        value["time"]
        for value in variants("minDate", found["minDate"])
        if value and "time" in value
    ]
    assert days[0] < bounds[0] < days[-1]


TYPED = """<template><p>{{ pier }}</p></template>
<script setup lang="ts">
interface Sailing { id: number; from: string }
const { pier = 'north', sailings = [] } = defineProps<{
  pier?: string
  sailings?: Sailing[]
  level: number
}>()
const emit = defineEmits<{ (e: 'open' | 'close', at: number): void }>()
const told = defineEmits<{ moor: [pier: string] }>()
const seats = defineModel<number>({ default: 2 })
const name = defineModel('name', { type: String, required: true })
</script>
"""


def test_what_types_and_models_declare_is_given() -> None:
    found = inputs_of(TYPED)
    assert set(found.shapes) == {"pier", "sailings", "level", "modelValue", "name"}
    assert found.shapes["pier"].kinds == {"string"}
    assert found.shapes["pier"].default == ("north",)
    assert found.shapes["level"].required
    items = found.shapes["sailings"].items
    assert items is not None and set(items.fields) == {"id", "from"}
    assert found.shapes["modelValue"].kinds == {"number"}
    assert found.shapes["name"].required and found.shapes["name"].kinds == {"string"}
    assert set(found.events) >= {"open", "close", "moor", "update:modelValue", "update:name"}


def test_defaults_beside_types_are_known() -> None:
    text = TYPED.replace(
        "const { pier = 'north', sailings = [] } = defineProps", "withDefaults(defineProps"
    )
    text = text.replace(
        "level: number\n}>()", "level: number\n}>(), { pier: 'south', sailings: () => [] })"
    )
    found = inputs_of(text)
    assert found.shapes["pier"].default == ("south",)
    assert found.shapes["sailings"].kinds == {"array"}


def test_a_list_copied_sorted_and_turned_round_is_of_the_inputs_items() -> None:
    body = """const rows = toRef(props, 'items');
const sorted = computed(() => {
  const list = [...(rows.value || [])];
  list.sort((a, b) => a.weight - b.weight);
  return down.value ? list.reverse() : list;
});"""
    text = FLAT.format(markup="<i v-for='a in sorted'>{{ a.name }}</i>", body=body)
    assert item_fields(inputs_of(text)) >= {"name"}
