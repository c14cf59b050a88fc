"""The index of a project: every form in which one file uses the component of another."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from clean_carry.project.index.build import index_of
from clean_carry.project.index.names import dashed, spellings
from clean_carry.project.index.roles import role_of
from made_projects import Made, uses


def text(*lines: str) -> str:
    """The text of a file, line by line."""
    return "\n".join(lines) + "\n"


BERTH = text(
    "import React from 'react';",
    "export default class Berth extends React.Component {",
    "  render() { return <b>{this.props.n}</b>; }",
    "}",
)
TIDE = text(
    "<template><i>{{ level }}</i></template>",
    "<script>",
    "export default { name: 'TideStrip', props: ['level'] };",
    "</script>",
)
ROW = text(
    "const row = () => ({ scope: { n: '<' }, template: '' });",
    "angular.module('gm').directive('berthRow', row);",
)

# What stands in a file, and the uses of the component that are found there: line and how.
SCRIPTS = {
    "default": (
        "import Berth from './Berth';\nexport const a = <Berth n={1} />;\n",
        [(1, "import"), (2, "tag")],
    ),
    "another name": (
        "import B from './Berth.jsx';\nexport const a = <B></B>;\n",
        [(1, "import"), (2, "tag")],
    ),
    "namespace": (
        text(
            "import * as All from './all';",
            "export const a = <All.Berth />;",
            "export const b = All.other;",
        ),
        [(1, "import"), (2, "tag")],
    ),
    "through an index": (
        "import { Berth } from '.';\nexport const a = [Berth];\n",
        [(1, "import"), (2, "value")],
    ),
    "lazy": (
        text(
            "import { lazy } from 'react';",
            "const B = lazy(() => import('./Berth'));",
            "export const a = <B />;",
        ),
        [(2, "lazy"), (3, "tag")],
    ),
    "required": (
        "const B = require('./Berth').default;\nexports.a = B;\n",
        [(1, "require"), (2, "value")],
    ),
    "a type": (
        "import type Berth from './Berth';\nexport type A = Berth;\n",
        [(1, "type"), (2, "type")],
    ),
    "a route": (
        text(
            "import Berth from './Berth';",
            "export const routes = [{ path: '/', component: Berth }];",
        ),
        [(1, "import"), (2, "route")],
    ),
    "an alias of the project": (
        "import Berth from '@/Berth';\nexport const a = <Berth />;\n",
        [(1, "import"), (2, "tag")],
    ),
    "a name of its own": (
        text(
            "import './Berth';",
            "export const Berth = 1;",
            "export const a = Berth;",
        ),
        [],
    ),
    "shadowed": (
        "import Berth from './Berth';\nexport const a = (Berth) => Berth;\n",
        [(1, "import")],
    ),
    "a package": ("import Berth from 'berth';\nexport const a = <Berth />;\n", []),
}


@pytest.mark.parametrize(("code", "found"), SCRIPTS.values(), ids=SCRIPTS)
def test_uses_in_scripts(code: str, found: list[tuple[int, str]], project: Made) -> None:
    files = {
        "src/Berth.jsx": BERTH,
        "src/index.js": "export { default as Berth } from './Berth';\n",
        "src/all.js": "export * from './index';\nexport const other = 1;\n",
        "src/use.jsx": code,
        "clean-carry.toml": '[imports]\n"@/" = "src/"\n',
    }
    index = project(files)
    there = [(line, how) for file, line, how in uses(index, "Berth") if file == "src/use.jsx"]
    assert there == found
    passed_on = [one for one in uses(index, "Berth") if one[2] == "re-export"]
    assert passed_on == [("src/all.js", 1, "re-export"), ("src/index.js", 1, "re-export")]


SINGLE_FILES = {
    "registered and used": (
        text(
"<template><div><tide-strip :level=\"1\" /></div></template>",
"<script>",
"import TideStrip from './TideStrip.vue';",
"export default { components: { TideStrip } };",
"</script>",
),
        [(1, "tag"), (3, "import"), (4, "registration")],
    ),
    "under another name": (
        text(
"<template><Strip /></template>",
"<script>",
"import A from './TideStrip.vue';",
"export default { components: { strip: A } };",
"</script>",
),
        [(1, "tag"), (3, "import"), (4, "registration")],
    ),
    "lazily": (
        text(
"<template><TideStrip /></template>",
"<script>",
"export default { components: { TideStrip: () => import('./TideStrip.vue') } };",
"</script>",
),
        [(1, "tag"), (3, "lazy")],
    ),
    "in the flat form": (
        text(
"<template><tide-strip /></template>",
"<script setup>",
"import TideStrip from './TideStrip.vue';",
"</script>",
),
        [(1, "tag"), (3, "import")],
    ),
    "by the name of a global one": ("<template><p><gm-tide /></p></template>\n", [(1, "tag")]),
    "by a text": ("<template><component is=\"gm-tide\" /></template>\n", [(1, "string")]),
    "by a text in an expression": (
        "<template><component :is=\"on ? 'gm-tide' : 'b'\" /></template>\n", [(1, "string")]
    ),
}  # fmt: skip


@pytest.mark.parametrize(("code", "found"), SINGLE_FILES.values(), ids=SINGLE_FILES)
def test_uses_in_single_files(code: str, found: list[tuple[int, str]], project: Made) -> None:
    main = text(
        "import { createApp } from 'vue';",
        "import T from './TideStrip.vue';",
        "createApp({}).component('gm-tide', T);",
    )
    index = project({"TideStrip.vue": TIDE, "Use.vue": code, "main.js": main})
    assert [
        (line, how) for file, line, how in uses(index, "TideStrip") if file == "Use.vue"
    ] == found
    assert ("main.js", 3, "registration") in uses(index, "TideStrip")


def test_uses_in_pages_and_templates(project: Made) -> None:
    index = project(
        {
            "row.js": ROW,
            "page.html": text(
                '<berth-row n="1"></berth-row>',
                "<p data-berth-row></p>",
                '<script src="row.js"></script>',
            ),
            "list.js": text(
                "angular.module('gm').directive('berthList', function () {",
                "  return { require: '^berthRow',",
                "    template: '<div><berth-row></berth-row></div>' };",
                "});",
            ),
        }
    )
    assert uses(index, "berthRow") == [
        ("list.js", 2, "string"), ("list.js", 3, "tag"), ("page.html", 1, "tag"),
        ("page.html", 2, "attribute"), ("page.html", 3, "script"),
    ]  # fmt: skip


def test_tests_stories_and_mocks_are_told_apart(project: Made) -> None:
    index = project(
        {
            "Berth.jsx": BERTH,
            "Berth.test.jsx": text(
                "import Berth from './Berth';",
                "jest.mock('./Berth');",
                "test('x', () => <Berth />);",
            ),
            "Berth.stories.jsx": "import Berth from './Berth';\nexport const One = () => <Berth />;\n",
        }
    )
    found = next(iter(index.components.values()))
    assert [(use.line, use.how, use.role) for use in found.users] == [
        (1, "import", "story"), (2, "tag", "story"),
        (1, "import", "test"), (2, "mock", "test"), (3, "tag", "test"),
    ]  # fmt: skip


def test_only_what_changed_is_scanned_again(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("CLEAN_CARRY_CACHE", str(tmp_path / "cache"))
    folder = tmp_path / "src"
    folder.mkdir()
    (folder / "package.json").write_text('{"name": "a"}')
    for name in "ABC":
        (folder / f"{name}.jsx").write_text(BERTH.replace("Berth", name))
    scanned: list[int] = []
    first = index_of(folder, say=lambda done, total: scanned.append(total))
    assert scanned == [3, 3, 3]
    again = index_of(folder, say=lambda done, total: scanned.append(total))
    assert scanned == [3, 3, 3] and again.files == first.files and again.digest == first.digest
    place = folder / "B.jsx"
    place.write_text(BERTH.replace("Berth", "Bow"))
    os.utime(place, ns=(1, 1))
    third = index_of(folder, say=lambda done, total: scanned.append(total))
    assert scanned == [3, 3, 3, 1]
    assert [one.seen.name for one in third.components.values()] == ["A", "Bow", "C"]
    assert third.digest != first.digest
    (folder / "A.jsx").unlink()
    assert len(index_of(folder).components) == 2


def test_what_cannot_be_read_is_a_problem_and_the_rest_is_there(project: Made) -> None:
    index = project({"A.jsx": "export default <", "B.jsx": BERTH, "C.js": "\0"})
    problems = [facts.problem for facts in index.files.values() if facts.problem]
    assert len(problems) == 2 and "A.jsx:1" in problems[0]
    assert len(index.components) == 1


def test_names_and_roles() -> None:
    assert dashed("GMTideStrip") == "gm-tide-strip"
    assert set(spellings("tideStrip")) == {"tideStrip", "tide-strip", "TideStrip"}
    roles = {
        "/src/A.jsx": "source", "/src/A.test.jsx": "test", "/tests/a.js": "test",
        "/src/__tests__/a.js": "test", "/a.stories.js": "story", "/contest/a.js": "source",
    }  # fmt: skip
    assert {path: role_of(path) for path in roles} == roles


def test_the_short_form_of_a_default_that_is_passed_on(project: Made) -> None:
    index = project({"Berth.jsx": BERTH, "index.js": "export Berth from './Berth';\n"})
    assert uses(index, "Berth") == [("index.js", 1, "re-export")]
    there = [one.names for one in index.files[(index.root / "index.js").as_posix()].imports]
    assert there == [(("default", "Berth"),)]
