"""Single files in the object form become functions: the same in both runtimes."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest

import clean_carry
from conftest import Run

DEMO = Path(clean_carry.__file__).parent / "demo" / "gullmoor"
FILES = (
    "passenger/BoardingClock.vue", "passenger/NoticeDialog.vue", "passenger/SailingSearch.vue",
    "passenger/SeatCounter.vue", "passenger/TicketBasket.vue", "passenger-older/WeatherStrip.vue",
    "passenger-older/CargoDeclaration.vue",
)  # fmt: skip


@pytest.mark.slow
@pytest.mark.parametrize("name", FILES)
def test_the_demo_is_the_same_across_runtimes(name: str, run: Run, tmp_path: Path) -> None:
    folder, _, file = name.partition("/")
    shutil.copytree(DEMO / folder, tmp_path / folder)
    done = run("carry", f"{folder}/{file}", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean"
    found = result["verification"]
    assert found["verdict"] == "same", found["trials"][0]["differences"][:3]


FILE = """<template>
  <div>{markup}</div>
</template>

<script>
export default {{
  emits: ['gone'],
  props: {{ rows: {{ type: Array, default: () => [{{ id: 1, n: 2 }}] }} }},
  data() {{
    return {{ lines: [{{ id: 1, n: 1 }}], count: 0, text: 'a' }};
  }},
  {options}
}};
</script>
"""
CASES = {
    "space beside comments": (
        "<span>a</span><!-- b --> {{ text }}<!-- c -->\n<b>d</b> <!-- e --> <i>f</i>",
        "",
        ["<span>a</span>{/* b */} {text}{/* c */}<b>d</b>{/* e */}<i>f</i>"],
    ),
    "a list of several with a key": (
        '<template v-for="line in lines" :key="line.id"><b>{{ line.n }}</b>, </template>',
        "",
        ["<Fragment key={line.id}><b>{line.n}</b>, </Fragment>"],
    ),
    "styles and attributes as the runtime names them": (
        "<i style=\"background: url('a;b.png'); --pier: 2px\" />"
        '<iframe allowfullscreen frameborder="0" srcdoc="a"></iframe>',
        "",
        [
            """style={{ background: "url('a;b.png')", '--pier': '2px' }}""",
            "allowFullScreen", 'frameBorder="0"', 'srcDoc="a"',
        ],
    ),
    "a condition holds two parts apart": (
        '<template v-if="count > 1"><b v-if="text">1</b><i v-else>2</i></template>'
        '<template v-if="count > 1">{{ text ? 1 : 2 }}</template>'
        '<template v-if="count > 1"><slot>none</slot></template>'
        '<b @click="count++; text = \'\'" v-text="count" />',
        "",
        [
            "{count > 1 && (text ? <b>1</b> : <i>2</i>)}", "{count > 1 && (text ? 1 : 2)}",
            "{count > 1 && (children ?? 'none')}", ">{count}</b>",
        ],
    ),
    "a character reference beside a sign that JSX reads": (
        '<b @click="count++">&lt;b> &amp; {{ count }}</b>', "", ["{'<b> & '}{count}"]
    ),
    "a class, and a style, in the short form of an entry": (
        '<b :class="{ text, more: count }" :style="{ color: text }" @click="count++">{{ count }}</b>',
        "",
        ["className={[text && 'text', count && 'more'].filter(Boolean).join(' ')}"],
    ),
    "a row of a list is changed in place": (
        '<b v-for="line in lines" :key="line.id" @click="line.n++">{{ line.n }}</b>', "",
        ["onClick={() => { line.n++; setLines([...linesNow.current]) }}"],
    ),
    "a method changes the row it is given": (
        '<b v-for="line in lines" :key="line.id" @click="more(line)">{{ line.n }}</b>',
        "methods: { more(line) { line.n += 1; } },",
        ["function more(line) { line.n += 1;", "setLines([...linesNow.current]);"],
    ),
    "a list grows": (
        '<b @click="add">{{ lines.length }}</b>',
        "methods: { add() { this.lines.push({ id: 2, n: 1 }); } },",
        ["linesNow.current.push({ id: 2, n: 1 });", "setLines([...linesNow.current]);"],
    ),
    "a part of a row is bound both ways": (
        '<i v-for="line in lines" :key="line.id"><input v-model="line.n"></i>', "",
        ["onChange={(event) => { line.n = event.target.value; setLines([...linesNow.current]); }}"],
    ),
    "the value behind a write": (
        '<b @click="go">{{ count }}</b>',
        "methods: { go() { this.count += 1; this.$emit('gone', this.count); } },",
        ["setCount(countNow.current + 1);", "onGone?.(countNow.current);"],
    ),
    "a row is set by the runtime": (
        '<b @click="put(0)">{{ lines.length }}</b>',
        "methods: { put(at) { this.$set(this.lines, at, { id: 3 }); this.$delete(this.lines[at], 'n'); } },",
        ["linesNow.current[at] = { id: 3 };", "delete linesNow.current[at].n;"],
    ),
    "a watched list is worked out where it changes": (
        '<b @click="lines = []">{{ ids.length }}</b>',
        "computed: { ids() { return this.lines.map((line) => line.id); } },\n"
        "  watch: { ids(ids) { this.$emit('gone', ids); } },",
        ["const ids = useMemo(() => {", "}, [lines]);"],
    ),
    "markup elsewhere in the page": (
        '<teleport to="body"><b>x</b></teleport><teleport to="#notes">y</teleport>', "",
        ["import { createPortal } from 'react-dom';", "{createPortal(<b>x</b>, document.body)}",
         "{createPortal('y', document.querySelector('#notes'))}"],
    ),
    "an update that is forced": (
        '<b @click="$forceUpdate()">{{ count }}</b>', "",
        ["const [, rerender] = useReducer((count) => count + 1, 0);", "onClick={() => rerender()}"],
    ),
    "the root element": (
        '<b>{{ count }}</b>', "mounted() { this.$el.focus(); },",
        ["const root = useRef(null);", "<div {...others} ref={root}", "root.current.focus();"],
    ),
    "once all is drawn": (
        '<b ref="box" @click="go">{{ count }}</b>',
        "methods: { async go() { this.count = 1; await this.$nextTick(); this.$refs.box.focus(); } },",
        ["const afterRender = useAfterRender();", "await afterRender();", "box.current.focus();"],
    ),
    "a listener that outlives its drawing": (
        "<b>{{ count }}</b>",
        "mounted() { setTimeout(() => this.$emit('gone', this.rows.length), 10); },",
        ["listeners.current.onGone?.(latest.current.rows.length)", "useListeners({ onGone })"],
    ),
    "what is made with the component": (
        "<b>{{ count }}</b>", "created() { this.count = 3; },", ["useState(3)"],
    ),
    "a watcher that runs at once": (
        "<b>{{ count }}</b>",
        "watch: { rows: { immediate: true, handler(rows) { this.count = rows.length; } } },",
        ["useChange(rows, (rows) => { setCount(rows.length); }, true);"],
    ),
    "a tag that is one of two": (
        """<component :is="count ? 'a' : 'b'" :title="text">x</component>""", "",
        ["const Tag = count ? 'a' : 'b';", "<Tag title={text}>x</Tag>"],
    ),
    "attributes that are handed on meet own ones": (
        '<b class="a" v-bind="$attrs" :style="{ top: 0 }" @click="go">x</b>', "inheritAttrs: false, methods: { go() {} },",
        ["className={['a', others.className].filter(Boolean).join(' ')}", "...others.style",
         "onClick={(event) => { go(event); others.onClick?.(event); }}"],
    ),
    "content that is asked for once": (
        "<b v-if='titled'>x</b>", "computed: { titled() { return Boolean(this.$slots.title); } },",
        ["const titled = Boolean(title);"],
    ),
    "one of several values is shown": ("{{ rows[0].a || count }}", "", ["{shown(rows[0].a || count)}"]),
    "a method that gives text": (
        "{{ word(count) }}", "methods: { word(n) { return `${n} berths`; } },", ["{word(count)}"],
    ),
    "a listener that is taken back elsewhere": (
        '<b @mousedown="hold" @mouseup="let">{{ count }}</b>',
        "methods: { hold() { document.addEventListener('mousemove', this.drag); },\n"
        "  let() { document.removeEventListener('mousemove', this.drag); }, drag() { this.count += 1; } },",
        ["const drag = useStable(function drag() { setCount(countNow.current + 1); });", "function useStable(run) {"],
    ),
    "what a listener is called with": (
        '<b @click="go(arguments, 1)">x</b>', "methods: { go(given, n) { this.count = given.length + n; } },",
        ["onClick={(...given) => go(given, 1)}"],
    ),
    "what a slot is not given": (
        "<slot>{{ count ? null : text }}</slot>", "", ["{children ?? shown(count ? null : text)}"],
    ),
    "a value that is written through another": (
        '<input v-model="half">',
        "computed: { half: { get() { return this.text; }, set(to) { this.text = to; } } },",
        ["const setHalf = (to) => { setText(to); };", "setHalf(event.target.value)"],
    ),
    "code writes a value through another": (
        '<b @click="twice = 4, go()">{{ count }}</b>',
        "computed: { twice: { get() { return this.count * 2; }, set(to) { this.count = to / 2; } } },"
        " methods: { go() { this.twice += 2; this.$emit('gone', this.twice); } },",
        ["setTwice(readTwice() + 2);", "onGone?.(readTwice());", "onClick={() => { setTwice(4), go() }}"],
    ),
    "a method reads what the one before it wrote": (
        '<b @click="go">{{ count }}</b>',
        "methods: { next() { this.count = 5; }, go() { this.next(); this.$emit('gone', this.count); } },",
        ["setCount(5);", "next(); onGone?.(countNow.current);"],
    ),
    "a listener calls one method after another": (
        '<b @click="next(), tell()">{{ count }}</b>',
        "methods: { next() { this.count = 5; }, tell() { this.$emit('gone', this.count); } },",
        ["onGone?.(countNow.current);"],
    ),
    "several listeners of one event": (
        '<b @keydown.down.prevent="count++" @keydown.delete.self="count--" @keydown="hear">{{ count }}</b>',
        "methods: { hear(event) { this.text = event.key; } },",
        ["onKeyDown={(event) => {\n", "if (event.key === 'ArrowDown') { event.preventDefault(); ",
         "if (event.key === 'Delete' || event.key === 'Backspace') { if (event.target === event.currentTarget) {",
         "hear(event);"],
    ),
    "a listener beside what a field is bound to": (
        '<input v-model="text" @input="tell">',
        "methods: { tell() { this.$emit('gone', this.text); } },",
        ["onInput={(event) => { setText(event.target.value); tell(event); }}", "onGone?.(textNow.current);"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("case", CASES)
def test_what_is_written(case: str, run: Run, tmp_path: Path) -> None:
    markup, options, lines = CASES[case]
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=options), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    for line in lines:
        assert line in result["files"][0]["text"], result["files"][0]["text"]


LAZY = """<template>
  <div>
    <p v-if="sailing">{{ firstStop }} <i :style="look">{{ label }}</i></p>
  </div>
