"""Template, code and styles together in one file, or apart in files of their own."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.syntaxes.decorated_class import parts as of_class
from clean_carry.syntaxes.single_file import parts as of_file

CLASS = """import {{ Component }} from '@angular/core';

@Component({{
  selector: 'gf-tide',
  {options}
}})
export class Tide {{}}
"""
INDENTED = """template: `
    <p class="tide">
      {{ level }} m

    </p>
  `,
  styles: [`
    .tide { color: navy; }
  `],"""
CLASSES = [
    (INDENTED, {"tide.html", "tide.css"}),
    ("template: `<p>\n  high</p>`,", {"tide.html"}),
    ("template: '<p>high</p>',", {"tide.html"}),
    ("template: `<p>\n\\`low\\`\n</p>`,", {"tide.html"}),
    ("template: `\n<p>{{ a }}</p>\n`,\n  styles: `\n    b { color: red }\n  `,", {"tide.html", "tide.css"}),
    ("template: '',\n  styles: ['a { b: c }', 'd { e: f }'],", {"tide.css", "tide.2.css"}),
    # A literal that would come back in other quotes stays.
    ('template: "<p>high</p>",', set()),
    ("template: '<p>it\\'s high</p>',", set()),
    ("template: `<p>${sign}</p>`,", set()),
]  # fmt: skip


@pytest.mark.parametrize(("options", "names"), CLASSES)
def test_a_class_comes_back_byte_for_byte(options: str, names: set[str]) -> None:
    text = CLASS.format(options="{0}").replace("{0}", options)
    made = of_class.apart(text, "tide")
    assert set(made) - {""} == names
    held = {f"./{name}": part for name, part in made.items()}
    assert of_class.together(made[""], held.get) == text


def test_a_file_of_a_class_is_not_indented() -> None:
    text = CLASS.format(options="{0}").replace("{0}", INDENTED)
    made = of_class.apart(text, "tide")
    assert made["tide.html"] == '<p class="tide">\n  {{ level }} m\n\n</p>\n'
    assert "templateUrl: './tide.html'" in made[""] and "styleUrls: ['./tide.css']" in made[""]
    assert of_class.requests(made[""]) == ["./tide.html", "./tide.css"]


FILES = [
    ("<template>\n  <p>x</p>\n</template>\n\n<script>\nexport default {};\n</script>\n",
     {"tide.html", "tide.js"}),
    ('<script lang="ts">\nexport default {};\n</script>\n<style scoped>\na { b: c }\n</style>\n'
     '<style lang="scss">\nd { e: f }\n</style>\n', {"tide.ts", "tide.css", "tide.scss"}),
    ("<script setup>\nconst a = 1;\n</script>\n<template><p>x</p></template>\n", set()),
]  # fmt: skip


@pytest.mark.parametrize(("text", "names"), FILES)
def test_a_single_file_comes_back_byte_for_byte(text: str, names: set[str]) -> None:
    made = of_file.apart(text, "tide")
    assert set(made) - {""} == names
    held = {f"./{name}": part for name, part in made.items()}
    assert of_file.together(made[""], held.get) == text


def test_parts_by_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = CLASS.format(options="{0}").replace("{0}", INDENTED)
    (tmp_path / "tide.ts").write_text(text)
    split = run("carry", "tide.ts", "--to", "decorated-class", "--parts", "apart", "--write")
    assert split.returncode == 0
    assert (tmp_path / "tide.decorated.css").read_text() == ".tide { color: navy; }\n"
    joined = run(
        "carry", "tide.decorated.ts", "--to", "decorated-class", "--parts", "together",
        "--out", "joined",
    )  # fmt: skip
    assert joined.returncode == 0
    (made,) = (tmp_path / "joined").iterdir()
    assert made.read_text() == text


OLD = """import { Component, EventEmitter, Input, Output, inject } from '@angular/core';
import { CommonModule } from '@angular/common';
import { Log } from './log';

@Component({
  selector: 'gf-tide',
  standalone: true,
  imports: [CommonModule],
  template: '<p *ngIf="high">{{ level }}</p>',
})
export class Tide {
  @Input() level = 2;
  @Output() told = new EventEmitter<number>();
  high = true;

  constructor(private readonly log: Log) {}
}
"""
RENEWALS = [
    ("blocks", "@if (high) {", ["@Input()", "@Output()", "constructor(", "CommonModule"]),
    ("inputs", "readonly level = input(2);", ["*ngIf", "@Output()", "constructor("]),
    ("outputs", "readonly told = output<number>();", ["*ngIf", "@Input()", "constructor("]),
    ("injection", "inject(Log)", ["*ngIf", "@Input()", "@Output()"]),
    ("nothing", "export class Tide", ["*ngIf", "@Input()", "@Output()", "constructor("]),
]


@pytest.mark.parametrize(("part", "there", "kept"), RENEWALS)
def test_each_notation_is_renewed_by_itself(
    run, tmp_path: Path, part: str, there: str, kept: list[str]
) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "tide.ts").write_text(OLD)
    (tmp_path / "log.ts").write_text("export class Log {}\n")
    done = run("carry", "tide.ts", "--to", "decorated-class", "--renew", part, "--write")
    assert done.returncode == 0, done.stdout
    made = (tmp_path / "tide.decorated.ts").read_text()
    assert there in made
    assert all(one in made for one in kept)
