"""Calls of the runtime that only say to it what plain code says, as plain code: before a component is read
for another family.

`this.$set(list, at, row)` is `list[at] = row`, `this.$delete(prices, kind)` is `delete prices[kind]`, a
`nextTick` of the runtime's module is the instance's own (the runtime's reference, up to version 2).
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.syntaxes.single_file.options.exported import parsed_script

_RUNTIME = "vue"
_MARKS = (
    b"} = this",
    b"$set",
    b"$delete",
    b"Vue.set",
    b"Vue.delete",
    b"'vue'",
    b'"vue"',
    b"$options.",
)
# Imports from the runtime that serve types alone, or only mark the object.
_IDLE = frozenset({"defineComponent", "PropType", "ComponentPublicInstance", "Component"})
_WRITES = ("this.$set", "$set", "Vue.set")
_DELETES = ("this.$delete", "$delete", "Vue.delete")


def respelled(source: SourceText, workspace: Workspace) -> SourceText:
    """The file with such calls as plain code."""
    if not any(mark in source.data for mark in _MARKS):
        return source
    script = parsed_script(source, workspace)
    if script is None:
        return source
    tree, names = script.tree, script.names
    edits = list(_calls(tree))
    if script.blocks.template is not None:
        edits += _calls(read_code(source, script.blocks.template).tree)
    if script.exported is not None:
        literal = script.exported.literal
        edits += _ticks(tree, names, literal)
        edits += _imports(tree, names)
        edits += _taken_apart(tree, names, literal)
    return MergedText(source, edits) if edits else source


def _calls(tree: Tree) -> Iterator[Edit]:
    """Writes and removals by a call, where nobody takes what it gives."""
    for call in tree.of("call_expression"):
        callee, arguments = call.child("function"), call.child("arguments")
        if callee is None or arguments is None or not _alone(call):
            continue
        given = arguments.named_children
        if callee.text in _WRITES and len(given) == 3:
            yield from _write(call, *given)
        elif callee.text in _DELETES and len(given) == 2 and given[0].text != "this":
            if not _key(given[1]) and given[1].type != "template_string":
                continue
            yield Edit(call.start, given[0].start, "delete ")
            yield from _part(given[0], given[1], call.end, "")


def _write(call: Node, holder: Node, key: Node, value: Node) -> Iterator[Edit]:
    yield Edit(call.start, holder.start, "")
    yield from _part(holder, key, value.start, " = ")
    yield Edit(value.end, call.end, "")


def _part(holder: Node, key: Node, end: int, sign: str) -> Iterator[Edit]:
    """A part of what a value holds, by its name or by what gives that."""
    name = _key(key)
    if name:
        yield Edit(holder.end, end, f".{name}{sign}")
    else:
        yield Edit(holder.end, key.start, "[")
        yield Edit(key.end, end, f"]{sign}")


def _key(node: Node) -> str:
    name = node.text[1:-1] if node.type == "string" else ""
    return name if is_identifier(name) else ""


def _alone(call: Node) -> bool:
    """Whether nobody takes what a call gives."""
    above = call.parent
    while above is not None and above.type == "parenthesized_expression":
        above = above.parent
    return above is None or above.type in ("expression_statement", "program")


def _ticks(tree: Tree, names: Names, literal: Node) -> Iterator[Edit]:
    """Calls of the runtime's `nextTick` where `this` is the instance."""
    for ref, binding in names.references_in(literal):
        call = ref.parent
        if binding is None or ref.text != "nextTick" or _origin(binding.node) != _RUNTIME:
            continue
        if call is not None and call.type == "call_expression" and _is_instance(ref, literal):
            yield Edit(ref.start, ref.end, "this.$nextTick")


def _is_instance(node: Node, literal: Node) -> bool:
    """Whether code stands in a function of an option, outside of functions with a `this` of their own."""
    for up in node.up():
        if up.is_function and up.type != "arrow_function":
            holder = up.parent if up.type == "method_definition" else up.parent and up.parent.parent
            option = holder.parent if holder is not None and holder is not literal else None
            return holder is literal or (
                option is not None and option.type == "pair" and option.parent is literal
            )
    return False


