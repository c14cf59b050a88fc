"""The search over real renderings: the same seed, restless sides, what ends it, what is kept."""

from __future__ import annotations

from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest

from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.walks.search import BIG, Search
from clean_carry.verify.search.walks.situations import Situation, Situations
from clean_carry.verify.verify import Effort, Verification, explore
from clean_carry.verify.worker_pool import Bench, Side

COUNTER = """import React, { useState } from 'react';
export default function Counter({ start = 0, most, onFull }) {
  const [used, setUsed] = useState(start);
  const take = () => {
    if (used + 1 >= most) onFull?.(used + 1);
    setUsed(used + 1);
  };
  return <button disabled={used >= most} onClick={take}>{used > 3 ? 'many' : used}</button>;
}
"""


def explored(
    bench: Bench, folder: Path, old: str, new: str, effort: Effort, name: str = "C.jsx"
) -> Verification:
    place = folder / name
    return verified(bench, sides_of(place, old, place, new)[:2], None, Trials(None), effort)


def shown(found: Verification) -> list[tuple[str, Any]]:
    return [(trial.name, trial.steps) for trial in found.sources]


def test_a_seed_gives_the_same_trials_however_many_renderers(tmp_path: Path) -> None:
    wrong = COUNTER.replace("used > 3", "used > 4")
    effort = Effort(30.0, seed=5, shrink=False)
    found = []
    for size in (1, 2):
        with Bench(size=size) as bench:
            found.append(explored(bench, tmp_path, COUNTER, wrong, effort))
    assert found[0].verdict == found[1].verdict == "differs"
    assert shown(found[0])[-1] == shown(found[1])[-1]
    with Bench(size=1) as bench:
        other = explored(bench, tmp_path, COUNTER, wrong, Effort(30.0, seed=6, shrink=False))
    assert other.verdict == "differs"


def test_the_smallest_trial_that_differs(tmp_path: Path, bench: Bench) -> None:
    wrong = COUNTER.replace("onFull?.(used + 1)", "onFull?.(used)")
    found = explored(bench, tmp_path, COUNTER, wrong, Effort(20.0))
    assert found.verdict == "differs" and found.failing is not None
    assert len(found.failing.steps) == 1 and "onFull" in found.failing.functions
    assert len(found.failing.inputs) <= 2


ASKED = """import React, { useState } from 'react';
export default function Ask({ action }) {
  const [word, put] = useState('');
  const enter = (event) => {
    if (event.key !== 'Enter' || !word) return;
    if (action) action('enter')(word);
    else put('nobody heard');
  };
  return <p><input value={word} onChange={(e) => put(e.target.value)} onKeyDown={enter} /></p>;
}
"""


def test_it_goes_again_to_where_a_function_is_called(tmp_path: Path, bench: Bench) -> None:
    wrong = ASKED.replace("nobody heard", "nobody")
    found = explored(bench, tmp_path, ASKED, wrong, Effort(20.0))
    assert found.verdict == "differs" and found.failing is not None
    assert "action" not in found.failing.functions
    wrong = ASKED.replace("(word);", "(word + 1);")
    found = explored(bench, tmp_path, ASKED, wrong, Effort(20.0))
    assert found.verdict == "differs" and found.failing is not None
    assert "action" in found.failing.functions


LATEST = """import React, { useEffect, useRef, useState } from 'react';
export default function Bell({ onRing, title }) {
  const latest = useRef(onRing);
  const [word, put] = useState('');
  useEffect(() => { latest.current = onRing; });
  useEffect(() => {
    const ring = (event) => { if (event.key === 'Escape') latest.current(title); };
    document.addEventListener('keydown', ring);
    return () => document.removeEventListener('keydown', ring);
  }, []);
  return <p><input value={word} onChange={(e) => put(e.target.value)} /></p>;
}
"""


