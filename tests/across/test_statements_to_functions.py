"""Single files of statements become functions: shared code, effects and models, in both runtimes."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file_flat.composables import with_composables
from conftest import Run

FILE = """<script setup>
import {{ {names} }} from 'vue'
{body}
</script>

<template>
  <div>{markup}</div>
</template>
"""


def carried(run: Run, folder: Path, text: str, *more: str) -> dict[str, Any]:
    (folder / "components").mkdir(exist_ok=True)
    (folder / "components" / "Pier.vue").write_text(text)
    done = run("carry", "components/Pier.vue", "--to", "jsx-function", "--json", *more)
    result: dict[str, Any] = json.loads(done.stdout)["results"][0]
    return result


def text_of(result: dict[str, Any]) -> str:
    assert result["status"] == "clean", result["findings"]
    return str(result["files"][0]["text"])


# -- effects ----------------------------------------------------------------------------------------

PROPS = "const props = defineProps({ tide: Number, pier: { type: String, default: 'a' } })\n"
EFFECTS = {
    "an effect names what it reads": (
        "watchEffect",
        "watchEffect(() => {\n  document.title = `${props.pier} ${props.tide}`\n})",
        ["  }, [pier, tide])"],
    ),
    "what it reads later it does not follow": (
        "watchEffect",
        "watchEffect(() => {\n  const pier = props.pier\n  setTimeout(() => { document.title = pier + props.tide }, 5)\n})",
        ["  }, [pier])"],
    ),
    "what ends it is returned": (
        "watchEffect",
        "watchEffect((onCleanup) => {\n  document.title = props.pier\n  onCleanup(() => { document.title = '' })\n})",
        ["    return () => { document.title = '' }\n  }, [pier])"],
    ),
    "an expression is a statement": (
        "watchEffect",
        "const emit = defineEmits(['moored'])\nwatchEffect(() => emit('moored', props.pier))",
        ["useLayoutEffect(() => {\n    onMoored?.(pier)\n  }, [pier])"],
    ),
    "a derived value it reads is made once for what it is made of": (
        "watchEffect, computed",
        "const names = computed(() => [props.pier])\nwatchEffect(() => { document.title = names.value[0] })",
        ["const names = useMemo(", "}, [names])"],
    ),
    "code of the setup stands before it": (
        "watchEffect",
        "let runs = 0\nwatchEffect(() => { document.title = props.pier })",
        ["runs.current = 0\n  }, [])", "useLayoutEffect(() => { document.title = pier }, [pier])"],
    ),
}


@pytest.mark.parametrize("name", EFFECTS)
def test_effects_name_what_they_follow(name: str, run: Run, tmp_path: Path) -> None:
    names, body, wanted = EFFECTS[name]
    text = FILE.format(names=names, body=PROPS + body, markup="{{ pier }}")
    result = carried(run, tmp_path, text, "--verify", "--budget", "4")
    made = text_of(result)
    for part in wanted:
        assert part in made, made
    assert "from 'vue'" not in made
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][-1]


REFUSED = {
    "an effect that waits": (
        "watchEffect",
        "watchEffect(async () => { document.title = await props.pier })",
        "old-runtime-used",
    ),
    "an effect that writes what it reads": (
        "watchEffect, ref",
        "const count = ref(0)\nwatchEffect(() => { count.value = count.value + props.tide })",
        "not-in-target",
    ),
    "an element before anything is displayed": (
        "watchEffect, ref",
        "const line = ref(null)\nwatchEffect(() => { document.title = String(line.value) })",
        "reference-followed",
    ),
    "a handle on an effect": (
        "watchEffect",
        "const stop = watchEffect(() => { document.title = props.pier })\nstop()",
        "",
    ),
}


HOOKS = {
    "a hook that waits": "async mounted() {\n    await this.load()\n    %s\n  }",
    "a hook that returns early": "mounted() {\n    if (!this.tide) return\n    %s\n  }",
    "an effect that uses a name of the hook": "mounted() {\n    const tide = this.tide\n    %s\n  }",
}


@pytest.mark.parametrize("name", HOOKS)
def test_effects_stay_in_hooks_they_depend_on(name: str, run: Run, tmp_path: Path) -> None:
    effect = "watchEffect(() => { document.title = this.pier + TIDE })"
    effect = effect.replace("TIDE", "tide" if "a name" in name else "this.tide")
    text = (
        "<template><p>{{ pier }}</p></template>\n\n<script>\nimport { watchEffect } from 'vue'\n"
        "export default {\n  props: { tide: Number, pier: String },\n"
        "  methods: { load() {} },\n  " + HOOKS[name] % effect + "\n}\n</script>\n"
    )
    result = carried(run, tmp_path, text)
    assert result["status"] == "refused"
    assert "old-runtime-used" in [found["rule"] for found in result["findings"]]


@pytest.mark.parametrize("name", REFUSED)
def test_other_effects_are_refused(name: str, run: Run, tmp_path: Path) -> None:
    names, body, rule = REFUSED[name]
    markup = '<i ref="line">{{ pier }}</i>' if "line" in body else "{{ pier }}"
    result = carried(run, tmp_path, FILE.format(names=names, body=PROPS + body, markup=markup))
    assert result["status"] == "refused"
    assert not rule or result["findings"][0]["rule"] == rule, result["findings"]


def test_an_effect_that_may_run_more_is_told(run: Run, tmp_path: Path) -> None:
    body = (
        "const emit = defineEmits(['high'])\n"
        "watchEffect(() => {\n  if (props.tide > 3) emit('high', props.pier)\n})"
    )
    result = carried(
        run, tmp_path, FILE.format(names="watchEffect", body=PROPS + body, markup="{{ pier }}")
    )
    assert [found["rule"] for found in result["findings"]] == ["effect-runs-more"]


def test_a_watcher_is_ended_before_it_runs_again(run: Run, tmp_path: Path) -> None:
    body = PROPS + (
        "const emit = defineEmits(['late'])\n"
        "watch(() => props.tide, (now, before, onCleanup) => {\n"
        "  const wait = setTimeout(() => emit('late', now, before), 20)\n"
        "  onCleanup(() => clearTimeout(wait))\n"
        "})"
    )
    text = FILE.format(names="watch", body=body, markup="{{ pier }}")
    result = carried(run, tmp_path, text, "--verify", "--budget", "6")
    assert "useEndedChange(tide, (now, before, onCleanup) => {" in text_of(result)
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][-1]


# -- models -----------------------------------------------------------------------------------------


def test_models_are_the_parents_or_ones_own(run: Run, tmp_path: Path) -> None:
    body = (
        "const seats = defineModel({ type: Number, default: 1 })\n"
        "const pier = defineModel('pier', { type: String, default: '' })\n"
        "function more() { seats.value++; if (seats.value > 3) seats.value = 0 }\n"
    )
    markup = '<button @click="more">{{ seats }}</button><input v-model="pier" aria-label="Pier">'
    text = FILE.format(names="ref", body=body, markup=markup).replace(
        "import { ref } from 'vue'\n", ""
    )
    result = carried(run, tmp_path, text, "--verify", "--budget", "8")
    made = text_of(result)
    assert "const [seats, setSeats, seatsNow] = useModel(modelValue, 1, onUpdateModelValue)" in made
    assert "useField(field, 'value', pierValue)" in made
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][-1]


def test_a_model_whose_default_is_made_is_refused(run: Run, tmp_path: Path) -> None:
    body = "const piers = defineModel({ type: Array, default: () => [] })\n"
    text = FILE.format(names="ref", body=body, markup="{{ piers.length }}")
    result = carried(run, tmp_path, text.replace("import { ref } from 'vue'\n", ""))
    assert result["status"] == "refused"
    assert "default is made" in result["findings"][0]["message"]


# -- composables --------------------------------------------------------------------------------------


def written(folder: Path, script: str, shared: str) -> str:
    """The script with the composable of `useShared.js` in it."""
    (folder / "useShared.js").write_text(shared)
    text = (
        f"<script setup>\n{script}</script>\n\n<template>\n  <p>{{{{ level }}}}</p>\n</template>\n"
    )
    file = folder / "Berth.vue"
    file.write_text(text)
    return with_composables(SourceText("Berth.vue", text.encode()), Workspace(file)).data.decode()


SHARED = """import { ref, watch } from 'vue'
import { limit } from './limits.js'

