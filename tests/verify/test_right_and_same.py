"""What is right and was once said to differ: it is the same, or would be told apart only if it were wrong."""

import json
from pathlib import Path

import pytest

from clean_carry.verify.normalise import Normaliser
from clean_carry.verify.passed_handlers import never_called
from clean_carry.verify.reach import Reach
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.values import variants
from clean_carry.verify.search.walks.steps import possible

DRAFT = """import React from 'react';

export default class CargoNote extends React.Component {
  state = { draft: this.props.value || '' };
  componentDidMount() { this.timer = setInterval(this.save, 5000); }
  componentDidUpdate(before) { if (before.value !== this.props.value) this.setState({ draft: this.props.value || '' }); }
  componentWillUnmount() { clearInterval(this.timer); this.save(); }
  save = () => { if (this.state.draft !== (this.props.value || '')) this.props.onSave && this.props.onSave(this.state.draft); };
  render() { return <textarea value={this.state.draft} onChange={(e) => this.setState({ draft: e.target.value })} onBlur={this.save} />; }
}
"""
SEARCH = """<template><div><input v-model="typed"><ul><li v-for="one in found" :key="one">{{ one }}</li></ul>{{ asked }}</div></template>
<script>
export default {
  data: () => ({ typed: '', found: [], asked: 0 }),
  watch: {
    typed: 'search',
    found(now, before) { this.$emit('found', now.length, before.length); },
  },
  methods: {
    async search(typed) {
      this.asked++;
      if (typed.length < 2) return;
      const reply = await fetch(`/sailings?from=${typed}`);
      if (typed !== this.typed) return;
      this.found = (await reply.json()).map((one) => one.name);
    },
  },
  mounted() { this.stop = this.$watch(() => this.typed + this.asked, (text) => { if (text.length > 5) { this.stop(); this.$emit('long'); } }); },
};
</script>
"""
MONTH = """<template><p @click="next">{{ year }}-{{ month }}</p></template>
<script>
export default {
  props: { value: { type: String, default: '2026-03' } },
  data() { const [year, month] = this.value.split('-').map(Number); const first = year * 12 + month; return { year, month, first, steps: 0 }; },
  methods: { next() { this.steps++; this.month = this.month === 12 ? 1 : this.month + 1; if (this.month === 1) this.year++; this.$emit('change', this.first + this.steps); } },
};
</script>
"""


@pytest.mark.parametrize(
    ("name", "text", "target"),
    [
        ("CargoNote.jsx", DRAFT, "jsx-function"),
        ("Search.vue", SEARCH, "single-file-flat"),
        ("Month.vue", MONTH, "single-file-flat"),
    ],
)
def test_what_is_carried_right_is_the_same(run, tmp_path: Path, name, text, target) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / name).write_text(text)
    call = ("carry", name, "--to", target, "--verify", "--keep-anyway", "--write", "--json")
    done = run(*call, "--budget", "8")
    result = json.loads(done.stdout)["results"][0]
    assert (result["status"], result["verification"]["verdict"]) == ("clean", "same")


def test_what_a_component_sends_is_no_event_of_its_page() -> None:
    element = {
        "target": {"role": "list"},
        "tag": "ul",
        "kind": "ul",
        "values": [],
        "disabled": False,
    }
    page = {"elements": [{**element, "events": ["change", "found"]}], "outside": {}, "waits": []}
    told = [step["event"]["type"] for step in possible(page) if "event" in step]
    assert "found" in told
    told = [s["event"]["type"] for s in possible(page, (), {"found", "change"}) if "event" in s]
    assert "found" not in told
    # The page itself has such an event, and it comes up from inside.
    assert {"press": {"role": "list"}} in possible(page, (), {"found", "change"})
    dialog = {**element, "tag": "dialog", "events": ["close"]}
    told = [s for s in possible({**page, "elements": [dialog]}, (), {"close"}) if "event" in s]
    assert told


def test_a_declared_type_is_not_null_unless_the_code_asks() -> None:
    assert None not in variants("from", Shape({"string"}, declared=True))
    assert None in variants("from", Shape({"string"}, declared=True, tested=True))
    assert None in variants("from", Shape({"string"}, declared=True, nullable=True))
    assert None in variants("from", Shape())


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("Cannot read properties of undefined (reading 'name')", "Cannot read properties of undefined (reading 'at')"),
        ("failed: this.props.load is not a function", "failed: load is not a function"),
    ],
)  # fmt: skip
def test_the_engines_words_on_a_page_are_no_difference(old: str, new: str) -> None:
    one, other = Normaliser(), Normaliser()
    assert one.tree([["p", {}, None, [old]]]) == other.tree([["p", {}, None, [new]]])
    assert one.used["error-shown"] == 1
    assert one.tree([["p", {}, None, ["the berth is not free"]]]) == [["p", {}, None, ["the berth is not free"]]]  # fmt: skip


