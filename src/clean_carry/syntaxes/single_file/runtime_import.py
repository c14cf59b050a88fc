"""Imports of a single file from its framework, once its object has become statements."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.file import SingleFile

RUNTIME = "vue"


@dataclass
class RuntimeImport:
    """The import of the runtime in a file: its value import, where there is one."""

    file: SingleFile
    source: SourceText

    @property
    def statement(self) -> Node | None:
        """The first statement that imports values from the runtime."""
        for node in self.file.tree.root.named_children:
            origin = node.child("source") if node.type == "import_statement" else None
            if origin is not None and origin.text[1:-1] == RUNTIME and not node.has("type"):
                return node
        return None

    def names(self) -> dict[str, str]:
        """Return the imported names, with their local names."""
        found: dict[str, str] = {}
        for node in self.statement.walk() if self.statement is not None else ():
            if node.type == "import_specifier":
                name, alias = node.child("name"), node.child("alias")
                if name is not None:
                    found[name.text] = (alias or name).text
        return found

    def _idle(self) -> str:
        """The name that only served to wrap the object, and nothing names any more."""
        arguments = self.file.exported.literal.parent
        call = arguments.parent if arguments is not None and arguments.type == "arguments" else None
        callee = call.child("function") if call is not None else None
        name = callee.text.split(".")[0] if callee is not None else ""
        binding = self.file.names.module.names.get(name)
        return name if binding is not None and len(binding.references) == 1 else ""

    def brings(self, name: str) -> bool:
        """Whether a local name is imported from the runtime."""
        return name in self.names().values()

    def edit(self, added: list[str]) -> tuple[Span, str] | None:
        """(span, new text) of what is imported with `added`, without what only wrapped the object; None
        for no change.

        Added names come where there are names already, or where all else goes.
        """
        return self.edited(added, {self._idle()})

    def edited(self, added: list[str], idle: set[str]) -> tuple[Span, str] | None:
        """The same, without the local names that are `idle`."""
        statement = self.statement
        parts_of = statement.children if statement is not None else []
        clause = next((c for c in parts_of if c.type == "import_clause"), None)
        if statement is None or clause is None or clause.has("namespace_import"):
            return None
        group = next((c for c in clause.children if c.type == "named_imports"), None)
        default = next((c.text for c in clause.children if c.type == "identifier"), "")
        specifiers = [c for c in group.children if c.type == "import_specifier"] if group else []
        kept = [
            c.text
            for c in specifiers
            if (c.child("alias") or c.child("name") or c).text not in idle
        ]
        whole = [default] if default and default not in idle else []
        if group is None and whole:
            return None
        names = [*kept, *(name for name in added if name not in kept)]
        if len(kept) == len(specifiers) and len(whole) == bool(default) and not added:
            return None
        if not names and not whole:
            return self._line(statement), ""
        parts = [*whole, *([_group(group, names)] if names else [])]
        return self.source.span(clause.start, clause.end), ", ".join(parts)

    def _line(self, statement: Node) -> Span:
        """The line of a statement that goes, with what sets it off where the script begins with it."""
        line, data = self.source.statement_line(statement.start, statement.end), self.source.data
        if data[self.file.block.inner[0] : line.start].strip():
            return line
        blank = re.compile(rb"(?:[ \t]*\r?\n)*").match(data, line.end)
        return line._replace(end=blank.end()) if blank is not None else line


def _group(group: Node | None, names: list[str]) -> str:
    """Names in braces, one a line where they stood so."""
    text = group.text if group is not None else ""
    if "\n" not in text:
        return f"{{ {', '.join(names)} }}"
    indent = re.match(r"\{\s*?\n(\s*)", text)
    inner = indent[1] if indent is not None else "  "
    comma = "," if re.search(r",\s*\}$", text) else ""
    return "{\n" + ",\n".join(f"{inner}{name}" for name in names) + f"{comma}\n}}"
