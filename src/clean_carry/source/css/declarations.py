"""The declarations of a style attribute."""

from __future__ import annotations

from typing import NamedTuple

import tinycss2


class Declaration(NamedTuple):
    """One declaration: its property in lower case, its value as it is written, whether it is important."""

    name: str
    value: str
    important: bool


def declarations(text: str) -> list[Declaration]:
    """The declarations of a style attribute (CSS Style Attributes, §3); what is none is passed over."""
    found = tinycss2.parse_declaration_list(text, skip_comments=True, skip_whitespace=True)
    return [
        Declaration(
            one.name if one.name.startswith("--") else one.lower_name,
            tinycss2.serialize(one.value).strip(),
            bool(one.important),
        )
        for one in found
        if one.type == "declaration"
    ]
