"""A single file of version 2 as version 3 takes it (its migration guide has a page for each rule here).

Text is changed, nothing is read yet: what comes out is a file of version 3 that the reader takes as any
other. A construct without a form in version 3 is refused by the reader, at its place in the old file.
"""

from __future__ import annotations

import re

from clean_carry.source.merged import MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.blocks import read_file
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.syntaxes.single_file.options.exported import parsed_script
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.options.mixed_in import with_mixins
from clean_carry.syntaxes.single_file.options.respelled import respelled
from clean_carry.syntaxes.single_file.upgrade.attributes import upgrade_elements
from clean_carry.syntaxes.single_file.upgrade.changes import Changes
from clean_carry.syntaxes.single_file.upgrade.filters import upgrade_filters
from clean_carry.syntaxes.single_file.upgrade.imported import check_imported
from clean_carry.syntaxes.single_file.upgrade.script import upgrade_script
from clean_carry.syntaxes.single_file.upgrade.styles import upgrade_styles
from clean_carry.syntaxes.single_file.upgrade.template import newer_slots, upgrade_nodes

_SLOTS = re.compile(rb"\bslot(?:-scope)?\s*=|\.sync\b|\.native\b|\barguments\b|\bv-model\b")
# Options of a mixin that version 3 no longer takes.
_OLDER = re.compile(
    r"\bbeforeDestroy\b|\bdestroyed\b|\$set\b|\$delete\b|\$listeners\b|\$scopedSlots\b|\bfilters\b"
)


def with_newer_slots(source: SourceText, workspace: Workspace, version: int) -> SourceText:
    """Return the file with slots and bindings in version 3's form, which version 2.7 reads alike;
    arguments of listeners get names."""
    if not _SLOTS.search(source.data):
        return source
    blocks = read_file(source)
    if blocks.template is None:
        return source
    changes = Changes(source)
    newer_slots(changes, blocks.template, workspace, version)
    made = MergedText(source, changes.edits) if changes.edits else source
    if isinstance(made, MergedText):
        made.refused += [(rule, detail, made.moved(at)) for rule, detail, at in changes.refused]
    return made


def upgraded(source: SourceText, workspace: Workspace) -> SourceText:
    """The file for version 3."""
    source = with_mixins(source, workspace, lambda text: bool(_OLDER.search(text)))
    source = respelled(source, workspace)
    script = parsed_script(source, workspace)
    if script is None or script.exported is None:
        return source
    blocks, tree, literal = script.blocks, script.tree, script.exported.literal
    options = {name: value for name, _, value in parts_of(literal) if name is not None}
    changes = Changes(source)
    if blocks.template is not None:
        code = read_code(source, blocks.template)
        upgrade_elements(changes, blocks.template, code, options, workspace)
        upgrade_nodes(changes, blocks.template, code)
        upgrade_filters(changes, code, tree, literal)
        upgrade_styles(changes, blocks)
        for used in code.used:
            if used.node.text == "$scopedSlots":
                changes.put(used.node.start, used.node.end, "$slots")
    upgrade_script(changes, tree, script.names, literal)
    check_imported(changes, tree, options, workspace)
    if not (changes.edits or changes.refused or changes.noted):
        return source
    made = MergedText(source, changes.edits)
    made.refused += [(rule, detail, made.moved(at)) for rule, detail, at in changes.refused]
    made.noted += [(rule, detail, made.moved(at)) for rule, detail, at in changes.noted]
    return made
