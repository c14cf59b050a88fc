"""What is left out where a controller component is compared with one in another runtime, and what is not."""

from __future__ import annotations

import pytest

from clean_carry.verify.normalise_controllers import ControllerNormaliser
from clean_carry.verify.normalise_decorated import CheckedNormaliser, DecoratedNormaliser


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ({"class": "ng-scope berth ng-binding"}, {"class": "berth"}),
        ({"class": "ng-dirty ng-valid-required"}, {}),
        ({"class": "ng-table"}, {"class": "ng-table"}),
        ({"class": "berth ng-hide"}, {"class": "berth", "style": "display:none"}),
        ({"title": "{{ pier }}"}, {"title": "{{ pier }}"}),
        ({"ng-click": "go()", "title": "Pier"}, {"title": "Pier"}),
    ],
)
def test_attributes(before: dict[str, str], after: dict[str, str]) -> None:
    [[_, kept, _, _]] = ControllerNormaliser().tree([["p", before, {}, []]])
    assert kept == after


def test_a_value_that_is_written_back_is_compared_and_one_that_is_lost_is_not() -> None:
    normaliser = ControllerNormaliser()
    written = ["pier is set", "North"]
    assert normaliser.unchecked([written, ["pier is set", {"$": "undefined"}]]) == [written]
    assert normaliser.used["template-expression"] == 1


def test_errors_in_another_order_are_counted() -> None:
    normaliser = CheckedNormaliser()
    assert normaliser.errors(["b", "a"]) == ["a", "b"]
    assert normaliser.used["checked-again"] == 1


def test_a_place_is_numbered_as_without_the_elements_of_components() -> None:
    rows = [["app-row", {}, None, [["li", {}, None, [["b", {}, None, []]]]]] for _ in range(2)]
    normaliser = DecoratedNormaliser()
    normaliser.tree([["app-list", {}, None, [["ul", {}, None, rows]]]])
    assert normaliser.place("app-list[1]/ul[1]/app-row[2]/li[1]/b[1]") == "ul[1]/li[2]/b[1]"
    normaliser.tree([["trial-place", {}, None, [["app-list", {}, None, [["ul", {}, None, rows]]]]]])
    second = "div[1]/div[2]/app-list[1]/ul[1]/app-row[2]/li[1]"
    assert normaliser.place(second) == "div[1]/div[2]/ul[1]/li[2]"
    assert (
        normaliser.place(f"html[1]/body[1]/{second}") == "html[1]/body[1]/div[1]/div[2]/ul[1]/li[2]"
    )
