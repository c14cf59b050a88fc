"""The declarations of a style attribute."""

from __future__ import annotations

import re
from typing import NamedTuple

_COMMENT = re.compile(r"/\*.*?\*/", re.DOTALL)
# One declaration: quotes and brackets hide what would end it.
_ONE = re.compile(
    r"""(?:[^;"'(]|"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'"""
    r"""|\((?:[^()"']|"[^"]*"|'[^']*'|\([^()]*\))*\)?)+"""
)
_IMPORTANT = re.compile(r"\s*!\s*important\s*$", re.IGNORECASE)


class Declaration(NamedTuple):
    """One declaration: its property in lower case, its value as it is written, whether it is important."""

    name: str
    value: str
    important: bool


def declarations(text: str) -> list[Declaration]:
    """The declarations of a style attribute (CSS Style Attributes, §3); what is none is passed over."""
    found = []
    for one in _ONE.findall(_COMMENT.sub("", text)):
        name, colon, value = one.partition(":")
        name = name.strip()
        if colon and name and value.strip():
            plain = _IMPORTANT.sub("", value)
            own = name if name.startswith("--") else name.lower()
            found.append(Declaration(own, plain.strip(), plain != value))
    return found
