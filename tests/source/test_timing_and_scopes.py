"""More of the analyses every reader leans on: when code runs, what a name means, where comments belong."""

from __future__ import annotations

import pytest

from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names, is_component_name, is_write
from clean_carry.source.javascript.timing import in_handler, is_deferred
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import (
    is_function,
    is_module_name,
    is_number,
    property_name,
)
from clean_carry.source.text import SourceText


def tree(text: str) -> Tree:
    return Tree(SourceText("x.tsx", text.encode()))


def here(found: Tree) -> Node:
    return next(n for n in found.of("identifier") if n.text == "HERE")


LATER: list[tuple[str, bool]] = [
    ("if (a) { HERE; }", False),
    ("try { HERE; } catch (e) {}", False),
    ("list.forEach(function (x) { HERE; });", False),
    ("list.reduce((a, b) => a + HERE, 0);", False),
    ("list.filter(Boolean).map((x) => HERE);", False),
    ("text.replace(/a/, () => HERE);", False),
    ("requestAnimationFrame(() => HERE);", True),
    ("queueMicrotask(() => HERE);", True),
    ("setInterval(function () { HERE; }, 10);", True),
    ("window.addEventListener('a', () => HERE);", True),
    ("fetch('a').then((r) => r.json()).then((b) => HERE);", True),
    ("fetch('a').catch(() => HERE);", True),
    ("fetch('a').finally(() => HERE);", True),
    ("new Thing(() => HERE);", True),
    ("const o = { go: () => HERE }; use(o);", True),
    ("const o = [() => HERE]; return o;", True),
    ("const f = () => HERE; return f;", True),
    ("const f = () => HERE; list.map(f);", False),
    ("const f = () => HERE; const g = () => f(); g();", False),
    ("const f = () => HERE; const g = () => f(); setTimeout(g);", True),
    ("const f = () => HERE; return <b onClick={f} />;", False),
    ("return <b ref={(el) => HERE} />;", True),
    ("return <B>{() => HERE}</B>;", False),
    ("await a; if (b) { HERE; }", True),
    ("if (a) { await b; } HERE;", True),
    ("const b = await a(HERE);", False),
    ("while (a) { HERE; await b; }", True),
    ("for await (const a of b) { HERE; }", True),
    ("async function inner() { await a; HERE; } inner();", True),
    ("async function inner() { HERE; await a; } inner();", False),
    ("setState((s) => HERE);", True),
    ("this.setState((s) => HERE);", False),
    ("(function () { HERE; })();", False),
    ("(a ? () => HERE : b)();", False),
    ("yieldAll(function* () { yield 1; HERE; });", True),
    ("React.cloneElement(child, { onClick: () => HERE });", False),
    ("return cond && (() => HERE);", True),
]


@pytest.mark.parametrize(("body", "later"), LATER)
def test_when_code_runs(body: str, later: bool) -> None:
    found = tree(f"async function root() {{ {body} }}")
    root = found.of("function_declaration")[0]
    assert is_deferred(here(found), root, Names(found)) is later


@pytest.mark.parametrize(
    ("body", "inside"),
    [
        ("return <b onClick={() => HERE} />;", True),
        ("return <b onClick={function () { HERE; }} />;", True),
        ("return <b title={HERE} />;", False),
        ("const f = () => HERE; return <b onClick={f} />;", False),
        ("return <b>{list.map(() => HERE)}</b>;", False),
    ],
)
def test_what_only_a_handler_runs(body: str, inside: bool) -> None:
    found = tree(f"function root() {{ {body} }}")
    assert in_handler(here(found), found.of("function_declaration")[0]) is inside


WRITES: list[tuple[str, bool]] = [
    ("HERE = 1;", True),
    ("HERE += 1;", True),
    ("HERE++;", True),
    ("--HERE;", True),
    ("[HERE] = a;", True),
    ("({ a: HERE } = b);", True),
    ("({ HERE = 1 } = b);", True),
    ("for (HERE of a) {}", True),
    ("(HERE) = 1;", True),
    ("HERE! = 1;", True),
    ("delete HERE;", True),
    ("a = HERE;", False),
    ("a[HERE] = 1;", False),
    ("HERE.b = 1;", False),
    ("f(HERE);", False),
    ("({ HERE });", False),
]


