"""Small sources that several tests use, and packages they install."""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

CLASS = """import React, { Component } from 'react';

export default class Berth extends Component {
  state = { open: false };

  render() {
    return <button onClick={() => this.setState({ open: true })}>{String(this.state.open)}</button>;
  }
}
"""

# For each syntax read: the syntaxes it is carried to, and the names of the expected files.
TARGETS = {
    "jsx_class": {"jsx-function": ("new.jsx", "new.tsx")},
    "single_file_object": {
        "single-file-flat": ("new.flat.vue",),
        "jsx-function": ("new.function.jsx",),
    },
    "directive": {"controller-component": ("new.component.js",)},
}


def install(packages: Path, into: Path) -> None:
    """Install the packages a folder of the tests lists, as its lock file has them."""
    for name in ("package.json", "package-lock.json"):
        shutil.copy(packages / name, into)
    subprocess.run(["npm", "ci", "--silent"], cwd=into, check=True, capture_output=True)
