"""Carry and verify every directive of open corpora, compare with the key, and store a table.

    python benchmarks/directives.py [--budget SECONDS] [NAME …]

Packages are fetched into the cache. The key (benchmarks/keys/directives.yaml) says for one package which
directives can be components at all. A written file is parsed again and must register its components in
the runtime. The table goes to docs/corpus.md, every directive's row to the cache (directives.json).
"""

from __future__ import annotations

import argparse
import json
import shutil
import statistics
import subprocess
import sys
import time
from collections import Counter
from dataclasses import asdict, dataclass, field
from pathlib import Path

import yaml

from clean_carry.component.errors import CarryError, InputError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.system import cache_folder
from clean_carry.source.text import SourceText
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench
from corpus import put_section

HERE = Path(__file__).parent
KEY = HERE / "keys" / "directives.yaml"


@dataclass(frozen=True)
class Corpus:
    """A package, its version, and where its sources are: a folder, or one file."""

    package: str
    version: str
    sources: str


CORPORA = (
    Corpus("angular-ui-bootstrap", "2.5.6", "src"),
    Corpus("angular-foundation", "0.8.0", "mm-foundation-tpls.js"),
    Corpus("ui-select", "0.20.0", "src"),
    Corpus("angular-smart-table", "2.1.11", "src"),
)
# Run when all else is done, never tuned on.
UNSEEN = (
    Corpus("mobile-angular-ui", "1.3.4", "src"),
    Corpus("lumx", "1.0.0", "modules"),
    Corpus("ng-admin", "1.0.13", "lib/javascripts/ng-admin"),
)
COLUMNS = (
    "corpus", "directives", "stay directives", "made by code", "possible", "clean", "clean, %", "refused",
    "fail the checks", "comments lost", "old mounts", "same", "unproven", "differs",
    "branch reach, median %", "reach, tenth percentile %", "ms a file",
)  # fmt: skip


@dataclass
class Row:
    """What became of one directive."""

    file: str
    name: str
    status: str
    rules: list[str] = field(default_factory=list)
    problems: list[str] = field(default_factory=list)
    lost: list[str] = field(default_factory=list)
    verdict: str = ""
    reason: str = ""
    reach: float | None = None
    differences: list[str] = field(default_factory=list)

    @property
    def stays(self) -> bool:
        """Whether it is told that it can only be a directive."""
        return any(rule.startswith("stays-") for rule in self.rules)

    @property
    def made(self) -> bool:
        """Whether there is no definition to read."""
        return "definition-unread" in self.rules


def fetched(corpus: Corpus) -> Path:
    """The package, fetched once."""
    folder = cache_folder() / "corpora" / f"{corpus.package}-{corpus.version}"
    if (folder / "complete").exists():
        return folder
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    print(f"fetching {corpus.package}@{corpus.version} …", file=sys.stderr)
    done = subprocess.run(
        ["npm", "pack", f"{corpus.package}@{corpus.version}", "--silent"],
        cwd=folder, capture_output=True, text=True, check=True,
    )  # fmt: skip
    archive = done.stdout.split()[-1]
    subprocess.run(["tar", "xzf", archive, "--strip-components=1"], cwd=folder, check=True)
    (folder / "complete").touch()
    return folder


def scripts(corpus: Corpus) -> list[Path]:
    """The scripts of a corpus, tests and pages about it left out."""
    place = fetched(corpus) / corpus.sources
    if place.is_file():
        return [place]
    aside = {"test", "tests", "docs", "demo", "examples"}
    found = sorted(place.rglob("*.js"))
    return [path for path in found if not aside & set(path.relative_to(place).parts)]


def rows_of(path: Path, results: list[Result], bench: Bench, budget: float) -> list[Row]:
    """A row for each directive of a file, verified where it was carried."""
    old = SourceText.read(path)
    comments = [comment.text for comment in Tree(old).comments]
    rows: list[Row] = []
    for result in results:
        rules = [finding.rule for finding in result.findings]
        row = Row(path.name, result.component, result.status, rules)
        rows.append(row)
        if result.status == "refused":
            row.reason = result.findings[0].message if result.findings else ""
            continue
        try:
            Tree(SourceText.checked(path.name, result.files[0].data))
        except InputError as error:
            row.problems.append(error.one_line())
        row.lost = [text for text in comments if text not in result.files[0].text]
        print(f"\r\x1b[K  {path.name} {result.component}", end="", file=sys.stderr, flush=True)
        _verify(path, result, row, bench, budget)
    return rows


def _verify(path: Path, result: Result, row: Row, bench: Bench, budget: float) -> None:
    old, new, interface = sides_of_result(path, result)
    trials = Trials(None, result.component)
    found = verified(bench, (old, new), interface, trials, Effort(budget=budget))
    row.verdict = found.verdict
    row.reason = found.reason
    if found.reason.startswith("the new side"):
        row.problems.append(found.reason)
    if found.reach is not None and found.verdict != "not run":
        row.reach = found.reach[0].percent
    for trial in found.trials:
        for difference in trial.differences[:3]:
            shown = f"{difference.what} {difference.place}: {difference.old} → {difference.new}"
            row.differences.append(shown[:220])
            if "is not registered" in str(difference.new):
                row.problems.append("it does not register")


