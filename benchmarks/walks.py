"""Walk open packages from survey to retirement, each with a small application around it.

    python benchmarks/walks.py [NAME …] [--most 20]

The application in `benchmarks/applications` uses at least ten components of the package. Of the components
that the survey would carry cleanly, the first 20 are carried, verified, and, where they are the same,
switched and retired. Printed are the uses that the index found against the key (`keys/uses.yaml`), the time
of a survey against that of parsing all files, and the verdicts on the application half-way and in the end.
"""

from __future__ import annotations

import argparse
import shutil
import sys
import tempfile
import time
from dataclasses import dataclass, replace
from pathlib import Path

import yaml

from clean_carry.component.errors import CarryError, InputError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.index.build import index_of
from clean_carry.project.journal import change
from clean_carry.project.survey import dry_run, survey
from clean_carry.project.walk.pairs import Pair
from clean_carry.project.walk.retire import StillUsed, retire
from clean_carry.project.walk.switch import switch
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.text import SourceText
from clean_carry.verify.pair import Trials, pair_of, sides_of, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench, WorkerFailed
from corpus import CORPORA as CLASSES
from corpus import HERE, fetched
from single_files import CORPORA as SINGLE_FILES

EACH, WHOLE = Effort(budget=6.0, seed=1, most=60), Effort(budget=60.0, seed=1, most=60)


@dataclass(frozen=True)
class Package:
    """A package: its copy's files, the syntax to write, and its application."""

    name: str
    target: str
    application: str

    @property
    def folder(self) -> Path:
        """Where it was fetched to."""
        found = [one for one in (*CLASSES.values(), *SINGLE_FILES) if one.package == self.name]
        return fetched(found[0])


PACKAGES = (
    Package("reactstrap", "jsx-function", "reactstrap.jsx"),
    Package("keen-ui", "single-file-flat", "keen-ui.vue"),
)


def copied(package: Package, top: Path) -> Path:
    """A copy of the package with its application, packages linked in."""
    root = top / package.name
    shutil.copytree(
        package.folder, root, ignore=shutil.ignore_patterns("node_modules", "lib", "es", "dist")
    )
    (root / "node_modules").symlink_to(package.folder / "node_modules")
    (root / "app").mkdir()
    place = root / "app" / f"Application{Path(package.application).suffix}"
    shutil.copy(HERE / "applications" / package.application, place)
    return root


def times(root: Path) -> tuple[float, float]:
    """Seconds of a survey in one process, and of parsing the same files."""
    began = time.perf_counter()
    index = index_of(root, fresh=True)
    survey(index)
    whole = time.perf_counter() - began
    began = time.perf_counter()
    for name in index.files:
        try:
            parsed = Parsed(SourceText.read(Path(name)))
            _ = parsed.tree, parsed.markup
            parsed.release()
        except InputError:
            continue
    return whole, time.perf_counter() - began


def uses(root: Path, package: Package) -> str:
    """How many uses of the key the index finds, and how many others."""
    keys = yaml.safe_load((HERE / "keys" / "uses.yaml").read_text())
    name = next(one for one in keys if one.startswith(package.name + "@"))
    index = index_of(root, fresh=True)
    top = len(index.root.as_posix()) + 1
    wanted = hit = other = 0
    for component, files in keys[name].items():
        known = {(f, *use.split()) for f, rows in files.items() for use in rows}
        found = {
            (use.file[top:], str(use.line), use.how)
            for one in index.components.values()
            if one.seen.name == component
            for use in one.users
            if not use.file[top:].startswith("app/")
        }
        wanted, hit, other = (
            wanted + len(known),
            hit + len(known & found),
            other + len(found - known),
        )
    return f"{hit} of {wanted} uses found, {other} others"


def application(bench: Bench, before: Path, after: Path) -> str:
    """The verdict on an application in two states of its package."""
    texts = [place.read_text("utf-8") for place in (before, after)]
    old, new, _ = sides_of(before, texts[0], after, texts[1])
    new = replace(new, place=after.resolve(), beside=False)
    found = verified(bench, (old, new), None, Trials(None), WHOLE)
    first = next((d for t in found.trials for d in t.differences), None)
    return f"{found.verdict} ({found.tried} trials){f': {first}' if first else ''}{found.reason}"


def builds(bench: Bench, root: Path, app: str) -> str:
    """Whether the package's own entry can be bundled."""
    entry, place = root / "src" / "index.js", root / app
    try:
        side = sides_of(place, place.read_text("utf-8"), place, place.read_text("utf-8"))[0]
        return f"{bench.shipped(entry, side.runtime, side.settings)[0]:,} bytes"
    except (CarryError, WorkerFailed) as error:
        return f"not built: {error}"


def walk(package: Package, bench: Bench, most: int) -> None:
    """Walk the package and print what became of it."""
    with tempfile.TemporaryDirectory() as name:
        top = Path(name).resolve()
        original, root = copied(package, top / "old"), copied(package, top / "new")
        whole, parsing = times(root)
        print(
            f"{package.name}: survey {whole:.2f} s, parsing {parsing:.2f} s: {whole / parsing:.2f} times"
        )
        print(f"  {uses(root, package)}")
        index = index_of(root, fresh=True)
        tried = dry_run(
            index,
            package.target,
            [root / "src"],
            processes=2,
            say=lambda done, total: None,
            fresh=True,
        )
        rows = [row for row in survey(index, [root / "src"], tried) if row.carry is not None]
        easy = [row for row in rows if row.carry is not None and row.carry.outcome == "clean"]
        pairs: list[Pair] = []
        for row in easy[: most * 2]:
            old = Path(row.found.key.file)
            if len(pairs) == most or any(pair.old == old for pair in pairs):
                continue
            results = carry_file(Request(old, str(old), package.target, assume_carried=True))
            for file in (file for result in results for file in result.files):
                old.with_name(Path(file.path).name).write_bytes(file.data)
            new = old.with_name(Path(results[0].files[0].path).name)
            before, after, interface = pair_of(old, new)
            verdict = verified(bench, (before, after), interface, Trials(None), EACH).verdict
            if verdict == "same":
                pairs.append(Pair.of(old, new))
            else:
                print(f"  {row.name}: {verdict}")
                new.unlink()
        app = f"app/Application{Path(package.application).suffix}"
        print(f"  {len(pairs)} of the first {most} are proven; entry {builds(bench, root, app)}")
        plan = switch(index_of(root, fresh=True), pairs)
        change(root, plan.data())
        for left in plan.left:
            print(f"  left: {Path(left.file).name}:{left.line}: {left.what}")
        print(
            f"  half-way: {len(plan.files)} files changed; {application(bench, original / app, root / app)}"
        )
        print(f"  entry half-way {builds(bench, root, app)}")
        gone = 0
        for pair in pairs:
            try:
                change(root, retire(index_of(root, fresh=True), pair).data())
                gone += 1
            except StillUsed as error:
                print(f"  {error.one_line()}")
        print(f"  {gone} retired; in the end: {application(bench, original / app, root / app)}")
        print(f"  entry in the end {builds(bench, root, app)}")


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("names", nargs="*")
    parser.add_argument("--most", type=int, default=20)
    given = parser.parse_args()
    with Bench(size=2) as bench:
        for one in PACKAGES:
            if not given.names or one.name in given.names:
                walk(one, bench, given.most)
    sys.exit(0)
