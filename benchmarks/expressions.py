"""Expressions of open single files in PHP: how many are written, and whether they give the same.

    python benchmarks/expressions.py FOLDER… [--most N] [--seed N]

Takes expressions of the templates of all single files below the folders: interpolations, bindings,
conditions, lists, classes and styles, each text once, names and literals alone left out. Types are those
that the component declares, and those of the values that trials give. Each that is written runs in both
languages over many operand values.
"""

from __future__ import annotations

import argparse
import json
import random
import re
import subprocess
import tempfile
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from clean_carry.component.code import Code, Read
from clean_carry.component.errors import CarryError, InputError
from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import (
    BoundAttribute,
    ClassList,
    Condition,
    Element,
    Expression,
    Loop,
    Shown,
    StyleMap,
    children_of,
)
from clean_carry.source.expressions.model import Expr, Unsayable
from clean_carry.source.expressions.types import ANY, WHOLE, Type, record_of
from clean_carry.source.php.helper import helper_class
from clean_carry.source.php.spelling import Speller
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Wishes
from clean_carry.syntaxes.member_types import MemberTypes, name_of
from clean_carry.syntaxes.registry import declared, recognise
from clean_carry.verify.node import node
from clean_carry.verify.search.inputs.read_inputs import read_inputs
from clean_carry.verify.search.values.values import typical

_SLOT = re.compile(r"\$?\b(?:slots|scopedSlots)(?:\.([\w$]+)|\['([\w-]+)'\])")
_TEXTS = ["", "0", "Holm", " Skail ", "Ærø", "12"]
_NUMBERS = [0, 1, -1, 7, 0.5, 12.25, 1e21]


@dataclass(frozen=True)
class Taken:
    """An expression: what it is for, its text in JavaScript, its operands and their types."""

    use: str
    text: str
    types: tuple[tuple[str, Type], ...]
    expr: Expr | None
    why: str = ""


class _File:
    """The expressions of one single file."""

    def __init__(self, path: Path) -> None:
        source = SourceText.read(path)
        found = recognise(source)
        if found is None:
            raise InputError("holds no component", file=source.path)
        syntax = declared(found)
        workspace, wishes = Workspace(path), Wishes(2, neutral=True)
        reader = syntax.load_reader()
        whole = reader.whole(source, workspace, wishes)
        ledger = Ledger(whole.path, whole.data, syntax.drops)
        file = reader.read(whole, ledger, workspace, wishes)
        self.file = file
        self.component = file.components[0]
        shapes = read_inputs(file.source.slice(0, len(file.source.data)), str(path)).shapes
        told = {name: typical(name, shape) for name, shape in shapes.items()}
        self.types = MemberTypes(self.component, file.source, told)

    def taken(self) -> Iterator[Taken]:
        yield from self._of(self.component.view.markup, {})

    def _of(self, nodes: Any, names: Mapping[str, Type]) -> Iterator[Taken]:
        for one in nodes:
            inner = names
            if isinstance(one, Expression):
                yield self._one("text", one.code, names)
            elif isinstance(one, Condition):
                tests = [arm.test for arm in one.branches if arm.test is not None]
                yield from (self._one("truth", test, names) for test in tests)
            elif isinstance(one, Loop):
                yield self._one("value", one.items, names)
                inner = {**names, **self._locals(one, names)}
            elif isinstance(one, Element):
                for attribute in one.attributes:
                    yield from self._attribute(attribute, names)
            yield from self._of(children_of(one), inner)

    def _attribute(self, one: Any, names: Mapping[str, Type]) -> Iterator[Taken]:
        if isinstance(one, BoundAttribute):
            yield self._one("value", one.code, names)
        elif isinstance(one, ClassList):
            yield from (self._one("truth", test, names) for _, test, _ in one.items)
        elif isinstance(one, StyleMap):
            yield from (self._one("value", value, names) for _, value, _ in one.items)
        elif isinstance(one, Shown):
            yield self._one("truth", one.code, names)

    def _locals(self, loop: Loop, names: Mapping[str, Type]) -> dict[str, Type]:
        source = self.file.source
        try:
            items = self.types.read(loop.items, names).type
        except Unsayable:
            items = ANY
        found = {source.slice(*loop.item.span[:2]).strip(): items.item or ANY}
        if loop.index is not None:
            found[source.slice(*loop.index.span[:2]).strip()] = WHOLE
        return found

    def _one(self, use: str, code: Code, names: Mapping[str, Type]) -> Taken:
        source = self.file.source
        text, here = "", code.span.start
        operands: dict[str, Type] = {}
        for one in code.operations:
            text += source.slice(here, one.span.start)
            own = source.slice(*one.span[:2])
            if isinstance(one, Read):
                own = re.sub(r"\W", "_", name_of(one.member))
                operands[own] = self.types.of(one.member)
            text += own
            here = one.span.end
        text += source.slice(here, code.span.end)
        for slot in _SLOT.finditer(text):
            operands[f"slot_{slot[1] or slot[2]}".replace("-", "_")] = record_of({}).or_missing(
                "null"
            )
        text = _SLOT.sub(lambda slot: f"slot_{slot[1] or slot[2]}".replace("-", "_"), text)
        for name, type_ in names.items():
            if re.search(rf"(?<![\w$.]){re.escape(name)}(?![\w$])", text):
                operands[name] = type_
        types = tuple(operands.items())
        try:
            return Taken(use, text.strip(), types, self.types.read(code, names))
        except Unsayable as reason:
            return Taken(use, text.strip(), types, None, reason.what)


