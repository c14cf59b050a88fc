"""Compare the groups that are found in open pages with those a developer would lift.

    python benchmarks/lift.py [--page PART]
    python benchmarks/lift.py --to SYNTAX [--browser [--styled]] [--page PART]

The key is `keys/lift.yaml`; its head says how groups are compared. Printed are wrong groups, groups that
were not found, precision and recall. With --to the pages are lifted, and each page is compared with what
takes its place, in the simulated page or in a browser as well.
"""

from __future__ import annotations

import argparse
import sys
from collections import Counter
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import cssselect2
import yaml

from clean_carry.component.errors import CarryError
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.groups import Group, find_groups
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.project.lift.lift import Wishes, lift
from clean_carry.source.system import cache_folder
from clean_carry.source.text import SourceText
from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.pair import Trials, sides_of, verified, with_drawn
from clean_carry.verify.verify import Effort, read_text
from clean_carry.verify.worker_pool import Bench
from pages import stylesheets

HERE = Path(__file__).parent


def selected(root: Block, selectors: dict[str, str]) -> dict[str, list[Block]]:
    """The blocks that each selector matches."""
    blocks: dict[ElementTree.Element, Block] = {}

    def element(block: Block) -> ElementTree.Element:
        made = ElementTree.Element(block.tag, {k: v or "" for k, v in block.attributes.items()})
        blocks[made] = block
        made.extend(element(one) for one in block.elements)
        return made

    wrapped = cssselect2.ElementWrapper.from_html_root(element(root))
    return {
        name: [blocks[found.etree_element] for found in wrapped.query_all(selector)]
        for name, selector in selectors.items()
    }


def judged(root: Block, key: dict[str, object], shown: str, say: bool) -> tuple[int, int, int, int]:
    """Of one page: right groups, all judged groups, key groups found, all key groups."""
    groups = dict(key["groups"])  # type: ignore[call-overload]
    found = selected(root, {**groups, "": str(key["within"])})
    inside = {id(part) for top in found.pop("") for part in top.walk()}
    of = {id(one): name for name, copies in found.items() for one in copies if id(one) in inside}
    covered: dict[str, int] = dict.fromkeys(found, 0)
    right = wrong = 0
    groups_found = find_groups([root])
    reasons = {id(one): group for group in groups_found for one in group.copies}
    for group in groups_found:
        copies = [one for one in group.copies if id(one) in inside]
        if not group.lifted or 2 * len(copies) <= len(group.copies):
            continue
        names = [of.get(id(one), "") for one in copies]
        best = max(set(names), key=names.count)
        if best and names.count(best) >= 0.8 * len(names):
            right += 1
            covered[best] += names.count(best)
        elif not all(any(id(around) in of for around in one.above()) for one in copies):
            wrong += 1
            if say:
                print(f"  wrong   {shown}: {_label(group)}")
    got = 0
    for name, count in covered.items():
        total = sum(id(one) in inside for one in found[name])
        if count >= 0.6 * total:
            got += 1
        elif say:
            why = Counter(_reason(reasons.get(id(one))) for one in found[name] if id(one) in inside)
            print(f"  missed  {shown}: {name}, {count} of {total}: {dict(why)}")
    return right, right + wrong, got, len(covered)


def _reason(group: Group | None) -> str:
    return (
        group.reason or f"lifted with others, {_label(group)}"
        if group is not None
        else "alike to none"
    )


def _label(group: Group) -> str:
    one = group.copies[0]
    line = one.source.place(one.node.start).line
    return f"{one.tag}.{'.'.join(one.classes)} ×{len(group.copies)}, line {line}"


def drawn(part: str, target: str, browser: bool, styled: bool) -> int:
    """Lift each page of the key, and compare it with what takes its place."""
    gaze = Gaze((1280, 400), 20.0) if browser else None
    outcomes: Counter[str] = Counter()
    groups = 0
    with Bench(size=1, gaze=gaze) as bench:
        for path, name in _paths(part):
            try:
                made = lift([path], target, Wishes())
            except CarryError as error:
                outcomes["error"] += 1
                print(f"  error   {name}: {error.one_line()[:200]}")
                continue
            groups += len(made.lifted)
            for finding in made.refused:
                print(f"  refused {name}: {finding.file}:{finding.line}: {finding.message[:160]}")
            entry = made.entries.get(path)
            if entry is None:
                outcomes["refused"] += 1
                continue
            old, new, interface = sides_of(path, read_text(path), entry, made.files[entry])
            new = with_drawn(new, made.files.items())
            if styled:
                settings = replace(old.settings, styles=stylesheets(path))
                old, new = replace(old, settings=settings), replace(new, settings=settings)
            found = verified(bench, (old, new), interface, Trials(None), Effort(5.0))
            outcomes[found.verdict] += 1
            if found.verdict != "same":
                seen = found.seen.results if found.seen is not None else ()
                gaps = [d for t in (*found.trials, *seen) for d in t.differences]
                told = (
                    f"{gaps[0].what} at {gaps[0].place}: {gaps[0].old!r:.80} → {gaps[0].new!r:.80}"
                    if gaps
                    else found.reason
                )
                told = told or next((t.reason for t in found.trials), "")
                print(f"  {found.verdict:<7} {name}: {told[:260]}", flush=True)
    print(f"{groups} groups lifted; pages: {dict(outcomes)}")
    return 0


def _paths(part: str) -> list[tuple[Path, str]]:
    pages = yaml.safe_load((HERE / "keys" / "lift.yaml").read_text("utf-8"))
    return [
        (cache_folder() / "corpora" / package / name, name)
        for package, files in pages.items()
        for name in files
        if not part or part in name
    ]


def main(part: str) -> int:
    total = [0, 0, 0, 0]
    pages = yaml.safe_load((HERE / "keys" / "lift.yaml").read_text("utf-8"))
    for package, files in pages.items():
        for name, key in files.items():
            if part and part not in name:
                continue
            path = cache_folder() / "corpora" / package / name
            root = page_blocks(SourceText.read(path))
            for at, count in enumerate(judged(root, key, name, say=True)):
                total[at] += count
    print(f"precision {total[0]} of {total[1]} ({100 * total[0] / max(1, total[1]):.0f} %)")
    print(f"recall {total[2]} of {total[3]} ({100 * total[2] / max(1, total[3]):.0f} %)")
    return 0


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--page", default="")
    parser.add_argument("--to", default="")
    parser.add_argument("--browser", action="store_true")
    parser.add_argument("--styled", action="store_true", help="with the pages' own stylesheets")
    given = parser.parse_args()
    if given.to:
        sys.exit(drawn(given.page, given.to, given.browser, given.styled))
    sys.exit(main(given.page))
