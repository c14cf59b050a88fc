"""The reader of directives."""

from __future__ import annotations

from clean_carry.component.ledger import Ledger
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Wishes
from clean_carry.syntaxes.directive.read import read
from clean_carry.syntaxes.scoped_template.model import DirectiveFile
from clean_carry.syntaxes.scoped_template.registrations import registers


class DirectiveReader:
    """Reads the directives a script registers."""

    def recognises(self, source: SourceText) -> bool:
        """Whether the script registers by name, or names the runtime."""
        return registers(source.data) or b"angular" in source.data

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file as it is."""
        return source

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> DirectiveFile:
        """Read the directives of a script; raises `InputError` where there is none."""
        return read(source, workspace.file)
