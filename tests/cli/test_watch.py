"""`verify --watch`: what a save touches is verified again."""

from __future__ import annotations

import os
import queue
import signal
import subprocess
import sys
import threading
from pathlib import Path
from typing import Any

import pytest

from tests_support import hears_interrupts

OLD = """import React from 'react';
import { label } from './words';

export default class Berth extends React.Component {
  state = { open: false };

  render() {
    const { open } = this.state;
    return <button onClick={() => this.setState({ open: !open })}>{label(open)}</button>;
  }
}
"""
NEW = """import React, { useState } from 'react';
import { label } from './words';

export default function Berth() {
  const [open, setOpen] = useState(false);
  return <button onClick={() => setOpen(!open)}>{label(open)}</button>;
}
"""


@pytest.mark.skipif(sys.platform == "win32", reason="signals")
def test_saving_a_file_gives_a_verdict(tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(OLD)
    (tmp_path / "New.jsx").write_text(NEW)
    (tmp_path / "words.js").write_text("export const label = (open) => (open ? 'open' : 'shut');\n")
    call = [sys.executable, "-u", "-m", "clean_carry", "verify", "Berth.jsx", "New.jsx", "--watch"]
    running = subprocess.Popen(
        [*call, "--budget", "2"],
        cwd=tmp_path,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
        env={**os.environ, "PYTHONUNBUFFERED": "1"},
        preexec_fn=hears_interrupts,
    )
    lines: queue.Queue[str] = queue.Queue()

    def read() -> None:
        for line in running.stdout or ():
            lines.put(line)

    threading.Thread(target=read, daemon=True).start()

    def until(words: str) -> str:
        heard = ""
        while words not in heard:
            heard += lines.get(timeout=60)
        return heard

    def save(name: str, old: str, new: str) -> None:
        text = (tmp_path / name).read_text()
        assert old in text
        (tmp_path / name).write_text(text.replace(old, new))

    try:
        assert "Berth.jsx → New.jsx: same" in until("watching; Ctrl-C ends it")
        save("New.jsx", "setOpen(!open)", "setOpen(true)")
        heard = until("watching; ")
        assert "Berth.jsx → New.jsx: differs" in heard
        assert "saved: New.jsx; " in heard
        save("New.jsx", "setOpen(true)}", "setOpen(}")
        assert "the new side cannot be built" in until("watching; ")
        (tmp_path / "New.jsx").write_text(NEW)
        assert "Berth.jsx → New.jsx: same" in until("watching; ")
        save("words.js", "'open' :", "'wide' :")
        heard = until("watching; ")
        assert "saved: words.js; " in heard and "New.jsx: same" in heard
        (tmp_path / "Berth.trials.yaml").write_text("trials:\n  - name: [\n")
        assert "is not YAML" in until("watching; ")
        running.send_signal(signal.SIGINT)
        assert running.wait(timeout=20) == 130
    finally:
        running.kill()


def test_help_tells_of_it(run: Any) -> None:
    assert "--watch" in run("verify", "--help").stdout
