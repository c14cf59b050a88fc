"""Comparing looks on their own, and a verdict that a failing second look does not earn."""

from __future__ import annotations

from typing import Any

import pytest

from clean_carry.verify.browser.browser_run import Seen
from clean_carry.verify.browser.look import look_differences, looks_of, matched, plain
from clean_carry.verify.judge import TrialResult
from clean_carry.verify.normalise import Normaliser
from clean_carry.verify.pair import _seen
from clean_carry.verify.verify import Verification


def tree(*, extra: bool = False) -> list[Any]:
    inner: list[Any] = [["b", {"trial-look": "1"}, None, ["now"]]]
    if extra:
        inner.append(["i", {"trial-look": "2"}, None, []])
    return [["p", {"trial-look": "0"}, None, inner]]


def look(
    outer: dict[str, str] | None = None, inner: dict[str, str] | None = None, **more: Any
) -> dict[str, Any]:
    elements = [
        {"style": {"own": outer or {}}, "box": [0, 0, 100, 20], "rules": [0]},
        {"style": {"own": inner or {}}, "box": [5, 0, 30, 20], "rules": []},
    ]
    found = {
        "elements": elements, "order": [], "rules": [".berth", ".pier"], "states": {},
        "neighbours": None, "accessible": [], "unlooked": 0,
    }  # fmt: skip
    return {**found, **more}


def told(old: dict[str, Any], new: dict[str, Any]) -> list[tuple[Any, ...]]:
    sides = (Normaliser(), Normaliser())
    return look_differences(old, new, (tree(), tree()), sides)


def test_equal_looks_do_not_differ() -> None:
    assert told(look({"color": "red"}), look({"color": "red"})) == []


def test_what_is_inherited_is_told_where_it_begins() -> None:
    found = told(
        look({"color": "red"}, {"color": "red"}), look({"color": "blue"}, {"color": "blue"})
    )
    assert found == [("style", "/p[1] color", "red", "blue", "the rules .berth")]


def test_a_colour_that_follows_the_text_is_told_once_and_another_is_told() -> None:
    old = look({"color": "red", "border-top-color": "red", "outline-color": "red"})
    new = look({"color": "blue", "border-top-color": "blue", "outline-color": "green"})
    assert [one[1] for one in told(old, new)] == ["/p[1] color", "/p[1] outline-color"]


def test_a_border_that_differs_alone_is_told() -> None:
    old, new = look({"border-top-color": "red"}), look({"border-top-color": "blue"})
    assert [one[1] for one in told(old, new)] == ["/p[1] border-top-color"]


def test_what_is_drawn_beside_an_element() -> None:
    old, new = look(), look()
    old["elements"][1]["style"]["::before"] = {"color": "red"}
    assert told(old, new) == [("style", "/p[1]/b[1] ::before", "drawn", "none", "")]


def test_a_state_is_told_where_it_is_not_plainly_so() -> None:
    styles = [{"own": {"color": "red"}}, {"own": {}}]
    found = told(look(states={"hover": styles}), look())
    assert [one[:4] for one in found] == [("style", "/p[1]:hover color", "red", "as unstyled")]


@pytest.mark.parametrize(("by", "count"), [(0.05, 0), (0.1, 1), (4, 1)])
def test_boxes_are_compared_in_the_box_around_them(by: float, count: int) -> None:
    new = look()
    new["elements"][1]["box"][0] += by
    assert [one[0] for one in told(look(), new)] == ["box"] * count
    moved = look()
    for element in moved["elements"]:
        element["box"][1] += 7
    assert [one[1] for one in told(look(), moved)] == ["/p[1]"]


def test_the_order_of_tab_and_what_is_told_to_assistive_technology() -> None:
    found = told(look(order=[0, 1]), look(order=[1, 0]))
    assert found == [("focus order", "", "/p[1] → /p[1]/b[1]", "/p[1]/b[1] → /p[1]", "")]
    old = look(accessible=[["button", "Pin", {"pressed": True, "disabled": False}]])
    ((what, _, before, after, _),) = told(old, look(accessible=[["button", "Pin", {}]]))
    assert (what, before, after) == (
        "accessibility", ["button “Pin” pressed=True"], ["button “Pin”"],
    )  # fmt: skip


def near(rules: list[int], **style: str) -> list[dict[str, Any]]:
    return [{"tag": "h2", "class": "", "rules": rules, "style": {"own": style}}]


def test_a_neighbour_that_rules_reach_on_one_side() -> None:
    old, new = look(neighbours=near([])), look(neighbours=near([1], color="teal"))
    assert told(old, new) == [
        ("neighbour", "<h2> color", "as unstyled", "teal", "only new has .pier")
    ]
    assert told(look(), new) == [("neighbour", "<h2>", "untouched", "reached by .pier", "")]


def test_elements_without_a_counterpart_are_left_to_the_tree() -> None:
    assert len(matched(tree(), tree())) == 2
    assert len(matched(tree(), tree(extra=True))) == 1


def test_an_answer_without_its_look_is_as_the_simulated_page_gives_it() -> None:
    answer = {"points": [{"tree": tree(), "look": {"a": 1}}, {"tree": [], "look": {"as": 0}}]}
    assert plain(answer)["points"][0] == {"tree": [["p", {}, None, [["b", {}, None, ["now"]]]]]}
    assert looks_of(answer) == [{"a": 1}, {"a": 1}]


def test_what_was_seen_of_several_components_is_one() -> None:
    one = Seen((TrialResult("a", "same"),), ("400 px",), 2, unlooked=1)
    other = Seen((TrialResult("b", "void"),), ("400 px", "800 px"), 3)
    found = _seen([Verification((), seen=one), Verification(()), Verification((), seen=other)])
    assert found is not None
    assert ([r.name for r in found.results], found.views) == (["a", "b"], ("400 px", "800 px"))
    assert (found.points, found.unlooked, found.verdict) == (5, 1, "same")
    assert _seen([Verification(())]) is None


RULED = {"rules": [".berth", ".berth:hover", ".berth:focus"]}


@pytest.mark.parametrize(
    ("state", "place", "cause"),
    [
        ("hover", "/p[1]:hover color", "only old has .berth:hover"),
        ("inherited", "/p[1] color where the page sets what is inherited", "the rules .berth"),
    ],
)
def test_the_cause_is_among_the_rules_of_the_state(state: str, place: str, cause: str) -> None:
    red, blue = ({"own": {"color": colour}} for colour in ("red", "blue"))
    old, new = look(**RULED, states={state: [red, 0]}), look(**RULED, states={state: [blue, 0]})
    old["elements"][0]["rules"], new["elements"][0]["rules"] = [0, 1, 2], [0, 2]
    assert told(old, new) == [("style", place, "red", "blue", cause)]


def test_without_a_state_rules_of_states_are_no_cause() -> None:
    old, new = look({"color": "red"}, **RULED), look({"color": "blue"}, **RULED)
    old["elements"][0]["rules"] = [0, 1]
    assert told(old, new)[0][4] == "the rules .berth"


def test_elements_that_are_as_without_the_state_are_not_sent_again() -> None:
    old = look({"color": "red"}, states={"hover": [0, {"own": {"color": "green"}}]})
    new = look({"color": "red"})
    assert [one[:4] for one in told(old, new)] == [
        ("style", "/p[1]/b[1]:hover color", "green", "as unstyled")
    ]
