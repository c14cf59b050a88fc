"""Small sources that several tests use, and packages they install."""

from __future__ import annotations

import hashlib
import os
import shutil
import signal
import subprocess
from contextlib import suppress
from pathlib import Path
from tempfile import TemporaryDirectory

from clean_carry.source.system import cache_folder
from clean_carry.verify.node import environment, npm

CLASS = """import React, { Component } from 'react';

export default class Berth extends Component {
  state = { open: false };

  render() {
    return <button onClick={() => this.setState({ open: true })}>{String(this.state.open)}</button>;
  }
}
"""

# How hard trials look in tests: a number of trials, whatever the machine does in that time.
WALKS = ("--budget", "60", "--most-trials", "200")
# For each syntax read: the syntaxes it is carried to, and the names of the expected files.
TARGETS = {
    "jsx_class": {"jsx-function": ("new.jsx", "new.tsx")},
    "single_file_object": {
        "single-file-flat": ("new.flat.vue",),
        "jsx-function": ("new.function.jsx",),
    },
    "directive": {"controller-component": ("new.component.js",)},
}


def hears_interrupts() -> None:
    """Have a process started here take SIGINT, though a run in the background ignores it."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)


def install(packages: Path, into: Path) -> None:
    """Install the packages a folder of the tests lists, as its lock file has them.

    They are installed once, into the cache, and linked file by file from there.
    """
    names = ("package.json", "package-lock.json")
    digest = hashlib.sha256((packages / names[1]).read_bytes()).hexdigest()[:12]
    kept = cache_folder() / "test-packages" / digest
    if not kept.exists():
        kept.parent.mkdir(parents=True, exist_ok=True)
        with TemporaryDirectory(dir=kept.parent) as folder:
            for name in names:
                shutil.copy(packages / name, folder)
            command = [*npm(), "ci", "--silent"]
            subprocess.run(command, cwd=folder, check=True, capture_output=True, env=environment())
            with suppress(OSError):  # another process was there first
                Path(folder).rename(kept)
                Path(folder).mkdir()
    for name in names:
        shutil.copy(packages / name, into)
    shutil.copytree(
        kept / "node_modules", into / "node_modules", symlinks=True, copy_function=_linked
    )


def _linked(source: str, target: str) -> None:
    """Link a file, or copy it where the cache is on another file system."""
    try:
        os.link(source, target)
    except OSError:
        shutil.copy2(source, target)
