"""How a script is written, read off the script itself, and where its white space is content."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from clean_carry.source.javascript.joining import Fit, fit_of
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.line_width import widths_of
from clean_carry.source.text import SourceText

# ECMA-262 §12.7.2 (reserved words, strict mode) and names no function body may declare.
RESERVED = frozenset(
    (
        "await break case catch class const continue debugger default delete do else enum "
        "export extends false finally for function if import in instanceof new null return "
        "super switch this throw true try typeof var void while with yield let static "
        "implements interface package private protected public arguments eval undefined NaN "
        "Infinity"
    ).split()
)


@dataclass(frozen=True)
class ScriptStyle:
    """How a script is written: one level of indentation, semicolons, quotes, the width it keeps to.

    `comma` is what ends a list of arguments that is broken into lines, `last` what ends the last part
    of an object or a list that is. Where arrow functions are `bare`, one parameter stands without
    parentheses.
    """

    unit: str
    semicolon: str
    quote: str
    fit: Fit
    comma: str
    last: str
    bare: bool


def script_style(tree: Tree, file: Path) -> ScriptStyle:
    """Read the style off a script in a file; two spaces, semicolons, single quotes where nothing tells."""
    unit = ""
    for body in (*tree.of("class_body"), *tree.of("object"), *tree.of("statement_block")):
        unit = _unit(tree.source, body)
        if unit:
            break
    ends = tree.of("import_statement", "expression_statement", "lexical_declaration")
    ended = sum(tree.view[node.end - 1 : node.end] == b";" for node in ends)
    quote = "'"
    for node in tree.root.named_children:
        source = node.child("source")
        if source is not None:
            quote = source.text[0]
            break
    else:
        for text in tree.of("string")[:1]:
            quote = text.text[0]
    comma = "," if re.search(rb",\s*\n\s*\)", tree.view) else ""
    semicolon = ";" if 2 * ended >= len(ends) else ""
    return ScriptStyle(
        unit or "  ",
        semicolon,
        quote,
        fit_of(tree, *widths_of(file)),
        comma,
        _last(tree),
        _bare(tree),
    )


def _bare(tree: Tree) -> bool:
    """Whether arrow functions of one plain parameter mostly stand without parentheses around it."""
    arrows = tree.of("arrow_function")
    bare = sum(node.child("parameter") is not None for node in arrows)
    plain = [node.child("parameters") for node in arrows]
    dressed = sum(bool(re.fullmatch(r"\(\w+\)", node.text)) for node in plain if node is not None)
    return bare > dressed


def _last(tree: Tree) -> str:
    """Return how most multi-line objects and lists end their last part; a comma if there is none."""
    find = tree.view.find
    texts = [
        node.text[:-1]
        for node in tree.of("object", "array")
        if find(b"\n", node.start, node.end) >= 0
    ]
    ends = [
        re.sub(r"(//[^\n]*|/\*.*?\*/)\s*$", "", text.rstrip()).rstrip()[-1:]
        for text in texts
        if text.rstrip(" \t").endswith("\n")
    ]
    return "," if 2 * sum(end == "," for end in ends) >= len(ends) else ""


def _unit(source: SourceText, body: Node) -> str:
    for member in body.named_children:
        inner, outer = source.indent_at(member.start), source.indent_at(body.start)
        if inner.startswith(outer) and len(inner) > len(outer):
            return inner[len(outer) :]
    return ""


def fixed_ranges(tree: Tree) -> Callable[[int, int], list[tuple[int, int]]]:
    """Byte ranges whose white space is content: template literals and multi-line strings."""
    ranges = sorted(
        (node.start, node.end)
        for node in tree.of("template_string", "string")
        if b"\n" in tree.source.data[node.start : node.end]
    )

    def within(start: int, end: int) -> list[tuple[int, int]]:
        return [r for r in ranges if r[0] < end and r[1] > start]

    return within
