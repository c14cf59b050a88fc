"""Expressions of JavaScript in PHP: what is written gives the same in both languages, the rest is left."""

from __future__ import annotations

import itertools
import json
import random
import re
import shutil
import subprocess
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.expressions.model import Expr, Name, Unsayable
from clean_carry.source.expressions.types import (
    FLAG,
    NULL,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    list_of,
    record_of,
)
from clean_carry.source.javascript.expression import expression
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.php.helper import METHODS, helper_class
from clean_carry.source.php.spelling import Speller
from clean_carry.source.text import SourceText
from clean_carry.verify.node import node

ROW = record_of({"name": TEXT, "cars": WHOLE, "fare": NUMBER, "late": FLAG})
TYPES: dict[str, Type] = {
    "pier": TEXT, "seats": WHOLE, "fare": NUMBER, "open": FLAG, "rows": list_of(ROW),
    "boat": record_of({"name": TEXT, "decks": list_of(TEXT)}).or_missing("null"),
    "note": TEXT.or_missing("undefined"), "left": WHOLE.or_missing("null"), "names": list_of(TEXT),
    "levels": list_of(NUMBER), "nothing": NULL, "quay": TEXT, "other": WHOLE,
}  # fmt: skip
_ROWS: list[Any] = [
    {"name": "Holm", "cars": 3, "fare": 12.5, "late": False},
    {"name": "", "cars": 0, "fare": 0.1, "late": True},
    {"name": "Skail", "cars": 12, "fare": 35.275, "late": False},
]
VALUES: dict[str, list[Any]] = {
    "pier": ["", "0", "Holm", " Skail ", "a,b", "Ærø 😀", "12"],
    "seats": [0, 1, -1, 7, 2147483648],
    "fare": [0, 1.5, -0.5, 80.25, 35.275, 1e21, 1e-7, 100.0],
    "open": [True, False],
    "rows": [[], _ROWS, _ROWS[:1], list(reversed(_ROWS))],
    "boat": [None, {"name": "", "decks": []}, {"name": "Gull", "decks": ["upper", "car"]}],
    "note": [None, "", "0", "late"],
    "left": [None, 0, 3],
    "names": [[], ["b", "A", "c", ""], ["Holm"]],
    "levels": [[], [3, 1, 2.5], [0.1, 0.2, -3]],
    "nothing": [None],
    "quay": ["", "b", "Holm"],
    "other": [0, 2, -3],
}
# Expressions that are written.
WRITTEN = """
pier ? 1 : 2
!pier
pier || 'none'
pier && 'x'
seats && 'some'
seats || 5
fare || 5
open && pier
open && 'x'
!open || pier === 'Holm'
seats + pier
'n: ' + seats + 1
seats + 1 + 'n'
`${seats} of ${other} at ${pier}`
`${fare}`
`${open}`
fare.toFixed(1)
fare.toFixed(2)
fare.toFixed(0)
seats / 2
seats / other
seats % 3
fare % 2
seats % other
-seats
seats * fare
seats ** 2
2 ** -1
seats - other * 2
(seats - other) * 2
seats > other
fare >= 1.5
pier < quay
pier === quay
pier !== 'Holm'
seats === other
fare === 100
boat == null
boat !== null
note == null
left === null
note != null && note.length
boat?.name
boat?.name ?? '-'
boat?.decks[0] ?? 'none'
boat ? boat.name : ''
boat && boat.decks.length > 0
boat && boat.name
note || 'none'
note ?? 'none'
left ?? 'none'
left || 'none'
note
left
rows.length
!rows.length
rows.length ? 'some' : 'none'
rows[0]?.name
rows[0] ? rows[0].name : 'none'
rows.find((row) => row.name === quay)?.cars
rows.find((row) => row.cars > 2) ? 'yes' : 'no'
rows.filter((row) => row.late).length
rows.filter((row) => row.name).map((row) => row.name).join(', ')
rows.map((row, at) => at + ': ' + row.name).join()
rows.map((row) => row.fare).join('; ')
rows.map((row) => row.late).join()
rows.some((row) => !row.name)
rows.every((row) => row.cars)
rows.findIndex((row) => row.name === quay)
rows.reduce((sum, row) => sum + row.cars, 0)
rows.reduce((sum, row) => sum + row.cars * row.fare, 0)
rows.reduce((text, row) => text + row.name, '')
rows.slice(1).length
rows.slice(-1)[0]?.name
rows.slice(0, 2).map((row) => row.name).join()
names.includes(quay)
names.indexOf(quay)
names.join()
[...names].sort().join()
[...names].reverse().join('-')
[...rows].sort((a, b) => b.cars - a.cars).map((row) => row.name).join()
names.concat(['x', pier]).join()
[pier, ...names].length
levels.includes(3)
levels.indexOf(2.5)
Math.max(...levels)
Math.min(...levels, 0)
Math.max(seats, other)
Math.round(fare)
Math.round(fare * 100) / 100
Math.floor(fare)
Math.ceil(fare)
Math.trunc(fare)
Math.abs(seats)
Math.floor(seats / 2)
Number.isInteger(fare)
Number(pier)
parseInt(pier, 10)
parseFloat(pier)
String(fare)
String(open)
Boolean(pier)
!!seats
pier.length
pier.length === 0
pier.trim()
pier.toUpperCase()
pier.toLowerCase()
pier.startsWith('H')
pier.endsWith(quay)
pier.includes(quay)
pier.indexOf('o')
pier.slice(1)
pier.slice(0, -1)
pier.slice(-2)
pier.substring(2, 1)
pier.substr(1, 2)
pier.charAt(0)
pier.charAt(0).toUpperCase() + pier.slice(1)
pier.split(',').length
pier.replace('a', 'o')
pier.replace(quay, 'x')
pier.replaceAll('a', '')
pier.padStart(6, '*')
pier.padEnd(6, '.')
seats.toString().padStart(2, '0')
'-'.repeat(3)
pier[0]
typeof pier
{ a: seats }.a
[1, 2, 3].includes(seats)
['Holm', 'Skail'].indexOf(pier) >= 0
open ? seats : 'none'
open ? (seats > 1 ? 'many' : 'one') : pier
seats === 1 ? 'seat' : 'seats'
seats + ' ' + (seats === 1 ? 'seat' : 'seats')
open === true
open !== false
'it\\'s'
"a\\"b$c"
""".strip().split("\n")
# Expressions that are left, whose meaning or types are not the same.
LEFT = """
seats == '5'
pier == 0
pier == false
note === undefined && left === undefined
nothing.name
boat.name
rows[0].name
pier + null
rows
boat
`${note}`
`${nothing}`
levels.sort()
names.sort()
[...levels].sort().join()
new Date(0).getTime()
JSON.stringify(rows)
Object.keys(boat)
seats.toLocaleString()
pier.match(/a/)
pier.replace('a', quay)
pier.repeat(seats)
rows.forEach((row) => row.name)
window.name
unknown
rows.map((row) => { const n = row.name; return n; }).length
seats + open
pier > seats
pier.toFixed(2)
pier.split('').length
seats++
pier = 'x'
await pier
""".strip().split("\n")


