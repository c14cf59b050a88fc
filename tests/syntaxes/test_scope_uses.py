"""What code asks a directive's scope for, and a controller's instance."""

from __future__ import annotations

import pytest

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.registrations import Registrations, text_of, unescaped
from clean_carry.syntaxes.scoped_template.scope_uses import (
    ScopeUses,
    escaped_offsets,
    instance_uses,
    uses_of,
)


def parsed(text: str) -> tuple[Tree, Names]:
    tree = Tree(SourceText("berth.js", text.encode()))
    return tree, Names(tree)


def first_function(tree: Tree) -> Node:
    return tree.of("function_declaration")[0]


def scope_uses(body: str) -> ScopeUses:
    tree, names = parsed(f"function link(scope, element) {{\n{body}\n}}\n")
    parameters = first_function(tree).child("parameters")
    assert parameters is not None
    taken = parameters.named_children[0]
    return uses_of(names, [taken.child("pattern") or taken])


KINDS = [
    ("scope.tide = 1;", [("member", "tide", True)]),
    ("show(scope.tide);", [("member", "tide", False)]),
    ("scope['tide'] += 1;", [("computed", "tide", True)]),
    ("show(scope[name]);", [("computed", "", False)]),
    ("scope['$watch']('tide', show);", [("escape", "$watch", False)]),
    ("scope.$on('$destroy', stop);", [("own", "$on", False)]),
    ("show(scope.$parent.port);", [("parent", "$parent", False)]),
    ("var inner = scope; inner.tide = 2;", [("alias", "inner", False), ("member", "tide", True)]),
    ("let inner = scope; inner = 1;", [("escape", "", False)]),
    ("const { tide, port: there } = scope;", [("computed", "", False)]),
    ("const { $watch } = scope;", [("escape", "", False)]),
    ("if (scope === other) show();", [("compared", "", False)]),
    ("angular.extend(scope, { tide: 1 });", [("fill", "", False)]),
    ("const all = angular.extend(scope, {});", [("escape", "", False)]),
    ("show(scope);", [("escape", "", False)]),
    ("scope = element;", [("escape", "", False)]),
    ("scope.$new();", [("escape", "$new", False)]),
]


@pytest.mark.parametrize(("body", "expected"), KINDS)
def test_kinds_of_uses(body: str, expected: list[tuple[str, str, bool]]) -> None:
    assert [(use.kind, use.name, use.written) for use in scope_uses(body).uses] == expected


def test_expressions_by_text() -> None:
    found = scope_uses(
        "scope.$watch('tide.height + port', show);\n"
        "scope.$watchGroup(['berth', late ? 'cargo' : 'crew'], show);\n"
        "scope.$eval('open = !open');\n"
        "scope.$watch('ship.' + name, show);\n"
        "scope.$watch(name, show);\n"
        "scope.$watch('a +', show);\n"
        "scope.$watch(function (inner) { return inner.depth; }, show);\n"
        "scope.$watch('wind', function (now, before, own) { own.gust = now; });\n"
    )
    assert found.members() == {
        "tide": False, "port": False, "berth": False, "cargo": False, "crew": False, "open": True,
        "ship": False, "depth": False, "wind": False, "gust": True,
    }  # fmt: skip
    assert [node.text for node, _ in found.unread] == ["name", "'a +'"]


def test_the_alias_of_a_controller_is_no_member() -> None:
    found = scope_uses("scope.$watch('desk.open && tide', show);")
    found.alias = "desk"
    assert found.members() == {"tide": False}


def test_a_function_by_name_is_no_text() -> None:
    assert scope_uses("function wet() {}\nscope.$watch(wet, show);").unread == []


INSTANCE = """function Desk() {
  var vm = this;
  let late;
  late = this;
  this.open = false;
  vm.tide = late.port;
  vm.each = Object.keys(vm);
  for (var key in late) show(key);
  vm.show = function () { return this.inner; };
  var arrow = () => this.far;
}
Desk.prototype.save = function () { this.saved = true; };
"""


def test_uses_of_an_instance() -> None:
    tree, names = parsed(INSTANCE)
    found = instance_uses(names, first_function(tree))
    assert found.members == {
        "open": True, "tide": True, "port": False, "each": True, "show": True, "inner": False,
        "far": False, "save": True, "saved": True,
    }  # fmt: skip
    assert sorted(binding.name for binding in found.aliases) == ["late", "vm"]
    assert [node.text for node in found.listed] == ["vm", "late"]


def test_places_of_a_literals_value() -> None:
    tree, _ = parsed(r"""show('a\n\u0041ä')""")
    (literal,) = tree.of("string")
    assert text_of(literal) == "a\nAä"
    start = literal.start + 1
    assert escaped_offsets(literal) == [start, start + 1, start + 3, start + 9, start + 11]
    assert unescaped(r"\x41\'\q\\") == "A'q\\"


REGISTERED = """
const berth = ['$http', function (http) { return {}; }];
function crew($log, tide) { return {}; }
crew.$inject = ['$log', 'tideService'];
angular.module('harbour')
  .directive('ghBerth', berth)
  .directive('ghCrew', crew)
  .component('ghQuay', { template: '<p></p>' })
  .directive({ ghPier: function () { return {}; } })
  .value('depth', 3);
"""


def test_what_a_file_registers() -> None:
    tree, names = parsed(REGISTERED)
    found = {r.name: r for r in Registrations(tree, names).found}
    assert sorted(found) == ["depth", "ghBerth", "ghCrew", "ghPier", "ghQuay"]
    assert {r.kind for r in found.values()} == {"directive", "component", "value"}
    assert [i.name for i in found["ghBerth"].injections] == ["$http"]
    assert [i.name for i in found["ghCrew"].injections] == ["$log", "tideService"]
    assert found["ghCrew"].explicit
    assert not found["ghPier"].explicit
    assert found["ghQuay"].function is None
