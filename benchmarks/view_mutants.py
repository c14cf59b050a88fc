"""How many mutants of views and of their classes are told from the single files they were carried from.

    python benchmarks/view_mutants.py [--budget SECONDS] [--each N] [--seed N] [NAME]

The everyday components that become views of a server. One place of the view or of its class is changed at
a time, and the old single file is compared with it in the engine. NAME takes one component only.
"""

from __future__ import annotations

import argparse
import random
import re
import sys
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.told import told_of
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

FOLDER = Path(__file__).parents[1] / "tests" / "everyday" / "server_pages"
PAIRS = {
    "BerthSearch": "stateful-view",
    "DiscountCodes": "stateful-view",
    "SailingList": "stateful-view",
    "RouteTabs": "stateful-view",
    "SeatCounter": "stateful-view",
    "DeckPlan": "server-view",
    "FareTable": "server-view",
    "NoticeBox": "server-view",
}
# What a view holds of code: directives with a value, echoes, listeners with one.
_CODE = re.compile(r"@(?:if|foreach|class)\s?\((.*?)\)(?=$|[\s@<{>])|\{\{(.*?)\}\}", re.MULTILINE)
# (operator, pattern, replacement) on code.
ON_CODE = (
    ("change_a_number", r"(?<![\w.'])(\d+)(?![\w'])", lambda found: str(int(found[1]) + 1)),
    ("shift_a_limit", r"<=", "<"),
    ("shift_a_limit", r">=", ">"),
    ("shift_a_limit", r"(?<![-=?$])>(?![=\w])", ">="),
    ("turn_a_test", r"===", "!=="),
    ("turn_a_test", r"!==", "==="),
    ("swap_an_operator", r" \+ ", " - "),
    ("swap_an_operator", r" - ", " + "),
    ("swap_an_operator", r" \* ", " + "),
    ("swap_an_operator", r" \|\| ", " && "),
    ("swap_an_operator", r"\+\+", "--"),
    ("swap_an_operator", r"(?<=\w)--(?=;)", "++"),
    ("swap_an_operator", r" \+= ", " -= "),
    ("change_a_word", r"'([a-z]{3,})'(?!\])", r"'x\1'"),
    ("turn_a_value", r"\bfalse\b", "true"),
    ("turn_a_value", r"\btrue\b", "false"),
    ("drop_a_call", r"mb_str\w+\(((?:[^()]|\([^()]*\))*)\)", r"\1"),
    ("drop_a_call", r"Js::trim\(((?:[^()]|\([^()]*\))*)\)", r"\1"),
)
# The same on the text of a view.
ON_VIEW = (
    ("always", r"@if \(.*?\)(?=$|[\s<{])", "@if (true)"),
    ("never", r"@if \(.*?\)(?=$|[\s<{])", "@if (false)"),
    ("drop_an_item", r"@foreach \((\$\S+) as", r"@foreach (array_slice(\1, 1) as"),
    ("drop_what_is_shown", r"(?<=[>\s])\{\{[^}]*\}\}", ""),
    ("drop_an_attribute", r' (?!wire:key)[\w:.-]+="[^"]*"', ""),
    ("drop_a_class", r" @class\(\[.*?\]\)", ""),
    ("change_shown_text", r"(?<=>)[A-Z][a-z ]+(?=[<.])", "Other words"),
    ("change_a_value", r"(wire:click=\"\$set\('\w+', ')", r"\1x"),
)
ON_CLASS = (
    ("drop_a_statement", r"^ {8,}\$this->.*;\n", ""),
    ("drop_a_filter", r"array_values\(array_filter\((\S+),.*\)\)(?=;)", r"\1"),
)


@dataclass(frozen=True)
class Mutant:
    """One changed text: its operator, the file, the line, and what was changed to what."""

    operator: str
    file: int
    line: int
    before: str
    after: str
    text: str


def mutants_of(text: str, file: int) -> Iterator[Mutant]:
    """All mutants of a view or of its class."""
    is_view = not text.startswith("<?php")
    rows = [(*row, is_view) for row in ON_CODE]
    rows += [(*row, False) for row in (ON_VIEW if is_view else ON_CLASS)]
    code = [one.span() for one in _CODE.finditer(text)]
    for name, pattern, replacement, only_code in rows:
        for found in re.finditer(pattern, text, re.MULTILINE):
            start, end = found.span()
            if only_code and not any(a <= start and end <= b for a, b in code):
                continue
            after = replacement(found) if callable(replacement) else found.expand(replacement)
            whole = text[:start] + after + text[end:]
            line = text.count("\n", 0, start) + 1
            yield Mutant(name, file, line, found[0].strip(), after, whole)


def chosen(result: Result, each: int, rng: random.Random) -> list[Mutant]:
    """Some mutants of the new files, of as many operators as there are."""
    found = [
        mutant
        for at, one in enumerate(result.files)
        if not one.path.endswith("Js.php")
        for mutant in mutants_of(one.text, at)
    ]
    rng.shuffle(found)
    kept: list[Mutant] = []
    while len(kept) < min(each, len(found)):
        counts = Counter(one.operator for one in kept)
        kept.append(
            min((one for one in found if one not in kept), key=lambda one: counts[one.operator])
        )
    return kept


def with_mutant(result: Result, mutant: Mutant) -> Result:
    """The result with one of its files changed."""
    files = list(result.files)
    files[mutant.file] = replace(
        files[mutant.file], text=mutant.text, data=mutant.text.encode("utf-8")
    )
    return replace(result, files=tuple(files))


def main() -> None:
    """Verify the pairs and their mutants, and print which ones were not told apart."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--budget", type=float, default=8.0)
    parser.add_argument("--each", type=int, default=6)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("name", nargs="?", choices=PAIRS)
    given = parser.parse_args()
    rng = random.Random(given.seed)
    pairs = {given.name: PAIRS[given.name]} if given.name else PAIRS
    told = total = same = 0
    with Bench(say=lambda text: print(text, file=sys.stderr)) as bench:
        for name, target in pairs.items():
            path = FOLDER / f"{name}.vue"
            result = carry_file(
                Request(path, str(path), target, told=told_of(path, path.read_text("utf-8")))
            )[0]

            def verdict(one: Result, path: Path = path) -> str:
                old, new, interface = sides_of_result(path, one)
                effort = Effort(given.budget, seed=given.seed)
                return verified(bench, (old, new), interface, Trials(None), effort).verdict

            first = verdict(result)
            same += first == "same"
            if first != "same":
                print(f"{name} itself: {first}")
            for mutant in chosen(result, given.each, rng):
                found = verdict(with_mutant(result, mutant))
                total += 1
                told += found == "differs"
                if found != "differs":
                    print(f"{name} {mutant.operator} line {mutant.line}: {mutant.before!r} → "
                          f"{mutant.after!r}: {found}", flush=True)  # fmt: skip
    print(f"{same} of {len(pairs)} pairs the same; {told} of {total} mutants told apart")


if __name__ == "__main__":
    main()
