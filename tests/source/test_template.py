"""Template markup: what each stretch is, to the byte; and what is refused with its place."""

from __future__ import annotations

import pytest

from clean_carry.component.errors import InputError
from clean_carry.source.css.selectors import preludes, scope_splices
from clean_carry.source.template.tree import TemplateNode, read_blocks, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.blocks import read_file
from clean_carry.syntaxes.single_file.expressions import read_code


def nodes(text: str) -> list[TemplateNode]:
    source = SourceText("x.vue", text.encode())
    return read_markup(source, 0, len(source.data))


def outline(found: list[TemplateNode], text: str) -> str:
    """Tags and kinds, nested, in one line."""
    parts = []
    for node in found:
        if node.kind == "element":
            inner = outline(node.children, text)
            parts.append(f"{node.tag}({inner})" if inner else node.tag)
        else:
            parts.append(node.kind)
    return " ".join(parts)


OUTLINES: list[tuple[str, str]] = [
    ("<a><b></b></a>", "a(b)"),
    ("<a/><B/>", "a B"),
    ("<br><img><hr>", "br img hr"),
    ("<Br></Br>", "Br"),
    ("a<b>c</b>d", "text b(text) text"),
    ("{{ a }}b{{ c }}", "interpolation text interpolation"),
    ("{{ a < b }}", "interpolation"),
    ("{{ '}}' }}x", "interpolation text"),
    ("{{ a", "text"),
    ("<!-- <a> --><b/>", "comment b"),
    ("<!DOCTYPE html><b/>", "declaration b"),
    ("a < b", "text"),
    ("a <3", "text"),
    ("<textarea><b></textarea>", "textarea(raw)"),
    ("<p>a &amp; b</p>", "p(text)"),
    ("<my-a><x:y/></my-a>", "my-a(x:y)"),
    ("<a\n  b='c'\n>d</a\n>", "a(text)"),
]


@pytest.mark.parametrize(("text", "shape"), OUTLINES)
def test_what_each_stretch_is(text: str, shape: str) -> None:
    found = nodes(text)
    assert outline(found, text) == shape
    assert found[0].start == 0 and found[-1].end == len(text.encode())
    for node in (below for top in found for below in top.walk()):
        assert node.start <= node.inner[0] <= node.inner[1] <= node.end


ATTRIBUTES: list[tuple[str, list[tuple[str, str | None]]]] = [
    ("<a b>", [("b", None)]),
    ('<a b="c">', [("b", "c")]),
    ("<a b='c \"d\"'>", [("b", 'c "d"')]),
    ("<a b=c d>", [("b", "c"), ("d", None)]),
    ('<a b = "c">', [("b", "c")]),
    ('<a :b="c > d" @e.f="g">', [(":b", "c > d"), ("@e.f", "g")]),
    ('<a #b="{ c }" v-d:[e].f="g">', [("#b", "{ c }"), ("v-d:[e].f", "g")]),
    ('<a B="">', [("B", "")]),
    ('<a\n\tb="c"\n\td="é">', [("b", "c"), ("d", "é")]),
]


@pytest.mark.parametrize(("text", "attributes"), ATTRIBUTES)
def test_attributes_with_their_values(text: str, attributes: list[tuple[str, str | None]]) -> None:
    source = SourceText("x.vue", f"{text}</a>".encode())
    node = read_markup(source, 0, len(source.data))[0]
    found = [(a.name, source.slice(*a.value) if a.value else None) for a in node.attributes]
    assert found == attributes
    for attribute in node.attributes:
        assert source.slice(attribute.start, attribute.name_end) == attribute.name
    assert node.attribute(attributes[0][0]) is node.attributes[0]
    assert node.attribute("none") is None


BROKEN: list[tuple[str, str, int]] = [
    ("<a>", "<a> is never closed", 1),
    ("<a></b>", "</b> closes nothing", 1),
    ("</a>", "</a> closes nothing", 1),
    ("<a\n<b></b></a>", "<a holds what is no attribute", 2),
    ("<a b='c></a>", "<a holds what is no attribute", 1),
    ("\n<style>", "<style> is never closed", 2),
    ("<a", "<a is never ended", 1),
]


@pytest.mark.parametrize(("text", "what", "line"), BROKEN)
def test_what_is_not_balanced_is_one_error_with_its_place(text: str, what: str, line: int) -> None:
    with pytest.raises(InputError) as caught:
        nodes(text)
    assert (caught.value.what, caught.value.line) == (what, line)


def test_blocks_of_a_file() -> None:
    text = (
        "<template><a><template/></a></template>\n<script>if (a</b>) {}</script>\n"
        "<style scoped>a > b {}</style><docs>{{ <x> }}</docs>"
    )
    source = SourceText("x.vue", text.encode())
    found = [n for n in read_blocks(source) if n.kind == "element"]
    assert [n.tag for n in found] == ["template", "script", "style", "docs"]
    assert outline(found[0].children, text) == "a(template)"
    assert source.slice(*found[1].inner) == "if (a</b>) {}"
    assert source.slice(*found[3].inner) == "{{ <x> }}"
    file = read_file(source)
    assert file.script is not None and file.template is not None and len(file.styles) == 1
    assert file.refusal is None
    assert file.unread == (("block-unread", "<docs>", text.index("<docs>")),)


