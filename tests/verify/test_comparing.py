"""Normalising, comparing and reading trials, on their own."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.errors import InputError
from clean_carry.component.interface import interface_of
from clean_carry.verify.compare import differences, draws_or_calls, tree_differences
from clean_carry.verify.normalise import RULES, Normaliser
from clean_carry.verify.normalise_scoped import ScopedNormaliser
from clean_carry.verify.trials import Trial, load


def el(name: str, *children: Any, state: Any = None, **attributes: str) -> list[Any]:
    return [name, {k.rstrip("_"): v for k, v in attributes.items()}, state, list(children)]


SAME: list[tuple[str, list[Any], list[Any]]] = [
    ("comments", ["a", None], ["a"]),
    ("split-text", ["a", "b"], ["ab"]),
    ("white-space", [el("p", "\n  a  b "), " ", el("p")], [el("p", "a b"), el("p")]),
    ("class-order", [el("p", class_="b  a")], [el("p", class_="a b")]),
    ("boolean-attribute", [el("input", disabled="disabled")], [el("input", disabled="")]),
    (
        "form-state",
        [el("input", state={"value": "x"}, value="a")],
        [el("input", state={"value": "x"})],
    ),
    ("style-spacing", [el("p", style="color: red; ")], [el("p", style="color:red")]),
    (
        "function-source",
        [el("b", on="function () { [native code] }"), el("i", on="(e) => { a.b(e); }")],
        [el("b", on="async function go(a) {\n  b();\n}"), el("i", on="e => c(e)")],
    ),
    (
        "made-up-id",
        [el("b", id=":r1:"), el("i", for_=":r1:")],
        [el("b", id=":r7:"), el("i", for_=":r7:")],
    ),
]


@pytest.mark.parametrize(("rule", "old", "new"), SAME, ids=[row[0] for row in SAME])
def test_a_rule_and_its_count(rule: str, old: list[Any], new: list[Any]) -> None:
    one, other = Normaliser(), Normaliser()
    assert tree_differences(one.tree(old), other.tree(new)) == []
    assert one.used[rule] + other.used[rule] > 0


def test_the_scope_mark_goes_only_where_it_is_named() -> None:
    marked = [el("p", **{"data-v-1": ""})]
    assert Normaliser(("data-v-*",)).tree(marked) == [el("p")]
    assert Normaliser().tree(marked) == marked


def test_an_empty_class_says_nothing_only_between_two_frameworks() -> None:
    empty, none = [el("p", class_="")], [el("p")]
    assert tree_differences(Normaliser().tree(empty), Normaliser().tree(none))
    across = Normaliser(across=True)
    assert tree_differences(across.tree(empty), across.tree(none)) == []
    assert across.used["empty-class"] == 1


def beside(*imported: str, styles: tuple[str, ...] = ()) -> Normaliser:
    page = Normaliser(across=True)
    page.folder, page.imported, page.styles = "/site/tours", imported, styles
    return page


def test_a_picture_of_a_page_is_the_one_that_the_component_imports() -> None:
    def shown(source: str, imported: str, tag: str = "img") -> str:
        page = beside(imported)
        result: str = page.tree([el(tag, src=source)])[0][1]["src"]
        assert page.used["asset-path"] == (result[:1] == "/")
        return result

    assert shown("./img/tern.png", "/site/tours/img/tern.png") == "/tern.png"
    assert shown("../tern.png#a", "/site/tern.png") == "/tern.png#a"
    # Another file of the same name, what no template imports, and an attribute that is none of a picture.
    assert shown("./img/tern.png", "/site/tours/old/tern.png") == "./img/tern.png"
    assert shown("img/tern.png", "/site/tours/img/tern.png") == "img/tern.png"
    assert shown("./img/tern.png", "/site/tours/img/tern.png", tag="script") == "./img/tern.png"


def test_a_style_of_a_page_is_as_the_browser_writes_it() -> None:
    style = {"style": "margin:0", "trial-style": "margin: 0px;"}
    page = beside()
    assert page.tree([el("p", **style)]) == [el("p", style="margin:0px")]
    assert page.used["style-spelling"] == 1
    # The component renders the text of the page, or the browser writes nothing else.
    page = beside(styles=("margin:0",))
    assert page.tree([el("p", **style)]) == [el("p", style="margin:0")]
    same = {"style": "color: red;", "trial-style": "color: red;"}
    assert page.tree([el("p", **same)]) == [el("p", style="color:red")]
    assert page.used["style-spelling"] == 0


def test_every_rule_is_in_the_docs() -> None:
    page = (Path(__file__).parents[2] / "docs" / "normalised-differences.md").read_text("utf-8")
    assert [rule.name for rule in RULES if f"`{rule.name}`" not in page] == []


DIFFERENT = [
    ([el("b", "a"), " ", el("b", "c")], [el("b", "a"), el("b", "c")]),
    ([el("pre", "a  b")], [el("pre", "a b")]),
    ([el("p", title="a")], [el("p")]),
    ([el("p")], [el("svg:p")]),
    ([el("input", state={"value": "a"})], [el("input", state={"value": "b"})]),
    ([el("b", id=":r1:"), el("i", for_=":r1:")], [el("b", id=":r1:"), el("i", for_=":r2:")]),
    (["a"], ["b"]),
    ([el("p")], []),
]


@pytest.mark.parametrize(("old", "new"), DIFFERENT)
def test_what_counts_is_told_apart(old: list[Any], new: list[Any]) -> None:
    assert tree_differences(Normaliser().tree(old), Normaliser().tree(new))


def answer(**changes: Any) -> dict[str, Any]:
    point = {"name": "shown", "tree": [el("p")], "frames": [], "calls": [], "requests": [],
             "errors": [], "prevented": [], "missing": None, "focus": ""}  # fmt: skip
    end = {"calls": [], "requests": [], "errors": []}
    left = {k: changes.pop(k) for k in ("timers", "listeners", "elements") if k in changes}
    return {
        "points": [point | changes],
        "left": {"timers": [], "listeners": []} | left,
        "last": end,
    }


@pytest.mark.parametrize(
    ("what", "changes"),
    [("tree", {"tree": [el("b")]}), ("calls", {"calls": [["onPick", 1]]}), ("focus", {"focus": "p[1]"}),
     ("requests", {"requests": [{"url": "/a"}]}), ("errors", {"errors": ["Error: x"]}),
     ("prevented", {"prevented": [["click", True]]}), ("before paint", {"frames": [[el("i")]]}),
     ("timers left", {"timers": ["interval 100"]}), ("listeners left", {"listeners": ["window resize"]}),
     ("elements left", {"elements": 1}), ("target", {"missing": {"role": "button"}})],
)  # fmt: skip
def test_each_thing_seen_is_compared(what: str, changes: dict[str, Any]) -> None:
    empty = {"timers": [], "listeners": []}
    found = differences("t", answer(), answer(**changes), (empty, empty),
                        (Normaliser(), Normaliser()), one_runtime=True)  # fmt: skip
    assert what in [difference.what for difference in found]
    assert found[0].trial == "t"


def test_what_the_runtime_leaves_is_no_leak() -> None:
    common = {"timers": [], "listeners": ["document selectionchange"]}
    new = answer(listeners=["document selectionchange"])
    sides = (Normaliser(), Normaliser())
    assert differences("t", answer(), new, (common, common), sides, one_runtime=True) == []


def test_a_side_that_draws_nothing_did_not_run() -> None:
    assert not draws_or_calls(answer(tree=["text only"]))
    assert draws_or_calls(answer(tree=[], calls=[["a"]]))


def test_trials_are_renamed_by_the_interface() -> None:
    trial = Trial(
        "t", {"a": 1}, {"change": {}}, {"title": ["x"]}, [], [{"change": {"inputs": {"a": 2}}}]
    )
    names = interface_of((("a", "b"),), (("change", "onChange"),), (("title", "titleSlot"),))
    request = trial.request(names)
    assert request["inputs"] == {"b": 1}
    assert request["functions"] == {"onChange": {"called": "change"}}
    assert request["slots"] == {"titleSlot": ["x"]}
    assert request["steps"] == [{"change": {"inputs": {"b": 2}}}]


def test_what_only_looks_like_an_error() -> None:
    given = [["onFail", {"$": "error", "tide": {"$": "event", "target": 1}}, {"at": 1}]]
    assert Normaliser().values(given) == ScopedNormaliser((), ()).values(given) == given


def test_a_step_the_schema_does_not_know(tmp_path: Path) -> None:
    path = tmp_path / "t.yaml"
    path.write_text("trials: [{ name: a, steps: [{ dance: true }] }]")
    with pytest.raises(InputError, match="dance"):
        load(path)


def handed(message: str, name: str = "TypeError") -> list[Any]:
    return [["onFail", {"$": "error", "name": name, "message": message}, {"at": 1}]]


@pytest.mark.parametrize(
    ("old", "new", "same"),
    [
        (handed("tide.load is not a function"), handed("tide2.load is not a function"), True),
        (handed("the tide is out"), handed("the tide is in"), False),
        (handed("the tide is out"), handed("the tide is out", "RangeError"), False),
        (handed("tide is not a function"), handed("tide is not a function", "Error"), False),
    ],
)
def test_an_error_that_is_handed_on(old: list[Any], new: list[Any], same: bool) -> None:
    for sides in (
        (Normaliser(), Normaliser()),
        (ScopedNormaliser((), ()), ScopedNormaliser((), ())),
    ):
        assert (sides[0].values(old) == sides[1].values(new)) is same
        assert sides[0].used["error-wording"] == ("is not a function" in str(old))


ROUNDS = "Error: [$rootScope:infdig] 10 $digest() iterations reached. Aborting!"


def test_an_error_about_rounds_is_compared_by_what_it_says_first() -> None:
    one = [f'{ROUNDS}\nWatchers fired: [{{"msg":"tide && berth()"}}]', "Error: low\nwater"]
    other = [f'{ROUNDS}\nWatchers fired: [{{"msg":"$ctrl.tide && $ctr', "Error: low\nwater"]
    first, second = ScopedNormaliser((), ()), ScopedNormaliser((), ())
    assert first.errors(one) == second.errors(other) == [ROUNDS, "Error: low\nwater"]
    assert first.used["error-wording"] == 1


def test_a_function_and_a_word_are_told_apart() -> None:
    for word in ("functional", "function", "a => ", "(b) =>", ""):
        one, other = [el("b", on="function a() { }")], [el("b", on=word)]
        assert tree_differences(Normaliser().tree(one), Normaliser().tree(other)), word


SCOPED: list[tuple[str, list[Any], list[Any]]] = [
    (
        "template-expression",
        [["button", {"ng-click": "go()", "title": "a go."}, None, []]],
        [["button", {"ng-click": "$ctrl.go()", "title": "a go."}, None, []]],
    ),
    (
        "template-expression",
        [["tide-bar", {"level": "mark.level"}, None, []]],
        [["tide-bar", {"level": "$ctrl.level"}, None, []]],
    ),
    ("used-as-attribute", [["tide-bar", {"tide-bar": ""}, None, []]], [["tide-bar", {}, None, []]]),
    ("runtime-marks", [el("p", class_="ng-scope a")], [el("p", class_="a ng-isolate-scope")]),
    (
        "element-stays",
        [el("section", "x", class_="strip wide", title="a b", id="s")],
        [["tide-strip", {"class": "wide", "title": "a"}, None, [el("section", "x", class_="strip", title="b", id="s")]]],
    ),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "old", "new"), SCOPED)
def test_a_rule_of_scoped_templates_and_its_count(
    rule: str, old: list[Any], new: list[Any]
) -> None:
    one, other = (ScopedNormaliser(("tideStrip",), ("mark",)) for _ in range(2))
    assert tree_differences(one.tree(old), other.tree(new)) == []
    assert one.used[rule] + other.used[rule] > 0


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ([["p", {"ng-click": "go()"}, None, ["a"]]], [["p", {"ng-click": "go()"}, None, ["b"]]]),
        ([el("p", class_="ng-hide")], [el("p")]),
        ([["tide-bar", {"level": "1"}, None, []]], [["tide-bar", {"level": "2"}, None, []]]),
        ([el("section")], [["tide-strip", {}, None, [el("section"), el("section")]]]),
        ([el("section")], [["other-strip", {}, None, [el("section")]]]),
        ([el("a", title="grid.html")], [el("a", title="html")]),
    ],
)
def test_what_a_scoped_template_shows_is_compared(old: list[Any], new: list[Any]) -> None:
    one, other = (ScopedNormaliser(("tideStrip",), ("mark", "grid")) for _ in range(2))
    assert tree_differences(one.tree(old), other.tree(new)) != []


def test_places_are_told_without_elements_that_stay() -> None:
    side = ScopedNormaliser(("tideStrip",), ())
    assert side.place("tide-strip[1]/section[1]/b[2]") == "section[1]/b[2]"
    event = {"$": "event", "target": "tide-strip[1]/b[1]", "value": "tide-strip[1]"}
    assert side.values([["go", {"of": event}]]) == [["go", {"of": {**event, "target": "b[1]"}}]]
    assert side.errors(["Error: r in $ctrl.rows\nhttps://x"]) == ["Error: r in rows"]


GONE: list[tuple[list[str], list[str], list[Any], bool]] = [
    # (errors of the old side, of the new one, what stands in the page, whether they differ)
    (["a", "b"], ["a"], [], False),
    (["a"], ["a", "c"], [None], False),
    (["a", "b"], ["b", "a"], [], True),
    (["a"], [], [], True),
    (["a", "b"], ["a"], [["p", {}, None, []]], True),
    (["a", "b"], ["a", "c"], [], True),
]


def failing(*points: tuple[list[Any], list[str]]) -> dict[str, Any]:
    """The answer of a run whose points have these trees and errors."""
    rest: dict[str, Any] = {"timers": [], "listeners": [], "elements": 0}
    return {
        "points": [
            {
                "name": "shown", "tree": tree, "frames": [], "calls": [], "requests": [],
                "errors": errors, "prevented": [], "missing": None, "focus": "",
            }
            for tree, errors in points
        ],
        "left": rest,
        "last": {"calls": [], "errors": [], "requests": []},
    }  # fmt: skip


def told(old: dict[str, Any], new: dict[str, Any], one_runtime: bool = True) -> list[str]:
    nothing: dict[str, Any] = {"timers": [], "listeners": []}
    sides = Normaliser(), Normaliser()
    found = differences("t", old, new, (nothing, nothing), sides, one_runtime=one_runtime)
    used = sides[0].used["taken-away"] + sides[1].used["taken-away"]
    return [d.what for d in found] or ["taken-away"] * used


@pytest.mark.parametrize(("old", "new", "tree", "differ"), GONE)
def test_a_component_that_failed_and_is_gone(
    old: list[str], new: list[str], tree: list[Any], differ: bool
) -> None:
    found = told(failing((tree, old)), failing((tree, new)))
    assert found == (["errors"] if differ else ["taken-away"])


def test_only_a_component_that_was_there_is_taken_away() -> None:
    drawn: tuple[list[Any], list[str]] = ([el("p")], [])
    old, new = ([], ["a", "b"]), ([], ["a"])
    assert told(failing(drawn, old), failing(drawn, new)) == ["taken-away"]
    # One that draws nothing only fails in what it listens to.
    nothing: tuple[list[Any], list[str]] = ([], [])
    assert told(failing(nothing, old), failing(nothing, new)) == ["errors"]
    # Two runtimes tell what follows in their own ways, but not what it failed of.
    assert told(failing(old), failing(new), one_runtime=False) == []
    assert told(failing(old), failing(([], ["b"])), one_runtime=False) == ["errors"]
    # Shown once more is shown anew.
    again, other = failing(nothing, old), failing(nothing, new)
    again["points"][1]["name"] = other["points"][1]["name"] = "return"
    assert told(again, other) == ["taken-away"]
