# ruff: noqa: E501 — sources stand on one line each
"""Directives in the forms they are written in: what is read, what stays one, what is refused, and why."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

TEMPLATE = "template: '<b>{{tide}}</b>'"
ISOLATED = "scope: { tide: '=' }"


def carried(folder: Path, text: str, **files: str) -> list[Result]:
    """Carry a script that stands in a project of its own, beside other files."""
    (folder / "package.json").write_text('{"name": "gullmoor"}')
    for name, content in files.items():
        (folder / name.replace("__", ".")).write_text(content)
    old = folder / "old.js"
    old.write_text(text)
    return carry_file(Request(old, "old.js", "controller-component"))


def directive(options: str, given: str = "", before: str = "") -> str:
    return f"""angular.module('gullmoor', []).directive('tideMark', [{given}function() {{
  {before}
  return {{ restrict: 'E', {options} }};
}}]);
"""


STAYS = [
    ("stays-behaviour", "link: function(scope, element) { element.addClass('tide'); }"),
    ("stays-element", f"{TEMPLATE}, transclude: 'element'"),
    ("stays-terminal", f"{TEMPLATE}, terminal: true"),
    ("stays-taken-away", "template: '', replace: true"),
    ("stays-taken-away", f"{TEMPLATE}, link: function(scope, element) {{ element.replaceWith('x'); }}"),
    ("stays-compile", f"{TEMPLATE}, compile: function(element) {{ element.empty(); return function() {{}}; }}"),
]  # fmt: skip
REFUSED = [
    ("template-unread", f"template: made(), {ISOLATED}"),
    ("template-unread", f"templateUrl: 'nowhere.html', {ISOLATED}"),
    ("template-unread", f"template: '<b ng-show=\"a b\"></b>', {ISOLATED}"),
    ("template-unread", f"template: '<b ng-controller=\"A as a\"></b>', {ISOLATED}"),
    ("template-writes-inside", f"template: '<p ng-if=\"tide\"><input ng-model=\"name\"></p>', {ISOLATED}"),
    ("attribute-unread", f"template: '<other-one level=\"tide\"></other-one>', {ISOLATED}"),
    ("attribute-unread", f"template: '<other-one level=\"tide.level + low\"></other-one>', {ISOLATED}"),
    ("option-not-said", f"{TEMPLATE}, {ISOLATED}, priority: 10"),
    ("option-not-said", f"{TEMPLATE}, {ISOLATED}, templateNamespace: 'svg'"),
    ("option-not-said", f"{TEMPLATE}, {ISOLATED}, multiElement: true"),
    ("option-not-said", f"{TEMPLATE}, {ISOLATED}, colour: 'red'"),
    ("binding-unread", f"{TEMPLATE}, scope: {{ tide: kind() }}"),
    ("binding-unread", f"{TEMPLATE}, scope: {{ tide: '=*' }}"),
    ("controller-elsewhere", f"{TEMPLATE}, {ISOLATED}, controller: 'Elsewhere'"),
    ("controller-elsewhere", f"{TEMPLATE}, scope: {{}}, controller: 'Elsewhere'"),
    ("controller-elsewhere", f"{TEMPLATE}, scope: {{}}, controller: class {{ }}, link: function(s, e) {{ e.empty(); }}"),
    ("controller-unread", f"{TEMPLATE}, {ISOLATED}, controller: make()"),
    ("require-unread", f"{TEMPLATE}, {ISOLATED}, require: ['^a', '^b'], link: function(s, e, t, all) {{ go(all); }}"),
    ("require-unread", f"{TEMPLATE}, {ISOLATED}, require: names"),
    ("require-written", f"{TEMPLATE}, {ISOLATED}, require: '^a', link: function(s, e, t, a) {{ a = a || {{}}; }}"),
    ("element-around", f"{TEMPLATE}, {ISOLATED}, replace: true, link: function(s, e) {{ var mark = s.mark = e; mark.parent().addClass('x'); }}"),
    ("link-this", f"{TEMPLATE}, {ISOLATED}, link: function() {{ this.ready = true; }}"),
    ("link-pattern", f"{TEMPLATE}, {ISOLATED}, link: function(scope, [first]) {{ first.id = 1; }}"),
    ("link-unread", f"{TEMPLATE}, {ISOLATED}, link: (scope) => go()"),
    ("link-unread", f"{TEMPLATE}, {ISOLATED}, link: madeElsewhere"),
    ("scope-pattern", f"{TEMPLATE}, {ISOLATED}, link: function({{ tide }}) {{ go(tide); }}"),
    ("scope-handed-on", f"{TEMPLATE}, {ISOLATED}, link: function(scope) {{ go(scope); }}"),
    ("scope-handed-on", f"{TEMPLATE}, {ISOLATED}, link: function(scope) {{ var inner = scope.$new(); }}"),
    ("scope-handed-on", f"{TEMPLATE}, {ISOLATED}, require: '^a', link: function(scope, e, t, a) {{ a.add(scope); }}"),
    ("scope-around", f"{TEMPLATE.replace('tide', '1')}, link: function(scope) {{ go(scope.$parent.x); }}"),
    ("scope-inherits", f"{TEMPLATE}, link: function(scope) {{ scope.tide = 1; }}"),
    ("scope-inherits", f"{TEMPLATE}, scope: true, link: function(scope) {{ if (scope.low) {{ scope.tide = 1; }} }}"),
    ("scope-inherits", f"{TEMPLATE}, link: function(scope) {{ scope.$broadcast('tide'); }}"),
    ("scope-expression-unread", f"{TEMPLATE}, {ISOLATED}, link: function(scope, e, attrs) {{ scope.$watch(attrs.x, go); }}"),
    ("scope-expression-unread", f"{TEMPLATE}, {ISOLATED}, link: function(scope) {{ scope.$watch('a b', go); }}"),
    ("names-meet", f"{TEMPLATE}, scope: {{ $onInit: '=' }}"),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "options"), STAYS)
def test_what_can_only_be_a_directive_stays_one(rule: str, options: str, tmp_path: Path) -> None:
    result = carried(tmp_path, directive(options))[0]
    assert (result.status, result.files) == ("refused", ())
    assert [finding.rule for finding in result.findings] == [rule]


@pytest.mark.parametrize(("rule", "options"), REFUSED)
def test_what_cannot_be_carried_is_refused_by_name(rule: str, options: str, tmp_path: Path) -> None:
    result = carried(tmp_path, directive(options))[0]
    assert result.status == "refused"
    assert [(f.rule, f.line > 0, bool(f.advice)) for f in result.findings] == [(rule, True, True)]


@pytest.mark.parametrize(
    "before",
    ["var open = null; open = 1;", "let count = 0; count += 1;", "var { all } = start();"],
)
def test_what_all_uses_share_is_refused(before: str, tmp_path: Path) -> None:
    options = f"{TEMPLATE}, {ISOLATED}, link: function(scope) {{ scope.x = open || count || all; }}"
    result = carried(tmp_path, directive(options, before=before))[0]
    assert [finding.rule for finding in result.findings] == ["shared-between-instances"]


FORMS = {
    "an array": "angular.module('a', []).directive('tideMark', [function() { return OPTIONS; }]);",
    "a function": "angular.module('a', []).directive('tideMark', function() { return OPTIONS; });",
    "an arrow": "angular.module('a', []).directive('tideMark', () => (OPTIONS));",
    "a name": "function tideMark() { return OPTIONS; }\nangular.module('a', []).directive('tideMark', tideMark);",
    "a constant": "const mark = () => { return OPTIONS; };\nangular.module('a', []).directive('tideMark', mark);",
    "a variable": "angular.module('a', []).directive('tideMark', function() { var made = OPTIONS; return made; });",
    "wrapped": "(function(angular) { 'use strict'; angular.module('a', []).directive('tideMark', function() { 'ngInject'; return OPTIONS; }); })(angular);",
    "a module": "import angular from 'angular';\nexport default angular.module('a', []).directive('tideMark', () => { return OPTIONS; }).name;",
}  # fmt: skip


@pytest.mark.parametrize("form", list(FORMS))
def test_the_forms_a_factory_is_written_in(form: str, tmp_path: Path) -> None:
    text = FORMS[form].replace("OPTIONS", f"{{ {ISOLATED}, {TEMPLATE}, restrict: 'E' }}")
    result = carried(tmp_path, text)[0]
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert "{{$ctrl.tide}}" in written
    assert "bindings: { tide: '=' }" in written


def test_several_directives_of_which_one_stays(tmp_path: Path) -> None:
    text = directive(f"{ISOLATED}, {TEMPLATE}") + directive("link: function() { go(); }").replace(
        "tideMark", "dragged"
    ).replace("'gullmoor', []", "'gullmoor'")
    results = carried(tmp_path, text)
    assert [(r.component, r.status) for r in results] == [
        ("tideMark", "clean"),
        ("dragged", "refused"),
    ]
    assert "directive('dragged'" in results[0].files[0].text
    assert "component('tideMark'" in results[0].files[0].text


def test_a_template_in_a_file_of_its_own(tmp_path: Path) -> None:
    options = f"{ISOLATED}, templateUrl: function(element, attrs) {{ return attrs.look || 'gullmoor/tide.html'; }}"
    results = carried(tmp_path, directive(options), tide__html="<b>{{tide}} é</b>\n")
    names = {file.path: file.text for file in results[0].files}
    assert names["tide.component.html"] == "<b>{{$ctrl.tide}} é</b>\n"
    assert "'gullmoor/tide.component.html'" in names["old.component.js"]
    assert "['$element', '$attrs', function(element, attrs)" in names["old.component.js"]


def test_a_template_in_a_cache(tmp_path: Path) -> None:
    text = directive(f"{ISOLATED}, templateUrl: 'tide.html'") + (
        "angular.module('gullmoor').run(['$templateCache', function($templateCache) {\n"
        "  $templateCache.put('tide.html', \"<b title=\\\"{{tide}}\\\">\" +\n    '{{::tide}}</b>');\n}]);\n"
    )
    written = carried(tmp_path, text)[0].files[0].text
    assert '"<b title=\\"{{$ctrl.tide}}\\">" +' in written
    assert "'{{::$ctrl.tide}}</b>'" in written


def test_how_its_use_changes_is_told(tmp_path: Path) -> None:
    text = directive(f"{ISOLATED}, {TEMPLATE}, replace: true").replace("'E'", "'A'")
    result = carried(tmp_path, text)[0]
    assert [f.rule for f in result.findings] == ["attribute-box"]


def test_an_element_keeps_the_box_of_the_one_it_takes_the_place_of(tmp_path: Path) -> None:
    text = directive(f"{ISOLATED}, {TEMPLATE}, replace: true").replace("'E'", "'A'")
    page = '<div tide-mark></div><p tide-mark style="color: red"></p><span tide-mark></span>'
    result = carried(tmp_path, text, page__html=page)[0]
    assert [f.rule for f in result.findings] == ["used-as-element", "element-stays"]
    written = next(f.text for f in result.files if f.path.endswith(".html"))
    assert written == (
        '<tide-mark style="display: block"></tide-mark>'
        '<tide-mark style="display: block; color: red"></tide-mark><tide-mark></tide-mark>'
    )


def test_an_alias_in_texts_and_comments_stays(tmp_path: Path) -> None:
    options = (
        "scope: {}, bindToController: { tide: '=' }, controllerAs: 'mark', "
        "controller: ['$scope', function($scope) { $scope.$watch('mark.tide', go); }], "
        'template: \'<!-- mark.tide --><b title="mark.tide">{{ mark.tide + "mark.tide" }}</b>\''
    )
    written = carried(tmp_path, directive(options))[0].files[0].text
    assert "<!-- mark.tide -->" in written
    assert 'title="mark.tide">{{ mark.tide + "mark.tide" }}' in written
    assert "controllerAs: 'mark'" in written
    assert "$scope.$watch('mark.tide', go)" in written


def test_comments_of_the_factory_are_kept(tmp_path: Path) -> None:
    text = directive(
        f"{ISOLATED}, {TEMPLATE}", before="// The tide is in metres.\n  /* and rises */"
    )
    written = carried(tmp_path, text)[0].files[0].text
    assert "// The tide is in metres." in written
    assert "/* and rises */" in written


def test_what_a_computed_text_begins_with(tmp_path: Path) -> None:
    link = "function(scope) { scope.$watch('tide.' + key, go); scope[key] = 1; angular.extend(scope, more); }"
    written = carried(tmp_path, directive(f"{ISOLATED}, {TEMPLATE}, link: {link}"))[0].files[0].text
    assert "scope.$watch('$ctrl.tide.' + key, go); $ctrl[key] = 1; angular.extend($ctrl, more);" in written  # fmt: skip


PREFLIGHT = [
    ("element-name", f"{TEMPLATE}, {ISOLATED}", "tide", ""),
    ("element-name", f"{TEMPLATE}, {ISOLATED}", "tideMark", "gull"),
    ("registration-name", f"{TEMPLATE}, {ISOLATED}", "TideMark", ""),
    ("name-undeclared", "template: '<b>{{level}}</b>', scope: {}", "tideMark", ""),
    (
        "object-shown",
        "template: '<b title=\"{{tide.level}}\">{{tide}}</b>', scope: { tide: '=' }",
        "tideMark",
        "",
    ),
    (
        "attribute-of-scripts",
        "template: '<b className=\"low\">{{tide}}</b>', scope: { tide: '=' }",
        "tideMark",
        "",
    ),
]


@pytest.mark.parametrize(("rule", "options", "name", "prefix"), PREFLIGHT)
def test_what_would_not_work_where_it_is_put_is_told(
    rule: str, options: str, name: str, prefix: str, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    old = tmp_path / "old.js"
    old.write_text(directive(options).replace("tideMark", name))
    result = carry_file(Request(old, "old.js", "controller-component", prefix=prefix))[0]
    assert (result.status, [finding.rule for finding in result.findings]) == ("clean", [rule])


@pytest.mark.parametrize(
    "options",
    [
        f"{TEMPLATE}, {ISOLATED}",
        "template: '<b>{{level}}</b>', scope: {}, link: function(scope) { scope.level = 1; }",
        "template: '<b>{{level}}</b>', scope: {}, link: function(scope) { angular.extend(scope, all); }",
        "template: '<input ng-model=\"level\">{{level}}', scope: {}",
        "template: '{{$ctrl.level}}', scope: {}, controllerAs: '$ctrl', controller: function() { this.level = 1; }",
        "template: '{{tides.length}} {{tides | json}}', scope: { tides: '=' }",
    ],
)
def test_what_works_is_told_nothing_about(options: str, tmp_path: Path) -> None:
    assert carried(tmp_path, directive(options))[0].findings == ()


UNMOVABLE = [
    ("link-unread", "link: function() { var scope = arguments[0]; scope.x = 1; }"),
    ("link-unread", "link: async function(scope) { scope.x = await load(); }"),
    (
        "link-unread",
        "compile: function(element, attrs) { return function(scope) { scope.x = attrs.tide; }; }",
    ),
    ("controller-unread", "controller: function($scope) { $scope.x = arguments.length; }"),
    ("controller-unread", "controller: function($scope) { $scope.x = 1; return { y: 2 }; }"),
    ("controller-unread", "controller: ($scope) => { $scope.x = this; }"),
    (
        "names-meet",
        "controller: function() { this.$postLink = function() {}; }, link: function(scope) { scope.x = 1; }",
    ),
    (
        "names-meet",
        "controller: function($scope) { this.$onInit = function() {}; $scope.x = $scope.tide; }",
    ),
    (
        "names-meet",
        "controller: function($scope) { $scope.x = $scope.tide; }, link: { pre: function(scope) { scope.y = 1; } }",
    ),
    (
        "scope-handed-on",
        "controller: function($scope) { this.x = 1; $scope[key] = 2; $scope.x = 3; }",
    ),
]


@pytest.mark.parametrize(("rule", "options"), UNMOVABLE)
def test_what_would_mean_something_else_elsewhere_is_refused(
    rule: str, options: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, directive(f"{TEMPLATE}, {ISOLATED}, {options}"))[0]
    assert [finding.rule for finding in result.findings] == [rule]


def test_members_of_a_prototype_are_the_instances(tmp_path: Path) -> None:
    text = (
        "function Mark($scope) { $scope.rise = 1; $scope['ebb'] = 2; }\n"
        "Mark.prototype.rise = function() { return this.ebb; };\n"
    ) + directive(f"{TEMPLATE}, {ISOLATED}, controller: Mark")
    result = carried(tmp_path, text)[0]
    assert [finding.rule for finding in result.findings] == ["scope-handed-on"]
    written = carried(tmp_path, text.replace("$scope['ebb'] = 2; ", ""))[0].files[0].text
    assert "$ctrl.shownRise = 1;" in written


ONE_WAY = [
    (
        "template: '<i ng-click=\"tide = 1\"></i>'",
        'ng-click="$ctrl.tide = 1; $ctrl.onTideChange({ $value: $ctrl.tide })"',
    ),
    (
        "template: '<input ng-model=\"tide\">'",
        'ng-model="$ctrl.tide" ng-change="$ctrl.onTideChange({ $value: $ctrl.tide })">',
    ),
    (
        "template: '<input ng-model=\\'tide\\'>'",
        "ng-change=\\'$ctrl.onTideChange({ $value: $ctrl.tide })\\'>",
    ),
    (
        'template: \'<input ng-model="tide" ng-change="go()">\'',
        'ng-change="$ctrl.onTideChange({ $value: $ctrl.tide }); $ctrl.go()">',
    ),
    ("template: '', link: function(scope) { scope.tide += 1; }", "$ctrl.tide += 1;\n"),
    ("template: '<b>{{tide}}</b>'", "scope: { tide: '<' }".replace("scope", "bindings")),
]


@pytest.mark.parametrize(("options", "wanted"), ONE_WAY)
def test_two_way_bindings_tell_of_what_they_become(
    options: str, wanted: str, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    old = tmp_path / "old.js"
    old.write_text(directive(f"{ISOLATED}, {options}"))
    result = carry_file(Request(old, "old.js", "controller-component", one_way=True))[0]
    assert result.status == "clean", result.findings
    assert wanted in result.files[0].text


@pytest.mark.parametrize(
    "options",
    [
        "link: function(scope) { go(scope.tide = 1); }",
        "link: function(scope) { scope[key] = 1; }",
        "link: function(scope) { if (scope.a) scope.tide = 1; }",
    ],
)
def test_a_write_that_cannot_be_told_of_is_refused(options: str, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    old = tmp_path / "old.js"
    old.write_text(directive(f"{TEMPLATE}, {ISOLATED}, {options}"))
    result = carry_file(Request(old, "old.js", "controller-component", one_way=True))[0]
    assert [finding.rule for finding in result.findings] == ["one-way-write"]


CHILDREN = [
    "scope: true, template: '<i>{{tide}}</i>'",
    "link: function(scope) { go(scope.tide); }",
    "link: function(scope) { scope.$watch('tide', go); }",
    "scope: {}, link: function(scope) { go(scope.$parent.tide); }",
    "template: '<span grand-child></span>'",
]


@pytest.mark.parametrize("child", CHILDREN)
def test_a_child_that_finds_its_names_around_it_keeps_it_a_directive(
    child: str, tmp_path: Path
) -> None:
    text = directive("scope: { tide: '=' }, template: '<b tide-child></b>'")
    (tmp_path / "child.js").write_text(
        f"angular.module('gullmoor').directive('tideChild', function() {{ return {{ {child} }}; }})\n"
        ".directive('grandChild', function() { return { template: '{{tide}}' }; });\n"
    )
    result = carried(tmp_path, text)[0]
    assert [finding.rule for finding in result.findings] == ["child-inherits"]


def test_a_child_with_a_scope_of_its_own_does_not(tmp_path: Path) -> None:
    text = directive("scope: { tide: '=' }, template: '<b tide-child=\"tide\"></b>'")
    (tmp_path / "child.js").write_text(
        "angular.module('gullmoor').directive('tideChild', function() { return {\n"
        "  scope: { tide: '=tideChild' }, link: function(scope) { go(scope.tide); } }; });\n"
    )
    result = carried(tmp_path, text)[0]
    assert result.status == "clean"
    assert 'tide-child="$ctrl.tide"' in result.files[0].text


CLOSED = (
    "scope: {}, bindToController: { tide: '<' }, controllerAs: 'mark', template: '{{mark.tide}}'"
)


@pytest.mark.parametrize(
    "controller", ["'Elsewhere'", "Imported", "class { rise() { this.tide += 1; } }"]
)
def test_a_controller_nothing_is_written_into_may_be_anything(
    controller: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, directive(f"{CLOSED}, controller: {controller}"))[0]
    assert result.status == "clean", result.findings
    written = result.files[0].text
    assert f"controller: {controller}" in written
    assert "controllerAs: 'mark', template: '{{mark.tide}}'" in written
    assert "bindings: { tide: '<' }" in written


def test_a_controller_of_another_file_is_made_where_something_is_linked(tmp_path: Path) -> None:
    link = "link: function(scope, element, attrs, mark) { mark.start(element[0]); }"
    text = directive(f"{CLOSED}, controller: 'Elsewhere', {link}")
    written = carried(tmp_path, text)[0].files[0].text
    assert (
        "var $ctrl = $controller('Elsewhere', { $scope: $scope, $element: $element, "
        "$attrs: $attrs, $transclude: $transclude });"
    ) in written
    assert "$ctrl.start($element[0]);" in written
    assert "return $ctrl;" in written


@pytest.mark.parametrize(
    ("expression", "other", "status"),
    [
        ("'other.html'", "<b>Low water</b>", "clean"),
        ("'other.html'", "<b>{{tide}}</b>", "refused"),
        ("'other.html'", "<b ng-include=\"'deep.html'\"></b>", "refused"),
        ("'nowhere.html'", "", "refused"),
        ("tide.url", "", "refused"),
    ],
)
@pytest.mark.parametrize(
    "form", ['<i ng-include="URL"></i>', '<ng-include src="URL"></ng-include>']
)
def test_templates_that_are_taken_in(
    form: str, expression: str, other: str, status: str, tmp_path: Path
) -> None:
    text = directive(f"{ISOLATED}, templateUrl: 'mark.html'")
    mark = form.replace("URL", expression)
    results = carried(tmp_path, text, mark__html=mark, other__html=other, deep__html="{{tide}}")
    assert results[0].status == status
    if status == "refused":
        assert results[0].findings[0].rule == "template-included"


def test_names_that_stand_for_the_scope_go(tmp_path: Path) -> None:
    link = """link: function(scope) {
      var self = scope;
      var first = 1, other = scope;
      const { tide, low = 2 } = scope;

      self.x = tide + low;
      other.y = first;
      self.$watch('tide', function(now, was, own) { own.z = now; });
    }"""
    written = carried(tmp_path, directive(f"{TEMPLATE}, {ISOLATED}, {link}"))[0].files[0].text
    assert "self" not in written
    for line in (
        "var first = 1, other = $ctrl;",
        "const { tide, low = 2 } = $ctrl;",
        "$ctrl.x = tide + low;",
        "$ctrl.y = first;",
        "scope.$watch('$ctrl.tide', function(now, was, own) { $ctrl.z = now; });",
    ):
        assert line in written


def test_the_services_of_a_local_controller_are_listed_with_it(tmp_path: Path) -> None:
    text = directive(
        f"{TEMPLATE}, {ISOLATED}, controller: Mark",
        before="function Mark($scope, tides) { $scope.x = tides.now(); }\n  Mark.$inject = ['$scope', 'tides'];",
    )
    written = carried(tmp_path, text)[0].files[0].text
    assert "$inject" not in written
    assert "controller: ['tides', function Mark(tides) {" in written


def test_a_controller_with_bindings_on_a_scope_that_inherits(tmp_path: Path) -> None:
    options = (
        "scope: true, bindToController: { tides: '<', kind: '@' }, controllerAs: 'mark', "
        "controller: function($scope) { $scope.low = 1; $scope.$watch('mark.tides.length', go); }, "
        "template: '{{low}} {{mark.kind}} {{port}}'"
    )
    result = carried(tmp_path, directive(options))[0]
    assert [(f.rule, f.message.split(": ")[1]) for f in result.findings] == [
        ("names-bound", "port")
    ]
    written = result.files[0].text
    assert written.count("bindings:") == 1
    assert "bindings: { tides: '<', kind: '@', port: '<' }" in written
    assert "$scope.$watch('mark.tides.length', go)" in written
    assert "'{{mark.low}} {{mark.kind}} {{mark.port}}'" in written


def test_a_name_of_the_scope_is_not_taken_for_one_bound_to_the_controller(tmp_path: Path) -> None:
    options = (
        "scope: {}, bindToController: { tide: '<', low: '<' }, controllerAs: 'mark', "
        "controller: function($scope) { $scope.low = this.low; }, "
        "template: '{{tide}} {{mark.tide}} {{low}} {{mark.low}}'"
    )
    written = carried(tmp_path, directive(options))[0].files[0].text
    assert "bindings: { tide: '<', low: '<' }" in written
    assert "$ctrl.shownLow = this.low;" in written
    assert "'{{mark.shownTide}} {{mark.tide}} {{mark.shownLow}} {{mark.low}}'" in written


def test_an_attribute_nobody_knows_that_can_only_be_an_expression(tmp_path: Path) -> None:
    template = (
        '<far-away rows="tide.rows" on-pick="!tide &amp;&amp; pick(row)" icon="arrow-left.png" '
        'ng-repeat="row in tide.rows"></far-away>'
    )
    link = "link: function(scope) { scope.pick = go; }"
    text = directive(f"template: '{template}', {ISOLATED}, {link}")
    written = carried(tmp_path, text)[0].files[0].text
    assert 'rows="$ctrl.tide.rows"' in written
    assert 'on-pick="!$ctrl.tide &amp;&amp; $ctrl.pick(row)"' in written
    assert 'icon="arrow-left.png"' in written


def test_a_directive_whose_name_is_made_is_told(tmp_path: Path) -> None:
    text = "names.forEach(function(name) { angular.module('m').directive('tide' + name, make(name)); });"
    result = carried(tmp_path, text)[0]
    assert (result.component, result.status) == ("'tide' + name", "refused")
    assert [finding.rule for finding in result.findings] == ["definition-unread"]
