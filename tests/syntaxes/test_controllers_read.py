"""Controller components become single files: each construct of the template and of the controller."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

SCRIPT = """angular.module('desk', []).component('berthCard', {{
  bindings: {{ name: '@', rows: '<', onPick: '&' }},
  transclude: {{ foot: '?berthFoot' }},
  template: `{template}`,
  controller: {controller},
}});
"""
CONTROLLER = """function () {
    var vm = this;
    vm.open = false;
    vm.chosen = null;
    vm.what = '';
    vm.pick = function (row) {
      vm.onPick({ row: row });
    };
  }"""


def carried(folder: Path, text: str, target: str = "single-file-object") -> Result:
    (folder / "berth-card.js").write_text(text, "utf-8")
    return carry_file(Request(folder / "berth-card.js", "berth-card.js", target))[0]


def written(template: str = "<p>x</p>", controller: str = CONTROLLER) -> str:
    return SCRIPT.format(template=template, controller=controller)


def parts(result: Result) -> tuple[str, str]:
    """The template and the script, each on one line."""
    assert result.status == "clean", result.findings
    text = " ".join(result.files[0].text.split())
    template, _, script = text.partition(" </template>")
    return template.removeprefix("<template> "), script


TEMPLATES = [
    ("<p>{{ $ctrl.name }}</p>", "<p>{{ name }}</p>"),
    ("<p ng-if=\"$ctrl.open\" class=\"a\">x</p>", '<p v-if="open" class="a">x</p>'),
    ('<li ng-repeat="row in $ctrl.rows track by row.id">{{ $index }}</li>',
     '<li v-for="(row, index) in rows" :key="row.id">{{ index }}</li>'),
    ('<li ng-repeat="(key, value) in $ctrl.open" ng-if="value">{{ key }}</li>',
     '<template v-for="(value, key) in open" :key="key"><li v-if="value">{{ key }}</li></template>'),
    ('<li ng-repeat="what in $ctrl.rows">{{ what }}{{ $ctrl.what }}</li>',
     '<li v-for="eachWhat in rows">{{ eachWhat }}{{ what }}</li>'),
    ('<li ng-repeat="row in $ctrl.rows" ng-class="{ last: $last }">x</li>',
     '<li v-for="(row, index) in rows" :class="{ last: (index === rows?.length - 1) }">x</li>'),
    ('<p ng-show="$ctrl.open">x</p>', '<p v-show="open">x</p>'),
    ('<p ng-hide="$ctrl.open">x</p>', '<p v-show="!(open)">x</p>'),
    ('<button ng-click="$ctrl.pick(1)" ng-disabled="!$ctrl.open">x</button>',
     '<button @click="pick(1)" :disabled="!open">x</button>'),
    ('<button ng-click="$ctrl.onPick({ row: 1 })">x</button>',
     "<button @click=\"$emit('pick', { row: 1 })\">x</button>"),
    ('<form ng-submit="$ctrl.pick(2)"><input ng-model="$ctrl.what" ng-change="$ctrl.pick(3)"></form>',
     '<form @submit.prevent="pick(2)"><input v-model.trim="what" @input="pick(3)"></form>'),
    ('<input type="checkbox" ng-model="$ctrl.open" ng-change="$ctrl.pick(3)">',
     '<input type="checkbox" v-model="open" @change="pick(3)">'),
    ('<a ng-href="#/{{ $ctrl.name }}" ng-attr-title="{{ $ctrl.name }}">x</a>',
     "<a :href=\"`#/${name ?? ''}`\" :title=\"name\">x</a>"),
    ('<p ng-switch="$ctrl.what"><b ng-switch-when="a">a</b><i ng-switch-default>b</i></p>',
     "<p><b v-if=\"what === 'a'\">a</b><i v-else>b</i></p>"),
    ('<p ng-bind="$ctrl.name | uppercase"></p>', "<p>{{ upperCase(name) }}</p>"),
    ('<p>{{ $ctrl.chosen.id }}</p>', "<p>{{ chosen?.id }}</p>"),
    ("<p>{{ $ctrl.name + ': ' }}</p>", "<p>{{ (name ?? '') + ': ' }}</p>"),
    ('<div ng-transclude></div><p ng-transclude="foot">none</p>',
     '<div><slot></slot></div><p><slot name="foot">none</slot></p>'),
    ("<table><tr><td>x</td></tr></table>", "<table><tbody><tr><td>x</td></tr></tbody></table>"),
    ("<p><b>a</b>\n<i>b</i></p>", "<p><b>a</b> <i>b</i></p>"),
]  # fmt: skip


@pytest.mark.parametrize(("template", "new"), TEMPLATES)
def test_a_template(tmp_path: Path, template: str, new: str) -> None:
    assert parts(carried(tmp_path, written(template)))[0] == new


CONTROLLERS = [
    (CONTROLLER, "data() { return { open: false, chosen: null, what: '', }; }"),
    (CONTROLLER, "pick(row) { this.$emit('pick', { row: row }); }"),
    ("class { constructor($timeout) { this.$timeout = $timeout; }"
     " go() { this.$timeout(() => { this.on = 1; }, 5); } }",
     "go() { setTimeout(() => { this.on = 1; }, 5); }"),
    ("class { get label() { return this.name; } }", "computed: { label() { return this.name; }, }"),
    ("function () { var vm = this; vm.$onInit = function () { vm.at = 1; }; }",
     "created() { this.at = 1; }"),
    ("function () { var vm = this; vm.$onDestroy = stop; function stop() { vm.at = 1; } }",
     "beforeUnmount() { this.at = 1; }"),
    ("function () { this.$onChanges = function (changes) { if (changes.rows) { this.at = 1; } }; }",
     "rows: { handler() { this.at = 1; }, immediate: true, }"),
    ("function () {"
     " this.$onChanges = (c) => { if (c.rows && !c.rows.isFirstChange()) { this.at = 1; } }; }",
     "rows() { this.at = 1; }"),
    ("function ($scope) { this.at = 1;"
     " $scope.$watch('$ctrl.at', function (now, old) { if (now !== old) stop(); }); }",
     "at(now, old) { if (now !== old) stop(); }"),
    ("function () { var count = 0; this.add = function () { count += 1; }; }",
     "add() { this.count += 1; }"),
    ("function () { var vm = this; vm.load = function () { [1].map(function () { vm.at = 1; }); }; }",
     "const vm = this; [1].map(function () { vm.at = 1; });"),
    ("['$http', function (http) { this.load = function () { http.get('/x').then(use); }; }]",
     "request('GET', '/x').then(use);"),
    ("function ($log, $q) { this.say = function () { $log.info(1); return $q.resolve(2); }; }",
     "console.info(1); return Promise.resolve(2);"),
]  # fmt: skip


@pytest.mark.parametrize(("controller", "there"), CONTROLLERS)
def test_a_controller(tmp_path: Path, controller: str, there: str) -> None:
    assert there in parts(carried(tmp_path, written(controller=controller)))[1]


REFUSED = [
    ("<p>{{ ::$ctrl.name }}</p>", CONTROLLER, "template-unread"),
    ("<p ng-include=\"'x.html'\"></p>", CONTROLLER, "template-unread"),
    ("<p>{{ $ctrl.rows | orderBy:'id' }}</p>", CONTROLLER, "template-unread"),
    ("<berth-row></berth-row>", CONTROLLER, "template-unread"),
    ('<input ng-model="$ctrl.what" required>', CONTROLLER, "template-unread"),
    ("<p>x</p>", "function (pierService) { this.go = function () { pierService.go(); }; }",
     "controller-service"),
    ("<p>x</p>", "function ($timeout) { this.go = function () { return $timeout(5).then(go); }; }",
     "controller-service"),
    ("<p>x</p>", "function () { this.go = function () { this.name = 'x'; }; }", "binding-written"),
    ("<p>x</p>", "function () { this.go = function () { return this.onPick(); }; }", "event-asked"),
    ("<p>x</p>", "function () { this.go = function () { use(this); }; }", "instance-passed"),
    ("<p>x</p>", "function () { this.$doCheck = function () { this.at = 1; }; }", "hook-unread"),
    ("<p>x</p>", "function ($scope) { $scope.$on('tide', function () {}); }", "controller-statement"),
    ("<p>x</p>", "'PierController'", "controller-elsewhere"),
]  # fmt: skip


@pytest.mark.parametrize(("template", "controller", "rule"), REFUSED)
def test_what_no_single_file_says_is_refused(
    tmp_path: Path, template: str, controller: str, rule: str
) -> None:
    result = carried(tmp_path, written(template, controller))
    assert result.status == "refused"
    assert {finding.rule for finding in result.findings} == {rule}


@pytest.mark.parametrize(
    ("binding", "rule"),
    [("pier: '='", "binding-both-ways"), ("pier: '<*'", "controller-option")],
)
def test_bindings_that_are_not_read(tmp_path: Path, binding: str, rule: str) -> None:
    text = written().replace("name: '@'", binding)
    assert {one.rule for one in carried(tmp_path, text).findings} == {rule}


def test_events_and_slots_keep_their_old_names_in_the_map(tmp_path: Path) -> None:
    template = '<p ng-transclude="foot">none</p>'
    result = carried(tmp_path, written(template), "decorated-class")
    assert ("onPick", "pick") in result.interface.events
    assert ("berth-foot", "foot") in result.interface.slots


def test_a_directive_reaches_a_class_through_a_component(tmp_path: Path) -> None:
    text = written().replace(".component('berthCard', {", ".directive('berthCard', () => ({")
    text = text.replace("bindings:", "scope: {}, controllerAs: '$ctrl', bindToController:")
    text = text.removesuffix("});\n") + "}));\n"
    result = carried(tmp_path, text, "decorated-class")
    assert result.status == "clean", result.findings
    assert "export class BerthCard" in result.files[0].text


def test_quoted_text_in_a_template_stays_as_it_is(tmp_path: Path) -> None:
    template, _ = parts(
        carried(tmp_path, written("<button ng-click=\"$ctrl.pick('row.page')\">x</button>"))
    )
    assert "pick('row.page')" in template


def test_what_calls_the_old_framework_is_refused(tmp_path: Path) -> None:
    controller = "function () { var vm = this; vm.rows2 = angular.copy([1]); }"
    result = carried(tmp_path, written(controller=controller))
    assert result.status == "refused"
    assert result.findings[0].rule == "controller-service"
    assert "angular" in result.findings[0].message


def test_what_a_script_registers_besides_stays_in_the_old_file(tmp_path: Path) -> None:
    other = "angular.module('desk').filter('short', function () { return String; });\n"
    result = carried(tmp_path, written() + other)
    _, script = parts(result)
    assert "angular" not in script
    note = next(one for one in result.findings if one.rule == "registrations-stay")
    assert "short" in note.message


def test_comments_of_the_component_and_its_members_are_kept(tmp_path: Path) -> None:
    controller = """function () {
    var vm = this;
    // How many berths are free.
    vm.free = 0;
    // Takes one more berth.
    vm.take = function () { vm.free += 1; };
  }"""
    text = written("<p>{{ $ctrl.free }}</p>", controller)
    _, script = parts(carried(tmp_path, f"// The card of one berth.\n{text}"))
    assert "// The card of one berth. export default" in script
    assert "// How many berths are free. free: 0" in script
    assert "// Takes one more berth. take()" in script
