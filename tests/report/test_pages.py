"""Report pages in a browser: what they say, how they are used, and that nothing in them does anything."""

from __future__ import annotations

import io
import json
import subprocess
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PIL import Image

from clean_carry.component.findings import Finding
from clean_carry.component.interface import InterfaceMap
from clean_carry.component.result import LedgerEntry, NewFile, Result
from clean_carry.report.page.write import Report
from clean_carry.report.subject import Subject, Summary
from clean_carry.verify.browser.browser_run import Seen, Shot
from clean_carry.verify.browser.engine import executable
from clean_carry.verify.browser.pixels import Region
from clean_carry.verify.compare import Difference
from clean_carry.verify.judge import TrialResult
from clean_carry.verify.node import node
from clean_carry.verify.reach import Reach
from clean_carry.verify.runtimes import RUNTIMES, ensure
from clean_carry.verify.trials import Trial
from clean_carry.verify.verify import Verification
from tests_support import CLASS, install

HERE = Path(__file__).parent
Drive = Callable[..., list[dict[str, Any]]]


@pytest.fixture(scope="session")
def drive(tmp_path_factory: pytest.TempPathFactory) -> Drive:
    """Open pages in the browser; each job has a `page` and what to do there."""
    rules = tmp_path_factory.mktemp("axe")
    install(HERE / "axe", rules)
    driver = ensure(RUNTIMES["browser"], offline=False, say=lambda text: None)
    found = executable() or f"package:{ensure(RUNTIMES['chromium'], offline=False, say=print)}"

    def call(*jobs: dict[str, Any]) -> list[dict[str, Any]]:
        asked = [{**job, "url": job["page"].resolve().as_uri()} for job in jobs]
        done = subprocess.run(
            [node(), HERE / "drive.mjs", driver, found, rules / "node_modules/axe-core/axe.js"],
            input=json.dumps(asked, default=str), capture_output=True, text=True, check=False,
        )  # fmt: skip
        assert done.returncode == 0, done.stderr
        answers: list[dict[str, Any]] = json.loads(done.stdout)
        return answers

    return call


