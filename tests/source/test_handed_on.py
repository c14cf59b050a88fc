"""What the files of a project ask an instance for that was handed to them, by their text."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.source.instance_reads import (
    asked_in_texts,
    asked_of_handed,
    asked_under,
    called_with,
    written_in,
)

ASKED = [
    ("berth.used", "used"),
    ("berth?.used", "used"),
    ("list[0].used", "used"),
    ("find().used", "used"),
    ("const { used, limit: most } = berth;", "used limit most"),
    ("map(({ used }) => used)", "used"),
    ("this.used", ""),
    ("this?.used", ""),
    ("_this2.used; $options.used; _ctx.used; $props.used; $data.used", ""),
    ("const { used } = this;", ""),
]


@pytest.mark.parametrize(("text", "names"), ASKED)
def test_names_asked_of_anything_but_the_own_instance(text: str, names: str) -> None:
    assert asked_in_texts([text]) == set(names.split())


WRITTEN = [
    ("berth.used = 1;", "used"),
    ("berth.used += 1;", "used"),
    ("berth.used ??= 1;", "used"),
    ("berth.used++;", "used"),
    ("berth.used == 1; berth.used => 1; berth.used >= 1;", ""),
    ("this.used = 1;", ""),
]


@pytest.mark.parametrize(("text", "names"), WRITTEN)
def test_names_written(text: str, names: str) -> None:
    assert written_in([text]) == set(names.split())


UNDER = [
    ("state.used", "used"),
    ("own.state.used", "used"),
    ("state?.used", "used"),
    ("({ state: { used, most } }) => used", "used most"),
    ("const { used } = own.state;", "used"),
    ("estate.used", ""),
]


@pytest.mark.parametrize(("text", "names"), UNDER)
def test_names_asked_under_a_name(text: str, names: str) -> None:
    assert asked_under([text], "state") == set(names.split())


CALLS = [
    ("this.valueOf('used'); valueOf('most', 1)", {"used", "most"}),
    ("valueOf(name) { return this[name]; }, go() { this.valueOf('used'); }", {"used"}),
    ("this.valueOf(name)", None),
    ("this.valueOf(`used`)", None),
    ("", set()),
]


@pytest.mark.parametrize(("text", "names"), CALLS)
def test_the_words_a_function_is_called_with(
    text: str, names: set[str] | None, tmp_path: Path
) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    (tmp_path / "pier.js").write_text(text)
    assert called_with(tmp_path / "pier.js", "valueOf") == names


@pytest.mark.parametrize("others", ["", "pier.esm.js", "pier.min.js"])
def test_a_build_is_no_source_where_it_stands_in_several_forms(others: str, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "ferries"}')
    for name in ("pier.common.js", *filter(None, [others])):
        (tmp_path / name).write_text("berth.used;")
    (tmp_path / "pier.vue").write_text("<script>berth.most;</script>")
    wanted = {"most"} if others else {"most", "used"}
    assert asked_of_handed(tmp_path / "pier.vue") == wanted
