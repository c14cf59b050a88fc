"""The application around a script that imports nothing: scripts, templates, services, names they share."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.verify.application import Application, application_of, own_lines

BERTH = """angular.module('desk', ['desk.tides', 'shore'])
  .directive('berthGrid', ['$http', 'tideTable', function ($http, tideTable) {
    return { scope: { berths: '=' }, replace: true, templateUrl: 'parts/grid.html', controller: 'GridCtrl as grid' };
  }])
  .controller('GridCtrl', ['$scope', '$log', function ($scope, $log) {
    $log.info($scope);
  }]);
"""
TIDES = (
    "angular.module('desk.tides', []).factory('tideTable', ['$q', function ($q) { return {}; }]);\n"
)


def project(folder: Path, files: dict[str, str]) -> Path:
    (folder / "package.json").write_text('{"name": "ferries"}')
    for name, text in files.items():
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)
    return folder / "src/berth.js"


def found(folder: Path, files: dict[str, str], text: str = BERTH) -> Application:
    return application_of(project(folder, {"src/berth.js": text, **files}), text)


def names(application: Application, folder: Path) -> list[str]:
    return [path.relative_to(folder.resolve()).as_posix() for path in application.scripts]


SCRIPTS: dict[str, tuple[dict[str, str], list[str]]] = {
    "what defines a module that is needed": ({"src/tides.js": TIDES}, ["src/tides.js"]),
    "what fills it comes after": (
        {"src/a.js": "angular.module('desk.tides').value('x', 1);", "src/tides.js": TIDES},
        ["src/tides.js", "src/a.js"],
    ),
    "what the needed one needs": (
        {
            "src/tides.js": TIDES.replace("[])", "['moon'])", 1),
            "src/moon.js": "angular.module('moon', []);",
        },
        ["src/moon.js", "src/tides.js"],
    ),
    "not what nobody needs": ({"src/other.js": "angular.module('other', []);"}, []),
    "not its own build": ({"dist/all.js": BERTH + TIDES}, []),
    "not tests, nor demos": (
        {"src/tides.spec.js": TIDES, "demo/tides.js": TIDES, "test/tides.js": TIDES},
        [],
    ),
}


@pytest.mark.parametrize(("files", "scripts"), SCRIPTS.values(), ids=SCRIPTS)
def test_the_scripts_an_application_needs(
    files: dict[str, str], scripts: list[str], tmp_path: Path
) -> None:
    assert names(found(tmp_path, files), tmp_path) == scripts


def test_templates_are_found_by_their_place_and_whole_pages_are_none(tmp_path: Path) -> None:
    pages = {
        "src/parts/grid.html": "<div>grid</div>",
        "index.html": "<!doctype html><html><body></body></html>",
    }
    assert found(tmp_path, pages).templates == (("src/parts/grid.html", "<div>grid</div>"),)


def test_more_templates_come_first() -> None:
    more = Application(templates=(("a.html", "old"),)).with_templates({"b.html": "new"})
    assert more.templates == (("b.html", "new"), ("a.html", "old"))
    assert more.for_page()["templates"] == {"b.html": "new", "a.html": "old"}


def test_services_are_what_functions_are_given(tmp_path: Path) -> None:
    assert set(found(tmp_path, {"src/tides.js": TIDES}).services) >= {
        "$http", "tideTable", "$scope", "$log", "$q",
    }  # fmt: skip


def test_what_replaces_its_element_and_what_templates_call_a_controller(tmp_path: Path) -> None:
    text = BERTH.replace("controller: 'GridCtrl as grid'", "controllerAs: 'grid'")
    application = found(tmp_path, {}, text)
    assert application.replaced == ("berthGrid",) and application.aliases == ("grid",)


GLOBALS: dict[str, tuple[str, str, tuple[tuple[str, str], ...]]] = {
    "a module held by another script": (
        "desk.directive('x', function () {});", "var desk = angular.module('desk', []);", (("desk", "desk"),),
    ),
    "the runtime by another name": ("ng.module('desk').directive('x', f);", "", (("ng", ""),)),
    "its own": ("var desk = angular.module('desk', []); desk.run(f);", "", ()),
    "a parameter": ("(function (desk) { desk.run(f); })(window.desk);", "", ()),
    "nobody's": ("desk.directive('x', f);", "", ()),
}  # fmt: skip


@pytest.mark.parametrize(("text", "other", "known"), GLOBALS.values(), ids=GLOBALS)
def test_names_that_scripts_share(
    text: str, other: str, known: tuple[tuple[str, str], ...], tmp_path: Path
) -> None:
    text = f"{text}\nangular.module('desk');\n"
    assert found(tmp_path, {"src/main.js": other}, text).globals == known


def test_the_lines_of_a_directive_and_of_its_controller() -> None:
    assert own_lines(BERTH, "berth.js", "berthGrid") == ((2, 4), (5, 7))
    assert own_lines(BERTH, "berth.js", "other") == ()
    assert own_lines("angular.module(", "berth.js", "berthGrid") == ()


APART = """angular.module('desk').directive('berthGrid', berthGrid);
function berthGrid() {
  return { scope: {}, controller: GridController, link: { post: draw } };
  function draw() {}
}
function GridController() {
  this.free = 0;
}
function other() {}
"""


def test_the_lines_of_functions_that_are_declared_apart() -> None:
    assert own_lines(APART, "berth.js", "berthGrid") == ((1, 1), (6, 8), (2, 5))


def test_without_a_project_there_is_only_the_script(tmp_path: Path) -> None:
    path = tmp_path / "berth.js"
    path.write_text(BERTH)
    (tmp_path / "tides.js").write_text(TIDES)
    application = application_of(path, BERTH)
    assert application.scripts == () and application.replaced == ("berthGrid",)
