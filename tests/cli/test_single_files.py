"""Single files through the built program, on both versions of their runtime."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest

from clean_carry.demo.story import COMPANY
from tests_support import WALKS

CARRIED = ("carry", "pages", "--to", "single-file-flat", "--write")


def pages(tmp_path: Path, folder: str, *names: str) -> Path:
    """A folder of the demo company, of which only some pages are kept."""
    target = tmp_path / "pages"
    shutil.copytree(COMPANY / folder, target)
    for page in target.glob("*.vue"):
        if page.stem not in names:
            page.unlink()
    return target


def test_pages_of_the_older_runtime_are_carried_and_proven(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    target = pages(tmp_path, "passenger-older", "CargoDeclaration", "CrossingSheet")
    done = run(*CARRIED, "--verify", "--json")
    rows = json.loads(done.stdout)["results"]
    assert [(r["component"], r["status"]) for r in rows] == [
        ("CargoDeclaration", "clean"),
        ("CrossingSheet", "clean"),
    ]
    assert {r["verification"]["verdict"] for r in rows} == {"same"}
    text = (target / "CargoDeclaration.flat.vue").read_text()
    assert "model: { prop: 'cargo', event: 'declared' }," in text
    assert "proxy.$watch(() => items.value, () => {" in text
    assert done.returncode == 0


WRONG = [
    ("changes.value += 1;", "changes.value += 2;"),
    ("proxy.$watch(() => items.value, () => {", "watch(() => items.value, () => {"),
    ("{ ...items.value[at], heavy }", "items.value[at]"),
]


@pytest.mark.parametrize(("right", "wrong"), WRONG)
def test_what_is_wrong_on_the_older_runtime_differs(
    right: str,
    wrong: str,
    run,
    tmp_path: Path,  # type: ignore[no-untyped-def]
) -> None:
    target = pages(tmp_path, "passenger-older", "CargoDeclaration")
    assert run(*CARRIED).returncode == 0
    flat = target / "CargoDeclaration.flat.vue"
    text = flat.read_text()
    assert right in text
    text = text.replace(right, wrong).replace("set } from", "set, watch } from")
    flat.write_text(text)
    done = run("verify", "pages/CargoDeclaration.vue", "pages/CargoDeclaration.flat.vue", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


def test_a_page_without_trials_finds_them_itself(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    target = pages(tmp_path, "passenger", "BoardingClock")
    (target / "BoardingClock.trials.yaml").unlink()
    assert run(*CARRIED).returncode == 0
    flat = target / "BoardingClock.flat.vue"
    pair = ("pages/BoardingClock.vue", "pages/BoardingClock.flat.vue", *WALKS, "--json")
    assert json.loads(run("verify", *pair).stdout)["verdict"] == "same"
    text = flat.read_text()
    assert "clearInterval(timer);" in text
    flat.write_text(text.replace("left.value -= 1;", "left.value -= 2;"))
    assert json.loads(run("verify", *pair).stdout)["verdict"] == "differs"


@pytest.mark.parametrize(("folder", "stem", "given"), [
    ("passenger", "TicketBasket", ' :line="line"'),
    ("passenger-older", "CrossingSheet", ' :leg="leg"'),
])  # fmt: skip
def test_what_content_is_given_is_compared(
    folder: str,
    stem: str,
    given: str,
    run,
    tmp_path: Path,  # type: ignore[no-untyped-def]
) -> None:
    target = pages(tmp_path, folder, stem)
    (target / f"{stem}.trials.yaml").unlink()
    assert run(*CARRIED).returncode == 0
    flat = target / f"{stem}.flat.vue"
    text = flat.read_text()
    assert given in text
    flat.write_text(text.replace(given, ""))
    done = run("verify", f"pages/{stem}.vue", f"pages/{stem}.flat.vue", *WALKS, "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


def test_what_is_refused_says_where_and_why(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "pages").mkdir()
    (tmp_path / "pages" / "Sheet.vue").write_text(
        "<template><p>{{ a }}</p></template>\n<script>\nexport default {\n  props: ['a'],\n"
        "  provide() { return { sheet: { ...this } }; },\n};\n</script>\n"
    )
    done = run(*CARRIED)
    assert done.returncode == 1
    assert "Sheet.vue:5:" in done.stdout and "instance-escapes" in done.stdout
    assert not (tmp_path / "pages" / "Sheet.flat.vue").exists()


TIDE = """export default {
  data() {
    return { told: 0 };
  },
  computed: {
    notice() {
      return this.level > 2 ? `High water, ${this.level}` : 'Low water';
    },
  },
  methods: {
    tell() {
      this.told += 1;
      this.raise(this);
      this.level += 1;
      this.$emit('told', this.level);
    },
  },
};
"""
STRIP = """<template>
  <p :class="{ high: level > 2 }">
    {{ notice }}
    <button @click="tell">{{ told }}</button>
  </p>
