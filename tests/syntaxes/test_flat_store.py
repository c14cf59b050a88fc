"""Values and functions of a store that a component takes by helpers, and hooks of a router."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

FILE = """<template>
  <p @click="add(1)">{{ lines }}</p>
</template>

<script>
import { %s } from '%s';
%s
export default {
  name: 'BasketPage',
  data() {
    return { tries: 0 };
  },
  computed: {
    %s
  },
  methods: {
    %s
  },
  %s
};
</script>
"""


def carried(
    folder: Path,
    computed: str,
    methods: str = "add() {},",
    names: str = "mapState, mapGetters, mapActions, mapMutations",
    package: str = "vuex",
    more: str = "",
    imports: str = "",
    runtime: int = 3,
) -> Result:
    path = folder / "BasketPage.vue"
    path.write_text(FILE % (names, package, imports, computed, methods, more), "utf-8")
    return carry_file(Request(path, "BasketPage.vue", "single-file-flat", runtime=runtime))[0]


APPLICATION = [
    ("...mapState(['lines']),", "const lines = computed(() => store.state.lines);"),
    ("...mapState({ lines: 'cargo' }),", "const lines = computed(() => store.state.cargo);"),
    (
        "...mapState('basket', ['lines']),",
        "const lines = computed(() => store.state.basket.lines);",
    ),
    (
        "...mapState({ lines: (state) => state.basket.lines }),",
        "const lines = computed(() => store.state.basket.lines);",
    ),
    (
        "...mapState('basket', { lines: (state, getters) => state.lines + getters.count }),",
        "const lines = computed(() => store.state.basket.lines + store.getters.count);",
    ),
    (
        "...mapState({ lines(state) { return [state].map(() => ({ state })); } }),",
        "const lines = computed(() => { return [store.state].map(() => ({ state: store.state })); });",
    ),
    ("...mapGetters(['lines']),", "const lines = computed(() => store.getters.lines);"),
    (
        "...mapGetters('basket', { lines: 'all' }),",
        "const lines = computed(() => store.getters['basket/all']);",
    ),
]


@pytest.mark.parametrize(("old", "new"), APPLICATION)
def test_values_of_the_applications_store(old: str, new: str, tmp_path: Path) -> None:
    result = carried(tmp_path, old)
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert new in text and "const store = useStore();" in text
    assert "import { useStore } from 'vuex';" in text and "map" not in text.replace(".map(", "")


FUNCTIONS = [
    ("...mapActions(['add']),", "const add = (...args) => store.dispatch('add', ...args);"),
    (
        "...mapActions('basket', { add: 'push' }),",
        "const add = (...args) => store.dispatch('basket/push', ...args);",
    ),
    ("...mapMutations(['add']),", "const add = (...args) => store.commit('add', ...args);"),
]


@pytest.mark.parametrize(("old", "new"), FUNCTIONS)
def test_functions_of_the_applications_store(old: str, new: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "lines() { return this.tries; },", old)
    assert result.status == "clean", result.findings
    assert new in result.files[0].text


def test_the_store_is_one_name(tmp_path: Path) -> None:
    more = "created() { this.$store.commit('open'); },"
    text = carried(tmp_path, "...mapState(['lines']),", more=more).files[0].text
    assert "store.commit('open');" in text and "$store" not in text


def test_version_two_asks_the_instance(tmp_path: Path) -> None:
    text = carried(tmp_path, "...mapState(['lines']),", runtime=2).files[0].text
    assert "computed(() => proxy.$store.state.lines)" in text
    assert "vuex" not in text


GIVEN = "import { useBasketStore } from './basket';\n"
BY_FUNCTION = [
    ("...mapState(useBasketStore, ['lines']),", "computed(() => basketStore.lines)"),
    ("...mapState(useBasketStore, { lines: 'all' }),", "computed(() => basketStore.all)"),
    (
        "...mapState(useBasketStore, { lines: (s) => s.all[0] }),",
        "computed(() => basketStore.all[0])",
    ),
    ("...mapGetters(useBasketStore, ['lines']),", "computed(() => basketStore.lines)"),
]


@pytest.mark.parametrize(("old", "new"), BY_FUNCTION)
def test_values_of_a_store_that_a_function_gives(old: str, new: str, tmp_path: Path) -> None:
    methods = "...mapActions(useBasketStore, { add: 'push' }),"
    names = "mapState, mapGetters, mapActions"
    result = carried(tmp_path, old, methods, names, "pinia", imports=GIVEN)
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert new in text and "const basketStore = useBasketStore();" in text
    assert "const add = (...args) => basketStore.push(...args);" in text
    assert "pinia" not in text and GIVEN.strip() in text


def test_a_value_that_is_written_in_the_store(tmp_path: Path) -> None:
    old = "...mapWritableState(useBasketStore, ['lines']),"
    methods = "add(n) { this.lines = n; },"
    result = carried(tmp_path, old, methods, "mapWritableState", "pinia", imports=GIVEN)
    text = result.files[0].text
    assert "get: () => basketStore.lines," in text and "basketStore.lines = given;" in text
    assert "lines.value = n;" in text


NOT_READ = [
    "...mapState({ lines(state) { return state.lines + this.tries; } }),",
    "...mapState({ lines: ({ basket }) => basket.lines }),",
    "...mapState(names),",
    "...mapState('basket', given),",
    "...others,",
    "...mapState(['basket/lines']),",
]


@pytest.mark.parametrize("old", NOT_READ)
def test_what_cannot_be_read_is_refused(old: str, tmp_path: Path) -> None:
    result = carried(tmp_path, old)
    assert result.status == "refused" and result.findings[0].line == 14


def test_a_helper_that_something_else_uses_stays(tmp_path: Path) -> None:
    imports = "export const other = mapState(['pier']);\n"
    text = (
        carried(tmp_path, "...mapState(['lines']),", names="mapState", imports=imports)
        .files[0]
        .text
    )
    assert "import { mapState, useStore } from 'vuex';" in text


LEAVING = "beforeRouteLeave(to, from, next) { next(!this.tries); },"


def test_a_hook_of_the_router(tmp_path: Path) -> None:
    more = LEAVING + " beforeRouteUpdate() { this.tries = 0; },"
    result = carried(tmp_path, "lines() { return 1; },", more=more, names="tide", package="./tide")
    assert result.status == "clean", result.findings
    text = result.files[0].text
    assert "import { onBeforeRouteLeave, onBeforeRouteUpdate } from 'vue-router';" in text
    assert "onBeforeRouteLeave((to, from, next) => { next(!tries.value); });" in text


ENTERING = [
    ("beforeRouteEnter(to, from, next) { next(to.name !== 'holm'); },", "clean"),
    ("beforeRouteEnter(to, from, next) { next((vm) => vm.add(1)); },", "refused"),
]


@pytest.mark.parametrize(("more", "status"), ENTERING)
def test_a_hook_before_there_is_an_instance(more: str, status: str, tmp_path: Path) -> None:
    result = carried(tmp_path, "lines() { return 1; },", more=more, names="tide", package="./tide")
    assert result.status == status, result.findings
    assert status == "refused" or "beforeRouteEnter(to, from, next)" in result.files[0].text


def test_version_two_has_no_function_for_them(tmp_path: Path) -> None:
    result = carried(
        tmp_path, "lines() { return 1; },", more=LEAVING, names="tide", package="./tide", runtime=2
    )
    assert (result.status, result.findings[0].rule) == ("refused", "unknown-option")


# As much of a store's package as the two forms ask for.
STORE = """import { inject } from 'vue';
const asked = (kind) => (names) => Object.fromEntries(names.map((name) => [name, kind(name)]));
export const mapState = asked((name) => function () { return this.$store.state[name]; });
export const mapActions = asked((name) => function (...given) {
  return this.$store.dispatch(name, ...given);
});
export const useStore = () => inject('store');
"""


def test_the_program_proves_it(run: Any, tmp_path: Path) -> None:
    package = tmp_path / "node_modules" / "vuex"
    package.mkdir(parents=True)
    (package / "package.json").write_text(
        '{"name": "vuex", "version": "4.1.0", "main": "index.js"}'
    )
    (package / "index.js").write_text(STORE)
    (tmp_path / "package.json").write_text('{"dependencies": {"vuex": "4.1.0", "vue": "3.5.45"}}')
    carried(tmp_path, "...mapState(['lines']),", "...mapActions(['add']),", "mapState, mapActions")
    done = run(
        "carry", "BasketPage.vue", "--to", "single-file-flat", "--verify", "--budget", "2", "--json"
    )
    result = json.loads(done.stdout)["results"][0]
    assert result["verification"]["verdict"] == "same", done.stdout[-1500:]
