"""Trials that find themselves: what is read off the code, and what is made of it. No renderer here."""

from __future__ import annotations

import json
from itertools import islice
from pathlib import Path
from random import Random
from typing import Any

import pytest

from clean_carry.component.errors import InputError
from clean_carry.project.settings import Settings, settings_for
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.values.values import (
    NOT_A_NUMBER,
    function_plans,
    reply_plans,
    variants,
)
from clean_carry.verify.search.walks.situations import Situations
from clean_carry.verify.search.walks.steps import choose, following, key_of, possible
from clean_carry.verify.store import Store
from clean_carry.verify.trials import Trial, load, save


def values_of(text: str, name: str = "Berth.jsx") -> Situations:
    return Situations(read_inputs(text, name))


def test_declared_types_become_values() -> None:
    found = values_of("""
      const KINDS = ['open', 'full'];
      class Berth extends Component { render() { return <p/>; } }
      Berth.propTypes = { a: T.string.isRequired, kind: T.oneOf(KINDS), onPick: T.func, children: T.node,
        rows: T.arrayOf(T.shape({ e: T.number })), on: T.bool, size: T.oneOfType([T.string, T.number]) };
      Berth.defaultProps = { on: true };
    """)
    full = found.full()
    assert full.inputs["kind"] == "open"
    assert [value for value in found.values["kind"] if value is not None] == [
        "open",
        "full",
        {"$": "undefined"},
    ]
    assert full.inputs["rows"] == [{"e": 4}, {"e": 5}]
    assert full.inputs["on"] is True and found.off().inputs["on"] is False
    assert list(full.functions) == ["onPick"] and list(full.slots) == ["children"]
    assert NOT_A_NUMBER in found.values["size"]
    assert None not in found.values["a"]


def test_typescript_types_become_values() -> None:
    found = values_of(
        """
      interface Row { id: string; free?: boolean }
      type Kind = 'a' | 'b';
      export interface BerthProps { rows: ReadonlyArray<Row>; kind?: Kind; onPick?: (id: string) => void;
        label: ReactNode; size: number | null }
      export function Berth({ rows, kind = 'a', onPick, label, size }: BerthProps) { return <p/>; }
    """,
        "Berth.tsx",
    )
    full = found.full()
    assert full.inputs["rows"] == [{"id": "id-1", "free": True}, {"id": "id-2", "free": False}]
    assert full.inputs["kind"] == "a" and full.inputs["size"] == 3
    assert list(full.functions) == ["onPick"] and "label" in full.slots


USES: list[tuple[str, str, Any]] = [
    ("rows.map((r) => r.name.trim())", "rows", [{"name": "name Holm"}, {"name": "name Skail"}]),
    ("rows.slice(0, 2).map((r) => line(r))", "rows", [{"at": "at Holm"}, {"at": "at Skail"}]),
    ("kind === 'open' ? 1 : 2", "kind", "open"),
    ("WORDS[kind]", "kind", "few"),
    ("kind > 3 ? 1 : 2", "kind", 2),
    ("kind.toFixed(1)", "kind", 3),
    ("kind.getTime()", "kind", {"$": "date", "time": 1_704_200_000_000}),
    ("kind && 1", "kind", True),
]


@pytest.mark.parametrize(("use", "name", "value"), USES)
def test_uses_become_values(use: str, name: str, value: Any) -> None:
    found = values_of(f"""
      const WORDS = {{ few: 1, many: 2 }};
      const line = (row) => row.at.trim();
      export default function Berth(props) {{ const {{ {name} }} = props; return <p>{{{use}}}</p>; }}
    """)
    assert found.full().inputs == {name: value}


def test_what_is_passed_on_is_given_too() -> None:
    found = values_of(
        "export default function Berth({ a, ...rest }) { return <p {...rest}>{a}</p>; }"
    )
    first = found.openings()[0]
    assert first.inputs["title"] == "given" and "onClick" in first.functions
    assert "title" not in found.sparse().inputs
    kept = values_of("export default function Berth({ a }) { return <p>{a}</p>; }")
    assert "title" not in kept.openings()[0].inputs


def test_inputs_of_a_single_file() -> None:
    found = read_inputs(
        """<template><p @click="$emit('gone')">{{ limit * 2 }}<slot name="foot"/><slot/></p></template>
        <script>export default { props: { limit: { type: Number, default: 3 }, on: Boolean },
        emits: ['gone'], data() { return {}; } };</script>""",
        "Berth.vue",
    )
    assert (found.slots, found.events) == (["foot", "default"], ["gone"])
    assert Situations(found).full().inputs == {"limit": 3, "on": True}


