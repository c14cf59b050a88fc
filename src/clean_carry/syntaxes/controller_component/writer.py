"""The writer of components that a controller and bindings define."""

from __future__ import annotations

from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.controller_component.file import write_file
from clean_carry.syntaxes.written import Written


class ControllerComponentWriter:
    """Writes a script anew, its components where their definitions stand, with their templates."""

    def write(self, fitted: Fitted) -> Written:
        """Write the components of a file; those that cannot be written are refused."""
        return write_file(fitted)
