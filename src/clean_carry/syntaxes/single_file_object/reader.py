"""The reader of single files in the object form."""

from __future__ import annotations

import re

from clean_carry.component.ledger import Ledger
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Wishes
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file.options.preparation import whole_of
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file_object.syntax import SYNTAX

_SETUP = re.compile(rb"^<script\b[^>]*\ssetup\b", re.MULTILINE)


class ObjectReader:
    """Reads the component object a single file exports."""

    def recognises(self, source: SourceText) -> bool:
        """Return whether no `<script setup>` stands in the file: with one, it is in the flat form."""
        return _SETUP.search(source.data) is None

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file in the form that the crossing wishes."""
        return whole_of(source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> SingleFile:
        """Read the object; raises `InputError`, `HoldsNone` where there is no script."""
        return read(source, ledger, workspace, wishes, SYNTAX)
