"""The module around a class: its imports, among them those of child components, and its own code."""

from __future__ import annotations

from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import Followed, Model
from clean_carry.component.model import Component
from clean_carry.source.javascript.tree import Node
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ScriptFile
from clean_carry.syntaxes.decorated_class.from_markup.names import class_name, tag_of
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.unsaid import Unsaid

# Imports from the old runtime that serve types alone, or only mark the object.
_TYPES_ONLY = frozenset({"defineComponent", "PropType"})
_ENDING = ".vue"


@dataclass
class ModuleCode:
    """Writes the code of one file around its component; raises `Unsaid`. `children` are the statements that
    import child components, by the class they import."""

    file: ScriptFile
    ledger: Ledger
    workspace: Workspace
    component: Component
    quote: str
    end: str
    children: dict[str, Node] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.source = self.file.source

    def _is_gone(self, statement: Node) -> bool:
        origin = statement.child("source") if statement.type == "import_statement" else None
        return origin is not None and origin.text[1:-1] == "vue"

    def around(self) -> tuple[Fragment, Fragment, Fragment]:
        """The imports, the code before the component, and the code behind it."""
        imports, code = Fragment(), Fragment()
        start, stop = self.file.script
        head = self.component.place.head.start
        here = start
        for statement in self.file.tree.root.named_children:
            if statement.type != "import_statement" or not start <= statement.start < stop:
                continue
            line = self.source.statement_line(statement.start, statement.end)
            code += self._between(here, line.start, head)
            here = line.end
            imports += self._import(statement)
        code += self._between(here, head, head)
        at = self.component.span.end
        rest = self.source.data[at:stop]
        at += len(rest) - len(rest.lstrip(b"; \t\n"))
        last = at + len(self.source.data[at:stop].rstrip())
        after = Fragment()
        if at < last:
            after = new("\n") + copy(self.source.span(at, last)) + new("\n")
        return imports, code, after

    def _between(self, start: int, end: int, head: int) -> Fragment:
        end = min(end, head)
        return copy(self.source.span(start, end)) if start < end else Fragment()

    def _import(self, statement: Node) -> Fragment:
        """An import as it stands, of the carried file for a child, or none for the old runtime."""
        line = self.source.statement_line(statement.start, statement.end)
        if self._is_gone(statement):
            self._needs_nothing(statement)
            self.ledger.settle(self.ledger.claim("import", line), "carried", "runtime-import")
            return Fragment()
        for name, own in self.children.items():
            if own is not statement:
                continue
            origin = statement.child("source")
            assert origin is not None
            stem = origin.text[1:-1].removesuffix(_ENDING)
            span = self.source.span(statement.start, statement.end)
            entry = self.ledger.claim("child-import", span)
            request = f"{self.quote}{stem}.{SYNTAX.suffix}{self.quote}"
            return new(f"import {{ {name} }} from {request}{self.end}\n", entry, "child-import")
        return copy(self.source.span(statement.start, statement.end)) + new("\n")

    def _needs_nothing(self, statement: Node) -> None:
        """Raises `Unsaid` where code beside the component uses what an import of the runtime gives."""
        parts = [p for p in self.component.members if isinstance(p, Followed | Model)]
        spans = [self.ledger.entries[part.entry].span for part in parts]
        for name in statement.walk():
            binding = self.file.names.module.names.get(name.text)
            if name.type != "identifier" or binding is None or name.text in _TYPES_ONLY:
                continue
            for ref in binding.references:
                inside = any(span.start <= ref.start < span.end for span in spans)
                if not inside and not statement.start <= ref.start < statement.end:
                    raise Unsaid("old-runtime-used", statement.text[:40], statement.start)

    def tag(self, tag: str, at: int) -> str:
        """The tag of a child component, which is imported from its carried file."""
        found = self._import_of(tag)
        if found is None:
            raise Unsaid("child-not-found", f"<{tag}>", at)
        origin = found.child("source")
        assert origin is not None
        request = origin.text[1:-1]
        if not self.workspace.is_carried(request):
            raise Unsaid("child-not-carried", f"<{tag}>", at)
        name = class_name(Path(request).name.removesuffix(_ENDING))
        self.children[name] = found
        return tag_of(name, self.workspace.prefix)

    def _import_of(self, tag: str) -> Node | None:
        """The statement that imports what a tag means from a single file."""
        plain = tag.replace("-", "").lower()
        for name, binding in self.file.names.module.names.items():
            if binding.kind != "import" or name.lower() != plain:
                continue
            statement = next(up for up in binding.node.up() if up.type == "import_statement")
            origin = statement.child("source")
            if origin is not None and origin.text[1:-1].endswith(_ENDING):
                return statement
        return None
