"""What the declarations of a single file say of its inputs: as the runtime's own development build does."""

from __future__ import annotations

import json
import os
import subprocess
from pathlib import Path

import pytest

from clean_carry.project.settings import settings_for
from clean_carry.verify.node import node
from clean_carry.verify.runtimes import RUNTIMES, WORKER
from clean_carry.verify.worker_pool import Bench, Side

BERTH = """<template><p>{{ day }}</p></template>
<script>
export default { props: { day: Date, kind: [RegExp, Array], told: Function, berths: Object } };
</script>
"""


@pytest.mark.parametrize("version", [2, 3])
def test_declarations_say_what_the_development_build_says(version: int, bench: Bench) -> None:
    runtime = RUNTIMES[f"vue-{version}"]
    bench.baseline(runtime)  # installs it
    script, module = Path(__file__).with_name("declared.mjs"), WORKER / "single-file-inputs.mjs"
    done = subprocess.run(
        [node(), str(script), str(runtime.folder), str(module)],
        capture_output=True,
        text=True,
        env={**os.environ, "NODE_ENV": "development"},
        check=True,
    )
    found = json.loads(done.stdout)
    assert found["asked"] > 1000 and found["wrong"] == []


@pytest.mark.parametrize("version", [2, 3])
def test_values_of_trials_are_of_their_types(version: int, tmp_path: Path, bench: Bench) -> None:
    place = tmp_path / "Berth.vue"
    settings = settings_for(place)
    side = Side(place, BERTH, RUNTIMES[f"vue-{version}"], exported="default", settings=settings)
    fit = {
        "day": {"$": "date", "time": 0},
        "kind": {"$": "expression", "text": "a"},
        "told": {"$": "function"},
        "berths": {"a": 1},
    }
    wrong = {"day": "today", "kind": {}, "told": 1, "berths": 2}
    with bench.lane() as lane:
        for given, objections in ((fit, 0), (wrong, 4)):
            answer = lane.trial(bench.build(side), "default", {"inputs": given})
            calls = [call[0] for call in answer["points"][0]["calls"]]
            assert calls == ["an input type objects"] * objections
