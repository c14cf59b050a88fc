"""The reader of controller components."""

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
from clean_carry.syntaxes.controller_component.reading.as_single_file import as_single_file
from clean_carry.syntaxes.controller_component.reading.recognise import (
    components_in,
    event_of,
    found_of,
)
from clean_carry.syntaxes.controller_component.syntax import SYNTAX
from clean_carry.syntaxes.scoped_template.directives import dashed
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file.stands_for import NotAFile, reason_of, whole_by


class ControllerReader:
    """Reads the one component that a script registers, as the single file it would be."""

    def __init__(self) -> None:
        self._events: dict[str, str] = {}
        self._slots: dict[str, str] = {}

    def recognises(self, source: SourceText) -> bool:
        """Whether the script registers a component by an object of its own kind."""
        tree = Tree(source)
        return bool(components_in(tree, Names(tree)))

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The script as a single file; as it is where it cannot be one."""
        self._events, self._slots = _old_names(source)
        return whole_by(partial(as_single_file, workspace=workspace), source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read the component; raises `InputError` where there is none."""
        if isinstance(source, MergedText):
            file = read(source, ledger, workspace, wishes, SYNTAX)
            file.event_names, file.slot_names = self._events, self._slots
            return file
        tree = Tree(source)
        names = Names(tree)
        found = components_in(tree, names)
        if not found:
            raise HoldsNone("registers no component", file=source.path)
        reason = reason_of(partial(as_single_file, workspace=workspace), source)
        reason = reason or NotAFile("controller-statement", found[0].name, found[0].at)
        ledger.claim("file", source.span(0, len(source.data)), "kept")
        refusals = tuple(
            Refusal(one.name, reason.rule, reason.detail, max(reason.at, one.at)) for one in found
        )
        return ScriptFile(SYNTAX, source, (), refusals, tree, (0, len(source.data)), names=names)


def _old_names(source: SourceText) -> tuple[dict[str, str], dict[str, str]]:
    """The bindings of expressions by their events, and the elements that bring content by their slots."""
    tree = Tree(source)
    names = Names(tree)
    found = components_in(tree, names)
    if len(found) != 1:
        return {}, {}
    try:
        one = found_of(found[0], names)
    except NotAFile:
        return {}, {}
    events = {event_of(each.name): each.name for each in one.bindings if each.mode == "&"}
    return events, {name: dashed(tag) for name, tag in one.slots.items() if tag}