CARD = CLASS.replace("<button", '<button className="berth"').replace(
    "import React", "import './Berth.css';\nimport React"
)
TRIALS = "trials:\n  - name: opens\n    steps:\n      - press: { tag: button }\n"


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Reports of a pair that differs, of one that is the same, and of many, made by the program."""
    place = tmp_path_factory.mktemp("reports")
    (place / "Berth.jsx").write_text(CARD)
    (place / "Berth.css").write_text(".berth { padding: 8px; color: #123456 }")
    (place / "Other.css").write_text(".berth { padding: 9px; color: #123456 }")
    (place / "Other.jsx").write_text(CARD.replace("Berth.css", "Other.css"))
    (place / "Berth.trials.yaml").write_text(TRIALS)
    (place / "many" / "inner").mkdir(parents=True)
    (place / "many" / "Berth.jsx").write_text(CLASS)
    (place / "many" / "Berth.trials.yaml").write_text(TRIALS)
    (place / "many" / "inner" / "Guard.jsx").write_text(
        "import React from 'react';\nexport class Guard extends React.Component {\n"
        "  componentDidCatch(error) {}\n  render() { return null; }\n}\n"
    )
    for call in (
        ("verify", "Berth.jsx", "Other.jsx", "--in", "browser", "--report", "differs"),
        ("carry", "Berth.jsx", "--to", "jsx-function", "--verify", "--in", "browser", "--report", "same"),
        ("carry", "many", "--to", "jsx-function", "--verify", "--report", "all"),
    ):  # fmt: skip
        done = subprocess.run(
            ["clean-carry", *call], cwd=place, capture_output=True, text=True, check=False
        )
        assert f"report: {call[-1]}/index.html" in done.stderr, done.stderr
    return place


def test_the_verdict_comes_first_and_differences_are_shown(drive: Drive, folder: Path) -> None:
    page = folder / "differs" / "index.html"
    (seen,) = drive({"page": page})
    text = seen["text"]
    places = [text.index(words) for words in (
        "Old and new differ at", "1 trial run, 2 points compared", "Where they differ", "Trials", "Source",
    )]  # fmt: skip
    assert places == sorted(places)
    assert "Style padding-top" in text and "8px" in text and "9px" in text
    assert "By: the rules .berth" in text
    assert "after mounting · in the browser at 1280 px" in text
    assert seen["heard"] == []
    markup = page.read_text("utf-8")
    assert markup.count("data:image/png;base64,") >= 2 and "<rect" in markup
    assert "http" not in markup.replace("http-equiv", "").replace("http://www.w3.org", "")


def test_the_ledger_is_in_the_margin(drive: Drive, folder: Path) -> None:
    act = """
      await page.locator('button.mark.carried').first().focus();
      const shown = await page.locator('button.mark.carried').first().evaluate((mark) => getComputedStyle(mark.nextElementSibling).display);
      await page.keyboard.press('Enter');
      const open = await page.locator('button.mark[aria-expanded=true]').count();
      await page.keyboard.press('Escape');
      return [shown, open, await page.locator('button.mark[aria-expanded=true]').count(), await page.locator('button.mark.carried').first().getAttribute('aria-label')];
    """
    (seen,) = drive({"page": folder / "same" / "index.html", "act": act})
    assert seen["did"][:3] == ["block", 1, 0]
    assert "carried: class, by component-to-function" in seen["did"][3]
    assert "Old and new rendered and behaved the same" in seen["text"]
    assert "Screenshots" in seen["text"]


def test_many_are_filtered_sorted_and_opened(drive: Drive, folder: Path) -> None:
    act = """
      const names = () => page.locator('#list tbody tr:visible th a').allInnerTexts();
      const first = await names();
      await page.fill('#find', 'INNER');
      const found = [await names(), await page.locator('#shown').innerText()];
      await page.fill('#find', '');
      await page.uncheck('input[value=same]');
      const left = await names();
      await page.check('input[value=same]');
      await page.click('#list thead button:has-text("trials")');
      const sorted = [await names(), await page.locator('th[aria-sort]').getAttribute('aria-sort')];
      await page.click('#list thead button:has-text("trials")');
      const back = await names();
      await page.click('text=Berth');
      await page.waitForSelector('text=All components');
      return { first, found, left, sorted, back };
    """
    (seen,) = drive({"page": folder / "all" / "index.html", "act": act})
    assert seen["did"] == {
        "first": ["Guard", "Berth"],
        "found": [["Guard"], "1 of 2 components"],
        "left": ["Guard"],
        "sorted": [["Berth", "Guard"], "descending"],
        "back": ["Guard", "Berth"],
    }


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_the_rules_of_accessible_pages_hold(drive: Drive, folder: Path, scheme: str) -> None:
    pages = [folder / name / "index.html" for name in ("differs", "same", "all")]
    pages += sorted((folder / "all" / "components").iterdir())
    jobs = [
        {"page": page, "scheme": scheme, "width": width, "rules": True}
        for page in pages
        for width in (1280, 400)
    ]
    for job, seen in zip(jobs, drive(*jobs), strict=True):
        assert seen["violations"] == [], job
        assert seen["passed"] > 15
        assert not seen["wide"], job


# What a component, its tests, its file names and its styles may hold.
HOSTILE = [
    "<script>harmed = 1</script>",
    "</script><script>harmed = 1</script>",
    "<img src=x onerror='harmed = 1'>",
    '"><img src=x onerror="harmed = 1">',
    "' onmouseover='harmed = 1' x='",
    '" autofocus onfocus="harmed = 1" x="',
    "<svg onload='harmed = 1'></svg>",
    "<svg><script>harmed = 1</script></svg>",
    "<iframe srcdoc='<script>parent.harmed = 1</script>'></iframe>",
    "<a href='javascript:harmed = 1'>here</a>",
    "javascript:harmed=1//",
    "<style>* { background: url(http://ferries.example/x) }</style>",
    "</style><style>body { display: none }</style>",
    "</title><script>harmed = 1</script>",
    "</textarea><script>harmed = 1</script>",
    "<meta http-equiv=refresh content='0;url=http://ferries.example'>",
    "<base href='http://ferries.example/'>",
    "<link rel=stylesheet href='http://ferries.example/x.css'>",
    "<form action='http://ferries.example'><button>go</button></form>",
    "{{ 7 * 7 }}{% raw %}<details open ontoggle='harmed = 1'>",
    "<!-- --><script>harmed = 1</script><!--",
    "\u202e\x00\ud800<b>x</b>",
]


def hostile(word: str) -> Subject:
    """A subject with a word in every place that something of a component can be."""
    drawn = io.BytesIO()
    Image.new("RGB", (40, 20), "#204060").save(drawn, "PNG")
    png = drawn.getvalue()
    tree = [[word, {word: word, "class": word}, {word: word}, [word, ["p", {}, None, []]]]]
    one = Difference(word, 1, word, word, f"/{word}[1] {word}", word, [word], word)
    call = Difference(word, 1, word, "calls", "", [[word, word]], [], word)
    trial = Trial(word, {word: word}, {word: {}}, {}, [], [{"press": {"tag": word, "name": word}}])
    differs = TrialResult(
        word, "differs", (word, word), (one, call), word, word, False, ((1, tree, tree),)
    )
    void = TrialResult(f"{word} 2", "void", (word,), reason=word, note=word)
    seen = replace_name(differs, f"{word} ({word})")
    shot = Shot(word, 1, word, word, png, png, (Region(1, 1, 4, 4, 9),))
    verification = Verification(
        (differs, void), {word: 3}, word, 2, 2, 1, True, word, word,
        (Reach(1, 2, ({"line": 3, "kind": word},)),) * 2, {word: 1}, (trial,), around=word,
        seen=Seen((seen,), (word,), 2, (shot,), word),
    )  # fmt: skip
    finding = Finding(word, "error", word, 1, 1, word, word)
    result = Result(
        f"{word}.jsx", word, word, word, "left",
        (NewFile(f"{word}.function.jsx", word, b""), NewFile(f"{word}.html", word, b"")),
        {"kept": 1}, (LedgerEntry(word, 1, 1, "carried", word),), InterfaceMap(), (finding,),
    )  # fmt: skip
    return Subject.of(f"{word}/{word}.jsx", f"{word}\n{word}", [result], verification, 1.0)


def replace_name(result: TrialResult, name: str) -> TrialResult:
    return TrialResult(name, *list(vars(result).values())[1:])


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_hostile_content_does_nothing(drive: Drive, tmp_path: Path, scheme: str) -> None:
    whole = Report(tmp_path / "all", many=True)
    for word in HOSTILE:
        whole.add(hostile(word))
    front = whole.close()
    pages = sorted((tmp_path / "all" / "components").iterdir())
    assert len(pages) == len(HOSTILE) >= 20
    act = """
      for (const part of await page.locator('summary').all()) await part.click({ force: true });
      for (const part of (await page.locator('button.mark, main a[href^="#"]').all()).slice(0, 12)) { await part.hover({ force: true }); await part.focus(); }
      await page.waitForTimeout(50);
    """
    jobs = [{"page": page, "act": act, "scheme": scheme} for page in (front, *pages)]
    for job, seen in zip(jobs, drive(*jobs), strict=True):
        assert seen["harmed"] is None, job
        assert seen["heard"] == [], job
        assert seen["scripts"] == 1 and seen["foreign"] == 0 and seen["handlers"] == [], job
        assert seen["title"].endswith("· Clean Carry")


def test_hostile_components_through_the_program(drive: Drive, tmp_path: Path) -> None:
    name = "<img src=x onerror=harmed=1>.jsx"
    text = (
        "import React, { Component } from 'react';\n"
        "export default class Berth extends Component {\n"
        "  render() { return <p title=\"<script>harmed = 1</script>\" onClick={() => { throw new Error('<img src=x onerror=harmed=1>'); }}>"
        "{'</pre><script>harmed = 1</script>'}{this.props.name}</p>; }\n}\n"
    )
    (tmp_path / name).write_text(text)
    (tmp_path / "Other.jsx").write_text(text.replace("title=", "lang="))
    (tmp_path / "t.yaml").write_text(
        "trials:\n  - name: <script>harmed = 1</script>\n    inputs: { name: '<svg onload=harmed=1>' }\n"
        "    steps:\n      - press: { tag: p }\n"
    )
    done = subprocess.run(
        ["clean-carry", "verify", name, "Other.jsx", "--trials", "t.yaml", "--in", "browser", "--report", "r"],
        cwd=tmp_path, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 1, done.stderr
    (seen,) = drive({"page": tmp_path / "r" / "index.html"})
    assert seen["harmed"] is None and seen["heard"] == [] and seen["foreign"] == 0
    assert "<svg onload=harmed=1>" in seen["text"]
    assert name in seen["text"]


def test_a_long_list_has_pages(drive: Drive, tmp_path: Path) -> None:
    report = Report(tmp_path, many=True)
    for at in range(500):
        standing = "same" if at % 2 else "refused"
        name = f"Berth{at:03}"
        report._rows.append(
            Summary(
                f"components/{at}.html",
                name,
                f"src/{name}.jsx",
                "src",
                standing,
                None,
                0,
                0,
                0.0,
                "",
            )
        )
    act = """
      const names = async () => (await page.locator('#list tbody tr:visible th a').allInnerTexts()).length;
      const first = [await names(), await page.locator('#page').innerText(), await page.locator('#earlier').isDisabled()];
      for (let at = 1; at < 10; at += 1) await page.click('#later');
      const last = [await names(), await page.locator('#page').innerText(), await page.locator('#later').isDisabled()];
      await page.fill('#find', 'Berth00');
      return { first, last, few: [await names(), await page.locator('#pages').isVisible()] };
    """
    front = report.close()
    looks = [
        {"page": front, "scheme": scheme, "width": width, "rules": True}
        for scheme in ("light", "dark")
        for width in (1280, 400)
    ]
    seen, *checked = drive({"page": front, "act": act}, *looks)
    assert [one["violations"] for one in checked] == [[]] * 4
    assert seen["did"] == {
        "first": [50, "Page 1 of 10", True],
        "last": [50, "Page 10 of 10", True],
        "few": [10, False],
    }
    assert "250 of 500 done, 50 %" in seen["text"]
