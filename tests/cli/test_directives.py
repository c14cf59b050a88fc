"""Directives through the built program: carried, verified in the real runtime, refused with a reason."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

PAIRS = Path(__file__).parent.parent / "syntaxes" / "directive" / "pairs"
CARRY = ("carry", "old.js", "--to", "controller-component", "--write")


def project(folder: Path, name: str) -> None:
    """The old side of a pair, in a project of its own."""
    (folder / "package.json").write_text('{"name": "gullmoor"}')
    for file in (PAIRS / name).iterdir():
        if ".component." not in file.name:
            (folder / file.name).write_bytes(file.read_bytes())


def test_a_template_that_asks_for_an_alias_stays(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "alias-kept")
    done = run(*CARRY)
    assert done.returncode == 0, done.stdout + done.stderr
    expected = (PAIRS / "alias-kept" / "new.component.js").read_text()
    assert (tmp_path / "old.component.js").read_text() == expected
    assert done.stdout.count("written:") == 1


def test_carried_with_its_template(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "old.js").write_text(
        "angular.module('gullmoor', []).directive('berthList', function () {\n"
        "  return {\n"
        "    restrict: 'E',\n"
        "    scope: { berths: '<' },\n"
        "    templateUrl: 'berth-list.html'\n"
        "  };\n"
        "});\n"
    )
    (tmp_path / "berth-list.html").write_text('<i ng-repeat="one in berths">{{one.name}}</i>\n')
    done = run(*CARRY)
    assert done.returncode == 0, done.stdout + done.stderr
    assert (tmp_path / "berth-list.component.html").read_text() == (
        '<i ng-repeat="one in $ctrl.berths">{{one.name}}</i>\n'
    )
    assert "'berth-list.component.html'" in (tmp_path / "old.component.js").read_text()
    assert done.stdout.count("written:") == 2


def test_verified_with_trials_that_find_themselves(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "waits-for-inputs")
    (tmp_path / "old.trials.yaml").unlink()
    assert run(*CARRY).returncode == 0
    done = run("verify", "old.js", "old.component.js", "--budget", "6", "--json")
    assert done.returncode == 0, done.stdout + done.stderr
    found = json.loads(done.stdout)
    assert (found["verdict"], found["mounted"]) == ("same", "cargoList")
    assert found["reach"]["old"]["percent"] >= 75
    assert found["normalised"]["template-expression"] > 0


def test_a_component_that_does_something_else_differs(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "bindings")
    assert run(*CARRY).returncode == 0
    new = tmp_path / "old.component.js"
    new.write_text(new.read_text().replace("onFull({ vessel", "onFull({ boat"))
    done = run("verify", "old.js", "old.component.js", "--json")
    assert done.returncode == 1, done.stdout + done.stderr
    rows = [t for t in json.loads(done.stdout)["trials"] if t["verdict"] == "differs"]
    assert {d["what"] for t in rows for d in t["differences"]} == {"calls"}


def test_carried_only_where_it_is_proven(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "required-parent")
    done = run(*CARRY, "--verify", "--budget", "4")
    assert done.returncode == 0, done.stdout + done.stderr
    assert "same" in done.stdout
    assert (tmp_path / "old.component.js").exists()


def test_what_stays_a_directive_is_told(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "old.js").write_text(
        "angular.module('gullmoor', []).directive('dragged', function() {\n"
        "  return { restrict: 'A', link: function(scope, element) { element.on('drag', go); } };\n"
        "});\n"
    )
    done = run(*CARRY)
    assert done.returncode == 1
    assert "behaviour to an element" in done.stdout
    assert not (tmp_path / "old.component.js").exists()


MARK = """angular.module('gullmoor', []).directive('NAME', function() {
  return { restrict: 'A', scope: { tide: '=' }, template: '<b>{{tide}}</b>' };
});
"""
PAGE = """<section>
  <div tide-mark tide="high" class="first"></div>
  <p wind-mark='' tide="low">é</p>
  <table><tr tide-mark tide="x"></tr></table>
