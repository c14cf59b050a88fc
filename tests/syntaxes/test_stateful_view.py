"""Components whose state changes by what a user does become views that keep it between requests."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

TOLD = {"rows": [{"id": 1, "name": "Holm"}], "least": 1, "name": "Holm"}
SCRIPT = """<script>
export default {
  name: 'Berth',
  props: {
    rows: { type: Array, default: () => [] }, least: { type: Number, default: 1 },
    name: { type: String, required: true },
  },
  data() { return { at: 0, text: '', open: false, list: [], from: this.least }; },%s
};
</script>
"""


def carried(folder: Path, template: str, more: str = "") -> Result:
    text = f"<template>{template}</template>\n{SCRIPT % more}"
    (folder / "Berth.vue").write_text(text, "utf-8")
    request = Request(folder / "Berth.vue", "Berth.vue", "stateful-view", told=json.dumps(TOLD))
    [result] = carry_file(request)
    return result


METHODS = """
  methods: {
    add() { this.at++; },
    show(one) { this.at = one; },
    pick(one) { this.text = one; },
    reset() { this.at = this.least; this.list = []; },
  },"""
VIEWS = [
    ('<p><b @click="add">x</b></p>', '<p><b wire:click="add">x</b></p>'),
    ('<p><b @click="show(3)">x</b></p>', '<p><b wire:click="show(3)">x</b></p>'),
    ('<p><b @click="pick(name)">x</b></p>', '<p><b wire:click="pick(@js($name))">x</b></p>'),
    ('<p><b @click="reset">x</b></p>', '<p><b wire:click="ownReset">x</b></p>'),
    ('<p><b @click="text = \'\'">x</b></p>', "<p><b wire:click=\"$set('text', '')\">x</b></p>"),
    ('<p><b @click="open = !open">x</b></p>', "<p><b wire:click=\"$toggle('open')\">x</b></p>"),
    ('<p><b @click="at++">x</b></p>', '<p><b wire:click="increaseAt">x</b></p>'),
    ('<p><b @click="at = at * 2; text = name">x</b></p>', '<p><b wire:click="changeAt">x</b></p>'),
    ('<p><b @click="at--">x</b><i @click="at--">y</i></p>',
     '<p><b wire:click="decreaseAt">x</b><i wire:click="decreaseAt">y</i></p>'),
    ('<form @submit.prevent="add"><b>x</b></form>', '<form wire:submit="add"><b>x</b></form>'),
    ('<p><input v-model="text"></p>', '<p><input wire:model.live="text"></p>'),
    ('<p><input v-model.lazy="text"></p>', '<p><input wire:model.blur="text"></p>'),
    ('<ul><li v-for="row in rows" :key="row.id" @click="show(row.id)">{{ row.name }}</li></ul>',
     "<ul>\n  @foreach ($rows as $row)\n    <li wire:key=\"{{ $row['id'] }}\" "
     "wire:click=\"show(@js($row['id']))\">{{ $row['name'] }}</li>\n  @endforeach\n</ul>"),
]  # fmt: skip


@pytest.mark.parametrize(("template", "view"), VIEWS)
def test_a_view(tmp_path: Path, template: str, view: str) -> None:
    result = carried(tmp_path, template, METHODS)
    assert result.status == "clean", result.findings
    assert result.files[0].text == f"{view}\n"


ACTIONS = [
    ("go() { this.at++; }", "$this->at++;"),
    ("go() { this.at += 2; this.text += 'x'; }", "$this->at += 2;\n        $this->text .= 'x';"),
    ("go() { if (this.at > 3) { this.at = 0; } else this.at--; }",
     "if ($this->at > 3) {\n            $this->at = 0;\n        } else {\n"
     "            $this->at--;\n        }"),
    ("go() { if (this.open) return; this.open = true; }",
     "if ($this->open) {\n            return;\n        }\n        $this->open = true;"),
    ("go() { const next = this.at + 1; this.at = next; }",
     "$next = $this->at + 1;\n        $this->at = $next;"),
    ("go() { this.list.push(this.text.trim()); }", "$this->list[] = Js::trim($this->text);"),
    ("go() { this.other(); }, other() { this.at = 1; }", "$this->other();"),
    ("go() { // ends ? > not\n this.at = 1; }", "// ends ? > not\n        $this->at = 1;"),
    ("go() { // a note\n this.at = 1; }", "// a note\n        $this->at = 1;"),
]  # fmt: skip


@pytest.mark.parametrize(("method", "body"), ACTIONS)
def test_an_action(tmp_path: Path, method: str, body: str) -> None:
    more = f" methods: {{ {method} }},"
    result = carried(tmp_path, '<p><b @click="go">x</b></p>', more)
    assert result.status == "clean", result.findings
    script = result.files[1].text
    head, _, rest = script.partition("    public function go()")
    assert f"{{\n        {body}\n    }}" in rest
    assert "    public int $at = 0;\n" in head
    assert "    public int $from;\n" in head
    assert "        $this->from = $this->least;\n" in head


def test_statements_of_listeners(tmp_path: Path) -> None:
    more = " methods: { changeAt() { this.at = 9; } },"
    template = '<p><b @click="changeAt">x</b><i @click="at += least; open = at > 3">y</i></p>'
    result = carried(tmp_path, template, more)
    assert result.status == "clean", result.findings
    assert '<i wire:click="changeAt2">' in result.files[0].text
    body = "        $this->at += $this->least;\n        $this->open = $this->at > 3;\n"
    assert f"    public function changeAt2(): void\n    {{\n{body}    }}\n" in result.files[1].text


def test_a_computed_value_of_statements(tmp_path: Path) -> None:
    more = (
        " computed: { found() { const wanted = this.text.toLowerCase();"
        " return this.rows.filter((row) => row.name.includes(wanted)); } },"
    )
    template = (
        '<p><input v-model="text"><b v-for="row in found" :key="row.id">{{ row.name }}</b></p>'
    )
    result = carried(tmp_path, template, more)
    assert result.status == "clean", result.findings
    script = result.files[1].text
    assert "    #[Computed]\n    public function found(): array\n" in script
    assert "        $wanted = mb_strtolower($this->text);\n        return array_values(" in script
    assert "@foreach ($this->found as $row)" in result.files[0].text


REFUSED = [
    ("<p>{{ name }}</p>", "", "keeps-no-state"),
    ('<p @click="add">x</p><p>y</p>', METHODS, "view-markup-unread"),
    ('<p @click="add"><slot /></p>', METHODS, "view-markup-unread"),
    ('<p @mouseover="add">x</p>', METHODS, "runs-in-browser"),
    ('<p><input v-model.number="at"></p>', "", "runs-in-browser"),
    ('<p @click="add">x</p>', METHODS + " mounted() { this.at = 1; },", "runs-in-browser"),
    ('<p @click="add">x</p>', METHODS + " watch: { at() { this.text = ''; } },", "runs-in-browser"),
    ('<p @click="go">x</p>', " methods: { go() { this.$emit('gone'); } },", "runs-in-browser"),
    ('<p @click="go">x</p>', " methods: { go() { alert(1); } },", "not-said-in-view"),
    ('<p @click="go">x</p>', " methods: { go() { this.text++; } },", "not-said-in-view"),
    ('<p><b v-for="one in rows" @click="at += one.id">x</b></p>', "", "not-said-in-view"),
    (
        '<p @click="go">x</p>',
        " methods: { go() { // ends ?> here\n this.at = 1; } },",
        "not-said-in-view",
    ),
    (
        '<p @click="go">x</p>',
        " methods: { go() { for (;;) { this.at = 1; } } },",
        "not-said-in-view",
    ),
    ('<p @click="go">x</p>', " methods: { async go() { this.at = 1; } },", "runs-in-browser"),
    (
        '<p @click="go">x</p>',
        " methods: { go(event) { this.text = event.key; } },",
        "not-said-in-view",
    ),
]


@pytest.mark.parametrize(("template", "more", "rule"), REFUSED)
def test_what_is_refused(tmp_path: Path, template: str, more: str, rule: str) -> None:
    result = carried(tmp_path, template, more)
    assert result.status == "refused"
    assert [one.rule for one in result.findings] == [rule]


def test_what_goes_to_the_browser_unread_is_named(tmp_path: Path) -> None:
    template = '<p><b @click="add">x</b>{{ at }}<i v-for="row in rows">{{ row.name }}</i></p>'
    result = carried(tmp_path, template, METHODS)
    [note] = [one.message for one in result.findings if one.rule == "sent-to-browser"]
    assert "$name" in note
    assert "id of $rows" in note
    assert "$at" not in note
