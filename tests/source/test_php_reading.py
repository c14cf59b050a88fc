"""Expressions of PHP in JavaScript: each that is written gives the same in both languages."""

from __future__ import annotations

import itertools
import json
import shutil
import subprocess
from pathlib import Path
from typing import Any

import pytest

from clean_carry.source.expressions.model import Expr, Name, Unsayable
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    list_of,
    record_of,
)
from clean_carry.source.javascript.spelling import Speller
from clean_carry.source.php.reading import PhpReader
from clean_carry.source.php.tree import PhpNode, expression_in
from clean_carry.source.php.uses import Uses
from clean_carry.verify.node import node

TYPES: dict[str, Type] = {
    "t": TEXT, "u": TEXT, "n": WHOLE, "m": WHOLE, "x": NUMBER, "f": FLAG, "g": FLAG,
    "names": list_of(TEXT), "sums": list_of(NUMBER), "o": TEXT.or_missing("null"),
    "r": record_of({"name": TEXT, "late": WHOLE, "gone": FLAG}),
    "rows": list_of(record_of({"price": NUMBER, "name": TEXT})),
    "by": Type("record", item=TEXT),
}  # fmt: skip
VALUES: dict[str, list[Any]] = {
    "t": ["", "0", "Holm", " Ærø quay \n", "a b c", "12"], "u": ["x", "", "Skail", "0"],
    "n": [0, 1, 7, -3, 1200], "m": [2, 5, -4], "x": [0, 2.5, 1234.5, -0.25, 12.75], "f": [True, False],
    "g": [False, True], "names": [[], ["Holm"], ["b", "a", "0"]], "sums": [[1.5, 2], [3]],
    "o": [None, "", "0", "Holm"], "r": [{"name": "Holm", "late": 4, "gone": False}],
    "rows": [[{"price": 4.5, "name": "car"}, {"price": 12, "name": "bike"}]],
    "by": [{}, {"holm": "Holm", "skail": "Skail"}],
}  # fmt: skip
SHOWN = r"""
$t
$n
$x
$f
$o
$t . ' ' . $n
"at $t, {$r['name']} and $r[late]"
$n + $m
$n * $x - $m
$n % $m
-$n
($n + 1) / 4
$t ?: 'none'
$o ?? 'none'
$f ? 'yes' : 'no'
$n > $m ? $t : $u
$r['late'] + 1
count($names)
count($by)
strtoupper($t)
strtolower($t)
mb_strtoupper($t)
ucfirst($u)
lcfirst($t)
ucwords($t)
trim($t)
mb_strlen($t)
mb_substr($t, 1)
mb_substr($t, 0, 3)
str_replace('a', 'o', $t)
str_replace(' ', '', $t)
implode(', ', $names)
abs($n)
floor($x)
ceil($x)
round($x)
min($n, $m)
max($sums)
number_format($n)
number_format($x, 2)
array_sum($sums)
min(array_column($rows, 'price'))
$names[0] ?? 'none'
$by['holm'] ?? '-'
match($t) { 'Holm' => 'island', '', '0' => 'none', default => 'quay' }
match(true) { $n > 5 => 'many', default => 'few' }
$n ** 2
'it\'s ' . $u
"a\tb\$t"
$f . ''
e($u)
$by[$u] ?? $u
intdiv($n, $m)
sprintf('%d', $n)
$t == $u
""".strip().split("\n")
TESTS = r"""
$t
$n
$x
$f
$o
!$t
!$names
$names
$by
$f && $g
$f || !$g
$t && $n
$t and $f
$n > 0
$n >= $m
$x < 2.5
$t === 'Holm'
$t !== ''
$t == 'Holm'
$n == 7
$n === 7
$o === null
$o !== null
isset($o)
empty($o)
!empty($t)
empty($names)
isset($by['holm'])
isset($by['holm'], $o)
empty($by['skail'])
in_array($t, ['Holm', '0'], true)
in_array($n, [1, 7])
is_null($o)
str_contains($t, 'o')
str_starts_with($t, $u)
count($names) > 1
!($f && $g)
!$r['gone']
!isset($o) || $o === ''
$r
$n <> 7
!(!$t)
""".strip().split("\n")
REFUSED = [
    "$t == null", "$o < 3", "strlen($t)", "date('H:i')", "$x++", "$t . $names", "$t['a']", "$n == $t",
    "$t < $u",
    "Str::limit($t, 3)", "in_array($t, $names)", "str_replace('a', '$&', $t)", "new Sailing()", "$t = 'a'",
    "function () { return 1; }", "match($t) { 'a' => 1 }", "`id`",
]  # fmt: skip
pytestmark = pytest.mark.skipif(shutil.which("php") is None, reason="php is not installed")


def leaf(one: PhpNode) -> Expr | None:
    name = one.text[1:]
    return Name(TYPES[name], name) if one.type == "variable_name" and name in TYPES else None


