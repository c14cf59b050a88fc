"""Views of a server, as a survey sees them."""

from __future__ import annotations

import re
from pathlib import Path

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.syntaxes.server_view.reading.children import tag_of
from clean_carry.syntaxes.server_view.reading.class_file import class_beside

_ELEMENT = re.compile(rb"<[A-Za-z]")
_KEEPS = re.compile(rb"^namespace App\\Livewire;", re.MULTILINE)
_COUNTED = {"props": rb"@props\b", "slots": rb"\$slot\b", "events": rb"\bwire:(?:click|submit)\b"}


def census(parsed: Parsed) -> list[Sighting]:
    """The one component of a view that shows something; a layout is none."""
    data = parsed.source.data
    if not parsed.is_view or _ELEMENT.search(data) is None or b"@extends" in data:
        return []
    view = Path(parsed.source.path)
    script = class_beside(view)
    keeps = script is not None and _KEEPS.search(script.read_bytes()) is not None
    name = parsed.source.path.replace("\\", "/").rpartition("/")[2].removesuffix(".blade.php")
    counts = {key: len(re.findall(mark, data)) for key, mark in _COUNTED.items()}
    tag = tag_of(view)
    return [
        Sighting(
            name, "stateful-view" if keeps else "server-view", 0, len(data), 1,
            data.count(b"\n") or 1, tags=(tag,),
            counts={key: value for key, value in counts.items() if value},
        )
    ]  # fmt: skip
