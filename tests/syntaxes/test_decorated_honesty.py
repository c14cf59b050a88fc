"""What the reader of decorated classes does not know is refused by its name, and never written along."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

HEAD = """import {
  Component, Input, Output, EventEmitter, ElementRef, Inject, NgZone, Optional,
  afterNextRender, booleanAttribute, computed, contentChild, effect, forwardRef, inject, input, isDevMode,
  linkedSignal, model, output, resource, signal, untracked, viewChildren,
} from '@angular/core';
import { FormControl } from '@angular/forms';
import { toSignal } from '@angular/core/rxjs-interop';
import { HttpClient } from '@angular/common/http';
import { of } from 'rxjs';
import { TITLE, Foo } from './foo';

@Component({ selector: 'gf-b', standalone: true, template: '%s' })
export class BComponent {
  @Input() a: any;
  @Input() b: any;
  %s
}
"""
# Expressions of a template with what is written for them; None where they are refused.
EXPRESSIONS = [
    ("typeof a", "typeof a"), ("void a", "void a"), ("a ** 2", "a ** 2"), ("[...a]", "[...a]"),
    ("a?.[0]", "a?.[0]"), ("a?.()", "a?.()"), ("a!.b", "a.b"), ("a[0]!", "a[0]"), ("this.a", "a"),
    ("$any(a).b", "a.b"), ("`n${a}`", "`n${a}`"), ("a ?? b", "a ?? b"), ("a in b", "a in b"),
    ("{a}", "{a}"), ("/x/.test(a)", "/x/.test(a)"), ("a | date", None), ("a.map(x => x)", None),
    ("new A()", None), ("a instanceof b", None), ("await a", None), ("a // c", None),
    ("a /* c */", None), ("this[a]", None), ("a & 1", None), ("{[a]: 1}", None), ("`${{b: 1}.b}`", None),
    ("a as b", None),
]  # fmt: skip
# Members of a class, and the rule by which they are refused; "" for those that are read.
MEMBERS = [
    ("constructor() { afterNextRender(() => { this.a = 1; }); }", "old-runtime-used"),
    ("constructor() { effect(() => console.log(this.a)); }", "old-runtime-used"),
    ("c = untracked(() => 3);", "old-runtime-used"),
    ("m() { return isDevMode(); }", "old-runtime-used"),
    ("c = forwardRef(() => BComponent);", "old-runtime-used"),
    ("c = toSignal(of(1));", "old-runtime-used"),
    ("c = new FormControl('');", "old-runtime-used"),
    ("m(c: ElementRef) { return c; }", "old-runtime-used"),
    ("c = linkedSignal(() => 3);", "class-member-unread"),
    ("c = resource({ loader: async () => 3 });", "class-member-unread"),
    ("c = contentChild('x');", "class-member-unread"),
    ("c = viewChildren('x');", "class-member-unread"),
    ("@Output() c = new EventEmitter<void>(true);", "class-member-unread"),
    ("static c = 3;", "class-member-unread"),
    ("#c = 3;", "class-member-unread"),
    ("c = 3; d = this.c + 1;", "class-member-unread"),
    ("*m() { yield 1; }", "class-member-unread"),
    ("c = signal(3); m() { const { c } = this; return c; }", "class-member-unread"),
    ("c = signal(3); m() { return this['c']; }", "class-member-unread"),
    ("c = signal(3); m() { return [this.c]; }", "class-member-unread"),
    ("private c = inject(HttpClient);", "service-injected"),
    ("constructor(@Optional() private c: Foo) {}", "service-injected"),
    ("constructor(@Inject(TITLE) private c: string) {}", "service-injected"),
    ("private c = inject(NgZone); m() { this.c.run(() => 3); }", "service-injected"),
    ("ngOnChanges(c: any) { console.log(c); }", "hook-unread"),
    ("@Input({ transform: booleanAttribute }) c = false;", ""),
    ("c = signal(3); m() { this.c.update((v) => v + 1); }", ""),
    ("c = computed(() => this.a + 1);", ""),
    ("m<T>(x: T): T { return x; }", ""),
    ("c = model(3); m() { this.c.set(4); }", ""),
    ("c = output<string>({ alias: 'd' }); m() { this.c.emit('x'); }", ""),
    ("private c = inject(ElementRef); m() { return this.c.nativeElement.id; }", ""),
]


def carried(folder: Path, template: str, members: str) -> Result:
    text = HEAD % (template.replace("'", "\\'") if "'" in template else template, members)
    (folder / "b.component.ts").write_text(text, "utf-8")
    [result] = carry_file(
        Request(folder / "b.component.ts", "b.component.ts", "single-file-object")
    )
    return result


@pytest.mark.parametrize(("code", "new"), EXPRESSIONS)
def test_expressions(tmp_path: Path, code: str, new: str | None) -> None:
    result = carried(tmp_path, f"<p>{{{{ {code} }}}}</p>", "A: any;")
    if new is None:
        assert [one.rule for one in result.findings] == ["template-unread"]
        assert not result.files
    else:
        assert f"<p>{{{{ {new} }}}}</p>" in result.files[0].text


@pytest.mark.parametrize(("members", "rule"), MEMBERS)
def test_members(tmp_path: Path, members: str, rule: str) -> None:
    result = carried(tmp_path, "<p>{{ a }}</p>", members)
    errors = [one.rule for one in result.findings if one.level == "error"]
    assert errors == ([rule] if rule else [])
    assert bool(result.files) != bool(rule)


def test_an_element_is_not_read_by_an_expression(tmp_path: Path) -> None:
    result = carried(tmp_path, '<input #f (input)="0"><p>{{ f.value }}</p>', "")
    assert "the element #f in an expression" in result.findings[0].message


def test_white_space_behind_a_block(tmp_path: Path) -> None:
    inner = '<b v-for="k in rows">{{ k }}</b> <i>x</i> <u v-if="k">y</u> <s>z</s>'
    text = f"<template><p>{inner}</p></template>\n"
    script = "<script>\nexport default { data() { return { rows: [1], k: 1 }; } };\n</script>\n"
    (tmp_path / "A.vue").write_text(text + script, "utf-8")
    [result] = carry_file(Request(tmp_path / "A.vue", "A.vue", "decorated-class"))
    template = result.files[1].text
    assert "}{{ ' ' }}<i>x</i>&ngsp;@if" in template
    assert "}{{ ' ' }}<s>z</s>" in template