</template>

<script>
export default {
  props: { sailing: Object },
  computed: {
    firstStop() {
      return this.sailing.stops[0];
    },
    look() {
      return { color: this.sailing.color };
    },
    label() {
      const text = this.sailing.label.trim();
      return `${text} ${this.firstStop}`;
    },
  },
};
</script>
"""


REFUSED = {
    "an entity in an expression": ("<b :title=\"'Fares &amp; tides'\">a</b>", "markup-unread"),
    "!important": ('<b style="color: red !important">a</b>', "not-in-target"),
}


@pytest.mark.parametrize("case", REFUSED)
def test_what_a_function_would_not_show_alike_is_refused(
    case: str, run: Run, tmp_path: Path
) -> None:
    markup, rule = REFUSED[case]
    (tmp_path / "A.vue").write_text(FILE.format(markup=markup, options=""))
    result = json.loads(run("carry", "A.vue", "--to", "jsx-function", "--json").stdout)["results"][
        0
    ]
    assert result["status"] == "refused"
    assert [one["rule"] for one in result["findings"]] == [rule]


@pytest.mark.parametrize(
    ("file", "name"), [("fare-table", "FareTable"), ("404", "Component404"), ("berth", "Berth")]
)
def test_files_may_be_called_what_no_function_can(
    file: str, name: str, run: Run, tmp_path: Path
) -> None:
    text = (
        FILE.format(markup="<b>a</b>", options="") + "<style scoped>\nb { color: red; }\n</style>\n"
    )
    (tmp_path / f"{file}.vue").write_text(text)
    done = run(
        "carry", f"{file}.vue", "--to", "jsx-function", "--verify", "--budget", "1", "--json"
    )
    result = json.loads(done.stdout)["results"][0]
    assert f"export default function {name}(" in result["files"][0]["text"]
    assert result["verification"]["verdict"] == "same"


def test_a_style_that_is_given_as_text_is_refused(run: Run, tmp_path: Path) -> None:
    (tmp_path / "A.vue").write_text(
        "<script setup>\ndefineProps({ look: String });\n</script>\n\n"
        '<template>\n  <b :style="look">a</b>\n</template>\n'
    )
    result = json.loads(run("carry", "A.vue", "--to", "jsx-function", "--json").stdout)["results"][
        0
    ]
    assert [one["rule"] for one in result["findings"]] == ["not-in-target"]


def test_state_that_is_a_constant_of_the_module_stays_one(run: Run, tmp_path: Path) -> None:
    head = "<script>\nconst PIERS = ['north', 'south'];\n</script>\n\n<script setup>\n{}\n</script>\n\n"
    body = '<template>\n  <b v-for="pier in PIERS" :key="pier">{{ pier }}</b>\n</template>\n'
    (tmp_path / "A.vue").write_text(head.format("defineProps({ a: String });") + body)
    result = json.loads(run("carry", "A.vue", "--to", "jsx-function", "--json").stdout)["results"][
        0
    ]
    text = result["files"][0]["text"]
    assert "PIERS.map((pier) => <b key={pier}>{pier}</b>)" in text and "useState" not in text


@pytest.mark.slow
def test_a_value_that_may_fail_is_worked_out_where_it_is_drawn(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO / "components", tmp_path / "components")
    (tmp_path / "components" / "Pier.vue").write_text(LAZY, "utf-8")
    done = run("carry", "components/Pier.vue", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    text = result["files"][0]["text"]
    assert "const firstStop = () => sailing.stops[0];" in text
    assert "const look = () => ({ color: sailing.color });" in text
    assert "style={look()}" in text
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


BUTTON = """<template>
  <button :title="tip" class="berth" @click="$emit('pick')">{{ tip }}</button>
