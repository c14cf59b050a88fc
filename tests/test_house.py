"""What the house keeps to that no linter knows."""

from __future__ import annotations

import ast
from pathlib import Path

ROOT = Path(__file__).parents[1]
MOST_LINES = 60
_FUNCTIONS = (ast.FunctionDef, ast.AsyncFunctionDef)


def test_every_function_fits_a_screen() -> None:
    long = []
    for folder in ("src/clean_carry", "benchmarks", "tests"):
        for path in (ROOT / folder).rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text("utf-8"))):
                if isinstance(node, _FUNCTIONS) and node.end_lineno is not None:
                    lines = node.end_lineno - node.lineno + 1
                    if lines > MOST_LINES:
                        long.append(f"{path.relative_to(ROOT)} {node.name}: {lines}")
    assert long == []
