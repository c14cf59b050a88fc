"""What a verdict, a step and a value are called, in the terminal and on pages."""

from __future__ import annotations

from typing import Any

import pytest

from clean_carry.report import terminal, words
from clean_carry.verify.browser.browser_run import Seen
from clean_carry.verify.compare import Difference
from clean_carry.verify.judge import TrialResult
from clean_carry.verify.reach import Reach
from clean_carry.verify.trials import Trial
from clean_carry.verify.verify import Verification

STEPS: list[tuple[dict[str, Any], str]] = [
    ({"pass": 350}, "pass 350 ms"),
    ({"twice": True}, "twice"),
    ({"press": {"role": "button", "name": "Book", "position": 2}}, "press on button “Book” number 2"),
    ({"press": {"tag": "li", "double": True}}, "press on li double true"),
    ({"press": {"place": "body"}}, "press on body"),
    ({"key": {"role": "textbox", "key": " ", "shift": True}}, "key Space on textbox shift true"),
    ({"key": {"place": "document", "key": "Escape"}}, "key Escape on document"),
    ({"type": {"role": "textbox", "text": "Holm", "over": True}}, "type on textbox text Holm over true"),
    ({"resize": {"width": 320}}, "resize width 320"),
    ({"change": {"inputs": {"free": 3}}}, 'change inputs {"free": 3}'),
    ({"change": {"without": ["onPick"]}}, 'change without ["onPick"]'),
    ({"call": {"method": "focus"}}, "call method focus"),
]  # fmt: skip


@pytest.mark.parametrize(("step", "text"), STEPS)
def test_a_step(step: dict[str, Any], text: str) -> None:
    assert words.step(step) == text


@pytest.mark.parametrize(
    ("value", "text"),
    [
        ("", "(nothing)"),
        ("a  b\n c", "a b c"),
        ({"a": "é"}, '{"a": "é"}'),
        (None, "null"),
        ("x" * 200, "x" * 157 + "…"),
    ],
)
def test_a_value_on_one_line(value: Any, text: str) -> None:
    assert words.short(value) == text


def test_what_a_trial_gives() -> None:
    trial = Trial("t", {"free": 3}, {"onPick": {}}, {"head": ["Tide"]}, [{"url": "*"}])
    assert list(words.given(trial)) == [
        'props: {"free": 3}',
        'functions: {"onPick": {}}',
        'slots: {"head": ["Tide"]}',
        'replies: [{"url": "*"}]',
    ]
    assert list(words.given(Trial("t"))) == []


@pytest.mark.parametrize(
    ("reach", "text"),
    [
        (Reach(0, 0, ()), "nothing countable"),
        (Reach(4, 4, ()), "4 of 4 branches and functions"),
        (
            Reach(1, 3, ({"line": 7, "kind": "if"}, {"line": 4, "kind": "if"})),
            "1 of 3 branches and functions (not line 4, 7)",
        ),
        (
            Reach(0, 11, tuple({"line": at, "kind": "if"} for at in range(1, 12))),
            "0 of 11 branches and functions (not line 1, 2, 3, 4, 5, 6, 7, 8 and 3 more)",
        ),
    ],
)  # fmt: skip
def test_what_was_reached(reach: Reach, text: str) -> None:
    assert words.reached(reach) == text


SAME = TrialResult("found 1", "same", ("shown", "press"))
LOOKED = Seen(
    (TrialResult("found 1 (1280 px)", "same", ("shown",)),), ("1280 px", "400 px"), 2,
    stopped="all trials ran in all views", unlooked=1, uncompiled=(("/a/tide.scss", "sass"),),
)  # fmt: skip
WHOLE = Verification(
    (SAME,), {"comments": 2}, tried=1, points=2, void=1, generated=True, stopped="the time was up (10 s)",
    mounted="Tide", reach=(Reach(3, 4, ({"line": 9, "kind": "if"},)), Reach(4, 4, ())),
    accepted={"the new font": 3}, around="Harbour", cached=True, seen=LOOKED,
)  # fmt: skip
FACTS = {
    "cache": "answered from the cache",
    "browser": "in the browser: same, 1 run, 2 points, at 1280 px; 400 px (all trials ran",
    "unlooked": "because there are too many: 1 element",
    "uncompiled": "the project has no sass: tide.scss",
    "reach": "code that ran: 3 of 4 branches and functions (not line 9) of old, 4 of 4 of new",
    "ended": "because the time was up (10 s)",
    "mounted": "the export Tide, inside Harbour",
    "void": "because old differed from itself or both rejected the props: 1 trial",
    "accepted": "accepted by the project file ×3: the new font",
    "normalised": "normalised, so not counted as differences: comments ×2",
}


@pytest.mark.parametrize("what", FACTS)
def test_how_a_verdict_was_reached(what: str) -> None:
    assert FACTS[what] in dict(words.facts(WHOLE))[what]


def test_nothing_is_said_of_what_was_not_done() -> None:
    assert list(words.facts(Verification((SAME,), tried=1))) == []
    assert (
        "inside"
        not in dict(words.facts(Verification((SAME,), mounted="Tide", generated=True)))["mounted"]
    )


def test_a_verdict_in_the_terminal() -> None:
    many = tuple(
        Difference("found 2", 1, "press", "calls", "", [["onPick", at]], []) for at in range(8)
    )
    first = Difference(
        "found 2", 1, "press", "style", "/p[1] color", "red", "blue", "only old has .tide"
    )
    failing = TrialResult(
        "found 2", "differs", ("shown", "press"), (first, *many), note="both threw"
    )
    trial = Trial("found 2", {"free": 3}, steps=[{"press": {"tag": "b"}}])
    found = Verification(
        (SAME, failing), tried=2, points=4, generated=True, sources=(trial,), mounted="Tide"
    )
    lines = list(terminal.verdict(found, "Tide.jsx"))
    text = "\n".join(lines).replace("\x1b", "")
    assert not any("found 1" in line for line in lines), "trials that are the same are not listed"
    for part in (
        "found 2", "2 points", "both threw", "after step 1 (press): style at /p[1] color",
        "by   only old has .tide", "old  red", "onPick(0)", "no call", "… and 3 more",
        'props: {"free": 3}', "step 1: press on b", "(2 trials generated and run, 4 points compared)",
    ):  # fmt: skip
        assert part in text, part


def test_the_reason_nothing_ran_is_told() -> None:
    reason = "neither side exports a component of the same name"
    lines = "\n".join(terminal.verdict(Verification((), reason=reason), "Tide.jsx"))
    assert reason in lines and "not run" in lines and "(0 trials run, 0 points" in lines


def test_a_verdict_over_too_little_code() -> None:
    missed = (
        {"line": 9, "kind": "function", "name": "close"},
        {"line": 12, "kind": "function", "name": ""},
        {"line": 14, "kind": "if", "name": ""},
    )
    found = Verification((SAME,), tried=1, reach=(Reach(1, 4, missed), Reach(4, 4, ())))
    assert found.verdict == "same" and found.measured(25).verdict == "same"
    short = found.measured(60)
    assert short.verdict == "unproven"
    facts = list(words.facts(short))
    only = "unproven: nothing differed, but only 25 % of one version's own code ran, less than 60 %"
    assert ("unproven", only) in facts
    assert ("never", "never ran in old: close, the function in line 12") in facts
    assert not any(text.startswith("never ran in new") for _, text in facts)
