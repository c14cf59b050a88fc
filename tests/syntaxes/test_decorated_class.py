"""Decorated classes become single files and functions, and get their newer notation."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.syntaxes.decorated_class.microsyntax import read_starred
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, free_names, respelled

CLASS = """import {{ {core} }} from '@angular/core';
import {{ CommonModule }} from '@angular/common';
import {{ FormsModule }} from '@angular/forms';

@Component({{
  selector: 'gf-berth',
  standalone: true,
  imports: [CommonModule, FormsModule],
  template: `{template}`,{options}
}})
export class BerthComponent {{
{members}
}}
"""


def written(template: str, members: str = "", options: str = "", core: str = "Component") -> str:
    return CLASS.format(template=template, members=members, options=options, core=core)


def carried(folder: Path, text: str, target: str = "single-file-object") -> Result:
    (folder / "berth.component.ts").write_text(text, "utf-8")
    request = Request(folder / "berth.component.ts", "berth.component.ts", target)
    return carry_file(request)[0]


def body(result: Result) -> str:
    """The template of a single file on one line."""
    assert result.status == "clean", result.findings
    text = result.files[0].text
    return " ".join(text[text.index("<template>") + 10 : text.rindex("</template>")].split())


TEMPLATES = [
    ('<p [class.late]="late" class="berth" [ngClass]="{ full: free === 0 }">x</p>',
     """<p :class="{ late: late, full: free === 0 }" class="berth">x</p>"""),
    ('<p [style.width.px]="free * 2" [style.color]="tone"></p>',
     '<p :style="{ width: `${free * 2}px`, color: tone }"></p>'),
    ('<p [attr.aria-label]="name" title="Pier {{ name }}"></p>',
     "<p :aria-label=\"name\" :title=\"`Pier ${name ?? ''}`\"></p>"),
    ('<b *ngIf="late; else soon">late</b><ng-template #soon><i>soon</i></ng-template>',
     '<b v-if="late">late</b> <i v-else>soon</i>'),
    ('<ng-container *ngIf="boat as b">{{ b.name }}</ng-container>',
     '<template v-if="boat">{{ boat.name }}</template>'),
    ('<li *ngFor="let one of rows; let i = index; let last = last; trackBy: byId" [class.end]="last">{{ i }}</li>',
     '<li v-for="(one, i) in rows" :key="one.id" :class="{ end: i === rows.length - 1 }">{{ i }}</li>'),
    ('<li *ngFor="let one of rows">{{ one }}</li>',
     '<li v-for="(one, index) in rows" :key="index">{{ one }}</li>'),
    ('<p [ngSwitch]="tone"><b *ngSwitchCase="\'a\'">A</b><i *ngSwitchDefault>-</i></p>',
     """<p><b v-if="tone === 'a'">A</b><i v-else>-</i></p>"""),
    ("@if (late) { <b>late</b> } @else if (free) { <i>free</i> } @else { <u>no</u> }",
     '<b v-if="late">late</b> <i v-else-if="free">free</i> <u v-else>no</u>'),
    ("@for (one of rows; track one.id; let odd = $odd) {<li [class.odd]=\"odd\">{{ one.id }}</li>} "
     "@empty {<li>none</li>}",
     '<li v-for="(one, index) in rows" :key="one.id" :class="{ odd: index % 2 === 1 }">{{ one.id }}</li> '
     '<li v-if="!rows?.length">none</li>'),
    ("@switch (tone) { @case ('a') { <b>A</b> } @default { <i>-</i> } }",
     """<b v-if="tone === 'a'">A</b> <i v-else>-</i>"""),
    ("@let total = free * 2; <p>{{ total }}</p>", "<p>{{ free * 2 }}</p>"),
    ('<input [(ngModel)]="name" /><button (click)="pick(1); late = true">x</button>',
     '<input v-model="name" /><button @click="pick(1); late = true">x</button>'),
    ('<input (keydown.enter)="pick(2)" (keyup.shift.a)="pick(3)" />',
     '<input @keydown.enter.exact="pick(2)" @keyup.shift.a.exact="pick(3)" />'),
    ("<form (ngSubmit)=\"pick(1)\"><b>x</b></form>",
     '<form @submit.prevent="pick(1)" novalidate><b>x</b></form>'),
    ("<p>{{ name | uppercase }} {{ rows | slice:0:2 | json }}</p>",
     "<p>{{ upperCase(name) }} {{ asJson(rows?.slice(0, 2)) }}</p>"),
    ("<p>{{ boat!.name }} {{ $any(boat).size }} {{ boat?.crew }}</p>",
     "<p>{{ boat.name }} {{ boat.size }} {{ boat?.crew }}</p>"),
    ('<ng-content></ng-content><ng-content select="[foot]">none</ng-content>',
     '<slot /><slot name="foot">none</slot>'),
    ('<ng-container *ngTemplateOutlet="row; context: { $implicit: boat, mark: 1 }"></ng-container>'
     '<ng-template #row let-b let-m="mark"><p>{{ b.name }} {{ m }}</p></ng-template>',
     "<p>{{ boat.name }} {{ 1 }}</p>"),
    ("<b>a</b> <i>b</i>", "<b>a</b><i>b</i>"),
]  # fmt: skip
MEMBERS = """  @Input() name = '';
  @Input() late = false;
  free = 0;
  tone = 'a';
  boat: any = null;
  rows: { id: number }[] = [];
  byId(at: number, row: { id: number }) {
    return row.id;
  }
  pick(n: number): void {
    this.free = n;
  }"""


@pytest.mark.parametrize(("old", "new"), TEMPLATES)
def test_templates(tmp_path: Path, old: str, new: str) -> None:
    members = MEMBERS
    if "late = true" in old or "ngModel" in old:
        # What the template writes is no prop of its own.
        members = members.replace("@Input() ", "")
    assert body(carried(tmp_path, written(old, members, core="Component, Input"))) == new


MEMBERS_WRITTEN = [
    ("@Input('minutes') start = 5;\n  get left() { return this.start - 1; }",
     ["minutes: { type: Number, default: 5 }", "return this.minutes - 1;"]),
    ("@Input({ required: true }) label!: string;", ["label: { type: String, required: true }"]),
    ("@Input() set seats(list: string[]) { this.rows = list; }\n  rows: string[] = [];",
     ["seats: Array as PropType<string[]>", "this.setSeats(now);", "if (this.seats !== undefined)"]),
    ("@Input({ transform: numberAttribute }) size = 1;",
     ["sizeValue() {", "Number.isNaN(parseFloat(this.size as any))"]),
    ("@Output('gone') left = new EventEmitter<number>();\n  go() { this.left.emit(2); }",
     ["emits: ['gone']", "this.$emit('gone', 2);"]),
    ("readonly count = signal(0);\n  readonly twice = computed(() => this.count() * 2);\n"
     "  add() { this.count.update((n) => n + 1); }\n  clear() { this.count.set(0); }",
     ["count: 0,", "return this.count * 2;", "this.count = this.count + 1;", "this.count = 0;"]),
    ("readonly open = model(false);\n  flip() {\n    this.open.set(!this.open());\n  }",
     ["openNow: this.open,", "this.openNow = !this.openNow;", "this.$emit('update:open', this.openNow);"]),
    ("ngOnInit() {\n    this.free = 1;\n  }\n  free = 0;\n  ngOnDestroy() {\n    this.free = 0;\n  }",
     ["created() {", "beforeUnmount() {"]),
    ("@Input() rows: number[] = [];\n  n = 0;\n  ngOnChanges(changes: SimpleChanges) {\n"
     "    if (changes['rows']) {\n      this.n = changes['rows'].firstChange ? 0 : 1;\n    }\n  }",
     ["rows() {\n      this.rowsChanged(false);", "this.n = first ? 0 : 1;"]),
    ("@ViewChild('box') box!: ElementRef<HTMLElement>;\n  ngAfterViewInit() {\n"
     "    this.box.nativeElement.focus();\n  }",
     ["(this.$refs.box as HTMLElement).focus();"]),
    ("constructor(private changes: ChangeDetectorRef) {}\n  go() {\n    this.changes.markForCheck();\n  }",
     ["go() {\n    }"]),
    ("private readonly gone = inject(DestroyRef);\n  ngOnInit() {\n    this.gone.onDestroy(() => 1);\n  }",
     ["gone: [] as (() => void)[],", "this.gone.push(() => 1);", "this.gone.forEach((run) => run());"]),
    ("@HostBinding('class.late') late = true;\n  @HostListener('click') go() {}",
     ['<div class="gf-berth" :class="{ late: late }" @click="go()">']),
]  # fmt: skip
CORE = (
    "Component, Input, Output, EventEmitter, signal, computed, model, inject, DestroyRef, ViewChild, "
    "ElementRef, HostBinding, HostListener, ChangeDetectorRef, SimpleChanges, numberAttribute"
)


@pytest.mark.parametrize(("members", "parts"), MEMBERS_WRITTEN)
def test_members(tmp_path: Path, members: str, parts: list[str]) -> None:
    result = carried(tmp_path, written("<p #box>x</p>", f"  {members}", core=CORE))
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert [part for part in parts if part not in text] == []
    assert "@angular" not in text


@pytest.mark.parametrize("target", ["single-file-flat", "single-file-object", "jsx-function"])
def test_files_of_its_own(tmp_path: Path, target: str) -> None:
    (tmp_path / "berth.component.html").write_text('<p class="b">{{ name }}</p>\n')
    (tmp_path / "berth.component.css").write_text(
        ":host { display: block; }\n.b { color: teal; }\n"
    )
    text = written("x", "  @Input() name = '';", core="Component, Input")
    text = text.replace("template: `x`,", "templateUrl: './berth.component.html',\n"
                        "  styleUrl: './berth.component.css',")  # fmt: skip
    result = carried(tmp_path, text, target)
    assert result.status == "clean"
    written_ = "".join(file.text for file in result.files)
    assert ".b" in written_ and "color: teal" in written_
    assert "berth.component.css" not in [Path(file.path).name for file in result.files]


REFUSED = [
    ("template-unread", '<p [gfTip]="name"></p>', "", ""),
    ("template-unread", "<p>{{ name | tide }}</p>", "", ""),
    ("template-unread", "<gf-lamp></gf-lamp>", "", ""),
    ("template-unread", '<p [innerHTML]="name"></p>', "", ""),
    ("template-unread", "@defer { <p></p> }", "", ""),
    ("template-unread", "<p>{{ n | async }}</p>", "", ""),
    ("service-injected", "x", "constructor(private tides: TideService) {}", ""),
    ("service-injected", "x", "tides = inject(TideService);", ""),
    ("class-member-unread", "x", "static all = 1;", ""),
    ("class-member-unread", "x", "@ContentChild('a') a: any;", ""),
    ("class-member-unread", "x", "rows = effect(() => 1);", ""),
    ("class-member-unread", "x", "a = 1;\n  b = this.a;", ""),
    ("hook-unread", "x", "@Input() a = 1;\n  @Input() b = 1;\n  ngOnChanges() { this.n = 1; }\n  n = 0;", ""),
    ("template-unread", '<a href="#x" (click)="late = !late">x</a>', "late = false;", ""),
    ("template-unread", '<input type="number" [(ngModel)]="n" />', "n = 1;", ""),
    ("template-unread", '<form><button type="reset">x</button></form>', "", ""),
    ("option-unread", "x", "", "\n  viewProviders: [TideService],"),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "template", "members", "options"), REFUSED)
def test_refused_by_name(
    tmp_path: Path, rule: str, template: str, members: str, options: str
) -> None:
    core = f"{CORE}, ContentChild, effect"
    result = carried(tmp_path, written(template, f"  {members}", options, core))
    assert result.status == "refused"
    assert result.findings[0].rule == rule, result.findings


def test_check_hooks_are_left(tmp_path: Path) -> None:
    result = carried(tmp_path, written("x", "  n = 0;\n  ngDoCheck() {\n    this.n += 1;\n  }"))
    assert result.status == "left"
    assert any(one.rule == "hook-left" for one in result.findings)


def test_without_a_member_of_the_table_a_class_is_refused(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """What no reader knows is refused: taking a hook out of the table refuses the class."""
    from clean_carry.syntaxes.decorated_class import members

    monkeypatch.delitem(members.HOOKS, "ngAfterViewInit")
    result = carried(
        tmp_path, written("x", "  ngAfterViewInit() {\n    this.n = 1;\n  }\n  n = 0;")
    )
    assert result.findings[0].rule == "hook-unread"


# -- the language of templates -----------------------------------------------------------


def _pipe(name: str, value: str, given: list[str]) -> str:
    return f"{name}({', '.join([value, *given])})"


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("a | up", "up(a)"),
        ("a ? b : c | up", "up(a ? b : c)"),
        ("(a | up).length + f(b | low: 1 : c)", "(up(a)).length + f(low(b, 1, c))"),
        ("a || b", "a || b"),
        ("{ x: n, n }", "{ x: this.n, n: this.n }"),
        ("o.n + n", "o.n + this.n"),
        ("n!.x!", "this.n.x"),
        ("!n", "!this.n"),
        ("count() + 1", "count + 1"),
        ("picked.emit(n); n = 2", "send('picked', this.n); this.n = 2"),
        ("'n' + `${n} n`", "'n' + `${this.n} n`"),
        ("$any(o).x", "o.x"),
    ],
)
def test_expressions(old: str, new: str) -> None:
    spelling = Spelling({"n": "this.n"}, {"count": "count"}, {"picked": "send('picked'"}, _pipe)
    assert respelled(old, spelling) == new


@pytest.mark.parametrize("text", ["a => b", "f(", "a | ", "a # b ~"])
def test_no_expressions(text: str) -> None:
    nothing: dict[str, str] = {}
    with pytest.raises(Unread):
        respelled(text, Spelling(nothing, nothing, nothing, _pipe))


def test_free_names() -> None:
    assert free_names("a.b + c[d] | up: e") == {"a", "c", "d", "e"}


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("a", ("a", "", {}, {})),
        ("a as b; else c", ("a", "b", {}, {"else": "c"})),
        ("let x of xs; index as i; trackBy: f",
         ("", "", {"x": "", "i": "index"}, {"of": "xs", "trackBy": "f"})),
        ("let x of xs index as i", ("", "", {"x": "", "i": "index"}, {"of": "xs"})),
        ("t; context: { $implicit: a, b: 1 }", ("t", "", {}, {"context": "{ $implicit: a, b: 1 }"})),
    ],
)  # fmt: skip
def test_microsyntax(text: str, found: tuple[str, str, dict[str, str], dict[str, str]]) -> None:
    read = read_starred(text)
    assert (read.value, read.alias, read.lets, read.keys) == found


# -- the newer notation ------------------------------------------------------------------

RENEWED_TEMPLATES = [
    ('<b *ngIf="late; else soon">late</b><ng-template #soon><i>soon</i></ng-template>',
     "@if (late()) {<b>late</b>} @else {\n    <i>soon</i>\n  }"),
    ('\n    <ul>\n      <li *ngFor="let one of rows; let i = index">{{ i }}</li>\n    </ul>\n  ',
     "\n    <ul>\n      @for (one of rows; track one; let i = $index) {\n        <li>{{ i }}</li>\n      }\n"
     "    </ul>\n  "),
    ('<p [ngSwitch]="tone"><b *ngSwitchCase="1">A</b></p>', "<p> @switch (tone) {@case (1) {<b>A</b>} }</p>"),
    ("<p title='a'   >{{ name|uppercase }}   {{ other }}</p>",
     "<p title='a'   >{{ name() | uppercase }}   {{ other }}</p>"),
    ('<p #name>{{ name.x }}</p>', '<p #name>{{ name.x }}</p>'),
    ('@for (name of rows; track name) {<b>{{ name }}</b>}', '@for (name of rows; track name) {<b>{{ name }}</b>}'),
]  # fmt: skip


@pytest.mark.parametrize(("old", "new"), RENEWED_TEMPLATES)
def test_renewed_templates(tmp_path: Path, old: str, new: str) -> None:
    text = written(old, MEMBERS, core="Component, Input")
    result = carried(tmp_path, text, "decorated-class")
    assert result.status == "clean", result.findings
    made = result.files[0].text
    start = made.index("template: `") + len("template: `")
    assert made[start : made.index("`", start)] == new


def test_renewed_members(tmp_path: Path) -> None:
    members = """  constructor(private changes: ChangeDetectorRef) {}

  @Input() name = '';
  @Input('minutes') start = 5;
  @Input({ required: true }) rows!: string[];
  @Input() kept = 1;
  @Input() set seats(list: string[]) { this.kept = list.length; }
  @Output('gone') left = new EventEmitter<number>();
  @ViewChild('box') box!: ElementRef<HTMLElement>;

  go(): void {
    this.left.emit(this.start + this.rows.length);
    this.box.nativeElement.focus();
    this.changes.markForCheck();
  }"""
    text = written("<p #box>{{ name | uppercase }}</p>", members, core=CORE)
    result = carried(tmp_path, text, "decorated-class")
    made = result.files[0].text
    for part in (
        "private readonly changes = inject(ChangeDetectorRef);",
        "readonly name = input('');",
        "readonly start = input(5, { alias: 'minutes' });",
        "readonly rows = input.required<string[]>();",
        "@Input() kept = 1;",
        "@Input() set seats(list: string[])",
        "readonly left = output<number>({ alias: 'gone' });",
        "readonly box = viewChild.required<ElementRef<HTMLElement>>('box');",
        "this.left.emit(this.start() + this.rows().length);",
        "this.box().nativeElement.focus();",
        "imports: [FormsModule, UpperCasePipe],",
        "import { UpperCasePipe } from '@angular/common';",
    ):
        assert part in made, part
    assert "constructor" not in made and "standalone" not in made and "ViewChild," not in made
    assert {one.rule for one in result.findings} == {"input-stays"}


@pytest.mark.parametrize(
    ("members", "head"),
    [
        (
            "  @Input() name = '';\n  all() {\n    const { name } = this;\n    return name;\n  }",
            "class BerthComponent",
        ),
        ("  @Input() name = '';", "class BerthComponent extends Pier"),
    ],
)
def test_inputs_that_others_may_read_stay(tmp_path: Path, members: str, head: str) -> None:
    """Code that is not seen would read a function where it read a value."""
    text = written("{{ name }}", members, core="Component, Input")
    result = carried(tmp_path, text.replace("class BerthComponent", head), "decorated-class")
    assert result.status == "clean"
    assert "@Input() name = '';" in result.files[0].text and "{{ name }}" in result.files[0].text
    assert [one.rule for one in result.findings] == ["input-stays"]


def test_comments_go_along(tmp_path: Path) -> None:
    members = """  /** The pier. */
  @Input() name = '';
  free = 1; // berths
  // Told when it is booked.
  @Output() booked = new EventEmitter<number>();

  // Books one.
  @HostListener('click')
  book() {
    this.booked.emit(1); // one
  }
  // The end."""
    result = carried(tmp_path, written("x", members, core=CORE))
    text = result.files[0].text
    for comment in ("The pier.", "berths", "Told when", "Books one.", "// one", "The end."):
        assert text.count(comment) == 1, comment
    assert text.index("// Books one.") < text.index("book() {")


def test_styles_of_the_element_itself_keep_an_element(tmp_path: Path) -> None:
    text = written("<p>x</p>", options="\n  styles: [`:host { display: block; }`],")
    made = carried(tmp_path, text).files[0].text
    assert '<div class="gf-berth">' in made and ".gf-berth { display: block; }" in made
