"""Components that only show what they are given become views of a server."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

TOLD = {
    "rows": [{"id": 1, "name": "Holm", "cars": 3, "late": True}], "boat": {"name": "Gull"},
    "name": "Holm", "cars": 3, "fare": 12.5, "open": True, "note": "x", "tone": "calm",
}  # fmt: skip
SCRIPT = """<script>
export default {
  name: 'Berth',
  props: {
    rows: { type: Array, default: () => [] }, boat: Object, name: { type: String, default: 'Holm' },
    cars: { type: Number, required: true }, fare: { type: Number, default: 1.5 }, open: Boolean,
    note: String, tone: { type: String, default: 'calm' },
  },%s
};
</script>
"""


def carried(folder: Path, template: str, more: str = "") -> Result:
    text = f"<template>{template}</template>\n{SCRIPT % more}"
    (folder / "Berth.vue").write_text(text, "utf-8")
    request = Request(folder / "Berth.vue", "Berth.vue", "server-view", told=json.dumps(TOLD))
    [result] = carry_file(request)
    return result


# (template, view); each root takes the attributes that it is given.
VIEWS = [
    ("<p>{{ name }}</p>", "<p {{ $attributes }}>{{ $name }}</p>"),
    ('<p class="a" :class="{ on: open }">x</p>',
     "<p {{ $attributes->class(['a', 'on' => $open]) }}>x</p>"),
    ('<p><b :class="[tone, { on: open }]">x</b></p>',
     "<p {{ $attributes }}><b @class([$tone, 'on' => $open])>x</b></p>"),
    ('<p><b class="c" :title="name" :data-cars="cars">x</b></p>',
     '<p {{ $attributes }}><b class="c" title="{{ $name }}" data-cars="{{ $cars }}">x</b></p>'),
    ('<p><b :title="note">x</b></p>',
     '<p {{ $attributes }}><b @if ($note !== null)title="{{ $note }}"@endif>x</b></p>'),
    ('<p><button :disabled="!open">x</button></p>',
     "<p {{ $attributes }}><button {{ !$open ? 'disabled' : '' }}>x</button></p>"),
    ('<p><b v-if="open">a</b><i v-else-if="cars > 2">b</i><u v-else>c</u></p>',
     "<p {{ $attributes }}>@if ($open)<b>a</b>@elseif ($cars > 2)<i>b</i>@else<u>c</u>@endif</p>"),
    ('<p>late<b v-if="open">a</b>st</p>',
     "<p {{ $attributes }}>late{{ '' }}@if ($open)<b>a</b>@endif{{ '' }}st</p>"),
    ('<p>me@gull {{ name }}</p>', "<p {{ $attributes }}>me@@gull {{ $name }}</p>"),
    ('<ul><li v-for="row in rows" :key="row.id">{{ row.name }}</li></ul>',
     "<ul {{ $attributes }}>\n  @foreach ($rows as $row)\n    <li>{{ $row['name'] }}</li>\n"
     "  @endforeach\n</ul>"),
    ('<p><b v-for="(row, at) in rows" :key="at">{{ at + 1 }}</b></p>',
     "<p {{ $attributes }}>@foreach ($rows as $at => $row)<b>{{ $at + 1 }}</b>@endforeach</p>"),
    ('<p><b v-for="n in 3" :key="n">{{ n }}</b></p>',
     "<p {{ $attributes }}>@for ($n = 1; $n <= 3; $n++)<b>{{ $n }}</b>@endfor</p>"),
    ('<p v-if="boat">{{ boat.name }}</p><p v-else>none</p>',
     "@if ($boat !== null)\n  <p>{{ $boat['name'] }}</p>\n@else\n  <p>none</p>\n@endif"),
    ('<div><slot /></div>', "<div {{ $attributes }}>{{ $slot }}</div>"),
    ('<div><slot name="head">none</slot></div>',
     "<div {{ $attributes }}>@if (!isset($head)){{ '' }}none{{ '' }}@else{{ $head }}@endif</div>"),
    ('<div><b v-if="$slots.head">x</b></div>',
     "<div {{ $attributes }}>@if (($head ?? null) !== null)<b>x</b>@endif</div>"),
    ('<div><p v-html="name"></p></div>', "<div {{ $attributes }}>\n  <p>{!! $name !!}</p>\n</div>"),
    ('<div><p v-show="open">x</p></div>',
     "<div {{ $attributes }}>\n  <p style=\"{{ $open ? '' : 'display: none' }}\">x</p>\n</div>"),
    ('<div><p :style="{ width: cars * 2 + \'px\' }">x</p></div>',
     "<div {{ $attributes }}>\n  <p style=\"width: {{ Js::num($cars * 2) . 'px' }};\">x</p>\n</div>"),
    ('<p><!-- a note -->{{ name }}</p>', "<p {{ $attributes }}>{{-- a note --}}{{ $name }}</p>"),
]  # fmt: skip


@pytest.mark.parametrize(("template", "view"), VIEWS)
def test_a_view(tmp_path: Path, template: str, view: str) -> None:
    result = carried(tmp_path, template)
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert text.removeprefix("@php use App\\Support\\Js; @endphp\n") == f"{view}\n"


REFUSED = [
    ('<button @click="open = 1">x</button>', "", "input-written"),
    ('<button @click="$emit(1)">x</button>', "", ""),
    (
        "<p>{{ at }}</p>",
        " data() { return { at: 1 }; }, mounted() { this.at = 2; },",
        "runs-in-browser",
    ),
    ("<p>{{ name }}</p>", " watch: { name() { console.log(1); } },", "runs-in-browser"),
    ("<p>{{ name }}</p>", " mounted() { console.log(1); },", "runs-in-browser"),
    ("<p>{{ new Date(name) }}</p>", "", "not-said-in-view"),
    ("<p>{{ name.match(/a/) }}</p>", "", "not-said-in-view"),
    ("<p>{{ boat.name }}</p>", "", "not-said-in-view"),
    ("<p>{{ rows }}</p>", "", "not-said-in-view"),
    ("<p>{{ sum }}</p>", " computed: { sum() { let n = 0; return n; } },", "not-said-in-view"),
    ('<component :is="name" />', "", "view-markup-unread"),
    ('<p><slot :row="name" /></p>', "", "view-markup-unread"),
    ("<pre>a  b</pre>", "", "view-markup-unread"),
    ('<p v-bind="boat">x</p>', "", "view-markup-unread"),
    ('<p><input v-model="name"></p>', "", ""),
]


@pytest.mark.parametrize(("template", "more", "rule"), REFUSED)
def test_what_is_refused(tmp_path: Path, template: str, more: str, rule: str) -> None:
    result = carried(tmp_path, template, more)
    assert result.status == "refused"
    assert not result.files
    assert not rule or [one.rule for one in result.findings] == [rule]


def test_a_class(tmp_path: Path) -> None:
    more = " computed: { sum() { return this.rows.reduce((n, row) => n + row.cars, 0); } },"
    result = carried(tmp_path, "<p>{{ sum }} {{ fare }}</p>", more)
    view, script, helper = result.files
    assert view.path == "berth.blade.php"
    assert "{{ $sum() }} {{ Js::num($fare) }}" in view.text
    assert script.path == "Berth.php"
    assert "        public int $cars,\n        public array $rows = [],\n" in script.text
    assert "        public ?string $note = null,\n" in script.text
    assert (
        "    public function sum(): int\n    {\n        return array_reduce($this->rows, "
        in script.text
    )
    assert "return view('components.berth');" in script.text
    assert helper.path == "Js.php"
    assert [one.rule for one in result.findings] == ["types-from-trials"]


CARD = """<template>
  <article class="card" :class="{ late: minutes > 0 }">
    <h3>{{ name }} <small v-if="boat">{{ boat.name }}</small></h3>
    <p v-if="minutes > 0">{{ minutes }} minutes late</p>
    <p v-else>On time</p>
    <ul>
      <li v-for="(stop, at) in stops" :key="stop.id">
        {{ at + 1 }}. {{ stop.name }}<b v-if="stop.ferry"> ferry</b>
      </li>
    </ul>
    <p>{{ stops.length }} stops, {{ total.toFixed(2) }}</p>
    <footer><slot name="foot">none</slot></footer>
    <slot />
  </article>
