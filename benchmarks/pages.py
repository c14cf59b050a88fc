"""Carry whole pages of open packages, and compare page and component in the simulated page or a browser.

    python benchmarks/pages.py [--to SYNTAX] [--browser] [--most N]

Pages of four packages, their scripts off on both sides and their stylesheets on both. Printed are the
outcomes, the verdicts and the rules that refused pages.
"""

from __future__ import annotations

import argparse
import subprocess
import sys
from collections import Counter
from dataclasses import replace
from pathlib import Path

from clean_carry.component.errors import CarryError
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.html.page import read_page
from clean_carry.source.system import cache_folder
from clean_carry.source.text import SourceText
from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.pair import Trials, sides_of_result, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

PACKAGES = (
    ("admin-lte@3.2.0", "pages"),
    ("startbootstrap-sb-admin-2@4.1.4", "."),
    ("uikit@3.25.29", "tests"),
    ("material-kit@2.0.4", "."),
)


def pages(name: str, inside: str) -> list[Path]:
    """The pages of a package, fetched once."""
    folder = cache_folder() / "corpora" / name.replace("@", "-")
    if not (folder / "package").exists():
        folder.mkdir(parents=True, exist_ok=True)
        done = subprocess.run(
            ["npm", "pack", name, "--silent"],
            cwd=folder,
            capture_output=True,
            text=True,
            check=True,
        )
        subprocess.run(["tar", "xzf", done.stdout.split()[-1]], cwd=folder, check=True)
    found = sorted((folder / "package" / inside).rglob("*.html"))
    return [path for path in found if "plugins" not in path.parts and "docs" not in path.parts]


def stylesheets(path: Path) -> tuple[Path, ...]:
    """The stylesheets that a page loads from its own package."""
    source = SourceText.read(path)
    found = []
    for node in read_page(source).html.walk():
        one = node.attribute("href") if node.kind == "element" and node.tag == "link" else None
        if one is not None and one.value is not None:
            place = (path.parent / source.slice(*one.value)).resolve()
            if place.suffix == ".css" and place.is_file():
                found.append(place)
    return tuple(found)


def main(target: str, browser: bool, most: int) -> int:
    gaze = Gaze((1280, 400), 20.0) if browser else None
    outcomes: Counter[str] = Counter()
    with Bench(size=1, gaze=gaze) as bench:
        for name, inside in PACKAGES:
            for path in pages(name, inside)[:most]:
                outcomes[_one(bench, path, target, browser)] += 1
    for outcome, count in outcomes.most_common():
        print(f"{count:>4} {outcome}")
    return 0


def _one(bench: Bench, path: Path, target: str, browser: bool) -> str:
    shown = "/".join(path.parts[-3:])
    try:
        result = carry_file(Request(path, str(path), target))[0]
        if result.status == "refused":
            finding = next(one for one in result.findings if one.level == "error")
            print(f"refused  {shown}:{finding.line}: {finding.message[:90]}")
            return f"refused: {finding.rule}"
        old, new, interface = sides_of_result(path, result)
        if browser:
            settings = replace(old.settings, styles=stylesheets(path))
            old, new = replace(old, settings=settings), replace(new, settings=settings)
        found = verified(bench, (old, new), interface, Trials(None), Effort(5.0))
    except CarryError as error:
        print(f"error    {shown}: {error.one_line()[:140]}")
        return "error"
    if found.verdict != "same":
        gap = next((d for t in found.trials for d in t.differences), None)
        seen = found.seen.results if found.seen is not None else ()
        gap = gap or next((d for t in seen for d in t.differences), None)
        text = (
            f"{gap.what} at {gap.place}: {gap.old!r:.60} → {gap.new!r:.60}" if gap else found.reason
        )
        print(f"{found.verdict:<8} {shown}: {text[:200]}")
    return f"{result.status}, {found.verdict}"


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--to", default="single-file-flat")
    parser.add_argument("--browser", action="store_true")
    parser.add_argument("--most", type=int, default=1000)
    given = parser.parse_args()
    sys.exit(main(given.to, given.browser, given.most))
