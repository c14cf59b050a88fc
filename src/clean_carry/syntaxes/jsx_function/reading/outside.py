"""Code of a script about a function beside it: checked types, defaults, an export of its own."""

from __future__ import annotations

from clean_carry.component.model import Default, DefaultKind
from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    is_constant,
    is_function,
    is_module_name,
    is_number,
    property_name,
    runs_code,
)
from clean_carry.source.places import folder_of
from clean_carry.source.workspace import Workspace, major, package_version
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts
from clean_carry.syntaxes.jsx_function.reading.recognise import Candidate

# From this version on the runtime takes no defaults of a function from a property (its upgrade guide).
_WITHOUT_DEFAULTS = 19


class OutsideReader:
    """Reads the statements about one function. `moved` are those that go: span, entry, rule; `literal` is
    the object of defaults, `checked` that of checked types."""

    def __init__(self, candidate: Candidate, facts: FunctionFacts, workspace: Workspace) -> None:
        self.candidate, self.facts, self.workspace = candidate, facts, workspace
        self.moved: list[tuple[Span, int, str]] = []
        self.carried_names: set[int] = set()
        self.literal: Node | None = None
        self.checked: Node | None = None
        self._wrappers(candidate.place)
        if candidate.exports is not None:
            self._goes(candidate.exports, "export", "class-to-file")
            self._wrappers(candidate.exports)
        for statement in facts.tree.root.named_children:
            name, value = self._assigned(statement)
            if name == "propTypes":
                self.checked = self._named(value)
            elif name == "defaultProps":
                self.literal = self._named(value)
                self._goes(statement, "default-inputs", "default-inputs-moved")
                self._check_version(statement)

    def _wrappers(self, node: Node) -> None:
        """The names of the runtime's wrappers around the function."""
        for below in node.walk():
            if below is self.candidate.node:
                break
            if below.type in ("identifier", "member_expression"):
                root = below.children[0] if below.type == "member_expression" else below
                self.carried_names.add(root.start)

    def _goes(self, statement: Node, notion: str, rule: str) -> None:
        span = self.facts.tree.source.statement_line(statement.start, statement.end)
        entry = self.facts.ledger.claim(notion, self.facts.span(statement))
        self.moved.append((span, entry, rule))

    def _assigned(self, statement: Node) -> tuple[str, Node | None]:
        """The name of a property that a statement gives the function, and its value."""
        if statement.type != "expression_statement":
            return "", None
        assignment = statement.named_children[0]
        left = assignment.child("left") if assignment.type == "assignment_expression" else None
        part = left.child("property") if left is not None else None
        holder = left.child("object") if left is not None else None
        if part is None or holder is None or holder.text != self.candidate.name:
            return "", None
        return part.text, assignment.child("right")

    def _named(self, value: Node | None) -> Node | None:
        """A value, or the one of the constant of the module that is named."""
        if value is None or value.type != "identifier":
            return value
        binding = self.facts.names.module.names.get(value.text)
        declarator = binding.node.parent if binding is not None else None
        return declarator.child("value") if declarator is not None else value

    def _check_version(self, statement: Node) -> None:
        version = major(package_version(folder_of(self.workspace.file), RUNTIME))
        if version and version >= _WITHOUT_DEFAULTS:
            self.facts.refuse("defaults-not-taken", self.candidate.name, statement.start)

    def defaults(self) -> dict[str, Default]:
        """The defaults of inputs that stand beside the function."""
        found: dict[str, Default] = {}
        for part in self.literal.named_children if self.literal is not None else ():
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if (
                self.literal is None
                or self.literal.type != "object"
                or name is None
                or value is None
            ):
                self.facts.refuse("defaults-not-literal", part.text[:40], part.start)
                continue
            entry = self.facts.ledger.claim("default-input", self.facts.span(part))
            code = self.facts.code(self.facts.span(value))
            found[name] = Default(
                code, self._kind(value), entry, is_number(value), runs_code=runs_code(value)
            )
        return found

    def _kind(self, value: Node) -> DefaultKind:
        if is_constant(value):
            return "constant"
        if is_module_name(value, self.facts.names):
            return "name"
        if is_function(value):
            return "function"
        return "object" if value.type in ("object", "array") else "other"
