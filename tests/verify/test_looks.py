"""Which trials are worth a look: those that draw what no other has drawn."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.walks.novelty import MOST, Looks, as_in_use, drawn
from clean_carry.verify.trials import Trial


def el(tag: str, *inside: Any, state: Any = None, **attributes: str) -> list[Any]:
    return [tag, {k.rstrip("_"): v for k, v in attributes.items()}, state, list(inside)]


def points(*trees: list[Any]) -> list[dict[str, Any]]:
    return [{"tree": list(tree)} for tree in trees]


FEATURES: dict[str, tuple[list[Any], set[str]]] = {
    "text says nothing": (["tide"], set()),
    "a kind of element": ([el("p", "tide")], {"p"}),
    "each of its classes": ([el("p", class_="a  b")], {"p", "p.a", "p.b"}),
    "an attribute, not its value": ([el("a", href="#1")], {"a", "a[href]"}),
    "the value of what is asked for": ([el("input", type="date")], {"input", "input[type=date]"}),
    "what assistive technology is told": (
        [el("b", **{"aria-expanded": "true"})],
        {"b", "b[aria-expanded=true]"},
    ),
    "the state of a field": (
        [el("input", state={"checked": True, "value": "x"})],
        {"input", "input:checked=True"},
    ),
    "what is inside": ([el("ul", el("li"), "x")], {"ul", "li"}),
}


@pytest.mark.parametrize(("tree", "features"), FEATURES.values(), ids=FEATURES)
def test_what_selectors_could_ask(tree: list[Any], features: set[str]) -> None:
    assert drawn(points(tree)) == features


def test_all_settled_points_count() -> None:
    assert drawn(points([el("p")], [el("b")])) == {"p", "b"}


def test_the_richest_first_then_what_it_lacks() -> None:
    looks = Looks()
    looks.note(Trial("one"), points([el("p")]))
    looks.note(Trial("again"), points([el("p")]))
    looks.note(Trial("two"), points([el("p"), el("b", class_="x")]))
    looks.note(Trial("three"), points([el("i")]))
    assert [trial.name for trial in looks.ordered()] == ["two", "three"]
    assert Looks().ordered() == ()


def test_values_that_the_project_gives_come_first() -> None:
    shapes = {"berth": Shape({"string"}, used=["North Quay"]), "free": Shape({"number"}, used=[1])}
    trials = [
        Trial("made up", {"berth": "a text", "free": True}),
        Trial("one of both", {"berth": "North Quay", "free": 7, "other": 1}),
        Trial("both", {"berth": "North Quay", "free": 1}),
        Trial("again made up"),
    ]
    assert [trial.name for trial in as_in_use(trials, shapes)] == [
        "both", "one of both", "made up", "again made up"
    ]  # fmt: skip


def test_what_was_not_steady_is_no_longer_looked_at() -> None:
    looks = Looks()
    looks.note(Trial("one"), points([el("p")]))
    looks.note(Trial("two"), points([el("b")]))
    looks.forget({"two"})
    assert [trial.name for trial in looks.ordered()] == ["one"]


def test_only_so_many_are_remembered() -> None:
    looks = Looks()
    for at in range(MOST + 5):
        looks.note(Trial(f"{at}"), points([el("p", class_=f"c{at}")]))
    assert len(looks.ordered()) == MOST


BERTH = """import React from 'react';
import './SHEET.css';
interface Props { kind: 'open' | 'full' | 'shut' | 'held' | 'late'; deck: 'low' | 'high'; title?: string }
export default function Berth({ kind, deck, title }: Props) {
  return <p title={title} className={`berth berth-${kind} deck-${deck}`}>{kind}</p>;
}
"""
SHEET = """.berth { padding: 4px; }
.berth-open { color: #114477; }
.berth-late[title] { color: #771144; }
.deck-high { font-weight: bold; }
"""


def test_a_class_that_no_branch_asks_for_is_looked_at(run: Any, tmp_path: Path) -> None:
    """The code has no branch, so one trial stands for all; its styles have several."""
    for name, sheet in (("Old", SHEET), ("New", SHEET.replace("#771144", "#117744"))):
        (tmp_path / f"{name}.css").write_text(sheet)
        (tmp_path / f"{name}.tsx").write_text(BERTH.replace("SHEET", name))
    done = run("verify", "Old.tsx", "New.tsx", "--budget", "4", "--json", "--report", "page")
    assert json.loads(done.stdout)["verdict"] == "same"
    done = run("verify", "Old.tsx", "New.tsx", "--in", "browser", "--budget", "6", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "differs"
    differing = [one for one in found["browser"]["trials"] if one["verdict"] == "differs"]
    assert any("color" in one["place"] for trial in differing for one in trial["differences"])
