"""What is left out where a controller component is compared with one in another runtime, and what is not."""

from __future__ import annotations

import pytest

from clean_carry.verify.normalise_controllers import ControllerNormaliser
from clean_carry.verify.normalise_decorated import CheckedNormaliser


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
