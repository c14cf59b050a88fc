"""The writer of decorated classes."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.decorated_class.from_markup.file import write_from_markup
from clean_carry.syntaxes.decorated_class.preflight import preflight
from clean_carry.syntaxes.decorated_class.renewal.writer import write_renewed
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.written import Written


class DecoratedWriter:
    """Writes a class of its own syntax in the newer notation, else a file of its own."""

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        if fitted.file.syntax.id == SYNTAX.id:
            return _checked(write_renewed(fitted), fitted)
        return _checked(write_from_markup(fitted), fitted)


def _checked(written: Written, fitted: Fitted) -> Written:
    """Add the findings about a class that was written."""
    if not written.carried:
        return written
    script, *others = (one.file() for one in written.files)
    template = next((one.text for one in others if one.path.endswith(".html")), None)
    text = SourceText(script.path, script.text.encode())
    notes = {start: list(found) for start, found in written.notes.items()}
    start = written.carried[0].span.start
    for rule, detail in preflight(text, template, fitted.workspace):
        notes.setdefault(start, []).append((rule, detail, start))
    return replace(written, notes=notes)
