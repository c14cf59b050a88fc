"""A project of decorated classes that modules declare: children are carried along, and modules follow."""

from __future__ import annotations

import json
import shutil
import subprocess
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.declarations import imported_instead

HERE = Path(__file__).parent / "berths"
PARTS = ("berth-list", "berth-row", "pier-name")
ROW = """<script>
export default {
  name: 'BerthRow', props: { name: String, chosen: Boolean }, emits: ['close'],
};
</script>
<template>
  <li :class="{ on: chosen }"><slot name="mark" /> {{ name }}
    <button @click="$emit('close', name)">x</button></li>
</template>
"""
LIST = """<script>
import BerthRow from './BerthRow.vue';
export default {
  name: 'BerthList', components: { BerthRow },
  data() { return { names: ['Holm', 'Skail'], last: '' }; },
};
</script>
<template>
  <ul>
    <berth-row v-for="one in names" :key="one" :name="one" :chosen="one === last" @close="last = $event">
      <template #mark><i>*</i></template>
    </berth-row>
  </ul>
</template>
"""


@pytest.fixture
def berths(tmp_path: Path) -> Path:
    shutil.copytree(HERE, tmp_path / "app")
    return tmp_path / "app"


def told(done: subprocess.CompletedProcess[str]) -> dict[str, Any]:
    assert done.stdout, done.stderr
    found: dict[str, Any] = json.loads(done.stdout)
    return found


def test_children_are_imported_from_what_they_become(run: Any, berths: Path) -> None:
    done = run("carry", "app", "--to", "single-file-flat", "--write")
    assert "3 clean" in done.stdout, done.stdout
    text = (berths / "berth-list.component.flat.vue").read_text("utf-8")
    assert "import BerthRow from './berth-row.component.flat.vue';" in text
    assert '<PierName class="title" :name="pier" @nameChange="pier = $event" />' in text
    assert "<template #mark><i mark>*</i></template>" in text


def test_a_child_that_is_not_carried_is_waited_for(run: Any, berths: Path) -> None:
    done = run("carry", "app/berth-list.component.ts", "--to", "jsx-function")
    assert done.returncode == 1
    assert "child-not-carried" in done.stdout


@pytest.mark.parametrize(
    ("use", "what"),
    [
        ('<app-pier-name (moved)="last = $event" />', "(moved) of PierName, which is no output"),
        ('<app-pier-name [title]="last" />', "[title] of PierName, which is no input"),
        ("<app-pier-name name />", "name of PierName, which gives an empty text"),
        ("<app-pier-card />", "<app-pier-card>"),
        (
            '<app-pier-name #one />{{ one.name }}<b (click)="one.change()"></b>',
            "#one of a component",
        ),
    ],
)
def test_uses_of_a_child_that_are_not_read(run: Any, berths: Path, use: str, what: str) -> None:
    place = berths / "berth-list.component.ts"
    text = place.read_text("utf-8")
    kept = '<app-pier-name class="title" [(name)]="pier" />'
    assert kept in text
    place.write_text(text.replace(kept, use), "utf-8")
    done = run("carry", "app", "--to", "single-file-flat", "--json")
    refused = [one for one in told(done)["results"] if one["status"] == "refused"]
    assert what in json.dumps([one["findings"] for one in refused]).replace('\\"', '"')


def test_a_declared_class_stands_alone(run: Any, berths: Path) -> None:
    run("carry", "app", "--to", "decorated-class", "--write")
    text = (berths / "berth-list.component.decorated.ts").read_text("utf-8")
    assert "  imports: [BerthRowComponent, PierNameComponent],\n" in text
    assert "import { BerthRowComponent } from './berth-row.component.decorated';" in text
    assert "standalone" not in text
    done = run("switch", "app/berth-row.component.ts", "--write", "--no-users")
    assert done.returncode == 0, done.stderr
    module = (berths / "berths.module.ts").read_text("utf-8")
    assert "  imports: [SharedModule, BerthRowComponent],\n" in module
    assert "  declarations: [BerthListComponent],\n" in module
    for name in ("berth-list", "pier-name"):
        run("switch", f"app/{name}.component.ts", "--write", "--no-users", "--force")
    for name in PARTS:
        done = run("retire", f"app/{name}.component.ts", "--write", "--force")
        assert done.returncode == 0, done.stderr
    left = sorted(one.name for one in berths.glob("*.ts"))
    assert left == sorted(
        [*(f"{n}.component.ts" for n in PARTS), "berths.module.ts", "shared.module.ts"]
    )
    assert "./berth-row.component'" in (berths / "berth-list.component.ts").read_text("utf-8")


