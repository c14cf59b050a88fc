"""Values made for inputs, from what is known of them."""

from __future__ import annotations

from typing import Any

import pytest

from clean_carry.verify.search.values.shape import Shape, kind_of
from clean_carry.verify.search.values.values import (
    LONG,
    MARKUP,
    NOT_A_NUMBER,
    OUTSIDE,
    SCRIPTS,
    UNDEFINED,
    function_plans,
    is_content,
    is_function,
    kind,
    reply_plans,
    typical,
    variants,
)

KINDS: list[tuple[str, Shape, str]] = [
    # By declaration first.
    ("on", Shape({"string"}), "string"),
    ("rows", Shape({"number"}, declared=True), "number"),
    ("value", Shape({"string", "array"}), "array"),
    ("berth", Shape(fields={"name": Shape()}), "object"),
    # By use.
    ("berth", Shape(tested=True), "boolean"),
    ("pick", Shape({"function", "string"}, sometimes=True), "string"),
    # By name, where nothing tells.
    ("onPick", Shape(), "function"),
    ("title", Shape(), "string"),
    ("items", Shape(), "array"),
    ("isOpen", Shape(), "boolean"),
    ("disabled", Shape(), "boolean"),
    ("pageSize", Shape(), "number"),
    ("maxRows", Shape(), "number"),
    ("sailings", Shape(items=Shape()), "array"),
    ("component", Shape(), "tag"),
    ("itemTag", Shape({"string"}), "tag"),
    ("quay", Shape(), "string"),
]


@pytest.mark.parametrize(("name", "shape", "expected"), KINDS)
def test_the_one_kind_a_typical_value_has(name: str, shape: Shape, expected: str) -> None:
    assert kind(name, shape) == expected


TYPICAL: list[tuple[str, Shape, Any]] = [
    ("kind", Shape({"string"}, literals=["open", "full"]), "open"),
    ("kind", Shape(literals=[False, "open"]), "open"),
    ("quay", Shape({"string"}, used=["north"]), "north"),
    ("target", Shape(), OUTSIDE),
    ("appendTo", Shape({"string"}), "body"),
    ("isOpen", Shape(), True),
    ("readOnly", Shape({"boolean"}), False),
    ("size", Shape({"number"}), 3),
    ("href", Shape({"string"}), "#holm"),
    ("id", Shape({"string"}), "id-1"),
    ("berthId", Shape({"string"}), "id-1"),
    ("query", Shape({"string"}), "Holm"),
    ("label", Shape({"string"}), "label Holm"),
    ("style", Shape({"style"}), {"color": "red"}),
    ("ref", Shape({"reference"}), UNDEFINED),
    ("onPick", Shape(), {"$": "function", "called": "onPick"}),
    ("byName", Shape(keyed="label"), {"label Holm": True}),
    ("rows", Shape({"array"}, holds=["a", "b", "c", "d"]), ["a", "b", "c"]),
    ("label", Shape({"string"}, alike="selected"), "selected Holm"),
    ("berth", Shape({"object"}, fields={"name": Shape(), "constructor": Shape()}), {"name": "name Holm"}),
]  # fmt: skip


@pytest.mark.parametrize(("name", "shape", "value"), TYPICAL)
def test_a_typical_value(name: str, shape: Shape, value: Any) -> None:
    assert typical(name, shape) == value


def test_members_of_a_list_differ_from_each_other() -> None:
    inner = Shape(fields={"id": Shape(), "name": Shape(), "free": Shape({"boolean"})})
    first, second = typical("berths", Shape({"array"}, items=inner))
    assert first["id"] != second["id"] and first["name"] != second["name"]
    assert first["free"] != second["free"]
    numbers = Shape(fields={"from": Shape({"number"}), "till": Shape({"number"})})
    one, _ = typical("berths", Shape({"array"}, items=numbers))
    assert one["from"] != one["till"], "numbers of one thing must not be taken for one another"


def test_depth_has_an_end() -> None:
    shape = Shape({"object"})
    shape.fields["inside"] = shape
    value = typical("harbour", shape)
    for _ in range(4):
        value = value["inside"]
    assert value == {}
    rows = Shape({"array"})
    rows.items = rows
    assert str(typical("rows", rows)).count("[") < 40


