"""The reader of pages."""

from __future__ import annotations

from functools import partial

from clean_carry.component.errors import HoldsNone
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Refusal
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ReadFile, ScriptFile, Wishes
from clean_carry.syntaxes.markup.as_single_file import as_single_file
from clean_carry.syntaxes.markup.syntax import SYNTAX
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file.stands_for import (
    NotAFile,
    claim_left,
    reason_of,
    whole_by,
)

# Findings about the page that leave work to a person.
LEFT = frozenset({"page-script-touches", "inline-handler"})


class PageReader:
    """Reads the body of a page, as the single file it would be."""

    def recognises(self, source: SourceText) -> bool:
        """Whether the file holds an element."""
        return b"</" in source.data

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The page as a single file; as it is where it cannot be one."""
        return whole_by(partial(as_single_file, workspace=workspace), source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read the page; raises `InputError` where it holds no markup."""
        if isinstance(source, MergedText):
            file = read(source, ledger, workspace, wishes, SYNTAX)
            claim_left(source, file, ledger, LEFT, "page script")
            return file
        reason = reason_of(partial(as_single_file, workspace=workspace), source)
        if reason is not None:
            return _refused(source, ledger, reason)
        raise HoldsNone("holds no markup", file=source.path)


def _refused(source: SourceText, ledger: Ledger, reason: NotAFile) -> ReadFile:
    ledger.claim("file", source.span(0, len(source.data)), "kept")
    stem = source.path.replace("\\", "/").rpartition("/")[2].partition(".")[0]
    refusal = Refusal(stem[:1].upper() + stem[1:], reason.rule, reason.detail, reason.at)
    tree = Tree(source, bytes(source.blanked()))
    return ScriptFile(SYNTAX, source, (), (refusal,), tree, (0, 0), names=Names(tree))
