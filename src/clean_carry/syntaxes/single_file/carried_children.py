"""Components of another syntax in a file that is read as a single one: imported from what they become."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Tree
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.naming import Edits
from clean_carry.syntaxes.unsaid import Unsaid

_ENDING = ".vue"


def import_carried(edits: Edits, tree: Tree, workspace: Workspace, suffix: str) -> None:
    """Import each such component from its carried file, which has a suffix before its ending; none in what
    was a single file all along. Raises `Unsaid` for one that is not carried."""
    if tree.source.path.endswith(_ENDING):
        return
    for statement in tree.of("import_statement"):
        request = statement.child("source")
        text = request.text[1:-1] if request is not None else ""
        if request is None or not text.endswith(_ENDING) or workspace.resolve(text) is not None:
            continue
        stem = text.removesuffix(_ENDING)
        if workspace.stood_for(text) is None:
            continue
        if not workspace.is_carried(text):
            raise Unsaid("child-not-carried", stem.rpartition("/")[2], statement.start)
        span = tree.source.span(request.start + 1, request.end - 1)
        edits.add(span, f"{stem.removesuffix('.blade')}.{suffix}{_ENDING}", "child-import")
