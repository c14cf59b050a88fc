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


# Calls that an operating system may lack, outside of the module for them (text of other programs aside).
_ONE_SYSTEM = ("fcntl", "resource", "pwd", "grp", "termios")
_ONE_SYSTEM_CALLS = ("umask", "kill", "killpg", "sysconf", "getuid", "fork", "setsid", "uname")


def test_calls_of_one_operating_system_stand_in_one_module() -> None:
    found = []
    for path in sorted((ROOT / "src").rglob("*.py")):
        if path.name == "system.py":
            continue
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            names = [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
            found += [f"{path.name}: {name}" for name in names if name in _ONE_SYSTEM]
            if isinstance(node, ast.Attribute) and isinstance(node.value, ast.Name):
                if node.value.id == "os" and node.attr in _ONE_SYSTEM_CALLS:
                    found.append(f"{path.name}: os.{node.attr}")
    assert found == []
