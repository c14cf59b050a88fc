"""Views of a server as they are read: what each notion becomes, and what is refused."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import marks_of
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.server_view.preflight import faults, faults_of_view
from clean_carry.syntaxes.server_view.reading.as_single_file import whole_view
from clean_carry.syntaxes.single_file.stands_for import NotAFile


def read(text: str, tmp_path: Path, **scripts: str) -> str:
    """The single file of a view, with scripts beside it."""
    view = tmp_path / "berth-card.blade.php"
    view.write_text(text, "utf-8")
    for name, script in scripts.items():
        (tmp_path / f"{name}.php").write_text(script, "utf-8")
    return whole_view(SourceText.read(view), Workspace(view)).merged.data.decode()


def template(text: str, tmp_path: Path) -> str:
    whole = read(text, tmp_path)
    return whole[len("<template>\n") : whole.index("\n</template>")].strip()


FORMS = [
    ("<p>{{ $quay }}</p>", "<p>{{ quay }}</p>"),
    ("<p>{{ $berth['code'] }}</p>", "<p>{{ berth.code }}</p>"),
    ("<p>{{-- by hand --}}a</p>", "<p><!-- by hand -->a</p>"),
    ("<p>{!! $notice !!}</p>", '<p v-html="notice"></p>'),
    ("<p>post@gullmoor</p>", "<p>post@gullmoor</p>"),
    ("<p>@@if</p>", "<p>@if</p>"),
    ("<p>{{-- a -- b --}}a</p>", "<p><!-- a - - b -->a</p>"),
    ("@php($label = 'x')<p>{{ $label }}</p>", "<p>{{ label }}</p>"),
    ("<p>@if ($late)late @else on time @endif</p>",
     '<p><template v-if="late">late </template>\n<template v-else> on time </template></p>'),
    ("<p>@isset($quay)<b>{{ $quay }}</b>@endisset</p>", '<p><b v-if="quay != null">{{ quay }}</b></p>'),
    ("<p>@unless ($open)<b>shut</b>@endunless</p>", '<p><b v-if="!open">shut</b></p>'),
    ("<p>@empty($names)<b>none</b>@endempty</p>", '<p><b v-if="!names">none</b></p>'),
    ("<ul>@foreach ($names as $name)<li>{{ $name }}</li>@endforeach</ul>",
     '<ul><li v-for="(name, index) in names" :key="index">{{ name }}</li></ul>'),
    ("<ul>@foreach ($by as $code => $name)<li>{{ $code }}</li>@endforeach</ul>",
     '<ul><li v-for="(name, code) in by" :key="code">{{ code }}</li></ul>'),
    ("<p>@for ($i = 0; $i < 3; $i++)<i>{{ $i }}</i>@endfor</p>",
     '<p><i v-for="i in 3" :key="i">{{ i - 1 }}</i></p>'),
    ("<p>@for ($i = 1; $i <= $n; $i++)<i>{{ $i }}</i>@endfor</p>",
     '<p><i v-for="i in Math.max(n, 0)" :key="i">{{ i }}</i></p>'),
    ("@props(['n' => 3])<p>@for ($i = 0; $i < $n; $i++)<i>*</i>@endfor</p>",
     '<p><i v-for="i in Math.max(Math.ceil(n), 0)" :key="i">*</i></p>'),
    ("<p @class(['a', 'b' => $late])>x</p>", '<p class="a" :class="{ b: late }">x</p>'),
    ('<p class="a b-{{ $kind }}">x</p>', '<p class="a" :class="`b-${kind}`">x</p>'),
    ('<p class="a @if ($late) late @endif">x</p>', "<p class=\"a\" :class=\"late ? ' late ' : ''\">x</p>"),
    ('<a href="/q/{{ $id }}">x</a>', '<a :href="`/q/${id}`">x</a>'),
    ("<input {{ $off ? 'disabled' : '' }}>", '<input :disabled="off">'),
    ("<input @if ($off) disabled @endif>", '<input :disabled="off">'),
    ("<input @checked($off)>", '<input :checked="off">'),
    ('<input disabled="{{ $off }}">', "<input disabled>"),
    ('<p title="a&nbsp;{{ $b }}">x</p>', '<p :title="`a\u00a0${b}`">x</p>'),
    ("<ul>@foreach ($names as $name)<li>{{ $name }}</li>@endforeach</ul>{{ $index }}",
     '<ul><li v-for="(name, index2) in names" :key="index2">{{ name }}</li></ul>{{ index }}'),
    ('<p>@lang("Next")</p>', "<p>{{ texts.Next ?? 'Next' }}</p>"),
    ("<p>@error('code')<b>{{ $message }}</b>@enderror</p>",
     '<p><b v-if="errors.code">{{ errors.code }}</b></p>'),
    ("<table><tr><td>{{ $a }}</td></tr></table>",
     "<table><tbody><tr><td>{{ a }}</td></tr></tbody></table>"),
    ("<p><b>{{ $a }}</b>\n<b>{{ $c }}</b></p>", "<p><b>{{ a }}</b>{{ ' ' }}\n  <b>{{ c }}</b></p>"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "made"), FORMS)
def test_each_notion_has_a_form(tmp_path: Path, text: str, made: str) -> None:
    found = template(text, tmp_path)
    assert found.replace("\n  ", "\n") == made.replace("\n  ", "\n")


REFUSED = [
    ("<p>{{ route('home') }}</p>", "server-call", "route('home')"),
    ("<p>{{ $booking->total(2) }}</p>", "server-call", "$booking->total(2)"),
    ("<p>@include('parts.fare')</p>", "view-of-parts", "@include"),
    ("<p>@csrf</p>", "view-unread", "@csrf"),
    ("<p>@money($fare)</p>", "view-unread", "@money"),
    ("<p>@if ($a)</p><p>@endif</p>", "view-unread", "@if"),
    ("<p>{{ $a }}", "view-unread", "never closed"),
    ("<{{ $tag }}>a</{{ $tag }}>", "view-unread", "computed"),
    ("<p><div>{{ $a }}</div></p>", "view-markup-moved", "<div>"),
    ("<table>{{ $a }}<tr></tr></table>", "view-markup-moved", "{{ $a }}"),
    ("<a href='/'><a>{{ $a }}</a></a>", "view-markup-moved", "<a>"),
    ('<p x-data="{}">{{ $a }}</p>', "view-unread", "x-data"),
    ('<p onclick="go()">{{ $a }}</p>', "view-unread", "onclick"),
    ("<p>{{ $class }}</p>", "view-unread", "$class"),
    ("<p>@php $a = 1; @endphp{{ $a }}</p>", "view-unread", "$a = 1"),
    ("<p><?php echo $a; ?></p>", "view-unread", "echo $a"),
    ("<p>{!! $a !!} and more</p>", "view-unread", "beside other content"),
    ("<p>@{{ kept }}</p>", "view-unread", "kept"),
    ("<script>let a = {{ $a }};</script>", "view-unread", "<script>"),
    ("<p>@switch($a) @case('b') b @case('c') c @endswitch</p>", "view-unread", "@case"),
    ("<x-other />", "view-unread", "not found"),
    ('<p class="a" @class([\'b\' => $c])>x</p>', "view-unread", "a second class"),
    ('<p class="a" @if ($c) class="b" @endif>x</p>', "view-unread", "a second class"),
    ("<DIV>{{ $a }}</DIV>", "view-unread", "<DIV>"),
    ("<p>{{ $a == null }}</p>", "view-unread", "nothing equals much"),
    ("<p>@while ($a) b @endwhile</p>", "view-unread", "@"),
    ("@foreach ($a as $b)<p>{{ $b }}</p>@endforeach<i>{{ $b }}</i>", "view-unread", "another meaning"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "rule", "words"), REFUSED)
def test_the_rest_is_refused(tmp_path: Path, text: str, rule: str, words: str) -> None:
    with pytest.raises(NotAFile) as refused:
        read(text, tmp_path)
    assert refused.value.rule == rule
    assert words in refused.value.detail


CLASS = """<?php