</template>

<script>
export default { emits: ['pick'], props: { tip: String } };
</script>
"""


@pytest.mark.slow
def test_what_a_parent_gives_takes_the_place_of_what_the_root_has(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO / "components", tmp_path / "components")
    (tmp_path / "components" / "Pier.vue").write_text(BUTTON, "utf-8")
    done = run("carry", "components/Pier.vue", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    text = " ".join(result["files"][0]["text"].split())
    assert (
        "title={tip} className={['berth', className].filter(Boolean).join(' ')} {...others}" in text
    )
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


def test_a_condition_beside_a_list_that_asks_for_a_row_is_refused(run: Run, tmp_path: Path) -> None:
    markup = '<b v-if="row.n" v-for="row in rows" :key="row.id">{{ row.n }}</b>'
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=""), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert [finding["rule"] for finding in result["findings"]] == ["markup-unread"]


def test_a_change_that_cannot_be_followed_is_refused(run: Run, tmp_path: Path) -> None:
    markup = '<b v-for="row in rows" :key="row.id" @click="row.n++">{{ row.n }}</b>'
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=""), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "refused"
    assert [finding["rule"] for finding in result["findings"]] == ["alias-not-followed"]


@pytest.mark.parametrize(
    ("held", "change", "copied"),
    [
        ("new Map([1].map((one) => [one, one]))", "held.set(2, 2)", "new Map(heldNow.current)"),
        ("new Set([1])", "held.add(count)", "new Set(heldNow.current)"),
    ],
    ids=["a map", "a set"],
)
def test_a_collection_that_is_changed_in_place_is_copied(
    held: str, change: str, copied: str, run: Run, tmp_path: Path
) -> None:
    text = FILE.format(markup=f'<b @click="{change}">{{{{ held.size + count }}}}</b>', options="")
    (tmp_path / "Berth.vue").write_text(
        text.replace("count: 0,", f"count: 0, held: {held},"), "utf-8"
    )
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean" and copied in result["files"][0]["text"]


def test_a_value_the_language_writes_into_is_told_of(run: Run, tmp_path: Path) -> None:
    text = FILE.format(
        markup='<b @click="clear">{{ held.n }}</b>',
        options="methods: { clear() { Object.assign(this.held, { n: 0 }); } },",
    )
    (tmp_path / "Berth.vue").write_text(
        text.replace("count: 0,", "count: 0, held: { n: 1 },"), "utf-8"
    )
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    written = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "setHeld({ ...heldNow.current })" in written


def test_a_child_is_imported_from_its_carried_file(run: Run, tmp_path: Path) -> None:
    text = FILE.format(
        markup='<tide-row :rows="rows" @pick="count++"/>', options="components: { TideRow },"
    )
    text = text.replace("<script>\n", "<script>\nimport TideRow from './TideRow.vue';\n\n")
    (tmp_path / "Berth.vue").write_text(text, "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    refused = json.loads(done.stdout)["results"][0]
    assert [finding["rule"] for finding in refused["findings"]] == ["child-not-carried"]
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--assume-carried", "--json")
    text = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "import TideRow from './TideRow.function.jsx';" in text
    assert "<TideRow rows={rows} onPick={() => setCount(count + 1)} />" in text


SLOT = """<template>
  <ul><li v-for="berth in berths" :key="berth"><slot :berth="berth">{{ berth }}</slot></li></ul>
