"""Values that several statements of a body work out: a list that is filled, a name that is given anew."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.source.javascript.mutations import asked_of
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.drawing.locals import body_of, holds_markup
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts

_STATEMENTS = frozenset(
    "expression_statement if_statement for_statement for_in_statement while_statement "
    "switch_statement".split()
)
_LEAVES = ("return_statement", "await_expression", "yield_expression", "this")


@dataclass(frozen=True)
class BuiltValue:
    """A local, or several that one pattern declares, and the statements that work them out, the declaration
    first: they stand together. `name` is what the value is called."""

    name: str
    bindings: tuple[Binding, ...]
    statements: tuple[Node, ...]

    @property
    def gives(self) -> str:
        """Return the result of the statements: the local, or an object of all."""
        names = [binding.name for binding in self.bindings]
        return names[0] if self.name == names[0] else f"{{ {', '.join(names)} }}"


def built_values(facts: FunctionFacts, hooks: set[int]) -> Iterator[BuiltValue]:
    """The locals of a body that statements behind their declaration fill or give anew."""
    body = body_of(facts.node)
    statements = body.named_children if body.type == "statement_block" else []
    scope = facts.names.inner_scope(facts.node)
    for at, statement in enumerate(statements):
        if statement.type not in ("lexical_declaration", "variable_declaration"):
            continue
        if len(statement.named_children) != 1 or id(statement) in hooks or holds_markup(statement):
            continue
        name = statement.named_children[0].child("name")
        if name is not None and name.type == "object_pattern":
            taken = _taken_with_defaults(statement.named_children[0], facts)
            if taken is not None:
                yield taken
            continue
        binding = scope.names.get(name.text) if scope is not None and name is not None else None
        if binding is None or binding.node is not name:
            continue
        group = [statement]
        for other in statements[at + 1 :]:
            if (
                other.type not in _STATEMENTS
                or id(other) in hooks
                or not _works_on(other, binding, facts)
            ):
                break
            group.append(other)
        if len(group) > 1 and not _changed_later(binding, group[-1].end):
            yield BuiltValue(binding.name, (binding,), tuple(group))


def _taken_with_defaults(declarator: Node, facts: FunctionFacts) -> BuiltValue | None:
    """`const { adult = 8, child = 4 } = prices || {}`: names that are given values where there is none."""
    pattern, value = declarator.child("name"), declarator.child("value")
    scope, statement = facts.names.inner_scope(facts.node), declarator.parent
    if pattern is None or value is None or scope is None or statement is None:
        return None
    if value.type == "identifier" or not any(
        part.type == "object_assignment_pattern" for part in pattern.named_children
    ):
        return None
    found = []
    for part in pattern.named_children:
        local = part.children[0] if part.type == "object_assignment_pattern" else part
        binding = scope.names.get(local.text)
        if binding is None or binding.node is not local or binding.written:
            return None
        found.append(binding)
    root = next(
        (n.text for n in value.walk() if n.type in ("identifier", "property_identifier")), ""
    )
    name = f"{root}Parts" if root else "parts"
    if name in scope.names or not found:
        return None
    return BuiltValue(name, tuple(found), (statement,))


def _works_on(statement: Node, binding: Binding, facts: FunctionFacts) -> bool:
    """Whether a statement changes this local, and nothing else outside of itself."""
    if holds_markup(statement) or any(below.type in _LEAVES for below in statement.walk()):
        return False
    changed = False
    for ref, meaning in facts.names.references_in(statement):
        if not (is_write(ref) or asked_of(ref)[0]):
            continue
        if meaning is binding:
            changed = True
        elif meaning is None or not statement.start <= meaning.node.start < statement.end:
            return False
    return changed


def _changed_later(binding: Binding, end: int) -> bool:
    return any(
        ref.start >= end and (is_write(ref) or asked_of(ref)[0]) for ref in binding.references
    )
