"""Carrying takes apart what points at itself: nothing waits for a collection."""

from __future__ import annotations

import gc

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY


def test_carrying_leaves_nothing_to_collect() -> None:
    files = sorted((COMPANY / "components").glob("*.jsx"))
    for file in files:
        carry_file(Request(file, file.name, "jsx-function"))
    gc.collect()
    gc.disable()
    try:
        for file in files:
            carry_file(Request(file, file.name, "jsx-function"))
        # A tree alone has hundreds of nodes.
        assert gc.collect() < 100
    finally:
        gc.enable()
