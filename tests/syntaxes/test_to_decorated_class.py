"""Single files become decorated classes: each construct of the template and of the options."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  {template}
</template>

<script>
export default {{
  props: {{
    sailing: {{ type: Object, required: true }},
    rows: Array,
    pier: {{ type: String, default: 'Holm' }},
  }},
  emits: ['close', 'row-picked'],
  data() {{
    return {{ open: false, name: '', kinds: [], chosen: 'car', form: {{ note: '' }} }};
  }},
{options}
}};
</script>
"""
METHODS = """  methods: {
    pick(row) { this.open = true; this.$emit('row-picked', row); },
    tell() { return this.open; },
  },"""


def carried(folder: Path, text: str) -> Result:
    (folder / "BerthCard.vue").write_text(text, "utf-8")
    request = Request(folder / "BerthCard.vue", "BerthCard.vue", "decorated-class")
    return carry_file(request)[0]


def written(template: str, options: str = METHODS) -> str:
    return FILE.format(template=template, options=options)


def files(result: Result) -> tuple[str, str]:
    """The class and the template, each on one line."""
    assert result.status == "clean", result.findings
    by_ending = {file.path.rpartition(".")[2]: file.text for file in result.files}
    return tuple(" ".join(by_ending[ending].split()) for ending in ("ts", "html"))  # type: ignore[return-value]


TEMPLATES = [
    ('<p :title="pier" :aria-label="name">{{ pier }}</p>',
     '<p [attr.title]="pier()" [attr.aria-label]="name">{{ pier() }}</p>'),
    ('<p v-if="open">a</p><b v-else-if="name">b</b><i v-else>c</i>',
     '@if (open()) { <p>a</p> } @else if (name) { <b>b</b> } @else { <i>c</i> }'),
    ('<template v-if="open">late</template>', "@if (open()) { <ng-container>late</ng-container> }"),
    ('<li v-for="(row, at) in rows" :key="row.id">{{ at }}: {{ row.to }}</li>',
     '@for (row of rows(); track row.id; let at = $index) { <li>{{ at }}: {{ row.to }}</li> }'),
    ('<li v-for="n in 3">{{ n }}</li>', '@for (n of [1, 2, 3]; track $index) { <li>{{ n }}</li> }'),
    ('<p :class="[name, { late: open }]" :style="{ color: name }">x</p>',
     '<p [class]="classes([name, { late: open() }])" [style]="{ color: name }">x</p>'),
    ('<p class="a" :class="{ late: open, \'far-off\': !open }">x</p>',
     '<p class="a" [class.late]="open()" [class.far-off]="!open()">x</p>'),
    ('<p v-show="open">x</p>', "<p [style.display]=\"open() ? null : 'none'\">x</p>"),
    ('<button :disabled="open" @click="pick(sailing)">x</button>',
     '<button [disabled]="open()" (click)="pick(sailing())">x</button>'),
    ('<button @click="pick">x</button>', '<button (click)="pick($event)">x</button>'),
    ('<button @click="open = !open">x</button>', '<button (click)="open.set(!open())">x</button>'),
    ('<button @click="tell">x</button>', '<button (click)="void tell()">x</button>'),
    ('<form @submit.prevent="tell()"><input></form>',
     '<form (submit)="$event.preventDefault(); void tell()"> <input /> </form>'),
    ('<input @keyup.enter="pick(1)">', "<input (keyup)=\"$event.key === 'Enter' ? pick(1) : null\" />"),
    ('<input v-model="name">',
     '<input [value]="name() ?? \'\'" (input)="name.set($any($event.target).value)" />'),
    ('<input type="checkbox" v-model="open">',
     '<input type="checkbox" [checked]="open()" (change)="open.set($any($event.target).checked)" />'),
    ('<input type="radio" value="car" v-model="chosen">',
     '<input type="radio" value="car" [checked]="chosen() === \'car\'" (change)="chosen.set(\'car\')" />'),
    ('<select v-model="chosen"><option>car</option></select>',
     '<select (change)="chosen.set($any($event.target).value)"> '
     '<option [selected]="chosen() === \'car\'">car</option> </select>'),
    ('<slot name="foot"><i>none</i></slot>', '<ng-content select="[foot]"> <i>none</i> </ng-content>'),
    ('<p><b>a</b> <i>b</i></p>', "<p><b>a</b>&ngsp;<i>b</i></p>"),
    ('<p>a @ {b}</p>', "<p>a &#64; &#123;b&#125;</p>"),
    ('<p>{{ Math.round(name) }}</p>', "<p>{{ Math.round(name) }}</p>"),
    ('<p>{{ rows.map((row) => row.to).join() }}</p>', "<p>{{ text() }}</p>"),
    ('<p>{{ form }}</p>', "<p>{{ form | json }}</p>"),
    ('<p v-html="pier"></p>', '<p [innerHTML]="pier()"></p>'),
]  # fmt: skip


