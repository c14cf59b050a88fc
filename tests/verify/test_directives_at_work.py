"""Directives in the renderer: what stands around them, beside them and in them, and how they go."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

from clean_carry.verify.pair import sides_of
from clean_carry.verify.worker_pool import Bench

HARBOUR = """angular.module('harbour', [])
  .directive('ghQuay', function () {
    return {
      restrict: 'A',
      controller: ['$attrs', '$scope', function ($attrs, $scope) {
        this.rows = function () { return ($scope.$eval($attrs.ghQuay) || []).length; };
      }]
    };
  })
  .directive('ghBerth', function () {
    return {
      restrict: 'E', transclude: true, require: '^ghQuay', scope: { name: '@', gone: '&' },
      template: '<b>{{ name }} {{ rows }}</b><div ng-transclude></div>',
      link: function (scope, element, attrs, quay) {
        scope.rows = quay.rows();
        scope.$on('$destroy', function () { scope.gone(); });
      }
    };
  });
"""


def tried(bench: Bench, folder: Path, **request: Any) -> list[dict[str, Any]]:
    (folder / "package.json").write_text("{}", "utf-8")
    place = folder / "harbour.js"
    place.write_text(HARBOUR, "utf-8")
    before, _, _ = sides_of(place, HARBOUR, place, HARBOUR)
    side = replace(before, exported="ghBerth")
    with bench.lane() as lane:
        answer = lane.trial(bench.build(side), "ghBerth", {"inputs": {}, **request})
    points: list[dict[str, Any]] = answer["points"]
    return points


def berths(point: dict[str, Any]) -> int:
    return json.dumps(point["tree"]).count('["gh-berth"')


def test_what_its_parent_keeps(bench: Bench, tmp_path: Path) -> None:
    for rows in (0, 12):
        (point,) = tried(bench, tmp_path, inputs={"name": "Holm", "$around.rows": rows}, steps=[])
        assert f'"Holm {rows}"' in json.dumps(point["tree"])


def test_another_one_beside_it(bench: Bench, tmp_path: Path) -> None:
    for beside in (False, True):
        (point,) = tried(
            bench, tmp_path, inputs={"name": "Holm", "$around.beside": beside}, steps=[]
        )
        assert berths(point) == 1 + beside
        assert json.dumps(point["tree"]).count("Holm 0") == 1 + beside


def test_parts_of_its_content_come_and_go(bench: Bench, tmp_path: Path) -> None:
    parts = [{"tag": "i", "content": [word]} for word in ("Holm", "Ayre")]
    shown = ["1 2", "2", ""]
    changes = [{"change": {"inputs": {"$around.parts": these}}} for these in shown[1:]]
    points = tried(
        bench,
        tmp_path,
        inputs={"$around.parts": shown[0]},
        slots={"default": parts},
        functions={"gone": {}},
        steps=changes,
    )
    drawn = [json.dumps(point["tree"]) for point in points]
    assert [[w for w in ("Holm", "Ayre") if w in tree] for tree in drawn] == [
        ["Holm", "Ayre"],
        ["Ayre"],
        [],
    ]


def test_it_goes_without_an_error(bench: Bench, tmp_path: Path) -> None:
    points = tried(
        bench, tmp_path, functions={"gone": {}}, steps=[{"return": True}, {"remove": True}]
    )
    assert [point["errors"] for point in points] == [[], [], []]
    assert [[call[0] for call in point["calls"]] for point in points] == [[], ["gone"], ["gone"]]


CARD = """angular.module('gullmoor', []).directive('shipCard', function () {
  return {
    restrict: 'E',
    replace: true,
    transclude: { title: 'cardTitle', rest: '?cardRest' },
    scope: { open: '=?' },
    template: '<article><h4 ng-click="toggle()" ng-transclude="title"></h4><div ng-if="open" ng-transclude="rest">no more</div></article>',
    link: function ($scope, $element) {
      $scope.toggle = function () { $scope.open = !$scope.open; };
      $scope.$watch('open', function (open) { $element.attr('aria-expanded', String(!!open)); });
    }
  };
});
"""


def test_slots_that_take_elements_by_name_are_filled(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "card.js").write_text(CARD)
    done = run("carry", "card.js", "--to", "controller-component", "--write", "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["verification"]["verdict"] == "same", result["verification"]
    assert result["verification"]["reach"]["old"]["percent"] == 100
    # The element has the name its service has: it is not declared anew.
    text = (tmp_path / "card.component.js").read_text()
    assert "\n      $element = $element.children();" in text
