"""What trials give single files, and what they tell apart, through the built program."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from conftest import Run
from tests_support import WALKS

CARRIED = ("carry", "pages", "--to", "single-file-flat", "--write")
VERSIONS = ["2.7.16", "3.5.0"]


def pages(tmp_path: Path, version: str, **files: str) -> Path:
    """Single files of a version of the runtime, by their names."""
    target = tmp_path / "pages"
    target.mkdir()
    needs = {"name": "ferries", "dependencies": {"vue": version}}
    (tmp_path / "package.json").write_text(json.dumps(needs))
    for name, text in files.items():
        (target / f"{name}.vue").write_text(text)
    return target


def carried(run: Run, page: str) -> dict[str, Any]:
    """The result for a page that is carried and verified."""
    done = run(*CARRIED, "--verify", "--json")
    results: list[dict[str, Any]] = json.loads(done.stdout)["results"]
    return next(result for result in results if result["component"] == page)


def verified(run: Run, page: str) -> dict[str, Any]:
    """What the trials of a page and its flat form come to."""
    pair = (f"pages/{page}.vue", f"pages/{page}.flat.vue")
    found: dict[str, Any] = json.loads(run("verify", *pair, *WALKS, "--json").stdout)
    return found


def is_told_apart(run: Run, target: Path, page: str, right: str, wrong: str) -> bool:
    """Whether the flat form differs with something wrong in the place of what is right."""
    flat = target / f"{page}.flat.vue"
    text = flat.read_text()
    assert right in text
    flat.write_text(text.replace(right, wrong))
    return bool(verified(run, page)["verdict"] == "differs")


def test_an_element_of_the_application_is_not_the_page_of_its_name(
    run: Run, tmp_path: Path
) -> None:
    text = (
        '<template><div><berths :free="free" /></div></template>\n<script>\nexport default {\n'
        "  data() { return { free: 3 }; },\n};\n</script>\n"
    )
    target = pages(tmp_path, "2.7.16", Berths=text)
    result = carried(run, "Berths")
    assert result["verification"]["verdict"] == "same"
    assert [finding["rule"] for finding in result["findings"]] == ["named-apart"]
    assert is_told_apart(run, target, "Berths", "name: 'PagesBerths'", "name: 'Berths'")


FALLIBLE = """<template>
  <p :class="{ late }"><b v-for="stop in stops" :key="stop">{{ month }}: {{ told }}</b></p>
</template>

<script>
export default {
  props: { day: { type: Object }, stops: { type: Array }, late: Boolean },
  data() { return { told: 0 }; },
  computed: { month() { return this.day.month; } },
  watch: { month() { this.told += 1; } },
};
</script>
"""


@pytest.mark.parametrize("version", VERSIONS)
def test_what_is_watched_may_fail(version: str, run: Run, tmp_path: Path) -> None:
    target = pages(tmp_path, version, Month=FALLIBLE)
    result = carried(run, "Month")
    assert result["verification"]["verdict"] == "same", result
    right = "watch(() => month.value, () => {"
    assert is_told_apart(run, target, "Month", right, "watch(month, () => {")


LANE = """<template><i>{{ name }}<slot name="foot" /></i></template>
<script>
export default { name: 'Lane', props: { name: String, frozen: Boolean } };
</script>
"""
ASKED = """
<script>
export default {
  props: { lane: { type: Object, default: null } },
  methods: {
    asked(word) {
      return LANE;
    },
  },
};
</script>
"""
CELL = """<template>
  <td>
    <component v-if="asked('frozen') && lane.children.foot" :is="lane.children.foot" />
    <b v-else>{{ asked('name') }}</b>
  </td>
</template>
""" + ASKED.replace(
    "LANE", "this.lane && this.lane.type.props[word] ? this.lane.props[word] : undefined"
)
INSTANCE = """<template>
  <td :class="{ off: asked('frozen') }">{{ lane && lane.$scopedSlots.foot ? 'foot' : asked('name') }}</td>
</template>
""" + ASKED.replace("LANE", "this.lane && this.lane.$props ? this.lane.$props[word] : undefined")


@pytest.mark.parametrize(("version", "cell", "right", "wrong"), [
    ("3.5.0", CELL, "'frozen') && ", "'frozen') || "),
    pytest.param("3.5.0", CELL, "lane.props[word]", "lane.props.name", marks=pytest.mark.whole),
    pytest.param("2.7.16", INSTANCE, "'frozen'", "'name'", marks=pytest.mark.whole),
    ("2.7.16", INSTANCE, "Slots.foot", "Slots.head"),
])  # fmt: skip
def test_an_input_that_is_an_element_or_an_instance_is_given_one(
    version: str, cell: str, right: str, wrong: str, run: Run, tmp_path: Path
) -> None:
    target = pages(tmp_path, version, Lane=LANE, Cell=cell)
    assert run(*CARRIED).returncode == 0
    found = verified(run, "Cell")
    assert found["verdict"] == "same", found
    assert found["reach"]["old"]["unreached"] == []
    assert is_told_apart(run, target, "Cell", right, wrong)


def test_elements_that_cannot_be_built_are_left_out(run: Run, tmp_path: Path) -> None:
    markup = 'methods: { foot() { return <b class="foot" />; } } };'
    lane = LANE.replace("Boolean } };", f"Boolean }}, {markup}")
    pages(tmp_path, "3.5.0", Lane=lane, Cell=CELL)
    done = run("verify", "pages/Lane.vue", "pages/Lane.vue", "--json")
    assert "cannot be built" in json.loads(done.stdout)["reason"]
    assert run("verify", "pages/Cell.vue", "pages/Cell.vue", *WALKS).returncode == 0


DECLARED = """<template>
  <p :class="tone">{{ first }} of {{ berths.length }}</p>
</template>

<script>
export default {
  props: {
    berths: { type: Array, required: true },
    tone: { type: [String, Number], validator: (tone) => tone !== 'loud' || tone === 3 },
  },
  data() { return { first: this.berths[0] }; },
};
</script>
"""


@pytest.mark.parametrize("version", VERSIONS)
@pytest.mark.parametrize(("right", "wrong"), [
    (", required: true", ""), pytest.param("[String, Number]", "String", marks=pytest.mark.whole),
    pytest.param("'loud'", "'quiet'", marks=pytest.mark.whole),
])  # fmt: skip
def test_what_inputs_are_declared_as_is_compared(
    version: str, right: str, wrong: str, run: Run, tmp_path: Path
) -> None:
    target = pages(tmp_path, version, Berths=DECLARED)
    assert carried(run, "Berths")["verification"]["verdict"] == "same"
    # Without berths both fail; version 2.7 draws the object form at once all the same, version 3 draws
    # nothing of either.
    (target / "Berths.trials.yaml").write_text(
        "trials:\n  - name: without berths, then with one\n    steps:\n"
        "      - change: { inputs: { berths: [Holm] } }\n"
    )
    pair = ("pages/Berths.vue", "pages/Berths.flat.vue")
    found = json.loads(run("verify", *pair, "--json").stdout)
    (target / "Berths.trials.yaml").unlink()
    assert found["void"] == int(version < "3")
    assert is_told_apart(run, target, "Berths", right, wrong)