def values_of(type_: Type, depth: int = 0) -> list[Any]:
    """Values of a type, its edges among them."""
    match type_.kind:
        case "text":
            found: list[Any] = list(_TEXTS)
        case "number":
            found = [one for one in _NUMBERS if not type_.whole or isinstance(one, int)]
        case "flag":
            found = [True, False]
        case "list":
            items = values_of(type_.item or ANY, depth + 1)
            found = [[], items[:1], items[:3], list(reversed(items[:4]))]
        case "record":
            fields = [(name, values_of(own, depth + 1)) for name, own in type_.fields or ()]
            found = [
                {name: own[at % len(own)] for name, own in fields}
                for at in range(3 if fields else 1)
            ]
        case _:
            found = [None]
    return [*found, None] if type_.missing and None not in found else found


def operands_of(taken: Taken, rng: random.Random) -> list[dict[str, Any]]:
    """Operand values of an expression."""
    columns = [(name, values_of(type_)) for name, type_ in taken.types]
    if not columns:
        return [{}]
    return [{name: rng.choice(own) for name, own in columns} for _ in range(40)]


_SCRIPT = """
const shown = (use, value) => {
  if (use === 'truth') return value ? 'true' : 'false';
  if (use === 'text' && value !== null && typeof value === 'object') return 'object';
  if (use === 'text') return value == null ? '' : String(value).toWellFormed();
  return JSON.stringify(value === undefined || Number.isNaN(value) ? null : value);
};
const cases = JSON.parse(require('fs').readFileSync(0, 'utf8'));
console.log(JSON.stringify(cases.map(([use, code, given]) => given.map((one) => {
  try { return shown(use, new Function(...Object.keys(one), `return (${code});`)(...Object.values(one))); }
  catch { return null; }
}))));
"""
_PAGE = """<?php
require __DIR__ . '/Js.php';
set_error_handler(function ($level, $words) { throw new ErrorException($words); });
ini_set('serialize_precision', '-1');
$found = [];
foreach (json_decode(file_get_contents(__DIR__ . '/cases.json'), true) as [$use, $code, $given]) {
    $found[] = array_map(function ($one) use ($use, $code) {
        extract($one);
        try {
            $made = eval("use App\\\\Support\\\\Js; return $code;");
        } catch (Throwable $error) {
            return 'failed: ' . $error->getMessage();
        }
        if ($use === 'truth') {
            return $made ? 'true' : 'false';
        }
        if ($use === 'text') {
            return is_array($made) ? 'object' : (string) $made;
        }
        return is_float($made) && !is_finite($made) ? 'null' : json_encode($made);
    }, $given);
}
echo json_encode($found);
"""


def spelled(taken: Taken) -> tuple[str, set[str]]:
    """An expression in PHP, with the helper's methods that it uses. Raises `Unsayable`."""
    assert taken.expr is not None
    speller = Speller(lambda name: f"${re.sub(r'[^0-9A-Za-z_]', '_', name)}")
    say = {"text": speller.shown, "truth": speller.truth, "value": speller.value}[taken.use]
    return say(taken.expr), speller.helpers


def compared(cases: list[tuple[Taken, str, list[dict[str, Any]]]], helpers: set[str]) -> list[str]:
    """The expressions that differ, with operands for which they do."""
    asked = json.dumps([[one.use, one.text, given] for one, _, given in cases])
    done = subprocess.run(
        [node(), "-e", _SCRIPT], input=asked, capture_output=True, text=True, check=True
    )
    with tempfile.TemporaryDirectory() as folder:
        Path(folder, "Js.php").write_text(helper_class(helpers), "utf-8")
        Path(folder, "page.php").write_text(_PAGE, "utf-8")
        own = json.dumps([[one.use, text, given] for one, text, given in cases])
        Path(folder, "cases.json").write_text(own, "utf-8")
        page = subprocess.run(
            ["php", f"{folder}/page.php"], capture_output=True, text=True, check=True
        )
    found = []
    for (one, text, given), old, new in zip(
        cases, json.loads(done.stdout), json.loads(page.stdout), strict=True
    ):
        for operands, before, after in zip(given, old, new, strict=True):
            if before is not None and not _alike(one.use, before, after):
                found.append(f"{one.text} | {text} | {operands}: {before} and {after}")
                break
    return found


def _alike(use: str, before: str, after: str) -> bool:
    if before == after or use != "value" or after.startswith("failed"):
        return before == after
    # A record without fields arrives as a list there.
    return bool(json.loads(before.replace("{}", "[]")) == json.loads(after.replace("{}", "[]")))


def main() -> int:
    """Print how many expressions are written, what differs, and why the rest is left."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("folders", nargs="+")
    parser.add_argument("--most", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    found: dict[str, Taken] = {}
    for path in sorted(p for folder in given.folders for p in Path(folder).rglob("*.vue")):
        try:
            for one in _File(path).taken():
                if not re.fullmatch(r"[\w$]+|'[^']*'|[\d.]+", one.text):
                    found.setdefault(f"{one.use} {one.text}", one)
        except (CarryError, IndexError):
            continue
    rng = random.Random(given.seed)
    chosen = sorted(found.values(), key=lambda one: one.text)
    rng.shuffle(chosen)
    cases, helpers, left = [], set[str](), []
    for one in chosen[: given.most]:
        try:
            if one.expr is None:
                raise Unsayable(one.why)
            text, used = spelled(one)
        except Unsayable as reason:
            left.append(f"left: {one.text.replace(chr(10), ' ')[:70]} ({reason.what})")
            continue
        cases.append((one, text, operands_of(one, rng)))
        helpers |= used
    differ = compared(cases, helpers)
    print("\n".join([*left, *(f"differs: {one}" for one in differ)]))
    taken = min(len(chosen), given.most)
    print(f"{len(chosen)} expressions, {taken} taken: {len(cases)} written, {len(differ)} differ")
    return int(bool(differ))


if __name__ == "__main__":
    raise SystemExit(main())