def _taken_apart(tree: Tree, names: Names, literal: Node) -> Iterator[Edit]:
    """`const { a } = this` where nothing changes `a` meanwhile: the instance is asked where it is used."""
    for statement in tree.of("lexical_declaration"):
        declarators = statement.named_children
        pattern = declarators[0].child("name") if len(declarators) == 1 else None
        value = declarators[0].child("value") if pattern is not None else None
        function = next((up for up in statement.up() if up.is_function), None)
        if (
            pattern is None or value is None or value.type != "this"
            or pattern.type != "object_pattern" or function is None
            or not literal.start <= function.start < literal.end or not _calm(function)
            or any(p.type != "shorthand_property_identifier_pattern" for p in pattern.named_children)
        ):  # fmt: skip
            continue
        bound = [names.scope_at(part).find(part.text) for part in pattern.named_children]
        refs = [ref for one in bound if one is not None for ref in one.references]
        if None in bound or any(is_write(ref) for ref in refs):
            continue
        line = tree.source.statement_line(statement.start, statement.end)
        yield Edit(line.start, line.end, "")
        for ref in refs:
            head = f"{ref.text}: " if ref.type == "shorthand_property_identifier" else ""
            yield Edit(ref.start, ref.end, f"{head}this.{ref.text}")


def _calm(function: Node) -> bool:
    """Whether a function runs at once, writes nothing of the instance and calls its sender alone."""
    for node in function.walk():
        if node is not function and node.is_function:
            return False
        if node.type in (
            "await_expression",
            "yield_expression",
            "for_statement",
            "while_statement",
        ):
            return False
        if (
            node.type == "this"
            and node.parent is not None
            and node.parent.type == "member_expression"
        ):
            call = node.parent.parent
            called = call is not None and call.type == "call_expression"
            if is_write(node.parent) or (called and node.parent.text != "this.$emit"):
                return False
    return True


def _imports(tree: Tree, names: Names) -> Iterator[Edit]:
    """Return the imports from the framework without names that the object no longer uses."""
    for statement in tree.of("import_statement"):
        if _origin(statement) != _RUNTIME:
            continue
        specifiers = [n for n in statement.walk() if n.type == "import_specifier"]
        whole = [n for n in statement.walk() if n.type == "identifier" and n.parent is not None]
        whole = [n for n in whole if n.parent is not None and n.parent.type == "import_clause"]
        gone = [one for one in specifiers if _is_idle(one.named_children[-1], names)]
        default = [one for one in whole if _only_marks(one, names)]
        if len(gone) == len(specifiers) and len(default) == len(whole):
            line = tree.source.statement_line(statement.start, statement.end)
            yield Edit(line.start, line.end, "")


def _is_idle(name: Node, names: Names) -> bool:
    binding = names.module.names.get(name.text)
    if name.text in _IDLE or binding is None:
        return True
    used = [ref for ref in binding.references if ref.start != name.start]
    calls = [ref for ref in used if ref.parent is not None and ref.parent.type == "call_expression"]
    return name.text == "nextTick" and len(calls) == len(used)


def _only_marks(name: Node, names: Names) -> bool:
    """Whether the runtime itself is only asked to mark the object, or for calls that are plain code."""
    binding = names.module.names.get(name.text)
    if binding is None:
        return True
    asked = {ref.parent.text for ref in binding.references if ref.parent is not None}
    return all(
        re.fullmatch(rf"{re.escape(name.text)}\.(?:extend|set|delete)", text) is not None
        for text in asked
    )


def _origin(node: Node) -> str:
    """Return the source of an import."""
    statement: Node | None = node
    while statement is not None and statement.type != "import_statement":
        statement = statement.parent
    source = statement.child("source") if statement is not None else None
    return source.text[1:-1] if source is not None else ""