namespace App\\View\\Components;

class BerthCard extends \\Illuminate\\View\\Component
{
    public string $unit = 'm';

    /** @param array{code: string, metres: float} $berth */
    public function __construct(public array $berth, public ?string $note = null) {}

    public function shown(): string
    {
        return $this->berth['metres'] . ' ' . $this->unit;
    }

    public function render()
    {
        return view('components.berth-card');
    }
}
"""


def test_a_class_gives_props_and_computed_values(tmp_path: Path) -> None:
    text = "<p {{ $attributes->merge(['id' => 'a']) }}>{{ $berth['code'] }} {{ $shown() }} {{ $note }}</p>"
    found = read(text, tmp_path, BerthCard=CLASS)
    assert '<p id="a">{{ berth.code }} {{ shown }} {{ note }}</p>' in found
    assert "unit: { type: String, default: 'm' }" in found
    assert "berth: { type: Object, required: true }" in found
    assert "note: { type: String, default: null }" in found
    assert "return `${this.berth.metres} ${this.unit}`;" in found
    assert "inheritAttrs" not in found


def test_texts_keep_their_spaces_in_scripts_of_another_indentation(tmp_path: Path) -> None:
    found = read("@props(['gap' => 'a  b'])\n<p>\n    {{ $gap }}\n</p>", tmp_path)
    assert "\n        gap: { type: String, default: 'a  b' },\n" in found


def test_a_class_with_code_of_the_server_is_refused(tmp_path: Path) -> None:
    script = CLASS.replace("return $this->berth['metres']", "$a = 1; return $this->berth['metres']")
    with pytest.raises(NotAFile) as refused:
        read("<p>{{ $shown() }}</p>", tmp_path, BerthCard=script)
    assert "the method shown of the class (BerthCard.php)" in refused.value.detail


def test_marks_are_found_where_the_engine_finds_them() -> None:
    text = (
        b"a@if($b) @endif {{-- @if --}} @@else @{{ c }} {{ 'a' }} {!! d !!} @media @if ('(') x@y.z"
    )
    kinds = [(one.kind, one.name) for one in marks_of(text)]
    assert kinds == [
        ("directive", "endif"), ("comment", ""), ("doubled", "else"), ("kept", ""), ("echo", ""),
        ("raw", ""), ("directive", "if"),
    ]  # fmt: skip


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_objects_messages_and_texts_reach_the_engine(run: Any, tmp_path: Path) -> None:
    (tmp_path / "pager.blade.php").write_text(
        "<p>@if ($pages->hasMore())"
        "<a href=\"{{ $pages->url }}\">{{ __('On', ['to' => $pages->last()]) }}</a>@endif"
        " @error('page')<b>{{ $message }}</b>@enderror @if ($errors->has('page'))<i>!</i>@endif</p>\n",
        "utf-8",
    )
    trials = {
        "trials": [
            {"name": "both", "inputs": {
                "pages": {"hasMore": True, "url": "/2", "last": 7}, "errors": {"page": "no <page>"},
                "texts": {"On": "on to :to"}}},
            {"name": "none", "inputs": {"pages": {"hasMore": True, "url": "/2", "last": 7}}},
            {"name": "last", "inputs": {"pages": {"hasMore": False, "url": "", "last": 1}}},
        ]
    }  # fmt: skip
    (tmp_path / "trials.json").write_text(json.dumps(trials), "utf-8")
    run("carry", "pager.blade.php", "--to", "single-file-flat", "--write")
    done = run("verify", "pager.blade.php", "pager.flat.vue", "--trials", "trials.json", "--json")
    assert json.loads(done.stdout)["verdict"] == "same", done.stdout[-1500:]
    broken = (
        (tmp_path / "pager.flat.vue")
        .read_text("utf-8")
        .replace("errors.page }}", "errors.pages }}")
    )
    (tmp_path / "pager.flat.vue").write_text(broken, "utf-8")
    done = run("verify", "pager.blade.php", "pager.flat.vue", "--trials", "trials.json", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


def test_faults_of_written_views_are_found() -> None:
    script = CLASS.replace(
        "BerthCard extends \\Illuminate\\View\\Component", "BerthCard extends Component"
    )
    script = script.replace("render()\n", "render(): View\n")
    assert list(faults(script, "BerthCard", "berth-card")) == [
        "the class uses Component without importing it", "the class uses View without importing it",
    ]  # fmt: skip
    assert "the class does not render berths" in list(faults(script, "BerthCard", "berths"))
    assert "BerthCards.php holds the class BerthCard" in list(
        faults(script, "BerthCards", "berth-card")
    )
    assert list(faults_of_view("<p>{{ $a }}</p>", raw=0, one_root=True)) == []
    assert list(faults_of_view("<p>{!! $a !!}</p>", raw=0, one_root=True)) == [
        "the view shows HTML that was escaped before"
    ]
    assert list(faults_of_view("<p></p><b></b>", raw=0, one_root=True)) == [
        "the view has several roots"
    ]
    assert list(faults_of_view("<p>{{ ($ ?? 1) }}</p>", raw=0, one_root=True)) == [
        "the code ` ($ ?? 1) ` cannot be read"
    ]
    assert "not balanced" in next(faults_of_view("<p>@if ($a)</p>@endif", raw=0, one_root=True))