def line(corpus: Corpus, rows: list[Row], files: int, seconds: float) -> list[object]:
    """A row of the table."""
    stay = sum(row.stays for row in rows)
    made = sum(row.made for row in rows)
    possible = [row for row in rows if not row.stays and not row.made]
    clean = [row for row in rows if row.status == "clean"]
    ran = [row for row in clean if row.verdict in ("same", "unproven", "differs")]
    reach = sorted(row.reach for row in ran if row.reach is not None)
    low = reach[len(reach) // 10] if reach else None
    return [
        f"{corpus.package} {corpus.version}", len(rows), stay, made, len(possible), len(clean),
        round(100 * len(clean) / len(possible)) if possible else "–",
        sum(row.status == "refused" for row in possible), sum(bool(row.problems) for row in rows),
        sum(len(row.lost) for row in rows), len(ran), sum(row.verdict == "same" for row in ran),
        sum(row.verdict == "unproven" for row in ran),
        sum(row.verdict == "differs" for row in ran),
        round(statistics.median(reach)) if reach else "–", round(low) if low is not None else "–",
        round(1000 * seconds / max(files, 1), 1),
    ]  # fmt: skip


def against_key(rows: list[Row]) -> str:
    """How what is told of the key's package agrees with the key."""
    key = yaml.safe_load(KEY.read_text("utf-8"))
    truth = {row["name"]: bool(row["component"]) for row in key["directives"]}
    told = {row.name: row.stays for row in rows if row.name in truth}
    stays = [name for name, stay in told.items() if stay]
    wrong = [name for name in stays if truth[name]]
    possible = [name for name, component in truth.items() if component]
    seen = [name for name in possible if name in told and not told[name]]
    package = f"{key['package']} {key['version']}"
    return (
        f"Against the key of {package} ({len(truth)} directives, {len(possible)} of them possible "
        f"components): {len(stays)} are told to stay directives, {len(stays) - len(wrong)} of them "
        f"rightly; {len(seen)} of the {len(possible)} possible ones are told to be so."
    )


def main(arguments: list[str]) -> None:
    """Measure, print and store."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--budget", type=float, default=5.0)
    parser.add_argument("names", nargs="*")
    given = parser.parse_args(arguments)
    every = (*CORPORA, *UNSEEN)
    chosen = [c for c in every if c.package in given.names] if given.names else list(CORPORA)
    table: list[list[object]] = []
    kept: dict[str, list[Row]] = {}
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        for corpus in chosen:
            rows: list[Row] = []
            files, seconds = 0, 0.0
            for path in scripts(corpus):
                start = time.perf_counter()
                try:
                    request = Request(path, path.name, "controller-component", "directive")
                    results = carry_file(request)
                except CarryError:
                    continue
                seconds += time.perf_counter() - start
                files += 1
                rows += rows_of(path, results, bench, given.budget)
            print("\r\x1b[K", end="", file=sys.stderr)
            table.append(line(corpus, rows, files, seconds))
            kept[corpus.package] = rows
    (cache_folder() / "directives.json").write_text(
        json.dumps({name: [asdict(row) for row in rows] for name, rows in kept.items()}, indent=1)
    )
    text = "| " + " | ".join(COLUMNS) + " |\n|" + "---|" * len(COLUMNS) + "\n"
    text += "".join("| " + " | ".join(str(cell) for cell in row) + " |\n" for row in table)
    print(text)
    for rows in kept.values():
        for row in rows:
            if (
                row.differences
                or row.problems
                or row.lost
                or row.verdict in ("unproven", "not run")
            ):
                print(row.name, row.verdict, row.reason, row.problems, row.differences, row.lost)
    if not given.names:
        _store(text, kept, given.budget)


def _store(text: str, kept: dict[str, list[Row]], budget: float) -> None:
    why = Counter(
        row.rules[0]
        for rows in kept.values()
        for row in rows
        if row.status == "refused" and row.rules
    )
    rules = "".join(f"| `{rule}` | {count} |\n" for rule, count in why.most_common())
    put_section(
        "Directives to components",
        f"""Made by `python benchmarks/directives.py`. It carries every directive that a file of the
package registers. It verifies them in version 1.8 of the framework, with {budget:g} seconds of
generated trials each.

| column | meaning |
|---|---|
| stay directives | reported as directives that cannot be components |
| made by code | the definition is the result of a call, and is not read |
| fail the checks | the new file does not parse, cannot be built, or does not register its component |

{text}
{against_key(kept["angular-ui-bootstrap"])}

Run apart and never tuned on: mobile-angular-ui 1.3.4, of whose directives none has a template: all that
can be read are told to stay directives, those whose names are made by code are told not to be read.

### Why directives are not carried

| rule | directives |
|---|---|
{rules}""",
    )


if __name__ == "__main__":
    main(sys.argv[1:])
