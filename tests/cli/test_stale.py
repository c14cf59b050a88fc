"""A verdict is not answered from the cache where something resolves elsewhere now."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

OLD = """import React from 'react';
import { tide } from './tide';
import { unit } from 'pier-units';

export class Gauge extends React.Component {
  render() {
    return <b>{tide(this.props.level)} {unit}</b>;
  }
}
"""
NEW = """import React from 'react';
import { tide } from './tide';
import { unit } from 'pier-units';

export function Gauge({ level }) {
  return <b>{tide(level)} {unit}</b>;
}
"""


def laid_out(folder: Path) -> Path:
    package = folder / "node_modules" / "pier-units"
    package.mkdir(parents=True)
    (package / "package.json").write_text('{"name": "pier-units", "main": "one.js"}')
    (package / "one.js").write_text("export const unit = 'm';\n")
    (package / "two.js").write_text("export const unit = 'ft'; throw new Error('not this one');\n")
    (folder / "package.json").write_text(
        '{"name": "gullmoor", "dependencies": {"react": "16.14.0"}}'
    )
    (folder / "tide").mkdir()
    (folder / "tide" / "index.js").write_text("export const tide = (level) => level;\n")
    (folder / "Gauge.jsx").write_text(OLD)
    (folder / "Gauge.new.jsx").write_text(NEW)
    return package


def verdict(run: Any, folder: Path) -> tuple[str, bool]:
    cache = {"CLEAN_CARRY_CACHE": str(folder / "cache")}
    options = ("--budget", "1", "--json")
    done = run("verify", "Gauge.jsx", "Gauge.new.jsx", *options, env=cache)
    said = json.loads(done.stdout)
    return said["verdict"], said["cached"]


def test_where_imports_lead_now(run: Any, tmp_path: Path) -> None:
    from clean_carry.source.system import cache_folder

    package = laid_out(tmp_path)
    (tmp_path / "cache").mkdir()
    (tmp_path / "cache" / "runtimes").symlink_to(cache_folder() / "runtimes")
    assert verdict(run, tmp_path) == ("same", False)
    assert verdict(run, tmp_path) == ("same", True)
    # A file beside the folder wins over what is in it.
    (tmp_path / "tide.js").write_text("export const tide = () => { throw new Error('dry'); };\n")
    assert verdict(run, tmp_path)[1] is False
    (tmp_path / "tide.js").unlink()
    assert verdict(run, tmp_path)[1] is True
    (package / "package.json").write_text('{"name": "pier-units", "main": "two.js"}')
    assert verdict(run, tmp_path)[1] is False
