"""Templates that are evaluated against a scope: expressions, and the names a template takes."""

from __future__ import annotations

import pytest

from clean_carry.source.template.expression import ExpressionError, names_in
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.directives import dashed, normalised
from clean_carry.syntaxes.scoped_template.markup import TemplateNames, names_of


def shown(text: str) -> list[str]:
    found = []
    for use in names_in(text):
        path = "".join(f".{name}" for name, _, _ in use.path)
        marks = "=" * use.written + "()" * use.called + ":" * use.shorthand
        found.append(f"{use.name}{path}{marks}")
        assert text[use.start : use.end] == use.name
    return found


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("", []),
        ("berth.name", ["berth.name"]),
        ("::berth || 'none'", ["berth"]),
        ("open = !open; pick(berth, $event)", ["open=", "open", "pick()", "berth", "$event"]),
        ("berths[at].open = true", ["berths", "at"]),
        ("tide.level.at(now)[0] = 1", ["tide.level.at()", "now"]),
        ("sailings | orderBy: key : -1 | limitTo:most", ["sailings", "key", "most"]),
        ("{ late, 'on time': early, [made]: x }", ["late:", "early", "made", "x"]),
        ("a ? b : c ? d : e", ["a", "b", "c", "d", "e"]),
        ("(a).b + [c, 'd', 1.5e3, true, undefined].length", ["a", "c"]),
        ("$parent.$parent.open = 1", ["$parent.$parent.open="]),
        ("f(a)(b).c", ["f()", "a", "b"]),
        ("a === b && !c || -d % 2 <= e", ["a", "b", "c", "d", "e"]),
    ],
)
def test_names_of_an_expression(text: str, names: list[str]) -> None:
    assert shown(text) == names


@pytest.mark.parametrize("text", ["a b", "a +", "{a:", "1 = 2", "function() {}", "a # b", "a ? b"])
def test_what_is_no_expression(text: str) -> None:
    with pytest.raises(ExpressionError):
        names_in(text)


def read(template: str) -> TemplateNames:
    def kind(node: object, name: str) -> str:
        return "text" if name in ("title", "class", "type", "value") else ""

    return names_of(SourceText("tide.html", template.encode()), kind)


def taken(template: str) -> list[str]:
    return [use.name + "=" * use.written + "^" * use.level for use in read(template).names]


@pytest.mark.parametrize(
    ("template", "names"),
    [
        ("<p title='{{tide}}'>{{ level | number }} tide</p>", ["tide", "level"]),
        ("<p title='tide'>tide</p>", []),
        ('<li ng-repeat="b in berths">{{b.name}} {{$index}} {{port}}</li>', ["berths", "port^"]),
        ('<li ng-repeat="(k, v) in marks track by k">{{k}}{{v}}</li>', ["marks"]),
        ('<i ng-repeat-start="b in berths"></i><i>{{b}}</i><i ng-repeat-end></i>{{b}}', ["berths", "b"]),
        ('<p ng-if="open" ng-class="{ a: b }">{{open}}</p>', ["open", "b^", "open^"]),
        ('<input ng-model="name">', ["name="]),
        ('<form name="f"><input name="g"></form>', ["f="]),
        ('<p ng-if="a" ng-init="b = c">{{b}}</p>{{b}}', ["a", "c^", "b"]),
        ('<p ng-init="b = c">{{b}}</p>', ["b=", "c", "b"]),
        ('<select ng-options="x.id as x.label for x in all"></select>', ["all"]),
        ('<p ng-non-bindable>{{a}}</p><script>{{b}}</script>', []),
        ('<p data-ng-show="a" x-ng-hide="b" ng:click="c($event)"></p>', ["a", "b", "c"]),
        ('<p ng-attr-title="{{a}}" ng-prop-value="b" ng-on-tide="c"></p>', ["a", "b", "c"]),
        ('<p ng-bind="a &amp;&amp; b &lt; c">é {{d}}</p>', ["a", "b", "c", "d"]),
        ("<ul><li>{{a}}<li>{{b}}</ul></i>{{c}}", ["a", "b", "c"]),
    ],
)  # fmt: skip
def test_names_a_template_takes(template: str, names: list[str]) -> None:
    assert taken(template) == names


def test_places_are_those_of_the_text() -> None:
    template = '<p title="é &amp; {{tide}}">é {{ level }}</p><b ng-if="a &amp;&amp; berth"></b>'
    data = template.encode()
    found = read(template).names
    assert [data[use.start : use.end].decode() for use in found] == ["tide", "level", "a", "berth"]


def test_what_goes_up_is_found_where_it_is() -> None:
    found = read(
        '<p ng-if="a"><i ng-repeat="b in c">{{$parent.d}}{{$parent.$parent.$parent.e}}</i></p>'
    )
    assert [(use.name, use.level, use.up) for use in found.names[2:]] == [("d", 2, 1), ("e", 2, 3)]


def test_what_is_not_read_is_told() -> None:
    found = read('<p ng-controller="A as a"></p><i ng-repeat="x over y"></i><b ng-show="a b"></b>')
    told = [what.split(" (")[0] for what, _ in found.unread]
    assert told == ["a controller of its own", "a repetition", "an expression"]
    assert read('<tide-bar level="a.b" note="two words">').unknown[0][:3] == ("level", "a.b", 10)


def test_slots_and_roots() -> None:
    found = read("<b ng-transclude></b><i ng-transclude='head'></i><ng-transclude></ng-transclude>")
    assert (found.slots, found.roots) == (["", "head", ""], 3)


def test_names_of_directives() -> None:
    assert [normalised(n) for n in ("data-ng-click", "ng:click", "x-berth_grid")] == [
        "ngClick",
        "ngClick",
        "berthGrid",
    ]
    assert dashed("berthGridRow") == "berth-grid-row"
