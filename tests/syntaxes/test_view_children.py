"""Child components of single files that become views: their views are used by tags."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

ROW = """<template>
  <tr :class="{ off: cut }"><th>{{ name }}</th><td><slot>{{ price }}</slot></td></tr>
</template>

<script>
export default {
  name: 'FareRow',
  props: { name: { type: String, required: true }, price: { type: Number, default: 0 }, cut: Boolean },
};
</script>
"""
BOX = """<template>
  <div class="note">
    <h3>{{ title }}</h3>
    <slot />
    <footer v-if="$slots.foot"><slot name="foot" /></footer>
  </div>
</template>

<script>
export default { name: 'NoteBox', props: { title: { type: String, default: 'Note' } } };
</script>
"""
PAGE = """<template>
  <section>
    <table>
      <tbody>
        <FareRow v-for="fare in fares" :key="fare.id" :name="fare.name" :price="fare.price" class="row" />
        <fare-row name="Dog" cut><em>free</em></fare-row>
      </tbody>
    </table>
    <NoteBox :title="`Fares ${season}`">
      <p>{{ fares.length }} fares</p>
      <template #foot>Ask on board.</template>
    </NoteBox>
  </section>
</template>

<script>
import FareRow from './FareRow.vue';
import NoteBox from './NoteBox.vue';

export default {
  name: 'FarePage',
  components: { FareRow, NoteBox },
  props: { fares: { type: Array, default: () => [] }, season: { type: String, default: 'summer' } },
};
</script>
"""
TRIALS = """trials:
  - name: two
    inputs: { fares: [{ id: 1, name: Adult, price: 12.5 }, { id: 2, name: Child, price: 4 }] }
"""
FILES = {
    "FareRow.vue": ROW,
    "NoteBox.vue": BOX,
    "FarePage.vue": PAGE,
    "FarePage.trials.yaml": TRIALS,
}


def write(folder: Path, **others: str) -> None:
    for name, text in {**FILES, **{f"{key}.vue": one for key, one in others.items()}}.items():
        (folder / name).write_text(text, "utf-8")


def carried(run: Any, *names: str) -> dict[str, Any]:
    done = run("carry", *names, "--to", "server-view", "--json")
    return {one["component"]: one for one in json.loads(done.stdout)["results"]}


def test_children_are_used_by_their_tags(run: Any, tmp_path: Path) -> None:
    write(tmp_path)
    found = carried(run, "FarePage.vue", "FareRow.vue", "NoteBox.vue")
    assert {one["status"] for one in found.values()} == {"clean"}
    view = found["FarePage"]["files"][0]["text"]
    assert (
        "      @foreach ($fares as $fare)\n"
        '        <x-fare-row :name="$fare[\'name\']" :price="$fare[\'price\']" class="row" />\n'
        "      @endforeach\n"
    ) in view
    assert '<x-fare-row name="Dog" :cut="true">\n        <em>free</em>\n      </x-fare-row>' in view
    assert '<x-slot name="foot">Ask on board.</x-slot>' in view


def test_a_child_that_is_not_carried_holds_its_parent_back(run: Any, tmp_path: Path) -> None:
    write(tmp_path)
    found = carried(run, "FarePage.vue")
    assert [one["rule"] for one in found["FarePage"]["findings"]] == ["child-not-carried"]


@pytest.mark.parametrize(
    ("old", "new", "rule"),
    [
        ('class="row" />', "@click=\"$emit('pick')\" />", "runs-in-browser"),
        ("#foot>", '#foot="{ at }">', "view-markup-unread"),
        (':price="fare.price"', ':price="fares[0]?.price"', "not-said-in-view"),
        ("export default {", "const RATE = 2;\n\nexport default {", "not-said-in-view"),
    ],
)
def test_other_uses_are_refused(run: Any, tmp_path: Path, old: str, new: str, rule: str) -> None:
    write(tmp_path, FarePage=PAGE.replace(old, new))
    found = carried(run, "FarePage.vue", "FareRow.vue", "NoteBox.vue")
    assert found["FarePage"]["status"] == "refused"
    assert found["FarePage"]["findings"][0]["rule"] == rule


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_parent_and_children_are_rendered_together(run: Any, tmp_path: Path) -> None:
    write(tmp_path)
    names = ("FarePage.vue", "FareRow.vue", "NoteBox.vue")
    run("carry", *names, "--to", "server-view", "--write")
    done = run(
        "verify", "FarePage.vue", "fare-page.blade.php", "--search", "--budget", "5", "--json"
    )
    assert json.loads(done.stdout)["verdict"] == "same", done.stdout[-1500:]
    row = tmp_path / "fare-row.blade.php"
    row.write_text(
        row.read_text("utf-8").replace("<th>", "<td>").replace("</th>", "</td>"), "utf-8"
    )
    done = run("verify", "FarePage.vue", "fare-page.blade.php", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"