def test_the_edges_of_each_kind_are_tried() -> None:
    found = values_of("""export default function Berth({ text, rows, n }) {
      return <p title={text.trim()}>{rows.map((r) => r)}{n - 1}</p>; }""")
    text, rows, n = (found.values[name] for name in ("text", "rows", "n"))
    assert "" in text and any("<b>" in str(v) for v in text) and any("מ" in str(v) for v in text)
    assert [len(v) for v in rows if isinstance(v, list)][:3] == [0, 1, 3]
    assert {0, -1, 2_147_483_648} <= {v for v in n if isinstance(v, int)} and NOT_A_NUMBER in n
    assert None in text and None in rows


def test_functions_fail_and_answer_late() -> None:
    found = values_of("export default function Berth({ onPick }) { onPick(); return null; }")
    plans = found.functions["onPick"]
    assert {"throws", "resolves", "rejects", "returns"} <= {key for plan in plans for key in plan}
    assert function_plans(read_inputs("", "x.jsx").reply or _shape())[0] == {}


def _shape() -> Any:
    from clean_carry.verify.search.values.shape import Shape

    return Shape()


def test_replies_have_the_fields_the_code_takes() -> None:
    inputs = read_inputs(
        """export default class Berth extends Component {
      async load() { const reply = await fetch('/a'); const { rows } = await reply.json(); this.setState({ rows }); }
      render() { return this.state.rows.map((row) => <li key={row.id}>{row.at}</li>); } }""",
        "Berth.jsx",
    )
    plans = reply_plans(inputs.reply)
    assert plans[0][0]["json"] == {
        "rows": [{"id": "id-1", "at": "at Holm"}, {"id": "id-2", "at": "at Skail"}]
    }
    assert any(plan[0].get("fail") for plan in plans)
    assert any(plan[0].get("status") == 500 for plan in plans)
    assert any(plan[0].get("text") == "{" for plan in plans)
    first, second = plans[-1]
    assert first["after"] > second["after"] and first["json"] != second["json"]


def test_what_cannot_be_parsed_has_no_inputs() -> None:
    assert read_inputs("class {", "x.jsx").shapes == {}


PAGE = {
    "elements": [
        {"target": {"role": "button", "name": "Go"}, "tag": "button", "kind": "button",
         "events": ["click"], "values": [], "disabled": False},
        {"target": {"role": "textbox"}, "tag": "input", "kind": "text", "events": ["change"],
         "values": [], "disabled": False},
        {"target": {"role": "combobox"}, "tag": "select", "kind": "select", "events": ["change"],
         "values": ["a", "b"], "disabled": False},
        {"target": {"role": "button", "name": "Off"}, "tag": "button", "kind": "button",
         "events": ["click"], "values": [], "disabled": True},
        {"target": {"tag": "div", "position": 2}, "tag": "div", "kind": "div",
         "events": ["dragstart", "mouseenter", "wheel"], "values": [], "disabled": False},
    ],
    "outside": {"document": ["keydown"], "window": ["resize"]},
    "waits": [500],
}  # fmt: skip


def test_everything_the_page_offers_is_a_step() -> None:
    steps = possible(PAGE)
    kinds = {next(iter(step)) for step in steps}
    assert {"press", "key", "type", "commit", "choose", "focus", "drag", "hover", "event"} <= kinds
    assert {"resize", "pass"} <= kinds
    assert not any("Off" in key_of(step) for step in steps)
    assert {"choose": {"role": "combobox", "value": "b"}} in steps


def test_keys_are_held_where_the_code_asks_for_them() -> None:
    text = "export default ({ go }) => <b onClick={(e) => go(e.metaKey || e.shiftKey)} />;"
    held = read_inputs(text, "Berth.jsx").held
    assert held == ("meta", "shift")
    steps = [step for step in possible(PAGE, held) if step not in possible(PAGE)]
    assert {"press", "key"} >= {next(iter(step)) for step in steps}
    given = [next(iter(step.values())) for step in steps]
    assert given and all(one.get("meta") or one.get("shift") for one in given)


