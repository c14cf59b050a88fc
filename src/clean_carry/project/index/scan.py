"""Scan one file of a project: the facts of its text, and the components that each syntax sees in it."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.index.facts import FileFacts
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.index.scripts import read_script
from clean_carry.source.index.templates import read_templates
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registry import every_syntax


def scan(path: Path, data: bytes) -> FileFacts:
    """The facts of a file; what cannot be read is its `problem`."""
    facts = FileFacts()
    try:
        source = SourceText.checked(str(path), data)
    except InputError as error:
        facts.problem = error.one_line()
        return facts
    parsed = Parsed(source)
    seen: set[tuple[int, int]] = set()
    try:
        read_script(parsed, facts)
        read_templates(parsed, facts)
        for syntax in every_syntax():
            if not syntax.census or not syntax.marks.fit(source):
                continue
            for one in syntax.load_census()(parsed):
                if (one.start, one.end) not in seen:
                    seen.add((one.start, one.end))
                    facts.components.append(one)
    except InputError as error:
        facts.problem = error.one_line()
    finally:
        parsed.release()
    facts.components.sort(key=lambda one: one.start)
    return facts
