"""`lift` within component files: repeated markup becomes a component of the same syntax."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

CARDS = """import { Badge } from './Badge';

export default function Harbour({ tide, onPick }) {
  return (
    <section className="harbour">
      <div className="card card-blue">
        <h3 className="card-title">Gullmoor</h3>
        <p>Quay {tide.quay}</p>
        <button type="button" onClick={() => onPick('gullmoor')}>Choose</button>
      </div>
      <div className="card card-green">
        <h3 className="card-title">Sandvik</h3>
        <p>Quay {tide.other}</p>
        <Badge>new</Badge>
        <button type="button" onClick={() => onPick('sandvik')}>Choose</button>
      </div>
      <div className="card">
        <h3 className="card-title">Little &amp; Gull</h3>
        <p>Quay 3</p>
        <button type="button" onClick={() => onPick('little')}>Choose</button>
      </div>
      <ul>
        <li className="fare"><span className="fare-name">Adult</span> <b>12.50</b></li>
        <li className="fare"><span className="fare-name">Child</span> <b>6.00</b></li>
        <li className="fare"><span className="fare-name">Bicycle</span> <b>4.00</b></li>
      </ul>
    </section>
  );
}
"""
BADGE = (
    'export function Badge({ children }) {\n  return <em className="badge">{children}</em>;\n}\n'
)
CARD = """import { Badge } from './Badge';

export default function Card({ tone, title, withText, text, badge, onClick }) {
  return (
    <div className={`card${tone ? ` ${tone}` : ''}`}>
      <h3 className="card-title">{title}</h3>
      <p>{withText && 'Quay '}{text}</p>
      {badge && <Badge>{badge}</Badge>}
      <button type="button" onClick={onClick}>Choose</button>
    </div>
  );
}
"""
FLAT = """<script setup>
import Badge from './Badge.vue';

defineProps({ tides: { type: Array, default: () => [] }, late: Boolean });
</script>

<template>
  <section class="harbour">
    <div v-for="tide in tides" :key="tide.id" class="card card-blue">
      <h3 class="title">Gullmoor</h3>
      <p>Quay {{ tide.quay }}</p>
      <a class="more" href="#gullmoor">Choose</a>
    </div>
    <div v-if="late" class="card card-green">
      <h3 class="title">Sandvik</h3>
      <p>Quay {{ tides.length }}</p>
      <Badge label="new" />
      <a class="more" href="#sandvik">Choose</a>
    </div>
    <div class="card card-red">
      <h3 class="title">Little Gull</h3>
      <p>Quay 3</p>
      <a class="more" href="#little">Choose</a>
    </div>
  </section>
</template>

