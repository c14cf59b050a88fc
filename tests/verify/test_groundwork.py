"""Before the search: inputs a component cannot be mounted with are left out, or given otherwise."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.verify.judge import Pair
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.walks.groundwork import lay
from clean_carry.verify.search.walks.situations import Situations
from clean_carry.verify.uses.model import Uses
from clean_carry.verify.worker_pool import Bench, Side

FILE = """import React from 'react';
import T from './types';
export default function Berth({{ name, size, mode, note }}) {{
  {body}
  return <p>{{name}}{{size}}{{mode}}{{note}}</p>;
}}
Berth.propTypes = {{ name: T.string, size: T.number, mode: T.oneOf(['in', 'out']), note: T.string }};
"""

CASES: list[tuple[str, set[str]]] = [
    ("", {"name", "size", "mode", "note"}),
    ("if (size > 2) throw new Error('too long');", {"name", "size", "mode", "note"}),
    ("if (mode === 'in') throw new Error('no');", {"name", "size", "mode", "note"}),
    ("if (note) throw new Error('no');", {"name", "size", "mode", "note"}),
    ("if (note !== undefined) throw new Error('no');", {"name", "size", "mode"}),
    ("if (note !== undefined || size !== undefined) throw new Error('no');", {"name", "mode"}),
    ("throw new Error('never');", {"name", "size", "mode", "note"}),
]


@pytest.mark.parametrize(("body", "given"), CASES)
def test_what_can_be_mounted(body: str, given: set[str], tmp_path: Path, bench: Bench) -> None:
    (tmp_path / "types.js").write_text("export default new Proxy({}, { get: () => () => {} });\n")
    text = FILE.format(body=body)
    side = Side(tmp_path / "Berth.jsx", text, RUNTIMES["react-18"], exported="default")
    bundle = bench.build(side)
    pair = Pair.of(bench, side, side, (bundle, bundle), None)
    situations = Situations(read_inputs(text, "Berth.jsx", "default"))
    with bench.lane() as lane:
        lay(lane, pair, situations, 20.0)
        full = situations.full()
        answer = lane.trial(bundle, "default", full.trial("full").request())
    assert set(full.inputs) == given
    assert bool(answer["points"][0]["errors"]) is ("never" in body)


def laid(tmp_path: Path, bench: Bench, text: str, uses: str, count: int) -> Situations:
    """The situations of a component for which the project has so many contents."""
    found = Uses(tmp_path / "content.jsx", f"import React from 'react';\n{uses}", count)
    side = Side(tmp_path / "P.jsx", text, RUNTIMES["react-18"], exported="default", uses=found)
    bundle = bench.build(side)
    inputs = read_inputs(text, "P.jsx", "default")
    inputs.uses = count
    situations = Situations(inputs)
    with bench.lane() as lane:
        lay(lane, Pair.of(bench, side, side, (bundle, bundle), None), situations, 20.0)
    return situations


def test_contents_that_cannot_be_shown_are_left_out(tmp_path: Path, bench: Bench) -> None:
    text = "import React from 'react';\nexport default ({ children }) => <p>{children}</p>;\n"
    uses = "export default [() => 'fine', () => { throw new Error('no'); }, () => ['also']];\n"
    situations = laid(tmp_path, bench, text, uses, 3)
    assert situations.contents_of("children")[:2] == [[{"use": 1}], [{"use": 3}]]


def test_inputs_are_not_fitted_to_content_nobody_sees_then(tmp_path: Path, bench: Bench) -> None:
    text = (
        "import React from 'react';\nexport default ({ open = true, children }) => "
        "<p>{open ? <b>{children}</b> : null}</p>;\n"
    )
    uses = "export default [() => { const One = () => { throw new Error('no'); }; return <One />; }];\n"
    situations = laid(tmp_path, bench, text, uses, 1)
    assert situations.full().inputs["open"] is True
    assert situations.contents_of("children")[0] != [{"use": 1}]
