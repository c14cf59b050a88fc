"""Single files whose kin look for them by name, or ask for the tag they are written as."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

BERTH = """<template>
  <ul><li v-for="ship in free" :key="ship">{{ ship }}</li></ul>
</template>

<script>
export default {
  name: 'BerthList',
  data() {
    return { free: [], open: true };
  },
  methods: {
    moor(ship) {
      this.free.push(ship);
    },
  },
};
</script>
"""
LOOKS = [
    "closest(this, 'BerthList').moor(1)",
    "closest(vm, ['Quay', 'BerthList']).moor(1)",
    "if (parent.$options.name === 'BerthList') parent.moor(1)",
]


def carried(folder: Path, text: str, other: str, runtime: int) -> Result:
    (folder / "package.json").write_text('{"name": "pier"}')
    (folder / "QuayList.js").write_text(f"export function go(vm, parent) {{ {other}; }}\n")
    path = folder / "BerthList.vue"
    path.write_text(text)
    return carry_file(Request(path, "BerthList.vue", "single-file-flat", runtime=runtime))[0]


@pytest.mark.parametrize("runtime", [2, 3])
@pytest.mark.parametrize("other", LOOKS)
def test_what_is_looked_for_by_name_is_open(other: str, runtime: int, tmp_path: Path) -> None:
    result = carried(tmp_path, BERTH, other, runtime)
    assert result.status == "clean"
    assert "moor" in result.files[0].text.partition("defineExpose(")[2]
    assert "open" not in result.files[0].text.partition("defineExpose(")[2]


def test_an_event_for_a_name_opens_nothing(tmp_path: Path) -> None:
    result = carried(tmp_path, BERTH, "vm.tell('BerthList', 'on-moor'); vm.open = vm.free", 2)
    assert "open" not in result.files[0].text.partition("defineExpose(")[2]


NESTED = """<template>
  <quay-list><quay-item v-for="n in 3" :key="n" /></quay-list>
</template>

<script>
import QuayList from './QuayList.vue';
import QuayItem from './QuayItem.vue';

export default {
  components: { QuayList, QuayItem },
};
</script>
"""
ASKS = [
    "return vm.componentOptions.tag",
    "const { tag } = vm.componentOptions; return tag",
    "vm.$options._componentTag",
    "const given = vm.componentOptions; return given && given.tag",
]


@pytest.mark.parametrize("other", ASKS)
def test_a_tag_that_is_asked_for(other: str, tmp_path: Path) -> None:
    result = carried(tmp_path, NESTED, other, 2)
    assert (result.status, result.findings[0].rule) == ("refused", "tag-asked")
    assert result.findings[0].line == 2
    assert carried(tmp_path, NESTED, other, 3).status == "clean"


def test_the_tag_of_what_is_drawn_is_another(tmp_path: Path) -> None:
    other = "return vm.tag && vm.componentOptions.propsData.size"
    assert carried(tmp_path, NESTED, other, 2).status == "clean"


@pytest.mark.parametrize("around", ["transition-group", "berth-row", "router-link"])
def test_what_is_handed_to_one_that_does_not_ask(around: str, tmp_path: Path) -> None:
    text = NESTED.replace("<quay-list>", f"<{around}>").replace("</quay-list>", f"</{around}>")
    assert carried(tmp_path, text, ASKS[0], 2).status == "clean"


def test_what_is_handed_to_nobody_has_no_tag_to_ask_for(tmp_path: Path) -> None:
    alone = NESTED.replace("<quay-list>", "<div>").replace("</quay-list>", "</div>")
    assert carried(tmp_path, alone, ASKS[0], 2).status == "clean"


@pytest.mark.parametrize(("own", "status"), [("", "clean"), (ASKS[0], "refused")])
def test_only_the_one_that_is_given_it_asks(own: str, status: str, tmp_path: Path) -> None:
    text = f"<template><ul><slot /></ul></template>\n<script>\nexport default {{}};\n// {own}\n</script>\n"
    (tmp_path / "QuayList.vue").write_text(text)
    assert carried(tmp_path, NESTED, ASKS[0], 2).status == status


MADE = """<template><p @click="add">{{ n }}</p></template>

<script>
import make from './make';

export default make({
  data() { return { n: 0 }; },
  methods: { add() { this.n++; } },
});
</script>
"""
MAKES = [
    ("export default (options) => options;", "clean"),
    ("export default function make(options) { return options; }", "clean"),
    ("export default (options) => ({ ...options, name: 'Quay' });", "refused"),
    ("export default function make(options) { options.name = 'Quay'; return options; }", "refused"),
]


@pytest.mark.parametrize(("make", "status"), MAKES)
def test_a_component_that_a_function_makes(make: str, status: str, tmp_path: Path) -> None:
    (tmp_path / "make.js").write_text(make)
    path = tmp_path / "Quay.vue"
    path.write_text(MADE)
    result = carry_file(Request(path, "Quay.vue", "single-file-flat", runtime=3))[0]
    assert result.status == status, result.findings
    if status == "refused":
        assert (result.findings[0].rule, result.findings[0].line) == ("made-by-call", 6)
    else:
        assert "function add() { n.value++; }" in result.files[0].text
        assert "make" not in result.files[0].text


INNER = """<template><p>{{ open }}</p></template>

<script>
import marks from './marks';

export default {
  name: 'Quay',
  inheritAttrs: false, // the root takes none
  model: { prop: 'open' }, /* by name */
  props: { open: Boolean },
  data() {
    return {
      _isQuay: true // asked for by berths
    };
  },
};
</script>
"""


def test_comments_behind_options_that_stay(tmp_path: Path) -> None:
    path = tmp_path / "Quay.vue"
    path.write_text(INNER)
    result = carry_file(Request(path, "Quay.vue", "single-file-flat", runtime=2))[0]
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert "  inheritAttrs: false, // the root takes none\n" in text
    assert "  model: { prop: 'open' }, /* by name */\n" in text
    assert "    return {\n      _isQuay: true, // asked for by berths\n    };" in text
