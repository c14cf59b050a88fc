"""The module around a component with a template: its imports, and the code beside the component."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.members import Followed, Model
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.contract import Fitted, ScriptFile
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX
from clean_carry.syntaxes.unsaid import Unsaid

_TYPED = re.compile(rb"<script[^>]*\blang=['\"]tsx?['\"]")
# Imports from the old runtime that serve types alone, or only mark the object.
_TYPES_ONLY = frozenset({"defineComponent", "PropType"})


@dataclass
class ModuleCode:
    """Writes the code of one file around its component; raises `Unsaid`. `children` are the
    statements that import child components, by name."""

    file: ScriptFile
    fitted: Fitted
    component: Component
    quote: str
    end: str
    children: dict[str, Node] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.source, self.ledger = self.file.source, self.fitted.ledger

    def begins_with_import(self) -> bool:
        """Whether an import that stays stands first in the script."""
        first = self.file.tree.root.named_children[:1]
        return bool(first) and first[0].type == "import_statement" and not self._is_gone(first[0])

    def _is_gone(self, statement: Node) -> bool:
        """Whether a statement imports from the old runtime."""
        origin = statement.child("source") if statement.type == "import_statement" else None
        return origin is not None and origin.text[1:-1] == self.file.syntax.runtime.name

    def _is_idle(self, statement: Node) -> bool:
        """Whether what a statement imports only starts effects, which are written as hooks, or stands for
        types."""
        effects = [p for p in self.component.members if isinstance(p, Followed | Model)]
        spans = [self.ledger.entries[part.entry].span for part in effects]
        for name in statement.walk():
            binding = self.file.names.module.names.get(name.text)
            if name.type != "identifier" or binding is None or name.text in _TYPES_ONLY:
                continue
            for ref in binding.references:
                inside = any(span.start <= ref.start < span.end for span in spans)
                if not inside and not statement.start <= ref.start < statement.end:
                    return False
        return bool(spans)

    def around(self) -> tuple[Fragment, Fragment]:
        """The code before the component and behind it."""
        for statement in self.file.tree.root.named_children:
            if self._is_gone(statement) and not self._is_idle(statement):
                raise Unsaid("old-runtime-used", statement.text[:40], statement.start)
        start, end = self.file.script[0], self.component.place.head.start
        data = self.source.data
        while start < end and data[start : start + 1] in b"\n\r":
            start += 1
        for statement in self.file.tree.root.named_children:
            if self._is_gone(statement) and statement.start == start:
                line = self._import_gone(statement)
                start = line.end + len(data[line.end :]) - len(data[line.end :].lstrip(b"\n\r"))
                break
        before = self._without_children(start, end) if data[start:end].strip() else Fragment()
        at, stop = self.component.span.end, self.file.script[1]
        rest = data[at:stop]
        at += len(rest) - len(rest.lstrip(b"; \t\n"))
        stop = at + len(data[at:stop].rstrip())
        after = (
            new("\n") + copy(self.source.span(at, stop)) + new("\n") if at < stop else Fragment()
        )
        return before, after

    def _import_gone(self, statement: Node) -> Span:
        """The line of an import whose names nothing uses any more."""
        line = self.source.statement_line(statement.start, statement.end)
        self.ledger.settle(self.ledger.claim("import", line), "carried", "runtime-import")
        return line

    def _without_children(self, start: int, end: int) -> Fragment:
        """Return the code before the component, with child components imported from the carried
        files."""
        result, here, quote = Fragment(), start, self.quote
        gone = [("", one) for one in self.file.tree.root.named_children if self._is_gone(one)]
        for name, statement in sorted(
            [*self.children.items(), *gone], key=lambda one: one[1].start
        ):
            if not name:
                if statement.start >= here:
                    line = self._import_gone(statement)
                    result += copy(self.source.span(here, max(here, line.start)))
                    here = line.end
                continue
            origin = statement.child("source")
            assert origin is not None
            stem = origin.text[1:-1].removesuffix(".vue")
            entry = self.ledger.claim(
                "child-import", self.source.span(statement.start, statement.end)
            )
            ending = self._ending_of(origin.text[1:-1])
            text = f"import {name} from {quote}{stem}.{SYNTAX.suffix}.{ending}{quote}{self.end}"
            result += copy(self.source.span(here, statement.start)) + new(
                text, entry, "child-import"
            )
            here = statement.end
        return result + copy(self.source.span(here, end))

    def _ending_of(self, request: str) -> str:
        """The ending of a carried file: a script with types keeps them."""
        workspace = self.fitted.workspace
        place = workspace.resolve(request) or workspace.resolve(request.removesuffix(".vue"))
        if place is None:
            return "jsx"
        typed = place.suffix in (".ts", ".tsx") or _TYPED.search(place.read_bytes())
        return "tsx" if typed else "jsx"

    def tag(self, tag: str, at: int) -> str:
        """Return the name of a child component, which is imported from its carried file."""
        found = self._import_of(tag)
        if found is None:
            raise Unsaid("child-not-found", f"<{tag}>", at)
        name, statement = found
        origin = statement.child("source")
        if origin is None or not self.fitted.workspace.is_carried(origin.text[1:-1]):
            raise Unsaid("child-not-carried", f"<{tag}>", at)
        self.children[name] = statement
        return name

    def _import_of(self, tag: str) -> tuple[str, Node] | None:
        """The name in the script that a tag means, and the statement that imports it from a single file."""
        plain = tag.replace("-", "").lower()
        for name, binding in self.file.names.module.names.items():
            if binding.kind != "import" or name.lower() != plain:
                continue
            statement = next(up for up in binding.node.up() if up.type == "import_statement")
            origin = statement.child("source")
            if origin is not None and origin.text[1:-1].endswith(".vue"):
                return name, statement
        return None
