"""How many mutants of components carried across families are told from what they were carried from.

    python benchmarks/across_mutants.py [--of NAME] [--budget SECONDS] [--each N] [--seed N]

Ten pairs of the demo (`--of demo`): five classes as single files, five single files as functions. Ten of
everyday components (`--of everyday`): functions as single files, single files of both forms as functions,
and as each other. Ten that become decorated classes (`--of classes`): five of an older notation, five of
other syntaxes. Each new file is changed in one place at a time, by the operators of mutants.py, and
verified against the old file in its own runtime.
"""

from __future__ import annotations

import argparse
import random
import sys
from collections import Counter
from dataclasses import replace
from pathlib import Path

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench
from mutants import Mutant, mutants_of

EVERYDAY = Path(__file__).parents[1] / "tests" / "everyday"
CANONICAL = EVERYDAY.with_name("canonical")
PAIRS = {
    "demo": (
        (COMPANY / "components/SailingCard.jsx", "single-file-flat"),
        (COMPANY / "components/TideStrip.jsx", "single-file-flat"),
        (COMPANY / "components/NoticePanel.jsx", "single-file-flat"),
        (COMPANY / "components/CargoChecklist.jsx", "single-file-flat"),
        (COMPANY / "components/TicketForm.tsx", "single-file-flat"),
        (COMPANY / "passenger/SeatCounter.vue", "jsx-function"),
        (COMPANY / "passenger/BoardingClock.vue", "jsx-function"),
        (COMPANY / "passenger/NoticeDialog.vue", "jsx-function"),
        (COMPANY / "passenger/TicketBasket.vue", "jsx-function"),
        (COMPANY / "passenger-older/WeatherStrip.vue", "jsx-function"),
    ),
    "everyday": (
        (EVERYDAY / "functions" / "SailingSearch.jsx", "single-file-flat"),
        (EVERYDAY / "functions" / "SeatCounter.jsx", "single-file-flat"),
        (EVERYDAY / "functions" / "TideBoard.jsx", "single-file-flat"),
        (EVERYDAY / "functions" / "DeckPicker.jsx", "single-file-flat"),
        (EVERYDAY / "flat_files" / "BerthForm.vue", "jsx-function"),
        (EVERYDAY / "flat_files" / "TideBoard.vue", "jsx-function"),
        (EVERYDAY / "flat_files" / "DeckPicker.vue", "single-file-object"),
        (EVERYDAY / "flat_files" / "SailingSearch.vue", "single-file-object"),
        (EVERYDAY / "functions" / "DeckPicker.jsx", "single-file-object"),
        (COMPANY / "components/SailingCard.jsx", "single-file-object"),
    ),
    "classes": (
        *(
            (EVERYDAY / "decorated" / f"{name}.component.ts", "decorated-class")
            for name in (
                "sailing-list",
                "cargo-table",
                "route-tabs",
                "berth-search",
                "weather-panel",
            )
        ),
        *(
            (CANONICAL / "single_file_object" / f"{name}.vue", "decorated-class")
            for name in ("BerthCard", "DepartureList", "FreightForm", "TideFetch")
        ),
        (CANONICAL / "jsx_class" / "NoticePanel.jsx", "decorated-class"),
    ),
}


def verdict(bench: Bench, path: Path, result: Result, budget: float) -> str:
    """What comparing the old file with a new one gives."""
    old, new, interface = sides_of_result(path, result)
    return verified(bench, (old, new), interface, Trials(None), Effort(budget)).verdict


def with_text(result: Result, text: str) -> Result:
    """A result whose first file is another text."""
    first, *others = result.files
    return replace(result, files=(replace(first, text=text, data=text.encode()), *others))


def chosen(result: Result, each: int, rng: random.Random) -> list[Mutant]:
    """Some mutants of the new file, of as many operators as there are."""
    first = result.files[0]
    found = mutants_of(first.text, Path(first.path).name)
    rng.shuffle(found)
    seen: Counter[str] = Counter()
    for mutant in found:
        seen[mutant.operator] += 1
    kept: list[Mutant] = []
    while len(kept) < min(each, len(found)):
        counts = Counter(one.operator for one in kept)
        rest = [one for one in found if one not in kept]
        kept.append(min(rest, key=lambda one: counts[one.operator]))
    return kept


def main() -> None:
    """Verify the pairs and their mutants, print what was told apart."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--of", choices=PAIRS, default="demo")
    parser.add_argument("--budget", type=float, default=6.0)
    parser.add_argument("--each", type=int, default=6)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    rng = random.Random(given.seed)
    told = total = same = 0
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        for path, target in PAIRS[given.of]:
            name = path.name
            result = carry_file(Request(path, str(path), target, assume_carried=True))[0]
            first = verdict(bench, path, result, given.budget)
            same += first == "same"
            if first != "same":
                print(f"{name} itself: {first}")
            for mutant in chosen(result, given.each, rng):
                found = verdict(bench, path, with_text(result, mutant.text), given.budget)
                total += 1
                told += found == "differs"
                if found != "differs":
                    print(f"{name} {mutant.operator} line {mutant.line}: {mutant.before!r} → "
                          f"{mutant.after!r}: {found}")  # fmt: skip
    print(f"{same} of {len(PAIRS[given.of])} pairs the same; {told} of {total} mutants told apart")


if __name__ == "__main__":
    main()
