"""Whether code that runs when new inputs came, or before an update, does nothing where nothing changed.

The code is gone through with every input equal to itself before: `this.props.x` and `next.x` are one and
the same value, and conditions that test for a difference are false. In doubt the code counts as not idle.
"""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import member_name, property_name

_CALLS = ("call_expression", "new_expression", "assignment_expression", "await_expression",
          "augmented_assignment_expression", "update_expression", "yield_expression")  # fmt: skip
# The prefix of a field of the state, whose name may also be that of a prop.
_OF_STATE = "state "


def idle(
    body: Node,
    parameter: Node | None = None,
    state: Node | None = None,
    *,
    with_state: bool = False,
) -> bool:
    """Whether a hook does nothing where no input changed; `parameter` is that of the new inputs.

    `with_state` where it runs on new state as well, which is its parameter `state`.
    """
    holders = {"this.props": ""} | ({"this.state": _OF_STATE} if with_state else {})
    symbols: dict[str, str] = {}
    for given, part in ((parameter, ""), (state, _OF_STATE)):
        if given is not None and given.type == "identifier":
            holders[given.text] = part
        elif given is not None:
            _note_pattern(given, symbols, part)
    return _idle_block(body.named_children, _Equal(holders, symbols)) != "acts"


class _Equal:
    """The values equal to a prop: members of its holders, and names for them."""

    def __init__(self, holders: dict[str, str], symbols: dict[str, str]) -> None:
        self.holders, self.symbols = holders, symbols

    def symbol(self, node: Node) -> str | None:
        """The input a node is the value of."""
        while node.type in ("parenthesized_expression", "non_null_expression", "as_expression"):
            node = node.named_children[0]
        if node.type == "identifier":
            return self.symbols.get(node.text)
        if node.type in ("member_expression", "subscript_expression"):
            name = member_name(node)
            part = self.holders.get(node.children[0].text)
            if part is not None:
                return f"{part}{name}" if name is not None else None
            inner = self.symbol(node.children[0])
            return f"{inner}.{name}" if inner is not None and name is not None else None
        return None

    def truth(self, node: Node) -> bool | None:
        """Return the result of a condition; None if unknown."""
        match node.type:
            case "parenthesized_expression":
                return self.truth(node.named_children[0])
            case "true" | "false":
                return node.type == "true"
            case "unary_expression" if node.has("!"):
                inner = self.truth(node.named_children[0])
                return None if inner is None else not inner
            case "binary_expression":
                return self._binary(node)
        return None

    def fails(self, parts: list[Node]) -> bool:
        """Whether not all of some conditions can hold."""
        facts = {(self.symbol(_bare(part)), _negated(part)) for part in parts}
        known = any(s is not None and (s, not n) in facts for s, n in facts)
        return known or any(self.truth(part) is False for part in parts)

    def _binary(self, node: Node) -> bool | None:
        left, right = node.child("left"), node.child("right")
        if left is None or right is None:
            return None
        if node.has("!==") or node.has("!=") or node.has("===") or node.has("=="):
            one, other = self.symbol(left), self.symbol(right)
            if one is None or one != other:
                return None
            return node.has("===") or node.has("==")
        first, second = self.truth(left), self.truth(right)
        if node.has("&&"):
            if self.fails([p for p in _parts(node, "&&") if p is not node]):
                return False
            return False if False in (first, second) else (True if first and second else None)
        if node.has("||"):
            return True if True in (first, second) else (None if None in (first, second) else False)
        return None


def _parts(node: Node, operator: str) -> list[Node]:
    if node.type == "parenthesized_expression":
        return _parts(node.named_children[0], operator)
    if node.type == "binary_expression" and node.has(operator):
        return [part for side in node.named_children for part in _parts(side, operator)]
    return [node]


def _before_acting(condition: Node, calm: list[Node]) -> list[Node]:
    """The parts of a condition that are asked before one that acts."""
    parts = _parts(condition, "&&")
    first = next((at for at, part in enumerate(parts) if part not in calm), len(parts))
    return parts[:first]


def _negated(node: Node) -> bool:
    return node.type == "unary_expression" and node.has("!")


def _bare(node: Node) -> Node:
    return node.named_children[0] if _negated(node) else node


def _idle_block(statements: list[Node], equal: _Equal) -> str:
    """`idle`, `returns` (idle, and nothing after it runs) or `acts`."""
    for statement in statements:
        found = _idle(statement, equal)
        if found != "idle":
            return found
    return "idle"


def _idle(statement: Node, equal: _Equal) -> str:
    match statement.type:
        case "comment" | "empty_statement":
            return "idle"
        case "lexical_declaration" | "variable_declaration":
            return "acts" if _acts(statement) else _declared(statement, equal)
        case "statement_block":
            return _idle_block(statement.named_children, equal)
        case "return_statement":
            return "acts" if _acts(statement) else "returns"
        case "if_statement":
            condition = statement.child("condition")
            if condition is None:
                return "acts"
            asked = [part for part in _parts(condition, "&&") if not _acts(part)]
            truth = equal.truth(condition)
            if _acts(condition) and not equal.fails(_before_acting(condition, asked)):
                return "acts"
            then, other = statement.child("consequence"), statement.child("alternative")
            if other is not None and other.type == "else_clause":
                other = other.named_children[0]
            arms = [] if truth is False else [then]
            arms += [] if truth is True else [other]
            found = {_idle(arm, equal) if arm is not None else "idle" for arm in arms}
            # Where only one arm ends the hook, what follows may run.
            return "acts" if "acts" in found else ("idle" if "idle" in found else "returns")
    return "acts"


def _acts(node: Node) -> bool:
    return any(below.type in _CALLS for below in node.walk())


def _declared(statement: Node, equal: _Equal) -> str:
    for declarator in statement.named_children:
        target, value = declarator.child("name"), declarator.child("value")
        if target is None or value is None:
            continue
        if target.type == "object_pattern" and value.text in equal.holders:
            _note_pattern(target, equal.symbols, equal.holders[value.text])
        elif target.type == "identifier":
            symbol = equal.symbol(value)
            if symbol is not None and statement.has("const"):
                equal.symbols[target.text] = symbol
    return "idle"


def _note_pattern(pattern: Node, symbols: dict[str, str], holder: str) -> None:
    for part in pattern.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            symbols[part.text] = f"{holder}{part.text}"
        elif part.type == "pair_pattern":
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            if name is not None and value is not None and value.type == "identifier":
                symbols[value.text] = f"{holder}{name}"
