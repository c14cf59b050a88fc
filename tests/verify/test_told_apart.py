"""Pairs that were once called the same and are wrong for a user: each in the folder `told_apart`.

Each needs something a search once left out: a reference that is kept, the mode that mounts twice, a second
instance, what a page puts around it, a context of the old file, what a browser shows.
"""

import json
import shutil
from pathlib import Path

import pytest

from clean_carry.verify.uses.pages import on_pages

PAIRS = Path(__file__).with_name("told_apart")


@pytest.mark.parametrize(
    ("old", "new", "what"),
    [
        ("lamp/PierLamp.jsx", "lamp/PierLamp.function.jsx", '"kept": true'),
        ("tally/SeatTally.jsx", "tally/SeatTally.function.jsx", '"strict": true'),
        ("search/HarbourField.vue", "search/HarbourField.flat.vue", '"twice": true'),
        ("fares/FareContext.jsx", "fares/FareContext.function.jsx", '"use": 1'),
        ("player/announcer.js", "player/announcer.component.js", '"$around.page": "1"'),
        ("meter/meter.js", "meter/meter.component.js", '"$around.page": "1"'),
    ],
)
def test_what_was_wrong_for_a_user_differs(run, tmp_path: Path, old, new, what) -> None:  # type: ignore[no-untyped-def]
    shutil.copytree(PAIRS, tmp_path, dirs_exist_ok=True)
    done = run("verify", old, new, "--json", "--save", "found.trials.yaml")
    assert done.returncode == 1
    assert json.loads(done.stdout)["verdict"] == "differs"
    # The trial that tells them apart does what the search once left out, and can be run again.
    import yaml

    found = yaml.safe_load((tmp_path / "found.trials.yaml").read_text())
    assert what in json.dumps(found)
    again = run("verify", old, new, "--trials", "found.trials.yaml", "--json")
    assert json.loads(again.stdout)["verdict"] == "differs"


def test_a_browser_tells_that_an_element_is_shown_otherwise(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    shutil.copytree(PAIRS / "badge", tmp_path, dirs_exist_ok=True)
    call = ("verify", "badge.js", "badge.component.js", "--budget", "3", "--json")
    assert json.loads(run(*call).stdout)["verdict"] == "same"
    found = json.loads(run(*call, "--in", "browser", "--width", "400").stdout)
    differences = [d for t in found["browser"]["trials"] for d in t["differences"]]
    assert any("display" in d["place"] + d["what"] + str(d["old"]) for d in differences)


def test_what_a_page_puts_around_and_beside_is_read() -> None:
    own = "m.controller('BerthCtl', f).directive('berthStrip', g)"
    page = """<div ng-app="gullmoor" keeps-open data-x="1"><section><p berth-strip="b"></p></section></div>
      <div ng-controller="BerthCtl as vm"><i>{{vm.name}}</i></div>"""
    found = on_pages(own, ["m.directive('keepsOpen', h)"], [(Path("page.html"), page)])
    assert found.around == (('<div ng-app="gullmoor" keeps-open data-x="1">',),)
    assert found.beside == ('<div ng-controller="BerthCtl as vm"><i>{{vm.name}}</i></div>',)
    assert found.stands_on == "p"


def test_pages_the_crossing_changes_are_none_for_both_versions(tmp_path: Path) -> None:
    own = "m.controller('BerthCtl', f).directive('berthStrip', g).directive('berthCell', h)"
    inside = "<div berth-strip><p berth-cell></p></div>"
    beside = f'<section ng-controller="BerthCtl">{inside}</section>'
    new = "m.component('berthStrip', g).component('berthCell', h)"
    found = on_pages(own, [], [(tmp_path / "page.html", inside + beside)], new)
    assert found.around == () and found.beside == ()
    # As elements they stay what they are; but not on a page that was written for the new version.
    page = "<berth-strip><berth-cell></berth-cell></berth-strip>"
    assert on_pages(own, [], [(tmp_path / "page.html", page)], new).around == (("<berth-strip>",),)
    (tmp_path / "page.html").write_text(inside)
    assert on_pages(own, [], [(tmp_path / "page.component.html", page)]).around == ()


def test_a_trial_passes_time_in_few_moments(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = (
        "import React, { useEffect, useState } from 'react';\n"
        "export default function TideClock() {\n"
        "  const [ticks, setTicks] = useState(0);\n"
        "  useEffect(() => {\n"
        "    const timer = setInterval(() => setTicks((n) => n + 1), 1);\n"
        "    return () => clearInterval(timer);\n"
        "  }, []);\n"
        "  return <p>{ticks > 250 ? 'high' : 'low'}</p>;\n}\n"
    )
    (tmp_path / "TideClock.jsx").write_text(text)
    (tmp_path / "TideClock.new.jsx").write_text(text.replace("> 250", "> 251 - 1"))
    trials = "trials:\n  - name: an hour\n    steps:\n      - pass: 3600000\n"
    (tmp_path / "TideClock.trials.yaml").write_text(trials)
    done = run("verify", "TideClock.jsx", "TideClock.new.jsx", "--json")
    assert json.loads(done.stdout)["verdict"] == "same", done.stdout
