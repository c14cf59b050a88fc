"""State derived from inputs by the static hook, where it settles at once.

A class asks the hook before every draw, and merges what it gives. A function writes its state while it
draws, and is then called again at once; so it asks until the hook gives nothing more. Both come to the same
where what is given makes the condition it was given on false: `if (props.at !== state.at) return { at:
props.at };`. Every other form is refused.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import plain_fields

HOOK = "getDerivedStateFromProps"
_PURE = frozenset(
    "identifier member_expression property_identifier binary_expression unary_expression null "
    "parenthesized_expression number string string_fragment true false undefined".split()
)
_FALSE = frozenset({"false", "null", "undefined", "0", "''", '""'})


@dataclass(frozen=True)
class Derivation:
    """A hook that settles: its condition, what it gives, and the comparison that becomes false."""

    member: Node
    names: tuple[str, str]
    condition: Node
    given: Node
    fields: tuple[tuple[str, Node | None], ...]
    compared: Node | None


def derivation_of(member: Node) -> Derivation | None:
    """Read the static hook; None where it is not seen to settle."""
    names, body = _parameters(member), member.child("body")
    statements = body.named_children if body is not None else []
    if names is None or not statements or statements[0].type != "if_statement":
        return None
    test, then = statements[0].child("condition"), statements[0].child("consequence")
    other = statements[0].child("alternative")
    rest = [*statements[1:], *(other.named_children if other is not None else [])]
    given = _given(then)
    if test is None or given is None or not all(_gives_nothing(part) for part in rest):
        return None
    condition = test.named_children[0]
    fields = plain_fields(given)
    if fields is None or any(below.type not in _PURE for below in condition.walk() if below.named):
        return None
    found = Derivation(member, names, condition, given, tuple(fields), None)
    return _settling(found)


def _parameters(member: Node) -> tuple[str, str] | None:
    parameters = member.child("parameters")
    given = parameters.named_children if parameters is not None else []
    patterns = [p.child("pattern") if p.child("pattern") is not None else p for p in given]
    names = [p.text for p in patterns if p is not None and p.type == "identifier"]
    if len(names) != len(given) or not 1 <= len(names) <= 2:
        return None
    return names[0], names[1] if len(names) == 2 else ""


def _given(then: Node | None) -> Node | None:
    """The object that is given where the condition holds."""
    parts = then.named_children if then is not None and then.type == "statement_block" else [then]
    if len(parts) != 1 or parts[0] is None or parts[0].type != "return_statement":
        return None
    value = parts[0].named_children[0] if parts[0].named_children else None
    return value if value is not None and value.type == "object" else None


def _gives_nothing(statement: Node) -> bool:
    if statement.type == "statement_block":
        return all(_gives_nothing(part) for part in statement.named_children)
    if statement.type != "return_statement":
        return False
    value = statement.named_children[0] if statement.named_children else None
    return value is None or value.text in ("null", "{}", "undefined")


def _settling(found: Derivation) -> Derivation | None:
    parts = _conjuncts(found.condition)
    texts = {part.text for part in parts}
    for name, value in found.fields:
        own = f"{found.names[1]}.{name}"
        new = value.text if value is not None else name
        for part in parts:
            if part.type == "unary_expression" and part.has("!"):
                if part.named_children[0].text == own and (new in texts or new == "true"):
                    return found
            if part.text == own and new in _FALSE:
                return found
            if part.type == "binary_expression" and part.has("!=="):
                if {part.children[0].text, part.children[-1].text} == {own, new}:
                    return replace(found, compared=part)
    return None


def _conjuncts(node: Node) -> list[Node]:
    if node.type == "parenthesized_expression":
        return _conjuncts(node.named_children[0])
    if node.type == "binary_expression" and node.has("&&"):
        return [part for side in node.named_children for part in _conjuncts(side)]
    return [node]
