"""`clean-carry verify` and `demo` through the built program."""

from __future__ import annotations

import json
from pathlib import Path

from tests_support import CLASS


def test_same_and_differs(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    (tmp_path / "X.jsx").write_text(CLASS)
    run("carry", "X.jsx", "--to", "jsx-function", "--write")
    done = run("verify", "X.jsx", "X.function.jsx", "--json")
    assert done.returncode == 0
    found = json.loads(done.stdout)
    assert found["verdict"] == "same"
    assert {"name", "verdict", "steps", "differences"} <= set(found["trials"][0])
    (tmp_path / "Y.jsx").write_text(CLASS.replace("open: true", "open: 1"))
    done = run("verify", "X.jsx", "Y.jsx")
    assert done.returncode == 1
    assert "differs" in done.stdout and "old  'true'" in done.stdout


def test_not_run_is_never_same(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    text = "export default function X() { return null; }\n"
    (tmp_path / "X.jsx").write_text(text)
    done = run("verify", "X.jsx", "X.jsx", "--json")
    assert done.returncode == 1
    assert json.loads(done.stdout)["verdict"] == "not run"
    (tmp_path / "Y.jsx").write_text("import gone from './gone'; export default gone;\n")
    done = run("verify", "Y.jsx", "Y.jsx", "--json")
    assert "cannot be built" in json.loads(done.stdout)["reason"]


def test_demo(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    done = run("demo", "--into", "ferries")
    assert done.returncode == 0
    assert "8 components are the same in every trial, 1 was refused" in done.stdout
    assert (tmp_path / "ferries" / "components" / "BerthPicker.function.tsx").exists()
    assert run("demo", "--into", "ferries").returncode == 5
