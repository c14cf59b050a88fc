"""Single files: what is not read is refused by name, and the ledger balances."""

from __future__ import annotations

import json
import re
from itertools import pairwise
from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.css.selectors import scope_splices
from clean_carry.source.template.tree import read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.options.read_options import OPTIONS

WHOLE = """<template>
  <p class="a" :class="{ b: full }" @click="go(1)">{{ left }}<slot>x</slot></p>
</template>

<script>
export default {
  name: 'Berth',
  props: { limit: { type: Number, default: 3 } },
  emits: ['gone'],
  data() { return { used: 0 }; },
  computed: { left() { return this.limit - this.used; }, full() { return this.left <= 0; } },
  watch: { limit(now) { if (this.used > now) this.used = now; } },
  methods: { go(by) { this.used += by; this.$emit('gone', this.used); } },
};
</script>
"""
TARGETS = ("single-file-flat", "jsx-function")


def carried(tmp_path: Path, text: str, target: str) -> Result:
    path = tmp_path / "Berth.vue"
    path.write_text(text, "utf-8")
    return carry_file(Request(path, "Berth.vue", target))[0]


@pytest.mark.parametrize("target", ["single-file-flat"])
def test_the_whole_component_is_clean(tmp_path: Path, target: str) -> None:
    assert carried(tmp_path, WHOLE, target).status == "clean"


def test_a_listener_on_the_root_of_a_function_is_heard_by_the_parent_too(tmp_path: Path) -> None:
    result = carried(tmp_path, WHOLE, "jsx-function")
    assert result.status == "clean"
    assert "onClick={(event) => { go(1); others.onClick?.(event); }}" in result.files[0].text


