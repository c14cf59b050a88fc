"""Decorated classes in their own runtime: old and new notation, mutants, and what stands in for services."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

OLD = """import { Component, EventEmitter, Input, Output } from '@angular/core';
import { NgFor, NgIf } from '@angular/common';

@Component({
  selector: 'gf-berth',
  standalone: true,
  imports: [NgIf, NgFor],
  template: `
    <article class="berth" [class.full]="free === 0">
      <h3>{{ name }}</h3>
      <p *ngIf="free > 0; else full">{{ free }} of {{ total }} free</p>
      <ng-template #full><p class="full">full</p></ng-template>
      <ul><li *ngFor="let one of waiting; let i = index">{{ i + 1 }}. {{ one }}</li></ul>
      <button type="button" [disabled]="free === 0" (click)="book()">Book</button>
    </article>
  `,
  styles: [`.full { color: red }`],
})
export class BerthComponent {
  @Input() name = '';
  @Input() total = 4;
  @Input() waiting: string[] = [];
  @Output() booked = new EventEmitter<number>();
  taken = 0;

  get free(): number {
    return this.total - this.taken;
  }

  book(): void {
    if (this.free > 0) {
      this.taken += 1;
      this.booked.emit(this.free);
    }
  }
}
"""
NEW = """import { Component, computed, input, output, signal } from '@angular/core';

@Component({
  selector: 'gf-berth',
  templateUrl: './berth.new.html',
  styles: [`.full { color: red }`],
})
export class BerthComponent {
  readonly name = input('');
  readonly total = input(4);
  readonly waiting = input<string[]>([]);
  readonly booked = output<number>();
  readonly taken = signal(0);
  readonly free = computed(() => this.total() - this.taken());

  book(): void {
    if (this.free() > 0) {
      this.taken.update((n) => n + 1);
      this.booked.emit(this.free());
    }
  }
}
"""
TEMPLATE = """<article class="berth" [class.full]="free() === 0">
  <h3>{{ name() }}</h3>
  @if (free() > 0) {
    <p>{{ free() }} of {{ total() }} free</p>
  } @else {
    <p class="full">full</p>
  }
  <ul>@for (one of waiting(); track $index; let i = $index) {<li>{{ i + 1 }}. {{ one }}</li>}</ul>
  <button type="button" [disabled]="free() === 0" (click)="book()">Book</button>
</article>
"""
MUTANTS = [
    ("n + 1", "n + 2"),
    ("this.booked.emit(this.free());", ""),
    ("input(4)", "input(3)"),
    ("{{ i + 1 }}.", "{{ i }}."),
    ("[class.full]", "[class.none]"),
    ('[disabled]="free() === 0" ', ""),
]


def verdict(run: Any, folder: Path, new: str, template: str) -> dict[str, Any]:
    (folder / "berth.ts").write_text(OLD, "utf-8")
    (folder / "berth.new.ts").write_text(new, "utf-8")
    (folder / "berth.new.html").write_text(template, "utf-8")
    options = ("--budget", "60", "--most-trials", "25", "--json")
    done = run("verify", "berth.ts", "berth.new.ts", *options)
    assert done.returncode in (0, 1), done.stderr
    told: dict[str, Any] = json.loads(done.stdout)
    return told


def test_both_notations_are_the_same(run: Any, tmp_path: Path) -> None:
    told = verdict(run, tmp_path, NEW, TEMPLATE)
    assert told["verdict"] == "same", told


@pytest.mark.parametrize(("old", "new"), MUTANTS)
def test_mutants_differ(run: Any, tmp_path: Path, old: str, new: str) -> None:
    assert old in NEW + TEMPLATE
    told = verdict(run, tmp_path, NEW.replace(old, new), TEMPLATE.replace(old, new))
    assert told["verdict"] == "differs", told


def test_a_service_nobody_provides_records_its_calls(run: Any, tmp_path: Path) -> None:
    """Only what is asked of it is compared."""
    (tmp_path / "tides.ts").write_text(
        "import { Injectable } from '@angular/core';\n\n"
        "@Injectable()\nexport class Tides {\n  load(pier: string): void {}\n}\n"
    )
    text = """import { Component, inject } from '@angular/core';
import { Tides } from './tides';

@Component({ selector: 'gf-tide', template: `<button type="button" (click)="ask()">Ask</button>` })
export class TideComponent {
  private readonly tides = inject(Tides);

  ask(): void {
    this.tides.load('Holm');
  }
}
"""
    (tmp_path / "tide.ts").write_text(text, "utf-8")
    for name, changed, expected in (("a", "Holm", "same"), ("b", "Skail", "differs")):
        (tmp_path / f"tide.{name}.ts").write_text(text.replace("Holm", changed), "utf-8")
        done = run("verify", "tide.ts", f"tide.{name}.ts", "--most-trials", "6", "--json")
        told = json.loads(done.stdout)
        assert told["verdict"] == expected, told