def test_what_was_tried_here_comes_last_and_the_seed_decides() -> None:
    steps = possible(PAGE)
    here: dict[str, int] = {}
    rng = Random(1)
    pressed = []
    for _ in range(12):
        step = choose(steps, here, {}, rng)
        pressed.append(key_of(step))
        here[key_of(step)] = here.get(key_of(step), 0) + 1
    assert len(set(pressed)) >= 10
    assert choose(steps, {}, {}, Random(7)) == choose(steps, {}, {}, Random(7))


FOLLOWING: list[tuple[dict[str, Any], bool]] = [
    ({"type": {"role": "searchbox", "text": "Holm"}}, True),
    ({"key": {"role": "searchbox", "key": "ArrowDown"}}, True),
    ({"key": {"role": "searchbox", "key": "Escape"}}, False),
    ({"type": {"role": "spinbutton", "text": "7"}}, False),
    ({"pass": 60}, False),
    ({}, False),
]


@pytest.mark.parametrize(("last", "entered"), FOLLOWING)
def test_what_was_typed_is_entered_next(last: dict[str, Any], entered: bool) -> None:
    enter = {"key": {"role": "searchbox", "key": "Enter"}}
    steps = [{"press": {"role": "searchbox"}}, enter]
    assert following(last, steps) == ([enter] if entered else [])


def test_the_same_code_gives_the_same_situations() -> None:
    text = "export default function Berth({ a, b, onC }) { return <p onClick={onC}>{a}{b.c}</p>; }"
    one, other = values_of(text), values_of(text)
    assert list(one.one_by_one()) == list(other.one_by_one())
    assert list(one.changes()) == list(other.changes())
    assert one.anything(Random(3)) == other.anything(Random(3))


def test_an_input_and_a_slot_of_one_name_are_given_and_left_out_apart() -> None:
    text = """<template><p><slot name="head"><b>{{ head }}</b></slot></p></template>
    <script>export default { props: { head: String } };</script>"""
    found = values_of(text, "Berth.vue")
    given = [*found.openings(), *found.one_by_one()]
    kinds = {("head" in one.inputs, "head" in one.slots) for one in given}
    assert {(True, True), (True, False), (False, True)} <= kinds
    rng = Random(2)
    varied = [found.together(found.full(), ("head",), rng) for _ in range(80)]
    assert len({("head" in one.inputs, "head" in one.slots) for one in varied}) == 4


def test_what_a_flag_sets_going_comes_to_its_end() -> None:
    situations = values_of("""
      class Berth extends Component { render() { return <p title={this.props.label}>{this.props.open && 1}</p>; } }
      Berth.propTypes = { open: T.bool, label: T.string };
    """)
    steps = [step for run in situations.changes() for step in run]
    turned = [
        at for at, step in enumerate(steps) if "open" in step.get("change", {}).get("inputs", {})
    ]
    assert len(turned) > 2 and all(steps[at + 1] == {"pass": 1000} for at in turned[:-1])
    assert {"pass": 1000} not in [
        steps[at + 1]
        for at, step in enumerate(steps[:-1])
        if "label" in step.get("change", {}).get("inputs", {})
    ]


def test_a_trial_is_saved_and_read_back(tmp_path: Path) -> None:
    trial = Trial("found 3", {"a": {"$": "NaN"}}, {"onB": {"throws": "x"}}, {}, [{"url": "*"}],
                  [{"press": {"role": "button", "name": "Go"}}, {"change": {"without": ["a"]}}])  # fmt: skip
    save(tmp_path / "t.yaml", trial, "Berth")
    found = load(tmp_path / "t.yaml")
    assert (found.trials, found.component) == ((trial,), "Berth")


# -- the store and the project file -----------------------------------------------------------


def test_the_store_keeps_values_by_content(tmp_path: Path) -> None:
    store = Store(tmp_path / "store")
    assert store.value(("a", 1)) is None
    store.keep(("a", 1), {"b": [1, None]})
    assert store.value(("a", 1)) == {"b": [1, None]}
    assert Store(None).value(("a", 1)) is None
    file = tmp_path / "x.js"
    file.write_text("1")
    before = store.digest_of_files([str(file)])
    file.write_text("2")
    assert store.digest_of_files([str(file)]) != before
    for kept in (tmp_path / "store").rglob("*"):
        if kept.is_file():
            kept.write_bytes(b"broken")
    assert store.value(("a", 1)) is None


