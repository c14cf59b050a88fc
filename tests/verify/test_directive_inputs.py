"""What a directive or a component registered by name is given in trials."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.verify.search.inputs.directive_inputs import directive_inputs
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.related_directives import asked_content

HARBOUR = "angular.module('harbour')"


def inputs(text: str, name: str, path: str = "desk.js") -> Inputs:
    return directive_inputs(SourceText(path, text.encode()), name)


def directive(body: str, name: str = "ghBerth") -> Inputs:
    text = f"{HARBOUR}.directive('{name}', function () {{\n  return {{ {body} }};\n}});\n"
    return inputs(text, name)


def kinds(found: Inputs) -> dict[str, set[str]]:
    return {name: shape.kinds for name, shape in found.shapes.items()}


def test_bindings_by_kind() -> None:
    found = directive(
        "scope: { label: '@', rows: '<', open: '=?', onGo: '&', far: '=away' }, "
        'template: \'<p ng-repeat="row in rows">{{ row.name + label }}</p><i ng-if="open"></i>\''
    )
    assert list(found.shapes) == ["label", "rows", "open", "onGo", "away"]
    assert found.shapes["label"].kinds == {"string"}
    assert found.shapes["onGo"].kinds == {"function"}
    assert "array" in found.shapes["rows"].kinds
    assert found.exports == ["ghBerth"]


def test_an_event_of_a_component_that_tells_of_an_input_is_set_by_its_parent() -> None:
    text = f"{HARBOUR}.component('ghSeats', {{ bindings: {{ seats: '<', onSeatsChange: '&', onGo: '&' }} }});\n"
    assert list(inputs(text, "ghSeats").shapes) == ["seats", "onGo"]


ATTRIBUTES = [
    # (what a link function does, inputs)
    ("show(attrs.port);", ["@port"]),
    ("attrs.$observe('tide', show);", ["@tide"]),
    ("scope.$watch(attrs.depth, show);", ["depth"]),
    ("show(scope.$eval(attrs.depth));", ["depth"]),
    ("attrs.$set('id', 1); show(attrs.class);", []),
]


@pytest.mark.parametrize(("does", "names"), ATTRIBUTES)
def test_attributes_a_link_function_reads(does: str, names: list[str]) -> None:
    found = directive(f"scope: {{}}, link: function (scope, element, attrs) {{ {does} }}")
    assert list(found.shapes) == names


def test_names_taken_from_the_scope_around_it() -> None:
    found = directive(
        "template: '<b>{{ port }}</b><i ng-repeat=\"one in piers\">{{ one }}{{ $index }}</i>', "
        "link: function (scope) { scope.made = scope.wind; }"
    )
    assert sorted(found.shapes) == ["piers", "port", "wind"]


def test_the_value_its_element_edits() -> None:
    found = directive(
        "require: ['^^ghDesk', '?ngModel'], scope: {}, "
        "link: function (scope, e, a, c) { c[1].$render = () => e.text(c[1].$viewValue.length); }"
    )
    assert "ngModel" in found.shapes
    assert "ngModel" not in directive("require: '^^ngModel', scope: {}").shapes


def test_another_directive_of_the_file_is_not_looked_at() -> None:
    text = (
        f"{HARBOUR}.directive('ghBerth', function () {{ return {{ scope: {{ a: '<' }} }}; }})\n"
        "  .directive('ghPier', function () { return { scope: { b: '<' }, link: function (s) { s.b.map(f); } }; });\n"
    )
    assert list(inputs(text, "ghBerth").shapes) == ["a"]
    assert kinds(inputs(text, "ghPier")) == {"b": {"array"}}
    assert inputs(text, "ghQuay").shapes == {}


KIN = (
    f"{HARBOUR}.directive('ghTabs', function () {{ return {{ transclude: true, scope: {{}} }}; }})\n"
    "  .directive('ghTab', function () {\n"
    "    return { require: '^ghTabs', scope: { title: '@', open: '=', onGo: '&' } };\n  })\n"
    "  .directive('ghMark', function () { return { require: '^^ghTabs', restrict: 'A' }; })\n"
    "  .directive('ghOther', function () { return { require: 'ghTabs' }; });\n"
)


def test_content_of_its_kin() -> None:
    contents = inputs(KIN, "ghTabs").contents
    tab: dict[str, Any] = {
        "tag": "gh-tab", "attributes": {"title": "Holm", "open": "kin.openHolm"}, "content": ["in Holm"],
    }  # fmt: skip
    assert contents[0][0] == tab
    assert contents[1][0]["attributes"] == {"gh-mark": ""}
    assert [len(content) for content in contents] == [2, 2, 4]


def test_kin_in_another_file(tmp_path: Path) -> None:
    (tmp_path / "clean-carry.toml").write_text("")
    own = f"{HARBOUR}.directive('ghTabs', function () {{ return {{ transclude: true }}; }});\n"
    other = f"{HARBOUR}.directive('ghTab', function () {{ return {{ require: '?^ghTabs' }}; }});\n"
    (tmp_path / "tabs.js").write_text(own)
    (tmp_path / "tab.js").write_text(other)
    contents = inputs(own, "ghTabs", str(tmp_path / "tabs.js")).contents
    assert [part["tag"] for part in contents[0]] == ["gh-tab", "gh-tab"]


SELECTED = [
    ("e.querySelectorAll('li > a')", [("li", "a")]),
    ("e.find('.deck')", [("div", "")]),
    ("e.closest('[berth=\"7\"]')", [("div", "")]),
    ("e.find('li:first-child')", []),
    ("e.find(name)", []),
    ("e.find('p'); e.children('p')", [("p", "")]),
]


@pytest.mark.parametrize(("code", "found"), SELECTED)
def test_content_that_code_looks_for(code: str, found: list[tuple[str, str]]) -> None:
    contents = asked_content(Tree(SourceText("a.js", f"{code};\n".encode())))
    elements = contents[0] if contents else []
    inner = [e["content"][0] for e in elements]
    told = [part["tag"] if isinstance(part, dict) else "" for part in inner]
    assert list(zip([e["tag"] for e in elements], told, strict=True)) == found


HELPED = f"""{HARBOUR}.constant('pierConfig', {{ links: true, rows: 8, words: ['one', 'two'], first: 'First' }})
.controller('PierController', ['$scope', '$attrs', '$parse', function ($scope, $attrs, $parse) {{
  this.given = function (attribute, other, plain) {{
    return plain ? attribute : $scope.$parent.$eval(attribute) || other;
  }};
  if ($attrs.ends) $scope.$parent.$watch($parse($attrs.ends), function (value) {{ $scope.end = new Date(value); }});
  $scope.$parent.$watch($parse($attrs.shown), function (value) {{ $scope.seen = !!value; }});
  $scope.$parent.$watch($parse($attrs.depth), function (value) {{ $scope.deep = +value; }});
}}])
.directive('ghPier', ['pierConfig', function (config) {{
  return {{
    scope: {{}}, controller: 'PierController',
    link: function (scope, element, attrs, pier) {{
      scope.links = pier.given(attrs.links, config.links);
      scope.rows = pier.given(attrs.rows, config.rows);
      scope.words = pier.given(attrs.words, config.words);
      scope.first = pier.given(attrs.first, config.first, true);
      show(attrs.name);
    }}
  }};
}}]);
"""


def test_attributes_that_a_helper_evaluates() -> None:
    found = kinds(inputs(HELPED, "ghPier"))
    assert set(found) == {"links", "rows", "words", "@first", "@name", "ends", "shown", "depth"}


def test_kinds_of_the_constants_that_stand_in() -> None:
    found = inputs(HELPED, "ghPier").shapes
    assert found["links"].kinds == {"boolean"}
    assert (found["rows"].kinds, found["rows"].literals[0]) == ({"number"}, 8)
    assert found["words"].kinds == {"array"}
    assert found["words"].items is not None
    assert found["words"].items.kinds == {"string"}


def test_kinds_a_listener_takes_values_for() -> None:
    found = kinds(inputs(HELPED, "ghPier"))
    assert (found["ends"], found["shown"], found["depth"]) == ({"date"}, {"boolean"}, {"number"})


def test_a_constant_nobody_is_given_says_nothing() -> None:
    text = HELPED.replace("['pierConfig', function (config)", "['other', function (config)")
    assert inputs(text, "ghPier").shapes["links"].kinds == set()


@pytest.mark.parametrize(
    ("required", "there"), [("'^ghQuay'", True), ("'^?ghQuay'", False), ("'ghQuay'", False)]
)
def test_what_its_parent_keeps_and_has_beside_it(required: str, there: bool) -> None:
    found = directive(f"scope: {{}}, require: {required}, link: function (scope) {{}}")
    assert ("$around.rows" in found.shapes, "$around.beside" in found.shapes) == (there, there)


QUAY = """angular.module('harbour', [])
  .directive('ghQuay', function () {
    return { restrict: 'E', transclude: true, scope: { active: '=', word: '=' }, template: '<p ng-transclude></p>' };
  })
  .directive('ghBerth', function () {
    return { restrict: 'E', require: '^ghQuay', scope: { AT: '=' }, template: '<i></i>' };
  });
"""


def test_content_of_its_kin_comes_and_goes_and_is_numbered() -> None:
    found = inputs(QUAY.replace("AT", "index"), "ghQuay")
    assert found.shapes["$around.parts"].literals[0] == "1 2 3 4 5 6"
    assert [part["attributes"]["index"] for part in found.contents[0]] == ["0", "1"]
    assert found.shapes["active"].kinds == {"number"}
    assert found.shapes["word"].kinds == set()


def test_content_that_is_not_numbered_leaves_its_choice_open() -> None:
    found = inputs(QUAY.replace("AT", "name"), "ghQuay")
    assert found.contents[0][0]["attributes"]["name"] == "kin.nameHolm"
    assert found.shapes["active"].kinds == set()
    assert "$around.parts" not in inputs(QUAY, "ghBerth").shapes