@pytest.mark.parametrize(("template", "new"), TEMPLATES)
def test_a_template(tmp_path: Path, template: str, new: str) -> None:
    assert files(carried(tmp_path, written(template)))[1] == new


OPTIONS = [
    (METHODS, "protected open = true", "readonly open = signal(false);"),
    (METHODS, "", "readonly rowPicked = output<any>();"),
    (METHODS, "", "this.open.set(true); this.rowPicked.emit(row);"),
    ("  computed: { far() { return this.pier + this.open; } },", "",
     "readonly far = computed(() => this.pier() + this.open);"),
    ("  watch: { pier(now, before) { this.name = before; } },", "",
     "this.onChange(() => this.pier(), (now, before) => { this.name.set(before); });"),
    ("  watch: { pier: { handler() { this.open = true; }, immediate: true } },", "",
     "this.onChange(() => this.pier(), () => { this.open.set(true); }, true);"),
    ("  created() { this.name = this.pier; },", "", "ngOnInit() { this.name.set(this.pier()); }"),
    ("  async mounted() { await fetch('/'); this.open = true; },", "",
     "async ngAfterViewInit() { await fetch('/'); this.open.set(true); }"),
    ("  beforeUnmount() { this.open = true; },", "", "ngOnDestroy() { this.open.set(true); }"),
    ("  methods: { add() { this.kinds.push('a'); } },", "",
     "this.kinds().push('a'); this.kinds.set([...this.kinds()]);"),
    ("  methods: { wait() { setTimeout(this.open_, 5); }, open_() { this.open = true; } },", "",
     "private readonly open_ = () => { this.open.set(true); };"),
    ("  methods: { async show() { this.open = true; await this.$nextTick(); } },", "",
     "await this.afterNext();"),
]  # fmt: skip


@pytest.mark.parametrize(("options", "not_there", "there"), OPTIONS)
def test_options(tmp_path: Path, options: str, not_there: str, there: str) -> None:
    code = files(carried(tmp_path, written("<p>{{ open }}</p>", options)))[0]
    assert there in code
    assert not not_there or not_there not in code


REFUSED = [
    ("<p>x</p>", "  methods: { move() { this.$emit('close', 1, 2); } },", "event-of-several"),
    ('<slot :row="open" />', METHODS, "slot-gives-values"),
    ("<p>x</p>", "  methods: { grow() { this.kinds.push(1); } }, watch: { kinds() { this.open = true; } },",
     "watched-in-place"),
    ("<p>x</p>", "  updated() { this.open = true; },", "moment-not-in-target"),
    ("<p>x</p>", "  computed: { far() { this.open = true; return 1; } },", "derived-writes"),
    ("<p>{{ $route.path }}</p>", METHODS, "not-in-target"),
    ('<p :key="name">x</p>', METHODS, "markup-unread"),
]  # fmt: skip


@pytest.mark.parametrize(("template", "options", "rule"), REFUSED)
def test_what_a_class_cannot_say_is_refused(
    tmp_path: Path, template: str, options: str, rule: str
) -> None:
    result = carried(tmp_path, written(template, options))
    assert result.status == "refused"
    assert rule in {finding.rule for finding in result.findings}


def test_names_of_the_interface(tmp_path: Path) -> None:
    """Events that elements have get another name, and the map says so."""
    options = "  methods: { end() { this.$emit('close'); } },"
    result = carried(tmp_path, written('<button @click="end">x</button>', options))
    assert ("close", "closed") in result.interface.events
    assert "output-renamed" in {finding.rule for finding in result.findings}


def test_styles_stand_in_a_file_of_their_own(tmp_path: Path) -> None:
    sheet = "<style scoped>\n.berth { color: navy; }\n</style>\n"
    result = carried(tmp_path, written("<p>x</p>") + sheet)
    by_ending = {file.path.rpartition(".")[2]: file.text for file in result.files}
    assert by_ending["css"] == ".berth { color: navy; }\n"
    assert "styleUrl: './BerthCard.decorated.css'" in by_ending["ts"]
    assert "encapsulation" not in by_ending["ts"]
