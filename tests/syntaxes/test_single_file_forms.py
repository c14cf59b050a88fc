"""Small templates and scripts: what becomes of each form in the flat form and in a function."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.syntaxes.jsx.drawing.markup import drawn_text
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

FILE = """<template>
  <div>{markup}</div>
</template>

<script>
export default {{
  props: {{ pier: String, limit: {{ type: Number, default: 3 }}, open: Boolean, kinds: Array }},
  emits: ['gone'],
  data() {{
    return {{ used: 0, word: 'a', on: false }};
  }},
  computed: {{
    left() {{
      return this.limit - this.used;
    }},
  }},
  methods: {{
    go(by) {{
      {body}
    }},
  }},
}};
</script>
"""


def carried(
    tmp_path: Path, target: str, markup: str = "", body: str = "this.$emit('gone');"
) -> Result:
    path = tmp_path / "Berth.vue"
    path.write_text(FILE.format(markup=markup, body=body), "utf-8")
    return carry_file(Request(path, "Berth.vue", target))[0]


MARKUP: list[tuple[str, str]] = [
    ("<b>a</b>", "<b>a</b>"),
    ("<b class='x'>a</b>", '<b className="x">a</b>'),
    ("<b class=x>a</b>", '<b className="x">a</b>'),
    ('<b :class="{ x: on }">a</b>', "<b className={on ? 'x' : undefined}>a</b>"),
    (
        '<b class="y" :class="{ \'x-z\': used > 1 }">a</b>',
        "<b className={['y', used > 1 && 'x-z'].filter(Boolean).join(' ')}>a</b>",
    ),
    (
        '<b :class="{ x: on || open }">a</b>',
        "<b className={(on || open) ? 'x' : undefined}>a</b>",
    ),
    ("{{ used }}", "{used}"),
    ("{{ used + 1 }}", "{used + 1}"),
    ("{{ on }}", "{String(on)}"),
    ("{{ used > 1 }}", "{String(used > 1)}"),
    ("{{ on ? 'a' : 'b' }}", "{on ? 'a' : 'b'}"),
    ("{{ pier || 'none' }}", "{pier || 'none'}"),
    ("{{ `${pier}!` }}", "{`${pier}!`}"),
    ("{{ word.length }}", "{word.length}"),
    ("<br>", "<br />"),
    ("<img src='a.png' alt=''>", '<img src="a.png" alt="" />'),
    ("<label for='a' tabindex='0'>a</label>", '<label htmlFor="a" tabIndex="0">a</label>'),
    ("<button disabled>a</button>", "<button disabled>a</button>"),
    ("<b hidden data-x>a</b>", '<b hidden data-x="">a</b>'),
    ("<b :title='word'>a</b>", "<b title={word}>a</b>"),
    ("<b v-bind:title='word'>a</b>", "<b title={word}>a</b>"),
    ("<b :aria-busy='on'>a</b>", "<b aria-busy={on}>a</b>"),
    ("<button :disabled='!on'>a</button>", "<button disabled={!on}>a</button>"),
    ("<b @click='go(1)'>a</b>", "<b onClick={() => go(1)}>a</b>"),
    ("<b v-on:dblclick='go(1)'>a</b>", "<b onDoubleClick={() => go(1)}>a</b>"),
    ("<b @keydown='used++'>a</b>", "<b onKeyDown={() => setUsed(used + 1)}>a</b>"),
    ("<b @click='used -= left - 1'>a</b>", "<b onClick={() => setUsed(used - (left - 1))}>a</b>"),
    ("<b @click='on = !on'>a</b>", "<b onClick={() => setOn(!on)}>a</b>"),
    (
        "<b @click=\"$emit('gone', used, word)\">a</b>",
        "<b onClick={() => onGone?.(used, word)}>a</b>",
    ),
    ("<b v-if='on'>a</b>", "{on && <b>a</b>}"),
    ("<b v-if='used'>a</b>", "{used ? <b>a</b> : null}"),
    ("<b v-if='on'>a</b><i v-else>b</i>", "{on ? <b>a</b> : <i>b</i>}"),
    (
        "<b v-if='on'>a</b> <i v-else-if='used > 1'>b</i> <u v-else>c</u>",
        "{on ? <b>a</b> : used > 1 ? <i>b</i> : <u>c</u>}",
    ),
    ("<slot/>", "{children}"),
    ("<slot name='foot'>x {{ used }}</slot>", "{foot ?? <>x {used}</>}"),
    ("<slot name='title'><b>x</b></slot>", "{titleSlot ?? <b>x</b>}"),
    ("<!-- note --><b>a</b>", "{/* note */}"),
    ("<!-- a */ b -->x", "{/* a * / b */}x"),
    ("<b title='a\"b'>x</b>", "<b title='a\"b'>x</b>"),
    ("<b class='x\n   y'>a</b>", '<b className="x y">a</b>'),
    ("<button disabled=''>a</button>", "<button disabled>a</button>"),
    ("<button disabled='false'>a</button>", "<button disabled>a</button>"),
    ("<p>x\n  </p>", "<p>x</p>"),
    ("<b @click='on ? go(1) : go(2)'>a</b>", "<b onClick={() => on ? go(1) : go(2)}>a</b>"),
    ("<b @click='on && (used = 3)'>a</b>", "<b onClick={() => on && (setUsed(3))}>a</b>"),
    ("a &amp; b", "a &amp; b"),
    ("a {b} c", "{'a {b} c'}"),
]


@pytest.mark.parametrize(("markup", "jsx"), MARKUP)
def test_markup_as_jsx(markup: str, jsx: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "jsx-function", markup)
    assert result.status == "clean", result.findings
    assert jsx in result.files[0].text


@pytest.mark.parametrize("markup", [row[0] for row in MARKUP])
def test_markup_is_kept_in_the_flat_form(markup: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "single-file-flat", markup)
    assert result.status == "clean", result.findings
    assert f"<div>{markup}</div>" in result.files[0].text


@pytest.mark.parametrize("target", ["jsx-function", "single-file-flat"])
def test_all_forms_on_one_page_are_the_same(target: str, tmp_path: Path, bench: Bench) -> None:
    markup = "\n    ".join(f"<section>{row[0]}</section>" for row in MARKUP)
    result = carried(tmp_path, target, markup, "this.$emit('gone', by);")
    assert result.status == "clean", result.findings
    old, new, interface = sides_of_result(tmp_path / "Berth.vue", result)
    found = verified(bench, (old, new), interface, Trials(None), Effort(6.0))
    assert found.verdict == "same", found.as_json()["trials"][-1:] or found.reason
    assert found.tried >= 3


MORE: list[tuple[str, str]] = [
    ("{{ kinds }}", "{shown(kinds)}"),
    ("<b style='color: red; margin-top: 1px'>a</b>", "style={{ color: 'red', marginTop: '1px' }}"),
    ('<b :style="{ color: word }">a</b>', "<b style={{ color: word }}>a</b>"),
    ("<b :class='kinds'>a</b>", "<b className={classes(kinds)}>a</b>"),
    ("<b :key='word'>a</b>", "<b key={word}>a</b>"),
    ("<b @click='go'>a</b>", "<b onClick={go}>a</b>"),
    ("<b @click='() => go(1)'>a</b>", "<b onClick={() => go(1)}>a</b>"),
    ("<b @click='if (on) go(1)'>a</b>", "<b onClick={() => { if (on) go(1) }}>a</b>"),
    ("<b @click='go(1); go(2)'>a</b>", "<b onClick={() => { go(1); go(2) }}>a</b>"),
    (
        "<b @click.stop='go(1)'>a</b>",
        "<b onClick={(event) => { event.stopPropagation(); go(1); }}>a</b>",
    ),
    (
        "<b @keydown.esc='go(1)'>a</b>",
        "onKeyDown={(event) => { if (event.key !== 'Escape') return; go(1); }}",
    ),
    ("<b @click='go($event)'>a</b>", "<b onClick={(event) => go(event)}>a</b>"),
    ("<b v-show='on'>a</b>", "<b style={{ display: on ? undefined : 'none' }}>a</b>"),
    ("<b v-for='k in kinds' :key='k'>{{ k }}</b>", "{kinds?.map((k) => <b key={k}>{k}</b>)}"),
    ("<b ref='x'>a</b>", "<b ref={x}>a</b>"),
    ("<template v-if='on'>a</template>", "{on && 'a'}"),
    ("<slot :used='used'/>", "{children?.({ used })}"),
    ("<input v-model='word'>", "value={word} onChange={(event) => setWord(event.target.value)}"),
    ("<input type='checkbox' v-model='on'>", "checked={on}"),
    (
        "<input v-model.lazy='word'>",
        "<input ref={endOfTyping((event) => { setWord(event.target.value); }, word)} />",
    ),
    ("<input @change='go(1)'>", "<input ref={endOfTyping(() => go(1))} />"),
    ("<input ref='x' @change='go(1)'>", "useEndOfTyping(x, () => go(1));"),
    ("<b v-for='k in on' :key='k'>{{ k }}</b>", "{each(on, (k) => <b key={k}>"),
    ("<b v-for='k in kinds' :key='k' ref='x'>a</b>", "ref={keepIn(x)}"),
    ("<b v-html='word'>a</b>", "dangerouslySetInnerHTML={{ __html: word }}"),
    ("<b v-if='on'>a</b><b v-else>b</b>", '{on ? <b key="if">a</b> : <b key="else">b</b>}'),
]


@pytest.mark.parametrize(("markup", "jsx"), MORE)
def test_more_markup_as_jsx(markup: str, jsx: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "jsx-function", markup)
    assert result.status == "clean", result.findings
    assert jsx in result.files[0].text


REFUSED: list[tuple[str, str]] = [
    ("{{ look(used) }}", "unknown-use"),
    ("<b title='a\n b'>a</b>", "markup-unread"),
    ("<b onclick='go()'>a</b>", "markup-unread"),
    ("<pre>a</pre>", "markup-unread"),
    ("<i v-if='on'>a</i>text<i v-else>b</i>", "markup-unread"),
    ("<i v-else>b</i>", "markup-unread"),
    ("<b v-pre>a</b>", "markup-unread"),
    ("<b v-berth='on'>a</b>", "markup-unread"),
    ("<b @swipe='go(1)'>a</b>", "markup-unread"),
    ("<b @click.once='go(1)'>a</b>", "markup-unread"),
    ("<transition><b>a</b></transition>", "markup-unread"),
    ("<input ref='box' v-model.lazy='word'>", "change-of-text"),
    ("<b v-for='k in kinds' :key='k' @click='k.n++'>a</b>", "alias-not-followed"),
    ("<my-berth/>", "child-not-found"),
]


@pytest.mark.parametrize(("markup", "rule"), REFUSED)
def test_what_a_function_would_not_draw_alike_is_refused(
    markup: str, rule: str, tmp_path: Path
) -> None:
    result = carried(tmp_path, "jsx-function", markup)
    assert (result.status, [f.rule for f in result.findings]) == ("refused", [rule])
    assert result.findings[0].line == 2


BODIES: list[tuple[str, str, str]] = [
    ("this.used = by;", "used.value = by;", "setUsed(by);"),
    ("this.used += by;", "used.value += by;", "setUsed(used + by);"),
    ("this.used--;", "used.value--;", "setUsed(used - 1);"),
    ("this.used *= by + 1;", "used.value *= by + 1;", "setUsed(used * (by + 1));"),
    ("this.$emit('gone', { by });", "emit('gone', { by });", "onGone?.({ by });"),
    (
        "if (this.open) this.on = true;",
        "if (props.open) on.value = true;",
        "if (open) setOn(true);",
    ),
    ("return [this.left, this.pier];", "return [left.value, props.pier];", "return [left, pier];"),
    ("this.go(by - 1);", "go(by - 1);", "go(by - 1);"),
    (
        "this.used = by; this.$emit('gone', this.used);",
        "used.value = by; emit('gone', used.value);",
        "onGone?.(usedNow.current);",
    ),
]


@pytest.mark.parametrize(("body", "flat", "function"), BODIES)
def test_bodies_in_both_forms(body: str, flat: str, function: str, tmp_path: Path) -> None:
    for target, text in (("single-file-flat", flat), ("jsx-function", function)):
        result = carried(tmp_path, target, "a", body)
        assert result.status == "clean", result.findings
        assert text in result.files[0].text


JSX_TEXTS: list[tuple[str, str]] = [
    ("a b", "a b"),
    ("  a  ", "  a  "),
    ("\n  a\n  b\n", "a b"),
    (" a \n", " a"),
    ("\n", ""),
]


@pytest.mark.parametrize(("raw", "drawn"), JSX_TEXTS)
def test_text_as_jsx_draws_it(raw: str, drawn: str) -> None:
    assert drawn_text(raw) == drawn
