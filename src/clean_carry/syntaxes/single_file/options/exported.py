"""The object of options a module exports as its component, and how it stands there."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.exports import declared
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.blocks import FileBlocks, read_file
from clean_carry.syntaxes.single_file.file import Exported
from clean_carry.syntaxes.single_file.options.functions import only_returns, returned


@dataclass(frozen=True)
class ParsedScript:
    """The script of a single file, parsed before the file is read; `exported` is None without an object."""

    blocks: FileBlocks
    block: TemplateNode
    tree: Tree
    names: Names
    exported: Exported | None


def parsed_script(source: SourceText, workspace: Workspace) -> ParsedScript | None:
    """Parse the script block of a single file; None if it has none. Raises `InputError` as `read_file`."""
    blocks = read_file(source)
    if blocks.script is None:
        return None
    tree = Tree(source, bytes(source.blanked([blocks.script.inner])))
    names = Names(tree)
    return ParsedScript(blocks, blocks.script, tree, names, exported_object(tree, names, workspace))


# Functions that return the same object, for types alone.
_WRAPPERS = ("defineComponent", "Vue.extend")


def _made(tree: Tree, workspace: Workspace) -> Exported | None:
    """`export default make({…})`: what is given to a function, which may give it back as it is."""
    for statement in tree.root.named_children:
        value = statement.child("value") if statement.type == "export_statement" else None
        if value is None or not statement.has("default") or value.type != "call_expression":
            continue
        callee, arguments = value.child("function"), value.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if callee is None or not given or given[0].type != "object":
            return None
        same = len(given) == 1 and _gives_back(callee, tree, workspace)
        name = callee.text
        return Exported(
            statement, given[0], made="" if same else name, through=name if same else ""
        )
    return None


def _gives_back(callee: Node, tree: Tree, workspace: Workspace) -> bool:
    """Whether a function of the project gives back what it is given."""
    found = declared(callee.text, tree, workspace.file, workspace)
    function = found.node if found is not None else None
    if function is None or not function.is_function or not only_returns(function):
        return False
    result, taken = returned(function), function.child("parameters")
    single = function.child("parameter") or (
        taken.named_children[0] if taken is not None and len(taken.named_children) == 1 else None
    )
    pattern = (single.child("pattern") or single) if single is not None else None
    return result is not None and pattern is not None and result.text == pattern.text


def exported_object(tree: Tree, names: Names, workspace: Workspace) -> Exported | None:
    """Return the default export of a module, if it is an object of options."""
    return _exported(tree, names) or _made(tree, workspace)


def _exported(tree: Tree, names: Names) -> Exported | None:
    for statement in tree.root.named_children:
        if statement.type == "export_statement" and statement.has("default"):
            value = statement.child("value")
            if value is not None and value.type == "identifier":
                return _named(tree, names, statement, value.text)
            literal = _literal(value)
            return Exported(statement, literal) if literal is not None else None
    return None


def _named(tree: Tree, names: Names, export: Node, name: str) -> Exported | None:
    """Return `const X = {…}` of `export default X`, if only types use X otherwise."""
    for statement in tree.root.named_children:
        declarators = statement.named_children if statement.type == "lexical_declaration" else []
        declared = declarators[0].child("name") if len(declarators) == 1 else None
        if declared is None or declared.text != name:
            continue
        literal = _literal(declarators[0].child("value"))
        own = names.module.names.get(name)
        others = [r for r in own.references if r.parent is not export] if own is not None else []
        if literal is None or any(
            r.parent is None or r.parent.type != "type_query" for r in others
        ):
            return None
        return Exported(statement, literal, name, export, bool(others))
    return None


def _literal(value: Node | None) -> Node | None:
    """The object of options, also inside of what gives it back for types alone."""
    while value is not None and value.type == "call_expression":
        callee, given = value.child("function"), value.child("arguments")
        if callee is None or given is None or callee.text not in _WRAPPERS:
            return None
        value = given.named_children[0] if len(given.named_children) == 1 else None
    return value if value is not None and value.type == "object" else None
