"""The pipes of the runtime as plain functions, for runtimes without pipes, each written where it is used.

The source is the runtime's reference of pipes; values that are null, undefined or empty show nothing.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Helper:
    """A function: its name, its parameters, and its body without the braces."""

    name: str
    parameters: str
    lines: tuple[str, ...]
    most: int = 0


_FORMAT = (
    "const number = value === null || value === undefined || value === '' ? NaN : Number(value);",
    "if (Number.isNaN(number)) return '';",
    r"const [, whole, least, most] = /^(\d+)\.(\d+)-(\d+)$/.exec(digits) ?? [];",
)
HELPERS: dict[str, Helper] = {
    "uppercase": Helper(
        "upperCase", "text: string | null | undefined", ("return text?.toUpperCase() ?? '';",)
    ),
    "lowercase": Helper(
        "lowerCase", "text: string | null | undefined", ("return text?.toLowerCase() ?? '';",)
    ),
    "titlecase": Helper(
        "titleCase",
        "text: string | null | undefined",
        (
            "const titled = (word: string) => word[0].toUpperCase() + word.slice(1).toLowerCase();",
            "return text?.replace(/[0-9\\p{L}]\\S*/gu, titled) ?? '';",
        ),
    ),
    "json": Helper("asJson", "value: unknown", ("return JSON.stringify(value, null, 2);",)),
    "number": Helper(
        "formatNumber",
        "value: number | string | null | undefined, digits = '1.0-3'",
        (
            *_FORMAT,
            "return number.toLocaleString('en-US', {",
            "  minimumIntegerDigits: Number(whole ?? 1),",
            "  minimumFractionDigits: Number(least ?? 0),",
            "  maximumFractionDigits: Number(most ?? 3),",
            "});",
        ),
        1,
    ),
    "percent": Helper(
        "formatPercent",
        "value: number | string | null | undefined, digits = '1.0-0'",
        (
            *_FORMAT,
            "return number.toLocaleString('en-US', {",
            "  style: 'percent',",
            "  minimumIntegerDigits: Number(whole ?? 1),",
            "  minimumFractionDigits: Number(least ?? 0),",
            "  maximumFractionDigits: Number(most ?? 0),",
            "});",
        ),
        1,
    ),
    "keyvalue": Helper(
        "keyValues",
        "given: Record<string, any> | null | undefined",
        (
            "return Object.keys(given ?? {})",
            "  .sort()",
            "  .map((key) => ({ key, value: given![key] }));",
        ),
    ),
}
