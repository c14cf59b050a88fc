"""One trial judged, and a failing one made smaller, over renderers that only say what they are told to."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.project.settings import Accepted, Settings
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.judge import MOST_TREES, Judged, Pair, TrialResult, judge, restless
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.search.walks.shrink import shrunk
from clean_carry.verify.trials import Trial
from clean_carry.verify.worker_pool import Bundle, Side

LEFT: dict[str, Any] = {"timers": [], "listeners": [], "elements": 0}
Answer = Callable[[dict[str, Any]], dict[str, Any]]


def point(name: str, *drawn: Any, **more: Any) -> dict[str, Any]:
    base = {
        "name": name, "tree": list(drawn), "missing": None, "frames": [], "errors": [], "calls": [],
        "requests": [], "prevented": [], "focus": None,
    }  # fmt: skip
    return {**base, **more}


def answer(*points: dict[str, Any], reach: tuple[str, ...] = (), **left: Any) -> dict[str, Any]:
    return {
        "points": list(points),
        "last": {"errors": [], "calls": [], "requests": []},
        "left": {**LEFT, **left},
        "reach": list(reach),
    }


def b(text: str) -> list[Any]:
    return ["b", {}, None, [text]]


class Lane:
    """A renderer: what each side does with a request. Raises what an answer is, if it is an error."""

    def __init__(self, *answers: Answer) -> None:
        self.answers = answers
        self.asked: list[tuple[str, dict[str, Any]]] = []

    def trial(
        self, bundle: Any, exported: str, request: dict[str, Any], *, reuse: bool = False
    ) -> dict[str, Any]:
        side = bundle.code
        earlier = sum(name == side for name, _ in self.asked)
        self.asked.append((side, request))
        told = self.answers[side == "new"]({**request, "earlier": earlier})
        if "fails" in told:
            raise WorkerFailed(told["fails"], ended=True)
        return told


def pair(interface: InterfaceMap | None = None, settings: Settings | None = None) -> Pair:
    place = Path("Berth.jsx")
    sides = [
        Side(place, text, RUNTIMES["react-18"], **({"settings": settings} if settings else {}))
        for text in ("old", "new")
    ]
    bundles = [Bundle(name, "", None, name) for name in ("old", "new")]
    return Pair(sides[0], sides[1], (bundles[0], bundles[1]), (LEFT, LEFT), interface)


TRIAL = Trial("berth", inputs={"free": 3})


def always(*points: dict[str, Any], **more: Any) -> Answer:
    return lambda request: answer(*points, **more)


def test_a_new_side_whose_worker_is_lost_runs_once_more() -> None:
    def once(request: dict[str, Any]) -> dict[str, Any]:
        return {"fails": "lost"} if request["earlier"] == 0 else answer(point("shown", b("3")))

    lane = Lane(always(point("shown", b("3"))), once)
    assert judge(lane, pair(), TRIAL).result.verdict == "same"  # type: ignore[arg-type]
    assert [side for side, _ in lane.asked] == ["old", "old", "new", "new"]


def in_turn(*answers: dict[str, Any]) -> Answer:
    return lambda request: answers[min(request["earlier"], len(answers) - 1)]


OBJECTS = ["an input type objects", "berths: is missing"]
OUTCOMES: dict[str, tuple[Answer, Answer, str, str]] = {
    "both draw the same": (always(point("shown", b("3"))), always(point("shown", b("3"))), "same", ""),
    "another text": (always(point("shown", b("3"))), always(point("shown", b("4"))), "differs", ""),
    "old cannot run": (lambda _: {"fails": "no memory"}, always(), "not run", "failed: no memory"),
    "new cannot run": (
        always(point("shown", b("3"))), lambda _: {"fails": "it ended the worker"}, "differs", "",
    ),
    "old is never twice alike": (
        in_turn(answer(point("shown", b("3"))), answer(point("shown", b("4")))),
        always(point("shown", b("3"))), "void", "differs from itself",
    ),
    "old never rests": (
        always(point("shown", b("3"), errors=["the page never came to rest"])),
        always(point("shown", b("3"))), "not run", "never comes to rest",
    ),
    "nothing is drawn": (always(point("shown")), always(point("shown")), "not run", "draws no element"),
    "both throw and draw nothing": (
        always(point("shown", errors=["Error: no tide"])),
        always(point("shown", errors=["Error: no tide"])), "not run", "(Error: no tide)",
    ),
    "nothing is drawn, somebody is called": (
        always(point("shown", calls=[["onFull", []]])),
        always(point("shown", calls=[["onFull", []]])), "same", "",
    ),
    "only a declared type objects": (
        always(point("shown", calls=[["an input type objects", []]])),
        always(point("shown", calls=[["an input type objects", []]])), "not run", "draws no element",
    ),
    "both refuse their inputs, each in its way": (
        always(point("shown", b("3"), calls=[OBJECTS], errors=["Error: no berth"])),
        always(point("shown", calls=[OBJECTS], errors=["Error: no berth"])), "void", "berths: is missing",
    ),
    "both fail of what is not declared": (
        always(point("shown", b("3"), errors=["Error: no berth"])),
        always(point("shown", errors=["Error: no berth"])), "differs", "",
    ),
    "both fail, but not of the same": (
        always(point("shown", b("3"), calls=[OBJECTS], errors=["Error: no berth"])),
        always(point("shown", calls=[OBJECTS], errors=["Error: no tide"])), "differs", "",
    ),
    "only the new side fails of them": (
        always(point("shown", b("3"), calls=[OBJECTS])),
        always(point("shown", calls=[OBJECTS], errors=["Error: no berth"])), "differs", "",
    ),
    "only the old side declares them": (
        always(point("shown", b("3"), calls=[OBJECTS], errors=["Error: no berth"])),
        always(point("shown", errors=["Error: no berth"])), "differs", "",
    ),
    "a timer is left": (
        always(point("shown", b("3"))),
        always(point("shown", b("3")), timers=["interval 1000"]), "differs", "",
    ),
}  # fmt: skip


@pytest.mark.parametrize(("old", "new", "verdict", "reason"), OUTCOMES.values(), ids=OUTCOMES)
def test_the_verdict_of_a_trial(old: Answer, new: Answer, verdict: str, reason: str) -> None:
    lane = Lane(old, new)
    judged = judge(lane, pair(), TRIAL)  # type: ignore[arg-type]
    assert judged.result.verdict == verdict
    assert reason in judged.result.reason if reason else judged.result.reason == ""
    assert bool(judged.result.differences) == (verdict == "differs")
    # The old side always runs twice before the new one is asked at all.
    assert [side for side, _ in lane.asked][:3] in (["old", "old", "new"], ["old", "old"], ["old"])


def test_a_first_run_is_not_made_again() -> None:
    lane = Lane(always(), always(point("shown", b("3"))))
    first = answer(point("shown", b("3")), reach=("b1",))
    lane.answers = (lambda _: first, lane.answers[1])
    judged = judge(lane, pair(), TRIAL, first)  # type: ignore[arg-type]
    assert [side for side, _ in lane.asked] == ["old", "new"]
    assert judged.result.verdict == "same" and judged.reach == (frozenset({"b1"}), frozenset())


def test_both_throwing_alike_is_the_same_and_is_said() -> None:
    both = always(point("shown", b("3")), point("press", b("3"), errors=["Error: no tide"]))
    judged = judge(Lane(both, both), pair(), TRIAL)  # type: ignore[arg-type]
    assert judged.result.verdict == "same" and judged.result.note == "both threw Error: no tide"
    assert judged.result.steps == ("shown", "press")


@pytest.mark.parametrize(
    ("after", "moved"), [(b("4"), True), (b("3"), False)], ids=["another text", "nothing new"]
)
def test_whether_anything_moved(after: Any, moved: bool) -> None:
    both = always(point("shown", b("3")), point("press", after), point("remove"))
    assert judge(Lane(both, both), pair(), TRIAL).result.moved is moved  # type: ignore[arg-type]


def test_trees_are_kept_where_something_differs() -> None:
    names = [f"press {at}" for at in range(MOST_TREES + 2)]
    old = always(*(point(name, b("3")) for name in names))
    new = always(*(point(name, b("4")) for name in names))
    found = judge(Lane(old, new), pair(), TRIAL).result  # type: ignore[arg-type]
    assert [step for step, _, _ in found.trees] == list(range(MOST_TREES))
    assert found.trees[0][1:] == ([b("3")], [b("4")])


def test_the_new_side_is_asked_by_its_own_names() -> None:
    names = interface_of((("free", "places"),), events=(("onPick", "pick"),))
    lane = Lane(always(point("shown", b("3"))), always(point("shown", b("3"))))
    trial = Trial("berth", inputs={"free": 3}, functions={"onPick": None})
    judge(lane, pair(names), trial)  # type: ignore[arg-type]
    old, new = lane.asked[0][1], lane.asked[-1][1]
    assert old["inputs"] == {"free": 3} and new["inputs"] == {"places": 3}
    assert list(old["functions"]) == ["onPick"]
    assert new["functions"] == {"pick": {"called": "onPick"}}


def test_what_the_project_accepts_is_counted_and_no_difference() -> None:
    settings = Settings(accepted=(Accepted("/b[1]*", "the new font has no 3"),))
    both = pair(settings=settings)
    lane = Lane(always(point("shown", b("3"))), always(point("shown", b("4"))))
    assert judge(lane, both, TRIAL).result.verdict == "same"  # type: ignore[arg-type]
    assert both.accepted == {"the new font has no 3": 1}


@pytest.mark.parametrize(
    "error",
    [
        "Error: Minified React error #185; see the page",
        "Error: Maximum update depth exceeded. This can happen",
        "Error: Too many re-renders.",
        "Maximum recursive updates exceeded in component <Berth>",
    ],
)
def test_what_never_comes_to_rest(error: str) -> None:
    assert restless(answer(point("shown"), point("press", errors=[error])))
    assert not restless(answer(point("shown", errors=["Error: no tide"])))


# -- smaller -------------------------------------------------------------------------------------------


def failing(lane: Lane, both: Pair, trial: Trial) -> Judged:
    judged = judge(lane, both, trial)  # type: ignore[arg-type]
    assert judged.result.verdict == "differs"
    return judged


def drawn(differs: Callable[[dict[str, Any]], bool], wrong: str = "wrong") -> tuple[Answer, Answer]:
    """Two sides that draw alike but where a request `differs`; a point for every step."""

    def points(request: dict[str, Any], text: str) -> dict[str, Any]:
        steps = [point(f"step {at}", b(text)) for at, _ in enumerate(request["steps"])]
        return answer(point("shown", b("right")), *steps)

    return (
        lambda request: points(request, "right"),
        lambda request: points(request, wrong if differs(request) else "right"),
    )


BIG = Trial(
    "all at once",
    inputs={
        "free": 3,
        "name": "a very long name of a berth",
        "rows": [1, 2, 3],
        "of": {"a": 1, "b": 2},
    },
    functions={"onPick": {}, "onLeave": {}},
    slots={"head": "Tide"},
    replies=[{"body": 1}],
    steps=[
        {"pass": 1},
        {"type": {"role": "textbox", "text": "Holm"}},
        {"press": {"role": "button"}},
        {"change": {"inputs": {"free": 4}, "then": {"inputs": {"free": 5}}}},
    ],
)


SMALLER: dict[str, tuple[Callable[[dict[str, Any]], bool], Trial]] = {
    "a step alone": (
        lambda request: any("press" in step for step in request["steps"]),
        Trial(BIG.name, steps=[{"press": {"role": "button"}}]),
    ),
    "a step with an input": (
        lambda r: any("press" in step for step in r["steps"]) and r["inputs"].get("free") == 3,
        Trial(BIG.name, inputs={"free": 3}, steps=[{"press": {"role": "button"}}]),
    ),
    "a shorter text": (
        lambda request: any("type" in step for step in request["steps"]),
        Trial(BIG.name, steps=[{"type": {"role": "textbox", "text": "H"}}]),
    ),
    "one change of two": (
        lambda request: any("change" in step for step in request["steps"]),
        Trial(BIG.name, steps=[{"change": {"inputs": {"free": 4}}}]),
    ),
    "shorter values": (
        lambda r: bool(r["steps"] and r["inputs"].get("rows") and r["inputs"].get("of", {}).get("b")
                       and r["inputs"].get("name")),
        Trial(BIG.name, inputs={"name": "a ve", "rows": [1], "of": {"b": 2}}, steps=[{"pass": 1}]),
    ),
    "a function and content": (
        lambda r: bool(r["steps"] and "onLeave" in r["functions"] and "head" in r["slots"]),
        Trial(BIG.name, functions={"onLeave": {}}, slots={"head": "Tide"}, steps=[{"pass": 1}]),
    ),
    "a reply": (
        lambda request: bool(request["steps"] and request["replies"]),
        Trial(BIG.name, replies=[{"body": 1}], steps=[{"pass": 1}]),
    ),
}  # fmt: skip


@pytest.mark.parametrize(("differs", "smallest"), SMALLER.values(), ids=SMALLER)
def test_a_failing_trial_is_made_smaller(
    differs: Callable[[dict[str, Any]], bool], smallest: Trial
) -> None:
    lane, both = Lane(*drawn(differs)), pair()
    found = shrunk(lane, both, failing(lane, both, BIG))  # type: ignore[arg-type]
    assert len(found.trial.steps) == 1
    assert (found.trial.inputs, found.trial.functions, found.trial.slots, found.trial.replies) == (
        smallest.inputs, smallest.functions, smallest.slots, smallest.replies,
    )  # fmt: skip
    assert set(found.trial.steps[0]) & set(smallest.steps[0]) or smallest.steps == [{"pass": 1}]
    assert found.result.verdict == "differs"


def test_it_still_differs_in_the_same_thing() -> None:
    """Something else that goes wrong in a smaller trial is another failing, not this one."""

    def new(request: dict[str, Any]) -> dict[str, Any]:
        if request["inputs"]:
            return answer(point("shown", b("wrong")))
        return answer(point("shown", b("right"), focus="/b[1]"))

    lane, both = Lane(always(point("shown", b("right"))), new), pair()
    found = shrunk(lane, both, failing(lane, both, TRIAL))  # type: ignore[arg-type]
    assert found.trial.inputs == {"free": 3}
    assert {one.what for one in found.result.differences} == {"tree"}


def test_a_fresh_page_has_the_last_word() -> None:
    """A small trial that differs only in a page that was used before is not given; the big one is."""
    small_runs = iter(range(100))

    def new(request: dict[str, Any]) -> dict[str, Any]:
        right = not request["inputs"] and next(small_runs) > 0
        return answer(point("shown", b("right" if right else "wrong")))

    lane, both = Lane(always(point("shown", b("right"))), new), pair()
    first = failing(lane, both, TRIAL)
    assert shrunk(lane, both, first) is first  # type: ignore[arg-type]


def test_a_renderer_that_fails_while_making_it_smaller_is_no_difference() -> None:
    def old(request: dict[str, Any]) -> dict[str, Any]:
        return answer(point("shown", b("right"))) if request["inputs"] else {"fails": "no memory"}

    lane, both = Lane(old, always(point("shown", b("wrong")))), pair()
    found = shrunk(lane, both, failing(lane, both, TRIAL))  # type: ignore[arg-type]
    assert found.trial == TRIAL


def test_the_json_shape_of_a_result() -> None:
    shape = TrialResult("berth", "same", ("shown",), note="both threw").as_json()
    assert shape == {
        "name": "berth", "verdict": "same", "steps": ["shown"], "differences": [], "reason": "",
        "note": "both threw",
    }  # fmt: skip
