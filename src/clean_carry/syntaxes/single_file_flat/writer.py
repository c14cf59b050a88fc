"""The writer of single files in the flat form."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.single_file_flat.file import write_file
from clean_carry.syntaxes.written import Written


class FlatFileWriter:
    """Writes a single file anew, its blocks where they stand."""

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        return write_file(fitted)
