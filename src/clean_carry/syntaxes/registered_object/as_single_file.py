"""A script that registers a component, as the single file that says the same.

The object becomes what the script exports, its template a block behind the script, whose lines stay where
they are. A template in a string is compiled by the runtime as the block is (its guide, "In-DOM template
parsing caveats": none of them holds for a string).
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.names import camel, pascal
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.options.read import RUNTIME_OPTIONS
from clean_carry.syntaxes.single_file.stands_for import NotAFile

_RUNTIME = "vue"
# One of these tells an object of options from whatever else has a template.
_OPTIONS = RUNTIME_OPTIONS - {"template", "name", "delimiters", "comments"}
_OF_OTHERS = frozenset({"controller", "bindings", "link", "scope", "compile"})
_WRAPPERS = ("defineComponent", "Vue.extend")
_ESCAPE = re.compile(r"\\(u\{[0-9a-fA-F]+\}|u[0-9a-fA-F]{4}|x[0-9a-fA-F]{2}|\r?\n|.)", re.DOTALL)
_ESCAPED = {"n": "\n", "t": "\t", "r": "\r", "b": "\b", "f": "\f", "v": "\v", "0": "\0"}


@dataclass(frozen=True)
class Registered:
    """An object of options in a script: the statement it stands in, its name ("" where it says none), and
    the call that registers it."""

    literal: Node
    statement: Node
    name: str
    call: Node | None = None


def registered_in(tree: Tree) -> list[Registered]:
    """The components a script registers, or exports, with a template as text."""
    found = []
    for literal in tree.of("object"):
        if not _is_component(literal):
            continue
        statement = next((up for up in literal.up() if up.parent is tree.root), None)
        call = _registering(literal)
        name = property_name(_arguments(call)[0]) if call is not None else None
        exported = statement is not None and statement.type == "export_statement"
        if statement is not None and (name or (exported and statement.has("default"))):
            found.append(Registered(literal, statement, pascal(camel(name or "")), call))
    return found


def as_single_file(source: SourceText, lead: str = "\n") -> MergedText:
    """The single file, `lead` behind its first tag; raises `NotAFile`."""
    tree = Tree(source)
    found = registered_in(tree)
    if len(found) != 1:
        raise NotAFile(
            "several-registered", str(len(found)), found[1].literal.start if found else 0
        )
    one, names = found[0], Names(tree)
    kind = ' lang="ts"' if source.path.endswith(".ts") else ""
    edits = [Edit(0, 0, f"<script{kind}>{lead}")]
    edits += _exported(one, tree)
    edits += _without_template(one, source.data)
    edits += _without_runtime(one, tree, names)
    end = len(source.data)
    last = "" if source.data.endswith(b"\n") else "\n"
    markup = _indented(_template_of(one))
    edits.append(Edit(end, end, f"{last}</script>\n\n<template>\n{markup}\n</template>\n"))
    made = MergedText(source, edits)
    if one.call is not None:
        made.taken[made.moved(one.statement.start)] = one.name
    return made


# -- finding --------------------------------------------------------------------------------------


def _is_component(literal: Node) -> bool:
    names = {name for name, _, _ in parts_of(literal)}
    return "template" in names and bool(names & _OPTIONS) and not names & _OF_OTHERS


def _registering(literal: Node) -> Node | None:
    """The call that registers an object by a name: `app.component('name', {…})`."""
    given = literal
    while given.parent is not None and given.parent.type in ("arguments", "call_expression"):
        call = given.parent if given.parent.type == "call_expression" else given.parent.parent
        callee = call.child("function") if call is not None else None
        if call is None or callee is None:
            return None
        if callee.text in _WRAPPERS:
            given = call
            continue
        part = callee.child("property") if callee.type == "member_expression" else None
        values = _arguments(call)
        plain = len(values) == 2 and values[0].type == "string"
        return call if plain and part is not None and part.text == "component" else None
    return None


def _arguments(call: Node | None) -> list[Node]:
    given = call.child("arguments") if call is not None else None
    return given.named_children if given is not None else []


# -- writing --------------------------------------------------------------------------------------


def _exported(one: Registered, tree: Tree) -> Iterator[Edit]:
    """The statement as one that exports the object."""
    if one.call is None:
        return
    callee = one.call.child("function")
    above = one.call.parent
    exported = one.statement.type == "export_statement" and one.statement.has("default")
    alone = above is not None and above.type == "expression_statement" and above is one.statement
    if not (alone or (exported and above is one.statement)):
        raise NotAFile("registered-elsewhere", one.call.text[:40], one.call.start)
    if callee is not None and callee.children[0].type == "call_expression":
        raise NotAFile("registered-elsewhere", "several calls in one", one.call.start)
    given = _arguments(one.call)[1]
    yield Edit(one.statement.start, given.start, "export default ")
    yield Edit(given.end, one.call.end, "")
    if not any(key == "name" for key, _, _ in parts_of(one.literal)):
        yield Edit(one.literal.start + 1, one.literal.start + 1, f" name: '{one.name}',")
    others = tree.of("export_statement")
    if any(node.has("default") and node is not one.statement for node in others):
        raise NotAFile("registered-elsewhere", "another default export", one.call.start)


def _without_template(one: Registered, data: bytes) -> Iterator[Edit]:
    """The object without its template; its lines stay, empty."""
    for name, part, _ in parts_of(one.literal):
        if name == "template":
            end = part.end
            while data[end : end + 1] in (b" ", b","):
                end += 1
            yield Edit(part.start, end, "\n" * part.text.count("\n"))


def _without_runtime(one: Registered, tree: Tree, names: Names) -> Iterator[Edit]:
    """The module without what it imports to register the component by."""
    callee = one.call.child("function") if one.call is not None else None
    holder = callee.children[0] if callee is not None else None
    binding = names.meaning(holder) if holder is not None and holder.type == "identifier" else None
    if binding is None or holder is None:
        return
    statement = next((up for up in binding.node.up() if up.parent is tree.root), None)
    others = [ref for ref in binding.references if ref.start != holder.start]
    if statement is None or statement.type != "import_statement":
        if any(_starts(ref) for ref in others) or statement is not None:
            raise NotAFile("makes-application", holder.text, holder.start)
        return
    if others:
        if _of_runtime(statement):
            return
        raise NotAFile("makes-application", holder.text, others[0].start)
    if "," in statement.text.partition(" from ")[0]:
        raise NotAFile("makes-application", statement.text[:40], statement.start)
    line = tree.source.statement_line(statement.start, statement.end)
    yield Edit(line.start, line.end, "\n" * statement.text.count("\n") + "\n")


def _starts(ref: Node) -> bool:
    above = ref.parent
    return above is not None and above.type == "member_expression"


def _of_runtime(statement: Node) -> bool:
    source = statement.child("source")
    return source is not None and source.text[1:-1] == _RUNTIME


# -- the template ---------------------------------------------------------------------------------


def _template_of(one: Registered) -> str:
    value = next(value for name, _, value in parts_of(one.literal) if name == "template")
    text = _text_of(value)
    if text is None:
        raise NotAFile("template-not-text", value.text.partition("\n")[0][:40], value.start)
    if text.startswith("#"):
        raise NotAFile("template-not-text", f"{text}, an element of a page", value.start)
    return text


def _text_of(node: Node) -> str | None:
    """The text that an expression of literals gives; None for anything else."""
    match node.type:
        case "string":
            return _unescaped(node.text[1:-1])
        case "template_string":
            if any(part.type == "template_substitution" for part in node.named_children):
                return None
            return _unescaped(node.text[1:-1])
        case "parenthesized_expression":
            return _text_of(node.named_children[0])
        case "binary_expression" if node.has("+"):
            parts = [_text_of(part) for part in node.named_children]
            return "".join(part or "" for part in parts) if None not in parts else None
        case "call_expression":
            return _joined(node)
    return None


def _joined(call: Node) -> str | None:
    """`['<p>', '</p>'].join('')`."""
    callee, given = call.child("function"), _arguments(call)
    holder = callee.children[0] if callee is not None and callee.children else None
    part = callee.child("property") if callee is not None else None
    if holder is None or holder.type != "array" or part is None or part.text != "join":
        return None
    between = _text_of(given[0]) if given else ","
    parts = [_text_of(item) for item in holder.named_children]
    if between is None or None in parts:
        return None
    return between.join(part or "" for part in parts)


def _unescaped(raw: str) -> str:
    def one(found: re.Match[str]) -> str:
        word = found[1]
        if word[0] in "ux" and len(word) > 1:
            return chr(int(word.strip("ux{}"), 16))
        return "" if word.endswith("\n") else _ESCAPED.get(word, word)

    return _ESCAPE.sub(one, raw)


def _indented(markup: str) -> str:
    """Markup a level inside of its block."""
    lines = markup.strip("\n").rstrip().split("\n")
    rest = [len(line) - len(line.lstrip()) for line in lines[1:] if line.strip()]
    first = len(lines[0]) - len(lines[0].lstrip())
    least = min([first, *rest]) if first or not rest else min(rest)
    shown = [lines[0].lstrip() if first <= least else lines[0][least:]]
    shown += [line[least:] for line in lines[1:]]
    if not first and rest and lines[-1].startswith(" " * least):
        # It began behind its quote: what closes it stands where it would have begun.
        shown = [shown[0], *shown[1:]]
    return "\n".join(f"  {line}".rstrip() for line in shown)