def test_a_class_whose_children_stay_declared_stays_too(run: Any, berths: Path) -> None:
    done = run("carry", "app/berth-list.component.ts", "--to", "decorated-class", "--json")
    [result] = told(done)["results"]
    assert [one["rule"] for one in result["findings"]] == ["class-stays-declared"]
    assert "standalone: false" in result["files"][0]["text"]


def test_templates_and_styles_go_with_their_class(run: Any, tmp_path: Path) -> None:
    (tmp_path / "tide.component.html").write_text('<p *ngIf="high">high</p>\n', "utf-8")
    (tmp_path / "tide.component.css").write_text("p { color: navy; }\n", "utf-8")
    (tmp_path / "tide.component.ts").write_text(
        "import { Component, Input } from '@angular/core';\nimport { NgIf } from '@angular/common';\n\n"
        "@Component({\n  selector: 'gf-tide',\n  standalone: true,\n  imports: [NgIf],\n"
        "  templateUrl: './tide.component.html',\n  styleUrl: './tide.component.css',\n})\n"
        "export class TideComponent {\n  @Input() high = false;\n}\n",
        "utf-8",
    )  # fmt: skip
    run("carry", "tide.component.ts", "--to", "decorated-class", "--write")
    assert (tmp_path / "tide.component.decorated.html").is_file()
    done = run("retire", "tide.component.ts", "--write", "--force")
    assert done.returncode == 0, done.stderr
    names = sorted(one.name for one in tmp_path.glob("tide.*"))
    assert names == ["tide.component.css", "tide.component.html", "tide.component.ts"]
    assert "@if (high())" in (tmp_path / "tide.component.html").read_text("utf-8")
    assert "'./tide.component.html'" in (tmp_path / "tide.component.ts").read_text("utf-8")


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("{ declarations: [A, B], imports: [C] }", "{ declarations: [B], imports: [C, A] }"),
        ("{ declarations: [A], imports: [] }", "{ imports: [A] }"),
        ("{ imports: [C], declarations: [A] }", "{ imports: [C, A] }"),
        ("{ declarations: [A] }", "{ imports: [A] }"),
        ("{ declarations: [B, A] }", "{ imports: [A], declarations: [B] }"),
        ("{ declarations: [B] }", "{ declarations: [B] }"),
    ],
)
def test_lists_of_declarations(before: str, after: str) -> None:
    source = SourceText("m.ts", f"const one = {before};\n".encode())
    data = source.data
    for edit in sorted(imported_instead(Tree(source), {"A"}), key=lambda one: -one.start):
        data = data[: edit.start] + edit.text.encode() + data[edit.end :]
    assert data.decode() == f"const one = {after};\n"


@pytest.mark.slow
@pytest.mark.parametrize("target", ["single-file-flat", "jsx-function", "decorated-class"])
def test_classes_with_children_are_the_same(run: Any, berths: Path, target: str) -> None:
    done = run("carry", "app", "--to", target, "--verify", "--budget", "4", "--json")
    verdicts = [one["verification"]["verdict"] for one in told(done)["results"]]
    assert verdicts == ["same"] * 3, done.stdout[-3000:]


@pytest.mark.slow
def test_single_files_with_children_become_classes(run: Any, tmp_path: Path) -> None:
    (tmp_path / "BerthRow.vue").write_text(ROW, "utf-8")
    (tmp_path / "BerthList.vue").write_text(LIST, "utf-8")
    done = run("carry", "BerthRow.vue", "BerthList.vue", "--to", "decorated-class", "--verify",
               "--budget", "4", "--json")  # fmt: skip
    verdicts = [one["verification"]["verdict"] for one in told(done)["results"]]
    assert verdicts == ["same"] * 2, done.stdout[-3000:]