def read(code: str) -> Expr:
    tree = Tree(SourceText("x.ts", f"({code});".encode()))

    def leaf(node: Node) -> Expr | None:
        if node.type in ("identifier", "shorthand_property_identifier") and node.text in TYPES:
            return Name(TYPES[node.text], node.text)
        return None

    return expression(tree.root.named_children[0].named_children[0].named_children[0], leaf)


def spelled(code: str) -> tuple[str, set[str]]:
    speller = Speller(lambda name: f"${name}")
    return speller.shown(read(code)), speller.helpers


def operands(code: str) -> list[dict[str, Any]]:
    names = [one for one in TYPES if re.search(rf"(?<![\w$'\"])(?<!\w\.){one}(?![\w$])", code)]
    rows = itertools.product(*(VALUES[one] for one in names))
    found = [dict(zip(names, row, strict=True)) for row in itertools.islice(rows, 4000)]
    random.Random(1).shuffle(found)
    return found[:60]


_SCRIPT = """
const shown = (value) => (value == null ? '' : String(value).toWellFormed());
const cases = JSON.parse(require('fs').readFileSync(0, 'utf8'));
console.log(JSON.stringify(cases.map(([code, given]) => given.map((one) => {
  const made = new Function(...Object.keys(one), `return (${code});`);
  try { return shown(made(...Object.values(structuredClone(one)))); } catch { return null; }
}))));
"""
_PAGE = """<?php
use App\\Support\\Js;
require __DIR__ . '/Js.php';
set_error_handler(function ($level, $words) { throw new ErrorException($words); });
$found = [];
foreach (json_decode(file_get_contents(__DIR__ . '/cases.json'), true) as [$code, $given]) {
    $found[] = array_map(function ($one) use ($code) {
        extract($one);
        try {
            $made = eval("use App\\\\Support\\\\Js; return $code;");
        } catch (Throwable $error) {
            return 'failed: ' . $error->getMessage();
        }
        return is_bool($made) || is_array($made) ? 'no text' : (string) $made;
    }, $given);
}
echo json_encode($found);
"""