VARIED: list[tuple[str, Shape, list[Any]]] = [
    ("open", Shape({"boolean"}, declared=True, required=True), [True, False]),
    ("open", Shape({"boolean"}, declared=True), [True, False, UNDEFINED]),
    ("open", Shape({"boolean"}, declared=True, tested=True), [True, False, None, UNDEFINED]),
    ("size", Shape({"number"}, hints=[12], declared=True), [12, 0, 1, -1, 2_147_483_648, NOT_A_NUMBER]),
    ("label", Shape({"string"}), ["", MARKUP, LONG, *SCRIPTS, None]),
    ("kind", Shape({"string"}, literals=["open"]), ["open", "kind Skail", ""]),
    ("label", Shape({"string"}, holds=["ferry"]), ["a ferry b"]),
    ("rows", Shape({"array"}, holds=["ferry"]), [["ferry"], []]),
    ("tag", Shape(), ["b", "label"]),
    ("at", Shape({"date"}), [{"$": "date", "time": 0}]),
    ("look", Shape({"style"}), [{}, {"width": 10, "display": "none"}]),
    ("pick", Shape({"function", "string"}, sometimes=True), [{"$": "function", "called": "pick"}]),
    ("label", Shape({"string"}, default=("Berth",)), ["Berth"]),
]  # fmt: skip


@pytest.mark.parametrize(("name", "shape", "among"), VARIED)
def test_the_edges_of_a_kind(name: str, shape: Shape, among: list[Any]) -> None:
    values = variants(name, shape)
    assert [value for value in among if value not in values] == []
    told = [(type(value), str(value)) for value in values]
    assert len(told) == len(set(told)), "no value is tried twice"


def test_what_is_only_one_of_its_words_is_never_another() -> None:
    values = variants("kind", Shape({"string"}, literals=["a", "b"], declared=True, listed=True))
    assert values == ["a", "b", UNDEFINED]


def test_lists_are_empty_short_long_and_turned_round() -> None:
    shape = Shape({"array"}, items=Shape(fields={"id": Shape()}), hints=[7], declared=True)
    values = variants("rows", shape)
    lengths = {len(value) for value in values if isinstance(value, list)}
    assert {0, 1, 3, 7, 24} <= lengths
    ids = [[row["id"] for row in v] for v in values if isinstance(v, list) and len(v) == 3]
    assert ids == [["id-1", "id-2", "id-3"], ["id-3", "id-2", "id-1"]]


def test_each_field_of_an_object_is_another_or_missing_in_turn() -> None:
    shape = Shape({"object"}, fields={"open": Shape({"boolean"}), "name": Shape({"string"})})
    values = [value for value in variants("berth", shape) if isinstance(value, dict)]
    assert {} in values
    assert any("open" not in value and "name" in value for value in values)
    assert any("name" not in value and "open" in value for value in values)
    assert {value["open"] for value in values if "open" in value} >= {True, False}


def test_kinds_take_turns() -> None:
    shape = Shape({"string", "number", "object"}, fields={"id": Shape({"number"})}, declared=True)
    values = variants("berth", shape)
    kinds = [type(value).__name__ for value in values[:6]]
    assert sorted(kinds) == ["dict", "dict", "int", "int", "str", "str"]
    assert {"id": 1} in [value for value in values if isinstance(value, dict)]


def test_an_object_among_other_kinds_has_its_fields() -> None:
    action = Shape({"content", "object"}, fields={"go": Shape({"function"}, declared=True)})
    values = variants("toast", Shape({"object"}, fields={"action": action}, declared=True))
    assert {"action": {"go": {"$": "function", "called": "go"}}} in values


GIVEN_AS: list[tuple[str, Shape, bool, bool]] = [
    # (name, shape, as a function, as content)
    ("onPick", Shape(), True, False),
    ("renderRow", Shape(), True, False),
    ("inputRef", Shape(), True, False),
    ("label", Shape(), False, False),
    ("pick", Shape({"function"}), True, False),
    ("pick", Shape({"function", "string"}), True, False),
    ("pick", Shape({"function", "string"}, declared=True), False, False),
    ("pick", Shape({"function"}, sometimes=True), False, False),
    ("pick", Shape({"function"}, sometimes=True, declared=True), True, False),
    ("children", Shape(), False, True),
    ("children", Shape({"function"}), True, False),
    ("head", Shape({"content"}, declared=True), False, True),
    ("head", Shape({"content"}), False, False),
]


