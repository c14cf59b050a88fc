"""Requests of a component when it is displayed, as the preparation of a stateful view."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file

ROWS = [{"id": 1, "name": "Holm", "cars": 3}, {"id": 2, "name": "Skail", "cars": 0}]
TOLD = {"quay": "north", "$reply": ROWS}
TEMPLATE = """<template>
  <div :class="{ busy: waiting }">
    <h2>{{ quay }}</h2>
    <p v-if="waiting">Loading…</p>
    <p v-else-if="fault">{{ fault }}</p>
    <ul v-else><li v-for="row in rows" :key="row.id">{{ row.name }}: {{ row.cars }}</li></ul>
  </div>
</template>
"""
SCRIPT = """<script>
export default {
  name: 'Berths',
  props: { quay: { type: String, default: 'north' } },
  data() { return { rows: [], waiting: true, fault: '' }; },
%s
};
</script>
"""
CHAIN = """  mounted() {
    fetch('/api/berths')
      .then((reply) => reply.json())
      .then((found) => { this.rows = found; })
      .catch(() => { this.fault = 'Not known.'; })
      .finally(() => { this.waiting = false; });
  },"""
AWAITED = """  async mounted() {
    try {
      const reply = await fetch(`/api/berths/${this.quay}`);
      if (!reply.ok) throw new Error('no');
      this.rows = await reply.json();
    } catch (reason) {
      this.fault = 'Not known.';
    }
    this.waiting = false;
  },"""
METHOD = """  methods: {
    async load() {
      this.waiting = true;
      try {
        const found = await (await fetch('/api/berths')).json();
        this.rows = found.filter((row) => row.cars > 0);
      } catch {
        this.fault = 'Not known.';
      } finally {
        this.waiting = false;
      }
    },
  },
  mounted() { this.load(); },"""


def carried(folder: Path, script: str, template: str = TEMPLATE) -> Result:
    (folder / "Berths.vue").write_text(f"{template}\n{SCRIPT % script}", "utf-8")
    request = Request(folder / "Berths.vue", "Berths.vue", "stateful-view", told=json.dumps(TOLD))
    [result] = carry_file(request)
    return result


@pytest.mark.parametrize(
    ("script", "lines"),
    [
        (CHAIN, ["$this->rows = $source->get('/api/berths');", "} catch (DataSourceError) {"]),
        (AWAITED, ["$this->rows = $source->get('/api/berths/' . $this->quay);"]),
        (METHOD, ["$found = $source->get('/api/berths');", "$this->load($source);",
                  "private function load(DataSource $source): void"]),
    ],
)  # fmt: skip
def test_the_preparation_asks_for_the_data(tmp_path: Path, script: str, lines: list[str]) -> None:
    result = carried(tmp_path, script)
    assert result.status == "left"
    assert "data-source-open" in [one.rule for one in result.findings]
    files = {Path(one.path).name: one.text for one in result.files}
    assert set(files) == {
        "berths.blade.php", "Berths.php", "berths-placeholder.blade.php", "DataSource.php",
        "DataSourceError.php",
    }  # fmt: skip
    for line in lines:
        assert line in files["Berths.php"]
    assert "$waiting" not in files["Berths.php"]
    assert "#[Lazy]" in files["Berths.php"]
    assert "<p>Loading…</p>" in files["berths-placeholder.blade.php"]
    assert "Loading" not in files["berths.blade.php"]
    assert "@if ($fault !== '')" in files["berths.blade.php"]


@pytest.mark.parametrize(
    ("old", "new"),
    [
        (
            "this.fault = 'Not known.';\n    }\n    this",
            "this.fault = 'Not known.';\n      return;\n    }\n    this",
        ),
        (
            "this.rows = await reply.json();",
            "if (this.fault) return;\n      this.rows = await reply.json();",
        ),
    ],
)
def test_a_flag_that_may_stay_set_is_kept(tmp_path: Path, old: str, new: str) -> None:
    assert old in AWAITED
    files = {
        Path(one.path).name: one.text for one in carried(tmp_path, AWAITED.replace(old, new)).files
    }
    assert "public bool $waiting = true;" in files["Berths.php"]
    assert "@if ($waiting)" in files["berths.blade.php"]
    assert "Loading" in files["berths-placeholder.blade.php"]


def test_a_reply_that_is_not_checked_is_named(tmp_path: Path) -> None:
    rules = [one.rule for one in carried(tmp_path, CHAIN).findings]
    assert "success-not-checked" in rules
    rules = [one.rule for one in carried(tmp_path, AWAITED).findings]
    assert "success-not-checked" not in rules


REFUSED = [
    ("mounted() { fetch('/a').then((r) => r.json()).then((found) => { this.rows = found; }); },",
     "nobody handles"),
    ("mounted() { fetch('/a', { method: 'POST' }).then((r) => r.json()).catch(() => {}); },", ""),
    (CHAIN.replace("reply.json()", "reply.text()"), "used in another way"),
    (CHAIN.replace("(found) =>", "({ found }) =>"), "taken apart"),
    (CHAIN.replace("() => { this.fault = 'Not known.'", "(e) => { this.fault = e.message"), "`e`"),
    (CHAIN.replace("mounted() {", "updated() {"), "updated"),
    (CHAIN + "\n  unmounted() { this.rows = []; },", "unmounted"),
    (METHOD.replace("this.load(); },", "this.load(); setInterval(this.load, 9); },"), "setInterval"),
]  # fmt: skip


@pytest.mark.parametrize(("script", "words"), REFUSED)
def test_other_requests_are_refused(tmp_path: Path, script: str, words: str) -> None:
    result = carried(tmp_path, script)
    assert result.status == "refused"
    assert words in result.findings[0].message


def test_data_that_are_asked_for_again_are_refused(tmp_path: Path) -> None:
    template = TEMPLATE.replace("<h2>", '<h2 @click="load">')
    result = carried(tmp_path, METHOD, template)
    assert result.status == "refused"
    assert "sent again" in result.findings[0].message


def test_a_value_that_is_set_before_is_shown_meanwhile(tmp_path: Path) -> None:
    script = METHOD.replace("this.waiting = true;", "this.waiting = true; this.fault = 'Asking';")
    template = TEMPLATE.replace("{{ quay }}", "{{ quay }} {{ fault }}")
    files = {Path(one.path).name: one.text for one in carried(tmp_path, script, template).files}
    assert "Asking" in files["berths-placeholder.blade.php"]


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
@pytest.mark.parametrize("script", [CHAIN, METHOD])
def test_both_moments_are_compared(run: Any, tmp_path: Path, script: str) -> None:
    (tmp_path / "Berths.vue").write_text(f"{TEMPLATE}\n{SCRIPT % script}", "utf-8")
    slow = {"url": "*", "json": ROWS, "after": 300}
    trials = {
        "trials": [
            {"name": "slow", "replies": [slow], "steps": [{"pass": 100}, {"pass": 400}]},
            {"name": "failed", "replies": [{"url": "*", "fail": True}]},
            {"name": "no success", "replies": [{"url": "*", "status": 500, "text": "closed"}]},
            {"name": "changed", "replies": [slow], "steps": [
                {"change": {"inputs": {"quay": "south"}}}, {"pass": 400}]},
        ]
    }  # fmt: skip
    (tmp_path / "Berths.trials.yaml").write_text(json.dumps(trials), "utf-8")
    run("carry", "Berths.vue", "--to", "stateful-view", "--write")
    done = run("verify", "Berths.vue", "berths.blade.php", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", done.stdout[-1500:]
    assert "no query was run" in found["stand_in"]
    waiting = tmp_path / "berths-placeholder.blade.php"
    waiting.write_text(waiting.read_text("utf-8").replace("Loading", "Waiting"), "utf-8")
    done = run("verify", "Berths.vue", "berths.blade.php", "--json")
    assert json.loads(done.stdout)["verdict"] == "differs"


ROUTES = """<?php

