"""The defaults of a class's inputs: literals inside or after it, or a constant of the file."""

from __future__ import annotations

from clean_carry.component.code import Code
from clean_carry.component.model import Default
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    is_constant,
    is_function,
    is_identifier,
    is_module_name,
    is_number,
    property_name,
)
from clean_carry.syntaxes.jsx_class.class_file import ClassFile
from clean_carry.syntaxes.jsx_class.members import Gathered
from clean_carry.syntaxes.jsx_class.operations import ClassFacts
from clean_carry.syntaxes.jsx_class.recognise import Candidate


def defaults_of(
    file: ClassFile, candidate: Candidate, gathered: Gathered
) -> tuple[dict[str, Default], list[tuple[Span, int, str]]]:
    """The defaults of inputs, from a static member or from `X.defaultProps = …` after the class."""
    facts = gathered.facts
    value = gathered.defaults
    moved: list[tuple[Span, int, str]] = []
    statement = _outside_defaults(candidate)
    if value is None and statement is not None:
        assignment = statement.named_children[0]
        value = assignment.child("right")
        entry = file.ledger.claim("default-inputs", facts.span(statement))
        gathered.entries["defaults"] = entry
        moved.append(
            (
                facts.tree.source.statement_line(statement.start, statement.end),
                entry,
                "default-inputs-moved",
            )
        )
    if value is None:
        return {}, moved
    reads = _default_reads(candidate)
    if reads:
        facts.refuse("defaults-read-elsewhere", candidate.name, reads[0].start)
        return {}, moved
    holder = ""
    if value.type == "identifier":
        resolved = _constant_object(file, value)
        if resolved is None:
            facts.refuse("defaults-not-literal", value.text, value.start)
            return {}, moved
        declaration, literal, alone = resolved
        if alone:
            entry = file.ledger.claim("default-inputs", facts.span(declaration))
            moved.append(
                (
                    facts.tree.source.statement_line(declaration.start, declaration.end),
                    entry,
                    "default-inputs-moved",
                )
            )
        else:
            holder = value.text
        value = literal
    while value.type in ("as_expression", "satisfies_expression", "parenthesized_expression"):
        value = value.named_children[0]
    if value.type != "object":
        facts.refuse("defaults-not-literal", value.text[:60], value.start)
        return {}, moved
    return _literal_defaults(file, facts, value, holder), moved


def _literal_defaults(
    file: ClassFile, facts: ClassFacts, literal: Node, holder: str
) -> dict[str, Default]:
    found: dict[str, Default] = {}
    for part in literal.named_children:
        key, value = part.child("key"), part.child("value")
        if part.type == "shorthand_property_identifier":
            key = value = part
        name = property_name(key) if key is not None else None
        method = part.child("name") if part.type == "method_definition" and not holder else None
        if (
            method is not None
            and not part.has("get")
            and (own := property_name(method)) is not None
        ):
            found[own] = _method_default(facts, part, method)
            continue
        if name is None or value is None:
            facts.refuse("defaults-not-literal", part.text[:60], part.start)
            continue
        if holder:
            member = f"{holder}.{name}" if is_identifier(name) else f"{holder}['{name}']"
            same = Code(facts.span(value))
            if is_constant(value):
                found[name] = Default(same, "constant", -1, is_number(value))
            else:
                found[name] = Default(same, "name", -1, False, member)
            continue
        entry = facts.ledger.claim("default-input", facts.span(part))
        kind = "other"
        if is_constant(value):
            kind = "constant"
        elif is_module_name(value, file.names):
            kind = "name"
        elif is_function(value):
            kind = "function"
        elif value.type in ("object", "array"):
            kind = "object"
        code = facts.code(facts.span(value))
        notes = tuple(facts.span(note) for note in comments.leading(facts.tree, part))
        found[name] = Default(code, kind, entry, is_number(value), comments=notes)  # type: ignore[arg-type]
    return found


def _method_default(facts: ClassFacts, part: Node, name: Node) -> Default:
    """A default written as a method: a function."""
    entry = facts.ledger.claim("default-input", facts.span(part))
    code = facts.code(facts.tree.source.span(name.end, part.end))
    head = "async function" if part.has("async") else "function"
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, part))
    return Default(code, "function", entry, method=head + "*" * part.has("*"), comments=notes)


def _outside_defaults(candidate: Candidate) -> Node | None:
    for statement in candidate.siblings:
        if statement.type != "expression_statement":
            continue
        assignment = statement.named_children[0]
        left = assignment.child("left") if assignment.type == "assignment_expression" else None
        if left is not None and left.text == f"{candidate.name}.defaultProps":
            return statement
    return None


def _default_reads(candidate: Candidate) -> list[Node]:
    binding = candidate.binding
    found: list[Node] = []
    for ref in binding.references if binding is not None else ():
        parent = ref.parent
        part = parent.child("property") if parent is not None else None
        if parent is not None and part is not None and part.text == "defaultProps":
            if not is_write(parent):
                found.append(parent)
    return found


def _constant_object(file: ClassFile, name: Node) -> tuple[Node, Node, bool] | None:
    """(declaration, literal, used only here) of a module constant that is an object literal."""
    binding = file.names.meaning(name)
    if binding is None or binding.kind != "const" or binding.scope is not file.names.module:
        return None
    declarator = binding.node.parent
    declaration = declarator.parent if declarator is not None else None
    value = declarator.child("value") if declarator is not None else None
    if declarator is None or declaration is None or value is None or value.type != "object":
        return None
    top = declaration.parent is file.tree.root
    alone = top and len(binding.references) == 1 and len(declaration.named_children) == 1
    return declaration, value, alone
