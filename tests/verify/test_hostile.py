"""Hostile components: none gets what it wants, and each costs one trial."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.bench import Bench, Bundle, Side
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES

RUNTIME = RUNTIMES["react-18"]
SECRET = "root:"

# Each calls `got(x)` with whatever it could lay hands on.
ATTEMPTS: dict[str, str] = {
    "read-by-request": "fetch('file:///etc/passwd').then((r) => r.text()).then(got);",
    "read-by-frame": "const f = document.createElement('iframe'); f.src = 'file:///etc/passwd'; f.onload = () => got(f.contentDocument.body.textContent); document.body.append(f);",
    "read-by-script": "const s = document.createElement('script'); s.src = 'file:///etc/passwd'; s.onload = () => got('root: loaded'); document.body.append(s);",
    "dynamic-import": "(0, eval)(\"import('node:fs')\").then((fs) => got(fs.readFileSync('/etc/passwd', 'utf8')));",
    "own-function-maker": "got('root: ' + new Function('return process')().pid);",
    "foreign-function-maker": "got('root: ' + document.createElement.constructor('return process')().pid);",
    "foreign-eval-by-timer": "got('root: ' + setTimeout.constructor('return process')().pid);",
    "foreign-import": "document.createElement.constructor(\"return import('node:fs')\")().then((fs) => got(fs.readFileSync('/etc/passwd', 'utf8')));",
    "console-realm": "got('root: ' + console.log.constructor('return process')().env.PATH);",
    "socket": "got('root: ' + new WebSocket('ws://127.0.0.1:9').readyState);",
    "socket-by-loader": "const impl = document[Object.getOwnPropertySymbols(document).find((s) => String(s).includes('impl'))]; const l = impl._resourceLoader || impl._defaultView._resourceLoader; l.fetch('file:///etc/passwd', {}).then((b) => got(String(b)));",
    "process-start": "got('root: ' + require('child_process').execSync('id'));",
    "process-by-name": "got('root: ' + process.version);",
    "exit": "matchMedia('x').constructor.constructor('return process')().exit(0); got('root: exit');",
    "reach-the-cache": "fetch('file:///root/.cache').then((r) => r.ok && got('root: cache'), () => {}); const a = document.createElement('link'); a.rel = 'stylesheet'; a.href = 'file:///etc/passwd'; a.onload = () => got('root: style'); document.head.append(a);",
    "stack-frames": "Error.prepareStackTrace = (e, sites) => sites.map((s) => s.getThis() || s.getFunction()).filter((f) => f && f.constructor); const t = new Error().stack; for (const f of t) { try { got('root: ' + f.constructor.constructor('return process')().pid); } catch {} }",
}


def side(body: str, folder: Path, draw: str = "<b>here</b>") -> Side:
    text = f"""
    import React from 'react';
    export default class Hostile extends React.Component {{
      componentDidMount() {{ const got = (x) => this.props.onGot(String(x)); {body} }}
      render() {{ return {draw}; }}
    }}"""
    return Side(folder / "Hostile.jsx", text, RUNTIME)


TRIAL = {"inputs": {}, "functions": {"onGot": {}}, "steps": [{"pass": 1000}]}


def rendered(bench: Bench, bundle: Bundle) -> dict[str, Any]:
    with bench.lane() as lane:
        return lane.trial(bundle, "", TRIAL)


def healthy(bench: Bench, folder: Path) -> bool:
    answer = rendered(bench, bench.build(side("", folder)))
    return bool(answer["points"][0]["tree"] == [["b", {}, None, ["here"]]])


@pytest.mark.parametrize("name", ATTEMPTS)
def test_nothing_is_got(name: str, bench: Bench, tmp_path: Path) -> None:
    try:
        key = bench.build(side(ATTEMPTS[name], tmp_path))
    except WorkerFailed:
        return  # it asks for what is no module of the page: never run at all
    answer = rendered(bench, key)
    got = [call for point in answer["points"] for call in point["calls"]]
    assert [call for call in got if SECRET in str(call)] == []
    assert healthy(bench, tmp_path)


ENDLESS: dict[str, str] = {
    "loop": "while (true) {}",
    "memory": "const all = []; while (true) all.push('x'.repeat(1e6) + all.length);",
    "memory-outside-the-heap": "const all = []; while (true) all.push(new Uint8Array(5e7).fill(1));",
    "microtasks": "const again = () => Promise.resolve().then(again); again();",
    "error-that-loops": "throw { get message() { while (true) {} } };",
}


@pytest.mark.parametrize("name", ENDLESS)
def test_the_watchdog_ends_it(name: str, bench: Bench, tmp_path: Path) -> None:
    key = bench.build(side(ENDLESS[name], tmp_path))
    try:
        rendered(bench, key)
    except WorkerFailed as error:
        assert error.ended or "alloc" in error.reason.lower()
    assert healthy(bench, tmp_path)


PATCHES: dict[str, str] = {
    "attributes": "Element.prototype.getAttributeNames = () => []; Element.prototype.getAttribute = () => 'same';",
    "children": "Object.defineProperty(Node.prototype, 'childNodes', { get: () => [] });",
    "lists": "Array.prototype.push = () => 0; JSON.stringify = () => 'same'; Object.prototype.toJSON = () => 'same';",
    "foreign-objects": "const O = matchMedia('x').constructor; try { O.prototype.toJSON = () => 'same'; O.prototype.nodeType = 8; O.keys = () => []; } catch {}",
    "foreign-lists": "try { const P = Object.getPrototypeOf(new ResizeObserver(() => {}).takeRecords()); P.push = () => 0; P[Symbol.iterator] = null; } catch {}",
}


@pytest.mark.parametrize("name", PATCHES)
def test_the_harness_cannot_be_talked_into_same(name: str, bench: Bench, tmp_path: Path) -> None:
    answers = []
    for word in ("old", "new"):
        body = PATCHES[name]
        key = bench.build(side(body, tmp_path, f'<b title="{word}">{word}</b>'))
        answers.append(rendered(bench, key))
    trees = [answer["points"][-1]["tree"] for answer in answers]
    assert trees[0] == [["b", {"title": "old"}, None, ["old"]]]
    assert trees[1] == [["b", {"title": "new"}, None, ["new"]]]
    assert healthy(bench, tmp_path)
