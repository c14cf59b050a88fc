"""What a directive's factory holds once becomes a service beside the component."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """angular.module('gullmoor', []).directive('tideLamp', [%sfunction(%s) {
  %s
  return {
    restrict: 'E',
    scope: { tide: '=' },
    template: '<b>{{ id }} {{ tide }}</b>',
    %s: function(scope) { %s }
  };
}]);
"""


def carried(
    folder: Path,
    before: str,
    used: str,
    given: str = "",
    names: str = "",
    where: str = "link",
) -> Result:
    (folder / "package.json").write_text('{"name": "gullmoor"}')
    path = folder / "lamp.js"
    path.write_text(FILE % (given, names, before, where, used))
    return carry_file(Request(path, "lamp.js", "controller-component"))[0]


COUNTER = "var lamps = 0;\n  function next() { return ++lamps; }"


def test_a_counter_and_its_function(tmp_path: Path) -> None:
    result = carried(tmp_path, COUNTER, "scope.id = next();")
    assert result.status == "clean", result.findings
    text = result.files[0].text
    service, component = text.split(".component(")
    assert ".factory('tideLampShared', function() {\n  var lamps = 0;\n  function next()" in service
    assert "return { next: next };" in service
    assert "['tideLampShared', function(tideLampShared) {" in component
    assert "var next = tideLampShared.next;" in component and "lamps" not in component
    assert "shared-as-service" in {finding.rule for finding in result.findings}


def test_what_each_may_have_for_itself_stays_inside(tmp_path: Path) -> None:
    before = COUNTER + "\n  function shown() { return 'lamp ' + next(); }\n  var unit = 'm';"
    text = carried(tmp_path, before, "scope.id = shown() + unit;").files[0].text
    service, component = text.split(".component(")
    assert "shown" not in service and "unit" not in service
    assert "function shown() { return 'lamp ' + next(); }" in component


def test_what_shared_code_calls_goes_with_it(tmp_path: Path) -> None:
    before = "var all = [];\n  function pad(n) { return '0' + n; }\n  all.push(pad(1));"
    service = carried(tmp_path, before, "scope.id = all.length;").files[0].text
    service, component = service.split(".component(")
    assert "function pad" in service and "all.push(pad(1));" in service
    assert "var all = tideLampShared.all;" in component and "pad" not in component


def test_services_are_given_to_whoever_asks(tmp_path: Path) -> None:
    result = carried(
        tmp_path,
        "var all = $q.all([]);",
        "scope.id = all; $timeout(scope.id);",
        given="'$q', '$timeout', ",
        names="$q, $timeout",
    )
    service, component = result.files[0].text.split(".component(")
    assert ".factory('tideLampShared', ['$q', function($q) {" in service
    assert "['$timeout', 'tideLampShared', function($timeout, tideLampShared) {" in component


def test_code_that_only_runs_once_still_runs(tmp_path: Path) -> None:
    text = carried(tmp_path, "start();", "scope.id = 1;").files[0].text
    assert "start();\n\n  return {};" in text and "function(tideLampShared)" in text


CHANGED = [
    (COUNTER, "scope.id = next(); lamps = 0;"),
    ("var open = null;", "scope.id = open; open = scope.id;"),
    ("let [a] = start();", "scope.id = a;"),
    # What ends the factory.
    ("if (start()) { return { template: '<i></i>' }; }", "scope.id = 1;"),
]


def test_what_changes_the_definition_is_refused(tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    path = tmp_path / "lamp.js"
    path.write_text(
        "angular.module('gullmoor', []).directive('tideLamp', function () {\n"
        "  var given = { restrict: 'E', scope: { tide: '=' }, template: '<b>{{ tide }}</b>' };\n"
        "  angular.extend(given, base);\n  return given;\n});\n"
    )
    result = carry_file(Request(path, "lamp.js", "controller-component"))[0]
    assert result.status == "refused", result.files[0].text


@pytest.mark.parametrize(("before", "used"), CHANGED)
def test_what_a_component_writes_is_refused(before: str, used: str, tmp_path: Path) -> None:
    result = carried(tmp_path, before, used)
    assert (result.status, result.findings[0].rule) == ("refused", "shared-between-instances")


def test_the_program_proves_it(run: Any, tmp_path: Path) -> None:
    carried(tmp_path, COUNTER, "scope.id = next();")
    options = ("--to", "controller-component", "--verify", "--budget", "3", "--json")
    done = run("carry", "lamp.js", *options)
    result = json.loads(done.stdout)["results"][0]
    assert result["verification"]["verdict"] == "same", done.stdout[-1500:]
