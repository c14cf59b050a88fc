"""The reader of decorated classes."""

from __future__ import annotations

from functools import partial

from clean_carry.component.errors import HoldsNone
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal
from clean_carry.component.model import Place as ComponentPlace
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ReadFile, ScriptFile, Wishes
from clean_carry.syntaxes.decorated_class.as_single_file import as_single_file
from clean_carry.syntaxes.decorated_class.recognise import decorated_in
from clean_carry.syntaxes.decorated_class.renewal.asked import RenewedFile
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file.stands_for import (
    NotAFile,
    claim_left,
    reason_of,
    whole_by,
)

# Findings about the class that leave work to a person.
LEFT = frozenset({"hook-left"})


class DecoratedReader:
    """Reads the one component class of a script, as the single file it would be."""

    def recognises(self, source: SourceText) -> bool:
        """Whether the script holds a class with a component decorator."""
        return bool(decorated_in(Tree(source)))

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The script as a single file; as it is where it cannot be one, or is to be renewed."""
        if wishes.renewing:
            return source
        return whole_by(partial(as_single_file, workspace=workspace), source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read the class; raises `InputError` where there is none."""
        if isinstance(source, MergedText):
            file = read(source, ledger, workspace, wishes, SYNTAX)
            claim_left(source, file, ledger, LEFT, "hook")
            return file
        found = decorated_in(Tree(source))
        if found and wishes.renewing:
            return _as_it_is(source, ledger, wishes.notations or frozenset(SYNTAX.notations))
        if not found:
            raise HoldsNone("holds no decorated class", file=source.path)
        reason = reason_of(partial(as_single_file, workspace=workspace), source)
        ledger.claim("file", source.span(0, len(source.data)), "kept")
        reason = reason or NotAFile("class-member-unread", found[0].name, found[0].node.start)
        refusals = tuple(
            Refusal(one.name, reason.rule, reason.detail, max(reason.at, one.node.start))
            for one in found
        )
        tree = Tree(source)
        return ScriptFile(
            SYNTAX, source, (), refusals, tree, (0, len(source.data)), names=Names(tree)
        )


def _as_it_is(source: SourceText, ledger: Ledger, renewing: frozenset[str]) -> ReadFile:
    """A script whose class is written anew in its own syntax."""
    tree = Tree(source)
    found = decorated_in(tree)
    if len(found) > 1:
        refusals = tuple(
            Refusal(one.name, "several-registered", str(len(found)), one.node.start)
            for one in found
        )
        ledger.claim("file", source.span(0, len(source.data)), "kept")
        return ScriptFile(
            SYNTAX, source, (), refusals, tree, (0, len(source.data)), names=Names(tree)
        )
    one = found[0]
    ledger.claim("file", source.span(0, len(source.data)))
    span = source.span(one.statement.start, one.statement.end)
    component = Component(one.name, ComponentPlace(span, span, "named"))
    return RenewedFile(
        SYNTAX, source, (component,), (), tree, (0, len(source.data)),
        names=Names(tree), renewing=renewing,
    )  # fmt: skip