</template>

<script>
export default { props: { berths: Array } };
</script>
"""


@pytest.mark.slow
def test_content_that_takes_a_value_and_a_list_that_may_be_missing(
    run: Run, tmp_path: Path
) -> None:
    shutil.copytree(DEMO / "components", tmp_path / "components")
    (tmp_path / "components" / "Pier.vue").write_text(SLOT, "utf-8")
    done = run("carry", "components/Pier.vue", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    text = " ".join(result["files"][0]["text"].split())
    assert (
        "{berths?.map((berth) => ( <li key={berth}> {children?.({ berth }) ?? berth} </li> ))}"
        in text
    )
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


def test_what_may_fail_while_it_is_not_drawn_is_noted(run: Run, tmp_path: Path) -> None:
    markup = '<b v-for="row in rows" :key="row.id">{{ first }}</b>'
    options = "computed: { first() { return this.text.trim(); } },"
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=options), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert "worked-out-always" in [finding["rule"] for finding in result["findings"]]


def test_version_2_keeps_space_and_takes_attributes_away(run: Run, tmp_path: Path) -> None:
    package = tmp_path / "node_modules" / "vue"
    package.mkdir(parents=True)
    (package / "package.json").write_text('{"name": "vue", "version": "2.7.16"}', "utf-8")
    markup = '<p :aria-busy="count > 1" :title="count > 2"><b>a</b>\n<i>b</i></p>'
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=""), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    text = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "<b>a</b> <i>b</i>" in text
    assert "aria-busy={(count > 1) ? 'true' : undefined}" in text
    assert "title={(count > 2) ? 'true' : undefined}" in text


def test_a_field_in_a_list_that_is_bound_one_way_is_noted(run: Run, tmp_path: Path) -> None:
    markup = """<i v-for="row in rows" :key="row.id"><input :value="row.n"></i>"""
    (tmp_path / "Berth.vue").write_text(FILE.format(markup=markup, options=""), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert "put-back-at-once" in [finding["rule"] for finding in result["findings"]]


SWITCH = """<template>
  <label>
    <input ref="box" type="checkbox" :checked="open" :name="name" @change="$emit('turned', $event.target.checked)">
    <input :value="name" @input="$emit('named', $event.target.value)">
  </label>