</section>
"""


def test_templates_that_use_it_as_an_attribute_are_changed(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "tide.js").write_text(MARK.replace("NAME", "tideMark"))
    (tmp_path / "wind.js").write_text(MARK.replace("NAME", "windMark"))
    (tmp_path / "page.html").write_text(PAGE)
    (tmp_path / "code.js").write_text("make('<div tide-mark></div>');\n")
    done = run("carry", "tide.js", "wind.js", "--to", "controller-component", "--write", "--json")
    assert done.returncode == 0, done.stdout + done.stderr
    assert (tmp_path / "page.component.html").read_text() == PAGE.replace(
        '<div tide-mark tide="high" class="first"></div>',
        '<tide-mark style="display: block" tide="high" class="first"></tide-mark>',
    ).replace(
        "<p wind-mark='' tide=\"low\">é</p>",
        '<wind-mark style="display: block" tide="low">é</wind-mark>',
    )
    told = json.loads(done.stdout)["results"][0]["findings"]
    left = [(f["file"].split("/")[-1], f["line"]) for f in told if f["rule"] == "use-left"]
    assert left == [("page.html", 4), ("code.js", 1)]


def test_bindings_that_go_one_way_are_proven_too(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "bindings")
    (tmp_path / "old.trials.yaml").unlink()
    (tmp_path / "page.html").write_text(
        "<seat-counter seats='desk.seats' capacity='6'></seat-counter>\n"
        '<seat-counter seats="2 + 1"></seat-counter>\n'
    )
    done = run(*CARRY, "--one-way", "--verify", "--budget", "4")
    assert done.returncode == 0, done.stdout + done.stderr
    text = (tmp_path / "old.component.js").read_text()
    assert "    seats: '<',\n    onSeatsChange: '&',\n    capacity: '<'," in text
    assert "$ctrl.onSeatsChange({ $value: $ctrl.seats });" in text
    assert "step: '<?stepBy'" in text
    page = (tmp_path / "page.component.html").read_text()
    assert (
        "<seat-counter seats='desk.seats' on-seats-change=\"desk.seats = $value\" capacity" in page
    )
    assert "use-left" in run(*CARRY[:4], "--one-way", "--json").stdout


def test_one_way_is_for_components(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    done = run("carry", "a.jsx", "--to", "jsx-function", "--one-way")
    assert done.returncode == 2
    assert "--one-way goes with" in done.stderr


def test_every_component_of_a_file_is_proven_before_it_is_written(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    project(tmp_path, "shared-controller")
    done = run(*CARRY, "--verify", "--budget", "3", "--json")
    assert done.returncode == 0, done.stdout + done.stderr
    proof = json.loads(done.stdout)["results"][0]["verification"]
    assert (proof["verdict"], proof["mounted"]) == ("same", "sailingPager, firstPage")


PARENT = """angular.module('harbour', [])
  .directive('ghQuay', function () {
    return {
      restrict: 'E', transclude: true, template: '<div ng-transclude></div>',
      controller: [function () {
        this.told = [];
        this.tell = function (one) {
          angular.forEach(this.told, function (other) { if (other !== one) other.open = false; });
        };
      }]
    };
  })
  .directive('ghBerth', function () {
    return {
      restrict: 'E', scope: { name: '@' }, require: '^ghQuay',
      template: '<button ng-click="open = !open; changed()">{{ name }}</button><i ng-if="open">a</i>',
      link: function (scope, element, attrs, quay) {
        quay.told.push(scope);
        scope.changed = function () { quay.tell(scope); };
      }
    };
  });
