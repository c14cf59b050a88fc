"""Read the static hook that derives state from props, if it can be computed at once (`settling.py`)."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Code, Differs, Member, Operation, Patch, Read, StateWrite
from clean_carry.component.moments import Asked, Moment
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx_class.members.derived_state import (
    Branch,
    Condition,
    Derivation,
    derivation_of,
)
from clean_carry.syntaxes.jsx_class.members.members import Gathered, reads
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts, add, leave
from clean_carry.syntaxes.jsx_class.uses.state_writes import patch_of

# Nodes that need no parentheses after `!`.
_ATOMIC = frozenset({"identifier", "member_expression", "unary_expression"})


def prepare(facts: ClassFacts, found: Derivation) -> None:
    """Note what the hook does. Read before what uses the instance."""
    facts.handled.update(id(node) for node in found.patterns)
    _read_aliases(facts, found)
    for branch in found.branches:
        for compared in branch.compared:
            _note_comparison(facts, compared)
        _note_write(facts, branch)


def _read_aliases(facts: ClassFacts, found: Derivation) -> None:
    """Names for parts of inputs and state are read as these."""
    for ref, binding in facts.names.references_in(found.member):
        if binding is None or ref.text not in found.aliases or binding.node is ref:
            continue
        if not found.member.start <= binding.node.start < found.member.end:
            continue
        part, name = found.aliases[ref.text]
        if facts.deferred(ref):
            leave(facts, ref, "snapshot-alias", name)
            continue
        _note_read(facts, ref, Member("prop" if part == "props" else "state", name))


def _note_read(facts: ClassFacts, ref: Node, member: Member) -> None:
    span = facts.span(ref)
    head = f"{ref.text}: " if ref.type == "shorthand_property_identifier" else ""
    called = ref.field == "function"
    add(
        facts,
        ref,
        f"{member.kind}-read",
        lambda entry: Read(span, entry, False, member, head, called=called),
    )


def _note_comparison(facts: ClassFacts, compared: Node) -> None:
    left, right = compared.children[0], compared.children[-1]
    span, same = facts.span(compared), compared.has("===")

    def differs(entry: int) -> Operation:
        codes = facts.code(facts.span(left)), facts.code(facts.span(right))
        return Differs(span, entry, False, *codes, same)

    add(facts, compared, "difference", differs)


def _note_write(facts: ClassFacts, branch: Branch) -> None:
    given = branch.given
    statement = given.parent
    assert statement is not None
    place, literal = facts.tree.source.span(statement.start, given.end), facts.span(given)

    def write(entry: int) -> Operation:
        patches = tuple(_patch(facts, given, name, value) for name, value in branch.fields)
        code = facts.code(literal, kept=False)
        return StateWrite(place, entry, False, "statement", code, place, patches)

    add(facts, given, "derived-write", write)
    facts.raws[-1].span = place


def _patch(facts: ClassFacts, given: Node, name: str, value: Node | None) -> Patch:
    """One field that is given. A name that stands for a part of inputs or state is read as that."""
    if value is not None:
        return patch_of(facts, given, name, value)
    short = next(part for part in given.named_children if part.text == name)
    code = facts.code(facts.span(short), kept=False)
    plain = tuple(replace(o, shorthand="") if isinstance(o, Read) else o for o in code.operations)
    return Patch(name, Code(code.span, plain), function=False)


@reads("derivation")
def _derivation(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    found = derivation_of(member)
    assert found is not None
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, member))
    entry = facts.ledger.claim("derivation", facts.span(member))
    start = member.start
    for branch in found.branches:
        notes += tuple(facts.span(note) for note in _notes_before(branch, member, start))
        gathered.members.append(_moment(facts, branch, entry, notes))
        start, entry, notes = branch.given.end, -1, ()


def _notes_before(branch: Branch, member: Node, start: int) -> list[Node]:
    """The comments of the hook that stand before what a branch gives, and not inside of what is asked."""
    asked = [condition.node for condition in branch.conditions]
    return [
        node
        for node in member.walk()
        if node.type == "comment" and start <= node.start < branch.given.start
        if not any(a.start <= node.start < a.end for a in asked)
    ]


def _moment(facts: ClassFacts, branch: Branch, entry: int, notes: tuple[Span, ...]) -> Moment:
    first = branch.conditions[0].node if branch.conditions else branch.given.parent
    assert first is not None
    asked = tuple(_asked(facts, condition) for condition in branch.conditions)
    body = facts.code(facts.tree.source.span(first.start, branch.given.end), kept=False)
    unlike = tuple(
        (Member("state", name), Member("prop", read) if constant is None else constant.text)
        for name, read, constant in branch.unlike
    )
    return Moment("derived", body, entry, asked=asked, unlike=unlike, comments=notes)


def _asked(facts: ClassFacts, condition: Condition) -> Asked:
    node, negated = condition.node, condition.negated
    while node.type == "parenthesized_expression":
        node = node.named_children[0]
    if negated and node.type == "unary_expression" and node.has("!"):
        node, negated = node.named_children[0], False
    code = facts.code(facts.span(node))
    compares = [o for o in code.operations if isinstance(o, Differs) and o.span == code.span]
    loose = node.type not in _ATOMIC if negated else node.has("||") or node.has("??")
    return Asked(code, negated, loose and not compares)
