"""Whether everything is still carried as it was: outputs of all test pairs, the demo and open corpora.

    python benchmarks/outputs.py [--pairs] [--freeze] [--diff] [SET …]

Carries every component of each set and compares with what is frozen in benchmarks/outputs/SET.txt: a line
for each component, with hashes of the file it stands in, of its outcome (status, counts of the ledger,
rules with their lines) and of each file written. `--pairs` takes the test pairs and the demo alone, which
need no corpus; `--freeze` stores what is found once it has told what differs; `--diff` shows what was
frozen beside what is found now, where the cache still has it. Exits with 1 where something differs.
"""

from __future__ import annotations

import argparse
import difflib
import hashlib
import sys
from collections.abc import Iterable, Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import corpus
import directives
import single_files
from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.settings import settings_for
from clean_carry.source.system import cache_folder
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registry import recognise

HERE = Path(__file__).parent
FROZEN = HERE / "outputs"
# The crossings whose outputs are frozen.
TARGETS = {
    "jsx-class": "jsx-function",
    "single-file-object": "single-file-flat",
    "directive": "controller-component",
}
ENDINGS = (".js", ".jsx", ".mjs", ".ts", ".tsx", ".vue")
# Sets whose files are part of this project.
OWN = {"pairs": HERE.parent / "tests", "demo": HERE.parent / "src" / "clean_carry" / "demo"}


@dataclass(frozen=True)
class Line:
    """What one component was carried to: `outcome` and `outputs` are hashes of texts in the cache."""

    file: str
    component: str
    source: str
    outcome: str
    outputs: tuple[str, ...]

    def text(self) -> str:
        """The line of the file it is frozen in."""
        return "\t".join((self.file, self.component, self.source, self.outcome, *self.outputs))

    @classmethod
    def read(cls, text: str) -> Line:
        """A line as `text` gives it."""
        file, component, source, outcome, *outputs = text.split("\t")
        return cls(file, component, source, outcome, tuple(outputs))


def kept(data: bytes) -> str:
    """The hash of a text, which stays in the cache for a look."""
    digest = hashlib.sha256(data).hexdigest()[:12]
    place = cache_folder() / "outputs" / digest
    if not place.exists():
        place.write_bytes(data)
    return digest


def outcome_of(result: Result) -> str:
    """Status, counts and rules of a result, as text."""
    counts = " ".join(f"{name} {count}" for name, count in result.counts.items())
    rules = sorted(f"{finding.line} {finding.rule}" for finding in result.findings)
    return "\n".join((result.status, counts, *rules, ""))


def lines_of(root: Path, path: Path) -> list[Line]:
    """A line for each component of a file; one named “-” for a file that cannot be carried."""
    file = path.relative_to(root).as_posix()
    source = hashlib.sha256(path.read_bytes()).hexdigest()[:12]
    try:
        syntax = recognise(SourceText.read(path, file))
        if syntax not in TARGETS:
            return []
        aliases = tuple(settings_for(path).aliases.items())
        results = carry_file(Request(path, file, TARGETS[syntax], syntax, aliases=aliases))
    except CarryError as error:
        return [Line(file, "-", source, kept(error.one_line().encode()), ())]
    found: list[Line] = []
    for result in results:
        outputs = tuple(kept(new.data) for new in result.files)
        found.append(
            Line(file, result.component, source, kept(outcome_of(result).encode()), outputs)
        )
    return found


def sets() -> dict[str, corpus.Corpus | directives.Corpus | Path]:
    """Every set by its name: the project's own, then the open corpora."""
    classes = (*corpus.CORPORA.values(), corpus.TYPED, *corpus.UNSEEN.values())
    single = (*single_files.CORPORA, *single_files.UNSEEN)
    every = (*classes, *single, *directives.CORPORA, *directives.UNSEEN)
    return {**OWN, **{f"{c.package.replace('/', '-')}-{c.version}": c for c in every}}


