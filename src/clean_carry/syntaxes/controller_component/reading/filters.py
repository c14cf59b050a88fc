"""Filters of the old framework as methods, each written where a template uses it.

The source is the framework's reference of filters.
"""

from __future__ import annotations

FILTERS = {
    "uppercase": """upperCase(text) {
      return typeof text === 'string' ? text.toUpperCase() : text;
    }""",
    "lowercase": """lowerCase(text) {
      return typeof text === 'string' ? text.toLowerCase() : text;
    }""",
    "number": """formatNumber(value, digits) {
      const number = typeof value === 'number' || typeof value === 'string' ? Number(value) : NaN;
      if (Number.isNaN(number)) return '';
      return number.toLocaleString('en-US', {
        minimumFractionDigits: digits ?? 0,
        maximumFractionDigits: digits ?? 3,
      });
    }""",
    "json": "asJson(value, space = 2) {\n      return JSON.stringify(value, null, space);\n    }",
    "limitTo": """limitTo(given, most) {
      if (typeof given !== 'string' && !(given instanceof Array)) return given;
      return most < 0 ? given.slice(most) : given.slice(0, most);
    }""",
}
NAMES = {
    "uppercase": "upperCase", "lowercase": "lowerCase", "number": "formatNumber", "json": "asJson",
    "limitTo": "limitTo",
}  # fmt: skip