</template>

<script>
export default {
  emits: ['turned', 'named'],
  props: { open: { type: Boolean, default: false }, name: { type: String, default: 'Pier' } },
  methods: {
    focus() {
      this.$refs.box.focus();
    },
  },
};
</script>
"""


@pytest.mark.slow
def test_fields_keep_what_is_typed_and_methods_are_given_out(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO / "components", tmp_path / "components")
    (tmp_path / "components" / "Pier.vue").write_text(SWITCH, "utf-8")
    done = run("carry", "components/Pier.vue", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    text = result["files"][0]["text"]
    assert "useField(box, 'checked', open);" in text
    assert "useField(field, 'value', name);" in text
    assert "() => ({ focus })" in text
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


MIXIN = """import { minutes } from './times';
const STEP = 5;

export default {
  props: { step: { type: Number, default: 1 } },
  data() {
    return { passed: 0 };
  },
  computed: {
    shown() {
      return minutes(this.passed) + STEP;
    },
  },
  mounted() {
    this.tick();
  },
  methods: {
    tick() {
      this.passed += this.step;
    },
  },
};
"""
MIXED = """<template>
  <p @click="tick">{{ shown }} {{ word }}</p>
</template>

<script>
import ticking from './mixins/ticking';

export default {
  name: 'QuayTimer',
  mixins: [ticking],
  data() {
    return { word: 'min' };
  },
  mounted() {
    this.word = `${this.passed} min`;
  },
};
</script>
"""


def test_what_is_mixed_in_is_written_into_the_function(run: Run, tmp_path: Path) -> None:
    (tmp_path / "mixins").mkdir()
    (tmp_path / "mixins" / "ticking.js").write_text(MIXIN, "utf-8")
    (tmp_path / "mixins" / "times.js").write_text("export const minutes = (n) => n * 2;\n", "utf-8")
    (tmp_path / "QuayTimer.vue").write_text(MIXED, "utf-8")
    done = run("carry", "QuayTimer.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    text = result["files"][0]["text"]
    assert "import { minutes } from './mixins/times';\n" in text
    assert "const STEP = 5;\n" in text
    assert "ticking" not in text
    # Its hook runs before that of the component.
    assert text.index("    tick();\n") < text.index("min`);\n")
    assert "mixin-read-in" in [found["rule"] for found in result["findings"]]


def test_a_mixin_that_is_not_found_refuses(run: Run, tmp_path: Path) -> None:
    (tmp_path / "QuayTimer.vue").write_text(MIXED, "utf-8")
    done = run("carry", "QuayTimer.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "refused"
    assert result["findings"][0]["line"] in (10, 6)


STATED = """<template>
  <p>{{ hours }}:{{ minutes }}</p>
