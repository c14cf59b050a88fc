"""`clean-carry verify` and `demo` through the built program."""

from __future__ import annotations

import json
import re
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from tests_support import CLASS, hears_interrupts


def test_same_and_differs(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    done = run("verify", "X.jsx", "X.function.jsx", "--json")
    assert done.returncode == 0
    found = json.loads(done.stdout)
    assert found["verdict"] == "same"
    assert {"name", "verdict", "steps", "differences"} <= set(found["trials"][0])
    (tmp_path / "Y.jsx").write_text(CLASS.replace("open: true", "open: 1"))
    done = run("verify", "X.jsx", "Y.jsx")
    assert done.returncode == 1
    assert "differs" in done.stdout and "old  'true'" in done.stdout


def test_not_run_is_never_same(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = "export default function X() { return null; }\n"
    (tmp_path / "X.jsx").write_text(text)
    done = run("verify", "X.jsx", "X.jsx", "--json")
    assert done.returncode == 1
    assert json.loads(done.stdout)["verdict"] == "not run"
    (tmp_path / "Y.jsx").write_text("import gone from './gone'; export default gone;\n")
    done = run("verify", "Y.jsx", "Y.jsx", "--json")
    assert "cannot be built" in json.loads(done.stdout)["reason"]


def test_demo(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """One component of each part."""
    done = run("demo", "--into", "ferries")
    assert done.returncode == 0
    count = 8 if shutil.which("php") else 7
    assert f"{count} are the same in every trial" in done.stdout
    assert (tmp_path / "ferries" / "components" / "SailingCard.function.jsx").exists()
    assert (tmp_path / "ferries" / "passenger" / "SeatCounter.flat.vue").exists()
    assert not (tmp_path / "ferries" / "passenger" / "NoticeDialog.flat.vue").exists()
    assert run("demo", "--into", "ferries").returncode == 5


def test_a_part_of_the_demo(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """A part that is named is shown whole."""
    done = run("demo", "crew", "--into", "ferries")
    assert done.returncode == 0
    assert "2 are the same in every trial" in done.stdout
    new = (tmp_path / "ferries" / "crew" / "crew-list.component.decorated.ts").read_text()
    assert "{{ member | gfRank }}" in new and "imports: [" in new


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_the_departures_of_the_demo(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """Seven single files become views of a server, and a clock cannot."""
    done = run("demo", "departures", "--into", "ferries")
    assert done.returncode == 0, done.stdout
    assert "7 are the same in every trial, 1 was refused" in done.stdout
    assert done.stdout.count("rendered by a stand-in") == 4
    assert "the hook mounted runs in the browser" in done.stdout
    page = (tmp_path / "ferries" / "departures" / "old-and-new.html").read_text("utf-8")
    assert page.count("12 min late") == 2
    assert re.search(r"the browser loads \d,\d+ → \d{3} bytes of them", done.stdout)
    new = (tmp_path / "ferries" / "departures" / "seat-hold.blade.php").read_text("utf-8")
    assert 'wire:submit="hold"' in new and 'wire:click="increaseSeats"' in new


def test_the_departures_are_left_out_without_php(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    done = run("demo", "departures", "--into", "ferries", env={"PATH": str(tmp_path)})
    assert done.returncode == 0
    assert "not shown: views of a server are rendered by PHP" in done.stdout


@pytest.mark.whole
def test_the_demo_whole(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    done = run("demo", "all", "--into", "ferries")
    assert done.returncode == 0
    same, refused = ("30", "2 were") if shutil.which("php") else ("24", "1 was")
    assert f"{same} are the same in every trial, {refused} refused, 1 stays" in done.stdout
    desk = tmp_path / "ferries" / "booking-desk"
    assert (
        '<tide-notice style="display: block" notice="desk.notice"></tide-notice>'
        in (desk / "page.component.html").read_text()
    )
    page = (desk / "old-and-new.html").read_text()
    assert page.count("<iframe ") == 2
    assert "http" not in page.split("<iframe ")[0]


PICKER = """import React, { Component } from 'react';

export default class Picker extends Component {
  state = { picked: '' };

  render() {
    const { berths, onPick } = this.props;
    return (
      <ul title={this.state.picked}>
        {berths.map(({ id, name }) => (
          <li key={id}>
            <button onClick={() => { this.setState({ picked: id }); onPick(id); }}>{name}</button>
          </li>
        ))}
      </ul>
    );
  }
}
"""


def test_trials_find_themselves_and_the_smallest_that_differs_is_saved(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(PICKER)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    done = run("verify", "X.jsx", "X.function.jsx", "--budget", "2", "--json")
    found = json.loads(done.stdout)
    assert (found["verdict"], found["generated"], done.returncode) == ("same", True, 0)
    assert found["tried"] >= 3 and found["points"] > found["tried"]
    assert found["reach"]["old"]["percent"] == 100 and found["reach"]["new"]["unreached"] == []
    wrong = PICKER.replace("onPick(id)", "onPick(name)")
    (tmp_path / "Y.jsx").write_text(wrong)
    done = run("verify", "X.jsx", "Y.jsx", "--save", "found.yaml", "--budget", "4")
    assert done.returncode == 1
    assert "the trial:" in done.stdout and "press" in done.stdout
    saved = (tmp_path / "found.yaml").read_text()
    assert saved.count("press") == 1
    done = run("verify", "X.jsx", "Y.jsx", "--trials", "found.yaml", "--json")
    again = json.loads(done.stdout)
    assert again["verdict"] == "differs" and not again["generated"]
    assert again["trials"][0]["differences"][0]["what"] in ("calls", "prevented")


def test_a_second_run_answers_from_the_cache(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "word.js").write_text("export const word = 'a';\n")
    text = CLASS.replace("String(this.state.open)", "String(this.state.open) + word")
    (tmp_path / "X.jsx").write_text("import { word } from './word';\n" + text)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    call = ("verify", "X.jsx", "X.function.jsx", "--budget", "1", "--json")
    first, second = (json.loads(run(*call).stdout) for _ in range(2))
    assert (first["cached"], second["cached"]) == (False, True)
    assert {**second, "cached": False} == first
    assert not json.loads(run(*call, "--fresh").stdout)["cached"]
    (tmp_path / "word.js").write_text("export const word = 'b';\n")
    assert not json.loads(run(*call).stdout)["cached"]
    assert "answered from the cache" in run(*call[:-1]).stdout


def test_reach_can_be_demanded(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = CLASS.replace("render() {", "render() { if (window.nowhere) return null;")
    (tmp_path / "X.jsx").write_text(text)
    done = run("verify", "X.jsx", "X.jsx", "--budget", "1", "--least-reach", "95")
    assert done.returncode == 1
    assert "X.jsx → X.jsx: unproven" in done.stdout
    assert "of one version's own code ran, less than 95 %" in done.stdout
    assert "not line 6" in done.stdout
    assert run("verify", "X.jsx", "X.jsx", "--budget", "1", "--least-reach", "40").returncode == 0


def test_carry_and_verify_in_one_step(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(PICKER)
    done = run(
        "carry", "X.jsx", "--to", "jsx-function", "--write", "--verify", "--budget", "1", "--json"
    )
    result = json.loads(done.stdout)["results"][0]
    assert done.returncode == 0 and result["verification"]["verdict"] == "same"
    assert (tmp_path / "X.function.jsx").exists()
    # It draws nothing without what only another file could give it: nothing is proven, nothing written.
    (tmp_path / "Y.jsx").write_text(PICKER.replace("<ul title", "window.nowhere.at && <ul title"))
    call = ("carry", "Y.jsx", "--to", "jsx-function", "--write", "--verify", "--budget", "1")
    done = run(*call)
    assert done.returncode == 1 and not (tmp_path / "Y.function.jsx").exists()
    assert "not written, because the verdict is not same" in done.stdout
    done = run(*call, "--keep-anyway")
    assert done.returncode == 1 and (tmp_path / "Y.function.jsx").exists()
    assert run("carry", "X.jsx", "--to", "jsx-function", "--keep-anyway").returncode == 2


def test_the_project_file(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "src" / "old").mkdir(parents=True)
    (tmp_path / "lib").mkdir()
    (tmp_path / "lib" / "harbour.js").write_text(
        "import React from 'react';\nexport const Harbour = React.createContext('nowhere');\n"
    )
    (tmp_path / "setup.jsx").write_text(
        "import React from 'react';\nimport { Harbour } from '@/harbour';\n"
        "export default ({ children }) => <Harbour.Provider value='Holm'>{children}</Harbour.Provider>;\n"
    )
    (tmp_path / "clean-carry.toml").write_text(
        'sources = ["src"]\nignore = ["src/old/*"]\nsetup = "setup.jsx"\n[imports]\n"@/" = "lib/"\n'
        '[defines]\nPIER = "7"\n[naming]\njsx-function = "{stem}Fn{ending}"\n'
        '[[accepted]]\nplace = "*@title"\nreason = "the new title is wanted"\n'
    )
    text = CLASS.replace(
        "String(this.state.open)", "<Harbour.Consumer>{(h) => h + PIER}</Harbour.Consumer>"
    )
    (tmp_path / "src" / "X.jsx").write_text("import { Harbour } from '@/harbour';\n" + text)
    (tmp_path / "src" / "old" / "Y.jsx").write_text(CLASS)
    done = run("carry", "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stdout + done.stderr
    assert sorted(p.name for p in tmp_path.rglob("*Fn.jsx")) == ["XFn.jsx"]
    new = tmp_path / "src" / "XFn.jsx"
    new.write_text(new.read_text().replace("<button", '<button title="t"'))
    done = run("verify", "src/X.jsx", "src/XFn.jsx", "--budget", "1", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "same", found
    assert found["accepted"]["the new title is wanted"] > 0
    (tmp_path / "clean-carry.toml").write_text("sources = 3\n")
    done = run("carry", "src/X.jsx", "--to", "jsx-function")
    assert (done.returncode, done.stderr.count("\n")) == (3, 1)


def test_the_export_that_is_mounted(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = CLASS.replace("export default class", "export class") + (
        "export const helper = 1;\nexport class Other extends Component { render() { return <i/>; } }\n"
    )
    (tmp_path / "Berth.jsx").write_text(text)
    done = run("verify", "Berth.jsx", "Berth.jsx", "--budget", "1")
    assert "mounted: the export Berth" in done.stdout
    done = run("verify", "Berth.jsx", "Berth.jsx", "--budget", "1", "--mount", "Other", "--json")
    assert json.loads(done.stdout)["mounted"] == "Other"


# Every press draws a class that was not there before: its search never ends by itself.
ENDLESS = """import React from 'react';
export default class Count extends React.Component {
  state = { n: 0 };
  on = () => this.setState({ n: this.state.n + Math.random() });
  render() { return <button className={`n${this.state.n}${this.props.by}`} onClick={this.on}>on</button>; }
}
"""


def test_an_interrupted_run_leaves_what_it_has(tmp_path: Path) -> None:
    (tmp_path / "X.jsx").write_text(ENDLESS)
    call = [
        sys.executable,
        "-m",
        "clean_carry",
        "verify",
        "X.jsx",
        "X.jsx",
        "--budget",
        "60",
        "--json",
    ]
    for wait in (15, 60):  # a slow machine is still starting its renderers
        process = subprocess.Popen(
            call, cwd=tmp_path, stdout=subprocess.PIPE, text=True, preexec_fn=hears_interrupts
        )
        time.sleep(wait)
        process.send_signal(signal.SIGINT)
        out, _ = process.communicate(timeout=60)
        assert process.returncode == 130
        if out:
            break
    found = json.loads(out)
    assert found["interrupted"] and found["stopped"] == "it was interrupted"


SCROLLED = """import React, { useRef } from 'react';
export default function Strip() {
  const box = useRef(null);
  return (
    <div>
      <p ref={box}>tides</p>
      <button onClick={() => { box.current.scrollTop = 40; }}>down</button>
      <button onClick={() => { box.current.scrollTop = 0; }}>up</button>
    </div>
  );
}
"""


def test_where_an_element_is_scrolled_to_is_compared(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Old.jsx").write_text(SCROLLED)
    (tmp_path / "New.jsx").write_text(SCROLLED.replace("= 40", "= 41"))
    done = run("verify", "Old.jsx", "New.jsx", "--budget", "3", "--json")
    found = json.loads(done.stdout)
    assert found["verdict"] == "differs"
    (apart,) = [t for t in found["trials"] if t["verdict"] == "differs"]
    assert {"scrolled": [40, 0]} in [difference["old"] for difference in apart["differences"]]
    same = json.loads(run("verify", "Old.jsx", "Old.jsx", "--budget", "2", "--json").stdout)
    assert same["verdict"] == "same"


MADE = """import React from 'react';
export default (Inner, Other, words = 'tide') => class Strip extends React.Component {
  depth() { return 4; }
  render() {
    return <p><Inner at={this.props.at} words={words} /><Other /></p>;
  }
};
"""


def test_what_takes_components_makes_one(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Old.jsx").write_text(MADE)
    # An object of the runtime, where the old side gives a class: as elements both would fail in other ways.
    new = MADE.replace(
        "class Strip extends React.Component {\n  depth() { return 4; }\n  render() {",
        "React.forwardRef(function Strip(props) {",
    )
    new = new.replace("this.props", "props").replace("  }\n};", "});")
    (tmp_path / "New.jsx").write_text(new)
    same = json.loads(run("verify", "Old.jsx", "New.jsx", "--budget", "2", "--json").stdout)
    assert same["verdict"] == "same"
    (tmp_path / "New.jsx").write_text(new.replace("at={props.at}", ""))
    found = json.loads(run("verify", "Old.jsx", "New.jsx", "--budget", "2", "--json").stdout)
    assert found["verdict"] == "differs" and "given-at" in json.dumps(found["trials"])


FOLLOWED = """import React, { useState } from 'react';
export default function Strip() {
  const [deep, setDeep] = useState(false);
  return (
    <div onScroll={(event) => setDeep(event.currentTarget.scrollTop > 100)}>
      {deep ? <b>Holm</b> : <i>Ayre</i>}
    </div>
  );
}
"""


def test_what_is_scrolled_is_elsewhere_then(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "Old.jsx").write_text(FOLLOWED)
    (tmp_path / "New.jsx").write_text(FOLLOWED.replace("<b>Holm</b>", "<b>Skail</b>"))
    found = json.loads(run("verify", "Old.jsx", "New.jsx", "--budget", "3", "--json").stdout)
    assert found["verdict"] == "differs"
    same = json.loads(run("verify", "Old.jsx", "Old.jsx", "--budget", "2", "--json").stdout)
    assert same["verdict"] == "same"