def in_javascript(code: str, *, test: bool) -> str:
    reader = PhpReader(leaf, Uses())
    tree = expression_in(code.encode(), 0)
    read = reader.test(tree) if test else reader.shown(reader.read(tree), tree)
    return Speller(lambda name: name).value(read)


def operands(code: str) -> list[dict[str, Any]]:
    names = [name for name in VALUES if f"${name}" in code]
    return [
        dict(zip(names, each, strict=True))
        for each in itertools.product(*(VALUES[one] for one in names))
    ]


PAGE = """<?php
set_error_handler(function ($level, $words) { throw new ErrorException($words); });
foreach (json_decode(file_get_contents($argv[1]), true) as [$code, $test, $given]) {
    $found[] = array_map(function ($one) use ($code, $test) {
        extract($one);
        try {
            $made = eval("return $code;");
        } catch (Throwable $error) {
            return null;
        }
        return $test ? ($made ? 'true' : 'false') : (string) $made;
    }, $given);
}
echo json_encode($found);
"""
SCRIPT = """
const cases = JSON.parse(require('fs').readFileSync(process.argv[1], 'utf8'));
const found = cases.map(([code, test, given]) => given.map((one) => {
  const run = new Function(...Object.keys(one), `return ${code};`);
  const made = run(...Object.values(one));
  return test ? String(Boolean(made)) : String(made ?? '');
}));
console.log(JSON.stringify(found));
"""


def run_both(cases: list[tuple[str, str, bool]], folder: Path) -> list[str]:
    """Where the values of expressions differ: PHP's code, that of JavaScript, whether it is a test."""
    old = [[code, test, operands(code)] for code, _, test in cases]
    new = [[made, test, operands(code)] for code, made, test in cases]
    texts = {"old.json": json.dumps(old), "new.json": json.dumps(new), "page.php": PAGE}
    for name, text in texts.items():
        (folder / name).write_text(text, "utf-8")
    page = ["php", str(folder / "page.php"), str(folder / "old.json")]
    script = [node(), "-e", SCRIPT, str(folder / "new.json")]
    php, js = (
        json.loads(subprocess.run(one, capture_output=True, text=True, check=True).stdout)
        for one in (page, script)
    )
    found = []
    for (code, made, _), given, one, other in zip(cases, old, php, js, strict=True):
        for values, before, after in zip(given[2], one, other, strict=True):
            # The server shows the sign of a nought, as of ceil(-0.25).
            if before is not None and (before, after) != ("-0", "0") and before != after:
                found.append(f"{code} | {made} | {values}: {before!r} and {after!r}")
    return found


def test_expressions_give_the_same(tmp_path: Path) -> None:
    cases, left = [], []
    for text, test in ((SHOWN, False), (TESTS, True)):
        for code in text:
            try:
                cases.append((code, in_javascript(code, test=test), test))
            except Unsayable:
                left.append(code)
    assert left == ["intdiv($n, $m)", "sprintf('%d', $n)"]
    assert run_both(cases, tmp_path) == []


@pytest.mark.parametrize("code", REFUSED)
def test_what_is_not_known_is_refused(code: str) -> None:
    with pytest.raises(Unsayable):
        in_javascript(code, test=False)


@pytest.mark.parametrize(
    ("code", "made"),
    [
        ("$n + $m", "n + m"),
        ("$t . '!'", "`${t}!`"),
        ("$t ?: 'none'", "t && t !== '0' ? t : 'none'"),
        ("$r['late'] > 0 ? 'late' : ''", "r.late > 0 ? 'late' : ''"),
        ("$o ?? '-'", "o ?? '-'"),
        ("number_format($n)", "n.toLocaleString('en-US')"),
        ("'a' . $n + 1", "`a${n + 1}`"),
        ("($n + 1) * 2", "(n + 1) * 2"),
    ],
)  # fmt: skip
def test_code_reads_as_one_writes_it(code: str, made: str) -> None:
    assert in_javascript(code, test=False) == made


def test_uses_tell_types() -> None:
    uses = Uses()
    reader = PhpReader(
        lambda one: (
            Name(uses.type_of((one.text[1:],)), one.text[1:])
            if one.type == "variable_name"
            else None
        ),
        uses,
    )
    codes = [
        "$a + 1",
        "$b . 'x'",
        "$c['d'] > 2",
        "$e['f']['g']",
        "count($h)",
        "$i === 'x'",
        "$j ?? 1",
    ]
    for _ in range(2):
        for code in codes:
            reader.read(expression_in(code.encode(), 0))
        reader.test(expression_in(b"$k", 0))
        uses.next_round()
    assert uses.type_of(("a",)).kind == "number"
    assert uses.type_of(("b",)).kind == "text"
    assert uses.type_of(("c",)).field("d") == NUMBER
    assert uses.type_of(("e",)).field("f") == record_of({"g": ANY})
    assert uses.type_of(("h",)).kind == "list"
    assert uses.type_of(("i",)) == TEXT
    assert uses.type_of(("j",)).missing
    assert uses.type_of(("k",)) == FLAG