</template>

<script>
export default {
  name: 'QuayTime',
  props: { start: { type: String, default: '08:30' } },
  data() {
    const [hours, minutes] = this.start.split(':');
    return { hours, minutes };
  },
};
</script>
"""


def test_state_that_statements_make_is_made_once(run: Run, tmp_path: Path) -> None:
    (tmp_path / "QuayTime.vue").write_text(STATED, "utf-8")
    done = run("carry", "QuayTime.vue", "--to", "jsx-function", "--json")
    text = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert (
        "  const [initial] = useState(() => {\n    const [hours, minutes] = start.split(':');\n"
        in text
    )
    assert "  const [hours] = useState(initial.hours);\n" in text


TYPED = """<template>
  <ul>
    <li v-for="row in rows" :key="row.id" @click="picked = row"><slot :row="row">{{ row.id }}</slot></li>
  </ul>
</template>

<script lang="ts">
import { defineComponent, PropType } from 'vue';

interface Row {
  id: string;
}

export default defineComponent({
  name: 'RowList',
  props: { rows: { type: Array as PropType<Row[]>, default: () => [] }, most: { type: Number, required: true } },
  emits: ['picked'],
  data() {
    return { picked: null as Row | null };
  },
  watch: {
    picked(row: Row) {
      this.$emit('picked', row.id);
    },
  },
});
</script>
"""


def test_types_come_along(run: Run, tmp_path: Path) -> None:
    (tmp_path / "RowList.vue").write_text(TYPED, "utf-8")
    done = run("carry", "RowList.vue", "--to", "jsx-function", "--json")
    file = json.loads(done.stdout)["results"][0]["files"][0]
    assert file["path"].endswith("RowList.function.tsx")
    text = file["text"]
    for line in (
        "const NO_ROWS: Row[] = [];", "  rows?: Row[];", "  most: number;",
        "  onPicked?: (...given: any[]) => void;", "  children?: (given: any) => ReactNode;",
        "}: RowListProps) {", "useState(null as Row | null)",
        "function useChange(value: any, run: (now: any, before: any) => void, atOnce = false) {",
    ):  # fmt: skip
        assert line in text, (line, text)
    assert "'vue'" not in text


OLDER = """<template>
  <div>
    <pier-map :zoom.sync="zoom" @click.native="zoom = 1">
      <b slot="title" slot-scope="{ at }">{{ at }}</b>
      <i>x</i>
    </pier-map>
    <p is="pier-map"></p>
    <component :is="tag">x</component>
  </div>
