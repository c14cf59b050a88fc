"""The reader of single files in the flat form."""

from __future__ import annotations

import re

from clean_carry.component.ledger import Ledger
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Wishes
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file_flat.composables import with_composables
from clean_carry.syntaxes.single_file_flat.statements.read import read
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX

_SETUP = re.compile(rb"^<script\b[^>]*\ssetup\b", re.MULTILINE)


class FlatReader:
    """Reads the component that the top-level statements of a script are."""

    def recognises(self, source: SourceText) -> bool:
        """Whether a script of the file is in the flat form."""
        return _SETUP.search(source.data) is not None

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file as it is; where its text is carried on to another family, with the composables it calls
        written in."""
        return with_composables(source, workspace) if wishes.onward else source

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> SingleFile:
        """Read the statements; raises `InputError`, `HoldsNone` where there is no such script."""
        return read(source, ledger, workspace, wishes, SYNTAX)
