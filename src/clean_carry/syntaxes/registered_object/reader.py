"""The reader of components that a script registers by a name."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.errors import HoldsNone
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Elsewhere, Refusal
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ReadFile, ScriptFile, Wishes
from clean_carry.syntaxes.registered_object.as_single_file import as_single_file, registered_in
from clean_carry.syntaxes.registered_object.syntax import SYNTAX
from clean_carry.syntaxes.single_file.options.read import read
from clean_carry.syntaxes.single_file.stands_for import NotAFile, reason_of, whole_by


class RegisteredReader:
    """Reads the one component a script registers, as the single file it would be."""

    def recognises(self, source: SourceText) -> bool:
        """Whether the script holds an object of options with its template as text."""
        return bool(registered_in(Tree(source)))

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The script as a single file; as it is where it cannot be one."""
        return whole_by(as_single_file, source, workspace, wishes)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read the object; raises `InputError` where it exports none."""
        if not isinstance(source, MergedText):
            if not registered_in(Tree(source)):
                raise HoldsNone("registers no component", file=source.path)
            return _refused(source, ledger)
        file = read(source, ledger, workspace, wishes, SYNTAX)
        names = list(source.taken.values())
        if not names or not file.components:
            return file
        component = file.components[0]
        place = source.place(component.span.start)
        note = Elsewhere("registered-by-name", place.file, place.line)
        facts = replace(component.facts, elsewhere=(*component.facts.elsewhere, note))
        file.components = (replace(component, facts=facts),)
        return file


def _refused(source: SourceText, ledger: Ledger) -> ReadFile:
    """A script that cannot be one single file: each of its components is refused."""
    tree = Tree(source)
    ledger.claim("file", source.span(0, len(source.data)), "kept")
    reason = reason_of(as_single_file, source) or NotAFile("template-not-text", "", 0)
    refusals = tuple(
        Refusal(one.name, reason.rule, reason.detail, max(reason.at, one.literal.start))
        for one in registered_in(tree)
    )
    return ScriptFile(SYNTAX, source, (), refusals, tree, (0, len(source.data)), names=Names(tree))
