"""The defaults of a class's inputs: literals inside or after it, or a constant of the file."""

from __future__ import annotations

from clean_carry.component.code import Code
from clean_carry.component.members import Static
from clean_carry.component.model import Default, DefaultKind, Kept
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
    runs_code,
)
from clean_carry.syntaxes.jsx_class.class_file import ClassFile
from clean_carry.syntaxes.jsx_class.members.members import Gathered, attached
from clean_carry.syntaxes.jsx_class.recognise import Candidate
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts
from clean_carry.syntaxes.jsx_class.uses.outside_uses import reads_defaults, reads_elements


def defaults_of(
    file: ClassFile, candidate: Candidate, gathered: Gathered
) -> tuple[dict[str, Default], list[tuple[Span, int, str]], Kept | None]:
    """The defaults of inputs, from a static member or from `X.defaultProps = …` after the class; what
    moves; and why they stay a property of the component, where they do."""
    facts = gathered.facts
    statement = _outside_defaults(candidate)
    member = gathered.defaults
    assignment = statement.named_children[0] if statement is not None and member is None else None
    value = assignment.child("right") if assignment is not None else member
    if value is None:
        return {}, [], None
    resolved = _constant_object(file, value) if value.type == "identifier" else None
    literal = resolved[1] if resolved is not None else value
    while literal.type in ("as_expression", "satisfies_expression", "parenthesized_expression"):
        literal = literal.named_children[0]
    holder = value.text if resolved is not None and not resolved[2] else ""
    kept = _why_kept(file, candidate, literal, holder)
    if kept is not None:
        if member is not None:
            _keep(gathered, member)
        return {}, [], kept
    moved: list[tuple[Span, int, str]] = []
    if assignment is not None and statement is not None:
        gathered.entries["defaults"] = _moved(file, facts, statement, moved)
    if resolved is not None and not holder:
        _moved(file, facts, resolved[0], moved)
    return _literal_defaults(file, facts, literal, holder), moved, None


def _moved(
    file: ClassFile, facts: ClassFacts, statement: Node, moved: list[tuple[Span, int, str]]
) -> int:
    """Note that a statement of defaults goes into the signature; its entry."""
    entry = file.ledger.claim("default-inputs", facts.span(statement))
    span = facts.tree.source.statement_line(statement.start, statement.end)
    moved.append((span, entry, "default-inputs-moved"))
    return entry


def _why_kept(file: ClassFile, candidate: Candidate, literal: Node, holder: str) -> Kept | None:
    """Why defaults cannot move: others read them, or what they are is not seen here."""
    if candidate.place.start in file.keeping:
        return Kept("pure-default-redraw", "", literal.start)
    reads = _default_reads(candidate)
    if reads:
        return Kept("defaults-read-elsewhere", candidate.name, reads[0].start)
    reader = reads_defaults(file.workspace.file, candidate.name)
    if reader:
        return Kept("defaults-read-elsewhere", reader, literal.start)
    if literal.type != "object":
        return Kept("defaults-not-literal", literal.text[:60], literal.start)
    named = (property_name(part.child("key") or part) for part in literal.named_children)
    keys = {name for name in named if name is not None}
    reader = reads_elements(file.workspace.file, keys)
    if reader:
        return Kept("defaults-read-elsewhere", f"{reader}, of elements", literal.start)
    for part in literal.named_children:
        if not _is_plain(part, bool(holder)):
            return Kept("defaults-not-literal", part.text[:60], part.start)
    return None


def _is_plain(part: Node, held: bool) -> bool:
    """Whether a part of an object is a default of its own; a method of one that is `held` has no name."""
    if part.type == "shorthand_property_identifier":
        return True
    if part.type == "method_definition":
        name = part.child("name")
        own = not held and not part.has("get") and not part.has("set")
        return own and name is not None and property_name(name) is not None
    key = part.child("key")
    return part.type == "pair" and key is not None and property_name(key) is not None


def _keep(gathered: Gathered, value: Node) -> None:
    """Let defaults inside of the class be a property of the function."""
    facts, member = gathered.facts, value.parent
    assert member is not None
    entry = gathered.entries.pop("defaults")
    code = facts.code(facts.span(value))
    gathered.statics.append(Static("defaultProps", code, entry, "", attached(facts, member)))


def _literal_defaults(
    file: ClassFile, facts: ClassFacts, literal: Node, holder: str
) -> dict[str, Default]:
    found: dict[str, Default] = {}
    for part in literal.named_children:
        key, value = part.child("key"), part.child("value")
        if part.type == "shorthand_property_identifier":
            key = value = part
        name = property_name(key) if key is not None else None
        method = part.child("name") if part.type == "method_definition" else None
        if method is not None:
            found[str(property_name(method))] = _method_default(facts, part, method)
            continue
        assert name is not None
        assert value is not None
        if holder:
            member = f"{holder}.{name}" if is_identifier(name) else f"{holder}['{name}']"
            same = Code(facts.span(value))
            if is_constant(value):
                found[name] = Default(same, "constant", -1, is_number(value))
            else:
                found[name] = Default(same, "name", -1, False, member)
            continue
        entry = facts.ledger.claim("default-input", facts.span(part))
        kind: DefaultKind = "other"
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
        found[name] = Default(
            code,
            kind,
            entry,
            is_number(value),
            comments=notes,
            runs_code=runs_code(value),
        )
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
