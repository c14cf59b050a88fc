"""All syntaxes, which one a file is written in, and what can be carried to what."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Syntax
from clean_carry.syntaxes.controller_component.syntax import SYNTAX as CONTROLLER_COMPONENT
from clean_carry.syntaxes.directive.syntax import SYNTAX as DIRECTIVE
from clean_carry.syntaxes.jsx_class.syntax import SYNTAX as JSX_CLASS
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX as JSX_FUNCTION
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX as SINGLE_FILE_FLAT
from clean_carry.syntaxes.single_file_object.syntax import SYNTAX as SINGLE_FILE_OBJECT

SYNTAXES: dict[str, Syntax] = {
    syntax.id: syntax
    for syntax in (
        JSX_CLASS,
        JSX_FUNCTION,
        SINGLE_FILE_OBJECT,
        SINGLE_FILE_FLAT,
        DIRECTIVE,
        CONTROLLER_COMPONENT,
    )
}


def recognise(source: SourceText) -> str | None:
    """The syntax a file is written in; None if none fits."""
    for syntax in SYNTAXES.values():
        if syntax.reader and syntax.marks.fit(source) and syntax.load_reader().recognises(source):
            return syntax.id
    return None


def crosses(origin: str, target: str) -> bool:
    """Whether files of one syntax can be carried to another."""
    old, new = SYNTAXES.get(origin), SYNTAXES.get(target)
    if old is None or new is None or not (old.reader and new.writer):
        return False
    return old is not new and old.family in new.takes


def crossings() -> Iterator[tuple[str, str]]:
    """Every (origin, target) that can be carried."""
    for origin in SYNTAXES:
        yield from ((origin, target) for target in SYNTAXES if crosses(origin, target))
