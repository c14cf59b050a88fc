"""Views of a server in a project: surveys see them, and a client component is retired for one."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

VIEWS = Path(__file__).parents[1] / "everyday" / "server_views"
NOTICE = """<template>
  <p class="notice"><b>{{ title }}</b> {{ text }}</p>
</template>

<script>
export default {
  name: 'TideNotice',
  props: { title: { type: String, default: 'Notice' }, text: { type: String, default: '' } },
};
</script>
"""


def test_a_survey_sees_views_and_who_uses_them(run: Any, tmp_path: Path) -> None:
    shutil.copytree(VIEWS, tmp_path / "views")
    done = run("survey", "views", "--json")
    found = {one["name"]: one for one in json.loads(done.stdout)["components"]}
    assert len(found) == 11
    assert {one["syntax"] for one in found.values()} == {"server-view"}
    order = list(found)
    assert order.index("booking-card") > order.index("cargo-badge")
    assert len(found["cargo-badge"]["users"]) == 1


def test_a_folder_of_views_is_carried(run: Any, tmp_path: Path) -> None:
    shutil.copytree(VIEWS, tmp_path / "views")
    done = run("carry", "views", "--to", "single-file-flat", "--json")
    found = json.loads(done.stdout)["results"]
    assert sum(one["status"] == "clean" for one in found) == 10


@pytest.mark.parametrize("target", ["server-view"])
def test_a_component_is_retired_for_its_view(run: Any, tmp_path: Path, target: str) -> None:
    (tmp_path / "TideNotice.vue").write_text(NOTICE, "utf-8")
    run("carry", "TideNotice.vue", "--to", target, "--write")
    done = run("retire", "TideNotice.vue", "--write")
    assert done.returncode == 0, done.stdout
    assert "→ 0 bytes" in done.stdout
    assert "the browser loads no code of it any more" in done.stdout
    assert not (tmp_path / "TideNotice.vue").exists()
    assert (tmp_path / "tide-notice.blade.php").is_file()
    assert (tmp_path / "TideNotice.php").is_file()


def test_a_component_that_others_render_is_not_retired(run: Any, tmp_path: Path) -> None:
    (tmp_path / "TideNotice.vue").write_text(NOTICE, "utf-8")
    (tmp_path / "Page.vue").write_text(
        "<template><TideNotice /></template>\n<script setup>\n"
        "import TideNotice from './TideNotice.vue';\n</script>\n",
        "utf-8",
    )
    run("carry", "TideNotice.vue", "--to", "server-view", "--write")
    done = run("retire", "TideNotice.vue")
    assert done.returncode == 1
    assert "Page.vue" in done.stdout + done.stderr


def test_a_view_that_other_views_render_stays(run: Any, tmp_path: Path) -> None:
    shutil.copytree(VIEWS, tmp_path / "views")
    run("carry", "views/cargo-badge.blade.php", "--to", "single-file-flat", "--write")
    done = run("switch", "views/cargo-badge.blade.php")
    assert "its tag in booking-card.blade.php" in done.stdout
    done = run("retire", "views/cargo-badge.blade.php")
    assert done.returncode == 1
    assert "booking-card.blade.php" in done.stdout + done.stderr


def test_a_view_that_a_controller_names_stays(run: Any, tmp_path: Path) -> None:
    shutil.copytree(VIEWS, tmp_path / "views")
    (tmp_path / "TideController.php").write_text(
        "<?php\n\nreturn view('harbour.tide-strip', ['height' => 2]);\n", "utf-8"
    )
    (tmp_path / "clean-carry.toml").write_text("", "utf-8")
    run("carry", "views/tide-strip.blade.php", "--to", "single-file-flat", "--write")
    done = run("retire", "views/tide-strip.blade.php")
    assert done.returncode == 1
    assert "TideController.php:3" in done.stdout + done.stderr
    run("carry", "views/fare-table.blade.php", "--to", "single-file-flat", "--write")
    done = run("retire", "views/fare-table.blade.php")
    assert done.returncode == 0
    assert "deleted: views/FareTable.php" in done.stdout
