"""Measure how long it takes to find what repeats, and to lift it, on generated pages.

    python benchmarks/lift_speed.py [--most ELEMENTS]

Printed are seconds for reading a page, for finding groups, and for lifting (to the syntax in which
components are composed), with the ratio to n log n of the smallest page: it stays near 1.
"""

from __future__ import annotations

import argparse
import math
import random
import sys
import tempfile
import time
from pathlib import Path

from clean_carry.crossing.lift import block
from clean_carry.crossing.lift.groups import find_groups
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.project.lift.lift import COMPOSED, Wishes, lift
from clean_carry.source.text import SourceText

CARD = (
    '<div class="cell"><article class="island tone-{tone}"><img src="{n}.png" alt="Pier {n}">'
    "<h3>Pier {n}{badge}</h3><p>{text}</p><ul>{items}</ul></article></div>\n"
)


def page(size: int) -> str:
    """A page of about so many elements: sections of cards, tables and notices, the same for each size."""
    pick = random.Random(7)
    parts = ["<!DOCTYPE html>\n<body>\n"]
    made = 0
    while made < size:
        cards = pick.randrange(2, 9)
        parts.append(f'<section class="part"><h2>Part {made}</h2><div class="islands">\n')
        for _ in range(cards):
            items = "<li><a href='#'>Berth</a></li>" * pick.randrange(4)
            badge = ' <b class="badge">New</b>' if pick.random() < 0.4 else ""
            text = "Sand and seals. " * pick.randrange(1, 4)
            tone = pick.choice(("sand", "rock", "heath"))
            parts.append(CARD.format(n=made, tone=tone, badge=badge, text=text, items=items))
            made += 7 + items.count("<a") * 2
        rows = "<tr><td>Tern</td><td>8</td><td>4</td></tr>\n" * pick.randrange(2, 7)
        parts.append(f"</div><table><tbody>{rows}</tbody></table></section>\n")
        made += 5 + rows.count("<t")
    return "".join([*parts, "</body>\n"])


def main(most: int) -> int:
    sizes = [size for size in (2_000, 6_000, 18_000, 50_000) if size <= most]
    unit = 0.0
    print(f"{'elements':>9} {'read s':>8} {'find s':>8} {'lift s':>8} {'of n log n':>11}")
    with tempfile.TemporaryDirectory() as folder:
        for size in sizes:
            place = Path(folder, f"page{size}.html")
            place.write_text(page(size), "utf-8")
            block.forget()
            started = time.perf_counter()
            root = page_blocks(SourceText.read(place))
            read = time.perf_counter()
            find_groups([root])
            found = time.perf_counter()
            lift([place], COMPOSED, Wishes())
            done = time.perf_counter()
            n = root.size
            unit = unit or (done - found) / (n * math.log(n))
            ratio = (done - found) / (n * math.log(n)) / unit
            print(
                f"{n:>9} {read - started:>8.2f} {found - read:>8.2f} {done - found:>8.2f} {ratio:>11.2f}",
                flush=True,
            )
    return 0


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--most", type=int, default=50_000)
    sys.exit(main(parser.parse_args().most))
