"""Carry and verify every class component of open corpora, and print and store a table.

    python benchmarks/corpus.py [NAME …]

Packages are fetched with their declared dependencies and their own runtime version into the cache.
Components are counted by the TypeScript compiler, independently of our reader; it also says whether
comments and other statements are all there, and the type errors a written file adds; a formatter whether
a file that was clean under it still is. The table goes to docs/corpus.md, every component's row to the
cache (corpus.json).
"""

from __future__ import annotations

import json
import shutil
import statistics
import subprocess
import sys
import time
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import Any

from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.system import cache_folder
from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

HERE = Path(__file__).parent
QUIET = ("--ignore-scripts", "--legacy-peer-deps", "--no-audit", "--no-fund", "--loglevel=error")
# Seconds for which trials look for themselves, for each component.
BUDGET = 3.0


@dataclass(frozen=True)
class Corpus:
    """A package, its version, the folder of its sources and the runtime it is run in.

    `script` is a script of the package that applications load beside it, `alias` a prefix of imports
    that means its own folder, `imports` are prefixes with what each means, `installs` is a module of the
    package that applications install, `defines` a line of what a build puts in the place of names; `bare`
    says that the folders of its sources are imported by their bare names.
    """

    package: str
    version: str
    sources: str
    runtime: str
    script: str = ""
    alias: str = ""
    typed: tuple[str, ...] = ()
    imports: tuple[tuple[str, str], ...] = ()
    installs: str = ""
    defines: str = ""
    bare: bool = False


# Carried and checked, not rendered: sources in TypeScript on a base class of their own.
TYPED = Corpus(
    "@blueprintjs/core",
    "3.54.0",
    "src",
    "16.14.0",
    typed=("@types/react@16", "@types/react-dom@16", "@types/classnames@2.2.11"),
)
# Run when all else is done: how well do figures hold for sources nobody looked at? What was looked at since
# stays among them, with the figures it had when it was first run.
UNSEEN = {
    c.package: c
    for c in (
        Corpus("element-react", "1.4.34", "src", "16.14.0"),
        Corpus("rsuite", "3.8.13", "src", "16.14.0", defines='__DEV__ = "true"'),
        Corpus("react-toolbox", "2.0.0-beta.13", "components", "16.14.0"),
        Corpus("@elastic/eui", "1.1.0", "src/components", "16.14.0"),
        Corpus("zent", "6.6.5", "src", "16.14.0", bare=True),
        Corpus("@shopify/polaris", "3.21.1", "esnext/components", "16.14.0"),
    )
}
CORPORA = {
    c.package: c
    for c in (
        Corpus("reactstrap", "8.10.1", "src", "16.14.0"),
        Corpus("react-mdl", "1.11.0", "src", "16.14.0", "./extra/material.js"),
        Corpus("react-md", "1.18.1", "src/js", "16.14.0"),
        Corpus("@salesforce/design-system-react", "0.10.65", "components", "16.14.0", alias="~/"),
    )
}


@dataclass
class Row:
    """What became of one component."""

    file: str
    component: str
    status: str = "not found"
    rules: list[str] = field(default_factory=list)
    problems: list[str] = field(default_factory=list)
    verdict: str = ""
    reason: str = ""
    still: bool = False
    differences: list[str] = field(default_factory=list)
    tried: int = 0
    reach: float | None = None
    formatted: bool | None = None
    lost: list[str] = field(default_factory=list)
    changed: list[str] = field(default_factory=list)
    types: list[str] = field(default_factory=list)


