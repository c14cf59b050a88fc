"""Which inputs a branch hangs on, and walks that aim at it."""

from __future__ import annotations

from collections import Counter
from pathlib import Path
from random import Random
from typing import Any

import pytest

from clean_carry.verify.pair import Trials, verified
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.walks.aims import MOST, Aims, aims_of
from clean_carry.verify.search.walks.situations import Situations
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench, Bundle, Side

NAMED = ("open", "kind", "size", "short", "onPick", "children")


def at_line(text: str, line: int, path: str = "Berth.jsx") -> tuple[str, ...]:
    counters = [{"id": "b0.0", "line": line, "kind": "if"}]
    return aims_of(text, path, counters, NAMED).get("b0.0", ())


CLASS = """class Berth extends React.Component {
  label() { return this.props.short ? 'a' : 'b'; }
  wide = () => this.props.size > 3;
  render() {
    const { open, kind: sort } = this.props;
    if (open && sort === 'x') {
      const text = this.label();
      return text === 'a' ? <b/> : null;
    }
    switch (sort) {
      case 'full': return this.wide() && <i onClick={this.props.onPick}/>;
    }
    return <p>{this.state.x ? 1 : 2}</p>;
  }
}
"""

HANGS: dict[str, tuple[int, tuple[str, ...]]] = {
    "an input that is asked": (2, ("short",)),
    "a field that holds a function": (3, ("size",)),
    "a local by another name": (6, ("open", "kind")),
    "what a method asks, then what is asked around it": (8, ("open", "short", "kind")),
    "a case, its value and what is called in it": (11, ("onPick", "kind", "size")),
    "nothing of it is an input": (13, ()),
    "a line that is not there": (99, ()),
}


@pytest.mark.parametrize(("line", "names"), HANGS.values(), ids=HANGS)
def test_what_a_branch_hangs_on(line: int, names: tuple[str, ...]) -> None:
    assert sorted(at_line(CLASS, line)) == sorted(names)


def test_the_nearest_come_first() -> None:
    assert at_line(CLASS, 6) == ("open", "kind")
    assert at_line(CLASS, 11) == ("onPick", "size", "kind")


SINGLE = """<template>
  <div>
    <p v-if="wide && open">{{ kind ? 'a' : 'b' }}</p>
    <ul v-else>
      <slot name="children">
        <li @click="pick">none</li>
      </slot>
    </ul>
  </div>
</template>
<script>
export default {
  props: ['open', 'kind', 'size'],
  computed: { wide() { return this.size > 3; } },
};
</script>
"""


@pytest.mark.parametrize(
    ("line", "names"),
    [
        (3, ("open", "kind", "size")),
        (6, ("children", "open", "size")),
        (14, ("size",)),
    ],
)
def test_both_blocks_of_a_single_file(line: int, names: tuple[str, ...]) -> None:
    assert sorted(at_line(SINGLE, line, "Berth.vue")) == sorted(names)


def test_functions_count_where_a_compiler_makes_them_of_markup() -> None:
    counters = [{"id": "f0", "line": 6, "kind": "function"}]
    assert aims_of(CLASS, "Berth.jsx", counters, NAMED) == {}
    assert "children" in aims_of(SINGLE, "Berth.vue", counters, NAMED)["f0"]


def test_what_cannot_be_parsed_has_none() -> None:
    assert at_line("class {{{", 1) == ()


def test_no_more_than_can_be_varied_together() -> None:
    names = [f"input{at}" for at in range(12)]
    text = f"const x = ({', '.join(names)}) => {' && '.join(names)};"
    counters = [{"id": "b0.0", "line": 1, "kind": "binary-expr"}]
    assert aims_of(text, "a.js", counters, names)["b0.0"] == tuple(names[:MOST])


def test_what_was_not_reached_comes_first_and_in_turn() -> None:
    aims = Aims({"b0.0": ("open",), "b1.0": ("kind", "size"), "b2.0": ("short",)})
    rng = Random(1)
    chosen = Counter(aims.next({"b0.0"}, rng) for _ in range(60))
    assert set(chosen) == {("kind", "size"), ("short",)}
    assert min(chosen.values()) > 20
    assert {aims.next({"b0.0", "b1.0", "b2.0"}, rng) for _ in range(60)} == {
        ("open",), ("kind", "size"), ("short",),
    }  # fmt: skip
    assert Aims({}).next((), rng) == ()


def test_only_lines_of_the_component_are_aimed_at() -> None:
    counters = ({"id": "b0.0", "line": 2, "kind": "if"}, {"id": "b1.0", "line": 6, "kind": "if"})
    side = Side(Path("Berth.jsx"), CLASS, RUNTIMES["react-18"], lines=((5, 9),))
    assert list(Aims.of(side, Bundle("", "", counters, ""), NAMED).hangs_on) == ["b1.0"]


def test_inputs_functions_and_content_are_varied_together() -> None:
    text = """class Berth extends Component { render() { const { kind, size, onPick, children } = this.props;
      return kind === 'open' && size > 3 ? <p onClick={() => onPick(1)}>{children}</p> : null; } }
      Berth.propTypes = { kind: T.oneOf(['open', 'full']), size: T.number, onPick: T.func, children: T.node };
    """
    situations = Situations(read_inputs(text, "Berth.jsx"))
    full = situations.full()
    rng = Random(3)
    made = [
        situations.together(full, ("kind", "size", "onPick", "children"), rng) for _ in range(200)
    ]
    seen = {(str(one.inputs.get("kind", "-")), str(one.inputs.get("size", "-"))) for one in made}
    assert {("open", "-"), ("full", "-"), ("-", "-")} <= seen and len(seen) > 10
    assert {len(one.functions) for one in made} == {0, 1}
    assert {len(one.slots) for one in made} == {0, 1}
    alike: list[Any] = [
        one for one in made if one.inputs.get("kind", 0) == one.inputs.get("size", 1)
    ]
    assert alike, "two inputs never had one value"


DEEP = """import React from 'react';
export default class Berth extends React.Component {
  render() {
    const { kind, deck, free, size } = this.props;
    if (kind === 'open') {
      if (deck === 'upper' && !free) {
        return size > 90 ? <b>BIG</b> : <i>small</i>;
      }
    }
    return <p>{kind}{deck}</p>;
  }
}
"""


def test_a_change_behind_four_inputs_is_found(bench: Bench, tmp_path: Path) -> None:
    sides = [
        Side(tmp_path / "Berth.jsx", text, RUNTIMES["react-18"])
        for text in (DEEP, DEEP.replace("BIG", "big"))
    ]
    found = verified(bench, (sides[0], sides[1]), None, Trials(None, ""), Effort(15))
    assert found.verdict == "differs"
