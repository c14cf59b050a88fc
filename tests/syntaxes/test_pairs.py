"""Every construct: an input, what it is carried to, and a trial that renders both."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.verify.pair import pair_of, trials_for, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench
from tests_support import TARGETS

PAIRS = [
    (folder, target, folder / name)
    for folder in sorted(Path(__file__).parent.glob("*/pairs/*/"))
    for target, names in TARGETS[folder.parent.parent.name].items()
    for name in names
    if (folder / name).exists()
]
IDS = [f"{folder.name}-{new.name}" for folder, _, new in PAIRS]


def _old(folder: Path) -> Path:
    return next(p for p in folder.glob("old.*") if not p.name.endswith(".yaml"))


@pytest.mark.parametrize(("folder", "target", "new"), PAIRS, ids=IDS)
def test_written_as_expected(folder: Path, target: str, new: Path) -> None:
    old = _old(folder)
    results = carry_file(Request(old, old.name, target))
    assert results[0].files[0].text == new.read_text("utf-8")
    for extra in results[0].files[1:]:
        assert extra.text == (folder / extra.path).read_text("utf-8")
    assert results[0].status == ("left" if folder.name.startswith("left") else "clean")


@pytest.mark.parametrize(("folder", "target", "new"), PAIRS, ids=IDS)
def test_same_in_the_real_runtime(folder: Path, target: str, new: Path, bench: Bench) -> None:
    old = _old(folder)
    before, after, interface = pair_of(old, new)
    trials = trials_for(old, None)
    assert trials.trials
    result = verified(bench, (before, after), interface, trials, Effort())
    assert result.verdict == "same", [t.as_json() for t in result.trials] or result.reason
    assert {trial.verdict for trial in result.trials} == {"same"}


@pytest.mark.parametrize(("folder", "target", "new"), PAIRS, ids=IDS)
def test_no_comment_is_lost(folder: Path, target: str, new: Path) -> None:
    old = _old(folder)
    if old.suffix == ".vue":
        text = old.read_text("utf-8")
        wanted = [line.strip() for line in text.splitlines() if line.strip().startswith("//")]
    else:
        wanted = [c.text for c in Tree(SourceText.read(old)).comments]
    written = new.read_text("utf-8")
    assert [text for text in wanted if text not in written] == []