</template>
<script>
export default {
  props: {
    name: { type: String, default: 'Holm' }, minutes: { type: Number, default: 0 }, boat: Object,
    stops: { type: Array, default: () => [] },
  },
  computed: { total() { return this.stops.reduce((sum, stop) => sum + stop.fare, 0); } },
};
</script>
"""
TRIALS = """trials:
  - name: two stops
    inputs:
      boat: { name: Gull }
      minutes: 4
      stops:
        - { id: 1, name: Holm, fare: 12.5, ferry: true }
        - { id: 2, name: Skail, fare: 0.1, ferry: false }
"""


@pytest.mark.slow
@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_it_renders_the_same_on_the_server(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Card.vue").write_text(CARD, "utf-8")
    (tmp_path / "Card.trials.yaml").write_text(TRIALS, "utf-8")
    done = run("carry", "Card.vue", "--to", "server-view", "--write")
    assert done.returncode == 0, done.stdout
    found = run("verify", "Card.vue", "card.blade.php", "--search", "--budget", "5", "--json")
    result = json.loads(found.stdout)
    assert result["verdict"] == "same", found.stdout[-2000:]
    assert result["tried"] > 2
    place = tmp_path / "card.blade.php"
    place.write_text(place.read_text("utf-8").replace("$at + 1", "$at"), "utf-8")
    found = run("verify", "Card.vue", "card.blade.php", "--search", "--budget", "5", "--json")
    assert json.loads(found.stdout)["verdict"] == "differs"


def test_inputs_at_the_root_are_no_attributes_of_the_parent(tmp_path: Path) -> None:
    """The engine trims what it merges with a parent's attributes: inputs are never among those."""
    own = carried(tmp_path, '<a :name="name" class="link">x</a>')
    assert own.files[0].text == "<a name=\"{{ $name }}\" {{ $attributes->class(['link']) }}>x</a>\n"
    assert "value-trimmed" not in [one.rule for one in own.findings]
    merged = carried(tmp_path, '<a :title="name" class="link">x</a>')
    assert "->merge(['title' => $name])" in merged.files[0].text
    assert "value-trimmed" in [one.rule for one in merged.findings]


def test_content_is_asked_for_by_the_name_of_its_slot(tmp_path: Path) -> None:
    template = '<p><b v-if="name || $slots.default"><slot>{{ name }}</slot></b></p>'
    view = carried(tmp_path, template).files[0].text
    assert "@if ($name !== '' || ($slot->isEmpty() ? null : $slot) !== null)" in view