def results(folder: Path, cases: list[tuple[str, str]], helpers: set[str]) -> list[tuple[Any, Any]]:
    """For each case what JavaScript and PHP give for its operands."""
    given = [operands(code) for code, _ in cases]
    asked = json.dumps([[code, own] for (code, _), own in zip(cases, given, strict=True)])
    done = subprocess.run(
        [node(), "-e", _SCRIPT], input=asked, capture_output=True, text=True, check=True
    )
    (folder / "Js.php").write_text(helper_class(helpers), "utf-8")
    (folder / "page.php").write_text(_PAGE, "utf-8")
    own = [[text, operand] for (_, text), operand in zip(cases, given, strict=True)]
    (folder / "cases.json").write_text(json.dumps(own), "utf-8")
    page = subprocess.run(
        ["php", str(folder / "page.php")], capture_output=True, text=True, check=False
    )
    assert page.returncode == 0, page.stdout[-400:] + page.stderr[-400:]
    return list(zip(json.loads(done.stdout), json.loads(page.stdout), strict=True))


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_what_is_written_gives_the_same(tmp_path: Path) -> None:
    cases, helpers = [], set[str]()
    for code in WRITTEN:
        text, used = spelled(code)
        cases.append((code, text))
        helpers |= used
    differ = []
    for (code, text), (old, new) in zip(cases, results(tmp_path, cases, helpers), strict=True):
        rows = zip(operands(code), old, new, strict=True)
        differ += [(code, text, *row) for row in rows if row[1] != row[2]][:1]
    assert differ == []


@pytest.mark.parametrize("code", LEFT)
def test_what_is_left(code: str) -> None:
    with pytest.raises(Unsayable):
        spelled(code)


@pytest.mark.parametrize(
    ("code", "text"),
    [
        ("pier ? 1 : 2", "$pier !== '' ? 1 : 2"),
        ("boat?.name ?? '-'", "$boat['name'] ?? '-'"),
        ("rows[0]?.name", "$rows[0]['name'] ?? null"),
        ("!rows.length", "count($rows) === 0 ? 'true' : 'false'"),
        ("seats + ' cars'", "$seats . ' cars'"),
        ("'it\\'s'", "'it\\'s'"),
        ("seats % 2", "$seats % 2"),
        ("rows.filter((row) => row.late)[0]?.name",
         "array_values(array_filter($rows, fn ($row) => $row['late']))[0]['name'] ?? null"),
        ("names.includes(pier) && open ? pier : quay",
         "in_array($pier, $names, true) && $open ? $pier : $quay"),
    ],
)  # fmt: skip
def test_it_reads_as_a_developer_would_write_it(code: str, text: str) -> None:
    assert spelled(code)[0] == text


def test_a_helper_class_holds_what_is_used_alone() -> None:
    text = helper_class({"length"})
    assert "function length" in text
    assert "function units" in text
    assert "function num" not in text


@pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")
def test_the_whole_helper_class_is_php(tmp_path: Path) -> None:
    (tmp_path / "Js.php").write_text(helper_class(METHODS), "utf-8")
    done = subprocess.run(["php", "-l", str(tmp_path / "Js.php")], capture_output=True, check=False)
    assert done.returncode == 0, done.stdout