@pytest.mark.parametrize(
    ("text", "detail"),
    [
        ("<template/><script></script><script></script>", "a second <script>"),
        ("<template lang='x'></template>", "<template lang>"),
        ("<script src='x'></script>", "<script src>"),
        ("<template></template><template></template>", "a second <template>"),
    ],
)
def test_blocks_that_are_not_read(text: str, detail: str) -> None:
    refusal = read_file(SourceText("x.vue", text.encode())).refusal
    assert refusal is not None and refusal[:2] == ("block-unread", detail)


def test_code_in_a_template_has_the_offsets_of_the_file() -> None:
    text = (
        '<template><a :b=\'c + 1\' @d="e(f)" @g="function () { h() }">{{ i }}{{ j }}</a></template>'
    )
    source = SourceText("x.vue", text.encode())
    template = read_blocks(source)[0]
    code = read_code(source, template)
    assert sorted(node.text for node in code.values.values()) == ["c + 1", "i", "j"]
    kinds = [[(n.type, n.text[:5]) for n in given] for given in code.handlers.values()]
    assert kinds == [
        [("expression_statement", "e(f)")],
        [("parenthesized_expression", '"func')],
    ]
    assert set(code.names.free) == {"c", "e", "f", "h", "i", "j"}
    for name, refs in code.names.free.items():
        assert all(source.slice(ref.start, ref.end) == name for ref in refs)


def test_code_that_is_none_is_an_error_with_its_place() -> None:
    source = SourceText("x.vue", b"<template>\n<a>{{ b + }}</a></template>")
    with pytest.raises(InputError) as caught:
        read_code(source, read_blocks(source)[0])
    assert caught.value.line == 2


SELECTORS: list[tuple[str, list[str]]] = [
    ("a {}", ["a"]),
    ("a, b > c {} d{}", ["a, b > c", "d"]),
    ("/* x {} */ a {}", ["a"]),
    ("@import 'x'; a {}", ["a"]),
    ("@media print { a {} @supports (b: c) { d {} } }", ["a", "d"]),
    ("@keyframes x { from {} 50% {} } a {}", ["a"]),
    ("@font-face { src: url(x) } a {}", ["a"]),
    ('a[b="{"] {} c::before { content: "}" } d {}', ['a[b="{"]', "c::before", "d"]),
    (".a\\:b {}", [".a\\:b"]),
]


@pytest.mark.parametrize(("css", "found"), SELECTORS)
def test_where_the_selectors_are(css: str, found: list[str]) -> None:
    data = css.encode()
    assert [data[a:b].decode() for a, b in preludes(data, 0, len(data))] == found


SCOPED: list[tuple[str, str]] = [
    ("a", "a[s]"),
    ("a b", "a b[s]"),
    ("a > b", "a > b[s]"),
    ("a>b", "a>b[s]"),
    ("a + b ~ c", "a + b ~ c[s]"),
    ("a:hover", "a[s]:hover"),
    ("a:hover b", "a:hover b[s]"),
    ("a::before", "a[s]::before"),
    ("a:not(.b, .c)", "a[s]:not(.b, .c)"),
    ("a[b='c d']", "a[b='c d'][s]"),
    ("a.b.c", "a.b.c[s]"),
    ("*", "*[s]"),
    ("#a, .b:focus, c", "#a[s], .b[s]:focus, c[s]"),
    (".a\\:b", ".a\\:b[s]"),
    (".a :deep(.b) c", ".a[s] .b c"),
    (".a:deep(.b:hover)", ".a[s] .b:hover"),
    (".a:hover :deep(.b)", ".a[s]:hover .b"),
    (":deep(.b)", "[s] .b"),
    (".a >>> .b, c", ".a[s] .b, c[s]"),
    (".a /deep/ .b", ".a[s] .b"),
    (".a ::v-deep .b", ".a[s] .b"),
    (".a ::v-deep(.b)", ".a[s] .b"),
    (":global(.a > .b)", ".a > .b"),
]


@pytest.mark.parametrize(("selector", "scoped"), SCOPED)
def test_where_a_scope_goes(selector: str, scoped: str) -> None:
    data = f"{selector} {{}}".encode()
    splices = scope_splices(data, 0, len(data), b"[s]")
    assert isinstance(splices, list)
    for start, end, new in reversed(splices):
        data = data[:start] + new + data[end:]
    assert data.decode() == f"{scoped} {{}}"


OUT_OF_SCOPE = [":global(.a) .b", ".a :global(.b)", ".a :deep(.b) :deep(.c)", ":is(.a :deep(.b))"]


@pytest.mark.parametrize("selector", OUT_OF_SCOPE)
def test_a_selector_that_is_not_understood_is_told_by_its_place(selector: str) -> None:
    data = f"p {{}} {selector} {{}}".encode()
    assert scope_splices(data, 0, len(data), b"[s]") == 5