@pytest.mark.parametrize("option", [o for o in sorted(OPTIONS) if f"\n  {o}" in WHOLE])
@pytest.mark.parametrize("target", TARGETS)
def test_without_a_reader_of_an_option_it_is_refused(
    option: str, target: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.delitem(OPTIONS, option)
    result = carried(tmp_path, WHOLE, target)
    assert result.status == "refused"
    assert result.findings[0].rule == "unknown-option"


UNKNOWN = [
    ("  emits:", "  mixins: [tides],\n  emits:", "mixin-not-followed"),
    ("  emits:", "  render() {},\n  emits:", "unknown-option"),
    ("  emits:", "  title() { return this.left; },\n  emits:", "unknown-option"),
    ("this.used = now;", "send({ ...this });", "instance-escapes"),
    ("this.used = now;", "this[now] = now;", "instance-escapes"),
    ("this.used = now;", "this.limit = now;", "input-written"),
    ("this.used = now;", "this.left = now;", "derived-written"),
    ("this.used = now;", "this.go = now;", "method-replaced"),
    ("this.used = now;", "this.$data.used = now;", "unknown-use"),
    ("<template>", '<template lang="pug">', "block-unread"),
    ("<script>", '<script src="./a.js">', "block-unread"),
]


@pytest.mark.parametrize("target", TARGETS)
@pytest.mark.parametrize(("old", "new", "rule"), UNKNOWN)
def test_what_is_not_read_is_refused_by_name(
    old: str, new: str, rule: str, target: str, tmp_path: Path
) -> None:
    assert WHOLE.count(old) == 1
    result = carried(tmp_path, WHOLE.replace(old, new), target)
    assert (result.status, result.findings[0].rule) == ("refused", rule)
    assert not result.files


KEPT = [
    ("this.used = now;", "send(this);", "not-in-target"),
    ("this.used = now;", "this[now]();", "reached-from-outside"),
    ("this.used = now;", "this.$refs.a.focus();", "unknown-use"),
    ("this.used = now;", "({ a: this.used } = now);", "state-write-unread"),
    ("this.used = now;", "setTimeout(function () { this.used = 1; });", ""),
    ("{ return { used: 0 }; }", "{ const used = 0; return { used }; }", ""),
    ("<slot>x</slot>", "<Tide />", "child-not-found"),
    ("<slot>x</slot>", "{{ other }}", "unknown-use"),
    ("@click=", "@click.once=", "markup-unread"),
    ("<script>", "<docs>a</docs>\n<script>", "block-unread"),
]


@pytest.mark.parametrize(("old", "new", "rule"), KEPT)
def test_what_a_function_does_not_get_the_flat_form_keeps(
    old: str, new: str, rule: str, tmp_path: Path
) -> None:
    assert WHOLE.count(old) == 1
    text = WHOLE.replace('@click="go(1)"', "").replace(old, new)
    if "@click" in old:
        text = WHOLE.replace(old, new)
    if rule:
        result = carried(tmp_path, text, "jsx-function")
        assert (result.status, result.findings[0].rule) == ("refused", rule)
    assert carried(tmp_path, text, "single-file-flat").status == "clean"


TIMES = [
    ("this.used += by;", "this.used += by; this.used += 1;", "setUsed(usedNow.current + 1)"),
    ("this.used += by;", "for (const n of [1, 2]) this.used += n;", "setUsed(usedNow.current + n)"),
    (
        "this.used += by;",
        "setTimeout(() => { this.used += by; });",
        "setUsed(usedNow.current + by)",
    ),
    ("this.$emit('gone', this.used);", "this.$emit('gone', this.left);", "onGone?.(readLeft())"),
    (
        "if (this.used > now) this.used = now;",
        "send(now);",
        "useChange(limit, (now) => { send(now); })",
    ),
    (
        "return this.limit - this.used;",
        "const n = 1; return n;",
        "const left = useMemo(() => { const n = 1; return n; }, []);",
    ),
    ("return this.limit - this.used;", "return look(this.used);", "const left = look(used);"),
]


@pytest.mark.parametrize(("old", "new", "written"), TIMES)
def test_a_function_sees_the_newest_value_where_a_write_is_to_be_seen(
    old: str, new: str, written: str, tmp_path: Path
) -> None:
    assert WHOLE.count(old) == 1
    result = carried(tmp_path, WHOLE.replace(old, new), "jsx-function")
    assert result.status == "clean", result.findings
    assert written in result.files[0].text
    assert carried(tmp_path, WHOLE.replace(old, new), "single-file-flat").status == "clean"


def test_a_local_that_hides_a_member_it_needs_is_renamed(tmp_path: Path) -> None:
    text = WHOLE.replace("go(by) {", "go(by) { const used = 1; look({ used });")
    result = carried(tmp_path, text, "single-file-flat")
    assert result.status == "clean"
    assert (
        "const currentUsed = 1; look({ used: currentUsed }); used.value += by;"
        in result.files[0].text
    )


def test_scopes_go_to_the_last_compound_before_its_pseudo() -> None:
    data = b".a > b:hover::before, c[x='a,b'] .d:not(.e, .f) { } @media print { p i { } } @font-face { }"
    splices = scope_splices(data, 0, len(data), b"[s]")
    assert isinstance(splices, list)
    for start, end, new in reversed(splices):
        data = data[:start] + new + data[end:]
    assert data == (
        b".a > b[s]:hover::before, c[x='a,b'] .d[s]:not(.e, .f) { } "
        b"@media print { p i[s] { } } @font-face { }"
    )


def test_every_byte_of_a_template_is_in_one_node() -> None:
    text = "<a :b='c > d' e>{{ f < '}}' }}<br>g<!-- h --><i/></a>\n j"
    source = SourceText("x", text.encode())
    nodes = read_markup(source, 0, len(source.data))
    assert [(n.kind, n.start, n.end) for n in nodes] == [("element", 0, 53), ("text", 53, 56)]
    inside = nodes[0].children
    assert [n.kind for n in inside] == ["interpolation", "element", "text", "comment", "element"]
    assert all(a.end == b.start for a, b in pairwise(inside))


def test_through_the_program(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Berth.vue").write_text(WHOLE)
    done = run("carry", "Berth.vue", "--to", "single-file-flat", "--write", "--json")
    assert done.returncode == 0
    result = json.loads(done.stdout)["results"][0]
    assert (result["from"], result["status"]) == ("single-file-object", "clean")
    assert (tmp_path / "Berth.flat.vue").read_text().count("defineProps") == 1
    done = run("verify", "Berth.vue", "Berth.flat.vue", "--json")
    assert json.loads(done.stdout)["verdict"] == "same"
    (tmp_path / "Torn.vue").write_text("<template><p></template>")
    done = run("carry", "Torn.vue", "--to", "single-file-flat")
    assert done.returncode == 3
    assert done.stderr.count("\n") == 1 and "Torn.vue:" in done.stderr


_TOLD = "export default { data() { return { b: 1 }; } };"
_REGISTERED = "export default { components: { TideBoard } };"


@pytest.mark.parametrize(
    ("script", "folder", "tags", "version", "status"),
    [
        (_TOLD, "desk", "<tide-board />", "2.7.16", "named-apart"),
        (_TOLD, "tide-desk", "<TideBoard />", "2.7.16", "named-apart"),
        (_TOLD, "desk", "<other-board />", "2.7.16", ""),
        (_TOLD, "desk", "<tide-board />", "3.5.0", ""),
        (_TOLD, "desk", "<tide-board /><desk-tide-board />", "2.7.16", "element-named-like-file"),
        (_TOLD, "2026", "<tide-board />", "2.7.16", "element-named-like-file"),
        (_TOLD.replace("data", "name: 'TideBoard', data"), "desk", "<TideBoard />", "2.7.16", ""),
        (_TOLD.replace("data", "name: 'Board', data"), "desk", "<TideBoard />", "2.7.16", ""),
        (f"import TideBoard from './x';\n{_REGISTERED}", "desk", "<tide-board />", "2.7.16", ""),
    ],
)
def test_an_element_named_like_the_file_is_not_taken_for_itself(
    script: str, folder: str, tags: str, version: str, status: str, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text(json.dumps({"dependencies": {"vue": version}}))
    file = tmp_path / folder / "TideBoard.vue"
    file.parent.mkdir()
    file.write_text(f"<template><div>{tags}</div></template>\n<script>\n{script}\n</script>\n")
    result = carry_file(Request(file, file.name, "single-file-flat"))[0]
    assert [finding.rule for finding in result.findings] == ([status] if status else [])
    assert result.status == ("refused" if status == "element-named-like-file" else "clean")
    if status == "named-apart":
        name = "DeskTideBoard" if folder == "desk" else "TideDeskTideBoard"
        assert f"name: '{name}'" in result.files[0].text


@pytest.mark.parametrize(("stem", "named"), [("Table", False), ("Slot", False), ("Search", True)])
def test_a_file_may_be_called_like_an_element_the_runtime_knows(
    stem: str, named: bool, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"dependencies": {"vue": "2.7.16"}}')
    file = tmp_path / f"{stem}.vue"
    tag = f"<{stem.lower()} />"
    file.write_text(f"<template><div>{tag}</div></template>\n<script>\n{_TOLD}\n</script>\n")
    result = carry_file(Request(file, file.name, "single-file-flat"))[0]
    assert [finding.rule for finding in result.findings] == ["named-apart"] * named


def test_styles_of_a_preprocessor_go_along_as_they_are(tmp_path: Path) -> None:
    sheet = "$sea: #0b4f6c;\n.berth { b { color: $sea; &:hover { color: red } } }\n"
    text = re.sub(r"(?s)<style.*?</style>\n?", "", WHOLE).replace('@click="go(1)"', "")
    text += f'\n<style lang="scss">\n{sheet}</style>\n'
    result = carried(tmp_path, text, "jsx-function")
    assert result.status == "clean"
    assert [(Path(f.path).suffix, f.text) for f in result.files][1] == (".scss", sheet)
    assert ".scss';" in result.files[0].text
    scoped = carried(tmp_path, text.replace('lang="scss"', 'lang="scss" scoped'), "jsx-function")
    assert (scoped.status, scoped.findings[0].rule) == ("refused", "block-unread")
    both = carried(tmp_path, text + "\n<style>.a {}</style>\n", "jsx-function")
    assert (both.status, both.findings[0].rule) == ("refused", "style-unread")
