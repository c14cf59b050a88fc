"""Old and new compared in a real browser."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.pair import pair_of, trials_for, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

CARD = """import React, { Component } from 'react';
import './Card.css';

export default class Card extends Component {
  state = { open: false };

  render() {
    return (
      <section className="card">
        <h2 className="title">North berth</h2>
        <button className="toggle" onClick={() => this.setState({ open: !this.state.open })}>
          {this.state.open ? 'Fold' : 'Unfold'}
        </button>
        {this.state.open && <p className="text">Tide at noon</p>}
      </section>
    );
  }
}
"""
STYLES = """.card { color: #123456; padding: 12px; border: 1px solid #456; }
.title { font-size: 20px; margin: 0; }
.toggle { background: #eeeeee; letter-spacing: inherit; transition: background 2s; }
.toggle:hover { background: #dddddd; }
.toggle:focus-visible { outline: 3px solid #0055aa; }
.text { margin-top: 8px; }
.text::before { content: "· "; }
.card .text { color: #222222; }
@media (max-width: 600px) { .card { padding: 4px; } }
@media (prefers-color-scheme: dark) { .card { color: #eeeeee; background: #111111; } }
"""
TRIALS = "trials:\n  - name: unfolds\n    steps:\n      - press: { tag: button }\n"


def placed(folder: Path, code: str = CARD, styles: str = STYLES) -> tuple[str, str]:
    """A card, and another version of it."""
    (folder / "Card.jsx").write_text(CARD)
    (folder / "Card.css").write_text(STYLES)
    (folder / "Other.css").write_text(styles)
    (folder / "Other.jsx").write_text(code.replace("./Card.css", "./Other.css"))
    (folder / "Card.trials.yaml").write_text(TRIALS)
    return "Card.jsx", "Other.jsx"


@pytest.fixture(scope="module")
def looking() -> Iterator[Bench]:
    """A bench with a browser."""
    with Bench(gaze=Gaze()) as made:
        yield made


@pytest.fixture
def seen(looking: Bench, tmp_path: Path) -> Any:
    """What the verification of a card and another version of it gives, as JSON."""

    def call(code: str = CARD, styles: str = STYLES) -> dict[str, Any]:
        old, new = (tmp_path / name for name in placed(tmp_path, code, styles))
        before, after, interface = pair_of(old, new)
        trials = trials_for(old, None)
        result = verified(looking, (before, after), interface, trials, Effort(5, 1))
        return result.as_json()

    return call


def told(found: dict[str, Any]) -> list[tuple[str, str, str]]:
    """(what, place, cause) of each difference seen in the browser."""
    return [
        (one["what"], one["place"], one["cause"])
        for trial in found["browser"]["trials"]
        for one in trial["differences"]
    ]


def test_the_same_in_every_view_asked_for(run: Any, tmp_path: Path) -> None:
    done = run("verify", *placed(tmp_path), "--in", "browser", "--json")
    assert done.returncode == 0, done.stderr
    found = json.loads(done.stdout)
    assert found["verdict"] == found["browser"]["verdict"] == "same"
    assert found["browser"]["views"] == [
        "1280 px", "400 px", "600 px", "601 px", "1280 px, dark",
    ]  # fmt: skip
    assert found["browser"]["points"] == 10


def test_widths_are_chosen_and_what_differs_is_told(run: Any, tmp_path: Path) -> None:
    pair = placed(tmp_path, CARD, STYLES.replace("#123456", "#123499"))
    done = run("verify", *pair, "--in", "browser", "--width", "900", "--width", "320")
    assert done.returncode == 1
    assert "in the browser: differs" in done.stdout
    assert "900 px; 320 px" in done.stdout and "1280 px;" not in done.stdout
    assert "style at /section[1] color" in done.stdout
    assert "rgb(18, 52, 86)" in done.stdout and "rgb(18, 52, 153)" in done.stdout


MUTANTS = [
    ("a colour", "color: #123456", "color: #123499", "style", "section[1] color", ".card"),
    ("a gap", "padding: 12px", "padding: 13px", "style", "section[1] padding-top", ".card"),
    ("under the pointer", ".toggle:hover { background: #dddddd; }\n", "", "style", "button[1]:hover", ""),
    ("what is taken over from the page", " letter-spacing: inherit;", "", "style", "letter-spacing where the page sets what is inherited", ""),
    ("a size that the page may set", "margin-top: 8px", "margin-top: 8px; font-size: 1rem", "style", "p[1] font-size where the page", ".text"),
    ("with the focus", ".toggle:focus-visible { outline: 3px solid #0055aa; }\n", "", "style", ":focus-visible", ""),
    ("drawn beside", '.text::before { content: "· "; }\n', "", "style", "::before", ""),
    ("in the dark", "background: #111111", "background: #220000", "style", "background-color", ".card"),
    ("on a small page", "padding: 4px", "padding: 5px", "style", "padding-top", ".card"),
    ("which rule wins", ".card .text { color: #222222; }\n", "", "style", "p[1] color", "only old has .card .text"),
    ("a neighbour", ".title { font", "h2 { font", "neighbour", "h2", "only new has h2"),
]  # fmt: skip


@pytest.mark.parametrize(
    ("name", "old", "new", "what", "place", "cause"), MUTANTS, ids=[row[0] for row in MUTANTS]
)
def test_styles_told_apart(
    seen: Any, name: str, old: str, new: str, what: str, place: str, cause: str
) -> None:
    assert old in STYLES
    found = seen(CARD, STYLES.replace(old, new))
    assert found["verdict"] == "differs"
    assert [t["verdict"] for t in found["trials"]] == ["same"], "the simulated page has no styles"
    assert any(one[0] == what and place in one[1] and cause in one[2] for one in told(found)), told(
        found
    )


def test_a_lost_class_is_told_by_the_rules_that_no_longer_match(seen: Any) -> None:
    found = seen(CARD.replace('<h2 className="title">', "<h2>"))
    assert ("tree", "/section[1]/h2[1]@class", "") in told(found)
    assert any("only old has .title" in cause for *_, cause in told(found))


def test_a_picture_tells_what_styles_do_not(run: Any, tmp_path: Path) -> None:
    paint = "import React, { Component } from 'react';\nexport default class Tide extends Component {\n  componentDidMount() { const pen = this.c.getContext('2d'); pen.fillStyle = '%s'; pen.fillRect(0, 0, 40, 40); }\n  render() { return <canvas width=\"40\" height=\"40\" ref={(c) => { this.c = c; }} />; }\n}\n"
    for name, colour in (("Tide", "teal"), ("Flow", "maroon")):
        (tmp_path / f"{name}.jsx").write_text(paint % colour)
    (tmp_path / "Tide.trials.yaml").write_text("trials:\n  - name: drawn\n")
    done = run("verify", "Tide.jsx", "Flow.jsx", "--in", "browser", "--json")
    pictures = [one for one in told(json.loads(done.stdout)) if one[0] == "picture"]
    assert pictures and pictures[0][1] == "/canvas[1]"


SINGLE = """<template>
  <section class="berth">
    <h3>{{ name }}</h3>
    <slot>none</slot>
  </section>
</template>

<script>
export default { name: 'BerthCard', props: { name: { type: String, default: 'North' } } };
</script>
"""
SCOPED = """
<style scoped>
.berth { padding: 8px; border: 1px solid #9fb3c8; }
.berth:hover h3 { color: #0b4f6c; }
.berth :deep(em) { color: teal; }
:global(.berth-page) { margin: 0; }
@media (max-width: 600px) { h3 { margin: 0; } }
</style>
"""
LINKED = '\n<style src="./linked.css"></style>\n\n<style>\n.berth { padding: 3px; }\n</style>\n'


@pytest.mark.parametrize("styles", [SCOPED, LINKED], ids=["scoped", "linked"])
def test_styles_carried_to_another_framework(run: Any, tmp_path: Path, styles: str) -> None:
    (tmp_path / "linked.css").write_text(".berth { color: #123456 }\n")
    (tmp_path / "Berth.vue").write_text(SINGLE + styles)
    (tmp_path / "Berth.trials.yaml").write_text(
        'trials:\n  - name: with content\n    slots: { "": [{ tag: em, content: [free] }] }\n'
    )
    done = run("carry", "Berth.vue", "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stdout
    sheet = (tmp_path / "Berth.css").read_text()
    if styles is SCOPED:
        assert ".berth[data-berth-card] em { color: teal; }\n.berth-page { margin: 0; }" in sheet
    else:
        text = (tmp_path / "Berth.function.jsx").read_text()
        assert text.startswith("import './linked.css';\nimport './Berth.css';\n")
    call = (
        "verify",
        "Berth.vue",
        "Berth.function.jsx",
        "--in",
        "browser",
        "--width",
        "500",
        "--least-reach",
        "40",
    )
    assert run(*call).returncode == 0
    (tmp_path / "Berth.css").write_text(sheet.replace("padding", "margin"))
    assert run(*call).returncode == 1


def test_a_browser_that_is_not_there(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Card.jsx").write_text(CARD.replace("import './Card.css';\n", ""))
    done = run(
        "verify", "Card.jsx", "Card.jsx", "--in", "browser",
        env={"CLEAN_CARRY_BROWSER": str(tmp_path / "none")},
    )  # fmt: skip
    assert done.returncode == 4
    assert "CLEAN_CARRY_BROWSER names" in done.stderr
    assert "Traceback" not in done.stderr


def test_a_width_needs_the_browser(run: Any, tmp_path: Path) -> None:
    placed(tmp_path)
    done = run("verify", "Card.jsx", "Card.jsx", "--width", "400")
    assert done.returncode == 2
    assert "--width goes with --in browser" in done.stderr


SLIDE = """import React, { useState } from 'react';
import './SHEET.css';
export default function Slide() {
  const [held, hold] = useState(false);
  return (
    <p className={held ? 'slide held' : 'slide'} onMouseDown={() => hold(true)} onMouseUp={() => hold(false)}>
      Tide
    </p>
  );
}
"""
HELD = """trials:
  - name: held
    steps:
      - pull: { tag: p, at: 0.7, kept: true }
      - press: { tag: p }
"""


def test_what_is_held_is_looked_at_before_it_is_let_go(run: Any, tmp_path: Path) -> None:
    for name, colour in (("Slide", "#114477"), ("Other", "#441177")):
        (tmp_path / f"{name}.jsx").write_text(SLIDE.replace("SHEET", name))
        (tmp_path / f"{name}.css").write_text(
            f".slide {{ padding: 9px }} .held {{ color: {colour} }}"
        )
    (tmp_path / "Slide.trials.yaml").write_text(HELD)
    done = run("verify", "Slide.jsx", "Other.jsx", "--in", "browser", "--width", "600", "--json")
    found = json.loads(done.stdout)
    assert [trial["verdict"] for trial in found["trials"]] == ["same"]
    told = [one for trial in found["browser"]["trials"] for one in trial["differences"]]
    assert {(one["step"], one["what"]) for one in told} == {(1, "style"), (1, "picture")}
    assert told[0]["cause"] == "the rules .slide, .held"
