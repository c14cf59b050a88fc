"""Reads of a controller's props during construction: a component has them only afterwards.

Bindings of a scope are there before the controller is made, bindings of a controller after: statements
that ask for them, or set them, run when the runtime says that inputs are there.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.scoped_template.model import Directive

# Calls that run their callback later.
_LATER = frozenset(
    "$watch $watchCollection $watchGroup $on $observe on bind one addEventListener then catch finally "
    "setTimeout setInterval requestAnimationFrame $evalAsync $applyAsync push unshift register".split()
)
_TIMERS = frozenset({"$timeout", "$interval", "setTimeout", "setInterval", "$$rAF"})
_DECLARES = frozenset({"function_declaration", "class_declaration", "empty_statement"})


@dataclass(frozen=True)
class Waiting:
    """A statement that waits. `values` are the declarators whose values wait where the names, which
    others use, are declared where they were; None where the whole statement waits."""

    statement: Node
    values: list[Node] | None = None


def early_statements(directive: Directive, names: Names, body: Node) -> list[Waiting]:
    """The statements of a controller's body that must wait, in order: the first that needs an input and
    all after it that do more than to declare functions and give methods."""
    if directive.bound_to_controller or not directive.bindings:
        return []
    needing = _Needing(directive, names, body)
    statements = body.named_children
    first = next((n for n, s in enumerate(statements) if needing.statement(s)), None)
    if first is None:
        return []
    late = [
        s
        for s in statements[first:]
        if s.type not in _DECLARES and not _is_method(s) and s.type != "return_statement"
    ]
    found: list[Waiting] = []
    for number, statement in enumerate(late):
        if statement.type not in ("variable_declaration", "lexical_declaration"):
            found.append(Waiting(statement))
            continue
        declared = [d for d in statement.named_children if d.type == "variable_declarator"]
        if not _used_outside(names, declared, late):
            found.append(Waiting(statement))
            continue
        values = [d for d in declared if d.child("value") is not None]
        if number == 0:
            start = next((n for n, d in enumerate(values) if needing.statement(d)), 0)
            values = values[start:]
        values = [d for d in values if not _fixed(d)]
        if values:
            found.append(Waiting(statement, values))
    return found


def _used_outside(names: Names, declared: list[Node], late: list[Node]) -> bool:
    """Whether names are used by what does not wait."""
    for declarator in declared:
        name = declarator.child("name")
        binding = names.scope_at(declarator).find(name.text) if name is not None else None
        for ref in binding.references if binding is not None else []:
            if not any(s.start <= ref.start < s.end for s in late):
                return True
    return False


def _fixed(declarator: Node) -> bool:
    """A value that is the same whenever it is taken."""
    value = declarator.child("value")
    return value is not None and (
        value.is_function
        or value.type in ("string", "number", "true", "false", "null", "regex", "this")
        or value.text in ("[]", "{}")
    )


class _Needing:
    def __init__(self, directive: Directive, names: Names, body: Node) -> None:
        self.names, self.body = names, body
        self.spots = [
            use.ref
            for use in directive.scope.uses
            if (use.kind == "member" and use.name in directive.bindings)
            or use.kind in ("computed", "fill", "escape")
        ]
        self.spots += [
            literal
            for literal, uses in directive.scope.expressions
            if any(use.name in directive.bindings for use in uses) and _asked_now(literal)
        ]
        self.functions: dict[str, Node] = {}
        for node in body.walk():
            name = node.child("name")
            if node.type == "function_declaration" and name is not None:
                self.functions[name.text] = node
            left, right = node.child("left"), node.child("right")
            if node.type == "assignment_expression" and left is not None and right is not None:
                asked = left.child("property")
                if right.is_function and asked is not None:
                    self.functions.setdefault("." + asked.text, right)
            value = node.child("value")
            if (
                node.type == "variable_declarator"
                and value is not None
                and value.is_function
                and name is not None
            ):
                self.functions[name.text] = value
        self.known: dict[int, bool] = {}

    def statement(self, node: Node) -> bool:
        """Whether a statement needs an input while it runs."""
        return self.runs(node, node)

    def runs(self, node: Node, top: Node) -> bool:
        """Whether code below a node reads a prop at once, also through functions it calls."""
        if any(
            node.start <= spot.start < node.end and not self.late(spot, node) for spot in self.spots
        ):
            return True
        for call in node.walk():
            if call.type != "call_expression" or self.late(call, node):
                continue
            function = call.child("function")
            if function is None:
                continue
            asked = function.child("property")
            key = (
                function.text
                if function.type == "identifier"
                else ("." + asked.text if asked else "")
            )
            inner = self.functions.get(key)
            if inner is not None and self.function(inner):
                return True
        return False

    def function(self, node: Node) -> bool:
        if id(node) not in self.known:
            self.known[id(node)] = False
            body = node.child("body")
            self.known[id(node)] = body is not None and self.runs(body, node)
        return self.known[id(node)]

    def late(self, spot: Node, top: Node) -> bool:
        """Whether a place inside of a statement runs only later."""
        for node in spot.up():
            if node is top or node.start < top.start or node.end > top.end:
                return False
            if node.is_function and not _at_once(node):
                return True
        return False


def _at_once(function: Node) -> bool:
    """Whether a function is called where it stands: by itself, or by what goes through a list."""
    given = function.parent
    if given is not None and given.type == "parenthesized_expression":
        given = given.parent
    if given is None:
        return False
    if given.type == "call_expression" and function.field == "function":
        return True
    if given.type != "arguments" or given.parent is None:
        return False
    called = given.parent.child("function")
    if called is None:
        return False
    asked = called.child("property")
    return (asked.text if asked is not None else called.text) not in (_LATER | _TIMERS)


def _asked_now(literal: Node) -> bool:
    """Whether an expression is evaluated at once, not watched."""
    given = literal.parent
    call = given.parent if given is not None else None
    function = call.child("function") if call is not None else None
    asked = function.child("property") if function is not None else None
    return asked is not None and asked.text in ("$eval", "$apply")


def _is_method(statement: Node) -> bool:
    """A statement that only gives something a function."""
    if statement.type != "expression_statement" or not statement.named_children:
        return False
    assignment = statement.named_children[0]
    while assignment.type == "assignment_expression":
        left, right = assignment.child("left"), assignment.child("right")
        if left is None or right is None or left.type != "member_expression":
            return False
        if right.is_function:
            return True
        assignment = right
    return False
