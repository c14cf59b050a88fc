"""How the steps of a walk are chosen on the way. No renderer here: what the page offers is written down."""

from __future__ import annotations

from random import Random
from typing import Any

import pytest

from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.walks.situations import Situation, Situations
from clean_carry.verify.search.walks.steps import key_of, possible
from clean_carry.verify.search.walks.walks import Chooser, Plan

TEXT = """class Berth extends Component {
  render() { const { free, onPick } = this.props; return <p onClick={onPick}>{free ? 1 : 2}</p>; }
}
Berth.propTypes = { free: T.bool, onPick: T.func };
"""
BUTTON = {
    "target": {"role": "button", "name": "Book"}, "events": ["click"], "kind": "", "tag": "button",
    "disabled": False, "values": [],
}  # fmt: skip
FIELD = {
    "target": {"role": "textbox"}, "events": ["input", "keydown"], "kind": "text", "tag": "input",
    "disabled": False, "values": [],
}  # fmt: skip


def offered(*elements: Any, waits: tuple[int, ...] = (), **outside: list[str]) -> dict[str, Any]:
    return {"waits": list(waits), "elements": list(elements), "outside": outside}


def situations(**more: Any) -> Situations:
    inputs = read_inputs(TEXT, "Berth.jsx")
    for name, value in more.items():
        setattr(inputs, name, value)
    return Situations(inputs)


def walk(plan: Plan, page: dict[str, Any], seed: int = 1, **more: Any) -> list[dict[str, Any]]:
    chooser = Chooser(situations(**more), plan, Random(seed), {})
    steps = []
    while (step := chooser.next(page)) is not None:
        steps.append(step)
        assert len(steps) < 100
    return steps


def test_a_script_comes_first_then_so_many_steps() -> None:
    plan = Plan(1, Situation(), script=({"pass": 1}, {"twice": True}), length=3)
    steps = walk(plan, offered(BUTTON))
    assert steps[:2] == [{"pass": 1}, {"twice": True}]
    assert len([step for step in steps if "remove" not in step]) == 5


def test_half_of_the_walks_end_by_leaving() -> None:
    plan = Plan(1, Situation(), length=1)
    ends = [walk(plan, offered(BUTTON), seed)[-1] == {"remove": True} for seed in range(60)]
    assert 15 < sum(ends) < 45


def test_a_walk_without_steps_only_has_its_script() -> None:
    plan = Plan(1, Situation(), script=({"pass": 1},), length=0)
    assert walk(plan, offered(BUTTON), 3)[0] == {"pass": 1}
    assert {"press"} & {kind for step in walk(plan, offered(BUTTON), 3) for kind in step} == set()


def test_where_the_page_offers_nothing_time_passes_or_inputs_change() -> None:
    plan = Plan(1, Situation(), length=6)
    kinds = {kind for seed in range(20) for step in walk(plan, offered(), seed) for kind in step}
    assert {"pass", "change"} <= kinds <= {"pass", "change", "return", "twice", "remove"}


def test_extras_are_steps_no_element_offers() -> None:
    plan = Plan(1, Situation(), length=12, extras=1.0)
    steps = [step for seed in range(20) for step in walk(plan, offered(BUTTON), seed)]
    kinds = {kind for step in steps for kind in step}
    assert {"pass", "change", "return", "twice"} <= kinds and "press" not in kinds
    changes = [step["change"] for step in steps if "change" in step]
    assert any("then" in change for change in changes), "never twice before settling"
    assert any(change.get("without") == ["onPick"] for change in changes)
    assert any("onPick" in change.get("functions", {}) for change in changes)


def test_what_is_due_is_waited_for() -> None:
    plan = Plan(1, Situation(), length=12)
    waited = {
        s["pass"]
        for seed in range(20)
        for s in walk(plan, offered(waits=(777,)), seed)
        if "pass" in s
    }
    assert 777 in waited


def test_what_was_done_here_is_done_again_last() -> None:
    plan = Plan(1, Situation(), length=8)
    for seed in range(10):
        steps = [key_of(step) for step in walk(plan, offered(FIELD), seed) if "remove" not in step]
        assert len(set(steps)) >= len(steps) - 2


def test_methods_given_out_are_called_and_signals_sent() -> None:
    plan = Plan(1, Situation(), length=10)
    more = {
        "methods": {"focus": [], "pick": [3]},
        "signals": [{"signal": {"from": "./hub Harbour", "type": "tide"}}],
    }
    steps = [step for seed in range(30) for step in walk(plan, offered(BUTTON), seed, **more)]
    calls = [step["call"] for step in steps if "call" in step]
    assert {"method": "focus"} in calls and {"method": "pick", "given": [3]} in calls
    assert more["signals"][0] in steps


def test_what_was_listened_to_outside_once_is_sent_again() -> None:
    plan = Plan(1, Situation(), length=10)
    found = 0
    for seed in range(20):
        chooser = Chooser(situations(), plan, Random(seed), {})
        chooser.next(offered(window=["tide"]))
        later = [chooser.next(offered()) for _ in range(6)]
        found += {"event": {"place": "window", "type": "tide"}} in later
    assert found > 5


@pytest.mark.parametrize("seed", [1, 7])
def test_the_same_seed_gives_the_same_walk(seed: int) -> None:
    plan = Plan(1, Situation(), length=10, extras=0.3)
    page = offered(BUTTON, FIELD, waits=(60,))
    assert walk(plan, page, seed) == walk(plan, page, seed)
    assert walk(plan, page, seed) != walk(plan, page, seed + 1)


def test_a_press_behind_an_open_dialog() -> None:
    dialog = {
        "target": {"role": "dialog", "position": 1}, "tag": "dialog", "kind": "dialog",
        "events": ["click"], "values": [], "disabled": False,
    }  # fmt: skip
    steps = possible({"elements": [dialog], "outside": {}, "waits": []})
    assert {"press": {"role": "dialog", "position": 1, "at": 1.2}} in steps


def test_content_changes_now_and_then() -> None:
    known = situations(slots=["children"], contents=[])
    rng = Random(3)
    changes = [known.any_change(rng) for _ in range(200)]
    slots = [c["change"]["slots"] for c in changes if c is not None and "slots" in c["change"]]
    assert 10 < len(slots) < 50
    assert len({str(slot) for slot in slots}) > 2