def test_a_bundled_name_in_an_error_is_no_difference() -> None:
    for old, new in (
        ("Error: Minified React error #152; visit a?args[]=Berth", "Error: Minified React error #152; visit a?args[]=Berth2"),
        ("ReferenceError: Cannot access 'Quay' before initialization", "ReferenceError: Cannot access 'Quay2' before initialization"),
    ):  # fmt: skip
        assert Normaliser().errors([old]) == Normaliser().errors([new])
    assert Normaliser().errors(["Error: no tide"]) != Normaliser().errors(["Error: no ferry"])


HANDED = """import Row from './Row';
export default function Rows({ rows }) {
  const pick = (row) => row;
  return <ul onClick={() => 1}>{rows.map((row) => <Row key={row} onPick={pick} />)}</ul>;
}
"""


def test_handlers_no_child_called_are_named() -> None:
    def reach(hit: bool) -> Reach:
        rows = (("f0", 2, "function", "Rows", True), ("f1", 3, "function", "pick", hit))
        return Reach.of(rows)

    assert never_called(HANDED, "Rows.jsx", reach(False)) == ("onPick of Row",)
    assert never_called(HANDED, "Rows.jsx", reach(True)) == ()
    single = (
        '<template><ul><Row @row-picked="pick" /></ul></template>\n<script>\nexport default {\n'
        "  methods: {\n    pick(row) { return row; },\n  },\n};\n</script>\n"
    )
    rows = (("f0", 5, "function", "pick", False),)
    assert never_called(single, "Rows.vue", Reach.of(rows)) == ("rowPicked of Row",)


ROW = """import React from 'react';
export default function Row({ name, onPick }) {
  return <li onClick={() => window.seldom && onPick(name)}>{name}</li>;
}
"""
ROWS = """import React from 'react';
import Row from './Row';
export default class Rows extends React.Component {
  state = { picked: '' };
  pick = (name) => { this.setState({ picked: name }); };
  render() { return <ul title={this.state.picked}><Row name="Holm" onPick={this.pick} /></ul>; }
}
"""


def test_children_call_the_handlers_they_are_given(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Row.jsx").write_text(ROW)
    (tmp_path / "Rows.jsx").write_text(ROWS)
    (tmp_path / "Other.jsx").write_text(ROWS.replace("picked: name", "picked: name + '!'"))
    assert run("verify", "Rows.jsx", "Rows.jsx", "--budget", "2").returncode == 0
    done = run("verify", "Rows.jsx", "Other.jsx", "--budget", "2", "--save", "found.trials.yaml")
    assert done.returncode == 1 and "child" in done.stdout and "calls onPick" in done.stdout
    done = run("verify", "Rows.jsx", "Other.jsx", "--trials", "found.trials.yaml")
    assert "Other.jsx: differs" in done.stdout
    # A trial in which no child calls anything proves too little.
    (tmp_path / "own.trials.yaml").write_text("trials:\n  - name: drawn\n")
    done = run(
        "verify", "Rows.jsx", "Rows.jsx", "--trials", "own.trials.yaml", "--least-reach", "1"
    )
    assert done.returncode == 1
    assert (
        "unproven: nothing differed, but no child ever called a handler that it was passed"
        in done.stdout
    )
    assert "never called by a child: onPick of Row" in done.stdout


def test_events_the_page_sends_later_come_at_the_same_place(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = (
        "import React, { Component } from 'react';\n"
        "export default class NoteField extends Component {\n"
        "  state = { marked: 0 };\n"
        "  componentDidMount() { document.addEventListener('selectionchange', this.mark); }\n"
        "  componentWillUnmount() { document.removeEventListener('selectionchange', this.mark); }\n"
        "  mark = () => this.setState((state) => ({ marked: state.marked + 1 }));\n"
        "  render() {\n"
        "    const { onSelect, onKeyDown } = this.props;\n"
        "    return <p>{this.state.marked}<input onSelect={onSelect} onKeyDown={onKeyDown}\n"
        "      onFocus={(event) => event.target.select()} /></p>;\n  }\n}\n"
    )
    (tmp_path / "NoteField.jsx").write_text(text)
    done = run("verify", "NoteField.jsx", "NoteField.jsx", "--budget", "3", "--json")
    found = json.loads(done.stdout)
    assert (found["verdict"], found["void"]) == ("same", 0), done.stdout
