"""Findings about a class before it runs: what its template uses, and who declares it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

ROW = """import { Component, Input } from '@angular/core';

@Component({ selector: 'gf-row', template: '<li>{{ name }}</li>' })
export class RowComponent {
  @Input() name = '';
}
"""
PIPE = """import { Pipe, PipeTransform } from '@angular/core';

@Pipe({ name: 'tons' })
export class TonsPipe implements PipeTransform {
  transform(value: number): string { return `${value} t`; }
}
"""
HEAD = """import {{ Component, Input }} from '@angular/core';
import {{ FormsModule }} from '@angular/forms';
import {{ RowComponent }} from './row.component';
import {{ TonsPipe }} from './tons.pipe';

@Component({{
  selector: 'gf-list',
  {options}
  template: `{template}`,
}})
export class ListComponent {{
  {members}
}}
"""
MODULE = """import { NgModule } from '@angular/core';
import { ListComponent } from './list.component';

@NgModule({ declarations: [ListComponent] })
export class NAMEModule {}
"""
ALL = "imports: [FormsModule, RowComponent, TonsPipe],"
CASES = [
    (ALL, '<gf-row [name]="one" />{{ 3 | tons }}<input [(ngModel)]="one">', "one = '';", []),
    (ALL, "<gf-raw />", "", [("tag-undeclared", "<gf-raw>")]),
    ("imports: [],", "<gf-row />", "", [("tag-undeclared", "<gf-row>")]),
    ("imports: [], schemas: [CUSTOM_ELEMENTS_SCHEMA],", "<gf-row />", "", []),
    ("imports: [],", '<input [(ngModel)]="one">', "one = '';",
     [("import-missing", "[(ngModel)]: FormsModule")]),
    ("imports: [],", "{{ 3 | tons }}", "", [("import-missing", "the pipe tons")]),
    ("imports: [],", "{{ 'a' | uppercase }}", "",
     [("import-missing", "the pipe uppercase: UpperCasePipe")]),
    (ALL, "{{ one }}", "private one = 3;", [("private-in-template", "one")]),
    (ALL, "{{ one }}", "constructor(private one: string) {}", [("private-in-template", "one")]),
    (ALL, "{{ 'one' }}", "private one = 3;", []),
    (ALL, "{{ rows }}", "rows: string[] = [];", [("object-shown", "rows")]),
    (ALL, "{{ rows.length }}", "rows: string[] = [];", []),
    ("standalone: false,", "<p></p>", "",
     [("class-stays-declared", ""), ("declared-nowhere", "ListComponent")]),
]  # fmt: skip


def found(run: Any, folder: Path, text: str, *more: str) -> list[tuple[str, str]]:
    (folder / "row.component.ts").write_text(ROW, "utf-8")
    (folder / "tons.pipe.ts").write_text(PIPE, "utf-8")
    (folder / "list.component.ts").write_text(text, "utf-8")
    (folder / "package.json").write_text("{}", "utf-8")
    done = run("carry", "list.component.ts", "--to", "decorated-class", "--json", *more)
    [result] = json.loads(done.stdout)["results"]
    return [(one["rule"], one["message"]) for one in result["findings"]]


@pytest.mark.parametrize(("options", "template", "members", "expected"), CASES)
def test_a_finding(
    run: Any, tmp_path: Path, options: str, template: str, members: str, expected: list[Any]
) -> None:
    text = HEAD.format(options=options, template=template, members=members)
    told = found(run, tmp_path, text)
    assert [rule for rule, _ in told] == [rule for rule, _ in expected]
    for (_, message), (_, part) in zip(told, expected, strict=True):
        assert part in message


def test_two_modules_declare_a_class(run: Any, tmp_path: Path) -> None:
    for name in ("North", "South"):
        text = MODULE.replace("NAME", name)
        (tmp_path / f"{name.lower()}.module.ts").write_text(text, "utf-8")
    text = HEAD.format(options="standalone: false,", template="<p></p>", members="")
    rules = [rule for rule, _ in found(run, tmp_path, text)]
    assert rules == ["class-stays-declared", "declared-twice"]


def test_the_prefix_of_the_project(run: Any, tmp_path: Path) -> None:
    (tmp_path / "clean-carry.toml").write_text('prefix = "gullmoor"\n', "utf-8")
    text = HEAD.format(options=ALL, template="<p></p>", members="")
    assert [rule for rule, _ in found(run, tmp_path, text)] == ["tag-without-prefix"]
    (tmp_path / "Tide.vue").write_text(
        "<template><p>high</p></template>\n<script>\nexport default {};\n</script>\n"
    )
    done = run("carry", "Tide.vue", "--to", "decorated-class", "--json")
    [result] = json.loads(done.stdout)["results"]
    assert "selector: 'gullmoor-tide'" in result["files"][0]["text"]
    assert result["findings"] == []