</template>

<script>
import PierMap from './PierMap.vue';

export default {
  name: 'PierPage',
  components: { PierMap },
  props: { tag: { type: String, default: 'b' } },
  data() {
    return { zoom: 1 };
  },
};
</script>
"""


def test_older_slots_and_bindings(run: Run, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{ "dependencies": { "vue": "^2.7.0" } }', "utf-8")
    plain = OLDER.replace('    <component :is="tag">x</component>\n', "")
    (tmp_path / "PierPage.vue").write_text(plain, "utf-8")
    done = run("carry", "PierPage.vue", "--to", "jsx-function", "--assume-carried", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    text = result["files"][0]["text"]
    assert "zoom={zoom}" in text and "onUpdateZoom={(value) => setZoom(value)}" in text
    assert "onClick={() => setZoom(1)}" in text
    assert "title={({ at }) => <b>{at}</b>}" in text
    assert text.count("<PierMap") == 2


CHOSEN = """<template>
  <component :is="tag"><pier-map /></component>
</template>

<script>
import PierMap from './PierMap.vue';

export default {
  components: { PierMap },
  props: { tag: { type: String, default: 'div' } },
};
</script>
"""


def test_a_tag_by_an_input_that_could_name_a_component(run: Run, tmp_path: Path) -> None:
    (tmp_path / "PierPage.vue").write_text(OLDER, "utf-8")
    done = run("carry", "PierPage.vue", "--to", "jsx-function", "--assume-carried", "--json")
    assert json.loads(done.stdout)["results"][0]["status"] == "refused"
    # A component that stands there by its own tag is not there to be chosen.
    (tmp_path / "PierPage.vue").write_text(CHOSEN, "utf-8")
    done = run("carry", "PierPage.vue", "--to", "jsx-function", "--assume-carried", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert [finding["rule"] for finding in result["findings"]] == ["tag-by-text"]
    assert "const Tag = tag;" in result["files"][0]["text"]
    plain = OLDER.replace("  components: { PierMap },\n", "").replace(
        "import PierMap from './PierMap.vue';\n", ""
    )
    start, end = plain.index("    <pier-map"), plain.index("    <component")
    (tmp_path / "PierPage.vue").write_text(plain[:start] + plain[end:], "utf-8")
    done = run("carry", "PierPage.vue", "--to", "jsx-function", "--json")
    text = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "const Tag = tag;" in text and "<Tag>x</Tag>" in text


def test_a_root_without_content_takes_none(run: Run, tmp_path: Path) -> None:
    text = FILE.format(markup="", options="").replace("<div></div>", '<i :title="text"></i>')
    (tmp_path / "Berth.vue").write_text(text, "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    written = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "<i title={text} className={className} {...others} children={null}></i>" in written


def test_version_2_binds_children_by_value_and_input(run: Run, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{ "dependencies": { "vue": "^2.7.0" } }', "utf-8")
    script = "import PierMap from './PierMap.vue';\n\nexport default"
    text = FILE.format(
        markup='<pier-map v-model="text" /><i v-if="count">1</i>\n    <i>2</i>',
        options="components: { PierMap },",
    )
    (tmp_path / "Berth.vue").write_text(text.replace("export default", script), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--assume-carried", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    written = result["files"][0]["text"]
    assert "<PierMap value={text} onInput={(event) => setText(event)} />" in written
    assert "{count ? <i>1</i> : null} <i>2</i>" in written


def test_an_element_that_code_moves_is_refused(run: Run, tmp_path: Path) -> None:
    moved = "mounted() { document.body.appendChild(this.$el); },"
    (tmp_path / "Berth.vue").write_text(FILE.format(markup="x", options=moved), "utf-8")
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "refused"
    assert "moved in the page" in result["findings"][0]["message"]


DESK = """<template>
  <form @submit.prevent="save">
    <label>Night <input type="checkbox" v-model="night" @change="tell"></label>
    <input v-model="name" @input="tell" @keyup.enter="save" @keyup.esc="clear">
    <textarea v-model.trim="note" @change="tell"></textarea>
    <p>{{ told }} {{ name }} {{ note }}</p>
  </form>
