"""The survey: in which order components are carried, and why."""

from __future__ import annotations

from clean_carry.project.index.links import Index
from clean_carry.project.survey import Tried, dry_run, survey
from made_projects import Made


def component(name: str, *used: str, lines: int = 0) -> str:
    imports = "".join(f"import {one} from './{one}';\n" for one in used)
    body = "".join(f"<{one} />" for one in used)
    return (
        f"import React from 'react';\n{imports}"
        f"export default class {name} extends React.Component {{\n{'  // …' * bool(lines)}"
        + "\n" * lines
        + f"  render() {{ return <b>{body}</b>; }}\n}}\n"
    )


def order(index: Index, **tried: str) -> list[tuple[str, str]]:
    outcomes = {
        key: Tried("jsx-function", tried.get(found.seen.name, "clean"))
        for key, found in index.components.items()
    }
    return [(row.name, row.reason) for row in survey(index, (), outcomes if tried else None)]


def test_leaves_first_and_the_short_ones_before(project: Made) -> None:
    index = project(
        {
            "Page.jsx": component("Page", "Row", "Tide"),
            "Row.jsx": component("Row", "Tide"),
            "Tide.jsx": component("Tide", lines=9),
            "Berth.jsx": component("Berth"),
        }
    )
    assert order(index) == [
        ("Berth", "used by nothing, uses nothing"),
        ("Tide", "used by 2, uses nothing"),
        ("Row", "used by 1, uses Tide"),
        ("Page", "used by nothing, uses Row, Tide"),
    ]


def test_the_easy_ones_come_before_the_hard_ones(project: Made) -> None:
    index = project({f"{name}.jsx": component(name) for name in "ABC"})
    found = order(index, A="refused", B="left", C="clean")
    assert [name for name, _ in found] == ["C", "B", "A"]
    assert found[2][1] == "used by nothing, uses nothing, refused"


def test_those_of_a_cycle_stand_together(project: Made) -> None:
    index = project(
        {
            "Tree.jsx": component("Tree", "Branch"),
            "Branch.jsx": component("Branch", "Tree", "Leaf"),
            "Leaf.jsx": component("Leaf"),
            "Wood.jsx": component("Wood", "Tree"),
        }
    )
    rows = survey(index)
    assert [row.name for row in rows] == ["Leaf", "Branch", "Tree", "Wood"]
    assert [row.cycle for row in rows] == [(), ("Tree",), ("Branch",), ()]
    assert rows[2].reason == "used by 2, in a cycle with Branch"


def test_what_a_route_table_holds_is_used_by_who_reads_the_table(project: Made) -> None:
    index = project(
        {
            "App.jsx": "import { routes } from './routes';\n"
            "export default function App() { return <b>{routes.length}</b>; }\n",
            "routes.js": "import Page from './Page';\n"
            "export const routes = [{ path: '/', component: Page }];\n",
            "Page.jsx": component("Page"),
        }
    )
    assert order(index) == [
        ("Page", "used by 1, uses nothing"), ("App", "used by nothing, uses Page")
    ]  # fmt: skip


def test_a_dry_run_says_what_carrying_would_leave(project: Made) -> None:
    index = project(
        {
            "Plain.jsx": component("Plain"),
            "Done.jsx": "export default function Done() { return <b />; }\n",
            "Odd.jsx": "import React from 'react';\nimport { Base } from 'base';\n"
            "export default class Odd extends Base { render() { return <b />; } }\n",
            "Old.vue": "<template><b /></template>\n<script>\nexport default {};\n</script>\n",
        }
    )
    found = dry_run(
        index, "jsx-function", (), processes=1, say=lambda done, total: None, fresh=True
    )
    names = {index.components[key].seen.name: one for key, one in found.items()}
    assert {name: one.outcome for name, one in names.items()} == {
        "Plain": "clean", "Done": "done", "Odd": "refused", "Old": "clean"
    }  # fmt: skip
    assert names["Odd"].rules == ("own-base",)
    rows = survey(index, (), found)
    assert rows[0].as_json(index.root)["carry"] == {
        "to": "jsx-function", "outcome": "clean", "rules": []
    }  # fmt: skip


def test_only_what_stands_below_a_path(project: Made) -> None:
    index = project(
        {"a/A.jsx": component("A"), "ab/B.jsx": component("B"), "a/c/C.jsx": component("C")}
    )
    assert [row.name for row in survey(index, [index.root / "a"])] == ["A", "C"]
