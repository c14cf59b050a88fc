"""Style mutants of the demo and of open corpora, told apart in the browser: run by `mutants.py styles`.

Trials are found once for each component, against itself; every mutant is then compared by them, in the
page and in the browser. A style mutant changes no code, so a search for each would find the same ones.
"""

from __future__ import annotations

import argparse
import random
import re
import sys
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import zip_longest
from pathlib import Path
from typing import TYPE_CHECKING

import style_mutants
from clean_carry.demo.story import COMPANY
from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.pair import Trials, mounts_of, sides_of, trials_for, verified
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench, Side

if TYPE_CHECKING:
    from mutants import Mutant, Subject, Tally

# Corpora whose single files hold their own styles.
STYLED = ("keen-ui", "primevue")
# Trials that were found, beside those that are there: each costs about a second a mutant.
MOST_TRIALS = 6
# Seconds for which trials look for themselves, as in the command.
SEARCH = 10.0
_SHEET = re.compile(r"import\s+['\"](\./[^'\"]+\.css)['\"]")


@dataclass(frozen=True)
class Styled:
    """A mutant of styles: the component's text, or another stylesheet of it in its place."""

    mutant: Mutant
    sheet: Path | None = None


def subjects(seed: int) -> Iterator[Subject]:
    """The components of the demo that have styles, then those of the corpora, in turn."""
    import single_files
    from corpus import fetched
    from mutants import Subject

    for path in sorted(COMPANY.rglob("*")):
        if path.suffix in (".jsx", ".tsx", ".vue"):
            text = path.read_text("utf-8")
            if "<style" in text or _SHEET.search(text):
                yield Subject(f"demo {path.stem}", path, text)
    lists = []
    for corpus in single_files.CORPORA:
        if corpus.package not in STYLED:
            continue
        folder = fetched(corpus) / corpus.sources
        own = [
            Subject(f"{corpus.package} {corpus.version} {path.stem}", path, path.read_text("utf-8"))
            for path in single_files.sources(folder)
            if b"<style" in path.read_bytes()
        ]
        random.Random(seed).shuffle(own)
        lists.append(own)
    for turn in zip_longest(*lists):
        yield from (one for one in turn if one is not None)


def mutants_of(subject: Subject) -> Iterator[Styled]:
    """Every style mutant of a component."""
    from mutants import Mutant

    text = subject.text
    used = style_mutants.uses(text)

    def made(operator: str, whole: str, edit: style_mutants.Edit, offset: int = 0) -> Mutant:
        start, end, new = edit[0] + offset, edit[1] + offset, edit[2]
        line = whole.count("\n", 0, start) + 1
        changed = whole[:start] + new + whole[end:]
        return Mutant(operator, line, whole[start:end][:80], new[:80], changed)

    sheets = [
        (subject.place.parent / name, (subject.place.parent / name).read_text("utf-8"))
        for name in _SHEET.findall(text)
    ]
    blocks = list(style_mutants.blocks_of(text))
    for name, operator in style_mutants.SHEET_OPERATORS.items():
        for path, sheet in sheets:
            for edit in operator(sheet, used):
                yield Styled(made(name, sheet, edit), path)
        for offset, sheet in blocks:
            for edit in operator(sheet, used):
                yield Styled(made(name, text, edit, offset))
    every = "\n".join(sheet for _, sheet in (*sheets, *blocks))
    for edit in style_mutants.lost_classes(text, every):
        yield Styled(made("lost_class", text, edit))
    for edit in style_mutants.leaking_scopes(text):
        yield Styled(made("leaking_scope", text, edit))


def pair_of(subject: Subject, styled: Styled | None) -> tuple[Side, Side]:
    """The component, and its mutant."""
    other = subject.text if styled is None or styled.sheet is not None else styled.mutant.text
    old, new, _ = sides_of(subject.place, subject.text, subject.place, other)
    if styled is not None and styled.sheet is not None:
        new = replace(new, extra=((styled.sheet.resolve(), styled.mutant.text),))
    return old, new


def trials_of(bench: Bench, subject: Subject) -> tuple[Trials, Trials] | None:
    """Trials for a component, and those of them that are seen in the browser: those beside it, and some of
    those that are found. None where it does not mount."""
    gaze, bench.gaze = bench.gaze, None
    try:
        old, new = pair_of(subject, None)
        name = next(iter(mounts_of(old, new)), "")
        found = verified(bench, (old, new), None, Trials(None, name), Effort(SEARCH))
    finally:
        bench.gaze = gaze
    if found.verdict != "same" or found.around:
        return None
    own = trials_for(subject.place, None).trials or ()
    every = Trials((*own, *found.sources), found.mounted)
    looks = found.looks or found.sources
    return every, Trials((*own, *looks[:MOST_TRIALS]), found.mounted)


def measure(bench: Bench, given: argparse.Namespace, tally: Tally) -> None:
    """Make and verify style mutants; the demo counts as no component of the number asked for."""
    rng = random.Random(given.seed)
    tally.place.write_text("[]")
    bench.gaze = Gaze((), given.budget)
    for subject in subjects(given.seed):
        if given.only not in subject.name:
            continue
        if tally.components >= given.components and not subject.name.startswith("demo "):
            return
        mutants = list(mutants_of(subject))
        both = trials_of(bench, subject) if mutants else None
        if both is None:
            print(f"{subject.name}: no styles, or does not mount by itself", file=sys.stderr)
            continue
        every, trials = both
        itself = verified(bench, pair_of(subject, None), None, trials, Effort(given.budget))
        if itself.verdict != "same":
            print(f"FALSE ALARM {subject.name}: {_told(itself)}", file=sys.stderr)
            continue
        tally.components += not subject.name.startswith("demo ")
        chosen = rng.sample(mutants, min(given.each, len(mutants)))
        own = 0
        for styled in chosen:
            sides = pair_of(subject, styled)
            found = _plainly(bench, sides, every, given.budget)
            if found.verdict != "differs":
                found = verified(bench, sides, None, trials, Effort(given.budget))
            own += tally.note(subject, styled.mutant, found)
        print(f"{subject.name}: {own} of {len(chosen)} told apart", file=sys.stderr, flush=True)


def _plainly(bench: Bench, sides: tuple[Side, Side], every: Trials, budget: float) -> Verification:
    """All trials in the simulated page, which comes first in every verification."""
    gaze, bench.gaze = bench.gaze, None
    try:
        return verified(bench, sides, None, every, Effort(budget))
    finally:
        bench.gaze = gaze


def _told(found: Verification) -> object:
    if found.seen is None:
        return found.reason
    return [d.as_json() for r in found.seen.results for d in r.differences][:2] or [
        r.reason for r in found.seen.results
    ]
