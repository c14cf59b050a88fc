"""Disable each branch of each reader in turn: no clean output may change without anybody noticing.

    python benchmarks/reader_branches.py [--count N] [--seed N] [MODULE …]

A branch is an `if` or a `case` of a module that reads. Its condition is made false, then all test pairs,
everyday components and the demo are carried. The branch survives if a clean component is still clean and
its output changed: the ledger did not notice that a construct was not read. Survivors are printed with the
first component they change. `benchmarks/survivors.txt` lists those whose output is right all the same, each
with the reason. The command exits with 1 for any other survivor.
"""

from __future__ import annotations

import argparse
import ast
import importlib.abc
import importlib.util
import json
import os
import random
import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import clean_carry

HERE = Path(__file__).parent
SYNTAXES = Path(clean_carry.__file__).parent / "syntaxes"
READERS = (
    "jsx",
    "jsx_class",
    "single_file",
    "single_file_object",
    "registered_object",
    "directive",
    "scoped_template",
)
# Declarations and tables, and what only names or formats.
NOT_READ = frozenset({"__init__.py", "syntax.py", "rules.py", "imports.py", "attributes.py"})
KNOWN = HERE / "survivors.txt"
DISABLED = "CLEAN_CARRY_BENCHMARK_BRANCH"


@dataclass(frozen=True)
class Branch:
    """One branch: its module, and the how many-th of that module it is."""

    module: str
    number: int
    line: int
    text: str

    @property
    def name(self) -> str:
        """What it is known by: its module and its condition."""
        return f"{self.module} {self.text}"


def _branches(tree: ast.Module) -> Iterator[ast.If | ast.match_case]:
    for node in ast.walk(tree):
        if isinstance(node, ast.If | ast.match_case):
            yield node


def _condition(node: ast.If | ast.match_case) -> ast.expr | ast.pattern:
    return node.test if isinstance(node, ast.If) else node.pattern


def branches() -> list[Branch]:
    """Every branch of every reader, in order."""
    found: list[Branch] = []
    for folder in READERS:
        for path in sorted((SYNTAXES / folder).rglob("*.py")):
            if path.name in NOT_READ:
                continue
            inside = path.relative_to(SYNTAXES.parent).with_suffix("")
            module = ".".join(("clean_carry", *inside.parts))
            for number, node in enumerate(_branches(ast.parse(path.read_text("utf-8")))):
                condition = _condition(node)
                text = " ".join(ast.unparse(condition).split())[:100]
                found.append(Branch(module, number, condition.lineno, text))
    return found


class _Disabling(importlib.abc.MetaPathFinder, importlib.abc.Loader):
    """Imports one module with one of its branches disabled."""

    def __init__(self, module: str, number: int) -> None:
        self.module, self.number = module, number

    def find_spec(self, name, path=None, target=None):  # type: ignore[no-untyped-def]
        """The module's own place, loaded by this loader."""
        if name != self.module:
            return None
        found = importlib.util.find_spec(name.rpartition(".")[0])
        place = Path(found.submodule_search_locations[0]) / f"{name.rpartition('.')[2]}.py"
        return importlib.util.spec_from_file_location(name, place, loader=self)

    def exec_module(self, module) -> None:  # type: ignore[no-untyped-def]
        """Run the text of the module without the branch."""
        tree = ast.parse(Path(module.__spec__.origin).read_text("utf-8"))
        node = list(_branches(tree))[self.number]
        never = ast.Constant(False)
        if isinstance(node, ast.If):
            node.test = ast.copy_location(never, node.test)
        else:
            node.guard = ast.copy_location(never, node.body[0])
        exec(
            compile(ast.fix_missing_locations(tree), module.__spec__.origin, "exec"),
            module.__dict__,
        )


def carried() -> dict[str, list[str]]:
    """For each component its outcome and its outputs: hashes, as `outputs.py` makes them."""
    import outputs

    (outputs.cache_folder() / "outputs").mkdir(parents=True, exist_ok=True)
    found: dict[str, list[str]] = {}
    for name in outputs.OWN:
        root, paths = outputs.files_of(outputs.OWN[name])
        for path in paths:
            try:
                lines = outputs.lines_of(root, path)
            except Exception as error:
                # A fault of the tool is noticed: the program says so and writes nothing.
                found[f"{name} {path.name}"] = ["fault", type(error).__name__]
                continue
            for number, line in enumerate(lines):
                status = (outputs.cache_folder() / "outputs" / line.outcome).read_text("utf-8")
                key = f"{name} {line.file} {line.component} {number}"
                found[key] = [status.split("\n")[0], *line.outputs]
    return found


def without(branch: Branch | None) -> dict[str, list[str]]:
    """What everything is carried to with a branch disabled, in a process of its own."""
    given = f"{branch.module}:{branch.number}" if branch is not None else ""
    done = subprocess.run(
        [sys.executable, __file__, "--child"], capture_output=True, text=True, check=False,
        env={**os.environ, DISABLED: given},
    )  # fmt: skip
    if done.returncode:
        return {}
    found: dict[str, list[str]] = json.loads(done.stdout)
    return found


def changed(before: dict[str, list[str]], after: dict[str, list[str]]) -> str:
    """The first component that is clean on both sides with other outputs; "" where there is none."""
    for key, (status, *outputs) in before.items():
        now = after.get(key)
        if status == "clean" and now is not None and now[0] == "clean" and now[1:] != outputs:
            return key
    return ""


def main(arguments: list[str]) -> int:
    """Disable branches, and print those that survive."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, help="so many branches, drawn by the seed")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--child", action="store_true", help=argparse.SUPPRESS)
    parser.add_argument("modules", nargs="*", help="the ends of module names")
    given = parser.parse_args(arguments)
    if given.child:
        module, _, number = os.environ.get(DISABLED, "").rpartition(":")
        if module:
            sys.meta_path.insert(0, _Disabling(module, int(number)))
        print(json.dumps(carried()))
        return 0
    every = [b for b in branches() if not given.modules or b.module.endswith(tuple(given.modules))]
    if given.count is not None:
        every = random.Random(given.seed).sample(every, min(given.count, len(every)))
    known = KNOWN.read_text("utf-8") if KNOWN.exists() else ""
    before = without(None)
    fresh = 0
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        for branch, after in zip(every, pool.map(without, every), strict=True):
            survivor = changed(before, after)
            if survivor and branch.name not in known:
                fresh += 1
                print(f"{branch.module}:{branch.line}: {branch.text}\n    {survivor}", flush=True)
    print(f"{len(every)} branches, {fresh} survive that are not known")
    return 1 if fresh else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
