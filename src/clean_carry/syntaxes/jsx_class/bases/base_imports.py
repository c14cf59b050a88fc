"""The imports of a file into which bases were written: what these need comes, what nothing names goes."""

from __future__ import annotations

from pathlib import Path

from clean_carry.source.exports import Imported
from clean_carry.source.javascript.joining import Fit, fit_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.line_width import widths_of
from clean_carry.source.merged import Edit
from clean_carry.source.needed_names import import_lines
from clean_carry.syntaxes.jsx_class.bases.heritage import extends_clause, heritage


def imports_with(
    heirs: list[Node],
    wanted: dict[str, Imported],
    constants: list[str],
    tree: Tree,
    names: Names,
    file: Path,
) -> list[Edit]:
    """Return the new import statements; `wanted` are local names with their imports, `constants`
    declarations behind the imports."""
    fit = fit_of(tree, *widths_of(file))
    statements = tree.of("import_statement")
    edits: list[Edit] = []
    lines = import_lines(wanted, statements)
    gone = [clause for heir in heirs if (clause := extends_clause(heir)) is not None]
    for name in {h.text for heir in heirs if (h := heritage(heir)) is not None}:
        binding = names.module.names.get(name)
        if binding is None or any(
            not any(clause.start <= ref.start < clause.end for clause in gone)
            for ref in binding.references
        ):
            continue
        edit = _without(tree, binding.node, lines, fit)
        if edit.text:
            lines = ""
        edits.append(edit)
    at = statements[-1].end if statements else 0
    if lines:
        edits.append(Edit(at, at, f"\n{lines}" if statements else f"{lines}\n"))
    if constants:
        declared = "\n".join(constants)
        edits.append(Edit(at, at, f"\n\n{declared}" if statements else f"{declared}\n\n"))
    return edits


def _without(tree: Tree, name: Node, lines: str, fit: Fit) -> Edit:
    """A file's imports without a name; `lines` come where a whole statement goes.

    A wrapped statement that fits now is written on one line.
    """
    specifier = name.parent
    statement = next(up for up in name.up() if up.type == "import_statement")
    others = [n for n in statement.walk() if n.type == "import_specifier" and n is not specifier]
    default = specifier is not None and specifier.type == "import_clause"
    data = tree.source.data
    if default and others:
        end = name.end
        while data[end : end + 1] in (b" ", b",", b"\n"):
            end += 1
        return Edit(name.start, end, "")
    if not others:
        if lines:
            return Edit(statement.start, statement.end, lines)
        span = tree.source.statement_line(statement.start, statement.end)
        return Edit(span.start, span.end, "")
    assert specifier is not None
    start, end = specifier.start, specifier.end
    while data[end : end + 1] in (b" ", b",", b"\n") and data[end : end + 1]:
        end += 1
    if data[end : end + 1] == b"}":
        end = specifier.end
        while data[start - 1 : start] in (b" ", b",", b"\n"):
            start -= 1
        if data[end : end + 1] == b",":
            start, end = start + 1, end + 1
    text = statement.text
    if "\n" in text and "/" not in text.partition("}")[0]:
        low, high = start - statement.start, end - statement.start
        raw = text.encode()
        flat, was = _flat((raw[:low] + raw[high:]).decode()), _flat(text)
        if fit.columns(flat) <= fit.width < fit.columns(was):
            return Edit(statement.start, statement.end, flat)
    return Edit(start, end, "")


def _flat(text: str) -> str:
    """An import on one line."""
    words = " ".join(text.split())
    return words.replace(", }", " }")
