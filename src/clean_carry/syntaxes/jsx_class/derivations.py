"""Read the static hook that derives state from inputs, where it settles (`settling.py`)."""

from __future__ import annotations

from clean_carry.component.code import Differs, Operation, StateWrite
from clean_carry.component.model import Moment
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx_class.members import Gathered, reads
from clean_carry.syntaxes.jsx_class.operations import ClassFacts, add
from clean_carry.syntaxes.jsx_class.settling import Derivation, derivation_of
from clean_carry.syntaxes.jsx_class.writes import patch_of


def prepare(facts: ClassFacts, found: Derivation) -> None:
    """Note what the hook does. Read before what uses the instance."""
    compared, given = found.compared, found.given
    if compared is not None:
        left, right = compared.children[0], compared.children[-1]
        span = facts.span(compared)

        def differs(entry: int) -> Operation:
            codes = facts.code(facts.span(left)), facts.code(facts.span(right))
            return Differs(span, entry, False, *codes)

        add(facts, compared, "difference", differs)
    statement = given.parent
    assert statement is not None
    place, literal = facts.tree.source.span(statement.start, given.end), facts.span(given)

    def write(entry: int) -> Operation:
        patches = tuple(patch_of(facts, given, name, value) for name, value in found.fields)
        code = facts.code(literal, kept=False)
        return StateWrite(place, entry, False, "statement", code, place, patches)

    add(facts, given, "derived-write", write)
    facts.raws[-1].span = place


@reads("derivation")
def _derivation(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    found = derivation_of(member)
    assert found is not None
    entry = facts.ledger.claim("derivation", facts.span(member))
    start, end = found.condition.start, found.given.end
    condition = facts.code(facts.span(found.condition))
    body = facts.code(facts.tree.source.span(start, end), kept=False)
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, member))
    gathered.members.append(Moment("derived", body, entry, condition=condition, comments=notes))