"""


def test_one_beside_it_tells_whether_a_parent_is_told(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "old.js").write_text(PARENT)
    (tmp_path / "new.js").write_text(PARENT.replace("quay.tell(scope);", ""))
    done = run("verify", "old.js", "new.js", "--mount", "ghBerth", "--budget", "6", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"
    same = run("verify", "old.js", "old.js", "--mount", "ghBerth", "--budget", "2", "--json")
    assert json.loads(same.stdout)["verdict"] == "same"


def test_content_that_goes_tells_what_becomes_of_the_rest(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = PARENT.replace(
        "scope.changed = ",
        "scope.$on('$destroy', function () { quay.told[0].open = true; });\n        scope.changed = ",
    )
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "old.js").write_text(text)
    (tmp_path / "new.js").write_text(text.replace("told[0].open", "told[1].open"))
    done = run("verify", "old.js", "new.js", "--mount", "ghQuay", "--budget", "6", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


HELD_TEMPLATE = """angular.module('harbour', []).run(['$templateCache', function (cache) {
  cache.put('strip.html', '<nav ng-if="depth > 1"><b ng-click="deepen()">{{ depth }}</b></nav>');
}]);
"""
STRIP = """angular.module('harbour').directive('ghStrip', function () {
  return {
    restrict: 'E',
    scope: {},
    templateUrl: 'strip.html',
    link: function (scope) {
      scope.depth = 2;
      scope.deepen = function () { scope.depth += 1; };
    }
  };
});
"""


def test_a_template_held_by_another_script_is_verified_as_it_is_written(
    run, tmp_path: Path
) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "harbour.js").write_text(HELD_TEMPLATE)
    (tmp_path / "strip.js").write_text(STRIP)
    carry = ("carry", "strip.js", "--to", "controller-component")
    proof = run(*carry, "--verify", "--budget", "3", "--json")
    (result,) = json.loads(proof.stdout)["results"]
    assert (result["status"], result["verification"]["verdict"]) == ("clean", "same")
    assert run(*carry, "--write").returncode == 0
    made = tmp_path / "harbour.component.js"
    assert "$ctrl.depth > 1" in made.read_text()
    verify = ("verify", "strip.js", "strip.component.js", "--budget", "3", "--json")
    assert json.loads(run(*verify).stdout)["verdict"] == "same"
    assert run(*carry, "--out", "new").returncode == 0
    apart = ("verify", "strip.js", "new/strip.component.js", "--budget", "3", "--json")
    assert json.loads(run(*apart).stdout)["verdict"] == "same"
    # What was written counts, not what it was written from; a directive keeps what it had.
    made.write_text(made.read_text().replace("$ctrl.depth > 1", "$ctrl.depth > 9"))
    assert json.loads(run(*verify).stdout)["verdict"] == "differs"
    (tmp_path / "other.js").write_text(STRIP)
    other = ("verify", "strip.js", "other.js", "--budget", "3", "--json")
    assert json.loads(run(*other).stdout)["verdict"] == "same"


@pytest.mark.parametrize(
    ("options", "left"),
    [
        ("restrict: 'E', scope: {}, templateUrl: 'strip.html',", "templateUrl: 'strip.html',"),
        ("templateUrl: 'strip.html', restrict: 'E', scope: {},", "templateUrl: 'strip.html',"),
        ("restrict: 'E', templateUrl: 'strip.html', scope: {},", "templateUrl: 'strip.html',"),
        (
            "templateUrl: 'strip.html', restrict: 'E', scope: {}, transclude: true,",
            "templateUrl: 'strip.html', transclude: true,",
        ),
    ],
)
def test_options_that_share_a_line(run, tmp_path: Path, options: str, left: str) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "harbour.js").write_text(HELD_TEMPLATE)
    lines = "    restrict: 'E',\n    scope: {},\n    templateUrl: 'strip.html',\n"
    (tmp_path / "strip.js").write_text(STRIP.replace(lines, f"    {options}\n"))
    done = run("carry", "strip.js", "--to", "controller-component", "--json")
    (result,) = json.loads(done.stdout)["results"]
    assert result["status"] == "clean"
    assert f"('ghStrip', {{\n  {left}\n  controller:" in result["files"][0]["text"]


def test_a_template_beside_a_script_without_a_project(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "tide.html").write_text("<b>{{ tide }}</b>")
    (tmp_path / "tide.js").write_text(
        "angular.module('gullmoor', []).directive('tideMark', function () {\n"
        "  return { restrict: 'E', scope: { tide: '=' }, templateUrl: 'views/tide.html' };\n});\n"
    )
    done = run("carry", "tide.js", "--to", "controller-component", "--verify", "--budget", "2")
    assert "tide.js: same" in done.stdout, done.stdout + done.stderr
