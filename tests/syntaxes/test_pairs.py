"""Every construct: an input, what it is carried to, and a trial that renders both."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.verify.pair import pair_of, trials_for
from clean_carry.verify.verify import Bench, verify

PAIRS = sorted(Path(__file__).parent.glob("*/pairs/*/"))


def _files(folder: Path) -> tuple[Path, Path]:
    old = next(p for p in folder.glob("old.*") if not p.name.endswith(".yaml"))
    return old, folder / ("new" + old.suffix)


@pytest.mark.parametrize("folder", PAIRS, ids=lambda p: p.name)
def test_written_as_expected(folder: Path) -> None:
    old, new = _files(folder)
    results = carry_file(Request(old, old.name, "jsx-function"))
    assert results[0].files[0].text == new.read_text("utf-8")
    assert results[0].status == ("left" if folder.name.startswith("left") else "clean")


@pytest.mark.parametrize("folder", PAIRS, ids=lambda p: p.name)
def test_same_in_the_real_runtime(folder: Path, bench: Bench) -> None:
    old, new = _files(folder)
    before, after, interface = pair_of(old, new)
    trials = trials_for(old, before.text, None)
    result = verify(bench, trials.mount(before), trials.mount(after), trials.trials, interface)
    assert result.verdict == "same", [t.as_json() for t in result.trials] or result.reason
    assert {trial.verdict for trial in result.trials} == {"same"}


@pytest.mark.parametrize("folder", PAIRS, ids=lambda p: p.name)
def test_no_comment_is_lost(folder: Path) -> None:
    from clean_carry.source.javascript.tree import Tree
    from clean_carry.source.text import SourceText

    old, new = _files(folder)
    wanted = [c.text for c in Tree(SourceText.read(old)).comments]
    written = new.read_text("utf-8")
    assert [text for text in wanted if text not in written] == []