</template>

<script>
export default {
  emits: ['save'],
  data() {
    return { night: false, name: '', note: '', told: '' };
  },
  methods: {
    tell() {
      this.told = `${this.night}, ${this.name}, ${this.note}`;
    },
    save() {
      this.$emit('save', this.name);
    },
    clear() {
      this.name = '';
      this.tell();
    },
  },
};
</script>
"""


@pytest.mark.slow
def test_listeners_beside_bound_fields_hear_the_new_value(run: Run, tmp_path: Path) -> None:
    shutil.copytree(DEMO / "components", tmp_path / "components")
    (tmp_path / "components" / "Desk.vue").write_text(DESK, "utf-8")
    done = run("carry", "components/Desk.vue", "--to", "jsx-function", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean", result["findings"]
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][0]


PAIR = """<template>
  <tide-key @keydown.enter="go" @picked="go"></tide-key>
</template>

<script>
import TideKey from './TideKey.vue';
export default { components: { TideKey }, methods: { go() {} } };
</script>
"""


def test_an_event_of_the_page_has_the_name_the_runtime_has_for_it(run: Run, tmp_path: Path) -> None:
    (tmp_path / "Pair.vue").write_text(PAIR, "utf-8")
    (tmp_path / "TideKey.vue").write_text("<template><b>key</b></template>\n", "utf-8")
    done = run("carry", "Pair.vue", "--to", "jsx-function", "--assume-carried", "--json")
    text = json.loads(done.stdout)["results"][0]["files"][0]["text"]
    assert "onKeyDown={" in text
    assert "onPicked={go}" in text


CLEARED = """<template>
  <form @submit.prevent="send()"><input v-model.trim="what"><button>Send</button></form>
</template>
<script>
export default {
  data() { return { what: '' }; },
  methods: { send() { this.$emit('send', this.what); this.what = ''; } },
};
</script>
"""
CLEARING = """trials:
- name: typed, sent, and typed again
  functions: { send: {} }
  steps:
  - type: { role: textbox, position: 1, text: quay }
  - submit: { role: form, position: 1 }
  - type: { role: textbox, position: 1, text: pier }
"""


def test_a_field_is_cleared_where_its_text_is_taken_trimmed(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Load.vue").write_text(CLEARED)
    (tmp_path / "Load.trials.yaml").write_text(CLEARING)
    assert run("carry", "Load.vue", "--to", "jsx-function", "--write").returncode == 0
    done = run("verify", "Load.vue", "Load.function.jsx")
    assert "typed, sent, and typed again" in done.stdout and "differs" not in done.stdout
