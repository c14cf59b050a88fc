"""The helper class that a view ships with, with the methods that its expressions use and no others.

Each does what JavaScript does (ECMA-262) where PHP has no function that does the same.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

_HEAD = """<?php

namespace App\\Support;

/** What JavaScript does with values where PHP does something else. */
final class Js
{
"""
# Texts are counted in units of UTF-16 there, in bytes here.
_METHODS = {
    "num": r"""
    /** A number as text. */
    public static function num(int|float $x): string
    {
        if (is_nan($x)) {
            return 'NaN';
        }
        if (is_infinite($x)) {
            return $x > 0 ? 'Infinity' : '-Infinity';
        }
        if ($x == 0) {
            return '0';
        }
        if (is_int($x) && abs($x) <= 9007199254740992) {
            return (string) $x;
        }
        [$digits, $exponent] = explode('e', sprintf('%.16e', (float) $x));
        for ($places = 0; $places < 17; $places++) {
            $short = sprintf("%.{$places}e", (float) $x);
            if ((float) $short === (float) $x) {
                [$digits, $exponent] = explode('e', $short);
                break;
            }
        }
        $sign = $digits[0] === '-' ? '-' : '';
        $digits = rtrim(str_replace(['-', '.'], '', $digits), '0') ?: '0';
        $exponent = (int) $exponent;
        if ($exponent >= 21 || $exponent < -6) {
            $rest = substr($digits, 1);
            $power = ($exponent > 0 ? '+' : '-') . abs($exponent);
            return $sign . $digits[0] . ($rest !== '' ? ".$rest" : '') . "e$power";
        }
        if ($exponent < 0) {
            return $sign . '0.' . str_repeat('0', -$exponent - 1) . $digits;
        }
        $whole = str_pad(substr($digits, 0, $exponent + 1), $exponent + 1, '0');
        $rest = substr($digits, $exponent + 1);
        return $sign . $whole . ($rest !== '' ? ".$rest" : '');
    }
""",
    "shown": r"""
    /** A number as text; none as no text. */
    public static function shown(int|float|null $x): string
    {
        return $x === null ? '' : self::num($x);
    }
""",
    "truth": r"""
    /** Whether a value is taken for true. */
    public static function truth(mixed $x): bool
    {
        return is_array($x) || !($x === null || $x === '' || $x === false || $x == 0 && !is_string($x)
            || is_float($x) && is_nan($x));
    }
""",
    "same": r"""
    /** Whether two numbers, which may be missing, are equal. */
    public static function same(int|float|null $a, int|float|null $b): bool
    {
        return $a === null || $b === null ? $a === $b : $a == $b;
    }
""",
    "fixed": r"""
    /** A number with so many digits behind its point, halves away from nought. */
    public static function fixed(int|float $x, int $places = 0): string
    {
        if (!is_finite($x) || abs($x) >= 1e21) {
            return self::num($x);
        }
        // All digits that the number has: halves are decided by them.
        $exact = sprintf('%.53F', abs($x));
        [$whole, $rest] = explode('.', $exact);
        $digits = $whole . substr($rest, 0, $places);
        if ($rest[$places] >= '5') {
            for ($at = strlen($digits) - 1; $at >= 0 && $digits[$at] === '9'; $at--) {
                $digits[$at] = '0';
            }
            $digits = $at < 0 ? "1$digits" : substr_replace($digits, (string) ($digits[$at] + 1), $at, 1);
        }
        $whole = $places > 0 ? substr($digits, 0, -$places) : $digits;
        $shown = $whole . ($places > 0 ? '.' . substr($digits, -$places) : '');
        return ($x < 0 ? '-' : '') . $shown;
    }
""",
    "round": r"""
    /** The nearest whole number, of two the greater one. */
    public static function round(int|float $x): int|float
    {
        if (is_int($x) || !is_finite($x)) {
            return $x;
        }
        $down = floor($x);
        return $x - $down >= 0.5 ? $down + 1 : $down;
    }
""",
    "trunc": r"""
    /** A number without what is behind its point. */
    public static function trunc(int|float $x): int|float
    {
        return $x < 0 ? ceil($x) : floor($x);
    }
""",
    "signOf": r"""
    /** 1, -1 or nought, by the sign. */
    public static function signOf(int|float $x): int|float
    {
        return is_nan($x) ? $x : $x <=> 0;
    }
""",
    "max": r"""
    /** The greatest of some numbers. */
    public static function max(array $x): int|float
    {
        return array_reduce($x, fn ($a, $b) => is_nan($a) || is_nan($b) ? NAN : max($a, $b), -INF);
    }
""",
    "min": r"""
    /** The least of some numbers. */
    public static function min(array $x): int|float
    {
        return array_reduce($x, fn ($a, $b) => is_nan($a) || is_nan($b) ? NAN : min($a, $b), INF);
    }
""",
    "mod": r"""
    /** What is left of a division, with the sign of the first number. */
    public static function mod(int|float $a, int|float $b): float
    {
        return $b == 0 ? NAN : fmod($a, $b);
    }
""",
    "power": r"""
    /** A power. */
    public static function power(int|float $a, int|float $b): float
    {
        if (is_nan($b) || (is_infinite($b) && abs($a) == 1)) {
            return NAN;
        }
        return ($b < 0 && $a == 0) ? INF : (float) $a ** $b;
    }
""",
    "isWhole": r"""
    /** Whether a number has no fraction. */
    public static function isWhole(int|float $x): bool
    {
        return is_finite($x) && floor($x) == $x;
    }
""",
    "number": r"""
    /** A text as a number, NaN where it is none. */
    public static function number(string $text): int|float
    {
        $text = self::trim($text);
        if ($text === '') {
            return 0;
        }
        if (preg_match('/^0x[0-9a-f]+$/i', $text)) {
            return hexdec(substr($text, 2));
        }
        if (preg_match('/^0b[01]+$/i', $text)) {
            return bindec(substr($text, 2));
        }
        if (preg_match('/^0o[0-7]+$/i', $text)) {
            return octdec(substr($text, 2));
        }
        if (preg_match('/^([+-]?)Infinity$/', $text, $found)) {
            return $found[1] === '-' ? -INF : INF;
        }
        return preg_match('/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i', $text) ? (float) $text : NAN;
    }
""",
    "readWhole": r"""
    /** The whole number that a text begins with, NaN where it begins with none. */
    public static function readWhole(string $text): int|float
    {
        return preg_match('/^[+-]?\d+/', self::trimStart($text), $found) ? (float) $found[0] : NAN;
    }
""",
    "readNumber": r"""
    /** The number that a text begins with, NaN where it begins with none. */
    public static function readNumber(string $text): int|float
    {
        $text = self::trimStart($text);
        if (preg_match('/^([+-]?)Infinity/', $text, $found)) {
            return $found[1] === '-' ? -INF : INF;
        }
        $number = '/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?/i';
        return preg_match($number, $text, $found) ? (float) $found[0] : NAN;
    }
""",
    "trim": r"""
    /** A text without white space at its ends. */
    public static function trim(string $text): string
    {
        return self::trimStart(preg_replace('/[\s\x{feff}\p{Z}]+$/u', '', $text));
    }
""",
    "trimStart": r"""
    /** A text without white space at its start. */
    public static function trimStart(string $text): string
    {
        return preg_replace('/^[\s\x{feff}\p{Z}]+/u', '', $text);
    }
""",
    "trimEnd": r"""
    /** A text without white space at its end. */
    public static function trimEnd(string $text): string
    {
        return preg_replace('/[\s\x{feff}\p{Z}]+$/u', '', $text);
    }
""",
    "units": r"""
    private static function units(string $text): string
    {
        return mb_convert_encoding($text, 'UTF-16LE', 'UTF-8');
    }
""",
    "ofUnits": r"""
    private static function ofUnits(string $units): string
    {
        // A surrogate without its partner at an end is shown as the replacement character.
        if (preg_match('/^.[\xdc-\xdf]/s', $units)) {
            $units = "\xfd\xff" . substr($units, 2);
        }
        if (preg_match('/^(?:..)*.[\xd8-\xdb]$/sD', $units)) {
            $units = substr($units, 0, -2) . "\xfd\xff";
        }
        return mb_convert_encoding($units, 'UTF-8', 'UTF-16LE');
    }
""",
    "length": r"""
    /** The length of a text. */
    public static function length(string $text): int
    {
        return intdiv(strlen(self::units($text)), 2);
    }
""",
    "slice": r"""
    /** A part of a text; places below nought count from its end. */
    public static function slice(string $text, int $start, ?int $end = null): string
    {
        $units = self::units($text);
        $length = intdiv(strlen($units), 2);
        $start = $start < 0 ? max(0, $length + $start) : min($start, $length);
        $end ??= $length;
        $end = $end < 0 ? max(0, $length + $end) : min($end, $length);
        return $end <= $start ? '' : self::ofUnits(substr($units, 2 * $start, 2 * ($end - $start)));
    }
""",
    "between": r"""
    /** The part of a text between two places. */
    public static function between(string $text, int $start, ?int $end = null): string
    {
        $length = self::length($text);
        [$start, $end] = [max(0, min($start, $length)), max(0, min($end ?? $length, $length))];
        return self::slice($text, min($start, $end), max($start, $end));
    }
""",
    "stretch": r"""
    /** So many signs of a text from a place on. */
    public static function stretch(string $text, int $start, ?int $count = null): string
    {
        $length = self::length($text);
        $start = $start < 0 ? max(0, $length + $start) : $start;
        return self::between($text, $start, $start + max(0, $count ?? $length));
    }
""",
    "sign": r"""
    /** The sign at a place, no text where there is none. */
    public static function sign(string $text, int $at): string
    {
        return $at < 0 ? '' : self::slice($text, $at, $at + 1);
    }
""",
    "at": r"""
    /** The sign at a place, nothing where there is none. */
    public static function at(string $text, int $at): ?string
    {
        $found = self::sign($text, $at);
        return $found === '' ? null : $found;
    }
""",
    "place": r"""
    /** Where a text holds another one, -1 where it does not. */
    public static function place(string $text, string $part): int
    {
        $at = strpos($text, $part);
        return $at === false ? -1 : self::length(substr($text, 0, $at));
    }
""",
    "replaceFirst": r"""
    /** A text with the first of some parts replaced. */
    public static function replaceFirst(string $text, string $old, string $new): string
    {
        $at = strpos($text, $old);
        return $at === false ? $text : substr_replace($text, $new, $at, strlen($old));
    }
""",
    "padStart": r"""
    /** A text that is made as long as asked, from its start. */
    public static function padStart(string $text, int $length, string $by = ' '): string
    {
        $missing = $length - self::length($text);
        if ($missing <= 0 || $by === '') {
            return $text;
        }
        return self::slice(str_repeat($by, $missing), 0, $missing) . $text;
    }
""",
    "padEnd": r"""
    /** A text that is made as long as asked, at its end. */
    public static function padEnd(string $text, int $length, string $by = ' '): string
    {
        $missing = $length - self::length($text);
        if ($missing <= 0 || $by === '') {
            return $text;
        }
        return $text . self::slice(str_repeat($by, $missing), 0, $missing);
    }
""",
    "find": r"""
    /** The first item of which a function is true, nothing where there is none. */
    public static function find(array $list, callable $asked): mixed
    {
        foreach ($list as $at => $one) {
            if ($asked($one, $at)) {
                return $one;
            }
        }
        return null;
    }
""",
    "findPlace": r"""
    /** The place of the first item of which a function is true, -1 where there is none. */
    public static function findPlace(array $list, callable $asked): int
    {
        foreach ($list as $at => $one) {
            if ($asked($one, $at)) {
                return $at;
            }
        }
        return -1;
    }
""",
    "some": r"""
    /** Whether a function is true of an item. */
    public static function some(array $list, callable $asked): bool
    {
        return self::findPlace($list, $asked) >= 0;
    }
""",
    "every": r"""
    /** Whether a function is true of all items. */
    public static function every(array $list, callable $asked): bool
    {
        return self::findPlace($list, fn ($one, $at) => !$asked($one, $at)) < 0;
    }
""",
    "indexOf": r"""
    /** The place of an item, -1 where there is none. */
    public static function indexOf(array $list, mixed $item): int
    {
        $strict = is_string($item) || is_bool($item);
        return self::findPlace($list, fn ($one) => $strict ? $one === $item : $one == $item);
    }
""",
    "part": r"""
    /** A part of a list; places below nought count from its end. */
    public static function part(array $list, int $start = 0, ?int $end = null): array
    {
        $length = count($list);
        $start = $start < 0 ? max(0, $length + $start) : $start;
        $end ??= $length;
        $end = $end < 0 ? $length + $end : $end;
        return $end <= $start ? [] : array_slice($list, $start, $end - $start);
    }
""",
    "itemAt": r"""
    /** The item at a place, which counts from the end below nought. */
    public static function itemAt(array $list, int $at): mixed
    {
        return $list[$at < 0 ? count($list) + $at : $at] ?? null;
    }
""",
    "map": r"""
    /** What a function gives for each item and its place. */
    public static function map(callable $make, array $list): array
    {
        return array_map($make, $list, array_keys($list));
    }
""",
    "sort": r"""
    /** A list in the order that a comparison gives. */
    public static function sort(array $list, callable $compare): array
    {
        usort($list, fn ($a, $b) => self::whole($compare($a, $b)));
        return $list;
    }
""",
    "whole": r"""
    private static function whole(int|float $x): int
    {
        return $x <=> 0;
    }
""",
}


def helper_class(used: Iterable[str]) -> str:
    """The script of the class with some methods and those that they call."""
    needed: set[str] = set()
    queue = list(used)
    while queue:
        name = queue.pop()
        if name not in needed:
            needed.add(name)
            queue += re.findall(r"self::(\w+)", _METHODS[name])
    return (
        _HEAD + "".join(_METHODS[name] for name in _METHODS if name in needed).lstrip("\n") + "}\n"
    )


METHODS = frozenset(_METHODS)
