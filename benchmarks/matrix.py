"""Six components, every way between two families: carried, and verified in the runtimes of both sides.

    python benchmarks/matrix.py [--budget SECONDS] [--seed N] [--only NAME] [--check]

With --check the table is compared with the kept one, and nothing is written. Otherwise it writes
benchmarks/matrix.json, which `benchmarks/crossings.py` shows as a table of docs/crossings.md. A cell is
`same`, `unproven`, `differs`, or `refused` with the rule. Where a file can be carried back, the round
trip is verified against the file it began with: what comes back sees only the text between.
"""

from __future__ import annotations

import argparse
import json
import sys
import tempfile
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.component.interface import InterfaceMap
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.crossing.chain import through
from clean_carry.syntaxes.registry import declared, is_across, way
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

CANONICAL = Path(__file__).parent.parent / "tests" / "canonical"
PAGE = Path(__file__).with_suffix(".json")
ORIGINS = (
    "jsx-class",
    "jsx-function",
    "single-file-object",
    "single-file-flat",
    "registered-object",
    "decorated-class",
    "controller-component",
    "directive",
)
TARGETS = ("jsx-function", "single-file-flat", "single-file-object", "decorated-class")
NAMES = {
    "BerthCard": "props and events",
    "DepartureList": "list and condition",
    "FreightForm": "form",
    "TideFetch": "fetch with cleanup",
    "NoticePanel": "slots",
    "QuayBadge": "styles",
}


def kebab(name: str) -> str:
    """`TideFetch` as `tide-fetch`."""
    return "".join(f"-{sign.lower()}" if sign.isupper() else sign for sign in name).lstrip("-")


def file_of(name: str, origin: str) -> Path:
    """The file of a canonical component in a syntax."""
    folder = CANONICAL / origin.replace("-", "_")
    stems = (name, kebab(name), f"{kebab(name)}.component")
    return next(path for path in folder.iterdir() if path.stem in stems)


def carried(path: Path, origin: str, target: str) -> Result:
    """What a file becomes; a refusal is a result too."""
    return carry_file(Request(path, path.name, target, origin, assume_carried=True))[0]


def verdict(
    bench: Bench, path: Path, result: Result, effort: Effort, through_: InterfaceMap | None = None
) -> str:
    """What comparing the old file with the new text gives; `through_` is the map of what came back."""
    if result.status == "refused":
        return f"refused {result.findings[0].rule}"
    old, new, interface = sides_of_result(path, result)
    interface = interface or through_
    return verified(bench, (old, new), interface, Trials(None), effort).verdict


def round_trip(bench: Bench, path: Path, result: Result, origin: str, effort: Effort) -> str:
    """Carry the text of a result back, from a folder with nothing else in it, and verify it."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for file in result.files:
            (folder / Path(file.path).name).write_bytes(file.data)
        between = folder / Path(result.files[0].path).name
        try:
            back = carried(between, result.target, origin)
        except CarryError as error:
            return f"refused {error.what}"
        across = is_across(declared(result.target), declared(origin))
        across = across or is_across(declared(origin), declared(result.target))
        there_and_back = through(result.interface, back.interface) if across else None
        return verdict(bench, path, back, effort, there_and_back)


def main() -> int:
    """Fill the table."""
    parser = argparse.ArgumentParser(description=(__doc__ or "").split("\n")[0])
    parser.add_argument("--budget", type=float, default=3.0)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--only", choices=NAMES)
    parser.add_argument("--from", dest="origins", choices=ORIGINS, nargs="+", default=ORIGINS)
    parser.add_argument("--check", action="store_true")
    options = parser.parse_args()
    effort = Effort(options.budget, seed=options.seed)
    found: dict[str, dict[str, dict[str, str]]] = {}
    with Bench() as bench:
        for name in NAMES:
            for origin in options.origins:
                for target in TARGETS:
                    itself = origin == target and not declared(origin).renews
                    if itself or (options.only and options.only != name):
                        continue
                    path = file_of(name, origin)
                    result = carried(path, origin, target)
                    cell = {"there": verdict(bench, path, result, effort)}
                    # The element of a class takes all attributes, and what it becomes does, too.
                    takes_all = target == "decorated-class" and origin == "jsx-function"
                    there = cell["there"] == "same" and origin != target and not takes_all
                    if there and way(target, origin):
                        cell["back"] = round_trip(bench, path, result, origin, effort)
                    found.setdefault(name, {})[f"{origin} → {target}"] = cell
                    print(f"{name} {origin} → {target}: {cell}", file=sys.stderr)
    if options.check:
        kept = json.loads(PAGE.read_text("utf-8"))
        wrong = [
            name
            for name, cells in found.items()
            if any(kept[name].get(way) != cell for way, cell in cells.items())
        ]
        print(f"other than kept: {', '.join(wrong)}" if wrong else "as kept")
        return 1 if wrong else 0
    kept = json.loads(PAGE.read_text("utf-8")) if PAGE.exists() else {}
    found = {name: {**kept.get(name, {}), **found.get(name, {})} for name in NAMES}
    PAGE.write_text(json.dumps(found, indent=1, ensure_ascii=False) + "\n", "utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