@pytest.mark.parametrize(("text", "written"), WRITES)
def test_what_is_written(text: str, written: bool) -> None:
    found = tree(text)
    nodes = [
        n
        for kind in (
            "identifier",
            "shorthand_property_identifier",
            "shorthand_property_identifier_pattern",
        )
        for n in found.of(kind)
        if n.text == "HERE"
    ]
    assert is_write(nodes[0]) is written


MEANINGS: list[tuple[str, str]] = [
    ("const HERE = 1; HERE;", "const"),
    ("let HERE; HERE;", "let"),
    ("import HERE from 'a'; HERE;", "import"),
    ("import { b as HERE } from 'a'; HERE;", "import"),
    ("import * as HERE from 'a'; HERE;", "import"),
    ("function HERE() {} HERE;", "function"),
    ("class HERE {} HERE;", "class"),
    ("enum HERE { A } HERE;", "const"),
    ("function f(HERE) { HERE; }", "param"),
    ("function f({ a: HERE = 1 }) { HERE; }", "param"),
    ("function f([, ...HERE]) { HERE; }", "param"),
    ("const f = HERE => HERE;", "param"),
    ("try {} catch (HERE) { HERE; }", "param"),
    ("if (a) { var HERE; } HERE;", "var"),
    ("for (const HERE of a) { HERE; }", "const"),
    ("for (let HERE = 0; HERE < 1; HERE++) { HERE; }", "let"),
]


@pytest.mark.parametrize(("text", "kind"), MEANINGS)
def test_what_a_name_means(text: str, kind: str) -> None:
    found = tree(text)
    names = Names(found)
    last = [n for n in found.of("identifier") if n.text == "HERE"][-1]
    binding = names.meaning(last)
    assert binding is not None and binding.kind == kind
    assert last in binding.references


def test_an_inner_name_hides_an_outer_one() -> None:
    found = tree(
        "const a = 1; function f() { const a = 2; return () => { let a = 3; return a; }; }"
    )
    names = Names(found)
    binding = names.module.names["a"]
    assert binding.references == [] and not binding.written
    inner = [n for n in found.of("identifier") if n.text == "a"][-1]
    meaning = names.meaning(inner)
    assert meaning is not None and meaning.kind == "let"
    assert [s.node.type for s in names.scope_at(inner).chain()][-1] == "program"


COMMENTS: list[tuple[str, list[str], list[str]]] = [
    ("// a\nHERE();", ["// a"], []),
    ("// a\n// b\nHERE();", ["// a", "// b"], []),
    ("// a\n\nHERE();", [], []),
    ("x(); // a\nHERE();", [], []),
    ("HERE(); // a", [], ["// a"]),
    ("HERE(); /* a */ // b", [], ["/* a */", "// b"]),
    ("/* a */ HERE();", ["/* a */"], []),
    ("HERE();\n// a", [], []),
    ("/* a\n   b */\nHERE();", ["/* a\n   b */"], []),
]


@pytest.mark.parametrize(("text", "above", "after"), COMMENTS)
def test_where_comments_belong(text: str, above: list[str], after: list[str]) -> None:
    found = tree(text)
    statement = next(n for n in found.of("expression_statement") if n.text.startswith("HERE"))
    assert [c.text for c in comments.leading(found, statement)] == above
    assert [c.text for c in comments.trailing(found, statement)] == after


def test_small_questions() -> None:
    found = tree(
        "import a from 'b'; const c = 1; let d; const e = [a, c, d, a.x, 3, -3, 'x', () => 1];"
    )
    names = Names(found)
    items = found.of("array")[0].named_children
    assert [is_module_name(n, names) for n in items[:4]] == [True, True, False, True]
    assert [is_number(n) for n in items[4:7]] == [True, True, False]
    assert is_function(items[7]) and not is_function(items[6])
    assert [is_component_name(n) for n in ("A", "a", "a.B", "A.b")] == [True, False, True, True]
    keys = tree("({ a: 1, 'b-c': 2, [d]: 3, e })").of("object")[0].named_children
    assert [property_name(k.child("key") or k) for k in keys] == ["a", "b-c", None, "e"]


def test_a_tree_of_a_part_of_a_file() -> None:
    source = SourceText("x.vue", b"<a>{{ b }}</a>\n<script>\nconst c = 1;\n</script>\n")
    start = source.data.index(b"const")
    view = source.blanked([(start, start + 12)])
    assert len(view) == len(source.data) and view.count(b"\n") == 4
    found = Tree(source, bytes(view))
    declared = found.of("lexical_declaration")[0]
    assert (declared.start, declared.text) == (start, "const c = 1;")
    assert source.place(declared.start).line == 3
