"""How names are spelled in templates and in scripts."""

from __future__ import annotations


def camel(name: str) -> str:
    """`tide-strip` as `tideStrip`."""
    head, *rest = name.split("-")
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def pascal(name: str) -> str:
    """`tide-strip` as `TideStrip`."""
    spelled = camel(name)
    return spelled[:1].upper() + spelled[1:]
