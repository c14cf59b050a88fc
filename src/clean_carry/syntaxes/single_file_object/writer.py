"""The writer of single files in the object form."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.single_file_object.file import write_file
from clean_carry.syntaxes.written import Written


class ObjectFileWriter:
    """Writes a single file anew: its script exports one object, the other blocks stand where they stood."""

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        return write_file(fitted)