const STEP = 2

export function useShared(start, name) {
  const level = ref(start)
  const label = name + STEP
  watch(level, (now) => {
    if (now > limit) level.value = limit
  })
  function rise(level_by) {
    level.value += level_by
  }
  return { level, rise, told: () => label }
}
"""
SCRIPT = """import { computed } from 'vue'
import { useShared } from './useShared.js'

const label = 'mine'
const { level: tide, rise } = useShared(4, label)
const twice = computed(() => tide.value * 2)
"""


def test_a_composable_is_written_in_under_the_names_taken(tmp_path: Path) -> None:
    made = written(tmp_path, SCRIPT, SHARED)
    assert "import { useShared }" not in made
    assert "import { computed, ref, watch } from 'vue'\n" in made
    assert (
        "import { limit } from './limits'" in made or "import { limit } from './limits.js'" in made
    )
    assert "const STEP = 2\n" in made
    assert "const tide = ref(4)\n" in made
    assert "const sharedLabel = label + STEP\n" in made
    assert "function rise(level_by) {\n  tide.value += level_by\n}" in made
    assert "useShared(" not in made


KEPT = {
    "one that waits": SHARED.replace("export function", "export async function"),
    "one that returns early": SHARED.replace(
        "  function rise", "  if (!name) return {}\n  function rise"
    ),
    "one with state all share": SHARED.replace("const STEP = 2", "const STEP = { now: 1 }").replace(
        "name + STEP", "name + STEP.now++"
    ),
    "one that takes a parameter apart": SHARED.replace("(start, name)", "({ start, name })"),
    "one that gives what has no name": SHARED.replace(
        "{ level, rise, told: () => label }", "make(level)"
    ),
}


@pytest.mark.parametrize("name", KEPT)
def test_other_composables_stay_calls(name: str, tmp_path: Path) -> None:
    assert "useShared(4, label)" in written(tmp_path, SCRIPT, KEPT[name])


def test_a_name_that_changes_is_taken_once(tmp_path: Path) -> None:
    made = written(
        tmp_path, SCRIPT.replace("const label = 'mine'", "let label = 'mine'\nlabel += '!'"), SHARED
    )
    assert "const name = label\n" in made
    props = SCRIPT.replace(
        "const label = 'mine'", "const { label } = defineProps({ label: String })"
    )
    made = written(tmp_path, props, SHARED)
    assert "const name = label\n" in made


def test_a_default_for_what_may_be_undefined_keeps_it_a_call(tmp_path: Path) -> None:
    shared = SHARED.replace("(start, name)", "(start, name = 'pier')")
    assert "useShared(4, label)" in written(tmp_path, SCRIPT, shared)
    made = written(tmp_path, SCRIPT.replace("(4, label)", "(4)"), shared)
    assert "const label = 'mine'" in made and "const sharedLabel = 'pier' + STEP\n" in made


def test_two_composables_do_not_declare_one_name(tmp_path: Path) -> None:
    (tmp_path / "useTide.js").write_text(
        "export function useTide() {\n  const timer = 1\n  const high = () => timer\n  return { high }\n}\n"
    )
    shared = SHARED.replace("label", "timer")
    script = SCRIPT.replace(
        "computed } from 'vue'\n", "computed } from 'vue'\nimport { useTide } from './useTide.js'\n"
    )
    made = written(tmp_path, script + "const { high } = useTide()\n", shared)
    assert "const timer = label + STEP\n" in made and "const tideTimer = 1\n" in made


def test_one_of_a_package_stays_a_call(tmp_path: Path) -> None:
    made = written(tmp_path, SCRIPT.replace("./useShared.js", "harbour-tools"), SHARED)
    assert "useShared(4, label)" in made


def test_a_name_inside_that_would_hide_what_is_given_keeps_it_a_call(tmp_path: Path) -> None:
    shared = SHARED.replace("rise(level_by)", "rise(label)").replace(
        "+= level_by", "+= label + name"
    )
    assert "useShared(4, label)" in written(tmp_path, SCRIPT, shared)


def test_a_component_with_shared_code_is_the_same_and_says_so(run: Run, tmp_path: Path) -> None:
    folder = tmp_path / "components"
    folder.mkdir()
    (folder / "limits.js").write_text("export const limit = 9\n")
    (folder / "useShared.js").write_text(SHARED)
    markup = '<button @click="rise(3)">{{ tide }} {{ twice }} {{ label }}</button>'
    text = f"<script setup>\n{SCRIPT}</script>\n\n<template>\n  <p>{markup}</p>\n</template>\n"
    result = carried(run, tmp_path, text, "--verify", "--budget", "4")
    assert "composable-read-in" in [found["rule"] for found in result["findings"]]
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"][-1]


def test_within_the_family_a_composable_stays_a_call(run: Run, tmp_path: Path) -> None:
    folder = tmp_path / "components"
    folder.mkdir()
    (folder / "useShared.js").write_text(SHARED)
    text = (
        f"<script setup>\n{SCRIPT}</script>\n\n<template>\n  <p>{{{{ tide }}}}</p>\n</template>\n"
    )
    (folder / "Pier.vue").write_text(text)
    done = run("carry", "components/Pier.vue", "--to", "single-file-object", "--json")
    assert "useShared(4, label)" in json.loads(done.stdout)["results"][0]["files"][0]["text"]
