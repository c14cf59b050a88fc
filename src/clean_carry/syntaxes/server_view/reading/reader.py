"""The reader of views."""

from __future__ import annotations

import re
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
from clean_carry.syntaxes.server_view.names import class_of
from clean_carry.syntaxes.server_view.reading.as_single_file import as_single_file
from clean_carry.syntaxes.server_view.syntax import SYNTAX
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file.stands_for import NotAFile, reason_of, whole_by


class ViewReader:
    """Reads a view, as the single file it would be."""

    def recognises(self, source: SourceText) -> bool:
        """Whether the template holds an element."""
        return re.search(rb"<[A-Za-z]|@extends", source.data) is not None

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The view as a single file; as it is where it cannot be one."""
        return whole_by(partial(as_single_file, workspace=workspace), source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read the view; raises `InputError` where it holds no markup."""
        if isinstance(source, MergedText):
            return read(source, ledger, workspace, wishes, SYNTAX)
        reason = reason_of(partial(as_single_file, workspace=workspace), source)
        if reason is not None:
            return _refused(source, ledger, reason)
        raise HoldsNone("holds no markup", file=source.path)


def _refused(source: SourceText, ledger: Ledger, reason: NotAFile) -> ReadFile:
    ledger.claim("file", source.span(0, len(source.data)), "kept")
    stem = source.path.replace("\\", "/").rpartition("/")[2].partition(".")[0]
    refusal = Refusal(class_of(stem), reason.rule, reason.detail, reason.at)
    tree = Tree(source, bytes(source.blanked()))
    return ScriptFile(SYNTAX, source, (), (refusal,), tree, (0, 0), names=Names(tree))