</template>

<script>
import tide from './tide';

const record = (strip) => strip.steps.push(strip.level);

export default {
  mixins: [tide],
  emits: ['told'],
  data() {
    return { level: 0, steps: [] };
  },
  methods: {
    raise() {
      record(this);
      if (this.steps.length < 5) this.level += 1;
    },
  },
};
</script>
"""


@pytest.mark.parametrize("version", ["2.7.16", "3.5.0"])
def test_what_is_mixed_in_asks_the_flat_form_for_its_members(
    version: str,
    run,
    tmp_path: Path,  # type: ignore[no-untyped-def]
) -> None:
    target = tmp_path / "pages"
    target.mkdir()
    (target / "package.json").write_text(f'{{"dependencies": {{"vue": "{version}"}}}}')
    (target / "tide.js").write_text(TIDE)
    (target / "TideStrip.vue").write_text(STRIP)
    done = run(*CARRIED, "--verify", "--json")
    (row,) = json.loads(done.stdout)["results"]
    assert (row["status"], row["verification"]["verdict"]) == ("clean", "same"), row
    flat = target / "TideStrip.flat.vue"
    text = flat.read_text()
    line = "level, steps, raise" if version < "3" else "set(value) {"
    assert line in text
    flat.write_text(text.replace(line, line.replace("level, ", "").replace("set", "put")))
    done = run("verify", "pages/TideStrip.vue", "pages/TideStrip.flat.vue", *WALKS)
    assert done.returncode == 1, done.stdout


DOCKED = """<template>
  <p :title="$attrs.note">{{ dock ? dock.name : 'no dock' }}: {{ places }}</p>
</template>

<script>
import base from './base';

export default {
  extends: base,
  inject: { dock: { default: null } },
  computed: {
    places() {
      return this.dock && this.open ? this.dock.free + this.level : 0;
    },
  },
};
</script>
"""


@pytest.mark.parametrize("version", ["2.7.16", "3.5.0"])
@pytest.mark.parametrize(
    ("right", "wrong"),
    [
        ("props.level", "props.level + 1"),
        (".free", ".full"),
        pytest.param("dock.name", "dock.title", marks=pytest.mark.whole),
        pytest.param("props.open", "!props.open", marks=pytest.mark.whole),
        pytest.param("$attrs.note", "$attrs.kind", marks=pytest.mark.whole),
    ],
)
def test_trials_give_what_is_provided_and_what_a_base_takes(
    right: str,
    wrong: str,
    version: str,
    run,
    tmp_path: Path,  # type: ignore[no-untyped-def]
) -> None:
    target = tmp_path / "pages"
    target.mkdir()
    (target / "package.json").write_text(f'{{"dependencies": {{"vue": "{version}"}}}}')
    (target / "base.js").write_text(
        "export default { props: { level: Number, open: Boolean, name: String } };"
    )
    (target / "Berth.vue").write_text(DOCKED)
    assert run(*CARRIED).returncode == 0
    flat = target / "Berth.flat.vue"
    text = flat.read_text()
    files = ("verify", "pages/Berth.vue", "pages/Berth.flat.vue", *WALKS, "--json")
    assert json.loads(run(*files).stdout)["verdict"] == "same"
    assert right in text, text
    flat.write_text(text.replace(right, wrong))
    assert json.loads(run(*files).stdout)["verdict"] == "differs"