@pytest.mark.parametrize(("name", "shape", "function", "content"), GIVEN_AS)
def test_what_is_given_as_what(name: str, shape: Shape, function: bool, content: bool) -> None:
    assert is_function(name, shape) is function
    assert is_content(name, shape) is content


def test_a_function_first_does_what_the_code_needs() -> None:
    assert function_plans(Shape())[0] == {}
    promised = function_plans(Shape(result=Shape({"promise"}, fields={"ok": Shape({"boolean"})})))
    assert promised[0]["after"] == 20 and "resolves" in promised[0]
    drawn = function_plans(Shape(result=Shape({"content"})))
    assert drawn[0]["returns"]["$"] == "markup" and {"returns": None} in drawn
    given = function_plans(Shape(result=Shape({"number"})))
    assert given[0] == {"returns": 3}
    for plans in (promised, drawn, given):
        assert {"throws": "the function failed"} in plans
        assert {"rejects": "the promise failed", "after": 20} in plans


def test_replies_go_wrong_in_every_way_and_overtake_each_other() -> None:
    plans = reply_plans(Shape({"object"}, fields={"rows": Shape({"array"}, items=Shape())}))
    first = [plan[0] for plan in plans]
    assert any(reply.get("status") == 500 for reply in first)
    assert any(reply.get("fail") for reply in first)
    assert any(reply.get("text") == "{" for reply in first)
    assert any("json" in reply and reply["json"] is None for reply in first)
    slow, fast = plans[-1]
    assert slow["once"] and slow["after"] > fast["after"] and slow["json"] != fast["json"]


@pytest.mark.parametrize(("value", "named"), [(True, "boolean"), (3, "number"), (0.5, "number"), ("x", "string")])  # fmt: skip
def test_the_kind_of_a_literal(value: Any, named: str) -> None:
    assert kind_of(value) == named


BOUNDS: list[tuple[str, Shape, Any]] = [
    ("min", Shape({"number"}), 1),
    ("max", Shape({"number"}), 10),
    ("maxLength", Shape({"number"}), 10),
    ("rowMax", Shape({"number"}), 10),
    ("minimal", Shape({"number"}), 3),
    ("maxim", Shape({"number"}), 3),
]


@pytest.mark.parametrize(("name", "shape", "value"), BOUNDS)
def test_bounds_leave_room_between_them(name: str, shape: Shape, value: int) -> None:
    assert typical(name, shape) == value


def test_dates_lie_between_their_bounds() -> None:
    low, at, high = (typical(n, Shape({"date"}))["time"] for n in ("minDate", "date", "maxDate"))
    assert low < at < high


def test_what_has_a_length_among_other_fields() -> None:
    ship = Shape({"object", "sized"}, fields={"name": Shape({"string"})})
    assert set(typical("ship", ship)) == {"name", "length"}
    assert set(typical("ship", Shape({"object"}, fields=ship.fields))) == {"name"}


def test_members_of_a_list_lack_what_they_are_asked_for_in_turn() -> None:
    asked = {name: Shape({"string"}, tested=True) for name in ("icon", "to", "hint", "mark")}
    plain = {"name": Shape({"string"}), "open": Shape({"boolean"}, tested=True)}
    rows = typical("rows", Shape({"array"}, items=Shape({"object"}, fields={**asked, **plain})))
    more = typical("row", Shape({"object"}, fields={**asked, **plain}), 2, 1)
    assert set(rows[0]) == {*asked, *plain}
    assert set(rows[1]) == {"icon", "hint", *plain}
    assert set(more) == {"to", "mark", *plain}


@pytest.mark.parametrize("name", ["type", "position", "contentClass", "iconSize", "titleColor"])
def test_what_becomes_a_part_of_a_class_holds_no_space(name: str) -> None:
    assert typical(name, Shape({"string"})) == f"{name}-holm"
    assert typical(f"{name}s", Shape({"string"})) == f"{name}s Holm"
