"""Mutants of carried demo components are told apart; correct rewrites in another style are not."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY
from clean_carry.verify.pair import pair_of, trials_for
from clean_carry.verify.pair import verified as verified_by
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.worker_pool import Bench

COMPONENTS = COMPANY / "components"
REWRITES = Path(__file__).parent / "rewrites"

# (kind, component, text of the carried component, what the mutant has instead)
MUTANTS: list[tuple[str, str, str, str]] = [
    # code that runs at another moment
    ("timing", "TicketForm.tsx", "  async function submit(event: FormEvent) {\n    event.preventDefault();\n    const errors",
     "  async function submit(event: FormEvent) {\n    await null;\n    event.preventDefault();\n    const errors"),
    ("timing", "BerthPicker.tsx", "useLayoutEffect(() => {\n    const prevProps", "React.useEffect(() => {\n    const prevProps"),
    ("timing", "NoticePanel.jsx", "setInterval(() => tick(), 1000)", "setInterval(() => tick(), 1500)"),
    ("timing", "TideStrip.jsx", "if (prevProps === null) return;", ""),
    ("timing", "DepartureBoard.jsx", "    setSailings(sailings);\n    setLoading(false);",
     "    setSailings(sailings);\n    setTimeout(() => setLoading(false), 50);"),
    ("timing", "DepartureBoard.jsx", "setInterval(() => load(), EVERY)", "setInterval(() => load(), 2 * EVERY)"),
    ("timing", "TicketForm.tsx", "    setSending(true);\n    onBook({", "    await null;\n    setSending(true);\n    onBook({"),
    ("timing", "TideStrip.jsx", "React.useLayoutEffect(() => {\n    const prevProps", "React.useEffect(() => {\n    const prevProps"),
    # a function that is a new one where it should be the same
    ("identity", "BerthPicker.tsx", "useCallback((id: string) => {", "((id: string) => {"),
    ("identity", "NoticePanel.jsx", "const setBox = useCallback((el) => {", "const setBox = ((el) => {"),
    ("identity", "NoticePanel.jsx", "ref={setBox}", "ref={(el) => setBox(el)}"),
    ("identity", "NoticePanel.jsx", "document.removeEventListener('keydown', onKey);", "document.removeEventListener('keydown', (e) => onKey(e));"),
    ("identity", "CargoChecklist.jsx", "<li key={id}>", "<li key={Math.random()}>"),
    ("identity", "BerthPicker.tsx", "onChoose={choose}", "onChoose={(id) => choose(id)}"),
    # a value of an earlier draw
    ("stale", "DepartureBoard.jsx", "    const pier = latestPier.current;\n", ""),
    ("stale", "DepartureBoard.jsx", "if (pier !== latestPier.current) return;", "if (pier !== pier) return;"),
    ("stale", "NoticePanel.jsx", "setSeconds(latest.current.seconds + 1)", "setSeconds(seconds + 1)"),
    ("stale", "NoticePanel.jsx", "if (!latest.current.open) return;", "if (!open) return;"),
    ("stale", "NoticePanel.jsx", "latest.current.onGone(latest.current.seconds)", "latest.current.onGone(seconds)"),
    ("stale", "TideStrip.jsx", "setNow(latest.current.now + STEP)", "setNow(now + STEP)"),
    ("stale", "TideStrip.jsx", "latest.current.onMove(latest.current.now, latest.current.pier)", "latest.current.onMove(latest.current.now, pier)"),
    ("stale", "TicketForm.tsx", "${reference} ${latest.current.sailing}", "${reference} ${sailing}"),
    # something that outlives the component
    ("leak", "DepartureBoard.jsx", "    return () => clearInterval(timer);\n", ""),
    ("leak", "NoticePanel.jsx", "    clearInterval(ticking.current);\n", ""),
    ("leak", "NoticePanel.jsx", "    document.removeEventListener('keydown', onKey);\n", ""),
    ("leak", "TideStrip.jsx", "      deafen();\n      window", "      window"),
    ("leak", "TideStrip.jsx", "      window.clearInterval(clock);\n", ""),
    ("leak", "CargoChecklist.jsx", "useLayoutEffect(() => {\n    if (autoFocus", "useLayoutEffect(() => {\n    window.addEventListener('focus', add);\n    if (autoFocus"),
    # the rest
    ("other", "SailingCard.jsx", "setOpen((open) => !open)", "setOpen(true)"),
    ("other", "SailingCard.jsx", "event.stopPropagation();", "event.preventDefault();"),
    ("other", "SailingCard.jsx", "status = 'open'", "status = 'few'"),
    ("other", "SailingCard.jsx", "<Tag {...rest} ", "<Tag "),
    ("other", "CrewList.tsx", "if (deleteProp) deleteProp(person);", ""),
    ("other", "CargoChecklist.jsx", "setDraft('');", ""),
]  # fmt: skip


def verified(bench: Bench, name: str, text: str | None) -> Verification:
    old = COMPONENTS / name
    before, after, interface = pair_of(old, old)
    after = replace(after, text=text if text is not None else before.text)
    return verified_by(bench, (before, after), interface, trials_for(old, None), Effort(3.0))


def carried(name: str) -> str:
    path = COMPONENTS / name
    return carry_file(Request(path, name, "jsx-function"))[0].files[0].text


@pytest.mark.parametrize(
    ("kind", "name", "old", "new"),
    MUTANTS,
    ids=[f"{m[0]}-{m[1]}-{n}" for n, m in enumerate(MUTANTS)],
)
def test_a_mutant_differs(kind: str, name: str, old: str, new: str, bench: Bench) -> None:
    text = carried(name)
    assert text.count(old) == 1, text
    result = verified(bench, name, text.replace(old, new))
    assert result.verdict == "differs", [t.as_json() for t in result.trials] or result.reason


def test_there_are_enough_of_each_kind() -> None:
    kinds = [kind for kind, *_ in MUTANTS]
    assert len(kinds) >= 30
    assert all(kinds.count(kind) >= 5 for kind in ("timing", "identity", "stale", "leak"))


@pytest.mark.parametrize("path", sorted(REWRITES.glob("*")), ids=lambda p: p.name)
def test_a_correct_rewrite_is_the_same(path: Path, bench: Bench) -> None:
    result = verified(bench, path.name, path.read_text("utf-8"))
    assert result.verdict == "same", [t.as_json() for t in result.trials] or result.reason


@pytest.mark.parametrize(
    "name", [p.name for p in sorted(COMPONENTS.glob("*.?sx")) if p.stem != "BerthRow"]
)
def test_a_component_is_the_same_as_itself(name: str, bench: Bench) -> None:
    result = verified(bench, name, None)
    assert result.verdict == "same"