def fetched(corpus: Corpus) -> Path:
    """The package with its dependencies, fetched once; those are of its lock in benchmarks/locks."""
    name = f"{corpus.package.replace('/', '-')}-{corpus.version}"
    folder = cache_folder() / "corpora" / name
    if (folder / "complete").exists():
        return folder
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    print(f"fetching {corpus.package}@{corpus.version} …", file=sys.stderr)
    done = subprocess.run(
        ["npm", "pack", f"{corpus.package}@{corpus.version}", "--silent"],
        cwd=folder,
        capture_output=True,
        text=True,
        check=True,
    )
    subprocess.run(
        ["tar", "xzf", done.stdout.split()[-1], "--strip-components=1"], cwd=folder, check=True
    )
    package = json.loads((folder / "package.json").read_text())
    wanted = {**package.get("peerDependencies", {}), **package.get("dependencies", {})}
    single = any(folder.rglob("*.vue"))
    react = {"react": corpus.runtime, "react-dom": corpus.runtime, "prop-types": "15.8.1"}
    wanted |= {"vue": corpus.runtime} if single else react
    wanted |= {name: version for name, _, version in (t.rpartition("@") for t in corpus.typed)}
    (folder / "package.json").write_text(
        json.dumps({"name": "corpus", "private": True, "dependencies": wanted})
    )
    lock = HERE / "locks" / f"{name}.json"
    if lock.exists():
        shutil.copy(lock, folder / "package-lock.json")
    subprocess.run(["npm", "ci" if lock.exists() else "install", *QUIET], cwd=folder, check=True)
    if corpus.script:
        text = f"import '{corpus.script}';\nexport default ({{ children }}) => children;\n"
        (folder / "trial-setup.jsx").write_text(text)
        (folder / "clean-carry.toml").write_text('setup = "trial-setup.jsx"\n')
    if corpus.imports:
        lines = "".join(f"'{prefix}' = '{target}'\n" for prefix, target in corpus.imports)
        head = 'setup = "trial-setup.js"\n' if corpus.installs else ""
        (folder / "clean-carry.toml").write_text(f"{head}[imports]\n{lines}")
    if corpus.installs:
        text = f"import plugin from '{corpus.installs}';\n"
        text += "export const install = (application) => application.use(plugin);\n"
        (folder / "trial-setup.js").write_text(text)
    if corpus.defines:
        (folder / "clean-carry.toml").write_text(f"[defines]\n{corpus.defines}\n")
    if corpus.bare:
        inside = sorted(p.name for p in (folder / corpus.sources).iterdir() if p.is_dir())
        lines = "".join(
            f"'{name}{slash}' = './{corpus.sources}/{name}{slash}'\n"
            for name in inside
            for slash in ("", "/")
        )
        (folder / "clean-carry.toml").write_text(f"[imports]\n{lines}")
    if corpus.alias:
        (folder / "clean-carry.toml").write_text(f"[imports]\n'{corpus.alias}' = './'\n")
    _pass_on(folder)
    (folder / "complete").write_text("")
    return folder


def _pass_on(folder: Path) -> None:
    """Modules a package ships built only, under the name its sources know them by."""
    for types in folder.glob("*/style/*.d.ts"):
        stem = types.name.removesuffix(".d.ts")
        built, source = types.with_name(f"{stem.lower()}.esm.js"), types.with_name(f"{stem}.js")
        if built.exists() and not source.exists():
            source.write_text(f"export {{ default }} from './{built.name}';\n")


def tools() -> Path:
    """The compiler and the linter, installed once from the lock beside this file."""
    folder = cache_folder() / "benchmarks"
    lock = (HERE / "package-lock.json").read_text("utf-8")
    done = folder / "complete"
    if not done.exists() or done.read_text("utf-8") != lock:
        folder.mkdir(parents=True, exist_ok=True)
        for name in ("package.json", "package-lock.json"):
            shutil.copy(HERE / name, folder / name)
        subprocess.run(
            ["npm", "ci", "--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"],
            cwd=folder,
            check=True,
        )
        done.write_text(lock, "utf-8")
    return folder


def sources(folder: Path) -> list[Path]:
    """The source files of a corpus; tests and stories are no components of it."""
    return sorted(
        p
        for p in folder.rglob("*")
        if p.suffix in (".js", ".jsx", ".tsx")
        and "node_modules" not in p.parts
        and not any(
            word in part
            for part in p.relative_to(folder).parts
            for word in ("test", "stories", ".spec.")
        )
        and b"extends" in p.read_bytes()
    )


