"""What a component hears by an object of another module: found, sent by trials, and told apart."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.pair import Trials, sides_of, verified
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.inputs.signals import hubs_of
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

HARBOUR = """const heard = new Map();
export const harbour = {
  on(type, run) { heard.set(type, [...(heard.get(type) ?? []), run]); },
  off(type, run) { heard.set(type, (heard.get(type) ?? []).filter((one) => one !== run)); },
  emit(type, ...given) { for (const run of heard.get(type) ?? []) run(...given); },
};
export default harbour;
"""
HOOKS = """import React, { useEffect, useState } from 'react';
import { harbour } from './harbour';
export default function Tide() {
  const [level, put] = useState('low');
  useEffect(() => {
    const see = (tide) => put(tide.level.trim());
    harbour.on('tide', see);
    return () => harbour.off('tide', see);
  }, []);
  return <p>{level}</p>;
}
"""
SINGLE = """<template><p>{{ level }}</p></template>
<script>
import harbour from './harbour';
export default {
  name: 'Tide',
  data() { return { level: 'low' }; },
  mounted() {
    this.see = (tide) => { this.level = tide.level.trim(); };
    harbour.on('tide', this.see);
  },
  destroyed() { harbour.off('tide', this.see); },
};
</script>
"""

FORMS: list[tuple[str, tuple[tuple[str, str], ...]]] = [
    ("import { a } from './a'; a.on('x', f);", (("./a", "a"),)),
    ("import { b as a } from './a'; a.$on('x', f);", (("./a", "b"),)),
    ("import * as a from './a'; a.subscribe('x', f);", (("./a", ""),)),
    ("import a from './a'; const X = 'x'; a.addListener(X, f); a.on('y', f);", (("./a", "default"),)),
    ("import a from './a'; a.on(x, f);", ()),
    ("import a from './a'; a.once('x', f); a.on('x');", ()),
    ("import Vue from 'vue'; Vue.$on('x', f);", ()),
    ("window.on('x', f);", ()),
    ("import a from './a'; a.on('x', f", ()),
]  # fmt: skip


@pytest.mark.parametrize(("text", "hubs"), FORMS)
def test_what_is_listened_to(text: str, hubs: tuple[tuple[str, str], ...]) -> None:
    assert hubs_of(text, "Tide.jsx") == hubs


@pytest.mark.parametrize(
    ("text", "name", "hub"),
    [(HOOKS, "Tide.jsx", "./harbour harbour"), (SINGLE, "Tide.vue", "./harbour default")],
)
def test_a_signal_is_sent_with_what_is_made_use_of(text: str, name: str, hub: str) -> None:
    signal = {"from": hub, "type": "tide", "given": [{"level": "level Holm"}]}
    assert read_inputs(text, name).signals == [{"signal": signal}]


@pytest.mark.parametrize(("text", "name"), [(HOOKS, "Tide.jsx"), (SINGLE, "Tide.vue")])
def test_what_a_signal_does_is_told_apart(
    text: str, name: str, tmp_path: Path, bench: Bench
) -> None:
    (tmp_path / "harbour.js").write_text(HARBOUR)
    place = tmp_path / name

    def found(new: str) -> Any:
        sides = sides_of(place, text, place, new)[:2]
        return verified(bench, sides, None, Trials(None), Effort(20.0))

    assert found(text + "\n").verdict == "same"
    other = found(text.replace("tide.level.trim()", "tide.level.trim() + '!'"))
    assert other.verdict == "differs"
    assert [next(iter(step)) for step in other.failing.steps] == ["signal"]


def test_a_trial_file_sends_a_signal(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "harbour.js").write_text(HARBOUR)
    (tmp_path / "Tide.jsx").write_text(HOOKS)
    (tmp_path / "Other.jsx").write_text(HOOKS.replace(".trim()", ".trim() + '!'"))
    signal = "{signal: {from: './harbour harbour', type: tide, given: [{level: ' high '}]}}"
    (tmp_path / "trials.yaml").write_text(f"trials:\n- name: high tide\n  steps: [{signal}]\n")
    done = run("verify", "Tide.jsx", "Other.jsx", "--trials", "trials.yaml", "--json")
    assert done.returncode == 1, done.stderr
    assert json.loads(done.stdout)["verdict"] == "differs"
