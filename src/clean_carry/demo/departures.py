"""The departures on one page, as the browser rendered them and as the server does, and their weight."""

from __future__ import annotations

import html
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from clean_carry.source.template.tree import VOID
from clean_carry.verify.pair import pair_of
from clean_carry.verify.trials import Trial
from clean_carry.verify.worker_pool import Bench

NAME = "old-and-new.html"
# A component with its new file, and the trial that shows it.
Shown = tuple[Path, Path, Trial]

_STYLE = """
body { margin: 0; padding: 1rem; font: 14px/1.4 system-ui, sans-serif; color: #1c2b33; background: #eef1f0 }
main { display: grid; grid-template-columns: repeat(auto-fit, minmax(34rem, 1fr)); gap: 0.4rem 1.6rem }
h1 { font-size: 1.2rem; margin: 0 0 0.6rem } h2 { font-size: 1rem; margin: 0 0 0.4rem }
h2 small { font-weight: normal; color: #5b6a71 }
div.pair { display: grid; grid-template-columns: 1fr 1fr; grid-template-rows: auto 1fr; gap: 0 0.8rem }
div.pair > h2 { grid-column: 1 / 3 }
figure { margin: 0; padding: 0.6rem 0.8rem; border: 1px solid #b9c4c9; border-radius: 8px;
  background: #fbfaf6 }
figcaption { color: #5b6a71; font-size: 0.8rem; border-top: 1px solid #dfe5e7; margin-top: 0.5rem }
table { border-collapse: collapse; width: 100% } th, td { text-align: left; padding: 0.1rem 0.5rem }
h3 { font-size: 1rem; margin: 0.2rem 0 }
ul, ol { margin: 0; padding-left: 1.2rem } p { margin: 0.3rem 0 } button, input { font: inherit }
"""


def one_page(pairs: Iterable[Shown], bench: Bench) -> str:
    """The page: each component twice, as its two runtimes render it in a trial."""
    parts = []
    for old, new, trial in pairs:
        first, second = _both(old, new, trial, bench)
        title = html.escape(old.stem)
        words = html.escape(trial.name)
        parts.append(
            f'<div class="pair"><h2>{title} <small>{words}</small></h2>'
            f"<figure>{first}<figcaption>{html.escape(old.name)}, in the browser</figcaption></figure>"
            f"<figure>{second}<figcaption>{html.escape(new.name)}, by the server</figcaption></figure>"
            "</div>"
        )
    head = '<meta charset="utf-8"><title>The departures, old and new</title>'
    return (
        f'<!doctype html>\n<html lang="en"><head>{head}<style>{_STYLE}</style></head>'
        f"<body><h1>The departures, old and new</h1><main>{''.join(parts)}</main></body></html>\n"
    )


def _both(old: Path, new: Path, trial: Trial, bench: Bench) -> tuple[str, str]:
    """The HTML of both sides after the step that shows most."""
    first, second, interface = pair_of(old, new)
    with bench.lane() as lane:
        made = [
            lane.trial(bench.build(side), side.exported, request)
            for side, request in ((first, trial.request()), (second, trial.request(interface)))
        ]
    before, after = ([_html(point["tree"]) for point in one["points"]] for one in made)
    fullest = max(range(len(before)), key=lambda at: len(before[at]))
    return before[fullest], after[fullest]


def _html(nodes: list[Any]) -> str:
    """A tree of a trial as HTML, with the values of its fields."""
    found = []
    for node in nodes:
        if isinstance(node, str):
            found.append(html.escape(node))
            continue
        if node is None:
            continue
        name, attributes, state, children = node
        shown = {
            key: value
            for key, value in attributes.items()
            if key != "trial-style" and not key.startswith(("wire:", "data-v-"))
        }
        if isinstance(state, dict) and isinstance(state.get("value"), str) and name == "input":
            shown["value"] = state["value"]
        written = "".join(f' {key}="{html.escape(str(value))}"' for key, value in shown.items())
        end = "" if name in VOID else f"{_html(children)}</{name}>"
        found.append(f"<{name}{written}>{end}")
    return "".join(found)


def weight(old: Iterable[Path], stays: Iterable[Path], bench: Bench) -> tuple[int, int]:
    """The bytes of the components, minified, that a browser loads before and after."""
    left = set(stays)
    sizes = {path: _size(path, bench) for path in old}
    return sum(sizes.values()), sum(size for path, size in sizes.items() if path in left)


def _size(path: Path, bench: Bench) -> int:
    side, _, _ = pair_of(path, path)
    return bench.shipped(path.resolve(), side.runtime, side.settings)[0]
