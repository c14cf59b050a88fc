"""The writer of single files in the flat form."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file_flat.file import write_file
from clean_carry.syntaxes.single_file_flat.from_code.file import write_from_code
from clean_carry.syntaxes.written import Written


class FlatFileWriter:
    """Writes a single file anew, its blocks where they stand, or one for the component of a script."""

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        if isinstance(fitted.file, SingleFile):
            return write_file(fitted)
        return write_from_code(fitted)
