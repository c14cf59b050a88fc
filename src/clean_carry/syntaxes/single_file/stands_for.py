"""Files of other syntaxes that are read as the single file that says the same."""

from __future__ import annotations

from collections.abc import Callable

from clean_carry.component.ledger import Ledger
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ReadFile, Wishes
from clean_carry.syntaxes.single_file.options.preparation import whole_of


class NotAFile(Exception):
    """A file that no single file stands for: the rule, its detail, and the offset."""

    def __init__(self, rule: str, detail: str, at: int) -> None:
        super().__init__(rule)
        self.rule, self.detail, self.at = rule, detail, at


def whole_by(
    make: Callable[[SourceText], MergedText],
    source: SourceText,
    workspace: Workspace,
    wishes: Wishes,
) -> SourceText:
    """The single file that `make` makes of a file, with the code of its mixins; the file itself where
    `make` raises `NotAFile`."""
    try:
        made = make(source)
    except NotAFile:
        return source
    return whole_of(made, workspace, wishes)


def reason_of(make: Callable[[SourceText], MergedText], source: SourceText) -> NotAFile | None:
    """Why no single file stands for a file; None where one does."""
    try:
        make(source)
    except NotAFile as reason:
        return reason
    return None


def claim_left(
    source: MergedText, file: ReadFile, ledger: Ledger, rules: frozenset[str], notion: str
) -> None:
    """Claim what is left of the old file and stands nowhere in the single file: entries without bytes."""
    for rule, _, _ in source.noted if file.components else ():
        if rule in rules:
            at = file.components[0].span.start
            ledger.claim(notion, source.span(at, at), "left", rule)
