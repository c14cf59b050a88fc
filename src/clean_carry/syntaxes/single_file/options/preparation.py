"""A single file as it is read: in plain code with what it mixes in for another family, as version 3 takes
it where it was written for version 2."""

from __future__ import annotations

from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Wishes
from clean_carry.syntaxes.single_file.options.mixed_in import with_mixins
from clean_carry.syntaxes.single_file.options.respelled import respelled
from clean_carry.syntaxes.single_file.upgrade.upgraded import upgraded, with_newer_slots


def whole_of(source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
    """The file in the form that the crossing wishes."""
    if wishes.neutral:
        whole = respelled(with_mixins(source, workspace), workspace)
        return with_newer_slots(whole, workspace, wishes.runtime)
    if 0 < wishes.since < 3 <= wishes.runtime:
        return upgraded(source, workspace)
    return source
