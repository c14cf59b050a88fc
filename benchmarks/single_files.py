"""Carry and verify every single file of open corpora, from the object form to the flat form.

    python benchmarks/single_files.py [NAME-VERSION …]

As `corpus.py` does for classes; the checks of what is written are those of the runtime's own compiler and
a linter. The table is a section of docs/corpus.md.
"""

from __future__ import annotations

import json
import statistics
import subprocess
import sys
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.settings import settings_for
from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.runtimes import RUNTIMES, WORKBENCH, cache_folder
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench
from corpus import HERE, Corpus, fetched, put_section, tools

BUDGET = 3.0
CORPORA = (
    Corpus("keen-ui", "1.4.0", "src", "2.7.16", typed=("sass@1.77.8",)),
    Corpus("element-ui", "2.15.14", "packages", "2.7.16", imports=(("element-ui/", "./"),)),
    Corpus("buefy", "0.9.29", "src", "2.7.16"),
    Corpus(
        "primevue",
        "2.10.4",
        ".",
        "2.7.16",
        imports=(("primevue/", "./"),),
        installs="./config/PrimeVue.js",
    ),
    Corpus("buefy", "3.1.0", "src", "3.5.45"),
    Corpus(
        "primevue",
        "3.53.1",
        ".",
        "3.5.45",
        imports=(
            ("primevue/basecomponent", "./basecomponent/BaseComponent.vue"),
            ("primevue/", "./"),
        ),
        installs="./config/config.esm.js",
    ),
)
# Notes that nearly every file has: they point at nothing.
OF_ALL = frozenset(["members-closed", "methods-given-out"])
# Run when all else is done, never tuned on.
UNSEEN = (
    Corpus("@oruga-ui/oruga", "0.5.11", "src", "2.7.16"),
    Corpus("iview", "3.5.4", "src", "2.7.16"),
    Corpus("@carbon/vue", "2.45.1", "src", "2.7.16"),
)


@dataclass
class Row:
    """What became of one single file. `drawn` says that it has a template of its own."""

    file: str
    drawn: bool
    status: str = "error"
    rules: list[str] = field(default_factory=list)
    problems: list[str] = field(default_factory=list)
    lost: list[str] = field(default_factory=list)
    kept: bool = True
    formatted: bool | None = None
    verdict: str = ""
    reason: str = ""
    differences: list[str] = field(default_factory=list)
    reach: float | None = None


def sources(folder: Path) -> list[Path]:
    """The single files of a corpus that hold a script; tests, documents and what was built are none."""
    return sorted(
        p
        for p in folder.rglob("*.vue")
        if not {"node_modules", "dist", "docs", "stories"} & set(p.parts)
        and not any("test" in part for part in p.relative_to(folder).parts)
    )


def checked(corpus: Corpus, files: list[dict[str, str]]) -> dict[str, dict[str, Any]]:
    """Ask the independent checks."""
    runtime = RUNTIMES[f"vue-{corpus.runtime[0]}"].folder
    workbench = RUNTIMES[WORKBENCH].folder
    done = subprocess.run(
        ["node", str(HERE / "checks-single.mjs"), str(tools()), str(runtime), str(workbench)],
        input=json.dumps({"files": files}),
        capture_output=True,
        text=True,
        check=True,
    )
    found: dict[str, dict[str, Any]] = json.loads(done.stdout)
    return found


def run(corpus: Corpus, bench: Bench) -> tuple[list[Row], float]:
    """Carry and verify all of a corpus; the rows, and milliseconds a file for carrying."""
    folder = fetched(corpus) / corpus.sources
    paths = sources(folder)
    carried: dict[Path, Result] = {}
    rows: dict[Path, Row] = {}
    started = time.perf_counter()
    for path in paths:
        row = rows[path] = Row(
            path.relative_to(folder).as_posix(), b"<template" in path.read_bytes()
        )
        aliases = tuple(settings_for(path).aliases.items())
        request = Request(path, str(path), "single-file-flat", aliases=aliases)
        try:
            result = carry_file(request)[0]
        except CarryError as error:
            row.reason = error.one_line()
            continue
        row.status, row.rules = result.status, sorted({f.rule for f in result.findings})
        if result.files:
            carried[path] = result
    each = (time.perf_counter() - started) / max(1, len(paths)) * 1000
    files = [
        {"path": str(p), "old": p.read_text("utf-8"), "new": r.files[0].text}
        for p, r in carried.items()
    ]
    for path, answer in checked(corpus, files).items():
        row = rows[Path(path)]
        row.problems, row.lost, row.kept = answer["problems"], answer["lost"], answer["kept"]
        row.formatted = answer["formatted"]
    with ThreadPoolExecutor(bench.size) as pool:
        proofs = [pool.submit(_verify, rows[p], p, r, bench) for p, r in carried.items()]
        for number, proof in enumerate(proofs, 1):
            proof.result()
            print(f"\r\033[K  {number}/{len(proofs)}", end="", file=sys.stderr)
    print(file=sys.stderr)
    return list(rows.values()), each


