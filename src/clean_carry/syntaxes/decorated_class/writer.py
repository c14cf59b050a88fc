"""The writer of decorated classes."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.decorated_class.from_markup.file import write_from_markup
from clean_carry.syntaxes.decorated_class.renewal.writer import write_renewed
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.written import Written


class DecoratedWriter:
    """Writes a class of its own syntax in the newer notation, else a file of its own."""

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        if fitted.file.syntax.id == SYNTAX.id:
            return write_renewed(fitted)
        return write_from_markup(fitted)