use App\\Http\\Controllers\\BerthController;
use Illuminate\\Support\\Facades\\Route;

Route::get('/berths', [BerthController::class, 'index'])->name('berths');
Route::get('/berths/{quay}', [BerthController::class, 'ofQuay']);
"""
CONTROLLER = """<?php

namespace App\\Http\\Controllers;

use App\\Models\\Berth;

class BerthController extends Controller
{
    public function index()
    {
        %s
    }

    public function ofQuay(string $quay)
    {
        $least = 2;

        return response()->json(
            Berth::query()
                ->where('quay', $quay)
                ->where('cars', '>=', $least)
                ->get()
        );
    }
}
"""
PLAIN = "return Berth::all();"


def project(folder: Path, body: str = PLAIN) -> Path:
    """A project with routes and a controller, and the folder of its components."""
    (folder / "routes").mkdir()
    (folder / "routes" / "api.php").write_text(ROUTES, "utf-8")
    (folder / "app" / "Http" / "Controllers").mkdir(parents=True)
    controller = folder / "app" / "Http" / "Controllers" / "BerthController.php"
    controller.write_text(CONTROLLER % body, "utf-8")
    (folder / "components").mkdir()
    return folder / "components"


def test_the_query_of_a_controller_comes_along(tmp_path: Path) -> None:
    result = carried(project(tmp_path), AWAITED)
    assert result.status == "clean"
    assert [one.rule for one in result.findings if "query" in one.rule] == ["query-not-run"]
    files = {Path(one.path).name: one.text for one in result.files}
    assert "DataSource.php" not in files
    assert "$this->rows = $this->loadBerths($this->quay);" in files["Berths.php"]
    assert "} catch (Throwable) {" in files["Berths.php"]
    assert "use App\\Models\\Berth;\n" in files["Berths.php"]
    assert (
        "    /** The data that `/api/berths/{quay}` answers with: "
        "the query of BerthController::ofQuay. */\n"
        "    protected function loadBerths(string $quay): array\n    {\n        $least = 2;\n"
        "        return Berth::query()\n            ->where('quay', $quay)\n"
        "            ->where('cars', '>=', $least)\n            ->get()->toArray();\n    }\n"
    ) in files["Berths.php"]


@pytest.mark.parametrize(
    ("body", "taken"),
    [
        (PLAIN, True),
        ("return ['rows' => Berth::all()];", True),
        ("return $this->repository->all();", False),
        ("return view('berths');", False),
        ("return Berth::where('owner', auth()->id())->get();", False),
        ("if (true) { return []; } return Berth::all();", False),
    ],
)
def test_a_controller_that_does_more_is_not_taken(tmp_path: Path, body: str, taken: bool) -> None:
    result = carried(project(tmp_path, body), CHAIN)
    rules = [one.rule for one in result.findings]
    assert ("query-not-run" in rules) == taken
    assert ("data-source-open" in rules) != taken


@pytest.mark.parametrize(
    ("routes", "class_more"),
    [
        (ROUTES.replace("->name('berths')", "->middleware('auth')"), ""),
        (
            ROUTES.replace("Route::get('/berths', ", "Route::middleware('auth')->get('/berths', "),
            "",
        ),
        (ROUTES, "public function __construct() { $this->middleware('auth'); }\n\n    "),
    ],
)
def test_a_guarded_answer_is_not_taken(tmp_path: Path, routes: str, class_more: str) -> None:
    folder = project(tmp_path)
    (tmp_path / "routes" / "api.php").write_text(routes, "utf-8")
    controller = tmp_path / "app" / "Http" / "Controllers" / "BerthController.php"
    text = controller.read_text("utf-8").replace(
        "public function index", f"{class_more}public function index"
    )
    controller.write_text(text, "utf-8")
    rules = [one.rule for one in carried(folder, CHAIN).findings]
    assert "data-source-open" in rules
    assert "query-not-run" not in rules


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_trials_stand_for_the_query(run: Any, tmp_path: Path) -> None:
    folder = project(tmp_path)
    (folder / "Berths.vue").write_text(f"{TEMPLATE}\n{SCRIPT % AWAITED}", "utf-8")
    trials = {
        "trials": [
            {"name": "slow", "replies": [{"url": "*", "json": ROWS, "after": 300}],
             "steps": [{"pass": 100}, {"pass": 400}]},
            {"name": "failed", "replies": [{"url": "*", "status": 500, "text": "closed"}]},
        ]
    }  # fmt: skip
    (folder / "Berths.trials.yaml").write_text(json.dumps(trials), "utf-8")
    run("carry", "components/Berths.vue", "--to", "stateful-view", "--write")
    done = run("verify", "components/Berths.vue", "components/berths.blade.php", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", done.stdout[-1500:]
    assert "no query was run" in found["stand_in"]
