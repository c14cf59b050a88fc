"""The imports of a decorated class as those of the single file that says the same."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator

from clean_carry.source.javascript.script_style import ScriptStyle
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.decorated_class.children import Child
from clean_carry.syntaxes.decorated_class.recognise import Decorated, property_of
from clean_carry.syntaxes.decorated_class.scope import request_to

RUNTIME = re.compile(r"@angular/")


def import_edits(
    one: Decorated,
    tree: Tree,
    style: ScriptStyle,
    children: Collection[Child],
    workspace: Workspace,
    *,
    prop_type: bool,
) -> Iterator[Edit]:
    """The runtime's imports go; the type of inputs comes, if `prop_type` asks for it. Components come as
    the single files that they are read as."""
    quote, end = style.quote, style.semicolon
    text = f"import {{ type PropType }} from {quote}vue{quote}{end}\n" if prop_type else ""
    for child in children:
        path = request_to(child.usable.file or workspace.file, workspace.file)
        text += f"import {child.name} from {quote}{path}.vue{quote}{end}\n"
    listed = property_of(one.options, "imports")
    gone = {each.text for each in listed.named_children} if listed is not None else set()
    source, first = tree.source, 0
    for statement in tree.of("import_statement"):
        request = statement.child("source")
        if request is None:
            continue
        names = [each for each in statement.walk() if each.type == "import_specifier"]
        kept = [each.text for each in names if _local(each) not in gone]
        if not RUNTIME.match(request.text[1:-1]):
            if len(kept) == len(names):
                continue
            if kept:
                clause = next(each for each in statement.walk() if each.type == "named_imports")
                yield Edit(clause.start, clause.end, f"{{ {', '.join(kept)} }}")
                continue
        line = source.statement_line(statement.start, statement.end)
        behind = line.end
        if not text and not source.data[first : line.start].strip():
            first = line.end
            while source.data[behind : behind + 1] == b"\n":
                behind += 1
        yield Edit(line.start, behind, text)
        text = ""


def _local(specifier: Node) -> str:
    alias, name = specifier.child("alias"), specifier.child("name")
    return (alias or name or specifier).text