def checked(files: list[dict[str, str | None]]) -> dict[str, dict[str, Any]]:
    """Ask the independent checks."""
    done = subprocess.run(
        ["node", str(HERE / "checks.mjs"), str(tools())],
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
    carried: dict[Path, list[Result]] = {}
    started = time.perf_counter()
    for path in paths:
        try:
            carried[path] = carry_file(Request(path, str(path), "jsx-function"))
        except CarryError as error:
            print(f"  {error.one_line()}", file=sys.stderr)
            carried[path] = []
    each = (time.perf_counter() - started) / max(1, len(paths)) * 1000
    files: list[dict[str, str | None]] = []
    for path, results in carried.items():
        text = next((r.files[0].text for r in results if r.files), None)
        files.append({"path": str(path), "old": path.read_text("utf-8"), "new": text})
    answer = checked(files)
    rows: list[Row] = []
    proofs: list[Future[None]] = []
    with ThreadPoolExecutor(bench.size) as pool:
        for path, results in carried.items():
            for row, result in _rows(path, path.relative_to(folder).as_posix(), results, answer):
                rows.append(row)
                if result is not None and result.files and corpus is not TYPED:
                    proofs.append(pool.submit(_verify, row, path, result, bench))
        for number, proof in enumerate(proofs, 1):
            proof.result()
            print(f"\r\033[K  {number}/{len(proofs)}", end="", file=sys.stderr)
    print(file=sys.stderr)
    return rows, each


def _rows(
    path: Path, shown: str, results: list[Result], answer: dict[str, dict[str, Any]]
) -> Iterator[tuple[Row, Result | None]]:
    """A row for each component of a file, with what it was carried to."""
    counted = [str(c["name"]) for c in answer["components"][str(path)]]
    by_name = {r.component: r for r in results}
    names = dict.fromkeys([*counted, *(n for n in by_name if n not in counted)])
    for name in names:
        row = Row(shown, name)
        result = by_name.get(name) or (results[0] if len(results) == 1 else None)
        if result is not None:
            row.status = result.status
            row.rules = sorted({f.rule for f in result.findings})
        if result is not None and result.files:
            row.problems = [str(p) for p in answer["problems"].get(str(path), [])]
            row.formatted = answer["formatted"].get(str(path))
            dropped = {e.line for e in result.entries if e.outcome in ("dropped", "left")}
            row.lost = [
                f"{c['line']}: {c['text'][:60]}"
                for c in answer["lost"].get(str(path), [])
                if c["line"] not in dropped
            ]
            row.changed = [str(c) for c in answer["changed"].get(str(path), [])]
            row.types = [str(t) for t in answer["typed"].get(str(path), [])]
        yield row, result


def _verify(row: Row, path: Path, result: Result, bench: Bench) -> None:
    old = path.read_text("utf-8")
    before, after, interface = sides_of(path, old, path, result.files[0].text)
    # The default export comes first, as for a user; else the class itself.
    trials = Trials(None, "" if "export default" in old else result.component)
    found = verified(bench, (before, after), interface, trials, Effort(BUDGET))
    row.tried = found.tried
    if found.reach is not None and found.tried and found.reach[0].total:
        row.reach = round(found.reach[0].percent, 1)
    verdicts = [t.verdict for t in found.trials]
    row.reason = found.reason or next((t.reason for t in found.trials if t.reason), "")
    if not found.trials and found.void:
        row.verdict = "void"
    elif "differs" in verdicts:
        row.verdict = "differs"
        row.differences = [
            f"{d.what} {d.place}: {str(d.old)[:80]} → {str(d.new)[:80]}"
            for t in found.trials
            for d in t.differences[:2]
        ]
    elif "same" in verdicts:
        row.verdict = found.verdict
        row.still = all(not t.moved for t in found.trials if t.verdict == "same")
    else:
        row.verdict = "not run"


INTRODUCTION = """Made by `python benchmarks/corpus.py`. It carries every class component of real
packages to functions. It verifies them in the package's own framework version (react 16.14), with 3
seconds of generated trials each. The TypeScript compiler counts the components, not our reader.

| column | meaning |
|---|---|
| fail the checks | the new file does not parse, or has a new lint error or a broken import |
| still formatted | files that a formatter left alone before, and still does |
| comments lost | comments that are neither in the new text nor listed as dropped |
| statements touched | statements beside the classes that changed |
| old mounts | the old component rendered an element or called a prop |
| unproven | nothing differed, but too little code ran |
| differs, clean | components that differ and are clean, without a finding |
"""

COLUMNS = (
    "corpus", "components", "clean", "left", "refused", "fail the checks", "old mounts", "void",
    "same", "unproven", "same, tree never changed", "differs", "differs, clean", "branch reach, median %",
    "still formatted", "comments lost", "statements touched", "type errors added", "ms a file",
)  # fmt: skip


def _median(values: list[float]) -> str:
    return f"{statistics.median(values):.0f}" if values else "–"


def _share(values: list[bool]) -> str:
    return f"{sum(values)} of {len(values)}" if values else "–"


def line(name: str, rows: list[Row], each: float) -> list[object]:
    """A row of the table."""
    status = Counter(r.status for r in rows)
    verdict = Counter(r.verdict for r in rows)
    return [
        name, len(rows), status["clean"], status["left"], status["refused"],
        sum(bool(r.problems) for r in rows),
        sum(verdict[v] for v in ("same", "unproven", "differs", "void")), verdict["void"],
        verdict["same"], verdict["unproven"], sum(r.still for r in rows), verdict["differs"],
        sum(r.verdict == "differs" and r.status == "clean" and not r.rules for r in rows),
        _median([r.reach for r in rows if r.reach is not None]),
        _share([r.formatted for r in rows if r.formatted is not None]),
        sum(len(r.lost) for r in rows), sum(len(r.changed) for r in rows),
        sum(len(r.types) for r in rows),
        f"{each:.1f}",
    ]  # fmt: skip


def main(wanted: list[str]) -> None:
    """Run the corpora named (all by default) and store the table."""
    known = {**CORPORA, TYPED.package: TYPED, **UNSEEN}
    unknown = [name for name in wanted if name not in known]
    if unknown:
        sys.exit(f"no corpus {', '.join(unknown)}; there are {', '.join(known)}")
    chosen = [known[name] for name in wanted] or [*CORPORA.values(), TYPED]
    table: list[list[object]] = []
    every: dict[str, list[dict[str, object]]] = {}
    refusals: Counter[str] = Counter()
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        for corpus in chosen:
            rows, each = run(corpus, bench)
            name = f"{corpus.package} {corpus.version}"
            table.append(line(name, rows, each))
            every[name] = [asdict(row) for row in rows]
            refusals.update(rule for row in rows if row.status != "clean" for rule in row.rules)
    (cache_folder() / "corpus.json").write_text(json.dumps(every, indent=1))
    text = "| " + " | ".join(COLUMNS) + " |\n|" + "---|" * len(COLUMNS) + "\n"
    text += "".join("| " + " | ".join(str(c) for c in row) + " |\n" for row in table)
    print(text)
    for name, rows in every.items():
        for row in rows:
            if row["verdict"] == "unproven":
                print(name, row["file"], row["component"], "unproven:", row["reason"])
            worth = any(row[k] for k in ("problems", "lost", "types"))
            if worth or row["verdict"] == "differs" or row["status"] == "not found":
                print(name, row["file"], row["component"], row["status"], row["rules"])
                for part in ("problems", "lost", "types", "differences"):
                    for item in row[part]:  # type: ignore[attr-defined]
                        print("   ", item)
    if not wanted:
        _store(text, refusals)


def _store(text: str, refusals: Counter[str]) -> None:
    rules = "".join(f"| `{rule}` | {count} |\n" for rule, count in refusals.most_common())
    why = f"### Why components are left or refused\n\n| rule | components |\n|---|---|\n{rules}"
    put_section("Classes to functions", f"{INTRODUCTION}\n{text}\n{why}")


def put_section(title: str, text: str) -> None:
    """Put a section into docs/corpus.md, in the place of the one with this title."""
    page = HERE.parent / "docs" / "corpus.md"
    head, *parts = page.read_text("utf-8").split("\n## ")
    new = f"{title}\n\n{text.rstrip()}"
    known = [part.startswith(f"{title}\n") for part in parts]
    sections = [new if old else part.rstrip() for part, old in zip(parts, known, strict=True)]
    if not any(known):
        sections.append(new)
    page.write_text("\n\n## ".join([head.rstrip(), *sections]) + "\n")


if __name__ == "__main__":
    main(sys.argv[1:])
