"""Directives and what stands beside them: their functions, other scripts, options by statements."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

METER = """(function () {
  angular.module('gullmoor', []).directive('loadMeter', loadMeter);

  function loadMeter() {
    return { restrict: 'E', scope: { max: '=' }, template: '<b>{{ load }}</b>', link: link };
  }

  function link(scope) {
    scope.load = 1;
    scope.fill = function () { scope.load = scope.max; };
  }
%s
})();
"""


def carried(folder: Path, text: str, **files: str) -> Result:
    (folder / "package.json").write_text('{"name": "gullmoor"}')
    for name, content in files.items():
        (folder / name.replace("__", ".")).write_text(content)
    old = folder / "old.js"
    old.write_text(text)
    return carry_file(Request(old, "old.js", "controller-component"))[0]


def test_factory_and_link_function_side_by_side(tmp_path: Path) -> None:
    result = carried(tmp_path, METER % "")
    assert result.status == "clean", result.findings
    assert "function link" not in result.files[0].text
    assert "$ctrl.fill = function () { $ctrl.load = $ctrl.max; };" in result.files[0].text
    assert sum(result.counts.values()) > 10


def test_a_link_function_that_others_use_stays(tmp_path: Path) -> None:
    result = carried(tmp_path, METER % "  angular.module('gullmoor').value('link', link);")
    assert (result.status, result.findings[0].rule) == ("refused", "link-unread")


ASKED = [
    "element.find('load-meter').isolateScope().fill();",
    "var s = element.find('load-meter').isolateScope(); s.$apply(function () { s.fill(); });",
    'angular.element(document.querySelector("p > load-meter")).scope().load = 2;',
]


@pytest.mark.parametrize("code", ASKED)
def test_other_code_that_asks_its_scope(code: str, tmp_path: Path) -> None:
    here = carried(tmp_path, METER % f"  function other(element) {{ {code} }}")
    assert (here.status, here.findings[0].rule) == ("refused", "scope-reached")
    elsewhere = carried(tmp_path, METER % "", other__js=f"function other(element) {{ {code} }}")
    assert (elsewhere.status, elsewhere.findings[0].rule) == ("refused", "scope-reached")


def test_other_code_that_asks_another_scope(tmp_path: Path) -> None:
    code = "element.find('tide-mark').isolateScope().fill();"
    assert carried(tmp_path, METER % f"  function other(element) {{ {code} }}").status == "clean"


URLS = [
    ("base + 'load.html'", "templateUrl: ['base', function (base) { return base + 'load.html'; }]"),
    ("url(base)", "templateUrl: ['base', function (base) { return url(base); }]"),
]


@pytest.mark.parametrize(("value", "written"), URLS)
def test_a_template_address_that_needs_what_is_injected(
    value: str, written: str, tmp_path: Path
) -> None:
    text = (
        "angular.module('gullmoor', []).constant('base', '').directive('loadMeter', ['base', function (base) {\n"
        f"  return {{ restrict: 'E', scope: {{}}, templateUrl: {value} }};\n}}]);\n"
    )
    result = carried(tmp_path, text, load__html="<b>load</b>")
    if result.status == "clean":
        assert written in result.files[0].text
    else:
        assert result.findings[0].rule == "template-unread"


def test_options_by_statements_and_a_named_list(tmp_path: Path) -> None:
    text = (
        "angular.module('gullmoor', []).directive('loadList', function () {\n  var ddo = {};\n"
        "  ddo.restrict = 'E';\n  ddo.scope = { loads: '=' };\n"
        "  ddo.template = '<p ng-repeat=\"load in loads as shown\">{{ load }}</p>{{ shown.length }}';\n"
        "  ddo.link = function (scope) { scope.ready = true; };\n  return ddo;\n});\n"
    )
    result = carried(tmp_path, text)
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert "bindings: { loads: '=' }" in written
    assert "load in $ctrl.loads as shown" in written and "{{ shown.length }}" in written
    assert "$ctrl.ready = true;" in written and "ddo" not in written


def test_a_list_named_like_a_member_is_refused(tmp_path: Path) -> None:
    text = (
        "angular.module('gullmoor', []).directive('loadList', function () {\n  return { restrict: 'E', scope: {},\n"
        "    template: '<p ng-repeat=\"load in loads as shown\"></p>',\n"
        "    link: function (scope) { scope.shown = []; } };\n});\n"
    )
    result = carried(tmp_path, text)
    assert (result.status, result.findings[0].rule) == ("refused", "template-unread")


def test_values_of_the_factory_are_there_before_the_controller_runs(tmp_path: Path) -> None:
    text = (
        "angular.module('gullmoor', []).directive('loadMeter', function () {\n  var most = 3;\n"
        "  return { restrict: 'E', scope: {}, template: '{{ load }}',\n"
        "    controller: function ($scope) { $scope.load = most; } };\n});\n"
    )
    written = carried(tmp_path, text).files[0].text
    assert written.index("var most = 3;") < written.index("$ctrl.load = most;")


BY_NAME = """angular.module('gullmoor', []).directive('tideCard', function () {
  return { restrict: 'E', scope: { tide: '=' }, templateUrl: 'tide-card.html' };
});
"""


def in_folders(top: Path, pages: dict[str, str]) -> Result:
    (top / "package.json").write_text('{"name": "gullmoor"}')
    for name, text in {"tides/js/card.js": BY_NAME, **pages}.items():
        (top / name).parent.mkdir(parents=True, exist_ok=True)
        (top / name).write_text(text)
    path = top / "tides" / "js" / "card.js"
    return carry_file(Request(path, "card.js", "controller-component"))[0]


FOUND = [
    {"tides/views/tide-card.html": "<b>{{ tide }}</b>", "tides/demo/tide-card.html": "<i></i>"},
    {"views/tide-card.html": "<b>{{ tide }}</b>", "docs/tide-card.html": "<i></i>"},
    {"tides/views/tide-card.html": "<b>{{ tide }}</b>", "cargo/views/tide-card.html": "<i></i>"},
]


@pytest.mark.parametrize("pages", FOUND)
def test_a_template_found_by_its_bare_name(pages: dict[str, str], tmp_path: Path) -> None:
    result = in_folders(tmp_path, pages)
    assert result.status == "clean", result.findings
    assert any("$ctrl.tide" in file.text for file in result.files)


@pytest.mark.parametrize(
    "pages",
    [
        {"tides/a/tide-card.html": "<b></b>", "tides/b/tide-card.html": "<i></i>"},
        {"demo/tide-card.html": "<b></b>"},
    ],
)
def test_a_template_that_several_files_may_be(pages: dict[str, str], tmp_path: Path) -> None:
    result = in_folders(tmp_path, pages)
    assert (result.status, result.findings[0].rule) == ("refused", "template-unread")


def test_tests_that_ask_the_scope_are_told(tmp_path: Path) -> None:
    spec = "it('fills', () => {\n  const e = $compile('<load-meter></load-meter>')(s);\n  e.isolateScope().fill();\n});\n"
    result = carried(tmp_path, METER % "", load_meter__spec__js=spec)
    assert result.status == "clean", result.findings
    told = [f for f in result.findings if f.rule == "test-asks-scope"]
    assert [(Path(f.file).name, f.line) for f in told] == [("load_meter.spec.js", 3)]


def test_code_far_from_the_tag_is_seen(tmp_path: Path) -> None:
    far = "function other(page) {\n  var meter = page.find('load-meter');\n" + "  go(1);\n" * 150
    far += "  meter.isolateScope().fill();\n}\n"
    result = carried(tmp_path, METER % "", other__js=far)
    assert (result.status, result.findings[0].rule) == ("refused", "scope-reached")