def test_a_function_is_another_one_just_before_it_is_called(tmp_path: Path, bench: Bench) -> None:
    wrong = LATEST.replace("latest.current(title)", "onRing(title)")
    for seed in (1, 2, 3):
        found = explored(bench, tmp_path, LATEST, wrong, Effort(20.0, seed))
        assert found.verdict == "differs" and found.failing is not None
        assert any("functions" in step.get("change", {}) for step in found.failing.steps)


ENDS: list[tuple[str, str, str, str]] = [
    ("draws nothing", "export default () => null;", "not run", "draw or call"),
    ("never rests", "import React from 'react'; export default function A() { const [n, set] = React.useState(0);"
     " React.useEffect(() => { set(n + 1); }); return <p>{n}</p>; }", "not run", ""),
    ("loops for ever", "export default () => { for (;;); };", "not run", ""),
    ("chance by the page's own hand", "export default () => <p>{Math.random()}{Date.now()}</p>;", "same", ""),
    ("throws always", "export default () => { throw new Error('no tide'); };", "not run", ""),
]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "verdict", "reason"), [row[1:] for row in ENDS], ids=[row[0] for row in ENDS]
)
def test_sides_that_cannot_be_compared(
    text: str, verdict: str, reason: str, tmp_path: Path, bench: Bench
) -> None:
    found = explored(bench, tmp_path, text, text, Effort(1.0))
    assert found.verdict == verdict and reason in found.reason


def test_nothing_new_for_a_while_ends_it(tmp_path: Path, bench: Bench) -> None:
    text = "export default ({ a }) => <p>{a}</p>;\n"
    found = explored(bench, tmp_path, text, text, Effort(120.0))
    assert found.verdict == "same" and "in a row brought nothing new" in found.stopped
    assert found.tried < 600


def test_an_export_that_only_one_side_has_is_not_mounted(tmp_path: Path, bench: Bench) -> None:
    old = "export const A = () => <p>a</p>;\nexport const B = () => <p>b</p>;\n"
    new = old.replace("export const A", "const A")
    assert explored(bench, tmp_path, old, new, Effort(1.0)).mounted == "B"
    side = Side(tmp_path / "A.jsx", old, RUNTIMES["react-18"], exported="A")
    missing = Side(tmp_path / "A.jsx", new, RUNTIMES["react-18"], exported="A")
    assert explore(bench, side, missing, Effort(1.0)).verdict == "differs"


def test_types_of_the_language_are_no_hindrance(tmp_path: Path, bench: Bench) -> None:
    text = "export default ({ a }) => <p>{a satisfies string}</p>;\n"
    other = text.replace("<p>", "<p> ").replace("{a satisfies", "{`${a}!` satisfies")
    found = explored(bench, tmp_path, text, text, Effort(1.0), "C.tsx")
    assert found.verdict == "same" and found.tried > 1
    assert explored(bench, tmp_path, text, other, Effort(1.0), "C.tsx").verdict == "differs"


def test_a_verdict_is_kept_under_all_it_depends_on(tmp_path: Path) -> None:
    from clean_carry.verify.store import Store

    store = Store(tmp_path / "kept")
    with Bench(store=store) as bench:
        first = explored(bench, tmp_path, COUNTER, COUNTER, Effort(1.0))
        again = explored(bench, tmp_path, COUNTER, COUNTER, Effort(1.0))
        other = explored(bench, tmp_path, COUNTER, COUNTER, Effort(1.0, seed=2))
    assert (first.cached, again.cached, other.cached) == (False, True, False)
    assert again.verdict == first.verdict and shown(again) == shown(first)


@pytest.mark.parametrize(("elements", "length"), [(0, 10), (BIG, 10), (2 * BIG, 5), (20 * BIG, 1)])
def test_through_a_big_page_a_walk_takes_fewer_steps(elements: int, length: int) -> None:
    search = Search.__new__(Search)
    search.situations = Situations(Inputs())
    search.pair = SimpleNamespace(needed=frozenset())
    search._number, search._size = 0, elements
    assert search._plan(Situation(), length=10).length == length
