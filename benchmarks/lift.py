"""Compare the groups that are found in open pages with those a developer would lift.

    python benchmarks/lift.py [--page PART] [--all]

The key is `keys/lift.yaml`; its head says how groups are compared. Printed are wrong groups, groups that
were not found, precision and recall.
"""

from __future__ import annotations

import argparse
import sys
from collections import Counter
from pathlib import Path
from xml.etree import ElementTree

import cssselect2
import yaml

from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.groups import Group, find_groups
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.source.system import cache_folder
from clean_carry.source.text import SourceText

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
    return group.reason or f"lifted with others, {_label(group)}" if group is not None else "alike to none"


def _label(group: Group) -> str:
    one = group.copies[0]
    line = one.source.place(one.node.start).line
    return f"{one.tag}.{'.'.join(one.classes)} ×{len(group.copies)}, line {line}"


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
    sys.exit(main(parser.parse_args().page))
