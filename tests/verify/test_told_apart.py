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