def _verify(row: Row, path: Path, result: Result, bench: Bench) -> None:
    old = path.read_text("utf-8")
    before, after, interface = sides_of(path, old, path, result.files[0].text)
    found = verified(bench, (before, after), interface, Trials(None), Effort(BUDGET))
    if found.reach is not None and found.tried and found.reach[0].total:
        row.reach = round(found.reach[0].percent, 1)
    row.verdict = found.verdict
    row.reason = found.reason or next((t.reason for t in found.trials if t.reason), "")
    if found.verdict == "differs":
        row.differences = [
            f"{d.what} {d.place}: {str(d.old)[:80]} → {str(d.new)[:80]}"
            for t in found.trials
            for d in t.differences[:2]
        ]


INTRODUCTION = """Made by `python benchmarks/single_files.py`. It carries every single file with a
script to the flat form. It verifies them in their own framework version, 3 seconds each. Files
without a template are counted apart.

| column | meaning |
|---|---|
| fail the checks | the new file does not compile although the old one did, or has a new lint error |
| kept | template and styles are the same byte for byte |
| still formatted | scripts that a formatter left alone before, and still does |
| pointed at | clean files that differ, with a finding beyond `members-closed` and `methods-given-out` |
| unproven | nothing differed, but too little code ran |
"""
COLUMNS = (
    "corpus", "runtime", "files", "without template", "with template", "clean", "clean, %",
    "fail the checks", "comments lost", "kept", "still formatted", "old mounts", "same", "unproven",
    "differs", "pointed at", "branch reach, median %", "ms a file",
)  # fmt: skip


def line(corpus: Corpus, rows: list[Row], each: float) -> list[object]:
    """A row of the table."""
    drawn = [r for r in rows if r.drawn]
    clean = sum(r.status == "clean" for r in drawn)
    written = [r for r in rows if r.status in ("clean", "left")]
    verdict = Counter(r.verdict for r in rows)
    reach = [r.reach for r in rows if r.reach is not None]
    return [
        f"{corpus.package} {corpus.version}", corpus.runtime[:3].rstrip("."), len(rows),
        len(rows) - len(drawn), len(drawn), clean, f"{100 * clean / max(1, len(drawn)):.0f}",
        sum(bool(r.problems) for r in rows), sum(len(r.lost) for r in rows),
        f"{sum(r.kept for r in written)} of {len(written)}",
        f"{sum(r.formatted or False for r in rows)} of {sum(r.formatted is not None for r in rows)}",
        verdict["same"] + verdict["unproven"] + verdict["differs"],
        verdict["same"], verdict["unproven"], verdict["differs"],
        sum(r.verdict == "differs" and bool(set(r.rules) - OF_ALL) for r in rows),
        f"{statistics.median(reach):.0f}" if reach else "–", f"{each:.1f}",
    ]  # fmt: skip


def main(wanted: list[str]) -> None:
    """Run the corpora named (all by default) and store the table, with what was measured before."""
    known = {f"{c.package}-{c.version}": c for c in (*CORPORA, *UNSEEN)}
    unknown = [name for name in wanted if name not in known]
    if unknown:
        sys.exit(f"no corpus {', '.join(unknown)}; there are {', '.join(known)}")
    place = cache_folder() / "single-files.json"
    every: dict[str, Any] = json.loads(place.read_text("utf-8")) if place.exists() else {}
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        for corpus in [known[name] for name in wanted] or CORPORA:
            rows, each = run(corpus, bench)
            found = {"each": each, "rows": [vars(r) for r in rows]}
            every[f"{corpus.package}-{corpus.version}"] = found
            place.write_text(json.dumps(every, indent=1))
            for row in rows:
                if row.verdict == "unproven":
                    print(row.file, "unproven:", row.reason)
                if row.problems or row.lost or row.verdict == "differs":
                    print(row.file, row.status, row.rules, row.problems, row.lost, row.differences)
    store(known, every)


def store(known: dict[str, Corpus], every: dict[str, Any]) -> None:
    """Write the table of all that is measured into docs/corpus.md."""
    text = "| " + " | ".join(COLUMNS) + " |\n|" + "---|" * len(COLUMNS) + "\n"
    refusals: Counter[str] = Counter()
    for name in (name for name in known if name in every):
        rows = [Row(**row) for row in every[name]["rows"]]
        shown = line(known[name], rows, every[name]["each"])
        text += "| " + " | ".join(str(c) for c in shown) + " |\n"
        refusals.update(rule for r in rows if r.drawn and r.status != "clean" for rule in r.rules)
    print(text)
    rules = "".join(f"| `{rule}` | {count} |\n" for rule, count in refusals.most_common())
    why = f"### Why files with a template are refused\n\n| rule | files |\n|---|---|\n{rules}"
    put_section("Single files, object form to flat form", f"{INTRODUCTION}\n{text}\n{why}")


if __name__ == "__main__":
    main(sys.argv[1:])
