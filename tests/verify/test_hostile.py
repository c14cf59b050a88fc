"""Hostile components: none gets what it wants, and each costs one trial."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.worker_pool import Bench, Bundle, Side

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

# Ways to what the page library keeps behind an element: each calls `got` with what it finds there.
HIDDEN: dict[str, str] = {
    "symbols": "for (const s of Object.getOwnPropertySymbols(document)) got(document[s]);",
    "own keys": "for (const k of Reflect.ownKeys(document.body)) if (typeof k === 'symbol') got(document.body[k]);",
    "descriptors": "const d = Object.getOwnPropertyDescriptors(document.body); for (const k of Reflect.ownKeys(d)) if (typeof k === 'symbol') got(d[k].value);",
    "copied": "const c = Object.assign({}, document.body); for (const k of Reflect.ownKeys(c)) if (typeof k === 'symbol') got(c[k]);",
    "a trap": "const p = new Proxy({}, { get(t, k) { if (typeof k === 'symbol' && /impl|SameObject/.test(k.description)) got(document[k]); } }); try { document.body.appendChild(p); } catch {}",
    "a trap of descriptors": "const p = new Proxy({}, { getOwnPropertyDescriptor(t, k) { if (typeof k === 'symbol') got(document.body[k]); } }); try { document.body.contains(p); } catch {}",
    "a trap set later": "const h = {}; const p = new Proxy(document.createElement('i'), h); h.has = (t, k) => { if (typeof k === 'symbol') got(t[k]); return k in t; }; h.get = (t, k) => { if (typeof k === 'symbol') got(t[k]); return t[k]; }; h.getOwnPropertyDescriptor = (t, k) => { if (typeof k === 'symbol') got(t[k]); return Reflect.getOwnPropertyDescriptor(t, k); }; try { document.body.appendChild(p); } catch {}",
    "a revocable trap": "const { proxy } = Proxy.revocable({}, { get(t, k) { if (typeof k === 'symbol') got(document[k]); } }); try { document.body.append(proxy); document.body.appendChild(proxy); } catch {}",
    "a handler that is one": "const inner = { get(t, k) { got(typeof k === 'symbol' ? document[k] : ''); } }; const h = new Proxy({}, { get: () => (t, k) => { if (typeof k === 'symbol') got(document[k]); } }); void inner; try { document.body.appendChild(new Proxy({}, h)); } catch {}",
    "another realm": "const f = document.createElement('iframe'); document.body.append(f); for (const w of [f.contentWindow, window[0]]) for (const s of w.Object.getOwnPropertySymbols(document)) got(document[s]);",
    "another realm's trap": "const f = document.createElement('iframe'); document.body.append(f); const p = new f.contentWindow.Proxy({}, { get(t, k) { if (typeof k === 'symbol') got(document[k]); } }); try { document.body.appendChild(p); } catch {}",
    "what filters it": "Set.prototype.has = () => false; WeakMap.prototype.get = () => undefined; Array.prototype.filter = function () { return this; }; for (const s of Object.getOwnPropertySymbols(document)) got(document[s]);",
}

# Each keeps something at the harness's own built-ins, or puts another function in the place of one.
KEPT: dict[str, str] = {
    "at a maker": "const O = Object.getPrototypeOf(Object.getPrototypeOf(setTimeout)).constructor; O.keys = () => []; O.stash = 1; Object.getPrototypeOf(setTimeout).stash = 1;",
    "at a function": "setTimeout.stash = 1; matchMedia.stash = 1; getComputedStyle.stash = 1;",
    "at an emitter": "const E = Object.getPrototypeOf(Object.getPrototypeOf(window._virtualConsole)); E.emit = () => false; E.stash = 1; E.constructor.stash = 1;",
    "at a list": "const A = new MutationObserver(() => {}).takeRecords().constructor; A.stash = 1; A.from = () => []; A.isArray = () => false;",
    "at errors": "const E = (() => { try { new ResizeObserver(); } catch (e) { return Object.getPrototypeOf(setTimeout).constructor; } })(); E.prototype.stash = 1; try { document.createElement('<'); } catch (e) { const P = Object.getPrototypeOf(Object.getPrototypeOf(e)); P.stash = 1; }",
    "at a dispatcher": "const D = Object.getPrototypeOf(window._dispatcher); D.dispatch = () => true; D.stash = 1; D.constructor.stash = 1;",
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


@pytest.mark.parametrize("name", HIDDEN)
def test_what_the_page_library_keeps_is_hidden(name: str, bench: Bench, tmp_path: Path) -> None:
    # What is found there would be an object of the harness's own realm, which its own makers do not know.
    told = (
        "const got = (x) => { if (x && typeof x === 'object') this.props.onGot('root: found'); };"
    )
    answer = rendered(bench, bench.build(side(f"{{ {told} {HIDDEN[name]} }}", tmp_path)))
    assert "root: found" not in str([point["calls"] for point in answer["points"]])
    assert healthy(bench, tmp_path)


FIND = """const seen = [setTimeout, Object.getPrototypeOf(setTimeout), Object.getPrototypeOf(Object.getPrototypeOf(setTimeout)).constructor, matchMedia, getComputedStyle,
  Object.getPrototypeOf(Object.getPrototypeOf(window._virtualConsole)), Object.getPrototypeOf(window._dispatcher), new MutationObserver(() => {}).takeRecords().constructor];
  for (const one of seen) if (one && one.stash) got('root: kept');"""


@pytest.mark.parametrize("name", KEPT)
def test_nothing_is_kept_for_the_next_trial(name: str, bench: Bench, tmp_path: Path) -> None:
    setting, finding = (
        bench.build(side(body, tmp_path)) for body in (f"{{ {KEPT[name]} }}", f"{{ {FIND} }}")
    )
    with bench.lane() as lane:
        lane.trial(setting, "", TRIAL, reuse=True)
        answers = [lane.trial(finding, "", TRIAL, reuse=reuse) for reuse in (True, False)]
    for answer in answers:
        assert "root: kept" not in str([point["calls"] for point in answer["points"]])
        assert answer["points"][0]["tree"] == [["b", {}, None, ["here"]]]
    assert healthy(bench, tmp_path)


def test_a_forged_answer_is_none(bench: Bench, tmp_path: Path) -> None:
    with bench.lane() as lane:
        bundle = bench.build(side("", tmp_path))
        lane.trial(bundle, "", TRIAL)
        lane._worker._secret = "another one"
        with pytest.raises(WorkerFailed, match="not its own"):
            lane.trial(bundle, "", TRIAL)
        assert lane.trial(bundle, "", TRIAL)["points"]


def test_the_page_looks_like_any_page(bench: Bench, tmp_path: Path) -> None:
    body = "got(navigator.userAgent); got(document.documentElement.outerHTML); got(String(navigator.webdriver));"
    answer = rendered(bench, bench.build(side(body, tmp_path)))
    told = str(answer["points"][0]["calls"])
    assert "jsdom" not in told and "trial" not in told and "Chrome/" in told