def test_the_project_file_is_found_upward(tmp_path: Path) -> None:
    (tmp_path / "src" / "deep").mkdir(parents=True)
    (tmp_path / "setup.jsx").write_text("export default ({ children }) => children;")
    (tmp_path / "clean-carry.toml").write_text(
        'setup = "setup.jsx"\n[imports]\n"@/" = "src/"\n[runtimes]\nreact = 17\n'
        '[[accepted]]\nplace = "/p[1]@title"\nreason = "renamed on purpose"\n'
    )
    found = settings_for(tmp_path / "src" / "deep" / "X.jsx")
    assert found.aliases == {"@/": f"{tmp_path.resolve()}/src/"}
    assert found.runtimes == {"react": "17"}
    assert found.accepted[0].fits("X", "tree", "/p[1]@title")
    assert not found.accepted[0].fits("X", "tree", "/p[2]@title")
    assert found.setup == (tmp_path / "setup.jsx").resolve()


def test_aliases_of_a_compiler_file(tmp_path: Path) -> None:
    (tmp_path / "tsconfig.json").write_text(
        '{ // comment\n "compilerOptions": { "baseUrl": "./lib", "paths": { "~/*": ["own/*"], }, } }'
    )
    found = settings_for(tmp_path / "X.tsx")
    assert found.aliases == {"~/": f"{tmp_path.resolve()}/lib/own/"}
    assert found.folder is None


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("a = ", "TOML"),
        ("sources = 3", "sources"),
        ("other = 1", "other"),
        ('setup = "no.js"', "no.js"),
    ],
)
def test_a_project_file_in_error_is_one_line(tmp_path: Path, text: str, word: str) -> None:
    (tmp_path / "clean-carry.toml").write_text(text)
    with pytest.raises(InputError, match=word):
        settings_for(tmp_path / "X.jsx")


def test_no_project_file_is_fine(tmp_path: Path) -> None:
    assert settings_for(tmp_path / "X.jsx") == Settings()


def test_what_is_asked_for_its_day_is_a_date_or_two() -> None:
    text = "export default ({ tide }) => <p>{tide.getTime()}{tide.map((one) => one.getDay())}</p>;"
    situations = values_of(text)
    assert situations.full().inputs["tide"]["$"] == "date"
    two = next(v for v in situations.values["tide"] if isinstance(v, list))
    assert [one["$"] for one in two] == ["date", "date"]


def test_variants_hold_no_value_twice() -> None:
    found = values_of("export default ({ a = 3 }) => <p>{a > 3 ? a - 1 : a}</p>;")
    for values in found.values.values():
        assert len({repr(v) for v in values}) == len(values)
    assert variants("x", _shape())


def test_no_slot_has_the_content_of_another() -> None:
    text = "<template><p><slot /><slot name='foot' /><slot name='head' /></p></template>"
    full = Situations(read_inputs(text, "Berth.vue")).full()
    contents = [json.dumps(content) for content in full.slots.values()]
    assert list(full.slots) == ["default", "foot", "head"] and len(set(contents)) == 3


def test_what_an_element_is_drawn_as_is_a_tag() -> None:
    text = (
        "<template><component :is='shape'>a</component></template>\n"
        "<script>export default { props: { shape: null } };</script>"
    )
    assert Situations(read_inputs(text, "Berth.vue")).full().inputs == {"shape": "section"}


def test_every_word_an_input_is_compared_with_is_tried_early() -> None:
    text = """export default function Berth({ kind, side, wide }) {
      return <i>{kind === 'fore' || kind === 'aft'}{side === 'port' || side === 'starboard'}{wide && 1}</i>;
    }"""
    found = Situations(read_inputs(text, "Berth.jsx"))
    full = found.full().inputs
    assert (full["kind"], full["side"]) == ("fore", "port")
    words = [(one.inputs["kind"], one.inputs["side"]) for one in found.modes()]
    assert words == [("aft", "port"), ("fore", "starboard")]
    # One by one, what an input is not yet comes first.
    first = next(found.one_by_one())
    assert first.inputs["kind"] != "fore"


def test_the_values_of_one_input_are_tried_in_one_situation_after_the_other() -> None:
    text = "export default ({ a, b, c = 1 }) => <i title={a && b.map(String)}>{c - 1}</i>;"
    found = Situations(read_inputs(text, "Berth.jsx"))
    # Of three inputs each is tried once a turn; the next turn starts it from another situation.
    turns = [list(islice(found.one_by_one(), 9))[at::3] for at in range(3)]
    assert all(len({frozenset(s.inputs) for s in turn}) > 1 for turn in turns)
