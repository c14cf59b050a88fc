"""Components of the open corpora in a real browser: carried ones, and each against itself.

    python benchmarks/browser.py carried|self [--family classes|single|directives] [--components N]
        [--budget SECONDS] [--only TEXT]

`carried` verifies what clean components of a family were carried to, those that mount, the corpora in turn;
`self` verifies components against themselves at three widths, the families in turn: any difference is a
false alarm. Prints what is not the same, with the first differences; every row goes to the cache
(browser-….json).
"""

from __future__ import annotations

import argparse
import json
import sys
import time
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import zip_longest
from pathlib import Path
from typing import Any

import directives
import single_files
from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY, STORY
from clean_carry.source.system import cache_folder
from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.pair import Trials, sides_of, sides_of_result, verified
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench
from corpus import CORPORA, fetched, sources

WIDTHS = (1280, 768, 400)
TARGETS = {
    "classes": ("jsx-class", "jsx-function"),
    "single": ("single-file-object", "single-file-flat"),
    "directives": ("directive", "controller-component"),
}


@dataclass(frozen=True)
class Chosen:
    """One component of a corpus, and the result of carrying its file."""

    name: str
    path: Path
    result: Result


def files_of(family: str) -> Iterator[tuple[str, Path]]:
    """(corpus, file) of a family, the corpora in turn."""
    lists: list[list[tuple[str, Path]]] = []
    if family == "classes":
        for corpus in CORPORA.values():
            found = sources(fetched(corpus) / corpus.sources)
            lists.append([(corpus.package, path) for path in found])
    elif family == "single":
        for corpus in single_files.CORPORA:
            found = single_files.sources(fetched(corpus) / corpus.sources)
            lists.append([(f"{corpus.package} {corpus.version}", path) for path in found])
    else:
        for each in directives.CORPORA:
            lists.append([(each.package, path) for path in directives.scripts(each)])
    # Spread over each corpus, so that one folder of it does not stand for all.
    spread = [found[::3] + found[1::3] + found[2::3] for found in lists]
    for turn in zip_longest(*spread):
        yield from (one for one in turn if one is not None)


def chosen(family: str) -> Iterator[Chosen]:
    """The components of a family that are carried clean."""
    origin, target = TARGETS[family]
    for corpus, path in files_of(family):
        try:
            results = carry_file(Request(path, str(path), target, origin))
        except CarryError:
            continue
        if family != "directives" and len(results) > 1:
            continue
        for result in results:
            if result.status == "clean":
                yield Chosen(f"{corpus} {path.stem} {result.component}", path, result)


def demo() -> Iterator[Chosen]:
    """The components of the demo."""
    for name, target in STORY:
        path = COMPANY / name
        for result in carry_file(Request(path, str(path), target)):
            if result.files:
                yield Chosen(f"demo {path.stem} {result.component}", path, result)


def against(bench: Bench, one: Chosen, budget: float, *, itself: bool) -> Verification:
    """Old against new, or against itself, in the page and then in the browser."""
    name = one.result.component if one.result.origin == "directive" else ""
    if itself:
        text = one.path.read_text("utf-8")
        old, new, interface = sides_of(one.path, text, one.path, text)
        new = replace(new, application=old.application)
    else:
        old, new, interface = sides_of_result(one.path, one.result)
    effort = Effort(budget, shrink=False)
    return verified(bench, (old, new), interface, Trials(None, name), effort)


def row_of(one: Chosen, found: Verification, seconds: float) -> dict[str, Any]:
    """What became of one component."""
    seen = found.seen
    told = [
        f"{d.step} {d.what} {d.place}: {str(d.old)[:80]} | {str(d.new)[:80]} | {d.cause[:80]}"
        for result in (seen.results if seen is not None else ())
        for d in result.differences
    ]
    return {
        "name": one.name,
        "page": "not run" if not found.trials else Counter(t.verdict for t in found.trials),
        "verdict": found.verdict,
        "browser": seen.verdict if seen is not None else "",
        "views": list(seen.views) if seen is not None else [],
        "runs": Counter(r.verdict for r in seen.results) if seen is not None else {},
        "reasons": sorted(
            {r.reason for r in (seen.results if seen is not None else ()) if r.reason}
        ),
        "points": seen.points if seen is not None else 0,
        "unlooked": seen.unlooked if seen is not None else 0,
        "told": told[:8],
        "reason": found.reason,
        "seconds": round(seconds, 1),
    }


def main() -> None:
    """Run and print."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("which", choices=("carried", "self"))
    parser.add_argument("--family", choices=tuple(TARGETS), default="classes")
    parser.add_argument("--components", type=int, default=40)
    parser.add_argument("--budget", type=float, default=3.0)
    parser.add_argument("--only", default="")
    given = parser.parse_args()
    itself = given.which == "self"
    gaze = Gaze(WIDTHS if itself else (), given.budget)
    if itself:
        groups = zip_longest(*(chosen(family) for family in TARGETS))
        every = (one for group in groups for one in group if one is not None)
        candidates = (one for part in (demo(), every) for one in part)
    else:
        candidates = chosen(given.family)
    rows: list[dict[str, Any]] = []
    place = cache_folder() / f"browser-{given.which}-{'all' if itself else given.family}.json"
    with Bench(say=lambda text: print(text, file=sys.stderr), gaze=gaze) as bench:
        for one in candidates:
            if given.only not in one.name:
                continue
            ran = sum(bool(row["browser"]) and not row["name"].startswith("demo ") for row in rows)
            if ran >= given.components:
                break
            started = time.monotonic()
            try:
                found = against(bench, one, given.budget, itself=itself)
            except CarryError as error:
                print(f"{one.name}: {error}", file=sys.stderr)
                continue
            row = row_of(one, found, time.monotonic() - started)
            rows.append(row)
            place.write_text(json.dumps(rows, indent=1))
            print(
                f"{row['browser'] or '-':8} {one.name} {row['runs']} {row['seconds']} s", flush=True
            )
            if row["browser"] not in ("same", ""):
                print(
                    *(f"    {text}" for text in (*row["told"], *row["reasons"])),
                    sep="\n",
                    flush=True,
                )
    counted = Counter(row["browser"] or "not mounted" for row in rows)
    print(
        f"{len(rows)} components: " + ", ".join(f"{n} {what}" for what, n in counted.most_common())
    )
    print(f"settled points: {sum(row['points'] for row in rows)}; rows: {place}")


if __name__ == "__main__":
    main()
