"""The writer of functions that return JSX."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.jsx.file import JsxFile
from clean_carry.syntaxes.jsx_function.file import write_file
from clean_carry.syntaxes.jsx_function.from_markup.file import write_from_markup
from clean_carry.syntaxes.written import Written


class FunctionWriter:
    """Writes a script anew where its components stand in one, else a script of its own."""

    def write(self, fitted: Fitted) -> Written:
        """Write the components of a file as functions; raises `ReadAgain`."""
        if isinstance(fitted.file, JsxFile):
            return write_file(fitted)
        return write_from_markup(fitted)