<style scoped>
.harbour { padding: 1rem; }
.title { color: teal; }
</style>
"""
FLAT_BADGE = (
    "<script setup>\ndefineProps({ label: String });\n</script>\n\n"
    '<template>\n  <em class="badge">{{ label }}</em>\n</template>\n'
)
# The same with an object of options.
OBJECT = (
    FLAT[FLAT.index("<template>") : FLAT.index("<style")]
    + "<script>\nimport Badge from './Badge.vue';\n\nexport default {\n  components: { Badge },\n"
    "  props: { tides: { type: Array, default: () => [] }, late: Boolean },\n};\n</script>\n"
)


def write(folder: Path, **files: str) -> None:
    for name, text in files.items():
        (folder / name.replace("_", ".")).write_text(text, "utf-8")


def lifted(run: Any, file: str, target: str, *options: str) -> dict[str, Any]:
    done = run("lift", file, "--to", target, "--json", *options)
    assert done.returncode in (0, 1), done.stderr
    told: dict[str, Any] = json.loads(done.stdout)
    told["texts"] = {Path(one["path"]).name: one["text"] for one in told["files"]}
    return told


def test_jsx(run: Any, tmp_path: Path) -> None:
    write(tmp_path, Harbour_jsx=CARDS, Badge_jsx=BADGE)
    told = lifted(run, "Harbour.jsx", "jsx-function", "--verify", "--most-trials", "20")
    texts = told["texts"]
    assert texts["Card.jsx"] == CARD
    assert "import Card from './Card';" in texts["Harbour.jsx"]
    assert "{fares.map((fare) => (" in texts["Harbour.jsx"]
    assert [one["verdict"] for one in told["verification"].values()] == ["same"]


def test_typed_jsx(run: Any, tmp_path: Path) -> None:
    write(tmp_path, Harbour_tsx=CARDS, Badge_tsx=BADGE)
    texts = lifted(run, "Harbour.tsx", "jsx-function")["texts"]
    assert "interface FareProps {\n  name: string;\n  fareName: string;\n}" in texts["Fare.tsx"]
    assert "onClick: any;" in texts["Card.tsx"]
    assert "badge?: string;" in texts["Card.tsx"]


@pytest.mark.parametrize(
    ("target", "text"), [("single-file-flat", FLAT), ("single-file-object", OBJECT)]
)
def test_templates(run: Any, tmp_path: Path, target: str, text: str) -> None:
    write(tmp_path, Harbour_vue=text, Badge_vue=FLAT_BADGE)
    told = lifted(run, "Harbour.vue", target, "--verify", "--most-trials", "20")
    card, harbour = told["texts"]["Card.vue"], told["texts"]["Harbour.vue"]
    assert '<Badge v-if="withBadge" label="new" />' in card
    assert "import Badge from './Badge.vue';" in card
    assert '<Card\n      v-for="tide in tides"\n      :key="tide.id"\n' in harbour
    assert '      v-if="late"\n' in harbour
    assert "import Card from './Card.vue';" in harbour
    if target == "single-file-object":
        assert "components: { Badge, Card }" in harbour
        assert "components: { Badge }" in card
    else:
        # The rule that reaches only the copies goes along.
        assert ".title { color: teal; }" in card
        assert ".title" not in harbour.partition("<style")[2]
    assert [one["verdict"] for one in told["verification"].values()] == ["same"]


@pytest.mark.parametrize(
    ("old", "new", "reason"),
    [
        ('href="#gullmoor"', '@click="pick(1)"', "`@click`"),
        ('href="#gullmoor"', 'v-model="late"', "`v-model`"),
        ('href="#gullmoor"', 'ref="first"', "`ref`"),
        ("<p>Quay 3</p>", '<p v-if="late">Quay 3</p>', "conditions or loops"),
        ("<style scoped>", '<style scoped lang="scss">', "another language"),
        ("<p>Quay 3</p>", '<p :class="late">Quay 3</p>', "class names that code gives"),
    ],
)
def test_what_stays(run: Any, tmp_path: Path, old: str, new: str, reason: str) -> None:
    text = FLAT.replace(old, new)
    assert text != FLAT
    write(tmp_path, Harbour_vue=text, Badge_vue=FLAT_BADGE)
    told = lifted(run, "Harbour.vue", "single-file-flat")
    assert told["files"] == []
    assert any(reason in group["reason"] for group in told["groups"])


def test_spread_and_code_beside_it_stay(run: Any, tmp_path: Path) -> None:
    spread = CARDS.replace('<div className="card">', '<div className="card" {...tide}>')
    write(tmp_path, Harbour_jsx=spread, Badge_jsx=BADGE)
    told = lifted(run, "Harbour.jsx", "jsx-function")
    assert list(told["texts"]) == ["Fare.jsx", "Harbour.jsx"]
    beside = CARDS.replace("import { Badge } from './Badge';", BADGE.replace("export ", ""))
    write(tmp_path, Harbour_jsx=beside)
    told = lifted(run, "Harbour.jsx", "jsx-function")
    assert any("declared beside it" in group["reason"] for group in told["groups"])


def test_written_and_moved(run: Any, tmp_path: Path) -> None:
    """The file that uses the components is changed, and imports are those of the new place."""
    write(tmp_path, Harbour_jsx=CARDS, Badge_jsx=BADGE)
    done = run("lift", "Harbour.jsx", "--to", "jsx-function", "--into", "parts", "--write")
    assert done.returncode == 0, done.stderr
    assert "from '../Badge';" in (tmp_path / "parts" / "Card.jsx").read_text()
    assert "import Card from './parts/Card';" in (tmp_path / "Harbour.jsx").read_text()


@pytest.mark.parametrize(
    ("arguments", "code", "said"),
    [
        (("Harbour.vue", "--to", "single-file-object"), 3, "--to single-file-flat"),
        (("Harbour.vue", "page.html", "--to", "single-file-flat"), 2, "but not both"),
    ],
)
def test_errors(run: Any, tmp_path: Path, arguments: tuple[str, ...], code: int, said: str) -> None:
    write(tmp_path, Harbour_vue=FLAT, Badge_vue=FLAT_BADGE, page_html="<p>tide</p>\n")
    done = run("lift", *arguments)
    assert done.returncode == code
    assert said in done.stderr
    assert "Traceback" not in done.stderr