def files_of(chosen: corpus.Corpus | directives.Corpus | Path) -> tuple[Path, list[Path]]:
    """The folder of a set, and its files."""
    if isinstance(chosen, Path):
        return chosen, sorted(p for p in chosen.rglob("*") if p.suffix in ENDINGS)
    if isinstance(chosen, directives.Corpus):
        return directives.fetched(chosen), directives.scripts(chosen)
    folder = corpus.fetched(chosen)
    inside = folder / chosen.sources
    return folder, sorted({*corpus.sources(inside), *single_files.sources(inside)})


def keyed(lines: Iterable[Line]) -> dict[tuple[str, str, int], Line]:
    """Lines by file, component, and the how many-th of that name in its file."""
    found: dict[tuple[str, str, int], Line] = {}
    for line in lines:
        number = 0
        while (line.file, line.component, number) in found:
            number += 1
        found[line.file, line.component, number] = line
    return found


def told(old: Line | None, new: Line | None) -> str:
    """In what two lines differ; nothing where they are alike."""
    if old is None or new is None:
        return "is new" if old is None else "is gone"
    if old.source != new.source:
        return "the input is another one"
    parts = [("outcome", old.outcome, new.outcome), ("output", old.outputs, new.outputs)]
    return " and ".join(name for name, was, now in parts if was != now)


def shown(old: Line, new: Line) -> Iterator[str]:
    """What was frozen and what is found now, as a unified diff."""
    folder = cache_folder() / "outputs"
    for was, now in zip((old.outcome, *old.outputs), (new.outcome, *new.outputs), strict=False):
        if was != now and (folder / was).exists():
            texts = [(folder / each).read_text("utf-8", "replace") for each in (was, now)]
            yield from difflib.unified_diff(*(t.splitlines() for t in texts), lineterm="", n=2)


def compared(name: str, found: list[Line], *, diff: bool) -> int:
    """Print how a set differs from what is frozen of it; how many components do."""
    place = FROZEN / f"{name}.txt"
    frozen = place.read_text("utf-8").splitlines() if place.exists() else []
    before, after = keyed(map(Line.read, frozen)), keyed(found)
    count = 0
    for key in {**before, **after}:
        old, new = before.get(key), after.get(key)
        if what := told(old, new):
            count += old is not None
            print(f"{name}: {key[0]} {key[1]}: {what}")
            if diff and old is not None and new is not None:
                print("\n".join(shown(old, new)))
    return count


def main(arguments: list[str]) -> int:
    """Carry the sets asked for, and compare or freeze."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--pairs", action="store_true", help="the project's own files alone")
    parser.add_argument("--freeze", action="store_true", help="store what is found")
    parser.add_argument("--diff", action="store_true", help="show what differs")
    parser.add_argument("sets", nargs="*")
    given = parser.parse_args(arguments)
    every = sets()
    unknown = [name for name in given.sets if name not in every]
    if unknown:
        sys.exit(f"no set {', '.join(unknown)}; there are {', '.join(every)}")
    (cache_folder() / "outputs").mkdir(parents=True, exist_ok=True)
    FROZEN.mkdir(exist_ok=True)
    differing = 0
    with ProcessPoolExecutor() as pool:
        for name in given.sets or (OWN if given.pairs else every):
            root, paths = files_of(every[name])
            each = pool.map(lines_of, [root] * len(paths), paths, chunksize=4)
            found = [line for lines in each for line in lines]
            print(f"{name}: {len(found)} results of {len(paths)} files", file=sys.stderr)
            differing += compared(name, found, diff=given.diff)
            if given.freeze:
                text = "".join(f"{line.text()}\n" for line in found)
                (FROZEN / f"{name}.txt").write_text(text, "utf-8")
    print(f"{differing} differ" + (", and are frozen as they are now" if given.freeze else ""))
    return 1 if differing and not given.freeze else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
