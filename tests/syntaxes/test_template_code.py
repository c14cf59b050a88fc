"""Which names a template takes from its component, whatever its directives give by themselves."""

from __future__ import annotations

import pytest

from clean_carry.source.template.tree import read_blocks
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.expressions import TemplateCode, read_code


def code_of(markup: str) -> TemplateCode:
    source = SourceText("Berth.vue", f"<template>{markup}</template>".encode())
    return read_code(source, read_blocks(source)[0])


USED: list[tuple[str, str]] = [
    ("{{ a }}{{ b }}", "a b"),
    ("{{ a ? b : 'c' }}", "a b"),
    ("{{ a.b[c] }} {{ d(e) }}", "a c d e"),
    ("<i :x='a'\n  :y='b' />", "a b"),
    ("<i :x=a :y=b />", "a b"),
    ("<i .x='a' v-bind:y='b' />", "a b"),
    ("<i v-bind='{ a, b: c }' v-on='d' />", "a c d"),
    ("<i :[a]='b' @[c]='d' />", "a b c d"),
    ("<i v-model.trim='a.b' v-show='c' v-html='d' />", "a c d"),
    ("<i @click='a' @b='c($event)' @d='e = f; g()' @h.once='() => i' />", "a c $event e f g i"),
    ("<i @a='function () { b() }' />", "b"),
    ("<i @a='if (b) c()' />", "b c"),
    ("<i @a @b.prevent />", ""),
    ("<i v-if='a' /><i v-else-if='b' /><i v-else />", "a b"),
    ("<i v-for='a in b' :c='a' :d='e' />", "b e"),
    ("<i v-for='(a, at) in b'>{{ a }}{{ at }}{{ c }}</i>", "b c"),
    ("<i v-for='(a, key, at) of b'>{{ a + key + at }}</i>", "b"),
    ("<i v-for='{ a, b } in c'>{{ a }}{{ b }}</i>", "c"),
    ("<i v-for='({ a: { b } }, at) in c'>{{ a }}{{ b }}{{ at }}</i>", "c a"),
    ("<i v-for='a in a.b'><b v-for='c in a'>{{ c }}</b></i>", "a"),
    ("<i v-for='n in 3'>{{ n }}</i>", ""),
    ("<x v-slot='a'>{{ a }}{{ b }}</x>", "b"),
    ("<x><template #y='{ a, b = 1 }'>{{ a }}{{ b }}{{ c }}</template></x>", "c"),
    ("<x><template v-slot:y='[a]'>{{ a }}</template>{{ a }}</x>", "a"),
    ("<x><i slot='y' slot-scope='{ a }' :b='a'>{{ a }}</i>{{ c }}</x>", "c"),
    ("<x #[a]='b'>{{ b }}</x>", "a"),
    ("<i v-pre>{{ a }}</i>{{ b }}", "b"),
    ("<i v-tide:a.b='c' />", "c"),
    ("{{ a | b }}{{ c | d(e) | f }}", "a c e"),
    ("{{ (a, b) => a + c }}", "c"),
    ("{{ `${a}` }}", "a"),
    ("<!-- {{ a }} --><textarea>{{ b }}</textarea>", ""),
    ("<i :a='' :b=' ' />{{ }}", ""),
    ("<i :x='(a as string)' />", "a"),
]


@pytest.mark.parametrize(("markup", "names"), USED)
def test_names_used(markup: str, names: str) -> None:
    code = code_of(markup)
    found = [used.node.text for used in code.used if used.node.type != "type_identifier"]
    assert sorted(found) == sorted(names.split())


def test_offsets_are_those_of_the_file() -> None:
    code = code_of("<i v-for='a in b'>{{ a }}{{ c }}</i>")
    data = "<template><i v-for='a in b'>{{ a }}{{ c }}</i></template>"
    assert [(u.node.text, data[u.node.start]) for u in code.used] == [("b", "b"), ("c", "c")]


def test_filters_are_told_apart() -> None:
    assert code_of("{{ a | b | c(d) }}").filters == {"b", "c"}
