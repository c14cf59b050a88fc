"""Scopes, timing, comments and the parsed tree, on their own."""

from __future__ import annotations

import pytest

from clean_carry.component.errors import InputError
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.javascript.values import is_constant, is_identifier, runs_code
from clean_carry.source.text import SourceText


def tree(text: str, name: str = "x.tsx") -> Tree:
    return Tree(SourceText(name, text.encode()))


@pytest.mark.parametrize(
    ("text", "free"),
    [
        ("const a = b;", {"b"}),
        ("function f(a, { b, c: d = e }, ...g) { return a + b + c + d + g; }", {"c", "e"}),
        ("{ let a; } a;", {"a"}),
        ("{ var a; } a;", set()),
        ("f(); function f() {}", set()),
        ("try {} catch (e) { e; } e;", {"e"}),
        ("for (const a of b) { a; } a;", {"a", "b"}),
        ("const x = <Foo bar={baz}><p /></Foo>;", {"Foo", "baz"}),
        ("const x = <foo.Bar />;", {"foo"}),
        ("import a, { b as c } from 'x'; a; b; c;", {"b"}),
        ("const o = { a, b: 1, [c]: 2 }; o.d;", {"a", "c"}),
        ("type T<U> = U | V; let a: T<string>;", {"V"}),
        ("export { a }; export { b } from 'x';", {"a"}),
        ("(function g() { g; }); g;", {"g"}),
    ],
)
def test_free_names(text: str, free: set[str]) -> None:
    assert set(Names(tree(text)).free) == free


@pytest.mark.parametrize(
    ("body", "later"),
    [
        ("HERE;", False),
        ("list.map((x) => HERE);", False),
        ("setTimeout(() => HERE);", True),
        ("unknown(() => HERE);", True),
        ("promise.then(() => HERE);", True),
        ("new Promise((done) => HERE);", False),
        ("(() => HERE)();", False),
        ("return <b onClick={() => HERE} />;", False),
        ("const go = () => HERE; go();", False),
        ("const go = () => HERE; setTimeout(go);", True),
        ("await 1; HERE;", True),
        ("HERE; await 1;", False),
        ("for (const a of b) { HERE; await 1; }", True),
        ("return () => HERE;", True),
        ("function inner() { HERE; } inner();", False),
    ],
)
def test_now_or_later(body: str, later: bool) -> None:
    parsed = tree(f"async function root() {{ {body} }}")
    root = parsed.of("function_declaration")[0]
    here = next(n for n in parsed.of("identifier") if n.text == "HERE")
    assert is_deferred(here, root, Names(parsed)) is later


def test_comments_belong_to_the_node_they_touch() -> None:
    parsed = tree("// far\n\n// near\n/* nearer */\nlet a = 1; // behind\n// next\nlet b = 2;\n")
    first = parsed.of("lexical_declaration")[0]
    assert [c.text for c in comments.leading(parsed, first)] == ["// near", "/* nearer */"]
    assert [c.text for c in comments.trailing(parsed, first)] == ["// behind"]


def test_a_node_ends_at_its_last_token() -> None:
    parsed = tree("class A {\n  a = 1 // one\n  b = 2\n}\n")
    assert [n.text for n in parsed.of("public_field_definition")] == ["a = 1", "b = 2"]


def test_a_bare_ampersand_in_markup_is_read() -> None:
    parsed = tree("const a = <p>Mail & parcels</p>;")
    assert parsed.of("jsx_text")[0].text == "Mail & parcels"


def test_what_cannot_be_read_names_its_place() -> None:
    with pytest.raises(InputError) as caught:
        tree("let a = ;\n")
    assert caught.value.line == 1
    assert "cannot be read" in caught.value.one_line()


@pytest.mark.parametrize(
    ("text", "constant", "runs"),
    [("1", True, False), ("-1", True, False), ("'a'", True, False), ("`a`", True, False),
     ("`a${b}`", False, False), ("[]", False, False), ("f()", False, True), ("new F()", False, True),
     ("() => f()", False, False), ("null", True, False)],
)  # fmt: skip
def test_kinds_of_values(text: str, constant: bool, runs: bool) -> None:
    value = tree(f"x = {text};").of("assignment_expression")[0].child("right")
    assert value is not None
    assert is_constant(value) is constant
    assert runs_code(value) is runs


def test_identifiers() -> None:
    assert is_identifier("$a_1") and is_identifier("_")
    assert not is_identifier("a-b") and not is_identifier("1a") and not is_identifier("")


def test_places_count_characters() -> None:
    source = SourceText("x", "é = 1\nåb".encode())
    assert source.place(3)[1:] == (1, 3)
    assert source.place(len(source.data) - 1)[1:] == (2, 2)


def test_line_endings_and_mark_come_back() -> None:
    source = SourceText("x", b"\xef\xbb\xbfa\r\nb\r\n")
    assert source.data == b"a\nb\n"
    assert source.encode("a\nb\n") == b"\xef\xbb\xbfa\r\nb\r\n"
    mixed = SourceText("x", b"a\r\nb\n")
    assert mixed.encode(mixed.slice(0, 5)) == b"a\r\nb\n"
